package eagerneedle.core.calibration;

import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import eagerneedle.core.fit.FitException;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import java.util.ArrayList;
import java.util.List;
import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.ArrayRealVector;
import org.hipparchus.linear.MatrixUtils;
import org.hipparchus.linear.QRDecomposition;
import org.hipparchus.linear.RRQRDecomposition;
import org.hipparchus.linear.RealMatrix;

/**
 * Readings of two divided circles stacked on one axis, each interval of the lower against each of the upper.
 *
 * <p>In series k the lower circle is turned by its interval i and the upper turned back by its interval i + k; the
 * small angle that remains is a_i - b_(i+k). Since each circle closes, the a add up to nothing and so do the b: the
 * errors of all 2 n intervals follow by least squares, and no better standard is needed. Readings from one zero a
 * series are sums of these differences; they are fitted as they are, with the zero of each series unknown, which is the
 * same as differencing them with the correlation of their noise.
 *
 * @param unit symbol of the readings' unit, for instance arcsec
 * @param mode "rezeroed" when the zero is set at each step, "cumulative" when once a series
 * @param readings n series of n readings; NaN for one that is missing
 */
@JsonIgnoreProperties(ignoreUnknown = true)
public record ClosureReadings(String unit, String mode, double[][] readings) {
    private static final double STANDS_OUT = 4;

    /** Share of what is left of the design below which nothing is left: its entries are 0, 1 and -1. */
    private static final double RANK = 1e-9;

    /**
     * What follows.
     *
     * @param lower error of each interval of the lower circle, with its uncertainty and correlations
     * @param upper error of each interval of the upper circle
     * @param residuals of each reading; NaN where it is missing
     * @param sd standard deviation of one reading, from the residuals
     * @param dof degrees of freedom of that
     * @param closures what each series adds up to, NaN for an incomplete one; 0 but for noise
     * @param uClosure standard uncertainty of a closure, from {@code sd}
     * @param remarks readings that stand out, in words
     */
    public record Solution(
            List<Quantity> lower,
            List<Quantity> upper,
            double[][] residuals,
            double sd,
            int dof,
            double[] closures,
            double uClosure,
            List<String> remarks) {
        /** Error of each graduation of a circle, counted from the first: the sum of the intervals before it. */
        public static List<Quantity> cumulative(List<Quantity> intervals) {
            List<Quantity> out = new ArrayList<>();
            Quantity sum = Quantity.exact(0, intervals.get(0).unit());
            for (Quantity q : intervals) {
                out.add(sum);
                sum = sum.plus(q);
            }
            return out;
        }
    }

    public ClosureReadings {
        int n = readings.length;
        if (n < 3 || n > 36) {
            throw new IllegalArgumentException("A closure needs 3 to 36 intervals, not " + n + ".");
        }
        for (double[] row : readings) {
            if (row.length != n) {
                throw new IllegalArgumentException(
                        "Each of the " + n + " series of a closure has " + n + " readings, not " + row.length + ".");
            }
        }
    }

    private boolean cumulative() {
        return "cumulative".equals(mode);
    }

    /**
     * Interval errors of both circles.
     *
     * @param id identity of the calibration, root of the leaves' ids
     * @throws FitException when too many readings are missing
     */
    public Solution solve(String id) {
        return solve(id, true, -1);
    }

    /**
     * @param turned number of a series in which the upper circle is taken to have been turned the other way; below 0
     *     for none
     */
    private Solution solve(String id, boolean lookForMistakes, int turned) {
        int n = readings.length;
        List<double[]> rows = new ArrayList<>();
        List<Double> y = new ArrayList<>();
        List<int[]> where = new ArrayList<>();
        int p = 2 * (n - 1) + (cumulative() ? n : 0);
        for (int k = 0; k < n; k++) {
            double[] sum = new double[p];
            if (cumulative()) {
                double[] zero = new double[p];
                zero[2 * (n - 1) + k] = 1;
                rows.add(zero);
                y.add(0.0);
                where.add(null);
                sum[2 * (n - 1) + k] = 1;
            }
            for (int i = 0; i < n; i++) {
                if (!cumulative()) {
                    sum = new double[p];
                }
                interval(sum, 0, i, n, 1);
                interval(sum, n - 1, k == turned ? (k - i + n) % n : (i + k) % n, n, -1);
                if (!Double.isNaN(readings[k][i])) {
                    rows.add(sum.clone());
                    y.add(readings[k][i]);
                    where.add(new int[] {k, i});
                }
            }
        }
        int dof = rows.size() - p;
        if (dof < 1) {
            throw tooFew();
        }
        RealMatrix x = new Array2DRowRealMatrix(rows.toArray(new double[0][]));
        if (new RRQRDecomposition(x).getRank(RANK) < p) {
            throw tooFew();
        }
        QRDecomposition qr = new QRDecomposition(x);
        ArrayRealVector values =
                new ArrayRealVector(y.stream().mapToDouble(d -> d).toArray());
        ArrayRealVector solution = (ArrayRealVector) qr.getSolver().solve(values);
        double[] fitted = x.operate(solution.toArray());
        double ss = 0;
        double[][] residuals = new double[n][n];
        for (double[] r : residuals) {
            java.util.Arrays.fill(r, Double.NaN);
        }
        for (int j = 0; j < fitted.length; j++) {
            double r = y.get(j) - fitted[j];
            ss += r * r;
            if (where.get(j) != null) {
                residuals[where.get(j)[0]][where.get(j)[1]] = r;
            }
        }
        double sd = Math.sqrt(ss / dof);
        RealMatrix inverse = MatrixUtils.inverse(qr.getR().getSubMatrix(0, p - 1, 0, p - 1));
        List<Leaf> leaves = new ArrayList<>();
        for (int j = 0; j < p; j++) {
            leaves.add(Leaf.typeA(
                            "calibration:" + id + "#scatter" + j,
                            "closure: scatter of the readings",
                            "circle closure",
                            dof)
                    .inPool("calibration:" + id + "#scatter"));
        }
        List<Quantity> lower = errors(0, n, solution, inverse, sd, leaves);
        List<Quantity> upper = errors(n - 1, n, solution, inverse, sd, leaves);
        double[] closures = closures();
        double uClosure = sd * (cumulative() ? Math.sqrt(2) : Math.sqrt(n));
        return new Solution(
                lower,
                upper,
                residuals,
                sd,
                dof,
                closures,
                uClosure,
                lookForMistakes ? remarks(id, residuals, sd, dof) : List.of());
    }

    /** Adds an interval's error to a row; the last one is minus the sum of the others, since the circle closes. */
    private static void interval(double[] row, int from, int i, int n, double sign) {
        if (i < n - 1) {
            row[from + i] += sign;
        } else {
            for (int j = 0; j < n - 1; j++) {
                row[from + j] -= sign;
            }
        }
    }

    private List<Quantity> errors(
            int from, int n, ArrayRealVector solution, RealMatrix inverse, double sd, List<Leaf> leaves) {
        LabUnit u = LabUnit.parse(unit);
        List<Quantity> out = new ArrayList<>();
        for (int i = 0; i < n; i++) {
            double value = 0;
            double[] c = new double[leaves.size()];
            for (int j = 0; j < n - 1; j++) {
                double share = i < n - 1 ? (i == j ? 1 : 0) : -1;
                if (share != 0) {
                    value += share * solution.getEntry(from + j);
                    for (int l = 0; l < c.length; l++) {
                        c[l] += share * sd * inverse.getEntry(from + j, l);
                    }
                }
            }
            Quantity q = Quantity.exact(value, u);
            for (int l = 0; l < c.length; l++) {
                if (c[l] != 0) {
                    q = q.with(leaves.get(l), c[l]);
                }
            }
            out.add(q);
        }
        return out;
    }

    private double[] closures() {
        int n = readings.length;
        double[] out = new double[n];
        for (int k = 0; k < n; k++) {
            double sum = 0;
            for (int i = 0; i < n; i++) {
                sum += readings[k][i];
            }
            out[k] = cumulative() ? readings[k][n - 1] : sum;
        }
        return out;
    }

    /**
     * Names a reading without which the rest agrees far better, or two neighbours that agree far better when exchanged.
     */
    private List<String> remarks(String id, double[][] residuals, double sd, int dof) {
        int n = readings.length;
        int[] worst = null;
        for (int k = 0; k < n; k++) {
            for (int i = 0; i < n; i++) {
                if (!Double.isNaN(residuals[k][i])
                        && (worst == null || Math.abs(residuals[k][i]) > Math.abs(residuals[worst[0]][worst[1]]))) {
                    worst = new int[] {k, i};
                }
            }
        }
        if (worst == null || Math.abs(residuals[worst[0]][worst[1]]) < 2 * sd || dof < 4) {
            return List.of();
        }
        for (int series = 0; series < n && n > 3; series++) {
            Solution other = solve(id, false, series);
            if (sd > STANDS_OUT * other.sd()) {
                return List.of("In series " + (series + 1)
                        + " the upper circle seems to have been turned the wrong way: taken so, the scatter falls from "
                        + Notation.figures(sd, 2) + " to " + Notation.figures(other.sd(), 2) + " "
                        + LabUnit.parse(unit).pretty() + ".");
            }
        }
        int k = worst[0];
        for (int i = Math.max(0, worst[1] - 1); i <= Math.min(n - 2, worst[1]); i++) {
            double[][] exchanged = copy();
            exchanged[k][i] = readings[k][i + 1];
            exchanged[k][i + 1] = readings[k][i];
            Solution other = new ClosureReadings(unit, mode, exchanged).solve(id, false, -1);
            if (sd > STANDS_OUT / 2 * other.sd()) {
                return List.of("In series " + (k + 1) + ", readings " + (i + 1) + " and " + (i + 2)
                        + " look exchanged: the other way round the scatter falls from " + Notation.figures(sd, 2)
                        + " to " + Notation.figures(other.sd(), 2) + " "
                        + LabUnit.parse(unit).pretty() + ".");
            }
        }
        double[][] without = copy();
        without[k][worst[1]] = Double.NaN;
        try {
            double rest = new ClosureReadings(unit, mode, without)
                    .solve(id, false, -1)
                    .sd();
            if (sd > 1.5 * rest) {
                return List.of("In series " + (k + 1) + ", reading " + (worst[1] + 1) + " stands out by "
                        + Notation.figures(residuals[k][worst[1]], 2) + " "
                        + LabUnit.parse(unit).pretty() + "; without it the scatter falls to "
                        + Notation.figures(rest, 2) + ". Read it again.");
            }
        } catch (FitException e) {
            return List.of();
        }
        return List.of();
    }

    private double[][] copy() {
        double[][] c = new double[readings.length][];
        for (int k = 0; k < c.length; k++) {
            c[k] = readings[k].clone();
        }
        return c;
    }

    private static FitException tooFew() {
        return new FitException("Too many readings of the closure are missing: the errors of all intervals do not "
                + "follow from the rest.");
    }
}
