package eagerneedle.core.fit;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.trace.Trace;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.hipparchus.linear.RealMatrix;

/**
 * Straight lines and polynomials by least squares, to a trace or to points that carry uncertainty.
 *
 * <p>The parameters are linear in the ordinates, so that every influence the ordinates share reaches them through the
 * exact derivatives. What scatters beyond that enters by {@link PointScatter}; where points carry nothing of their own,
 * and where samples are independent, that is the classical covariance s² (XᵀX)⁻¹, correlations included.
 */
public final class PolynomialFit {
    private PolynomialFit() {}

    /**
     * Fits a polynomial in time to the samples of a trace.
     *
     * @param trace at least degree + 2 samples
     * @param degree 1 for a straight line
     * @param origin identity of this fit within the session, root of its leaves' ids
     * @param label what the scatter of the samples is called in budgets
     * @return coefficients of t^k, in the trace's unit per s^k
     * @throws FitException when there are too few samples
     */
    public static Fit ofTrace(Trace trace, int degree, String origin, String label) {
        int n = trace.size();
        int p = degree + 1;
        if (n < p + 1) {
            throw new FitException("A " + modelName(degree) + " to " + trace.name() + " needs at least " + (p + 1)
                    + " samples; the window holds " + n + ".");
        }
        double[] weights = new double[n];
        Arrays.fill(weights, 1);
        Polynomials fit = new Polynomials(trace.time(), trace.value(), weights, degree);
        double[] fitted = fitted(fit, trace.time());
        double[] c = fit.powers();
        List<Quantity> parameters = new ArrayList<>();
        PointScatter scatter = PointScatter.ofSamples(
                fit.q,
                CurveFit.difference(trace.value(), fitted),
                new FitOptions(Scatter.FROM_RESIDUALS, origin, label).samplesOf(trace, "polynomial"));
        RealMatrix root = fit.toPowers.multiply(fit.inverseR);
        List<double[]> each =
                trace.shared().stream().map(s -> s.onSamplesOf(trace)).toList();
        for (int k = 0; k < p; k++) {
            LabUnit unit = k == 0 ? trace.unit() : trace.unit().coherent().per(LabUnit.SECOND.power(k));
            double scale = k == 0 ? 1 : trace.unit().factor();
            Quantity q = Quantity.exact(c[k] * scale, unit);
            q = scatter.on(q, scaled(root.getRow(k), scale));
            for (int s = 0; s < each.size(); s++) {
                double sum = 0;
                for (int i = 0; i < n; i++) {
                    sum += fit.byOrdinate[k][i] * each.get(s)[i];
                }
                q = q.with(trace.shared().get(s).leaf(), sum * scale);
            }
            parameters.add(q);
        }
        return CurveFit.remarked(new Fit(
                modelName(degree),
                names(p),
                parameters,
                trace.time(),
                trace.value(),
                fitted,
                LabUnit.SECOND,
                trace.unit(),
                scatter.sd(),
                Double.NaN,
                n - p,
                scatter.remarks(),
                new PolynomialCurve(LabUnit.SECOND, trace.unit())));
    }

    /**
     * Fits a polynomial to points.
     *
     * @param x n abscissae, units that fit one another
     * @param y n ordinates, units that fit one another
     * @param degree 1 for a straight line
     * @param scatter whether residuals or stated uncertainties speak for the influences of single points
     * @param origin identity of this fit within the session, root of its leaves' ids
     * @param label what the scatter of the points is called in budgets
     * @return coefficients of x^k, coherent units
     * @throws FitException when there are too few points
     */
    public static Fit ofPoints(
            List<Quantity> x, List<Quantity> y, int degree, Scatter scatter, String origin, String label) {
        return ofPoints(Points.of(x, y), degree, new FitOptions(scatter, origin, label));
    }

    /**
     * Fits a polynomial to points.
     *
     * @param degree 1 for a straight line
     * @return coefficients of x^k, coherent units
     * @throws FitException when there are too few points
     */
    public static Fit ofPoints(Points points, int degree, FitOptions choices) {
        Scatter scatter = choices.scatter();
        int n = points.size();
        int p = degree + 1;
        boolean residuals = scatter == Scatter.FROM_RESIDUALS;
        if (n < p + (residuals ? 1 : 0)) {
            throw new FitException("A " + modelName(degree) + " needs at least " + (p + (residuals ? 1 : 0))
                    + " points; there " + (n == 1 ? "is 1." : "are " + n + "."));
        }
        double[] xv = points.xValues();
        double[] yv = points.yValues();
        double[] ones = new double[n];
        Arrays.fill(ones, 1);
        Polynomials plain = new Polynomials(xv, yv, ones, degree);
        PolynomialCurve law = new PolynomialCurve(points.xUnit(), points.yUnit());
        if (!residuals) {
            return CurveFit.ofPoints(
                    modelName(degree),
                    names(p),
                    units(points, p),
                    scaled(plain.powers(), points),
                    law,
                    points,
                    choices);
        }
        double[] fitted = fitted(plain, xv);
        double[] slopes = new double[n];
        for (int i = 0; i < n; i++) {
            slopes[i] = plain.slope(xv[i]);
        }
        PointScatter scattered = PointScatter.of(points, slopes, plain.q, CurveFit.difference(yv, fitted), choices);
        double[] powers = plain.powers();
        for (int k = 1; k < p && scattered.sd() == 0; k++) {
            powers[k] = PointScatter.isRounding(powers[k] * Math.pow(largest(xv), k), yv) ? 0 : powers[k];
        }
        double[] c = scaled(powers, points);
        double[][] byX = new double[n][];
        List<Quantity> parts = new ArrayList<>();
        for (int i = 0; i < n; i++) {
            byX[i] = plain.byAbscissa(xv[i], yv[i] - fitted[i], 1);
            parts.add(points.y().get(i).linear());
            parts.add(points.x().get(i).linear());
        }
        RealMatrix root = plain.toPowers.multiply(plain.inverseR);
        List<LabUnit> units = units(points, p);
        List<Quantity> parameters = new ArrayList<>();
        for (int k = 0; k < p; k++) {
            double scale = scale(points, k);
            double[] factors = new double[2 * n];
            for (int i = 0; i < n; i++) {
                factors[2 * i] = scale * plain.byOrdinate[k][i];
                factors[2 * i + 1] = scale * byX[i][k];
            }
            Quantity q = Quantity.combination(parts, factors, c[k], units.get(k));
            parameters.add(scattered.on(q, scaled(root.getRow(k), scale)));
        }
        return CurveFit.remarked(new Fit(
                modelName(degree),
                names(p),
                parameters,
                xv,
                yv,
                fitted,
                points.xUnit(),
                points.yUnit(),
                scattered.sd(),
                Double.NaN,
                n - p,
                scattered.remarks(),
                law));
    }

    /** Fits the straight line through the origin; its only parameter is the slope. */
    public static Fit throughOrigin(Points points, FitOptions choices) {
        LabUnit unit = points.yUnit().coherent().per(points.xUnit().coherent());
        double scale = points.xUnit().factor() / points.yUnit().factor();
        Curve law = (x, p, g) -> {
            g[0] = x * scale;
            g[1] = p[0] * scale;
            return p[0] * x * scale;
        };
        return CurveFit.ofPoints(
                "line through the origin", List.of("slope"), List.of(unit), new double[] {1}, law, points, choices);
    }

    private static List<LabUnit> units(Points points, int p) {
        List<LabUnit> units = new ArrayList<>();
        for (int k = 0; k < p; k++) {
            units.add(
                    k == 0
                            ? points.yUnit()
                            : points.yUnit()
                                    .coherent()
                                    .per(points.xUnit().coherent().power(k)));
        }
        return units;
    }

    private static double scale(Points points, int k) {
        return k == 0 ? 1 : points.yUnit().factor() / Math.pow(points.xUnit().factor(), k);
    }

    private static double[] scaled(double[] powers, Points points) {
        double[] c = new double[powers.length];
        for (int k = 0; k < c.length; k++) {
            c[k] = powers[k] * scale(points, k);
        }
        return c;
    }

    private static double[] scaled(double[] row, double scale) {
        double[] out = row.clone();
        for (int k = 0; k < out.length; k++) {
            out[k] *= scale;
        }
        return out;
    }

    private static double largest(double[] x) {
        return Arrays.stream(x).map(Math::abs).max().orElse(0);
    }

    private static double[] fitted(Polynomials fit, double[] x) {
        double[] f = new double[x.length];
        for (int i = 0; i < f.length; i++) {
            f[i] = fit.value(x[i]);
        }
        return f;
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
