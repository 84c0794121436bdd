package eagerneedle.core.benches;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

class BenchesTest {
    private static final LabUnit UNIT = LabUnit.parse("m/s^2");

    private static Quantity own(int bench, double value, double u) {
        return Quantity.of(
                value,
                u,
                UNIT,
                Leaf.typeA("own " + bench, "own of " + bench, "own " + bench, Double.POSITIVE_INFINITY));
    }

    private static List<Benches.Row> rows(double u, double... values) {
        List<Benches.Row> out = new ArrayList<>();
        for (int i = 0; i < values.length; i++) {
            out.add(new Benches.Row("bench " + (i + 1), own(i + 1, values[i], u)));
        }
        return out;
    }

    @Test
    void whatTwoBenchesShareIsNotAveragedDown() {
        Leaf balance = Leaf.typeA("balance", "the balance", "balance", Double.POSITIVE_INFINITY);
        List<Benches.Row> both = List.of(
                new Benches.Row("one", own(1, 9.80, 0.03).with(balance, 0.05)),
                new Benches.Row("two", own(2, 9.84, 0.06).with(balance, 0.05)));
        Benches b = Benches.of(both);
        // By hand: weights 1/0.03² and 1/0.06², that is 4 to 1; own shares √(0.8²·0.03² + 0.2²·0.06²), and 0.05 whole.
        assertThat(b.mean().value()).isCloseTo(0.8 * 9.80 + 0.2 * 9.84, within(1e-12));
        double alone = Math.hypot(0.8 * 0.03, 0.2 * 0.06);
        assertThat(b.mean().u()).isCloseTo(Math.hypot(alone, 0.05), within(1e-12));
        // By hand: the difference 0.04 over √(0.03² + 0.06²); the balance cancels.
        assertThat(b.chi2()).isCloseTo(0.04 * 0.04 / (0.0009 + 0.0036), within(1e-9));
        assertThat(b.between()).isZero();
        assertThat(b.apart()).isEmpty();
    }

    @Test
    void theScatterBetweenAlikeBenchesIsWhatIsLeftOfTheirs() {
        // All equally good: between² = s² - u², and the mean is the plain one with s/√n.
        double[] x = {9.70, 9.78, 9.81, 9.83, 9.88, 9.94};
        Benches b = Benches.of(rows(0.02, x));
        double mean = 9.8233333333333333;
        double s2 = 0;
        for (double v : x) {
            s2 += (v - mean) * (v - mean) / 5;
        }
        assertThat(b.between()).isCloseTo(Math.sqrt(s2 - 0.0004), within(1e-7));
        assertThat(b.mean().value()).isCloseTo(mean, within(1e-9));
        assertThat(b.mean().u()).isCloseTo(Math.sqrt(s2 / 6), within(1e-7));
        assertThat(b.probability()).isLessThan(1e-6);
        assertThat(b.apart()).as("they scatter all").isEmpty();
    }

    @Test
    void theOneThatDoesNotBelongIsNamed() {
        Benches b = Benches.of(rows(0.02, 9.80, 9.81, 9.79, 9.82, 9.80, 9.95, 9.81));
        assertThat(b.namesApart()).containsExactly("bench 6");
        assertThat(b.without(b.namesApart())).hasSize(6);
        assertThat(Benches.of(b.without(b.namesApart())).probability()).isGreaterThan(0.5);
    }

    @Test
    void ofGoodBenchesHardlyOneIsNamed() {
        Random random = new Random(5);
        int named = 0;
        int doubted = 0;
        int covered = 0;
        for (int i = 0; i < 1000; i++) {
            double[] x = random.doubles(12)
                    .map(d -> 9.8 + 0.02 * random.nextGaussian() + (d > 2 ? 1 : 0))
                    .toArray();
            Benches b = Benches.of(rows(0.02, x));
            named += b.apart().isEmpty() ? 0 : 1;
            doubted += b.probability() < 0.05 ? 1 : 0;
            covered += Math.abs(b.mean().value() - 9.8) < 1.96 * b.mean().u() ? 1 : 0;
        }
        // One in a hundred, and one in twenty, within four standard deviations of so many tries.
        assertThat(named).isLessThan(10 + 13);
        assertThat(doubted).isBetween(50 - 28, 50 + 28);
        assertThat(covered).isGreaterThan(950 - 28);
    }

    @Test
    void thatOfBenchesWhichScatterTheMeanIsBelieved() {
        Random random = new Random(6);
        int covered = 0;
        int named = 0;
        for (int i = 0; i < 1000; i++) {
            double[] x = new double[12];
            for (int k = 0; k < x.length; k++) {
                x[k] = 9.8 + 0.06 * random.nextGaussian() + 0.02 * random.nextGaussian();
            }
            Benches b = Benches.of(rows(0.02, x));
            covered += Math.abs(b.mean().value() - 9.8) < 2.2 * b.mean().u() ? 1 : 0;
            named += b.apart().isEmpty() ? 0 : 1;
        }
        assertThat(covered).isGreaterThan(950 - 28);
        assertThat(named).isLessThan(10 + 13);
    }

    @Test
    void exactOnesAndFewAreHeldTogetherToo() {
        Benches same = Benches.of(rows(0, 2, 2, 2));
        assertThat(same.mean().value()).isEqualTo(2);
        assertThat(same.between()).isZero();
        Benches exact = Benches.of(rows(0, 1, 2, 3));
        assertThat(exact.between()).isCloseTo(1, within(1e-6));
        assertThat(exact.chi2()).isNaN();
        assertThatThrownBy(() -> Benches.of(rows(1, 1))).hasMessageContaining("At least two");
    }
}
