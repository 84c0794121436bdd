package eagerneedle.core.fit;

import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import java.util.Arrays;
import java.util.Optional;

/**
 * A robust fit beside least squares: Huber's M-estimate by reweighting (Huber 1964; k = {@value #K}, scale from the median
 * absolute residual), which a few wild points cannot pull far.
 *
 * <p>It never replaces the least-squares result. Where a parameter differs from it by more than its own expanded uncertainty,
 * that is said, with the points that pull.
 *
 * @param of         the fit it looks at
 * @param parameters p robust parameter values, each in its parameter's unit
 * @param weights    n final weights, 1 for a point in line with the others
 */
public record SecondOpinion(Fit of, double[] parameters, double[] weights) {
    private static final double K = 1.345;
    private static final double SUSPICIOUS = 0.4;

    /** @throws FitException when reweighting does not converge */
    public static SecondOpinion of(Fit fit) {
        int n = fit.y().length;
        double[] theta = fit.parameters().stream().mapToDouble(Quantity::value).toArray();
        double[] w = new double[n];
        Arrays.fill(w, 1);
        Regression.Curve curve = (i, x, p, g) -> fit.law().at(x, p, g);
        for (int pass = 0; pass < 200; pass++) {
            double[] r = residuals(fit, theta);
            double[] sizes = Arrays.stream(r).map(Math::abs).sorted().toArray();
            double scale = 1.4826 * (sizes[(n - 1) / 2] + sizes[n / 2]) / 2;
            if (!(scale > 0)) {
                break;
            }
            double[] sigma = new double[n];
            for (int i = 0; i < n; i++) {
                w[i] = Math.min(1, K * scale / Math.max(Math.abs(r[i]), 1e-300));
                sigma[i] = scale / Math.sqrt(w[i]);
            }
            double[] next = new Regression(fit.model(), fit.names(), curve, fit.x(), fit.y(), new Regression.Weights(sigma, null, null, null)).from(theta).parameters();
            double step = 0;
            for (int k = 0; k < theta.length; k++) {
                step = Math.max(step, Math.abs(next[k] - theta[k]) / (Math.abs(theta[k]) + 1e-300));
            }
            theta = next;
            if (step < 1e-12) {
                break;
            }
        }
        return new SecondOpinion(fit, theta, w);
    }

    private static double[] residuals(Fit fit, double[] theta) {
        double[] r = new double[fit.y().length];
        double[] g = new double[theta.length + 1];
        for (int i = 0; i < r.length; i++) {
            r[i] = fit.y()[i] - fit.law().at(fit.x()[i], theta, g);
        }
        return r;
    }

    /** One sentence when the two fits differ by more than twice the standard uncertainty of some parameter. */
    public Optional<String> remark() {
        for (int k = 0; k < parameters.length; k++) {
            Quantity q = of.parameters().get(k);
            double apart = Math.abs(parameters[k] - q.value());
            if (q.u() > 0 && apart > 2 * q.u()) {
                StringBuilder points = new StringBuilder();
                for (int i = 0; i < weights.length; i++) {
                    if (weights[i] < SUSPICIOUS) {
                        points.append(points.isEmpty() ? "" : ", ").append(i + 1);
                    }
                }
                return Optional.of("A robust fit (Huber) gives %s = %s, %s standard uncertainties from least squares%s.".formatted(of.names().get(k),
                        Notation.plain(parameters[k], 5), Notation.plain(apart / q.u(), 2), points.isEmpty() ? "" : "; look at point " + points));
            }
        }
        return Optional.empty();
    }
}
