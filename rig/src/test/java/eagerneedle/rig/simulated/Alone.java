package eagerneedle.rig.simulated;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.session.Run;
import java.util.Arrays;
import java.util.List;
import java.util.function.BiFunction;
import java.util.function.DoubleUnaryOperator;
import java.util.stream.IntStream;
import org.hipparchus.linear.CholeskyDecomposition;
import org.hipparchus.linear.MatrixUtils;
import org.hipparchus.linear.QRDecomposition;
import org.hipparchus.linear.RealMatrix;
import org.hipparchus.linear.RealVector;
import org.hipparchus.optim.nonlinear.vector.leastsquares.LeastSquaresBuilder;
import org.hipparchus.optim.nonlinear.vector.leastsquares.LevenbergMarquardtOptimizer;
import org.hipparchus.util.Pair;

/** What second reductions share: the numerical library alone, told only values and covariances of points. */
final class Alone {
    private Alone() {}

    static void same(double theirs, double ours) {
        assertThat(theirs).isCloseTo(ours, within(1e-9 * Math.abs(ours)));
    }

    static double mean(double[] v) {
        return Arrays.stream(v).average().orElseThrow();
    }

    /** Slope of a straight line by QR, all points alike. */
    static double slope(double[] x, double[] y) {
        double[][] rows =
                Arrays.stream(x).mapToObj(v -> new double[] {1, v - mean(x)}).toArray(double[][]::new);
        return new QRDecomposition(MatrixUtils.createRealMatrix(rows))
                .getSolver()
                .solve(MatrixUtils.createRealVector(y))
                .getEntry(1);
    }

    /** Mean of the samples of a run through a law from counts, and through its calibration where it has one. */
    static double mean(Done d, Run run, String channel, DoubleUnaryOperator law) {
        double[] v = Arrays.stream(d.raw(run, channel).values()).map(law).toArray();
        return d.rehearsal()
                .session()
                .latestCalibrationOf(channel)
                .map(c -> calibrated(c, mean(v)))
                .orElse(mean(v));
    }

    static double calibrated(Calibration c, double indication) {
        return c.coefficients().size() < 2
                ? indication
                : c.coefficients().get(0).value() + c.coefficients().get(1).value() * indication;
    }

    private static RealMatrix covariance(List<Quantity> v) {
        return MatrixUtils.createRealMatrix(v.stream()
                .map(a -> v.stream().mapToDouble(a::covariance).toArray())
                .toArray(double[][]::new));
    }

    /** Mean of correlated values by generalised least squares. */
    static double together(List<Quantity> v) {
        RealVector w = new CholeskyDecomposition(covariance(v), 1e-10, 1e-300)
                .getSolver()
                .solve(MatrixUtils.createRealVector(v.size()).mapAdd(1));
        return w.dotProduct(MatrixUtils.createRealVector(
                        v.stream().mapToDouble(Quantity::value).toArray()))
                / Arrays.stream(w.toArray()).sum();
    }

    /** Parameters of a curve that is linear in them, by generalised least squares in both coordinates. */
    static double[] generalised(
            List<Quantity> x, List<Quantity> y, DoubleUnaryOperator[] basis, DoubleUnaryOperator[] slopes) {
        double[] theta = new double[basis.length];
        for (int pass = 0; pass < 20; pass++) {
            double[] at = theta;
            List<Quantity> left = IntStream.range(0, y.size())
                    .mapToObj(i -> {
                        double g = IntStream.range(0, at.length)
                                .mapToDouble(k ->
                                        at[k] * slopes[k].applyAsDouble(x.get(i).value()))
                                .sum();
                        Quantity q = x.get(i);
                        return Quantity.combination(
                                List.of(y.get(i), q),
                                new double[] {1, -g},
                                y.get(i).value(),
                                y.get(i).unit());
                    })
                    .toList();
            RealMatrix root = MatrixUtils.inverse(new CholeskyDecomposition(covariance(left), 1e-10, 1e-300).getL());
            RealMatrix design = MatrixUtils.createRealMatrix(x.stream()
                    .map(q -> Arrays.stream(basis)
                            .mapToDouble(b -> b.applyAsDouble(q.value()))
                            .toArray())
                    .toArray(double[][]::new));
            theta = new QRDecomposition(root.multiply(design))
                    .getSolver()
                    .solve(root.operate(MatrixUtils.createRealVector(
                            y.stream().mapToDouble(Quantity::value).toArray())))
                    .toArray();
        }
        return theta;
    }

    /** What a point has for itself alone. */
    private static Quantity own(Quantity q, int i, List<Quantity> x, List<Quantity> y) {
        return q.keeping(l ->
                IntStream.range(0, x.size()).filter(k -> k != i).noneMatch(k -> has(x.get(k), l) || has(y.get(k), l)));
    }

    private static boolean has(Quantity q, Leaf l) {
        return q.contributions().containsKey(l);
    }

    /**
     * Parameters of a curve through points that are uncertain in both coordinates: the true abscissa of each is an
     * unknown of its own.
     *
     * @param curve of parameters and abscissa: the ordinate, its derivatives by the parameters, and its slope
     */
    static double[] latent(
            List<Quantity> x, List<Quantity> y, double[] start, BiFunction<double[], Double, double[]> curve) {
        int n = x.size();
        int p = start.length;
        double[][][] roots = new double[n][][];
        for (int i = 0; i < n; i++) {
            Quantity ox = own(x.get(i), i, x, y);
            Quantity oy = own(y.get(i), i, x, y);
            double ux = Math.max(ox.u(), 1e-12 * Math.abs(x.get(i).value()) + 1e-15);
            double cov = ox.covariance(oy);
            // Of the abscissa first: z, then what is left of the ordinate.
            roots[i] = new double[][] {{ux, cov / ux}, {Math.sqrt(oy.u() * oy.u() - cov * cov / (ux * ux))}};
        }
        double[] first = new double[p + n];
        Arrays.fill(first, 0, p, 1);
        double[] theta = new LevenbergMarquardtOptimizer()
                .withCostRelativeTolerance(1e-14)
                .withParameterRelativeTolerance(1e-14)
                .withOrthoTolerance(1e-14)
                .optimize(new LeastSquaresBuilder()
                        .start(first)
                        .target(new double[2 * n])
                        .maxEvaluations(5000)
                        .maxIterations(5000)
                        .model(v -> {
                            double[] at = IntStream.range(0, p)
                                    .mapToDouble(k -> start[k] * v.getEntry(k))
                                    .toArray();
                            double[] e = new double[2 * n];
                            double[][] j = new double[2 * n][p + n];
                            for (int i = 0; i < n; i++) {
                                double z = v.getEntry(p + i);
                                double[] f = curve.apply(at, x.get(i).value() - roots[i][0][0] * z);
                                double left = roots[i][1][0];
                                e[2 * i] = z;
                                j[2 * i][p + i] = 1;
                                e[2 * i + 1] = (y.get(i).value() - f[0] - roots[i][0][1] * z) / left;
                                for (int k = 0; k < p; k++) {
                                    j[2 * i + 1][k] = -f[1 + k] * start[k] / left;
                                }
                                j[2 * i + 1][p + i] = (f[1 + p] * roots[i][0][0] - roots[i][0][1]) / left;
                            }
                            return new Pair<>(MatrixUtils.createRealVector(e), MatrixUtils.createRealMatrix(j));
                        })
                        .build())
                .getPoint()
                .toArray();
        return IntStream.range(0, p).mapToDouble(k -> start[k] * theta[k]).toArray();
    }

    /** A straight line for {@link #latent}: intercept and slope. */
    static double[] line(double[] at, double x) {
        return new double[] {at[0] + at[1] * x, 1, x, at[1]};
    }
}
