package eagerneedle.core.fit;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import java.util.ArrayList;
import java.util.List;

/**
 * The outcome of a fit.
 *
 * @param model      the model in words or as a formula
 * @param names      parameter names, p of them
 * @param parameters p quantities, correlated with one another and with whatever shared influences the data carried
 * @param x          n abscissae, in {@code xUnit}
 * @param y          n ordinates, in {@code yUnit}
 * @param fitted     n values of the model, in {@code yUnit}
 * @param xUnit      unit of the abscissa
 * @param yUnit      unit of the ordinate
 * @param residualSd residual standard deviation with n - p, in {@code yUnit}; NaN without degrees of freedom
 * @param chiSquared weighted sum of squared residuals where the points' own uncertainties were used, otherwise NaN
 * @param dof        n - p
 * @param remarks    what a careful reader should know, one sentence each
 */
public record Fit(String model, List<String> names, List<Quantity> parameters, double[] x, double[] y, double[] fitted,
                  LabUnit xUnit, LabUnit yUnit, double residualSd, double chiSquared, int dof, List<String> remarks) {
    public Fit {
        names = List.copyOf(names);
        parameters = List.copyOf(parameters);
        remarks = List.copyOf(remarks);
    }

    /** Parameter k; for a polynomial the coefficient of x to the k. */
    public Quantity parameter(int k) {
        if (k < 0 || k >= parameters.size()) {
            throw new FitException("The " + model + " has coefficients 0 to " + (parameters.size() - 1) + ", not " + k + ".");
        }
        return parameters.get(k);
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

    /** The polynomial's value at x (in {@code xUnit}) with the uncertainty of its parameters. */
    public Quantity polynomialAt(double at) {
        Quantity sum = Quantity.exact(0, yUnit);
        double power = 1;
        for (Quantity c : parameters) {
            sum = sum.plus(c.mapped(c.value() * power, yUnit, power));
            power *= at;
        }
        return sum;
    }

    Fit withRemark(String remark) {
        List<String> more = new ArrayList<>(remarks);
        more.add(remark);
        return new Fit(model, names, parameters, x, y, fitted, xUnit, yUnit, residualSd, chiSquared, dof, more);
    }
}
