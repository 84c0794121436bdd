package eagerneedle.core.fit;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import java.util.ArrayList;
import java.util.List;

/**
 * The outcome of a fit.
 *
 * @param model the model in words or as a formula
 * @param names parameter names, p of them
 * @param parameters p quantities, correlated with one another and with whatever shared influences the data carried
 * @param x n abscissae, in {@code xUnit}
 * @param y n ordinates, in {@code yUnit}
 * @param fitted n values of the model, in {@code yUnit}
 * @param xUnit unit of the abscissa
 * @param yUnit unit of the ordinate
 * @param residualSd residual standard deviation with n - p, in {@code yUnit}; NaN without degrees of freedom
 * @param chiSquared weighted sum of squared residuals where the points' own uncertainties were used, otherwise NaN
 * @param dof n - p
 * @param remarks what a careful reader should know, one sentence each
 * @param law the curve, for predictions; takes each parameter in its own unit
 */
public record Fit(
        String model,
        List<String> names,
        List<Quantity> parameters,
        double[] x,
        double[] y,
        double[] fitted,
        LabUnit xUnit,
        LabUnit yUnit,
        double residualSd,
        double chiSquared,
        int dof,
        List<String> remarks,
        Curve law) {
    public Fit {
        names = List.copyOf(names);
        parameters = List.copyOf(parameters);
        remarks = List.copyOf(remarks);
    }

    /** Parameter k; for a polynomial the coefficient of x to the k. */
    public Quantity parameter(int k) {
        if (k < 0 || k >= parameters.size()) {
            throw new FitException(
                    "The " + model + " has coefficients 0 to " + (parameters.size() - 1) + ", not " + k + ".");
        }
        return parameters.get(k);
    }

    /** True for a polynomial in the abscissa, whose parameter k is the coefficient of x to the k. */
    public boolean isPolynomial() {
        return law instanceof PolynomialCurve;
    }

    /** n residuals y - fitted, in {@code yUnit}. */
    public double[] residuals() {
        double[] r = new double[y.length];
        for (int i = 0; i < r.length; i++) {
            r[i] = y[i] - fitted[i];
        }
        return r;
    }

    /** p by p covariance of the parameters, in products of their units. */
    public double[][] covariance() {
        int p = parameters.size();
        double[][] c = new double[p][p];
        for (int i = 0; i < p; i++) {
            for (int j = 0; j < p; j++) {
                c[i][j] = parameters.get(i).covariance(parameters.get(j));
            }
        }
        return c;
    }

    /**
     * The curve's value at an abscissa without uncertainty (in {@code xUnit}), with the uncertainty of its parameters.
     */
    public Quantity at(double abscissa) {
        return at(Quantity.exact(abscissa, xUnit));
    }

    /**
     * The curve's value at an abscissa, with the uncertainty of its parameters and of the abscissa; in {@code yUnit}.
     */
    public Quantity at(Quantity abscissa) {
        Quantity x0 = abscissa.to(xUnit);
        List<Quantity> all = new ArrayList<>(parameters);
        all.add(x0);
        int p = parameters.size();
        double[] gradient = new double[p + 1];
        law.at(x0.value(), values(), gradient);
        return Quantity.through(
                all, v -> law.at(v[p], java.util.Arrays.copyOf(v, p), new double[p + 1]), yUnit, gradient);
    }

    /**
     * Share of the scatter of the ordinates that the curve takes up; printed because people ask, never used to decide.
     * NaN where the ordinates do not scatter.
     */
    public double rSquared() {
        double mean = java.util.Arrays.stream(y).average().orElse(0);
        double all =
                java.util.Arrays.stream(y).map(v -> (v - mean) * (v - mean)).sum();
        double left = java.util.Arrays.stream(residuals()).map(r -> r * r).sum();
        return all > 0 ? 1 - left / all : Double.NaN;
    }

    /** A further reading at an abscissa: the curve's value and one more share of the scatter. */
    public Quantity readingAt(Quantity abscissa, String leafId) {
        return at(abscissa)
                .with(
                        Leaf.typeA(leafId, "scatter of one reading", model, Math.max(1, dof)),
                        Double.isNaN(residualSd) ? 0 : residualSd);
    }

    /**
     * Inverse prediction: the abscissa, within the range of the points widened by a twentieth, at which the curve takes
     * a value.
     *
     * @param ordinate the value with its own uncertainty
     * @return in {@code xUnit}
     * @throws FitException when the curve does not take the value there, or takes it more than once
     */
    public Quantity inverse(Quantity ordinate) {
        Quantity y0 = ordinate.to(yUnit);
        double low = java.util.Arrays.stream(x).min().orElseThrow();
        double high = java.util.Arrays.stream(x).max().orElseThrow();
        double margin = 0.05 * (high - low);
        double[] theta = values();
        double[] roots =
                Roots.of(v -> law.at(v, theta, new double[theta.length + 1]) - y0.value(), low - margin, high + margin);
        if (roots.length != 1) {
            throw new FitException(
                    roots.length == 0
                            ? "The " + model + " does not reach " + y0 + " within the range of its points."
                            : "The " + model + " takes the value " + y0 + " at " + roots.length
                                    + " places; the abscissa cannot be told from it.");
        }
        double[] gradient = new double[theta.length + 1];
        law.at(roots[0], theta, gradient);
        double slope = gradient[theta.length];
        List<Quantity> all = new ArrayList<>(parameters);
        all.add(y0);
        double[] factors = new double[theta.length + 1];
        for (int k = 0; k < theta.length; k++) {
            factors[k] = -gradient[k] / slope;
        }
        factors[theta.length] = 1 / slope;
        return Quantity.combination(all, factors, roots[0], xUnit);
    }

    /**
     * Pool of the leaves that stand for the scatter of the points; readings of the same scatter share its one variance
     * estimate.
     */
    public String scatterPool() {
        return parameters.stream()
                .flatMap(q -> q.contributions().keySet().stream())
                .map(Leaf::pool)
                .filter(pool -> pool.startsWith("scatter:"))
                .findFirst()
                .orElse("scatter:" + model);
    }

    private double[] values() {
        return parameters.stream().mapToDouble(Quantity::value).toArray();
    }

    /** The same under another name of its model. */
    public Fit named(String name) {
        return new Fit(name, names, parameters, x, y, fitted, xUnit, yUnit, residualSd, chiSquared, dof, remarks, law);
    }

    /** The same fit whose parameters carry further influences; p quantities in the same units. */
    public Fit withParameters(List<Quantity> influenced) {
        return new Fit(model, names, influenced, x, y, fitted, xUnit, yUnit, residualSd, chiSquared, dof, remarks, law);
    }

    Fit withRemark(String remark) {
        List<String> more = new ArrayList<>(remarks);
        more.add(remark);
        return new Fit(model, names, parameters, x, y, fitted, xUnit, yUnit, residualSd, chiSquared, dof, more, law);
    }
}
