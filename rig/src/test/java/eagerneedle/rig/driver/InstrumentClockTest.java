package eagerneedle.rig.driver;

import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.rig.driver.InstrumentClock.Verdict;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** An instrument's clock held against ours, without waiting: both times are arguments. */
class InstrumentClockTest {
    private static final long S = 1_000_000_000L;
    private final InstrumentClock clock = new InstrumentClock(false);
    private final List<Long> kept = new ArrayList<>();
    private final List<String> said = new ArrayList<>();
    private long held = Long.MIN_VALUE;
    private int lost;

    private void sample(long raw, long arrival) {
        Verdict v = clock.take(raw, arrival);
        if (v == Verdict.HELD || v == Verdict.HELD_INSTEAD) {
            lost += held == Long.MIN_VALUE ? 0 : 1;
            held = raw;
        } else if (v == Verdict.REFUSED) {
            lost++;
        } else if (v == Verdict.CONFIRMED) {
            kept.add(clock.time(held));
            kept.add(clock.time(raw));
            held = Long.MIN_VALUE;
        } else {
            lost += v == Verdict.PLACED_ALONE ? 1 : 0;
            held = Long.MIN_VALUE;
            kept.add(clock.time(raw));
        }
        said.addAll(clock.news());
    }

    /** So many samples at 10 a second, with a wire that delays up to 40 ms; returns where the arrival ended. */
    private long steady(int n, long raw, long arrival) {
        Random random = new Random(n);
        for (int i = 0; i < n; i++) {
            sample(raw + i * S / 10, arrival + i * S / 10 + random.nextInt(40_000_000));
        }
        return arrival + n * S / 10;
    }

    private void risesEvenly(double longest) {
        for (int i = 1; i < kept.size(); i++) {
            assertThat(kept.get(i) - kept.get(i - 1))
                    .as("sample " + i)
                    .isPositive()
                    .isLessThan((long) (longest * S));
        }
    }

    @Test
    void aSteadyClockIsTheTimeOfTheRun() {
        steady(300, 5 * S, 77 * S);
        assertThat(kept.get(0)).isZero();
        assertThat(kept.get(299)).isEqualTo(299 * S / 10);
        assertThat(said).isEmpty();
        assertThat(lost).isZero();
    }

    @Test
    void roundOf32BitsIsFollowed() {
        long start = InstrumentClock.WRAP - 10 * S;
        for (int i = 0; i < 200; i++) {
            sample((start + i * S / 10) % InstrumentClock.WRAP, 3 * S + i * S / 10);
        }
        assertThat(kept).hasSize(200);
        assertThat(kept.get(199)).isEqualTo(199 * S / 10);
        assertThat(said).hasSize(1).first().asString().contains("went round");
    }

    @Test
    void aGateMayWaitForMoreThanARound() {
        sample(1000 * S, 0);
        long later = 3 * InstrumentClock.WRAP / 2;
        sample((1000 * S + later) % InstrumentClock.WRAP, later);
        assertThat(kept.get(1)).isEqualTo(later);
    }

    @Test
    void aRestartIsFollowedAndNothingIsLost() {
        long end = steady(100, 50 * S, 0);
        steady(100, S / 5, end + 2 * S);
        assertThat(kept).hasSize(200);
        assertThat(lost).isZero();
        assertThat(said).hasSize(1).first().asString().contains("started anew");
        assertThat(kept.get(100) - kept.get(99))
                .as("the time it was away, by our clock")
                .isBetween(2 * S, 22 * S / 10);
        risesEvenly(2.3);
    }

    @Test
    void jumpsForwardAndBackAreFollowed() {
        long end = steady(100, 50 * S, 0);
        end = steady(100, 5000 * S, end);
        steady(100, 1234 * S, end);
        assertThat(kept).hasSize(300);
        assertThat(lost).isZero();
        assertThat(said).hasSize(2).allMatch(s -> s.contains("jumped by"));
        assertThat(kept.get(299)).isBetween(299 * S / 10 - S / 2, 299 * S / 10 + S / 2);
        risesEvenly(0.3);
    }

    @Test
    void aGarbledStampCostsOneSample() {
        for (int i = 0; i < 200; i++) {
            sample(i == 60 ? 999_999 * S : i == 130 ? 17 : 50 * S + i * S / 10, i * S / 10);
        }
        assertThat(kept).hasSize(198);
        assertThat(lost).isEqualTo(2);
        assertThat(said).isEmpty();
        risesEvenly(0.25);
    }

    @Test
    void aStalledWireIsNoJump() {
        long end = steady(100, 0, 0);
        for (int i = 0; i < 100; i++) {
            sample(10 * S + i * S / 10, end + 10 * S + i * 1000);
        }
        assertThat(kept).hasSize(200);
        assertThat(said).isEmpty();
        assertThat(kept.get(199)).isEqualTo(199 * S / 10);
    }

    @Test
    void aClockOfAnotherRateIsSaidOnce() {
        for (int i = 0; i < 600; i++) {
            sample(i * S / 10 * 103 / 100, i * S / 10);
        }
        assertThat(kept).hasSize(600);
        assertThat(said).hasSize(1).first().asString().contains("3 % too fast");
    }

    @Test
    void aClockThatStandsStillKeepsNothing() {
        steady(50, 0, 0);
        for (int i = 0; i < 50; i++) {
            sample(5 * S, 5 * S + i * S / 10);
        }
        assertThat(kept.size()).isLessThanOrEqualTo(51);
    }
}
