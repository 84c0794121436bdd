package eagerneedle.core.fit;

import java.util.ArrayList;
import java.util.List;
import org.hipparchus.exception.MathRuntimeException;
import org.hipparchus.linear.MatrixUtils;
import org.hipparchus.linear.RealMatrix;
import org.jspecify.annotations.Nullable;

/**
 * Least squares in plain numbers: finds the parameters of a curve and says whether it really found them.
 *
 * <p>A curve that is linear in all its parameters is solved at once by QR. Otherwise Levenberg-Marquardt (Hipparchus)
 * runs from the start given, and again from that start with the parameters in which the curve is linear put at their
 * best (separable least squares, Golub and Pereyra 1973), and from starts around it where the first two disagree or
 * fail; the lowest sum of squares wins. An end point counts as found only if the residuals are orthogonal to the
 * tangent plane there (the relative offset of Bates and Watts 1981), every parameter acts on the curve, and none
 * depends on the others.
 */
final class Regression {
    private static final int MOST_STEPS = 2000;
    /** Steps from a start that is only tried to see whether there is a better end than the one found. */
    private static final int LOOKING_STEPS = 30;

    private static final double LARGEST_OFFSET = 1e-4;
    private static final int FEW = 2_000;
    private static final int LARGE = 20_000;

    /**
     * What is known of the points.
     *
     * @param uY n standard uncertainties of the ordinates; null where the points count alike
     * @param uX n standard uncertainties of the abscissae, or null
     * @param covariance n covariances of abscissa and ordinate of the same point, or null
     * @param whole from n slopes of the curve to the n by n covariance of y - slope x, for generalised least squares;
     *     or null
     */
    record Weights(
            double @Nullable [] uY,
            double @Nullable [] uX,
            double @Nullable [] covariance,
            java.util.function.@Nullable Function<double[], double[][]> whole) {
        Weights(
                double @Nullable [] uY,
                double @Nullable [] uX,
                double @Nullable [] covariance,
                java.util.function.@Nullable Function<double[], double[][]> whole) {
            this.uY = uY;
            this.uX = uX;
            this.covariance = covariance;
            this.whole = whole;
        }

        /**
         * All points count alike, and their residuals are to tell the scatter: one more point than parameters is
         * needed.
         */
        static final Weights NONE = new Weights(null, null, null, null);
        /** All points count alike, and nothing is asked of the residuals. */
        static final Weights ALIKE = new Weights(null, null, null, null);
    }

    /**
     * What was found.
     *
     * @param parameters p values
     * @param by p by n: derivatives of the parameters by y - slope x of each point
     * @param q p by n: orthonormal directions in which the parameters look at the weighted points
     * @param root p by p: times the residual scale, the contributions of p standardised leaves; its square is the
     *     covariance for scale 1
     * @param slopes n slopes of the curve at the adjusted abscissae
     * @param chiSquared sum of squared weighted residuals
     * @param remarks what happened on the way, for the user
     */
    record Optimum(
            double[] parameters,
            double[][] by,
            double[][] q,
            double[][] root,
            double[] slopes,
            double chiSquared,
            List<String> remarks) {}

    private final String model;
    private final List<String> names;
    private final NumberedCurve curve;
    private final double[] x;
    private final double[] y;
    private final Weights weights;
    private final int n;
    private final int p;
    private final WeightedResiduals points;
    private final Linearity linearity;
    private final LinearPart linearPart;

    Regression(String model, List<String> names, NumberedCurve curve, double[] x, double[] y, Weights weights) {
        this.model = model;
        this.names = names;
        this.curve = curve;
        this.x = x;
        this.y = y;
        this.weights = weights;
        this.n = y.length;
        this.p = names.size();
        this.points = new WeightedResiduals(curve, x, y, weights, p);
        this.linearity = new Linearity(curve, x, p);
        this.linearPart = new LinearPart(curve, x, y, weights, p);
    }

    /**
     * Finds the parameters.
     *
     * @throws FitException when it did not converge or the data do not fix all parameters
     */
    Optimum from(double[] start) {
        if (n < p + (weights == Weights.NONE ? 1 : 0)) {
            throw FitException.tooFew(
                    "The model " + model + " has " + p + " parameters; " + n + " points are too few.");
        }
        boolean[] linear = linearity.from(start);
        boolean allLinear = Linearity.all(linear);
        double[] at = start;
        for (int pass = 0; pass < (weights.whole() == null ? 1 : 6); pass++) {
            if (weights.whole() != null) {
                points.whiten(at);
            }
            double[] next = allLinear && weights.uX() == null ? solved() : search(at, linear);
            boolean settled = relativeStep(at, next) < 1e-10;
            at = next;
            if (settled) {
                break;
            }
        }
        return assemble(at);
    }

    private final List<String> remarks = new ArrayList<>();

    /**
     * What there is at one set of parameters.
     *
     * @param e n weighted residuals
     * @param jacobian p by n
     * @param slopesAndWeights n each
     * @param d of the jacobian with the residuals for a target
     */
    private record State(
            double[] theta,
            @Nullable RealMatrix white,
            double[] e,
            double[][] jacobian,
            double[][] slopesAndWeights,
            Decomposition d) {}

    private @Nullable State last;

    /** Worked out once for the parameters looked at last. */
    private State at(double[] theta) {
        if (last == null || last.theta != theta || last.white != points.whitener()) {
            double[] e = new double[n];
            double[][] jacobian = new double[p][n];
            double[][] slopesAndWeights = new double[2][n];
            points.rows(theta, e, jacobian, slopesAndWeights);
            last = new State(theta, points.whitener(), e, jacobian, slopesAndWeights, Decomposition.of(jacobian, e));
        }
        return last;
    }

    private static double relativeStep(double[] a, double[] b) {
        double worst = 0;
        for (int k = 0; k < a.length; k++) {
            worst = Math.max(worst, Math.abs(a[k] - b[k]) / Math.max(Math.abs(b[k]), 1e-300));
        }
        return worst;
    }

    private double[] solved() {
        Decomposition d = linearPart.all(points.whitener());
        if (d.dependent >= 0) {
            throw dependent(d.dependent);
        }
        return d.solution;
    }

    private FitException dependent(int k) {
        return new FitException("The data do not fix all parameters of " + model + ": " + names.get(k)
                + " cannot be told from the others.");
    }

    /** Best end point over the start given, the separated start and, if those fail or disagree, starts around them. */
    private double[] search(double[] start, boolean[] linear) {
        List<double[]> starts = new ArrayList<>();
        boolean allLinear = Linearity.all(linear);
        if (!allLinear) {
            starts.add(start);
        }
        if (allLinear || !isLarge()) {
            linearPart.best(start, linear).ifPresentOrElse(starts::add, () -> {
                if (allLinear) {
                    starts.add(start);
                }
            });
        }
        double[] best = null;
        double bestSquares = Double.POSITIVE_INFINITY;
        boolean first = false;
        boolean disagree = false;
        double negligible = 1e-24 * points.squaresOfOrdinates(start);
        for (int s = 0; s < starts.size(); s++) {
            double[] end = descend(starts.get(s), best == null || s < 2 ? MOST_STEPS : LOOKING_STEPS);
            double squares = end == null ? Double.POSITIVE_INFINITY : squares(end);
            first |= s == 0 && end != null;
            disagree |=
                    end == null || best != null && Math.abs(squares - bestSquares) > 1e-6 * bestSquares + negligible;
            if (squares < bestSquares * (1 - 1e-9) - negligible || best == null && end != null) {
                best = end;
                bestSquares = squares;
            }
            if (!allLinear && s == starts.size() - 1 && s <= 2 && (disagree || best == null || (long) n * p <= FEW)) {
                List<double[]> more = around(start, linear, disagree || best == null ? 40 : 6);
                starts.addAll(more);
                if (more.isEmpty()) {
                    break;
                }
            }
        }
        if (best == null) {
            throw new FitException(
                    "The fit of " + model + " did not converge from the starting values given; try others.");
        }
        if (!first) {
            remarks.add("The fit did not converge from the starting values given; it did from others near them.");
        }
        return best;
    }

    private double squares(double[] theta) {
        double sum = Reflections.dot(at(theta).e, at(theta).e);
        return Double.isNaN(sum) ? Double.POSITIVE_INFINITY : sum;
    }

    /** So many points that looking around costs more than it is worth once one start has come to a good end. */
    private boolean isLarge() {
        return (long) n * p > LARGE;
    }

    private List<double[]> around(double[] start, boolean[] linear, int count) {
        java.util.SplittableRandom random = new java.util.SplittableRandom(5);
        List<double[]> out = new ArrayList<>();
        for (int t = 0; t < count; t++) {
            double[] s = start.clone();
            for (int k = 0; k < p; k++) {
                if (!linear[k]) {
                    double stretch = Math.exp((t % 2 == 0 ? 1.2 : 4) * random.nextGaussian());
                    s[k] = s[k] == 0 ? random.nextGaussian() : s[k] * stretch;
                }
            }
            linearPart.best(s, linear).ifPresent(out::add);
        }
        return out;
    }

    /** Levenberg-Marquardt from one start; null when it ends nowhere in particular. */
    private double @Nullable [] descend(double[] start, int steps) {
        double[] end =
                isLarge() ? ColumnDescent.of(points, n, start, steps) : CarefulDescent.of(points, n, start, steps);
        if (end == null) {
            return null;
        }
        double[] polished = polished(end);
        return found(polished) == null ? polished : null;
    }

    /** Gauss-Newton steps, as long as they get shorter, take out the last digits that the stopping rule left. */
    private double[] polished(double[] theta) {
        double[] at = theta;
        double last = Double.POSITIVE_INFINITY;
        for (int step = 0; step < (isLarge() ? 4 : 100); step++) {
            State here;
            try {
                here = at(at);
            } catch (MathRuntimeException noValue) {
                return at;
            }
            if (here.d.dependent >= 0) {
                return at;
            }
            double[] next = at.clone();
            for (int k = 0; k < p; k++) {
                next[k] += here.d.solution[k];
            }
            double length = stepLength(at, next, here.e, here.jacobian);
            if (!(length < 0.98 * last) || length > 0.01) {
                return at;
            }
            if (isLarge() && length < 1e-9) {
                return at;
            }
            last = length;
            at = next;
            if (length < 1e-15) {
                break;
            }
        }
        return at;
    }

    /**
     * A step relative to the parameters, or to what the points can tell of them where that is more: a level of nearly
     * nothing has no relative step.
     */
    private double stepLength(double[] from, double[] to, double[] e, double[][] jacobian) {
        double all = 0;
        for (double v : e) {
            all += v * v;
        }
        double worst = 0;
        for (int k = 0; k < p; k++) {
            double column = Reflections.dot(jacobian[k], jacobian[k]);
            double told = column > 0 ? Math.sqrt(all / Math.max(1, n - p) / column) : 0;
            worst = Math.max(worst, Math.abs(to[k] - from[k]) / Math.max(Math.max(Math.abs(to[k]), told), 1e-300));
        }
        return worst;
    }

    /** Null when this is an end point worth the name; otherwise what is wrong with it. */
    private @Nullable String found(double[] theta) {
        State here = at(theta);
        double[] scale = new double[p];
        for (int k = 0; k < p; k++) {
            for (int i = 0; i < n; i++) {
                double size = Math.abs(here.jacobian[k][i]);
                if (size > scale[k] || Double.isNaN(size)) {
                    scale[k] = size;
                }
            }
            if (!Double.isFinite(theta[k]) || !(scale[k] > 0) || !Double.isFinite(scale[k])) {
                return names.get(k);
            }
        }
        Decomposition d = here.d;
        if (d.dependent >= 0) {
            return names.get(d.dependent);
        }
        double inPlane = d.inPlane;
        double size = points.squaresOfOrdinates(theta);
        double all = Reflections.dot(here.e, here.e);
        double rest = Math.max(0, all - inPlane) / Math.max(1, n - p);
        boolean still = all <= 1e-24 * size
                || Math.sqrt(inPlane / p) <= LARGEST_OFFSET * Math.sqrt(rest)
                || inPlane <= 1e-22 * size;
        return still ? null : "the sum of squares";
    }

    private Optimum assemble(double[] theta) {
        State here = at(theta);
        double[][] slopesAndWeights = here.slopesAndWeights;
        Decomposition d = here.d;
        if (d.dependent >= 0) {
            throw dependent(d.dependent);
        }
        double[][] by = new double[p][n];
        for (int k = 0; k < p; k++) {
            for (int j = 0; j < p; j++) {
                Reflections.subtract(by[k], -d.inverseR[k][j], d.q()[j]);
            }
        }
        if (points.whitener() != null) {
            by = MatrixUtils.createRealMatrix(by).multiply(points.whitener()).getData();
        }
        for (double[] row : by) {
            for (int i = 0; i < n; i++) {
                row[i] *= slopesAndWeights[1][i];
            }
        }
        return new Optimum(
                theta,
                by,
                d.q(),
                d.inverseR,
                slopesAndWeights[0],
                Reflections.dot(here.e, here.e),
                List.copyOf(remarks));
    }
}
