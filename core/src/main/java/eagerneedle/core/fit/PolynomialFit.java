package eagerneedle.core.fit;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.trace.Trace;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Predicate;
import org.hipparchus.distribution.continuous.ChiSquaredDistribution;
import org.hipparchus.linear.RealMatrix;

/**
 * Straight lines and polynomials by least squares, to a trace or to points that carry uncertainty.
 *
 * <p>The parameters are linear in the ordinates, so that every influence the ordinates share reaches them through the exact
 * derivatives. The scatter enters as p standardised leaves of one pool, whose contributions are the columns of s T R⁻¹;
 * their products give the classical covariance s² (XᵀWX)⁻¹, correlations included.
 */
public final class PolynomialFit {
    private PolynomialFit() {
    }

    /**
     * Fits a polynomial in time to the samples of a trace.
     *
     * @param trace  at least degree + 2 samples
     * @param degree 1 for a straight line
     * @param origin identity of this fit within the session, root of its leaves' ids
     * @param label  what the scatter of the samples is called in budgets
     * @return coefficients of t^k, in the trace's unit per s^k
     * @throws FitException when there are too few samples
     */
    public static Fit ofTrace(Trace trace, int degree, String origin, String label) {
        int n = trace.size();
        int p = degree + 1;
        if (n < p + 1) {
            throw new FitException("A " + modelName(degree) + " to " + trace.name() + " needs at least " + (p + 1) + " samples; the window holds " + n + ".");
        }
        double[] weights = new double[n];
        Arrays.fill(weights, 1);
        Polynomials fit = new Polynomials(trace.time(), trace.value(), weights, degree);
        double[] fitted = fitted(fit, trace.time());
        double ss = squares(trace.value(), fitted, weights);
        double sd = Math.max(Math.sqrt(ss / (n - p)), trace.step() / Math.sqrt(12));
        double[] c = fit.powers();
        List<Quantity> parameters = new ArrayList<>();
        List<Leaf> scatter = scatterLeaves(origin, label, p, n - p);
        RealMatrix root = fit.toPowers.multiply(fit.inverseR);
        for (int k = 0; k < p; k++) {
            LabUnit unit = k == 0 ? trace.unit() : trace.unit().coherent().per(LabUnit.SECOND.power(k));
            double scale = k == 0 ? 1 : trace.unit().factor();
            Quantity q = Quantity.exact(c[k] * scale, unit);
            for (int j = 0; j < p; j++) {
                q = q.with(scatter.get(j), sd * scale * root.getEntry(k, j));
            }
            for (Trace.Shared shared : trace.shared()) {
                double sum = 0;
                for (int i = 0; i < n; i++) {
                    sum += fit.byOrdinate[k][i] * shared.contribution().applyAsDouble(trace.value()[i]);
                }
                q = q.with(shared.leaf(), sum * scale);
            }
            parameters.add(q);
        }
        Fit result = new Fit(modelName(degree), names(p), parameters, trace.time(), trace.value(), fitted, LabUnit.SECOND, trace.unit(), sd,
                Double.NaN, n - p, List.of());
        return Residuals.remark(result.residuals()).map(result::withRemark).orElse(result);
    }

    /**
     * Fits a polynomial to points.
     *
     * @param x       n abscissae, units that fit one another
     * @param y       n ordinates, units that fit one another
     * @param degree  1 for a straight line
     * @param scatter whether residuals or stated uncertainties speak for the influences of single points
     * @param origin  identity of this fit within the session, root of its leaves' ids
     * @param label   what the scatter of the points is called in budgets
     * @return coefficients of x^k, coherent units
     * @throws FitException when there are too few points
     */
    public static Fit ofPoints(List<Quantity> x, List<Quantity> y, int degree, Scatter scatter, String origin, String label) {
        int n = x.size();
        int p = degree + 1;
        if (n != y.size()) {
            throw new FitException("A fit needs as many abscissae as ordinates, not " + n + " and " + y.size() + ".");
        }
        boolean residuals = scatter == Scatter.FROM_RESIDUALS;
        if (n < p + (residuals ? 1 : 0)) {
            throw new FitException("A " + modelName(degree) + " needs at least " + (p + (residuals ? 1 : 0)) + " points; there " + (n == 1 ? "is 1." : "are " + n + "."));
        }
        LabUnit xUnit = x.get(0).unit();
        LabUnit yUnit = y.get(0).unit();
        List<Quantity> xs = x.stream().map(q -> q.to(xUnit)).toList();
        List<Quantity> ys = y.stream().map(q -> q.to(yUnit)).toList();
        double[] xv = values(xs);
        double[] yv = values(ys);
        Predicate<Leaf> own = ownLeaves(xs, ys);
        double[] weights = new double[n];
        Arrays.fill(weights, 1);
        Polynomials fit = new Polynomials(xv, yv, weights, degree);
        boolean weighted = !residuals && weigh(fit, xs, ys, own, weights);
        for (int pass = 0; weighted && pass < 4; pass++) {
            fit = new Polynomials(xv, yv, weights, degree);
            weigh(fit, xs, ys, own, weights);
        }
        double[] fitted = fitted(fit, xv);
        double[] ones = new double[n];
        Arrays.fill(ones, 1);
        double sd = n > p ? Math.sqrt(squares(yv, fitted, ones) / (n - p)) : Double.NaN;

        double[] c = fit.powers();
        double[][] byX = new double[n][];
        for (int i = 0; i < n; i++) {
            byX[i] = fit.byAbscissa(xv[i], yv[i] - fitted[i], weights[i]);
        }
        RealMatrix root = fit.toPowers.multiply(fit.inverseR);
        List<Leaf> scatterLeaves = residuals ? scatterLeaves(origin, label, p, n - p) : List.of();
        List<Quantity> parameters = new ArrayList<>();
        for (int k = 0; k < p; k++) {
            Quantity q = Quantity.exact(0, yUnit);
            for (int i = 0; i < n; i++) {
                q = q.plus(carried(ys.get(i), own, residuals).mapped(0, yUnit, fit.byOrdinate[k][i]));
                q = q.plus(carried(xs.get(i), own, residuals).mapped(0, yUnit, byX[i][k]));
            }
            for (int j = 0; j < scatterLeaves.size(); j++) {
                q = q.with(scatterLeaves.get(j), sd * root.getEntry(k, j));
            }
            LabUnit unit = k == 0 ? yUnit : yUnit.coherent().per(xUnit.coherent().power(k));
            double scale = k == 0 ? 1 : yUnit.factor() / Math.pow(xUnit.factor(), k);
            parameters.add(q.mapped(c[k] * scale, unit, scale));
        }
        double chi = weighted ? squares(yv, fitted, weights) : Double.NaN;
        Fit result = new Fit(modelName(degree), names(p), parameters, xv, yv, fitted, xUnit, yUnit, sd, chi, n - p, List.of());
        if (weighted && n > p) {
            result = chiSquareRemark(result);
        }
        return Residuals.remark(result.residuals()).map(result::withRemark).orElse(result);
    }

    private static Fit chiSquareRemark(Fit fit) {
        double tail = 1 - new ChiSquaredDistribution(fit.dof()).cumulativeProbability(fit.chiSquared());
        if (tail < 0.025) {
            return fit.withRemark("The points scatter more than their stated uncertainties allow (chi-square %.1f for %d degrees of freedom, Birge ratio %.2f); standard uncertainties were not scaled."
                    .formatted(fit.chiSquared(), fit.dof(), Math.sqrt(fit.chiSquared() / fit.dof())));
        }
        return fit.withRemark("The scatter agrees with the stated uncertainties (chi-square %.1f for %d degrees of freedom).".formatted(fit.chiSquared(), fit.dof()));
    }

    private static Quantity carried(Quantity q, Predicate<Leaf> own, boolean residuals) {
        return residuals ? q.keeping(own.negate()) : q;
    }

    /** Weights by effective variance; false (and no change) when some point has no uncertainty of its own. */
    private static boolean weigh(Polynomials fit, List<Quantity> x, List<Quantity> y, Predicate<Leaf> own, double[] weights) {
        double[] w = new double[weights.length];
        for (int i = 0; i < w.length; i++) {
            double uy = y.get(i).keeping(own).u();
            double ux = x.get(i).keeping(own).u() * fit.slope(x.get(i).value());
            double variance = uy * uy + ux * ux;
            if (variance == 0) {
                return false;
            }
            w[i] = 1 / variance;
        }
        System.arraycopy(w, 0, weights, 0, w.length);
        return true;
    }

    private static Predicate<Leaf> ownLeaves(List<Quantity> x, List<Quantity> y) {
        Map<Leaf, Integer> seenAt = new HashMap<>();
        for (int i = 0; i < x.size(); i++) {
            int point = i;
            for (Quantity q : List.of(x.get(i), y.get(i))) {
                q.contributions().keySet().forEach(leaf -> seenAt.merge(leaf, point, (a, b) -> a.equals(b) ? a : -1));
            }
        }
        return leaf -> seenAt.getOrDefault(leaf, -1) >= 0;
    }

    private static List<Leaf> scatterLeaves(String origin, String label, int p, int dof) {
        List<Leaf> leaves = new ArrayList<>();
        for (int k = 0; k < p; k++) {
            leaves.add(Leaf.typeA(origin + "#scatter" + k, label, origin, dof).inPool(origin + "#scatter"));
        }
        return leaves;
    }

    private static double[] values(List<Quantity> q) {
        return q.stream().mapToDouble(Quantity::value).toArray();
    }

    private static double[] fitted(Polynomials fit, double[] x) {
        double[] f = new double[x.length];
        for (int i = 0; i < f.length; i++) {
            f[i] = fit.value(x[i]);
        }
        return f;
    }

    private static double squares(double[] y, double[] fitted, double[] weights) {
        double sum = 0;
        for (int i = 0; i < y.length; i++) {
            sum += weights[i] * (y[i] - fitted[i]) * (y[i] - fitted[i]);
        }
        return sum;
    }

    private static List<String> names(int p) {
        List<String> names = new ArrayList<>();
        for (int k = 0; k < p; k++) {
            names.add(p == 2 ? (k == 0 ? "intercept" : "slope") : "c" + k);
        }
        return names;
    }

    private static String modelName(int degree) {
        return switch (degree) {
            case 0 -> "constant";
            case 1 -> "straight line";
            case 2 -> "parabola";
            default -> "polynomial of degree " + degree;
        };
    }
}
