package eagerneedle.core.fit;

import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import java.util.Arrays;
import java.util.Optional;
import java.util.function.ToDoubleFunction;
import org.hipparchus.exception.MathRuntimeException;

/**
 * A robust fit beside least squares: Huber's M-estimate by reweighting (Huber 1964; k = {@value #K}, scale from the
 * median absolute residual), which a few wild points cannot pull far.
 *
 * <p>It begins where the sum of absolute residuals is least, not at least squares, which a wild point may have carried
 * off. It never replaces the least-squares result. Where a parameter differs from it by more than twice the standard
 * uncertainty that the scatter of the <em>other</em> points would give, that is said, with the points that pull: a wild
 * point inflates the uncertainty of least squares and would hide behind it. Work is bounded: Gauss-Newton steps at
 * fixed weights, so many at most.
 *
 * @param of the fit it looks at
 * @param parameters p robust parameter values, each in its parameter's unit
 * @param u p standard uncertainties that the robust scale gives them, each in its parameter's unit
 * @param weights n final weights, 1 for a point in line with the others
 */
public record SecondOpinion(Fit of, double[] parameters, double[] u, double[] weights) {
    private static final double K = 1.345;
    private static final double SUSPICIOUS = 0.4;
    private static final int ABSOLUTE = 60;
    private static final int PASSES = 100;
    private static final double SETTLED = 1e-9;

    /** @throws FitException when the curve has no value on the way */
    public static SecondOpinion of(Fit fit) {
        int n = fit.y().length;
        int p = fit.parameters().size();
        double[] theta = fit.parameters().stream().mapToDouble(Quantity::value).toArray();
        double[] w = new double[n];
        Arrays.fill(w, 1);
        double size = Arrays.stream(fit.y()).map(Math::abs).max().orElse(0);
        for (int pass = 0; pass < ABSOLUTE; pass++) {
            double[] r = residuals(fit, theta);
            double least = Math.max(1e-4 * scale(r, p), 1e-14 * size);
            for (int i = 0; i < n; i++) {
                w[i] = least == 0 ? 1 : 1 / Math.max(Math.abs(r[i]), least);
            }
            double[] next = step(fit, theta, w, SecondOpinion::absolute);
            double moved = moved(fit, theta, next);
            theta = next;
            if (moved < 1e-4) {
                break;
            }
        }
        double scale = scale(residuals(fit, theta), p);
        Arrays.fill(w, 1);
        for (int pass = 0; pass < PASSES && scale > 1e-14 * size; pass++) {
            double[] r = residuals(fit, theta);
            scale = scale(r, p);
            for (int i = 0; i < n; i++) {
                w[i] = Math.min(1, K * scale / Math.max(Math.abs(r[i]), 1e-300));
            }
            double at = scale;
            double[] next = step(fit, theta, w, x -> huber(x, at));
            double moved = moved(fit, theta, next);
            theta = next;
            if (moved < SETTLED) {
                break;
            }
        }
        if (scale <= 1e-14 * size) {
            double[] r = residuals(fit, theta);
            for (int i = 0; i < n; i++) {
                w[i] = Math.abs(r[i]) <= 1e-9 * size ? 1 : 0;
            }
        }
        return new SecondOpinion(fit, theta, uncertainties(fit, theta, scale), w);
    }

    /**
     * Robust standard deviation of residuals of a fit with p parameters: from the median of the n - p largest sizes,
     * which leaves out those that a fit makes zero.
     */
    private static double scale(double[] residuals, int p) {
        double[] sizes = Arrays.stream(residuals).map(Math::abs).sorted().toArray();
        int from = Math.min(p, sizes.length - 1);
        int m = sizes.length - from;
        return 1.4826 * (sizes[from + (m - 1) / 2] + sizes[from + m / 2]) / 2;
    }

    private static double absolute(double[] residuals) {
        return Arrays.stream(residuals).map(Math::abs).sum();
    }

    private static double huber(double[] residuals, double scale) {
        double sum = 0;
        for (double r : residuals) {
            double a = Math.abs(r);
            sum += a <= K * scale ? a * a / 2 : K * scale * (a - K * scale / 2);
        }
        return sum;
    }

    /** A weighted Gauss-Newton step, shortened until what is to be least does not grow. */
    private static double[] step(Fit fit, double[] theta, double[] weights, ToDoubleFunction<double[]> least) {
        int n = weights.length;
        int p = theta.length;
        double[][] design = new double[p][n];
        double[] target = new double[n];
        double[] g = new double[p + 1];
        for (int i = 0; i < n; i++) {
            double root = Math.sqrt(weights[i]);
            target[i] = root * (fit.y()[i] - fit.law().at(fit.x()[i], theta, g));
            for (int k = 0; k < p; k++) {
                design[k][i] = root * g[k];
            }
        }
        double[] direction;
        try {
            Decomposition d = Decomposition.of(design, target);
            if (d.dependent >= 0) {
                return theta;
            }
            direction = d.solution;
        } catch (MathRuntimeException noValue) {
            return theta;
        }
        double before = least.applyAsDouble(residuals(fit, theta));
        for (double share = 1; share > 1e-4; share /= 2) {
            double[] next = theta.clone();
            for (int k = 0; k < p; k++) {
                next[k] += share * direction[k];
            }
            double after = least.applyAsDouble(residuals(fit, next));
            if (after <= before * (1 + 1e-12)) {
                return next;
            }
        }
        return theta;
    }

    /** How far the curve moved at its points, against their scatter. */
    private static double moved(Fit fit, double[] before, double[] after) {
        double[] g = new double[before.length + 1];
        double most = 0;
        for (double x : fit.x()) {
            most = Math.max(
                    most, Math.abs(fit.law().at(x, before, g) - fit.law().at(x, after, g)));
        }
        double scatter = scale(residuals(fit, after), before.length);
        return scatter > 0 ? most / scatter : 0;
    }

    private static double[] uncertainties(Fit fit, double[] theta, double scale) {
        int n = fit.y().length;
        int p = theta.length;
        double[][] design = new double[p][n];
        double[] g = new double[p + 1];
        for (int i = 0; i < n; i++) {
            fit.law().at(fit.x()[i], theta, g);
            for (int k = 0; k < p; k++) {
                design[k][i] = g[k];
            }
        }
        double[] u = new double[p];
        Decomposition d;
        try {
            d = Decomposition.of(design, new double[n]);
        } catch (MathRuntimeException noValue) {
            throw new FitException("A robust fit of " + fit.model() + " has no value on the way.", noValue);
        }
        for (int k = 0; k < p && d.dependent < 0; k++) {
            double sum = 0;
            for (int j = 0; j < p; j++) {
                sum += d.inverseR[k][j] * d.inverseR[k][j];
            }
            u[k] = scale * Math.sqrt(sum);
        }
        return u;
    }

    private static double[] residuals(Fit fit, double[] theta) {
        double[] r = new double[fit.y().length];
        double[] g = new double[theta.length + 1];
        for (int i = 0; i < r.length; i++) {
            r[i] = fit.y()[i] - fit.law().at(fit.x()[i], theta, g);
        }
        return r;
    }

    /**
     * One sentence when the two fits differ by more than twice the standard uncertainty that the points in line give
     * some parameter.
     */
    public Optional<String> remark() {
        if (Arrays.stream(weights).noneMatch(w -> w < SUSPICIOUS)) {
            return Optional.empty();
        }
        int worst = -1;
        double most = 2;
        for (int k = 0; k < parameters.length; k++) {
            double apart = Math.abs(parameters[k] - of.parameters().get(k).value()) / u[k];
            if (apart > most) {
                most = apart;
                worst = k;
            }
        }
        if (worst < 0) {
            return Optional.empty();
        }
        StringBuilder points = new StringBuilder();
        for (int i = 0; i < weights.length; i++) {
            if (weights[i] < SUSPICIOUS) {
                points.append(points.isEmpty() ? "" : ", ").append(i + 1);
            }
        }
        return Optional.of("A robust fit (Huber) gives %s = %s, where least squares gives %s; look at point %s."
                .formatted(
                        of.names().get(worst),
                        Notation.plain(parameters[worst], 5),
                        Notation.plain(of.parameters().get(worst).value(), 5),
                        points));
    }
}
