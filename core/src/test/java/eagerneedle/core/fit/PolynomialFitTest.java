package eagerneedle.core.fit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.quantity.Distribution;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.trace.Trace;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import net.jqwik.api.constraints.IntRange;
import org.hipparchus.linear.EigenDecompositionSymmetric;
import org.hipparchus.linear.MatrixUtils;
import org.junit.jupiter.api.Test;

class PolynomialFitTest {
    private static final LabUnit M = LabUnit.parse("m");
    private static final LabUnit S = LabUnit.SECOND;

    private static List<Quantity> column(LabUnit unit, double... values) {
        List<Quantity> out = new ArrayList<>();
        for (double v : values) {
            out.add(Quantity.exact(v, unit));
        }
        return out;
    }

    private static Quantity with(double value, double u, String leaf) {
        return Quantity.of(value, u, M, Leaf.typeB(leaf, leaf, "test", Distribution.NORMAL));
    }

    @Property(tries = 60)
    void exactDataGiveTheirPolynomialBack(
            @ForAll @DoubleRange(min = -50, max = 50) double a,
            @ForAll @DoubleRange(min = -50, max = 50) double b,
            @ForAll @DoubleRange(min = -50, max = 50) double c,
            @ForAll @DoubleRange(min = -1000, max = 1000) double shift) {
        double[] x = new double[12];
        double[] y = new double[12];
        for (int i = 0; i < x.length; i++) {
            x[i] = shift + i * 0.7;
            y[i] = a + b * (x[i] - shift) + c * (x[i] - shift) * (x[i] - shift);
        }
        Fit f = PolynomialFit.ofPoints(column(S, x), column(M, y), 2, Scatter.FROM_RESIDUALS, "f", "s");
        double scale = 1 + Math.abs(a) + Math.abs(b) + Math.abs(c);
        assertThat(f.parameter(2).value()).isCloseTo(c, within(1e-9 * scale));
        assertThat(f.at(shift + 2.2).value()).isCloseTo(a + b * 2.2 + c * 2.2 * 2.2, within(1e-6 * scale));
        assertThat(f.residualSd()).isLessThan(1e-8 * scale * 60);
    }

    @Property(tries = 40)
    void orderOfRowsDoesNotMatter(@ForAll @IntRange(max = 10_000) int seed) {
        Random r = new Random(seed);
        List<double[]> rows = new ArrayList<>();
        for (int i = 0; i < 9; i++) {
            rows.add(new double[] {i, 3 + 2 * i + r.nextGaussian()});
        }
        Fit before = fit(rows);
        Collections.shuffle(rows, r);
        Fit after = fit(rows);
        for (int k = 0; k < 2; k++) {
            assertThat(after.parameter(k).value()).isCloseTo(before.parameter(k).value(), within(1e-11));
            assertThat(after.parameter(k).u()).isCloseTo(before.parameter(k).u(), within(1e-11));
        }
    }

    private static Fit fit(List<double[]> rows) {
        return PolynomialFit.ofPoints(
                column(S, rows.stream().mapToDouble(p -> p[0]).toArray()),
                column(M, rows.stream().mapToDouble(p -> p[1]).toArray()),
                1,
                Scatter.FROM_RESIDUALS,
                "f",
                "s");
    }

    @Property(tries = 40)
    void unitsDoNotChangeThePhysics(@ForAll @IntRange(max = 10_000) int seed) {
        Random r = new Random(seed);
        List<Quantity> x = new ArrayList<>();
        List<Quantity> y = new ArrayList<>();
        for (int i = 0; i < 8; i++) {
            x.add(with(i, 0.01, "x" + i));
            y.add(with(1 + 0.5 * i + 0.05 * r.nextGaussian(), 0.05, "y" + i));
        }
        LabUnit mm = LabUnit.parse("mm");
        for (Scatter s : Scatter.values()) {
            Fit metres = PolynomialFit.ofPoints(x, y, 1, s, "f", "s");
            Fit millimetres = PolynomialFit.ofPoints(
                    x.stream().map(q -> q.to(mm)).toList(),
                    y.stream().map(q -> q.to(mm)).toList(),
                    1,
                    s,
                    "f",
                    "s");
            assertThat(millimetres.parameter(0).in(M))
                    .isCloseTo(metres.parameter(0).value(), within(1e-10));
            assertThat(millimetres.parameter(1).value())
                    .isCloseTo(metres.parameter(1).value(), within(1e-10));
            assertThat(millimetres.parameter(1).u())
                    .isCloseTo(metres.parameter(1).u(), within(1e-10));
        }
    }

    @Property(tries = 40)
    void covarianceIsSymmetricAndPositiveSemiDefinite(@ForAll @IntRange(max = 10_000) int seed) {
        Random r = new Random(seed);
        double[] x = r.doubles(10, 0, 5).toArray();
        double[] y = r.doubles(10, 0, 5).toArray();
        double[][] c = PolynomialFit.ofPoints(column(S, x), column(M, y), 2, Scatter.FROM_RESIDUALS, "f", "s")
                .covariance();
        double[] scale = {Math.sqrt(c[0][0]), Math.sqrt(c[1][1]), Math.sqrt(c[2][2])};
        double[][] correlation = new double[3][3];
        for (int i = 0; i < 3; i++) {
            for (int j = 0; j < 3; j++) {
                assertThat(c[i][j]).isCloseTo(c[j][i], within(1e-12 * Math.abs(c[i][j])));
                correlation[i][j] = c[i][j] / (scale[i] * scale[j]);
            }
        }
        double[] eigen = new EigenDecompositionSymmetric(MatrixUtils.createRealMatrix(correlation)).getEigenvalues();
        assertThat(eigen[2]).isGreaterThan(-1e-9);
    }

    @Test
    void aSharedScaleReachesTheSlopeInFull() {
        Quantity scale = Quantity.of(1, 0.01, LabUnit.ONE, Leaf.typeB("scale", "scale", "", Distribution.NORMAL));
        List<Quantity> y =
                column(M, 1, 3, 5, 7).stream().map(q -> q.times(scale)).toList();
        Fit f = PolynomialFit.ofPoints(column(S, 0, 1, 2, 3), y, 1, Scatter.FROM_RESIDUALS, "f", "s");
        assertThat(f.parameter(1).u()).isCloseTo(0.02, within(1e-12));
        assertThat(f.parameter(1).correlation(scale)).isCloseTo(1, within(1e-12));
    }

    @Test
    void theDerivativeByAnAbscissaIsExact() {
        double[] x = {0, 1, 2.2, 3.1, 4};
        double[] y = {0.9, 3.2, 5.1, 7.3, 8.8};
        for (int i = 0; i < x.length; i++) {
            List<Quantity> xs = new ArrayList<>(column(M, x));
            List<Quantity> ys = column(M, y);
            Quantity shared = Quantity.of(x[i], 1e-3, M, Leaf.typeB("both", "both", "", Distribution.NORMAL));
            xs.set(i, shared);
            List<Quantity> moved = new ArrayList<>(column(M, x));
            moved.set(i, Quantity.exact(x[i] + 1e-6, M));
            double slopeHere = PolynomialFit.ofPoints(column(M, x), ys, 1, Scatter.FROM_RESIDUALS, "f", "s")
                    .parameter(1)
                    .value();
            double numerical = (PolynomialFit.ofPoints(moved, ys, 1, Scatter.FROM_RESIDUALS, "f", "s")
                                    .parameter(1)
                                    .value()
                            - slopeHere)
                    / 1e-6;
            // The leaf is shared with a second ordinate that does not matter, so that the residuals do not swallow it.
            List<Quantity> ysShared = new ArrayList<>(ys);
            int other = (i + 1) % x.length;
            ysShared.set(other, ys.get(other).plus(shared.scaled(1e-9).minus(Quantity.exact(x[i] * 1e-9, M))));
            Quantity slope = PolynomialFit.ofPoints(xs, ysShared, 1, Scatter.FROM_RESIDUALS, "f", "s")
                    .parameter(1);
            assertThat(slope.contribution(Leaf.typeB("both", "both", "", Distribution.NORMAL)))
                    .isCloseTo(numerical * 1e-3, within(1e-8));
        }
    }

    @Test
    void statedUncertaintiesWeightAndAreTestedByChiSquare() {
        List<Quantity> y = List.of(with(1.0, 0.1, "a"), with(2.1, 0.1, "b"), with(2.9, 0.1, "c"), with(4.05, 0.1, "d"));
        Fit f = PolynomialFit.ofPoints(column(S, 0, 1, 2, 3), y, 1, Scatter.FROM_UNCERTAINTIES, "f", "s");
        assertThat(f.parameter(1).u()).isCloseTo(0.1 / Math.sqrt(5), within(1e-12));
        assertThat(f.chiSquared()).isLessThan(6);
        assertThat(f.remarks()).anyMatch(r -> r.contains("agrees with the stated uncertainties"));
        List<Quantity> wild =
                List.of(with(1.0, 0.01, "a"), with(2.9, 0.01, "b"), with(2.0, 0.01, "c"), with(5.0, 0.01, "d"));
        assertThat(PolynomialFit.ofPoints(column(S, 0, 1, 2, 3), wild, 1, Scatter.FROM_UNCERTAINTIES, "f", "s")
                        .remarks())
                .anyMatch(r -> r.contains("scatter more than"));
    }

    @Test
    void uncertainAbscissaeWidenTheirPoints() {
        List<Quantity> x = List.of(with(0, 0.1, "xa"), with(1, 0.1, "xb"), with(2, 0.1, "xc"), with(3, 0.1, "xd"));
        Fit f = PolynomialFit.ofPoints(x, column(M, 0, 2, 4, 6), 1, Scatter.FROM_UNCERTAINTIES, "f", "s");
        assertThat(f.parameter(1).u()).isCloseTo(2 * 0.1 / Math.sqrt(5), within(1e-9));
    }

    @Test
    void aTraceFitGivesUnitsAndCarriesItsCalibration() {
        double[] t = new double[50];
        double[] v = new double[50];
        for (int i = 0; i < 50; i++) {
            t[i] = 0.02 * i;
            v[i] = 300 + 200 * t[i] + 400 * t[i] * t[i];
        }
        Leaf scale = Leaf.typeB("scale", "scale", "", Distribution.NORMAL);
        Leaf zero = Leaf.typeB("zero", "zero", "", Distribution.NORMAL);
        Trace trace = new Trace(
                "x",
                t,
                v,
                LabUnit.parse("mm"),
                0,
                List.of(new Trace.Shared(scale, x -> 1e-3 * x), new Trace.Shared(zero, x -> 2.0)));
        Fit f = PolynomialFit.ofTrace(trace, 2, "f", "s");
        assertThat(f.parameter(0).in(LabUnit.parse("mm"))).isCloseTo(300, within(1e-9));
        assertThat(f.parameter(1).unit().symbol()).isEqualTo("m/s");
        assertThat(f.parameter(1).value()).isCloseTo(0.2, within(1e-9));
        assertThat(f.parameter(2).value()).isCloseTo(0.4, within(1e-9));
        assertThat(f.parameter(2).contribution(scale)).isCloseTo(0.4e-3, within(1e-12));
        assertThat(f.parameter(2).contribution(zero)).isCloseTo(0, within(1e-12));
        assertThat(f.parameter(0).to(LabUnit.parse("mm")).contribution(zero)).isCloseTo(2, within(1e-9));
    }

    @Test
    void aTraceWithinOneStepIsFlooredByTheStep() {
        double[] t = {0, 1, 2, 3, 4, 5};
        double[] v = {2, 2, 2, 2, 2, 2};
        Fit f = PolynomialFit.ofTrace(new Trace("x", t, v, M, 0.5, List.of()), 1, "f", "s");
        assertThat(f.residualSd()).isCloseTo(0.5 / Math.sqrt(12), within(1e-12));
    }

    @Test
    void tooFewPointsAreToldInWords() {
        assertThatThrownBy(() ->
                        PolynomialFit.ofPoints(column(S, 1, 2), column(M, 1, 2), 1, Scatter.FROM_RESIDUALS, "f", "s"))
                .isInstanceOf(FitException.class)
                .hasMessage("A straight line needs at least 3 points; there are 2.");
        assertThatThrownBy(() -> PolynomialFit.ofPoints(
                        column(S, 1, 1, 1), column(M, 1, 2, 3), 1, Scatter.FROM_RESIDUALS, "f", "s"))
                .hasMessageContaining("different abscissae");
        assertThatThrownBy(() -> PolynomialFit.ofPoints(
                        column(S, 1, 2, 3), column(M, 1, 2), 1, Scatter.FROM_RESIDUALS, "f", "s"))
                .isInstanceOf(FitException.class);
        assertThatThrownBy(() -> PolynomialFit.ofTrace(
                        new Trace("x", new double[3], new double[3], M, 0, List.of()), 2, "f", "s"))
                .hasMessageContaining("at least 4 samples");
        Fit f = PolynomialFit.ofPoints(column(S, 1, 2, 4), column(M, 1, 2, 3), 1, Scatter.FROM_RESIDUALS, "f", "s");
        assertThatThrownBy(() -> f.parameter(2)).isInstanceOf(FitException.class);
    }

    @Test
    void residualsThatBendAreRemarked() {
        double[] x = new double[30];
        double[] y = new double[30];
        for (int i = 0; i < 30; i++) {
            x[i] = i;
            y[i] = 0.1 * i * i;
        }
        assertThat(PolynomialFit.ofPoints(column(S, x), column(M, y), 1, Scatter.FROM_RESIDUALS, "f", "s")
                        .remarks())
                .anyMatch(r -> r.contains("pattern"));
        Random r = new Random(4);
        assertThat(Residuals.runsScore(r.doubles(200, -1, 1).toArray())).isBetween(-3.0, 3.0);
        assertThat(Residuals.runsScore(new double[] {1, -1, 1})).isZero();
    }

    /**
     * The published scatter of the slope holds: over many simulated lines the stated interval covers the truth as often
     * as it says.
     */
    @Test
    void statedIntervalsCoverTheTruth() {
        Random r = new Random(99);
        int covered = 0;
        int trials = 2000;
        for (int k = 0; k < trials; k++) {
            double[] x = {1, 2, 3, 4, 5, 6};
            double[] y = new double[6];
            for (int i = 0; i < 6; i++) {
                y[i] = 2 + 3 * x[i] + 0.4 * r.nextGaussian();
            }
            Quantity slope = PolynomialFit.ofPoints(column(S, x), column(M, y), 1, Scatter.FROM_RESIDUALS, "f", "s")
                    .parameter(1);
            covered +=
                    Math.abs(slope.value() - 3) <= eagerneedle.core.quantity.Coverage.DEFAULT.expanded(slope) ? 1 : 0;
        }
        assertThat(covered / (double) trials).isBetween(0.937, 0.963);
    }
}
