package eagerneedle.core.calibration;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Random;
import org.junit.jupiter.api.Test;

/** A novice who does only what the program says, at indicators whose trims disturb each other. */
class TrimAdvisorTest {
    private static final double FULL = 500;

    /** An indicator with two trims; each moves both readings, bends a little, and may turn the other way round. */
    private static final class Indicator {
        private final Random r;
        private final double offset;
        private final double gain;
        private final double zeroWay;
        private final double spanWay;
        private final double zeroOnGain;
        private final double spanOnZero;
        private final double noise;
        private double zeroTurns;
        private double spanTurns;

        Indicator(long seed, double coupling, double noise) {
            r = new Random(seed * 6364136223846793005L + 1442695040888963407L);
            offset = 60 * (2 * r.nextDouble() - 1);
            gain = 1 + 0.15 * (2 * r.nextDouble() - 1);
            zeroWay = (r.nextBoolean() ? 1 : -1) * (20 + 20 * r.nextDouble());
            spanWay = (r.nextBoolean() ? 1 : -1) * (0.05 + 0.05 * r.nextDouble());
            zeroOnGain = 0.002 * coupling * (2 * r.nextDouble() - 1);
            spanOnZero = FULL * coupling * (2 * r.nextDouble() - 1);
            this.noise = noise;
        }

        double read(double load) {
            double g = gain + spanWay * spanTurns + zeroOnGain * zeroWay * zeroTurns;
            double o = offset + zeroWay * zeroTurns * (1 + 0.02 * zeroTurns) + spanOnZero * spanWay * spanTurns;
            return g * load + o * (0.9 + 0.1 * g) + noise * r.nextGaussian();
        }
    }

    /** Turns by what is said, and by nothing else. */
    private static TrimAdvisor adjust(Indicator it, TrimAdvisor.Goal goal, int[] predicted) {
        TrimHint zero = new TrimHint("ZERO", goal.noise());
        TrimHint span = new TrimHint("SPAN", goal.noise());
        TrimAdvisor a = TrimAdvisor.start(goal);
        Random hand = new Random(17);
        int acts = 0;
        while (!a.done() && !a.givenUp()) {
            TrimAdvisor.Instruction now = a.next();
            double load = now.load() == TrimAdvisor.Load.FULL ? FULL : 0;
            double before = it.read(load);
            double reading = before;
            if (now.trim() != TrimAdvisor.Trim.NEITHER) {
                TrimHint hint = now.trim() == TrimAdvisor.Trim.ZERO ? zero : span;
                for (TrimHint.Turn t = hint.at(reading, now); t.far() != TrimHint.Far.STOP; t = hint.at(reading, now)) {
                    double turn = (t.clockwise() ? 1 : -1)
                            * t.share()
                            * (0.6 + 0.8 * hand.nextDouble())
                            * switch (t.far()) {
                                case FURTHER -> 0.15;
                                case LITTLE -> 0.02;
                                default -> 0.002;
                            };
                    if (now.trim() == TrimAdvisor.Trim.ZERO) {
                        it.zeroTurns += turn;
                    } else {
                        it.spanTurns += turn;
                    }
                    reading = it.read(load);
                    assertThat(++acts).as("turns of a patient novice").isLessThan(3000);
                }
            }
            a = a.taken(before, reading);
            if (predicted[0] < 0 && a.predictedPasses() >= 0) {
                predicted[0] = a.predictedPasses();
            }
        }
        return a;
    }

    @Test
    void hundredRandomIndicatorsConvergeInTheNumberOfPassesForetold() {
        int asForetold = 0;
        int most = 0;
        for (int seed = 0; seed < 100; seed++) {
            int[] predicted = {-1};
            TrimAdvisor a = adjust(new Indicator(seed, 0.6, 0.01), new TrimAdvisor.Goal(0, FULL, 0.5, 0.01), predicted);
            assertThat(a.done()).as("rig %d holds in the end", seed).isTrue();
            most = Math.max(most, a.passes());
            asForetold += a.passes() == predicted[0] ? 1 : 0;
        }
        assertThat(most).isEqualTo(2);
        assertThat(asForetold).isEqualTo(100);
    }

    @Test
    void anIndicatorThatHoldsAlreadyIsLeftAlone() {
        TrimAdvisor a = TrimAdvisor.start(new TrimAdvisor.Goal(0, 500, 0.5, 0.01));
        assertThat(a.next().says()).startsWith("Take all load off");
        a = a.taken(0.1, 0.1);
        assertThat(a.next().load()).isEqualTo(TrimAdvisor.Load.FULL);
        a = a.taken(499.8, 499.8);
        assertThat(a.done()).isTrue();
        assertThat(a.passes()).isZero();
        assertThat(a.predictedPasses()).isZero();
    }

    @Test
    void thePlainWayRoundTakesMorePasses() {
        // Zero, span, zero, span ... by aiming at the marks themselves, at a strongly coupled indicator.
        Indicator it = new Indicator(3, 0.6, 0);
        int plain = 0;
        while ((Math.abs(it.read(0)) > 0.5 || Math.abs(it.read(FULL) - FULL) > 0.5) && plain < 50) {
            it.zeroTurns -= it.read(0) / it.zeroWay;
            it.spanTurns -= (it.read(FULL) - FULL) / (it.spanWay * (FULL + it.spanOnZero));
            plain++;
        }
        int guided = adjust(new Indicator(3, 0.6, 0.01), new TrimAdvisor.Goal(0, FULL, 0.5, 0.01), new int[] {-1})
                .passes();
        assertThat(guided).isLessThanOrEqualTo(plain);
    }

    @Test
    void theHintLearnsWhichWayATrimWorks() {
        TrimHint h = new TrimHint("ZERO", 0.01);
        TrimAdvisor.Instruction to =
                new TrimAdvisor.Instruction(TrimAdvisor.Load.NONE, TrimAdvisor.Trim.ZERO, 0, 0.1, "");
        assertThat(h.at(10, to).says()).isEqualTo("Turn ZERO a little clockwise and watch.");
        assertThat(h.at(10.01, to).says()).startsWith("Nothing moved");
        assertThat(h.at(11, to).says()).isEqualTo("Turn ZERO further anticlockwise.");
        assertThat(h.at(0.9, to).says()).isEqualTo("Turn ZERO a little anticlockwise.");
        assertThat(h.at(0.3, to).says()).isEqualTo("Turn ZERO a hair anticlockwise.");
        assertThat(h.at(-0.3, to).says()).isEqualTo("Turn ZERO back half as far, clockwise.");
        assertThat(h.at(0.05, to).far()).isEqualTo(TrimHint.Far.STOP);
        assertThatThrownBy(() -> new TrimAdvisor.Goal(0, 0, 1, 0.1)).isInstanceOf(IllegalArgumentException.class);
    }
}
