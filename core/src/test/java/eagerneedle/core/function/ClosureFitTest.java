package eagerneedle.core.function;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.calibration.ClosureReadings;
import eagerneedle.core.fit.Fit;
import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.formula.RowLabels;
import eagerneedle.core.formula.Scope;
import eagerneedle.core.formula.Value;
import eagerneedle.core.quantity.Coverage;
import eagerneedle.core.quantity.Distribution;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Two circles against each other from columns: by the calibration's own solution, by means of rows, by simulation. */
class ClosureFitTest {
    private static final LabUnit ARCSEC = LabUnit.parse("arcsec");
    private static final String FORMULA = "closure(x, lower, upper)";

    /** Readings of n intervals of one circle against m of the other. */
    private record Crossed(List<Quantity> x, List<Quantity> lower, List<Quantity> upper) {
        Fit fit(String formula) {
            return ((Value.Fitted) Formula.parse(formula)
                            .evaluate(Scope.over(
                                    "test",
                                    Map.of(
                                            "x", new Value.Column(x, null),
                                            "lower", new Value.Column(lower, null),
                                            "upper", new Value.Column(upper, null)))))
                    .fit();
        }

        Crossed without(int row) {
            Crossed c = new Crossed(new ArrayList<>(x), new ArrayList<>(lower), new ArrayList<>(upper));
            c.x.remove(row);
            c.lower.remove(row);
            c.upper.remove(row);
            return c;
        }
    }

    private static double[] closing(Random random, int n) {
        double[] e = random.doubles(n, -5, 5).toArray();
        double mean = Arrays.stream(e).average().orElse(0);
        return Arrays.stream(e).map(v -> v - mean).toArray();
    }

    private static Crossed crossed(double[] a, double[] b, Random random, double sd, double offset) {
        Crossed c = new Crossed(new ArrayList<>(), new ArrayList<>(), new ArrayList<>());
        for (int i = 0; i < a.length; i++) {
            for (int k = 0; k < b.length; k++) {
                c.x.add(Quantity.exact(a[i] - b[k] + offset + sd * random.nextGaussian(), ARCSEC));
                c.lower.add(Quantity.number(i + 1.0));
                c.upper.add(Quantity.number(k + 1.0));
            }
        }
        return c;
    }

    @Test
    void itIsWhatTheCalibrationOfTwoCirclesFinds() {
        Random random = new Random(11);
        int n = 8;
        double[][] readings = new double[n][n];
        Crossed c = crossed(closing(random, n), closing(random, n), random, 0.2, 0);
        for (int r = 0; r < n * n; r++) {
            int i = r / n;
            int k = Math.floorMod(r % n - i, n);
            readings[k][i] = c.x.get(r).value();
        }
        readings[3][2] = Double.NaN;
        Fit f = c.without(2 * n + (2 + 3) % n).fit(FORMULA);
        ClosureReadings.Solution s = new ClosureReadings("arcsec", "rezeroed", readings).solve("test");
        for (int i = 0; i < n; i++) {
            Quantity lower = f.parameter(i);
            assertThat(lower.value()).isCloseTo(s.lower().get(i).value(), within(1e-10));
            assertThat(lower.u()).isCloseTo(s.lower().get(i).u(), within(1e-10));
            assertThat(f.parameter(n + i).value()).isCloseTo(s.upper().get(i).value(), within(1e-10));
        }
        assertThat(f.names()).startsWith("lower_1").endsWith("upper_8");
        assertThat(f.dof()).isEqualTo(s.dof());
        assertThat(f.residualSd()).isCloseTo(s.sd(), within(1e-10));
        assertThat(f.covariance()[0][1])
                .isCloseTo(s.lower().get(0).covariance(s.lower().get(1)), within(1e-10));
    }

    /**
     * Every pair read once: an error is the mean of its readings less the mean of all; circles may differ in number.
     */
    @Test
    void whereAllPairsAreReadItIsAMean() {
        Random random = new Random(3);
        Crossed c = crossed(closing(random, 6), closing(random, 4), random, 0.3, 0);
        Fit f = c.fit(FORMULA);
        double all = c.x.stream().mapToDouble(Quantity::value).average().orElse(0);
        for (int i = 0; i < 6; i++) {
            double mean = c.x.subList(4 * i, 4 * i + 4).stream()
                    .mapToDouble(Quantity::value)
                    .average()
                    .orElse(0);
            assertThat(f.parameter(i).value()).isCloseTo(mean - all, within(1e-12));
        }
        assertThat(f.parameters().subList(0, 6).stream().reduce(Quantity::plus).orElseThrow())
                .satisfies(sum -> {
                    assertThat(sum.value()).isCloseTo(0, within(1e-12));
                    assertThat(sum.u()).isCloseTo(0, within(1e-12));
                });
    }

    @Test
    void whatAllReadingsShareCancelsAndWhatOneCarriesStays() {
        Random random = new Random(5);
        Crossed c = crossed(closing(random, 4), closing(random, 4), random, 0, 0);
        Leaf zero = Leaf.typeB("zero", "zero", "test", Distribution.NORMAL);
        Leaf one = Leaf.typeB("one", "one", "test", Distribution.NORMAL);
        c.x.replaceAll(q -> q.with(zero, 1));
        c.x.set(0, c.x.get(0).with(one, 1.6));
        Quantity lower = c.fit(FORMULA).parameter(0);
        assertThat(lower.contributions().getOrDefault(zero, 0.0)).isCloseTo(0, within(1e-12));
        // Its mean over four, less the mean over sixteen.
        assertThat(lower.contributions().get(one)).isCloseTo(1.6 * (1 / 4.0 - 1 / 16.0), within(1e-12));
    }

    @Test
    void intervalsHoldTheTruth() {
        int inside = 0;
        for (int seed = 0; seed < 1000; seed++) {
            Random random = new Random(seed);
            double[] a = closing(random, 5);
            Quantity q =
                    crossed(a, closing(random, 5), random, 0.4, 0).fit(FORMULA).parameter(4);
            inside += Math.abs(q.value() - a[4]) <= Coverage.DEFAULT.expanded(q) ? 1 : 0;
        }
        assertThat(inside).isBetween(925, 972);
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', textBlock = """
            closure(x, lower, lower)                | two columns, not one
            closure(x, lower - 1, upper)            | numbered 1, 2, 3
            closure(x, lower * 2, upper)            | Interval 1 of first was never read
            closure(x, lower, upper * 0 + 1)        | two intervals or more of second
            closure(x, column(1, 2), upper)         | needs the number of its interval
            closure(x, lower, upper, scatter: 'no') | scatter
            """)
    void whatIsNoClosureIsSaid(String formula, String says) {
        Random random = new Random(2);
        Crossed c = crossed(closing(random, 3), closing(random, 3), random, 0.1, 0);
        assertThatThrownBy(() -> c.fit(formula))
                .isInstanceOf(FormulaException.class)
                .hasMessageContaining(says);
    }

    @Test
    void readingsThatDoNotHangTogetherAreRefused() {
        Random random = new Random(2);
        Crossed c = crossed(closing(random, 2), closing(random, 2), random, 0.1, 0);
        // One against one and two against two alone.
        assertThatThrownBy(() -> c.without(1).without(1).fit("closure(x, lower, upper, scatter: 'stated')"))
                .hasMessageContaining("cannot be told from the others");
    }

    /** Columns that lack different rows are refused: as many numbers as readings, and none beside its own. */
    @Test
    void columnsThatLackDifferentRowsAreRefused() {
        Random random = new Random(2);
        Crossed c = crossed(closing(random, 3), closing(random, 3), random, 0.1, 0);
        Map<String, Value> names =
                Map.of("x", labelled(c.x, -1), "lower", labelled(c.lower, 3), "upper", labelled(c.upper, 5));
        assertThatThrownBy(() -> Formula.parse("closure(x, lower, upper)").evaluate(Scope.over("test", names)))
                .hasMessageContaining("needs the number of its interval");
        Map<String, Value> all =
                Map.of("x", labelled(c.x, -1), "lower", labelled(c.lower, -1), "upper", labelled(c.upper, -1));
        assertThat(Formula.parse("closure(x, lower, upper)").evaluate(Scope.over("test", all)))
                .isInstanceOf(Value.Fitted.class);
    }

    private static Value labelled(List<Quantity> rows, int without) {
        List<Quantity> kept = new ArrayList<>();
        List<RowLabels.Row> labels = new ArrayList<>();
        for (int r = 0; r < rows.size(); r++) {
            if (r != without) {
                kept.add(rows.get(r));
                labels.add(new RowLabels.Row("run " + r, "a", Map.of()));
            }
        }
        return new Value.Column(kept, new RowLabels("step", labels, List.of("a")));
    }
}
