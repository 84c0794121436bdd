package eagerneedle.core.judge;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.quantity.Distribution;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

class StandingOutTest {
    private static final LabUnit VOLT = LabUnit.parse("V");
    private static final Leaf SHARED = Leaf.typeB("shared", "meter", "meter", Distribution.NORMAL);

    private static Quantity of(double value, double u, int i) {
        return Quantity.of(value, u, VOLT, Leaf.typeB("own" + i, "own", "own", Distribution.NORMAL));
    }

    private static List<String> names(int n) {
        return IntStream.range(0, n).mapToObj(i -> "bench " + (i + 1)).toList();
    }

    /** 9.95 against the mean 9.805(14) of the others: 0.145 / 0.0245. */
    @Test
    void theFurthestIsNamedByHowFarItIs() {
        StandingOut s = StandingOut.of(names(3), List.of(of(9.80, 0.02, 0), of(9.81, 0.02, 1), of(9.95, 0.02, 2)));
        assertThat(s.apart()).singleElement().satisfies(a -> {
            assertThat(a.name()).isEqualTo("bench 3");
            assertThat(a.by()).isCloseTo(0.145 / (0.02 * Math.sqrt(1.5)), within(1e-9));
        });
        assertThat(s.sentence()).isEqualTo("bench 3 stands out, by 5.9 standard uncertainties; the other 2 agree.");
    }

    /** One uncertainty of 0.5 that all share says nothing of their differences. */
    @Test
    void whatIsSharedCancels() {
        List<Quantity> all = new ArrayList<>();
        for (int i = 0; i < 5; i++) {
            all.add(of(i == 4 ? 10.2 : 10 + 0.01 * i, 0.02, i).with(SHARED, 0.5));
        }
        assertThat(StandingOut.of(names(5), all).apart())
                .extracting(StandingOut.Apart::name)
                .containsExactly("bench 5");
    }

    @Test
    void whereAllAreGoodOneInTwentySetsIsSuspectedAndNoMore() {
        Random random = new Random(11);
        int suspected = 0;
        int found = 0;
        for (int k = 0; k < 2000; k++) {
            List<Quantity> all = new ArrayList<>();
            for (int i = 0; i < 8; i++) {
                all.add(of(10 + 0.02 * random.nextGaussian(), 0.02, i));
            }
            suspected += StandingOut.of(names(8), all).apart().isEmpty() ? 0 : 1;
            all.set(5, of(all.get(5).value() + 0.12, 0.02, 5));
            found += StandingOut.of(names(8), all).apart().stream()
                            .anyMatch(a -> a.name().equals("bench 6"))
                    ? 1
                    : 0;
        }
        assertThat(suspected).isBetween(60, 125);
        assertThat(found).isGreaterThan(1900);
    }

    @Test
    void exactNumbersAndTooFewAreSaid() {
        List<Quantity> exact = List.of(
                Quantity.exact(1, VOLT), Quantity.exact(1, VOLT), Quantity.exact(1, VOLT), Quantity.exact(2, VOLT));
        assertThat(StandingOut.of(names(4), exact).sentence()).isEqualTo("bench 4 stands out; the other 3 agree.");
        assertThat(StandingOut.of(names(3), exact.subList(0, 3)).sentence()).isEqualTo("All 3 agree with each other.");
        assertThatThrownBy(() -> StandingOut.of(names(2), exact.subList(0, 2)))
                .hasMessageContaining("fewer than three");
    }
}
