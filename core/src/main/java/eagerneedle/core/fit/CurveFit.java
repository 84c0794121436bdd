package eagerneedle.core.fit;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Predicate;
import org.hipparchus.distribution.continuous.ChiSquaredDistribution;
import org.jspecify.annotations.Nullable;

/**
 * Turns what {@link Regression} finds into parameters with lineage.
 *
 * <p>Near the optimum the parameters are linear in y - f' x of every point, so that each leaf reaches them through
 * exact first derivatives, one that several points share with its signs. Where the residuals speak, what they show
 * beyond that enters by {@link PointScatter}.
 */
public final class CurveFit {
    private CurveFit() {}

    /** Columns of plain numbers: n abscissae and ordinates with their standard uncertainties, null where not known. */
    public record Columns(double[] x, double[] y, double @Nullable [] uX, double @Nullable [] uY) {
        public Columns(double[] x, double[] y, double @Nullable [] uX, double @Nullable [] uY) {
            this.x = x;
            this.y = y;
            this.uX = uX;
            this.uY = uY;
        }
    }

    /**
     * Fits a curve to columns of plain numbers.
     *
     * @param model the formula, for messages
     * @param names p parameter names
     * @param start p starting values
     * @param origin identity of this fit, root of its leaves' ids
     * @throws FitException when there are too few points, it does not converge, or parameters cannot be told apart
     */
    public static Fit ofColumns(
            String model, List<String> names, double[] start, NumberedCurve curve, Columns data, String origin) {
        boolean stated = data.uY() != null || data.uX() != null;
        Regression.Weights weights = stated
                ? new Regression.Weights(
                        data.uY() == null ? new double[data.y().length] : data.uY(), data.uX(), null, null)
                : Regression.Weights.NONE;
        Regression.Optimum o = new Regression(model, names, curve, data.x(), data.y(), weights).from(start);
        int n = data.y().length;
        int p = names.size();
        double[] fitted = fitted(curve, data.x(), o.parameters());
        boolean exact = PointScatter.squares(difference(data.y(), fitted), data.y()) == 0;
        double sd = exact && n > p ? 0 : residualSd(data.y(), fitted, p);
        double[] found = exact ? withoutRounding(curve, data, o.parameters()) : o.parameters();
        List<Quantity> parameters = new ArrayList<>();
        for (int k = 0; k < p; k++) {
            parameters.add(scattered(
                    Quantity.number(found[k]),
                    o.root()[k],
                    stated ? 1 : sd,
                    stated ? Double.POSITIVE_INFINITY : n - p,
                    origin,
                    "scatter of the points"));
        }
        Curve law = (x, values, gradient) -> curve.at(0, x, values, gradient);
        return remarked(new Fit(
                model,
                names,
                parameters,
                data.x(),
                data.y(),
                fitted,
                LabUnit.ONE,
                LabUnit.ONE,
                sd,
                stated ? o.chiSquared() : Double.NaN,
                n - p,
                o.remarks(),
                law));
    }

    /**
     * Fits a law to points with their uncertainties and whatever they share.
     *
     * @param names p parameter names
     * @param units p units of the parameters, as the law takes them
     * @param start p starting values in those units
     * @throws FitException when there are too few points, it does not converge, or parameters cannot be told apart
     */
    public static Fit ofPoints(
            String model,
            List<String> names,
            List<LabUnit> units,
            double[] start,
            Curve law,
            Points points,
            FitOptions choices) {
        return ofPoints(model, names, units, start, NumberedCurve.of(law), law, points, choices);
    }

    /**
     * The same for a curve that is another one at every point, because other data stand in it.
     *
     * @param law what is drawn between the points
     */
    public static Fit ofPoints(
            String model,
            List<String> names,
            List<LabUnit> units,
            double[] start,
            NumberedCurve curve,
            Curve law,
            Points points,
            FitOptions choices) {
        int n = points.size();
        int p = names.size();
        boolean residuals = choices.scatter() == Scatter.FROM_RESIDUALS;
        Regression.Weights weights =
                residuals ? Regression.Weights.NONE : weights(points, points.own(), choices.scatter());
        List<String> remarks = new ArrayList<>();
        boolean weighted = weights != Regression.Weights.NONE && weights != Regression.Weights.ALIKE;
        if (!residuals && !weighted) {
            remarks.add(
                    points.size() > p
                            ? "Some points have no uncertainty of their own, so all points count alike."
                            : "As many points as parameters: nothing tests the fit.");
        }
        double[] xv = points.xValues();
        double[] yv = points.yValues();
        Regression.Optimum o = new Regression(model, names, curve, xv, yv, weights).from(start);
        remarks.addAll(o.remarks());
        double[] fitted = fitted(curve, xv, o.parameters());
        double sd = residualSd(yv, fitted, p);
        PointScatter scatter =
                residuals ? PointScatter.of(points, o.slopes(), o.q(), difference(yv, fitted), choices) : null;
        List<Quantity> parts = new ArrayList<>();
        for (int i = 0; i < n; i++) {
            parts.add(residuals ? points.y().get(i).linear() : points.y().get(i));
            parts.add(residuals ? points.x().get(i).linear() : points.x().get(i));
        }
        List<Quantity> parameters = new ArrayList<>();
        for (int k = 0; k < p; k++) {
            double[] factors = new double[2 * n];
            for (int i = 0; i < n; i++) {
                factors[2 * i] = o.by()[k][i];
                factors[2 * i + 1] = -o.slopes()[i] * o.by()[k][i];
            }
            Quantity q = Quantity.combination(parts, factors, o.parameters()[k], units.get(k));
            parameters.add(scatter != null ? scatter.on(q, o.root()[k]) : q);
        }
        if (scatter != null) {
            remarks.addAll(scatter.remarks());
        }
        return remarked(new Fit(
                model,
                names,
                parameters,
                xv,
                yv,
                fitted,
                points.xUnit(),
                points.yUnit(),
                scatter != null ? scatter.sd() : sd,
                weighted ? o.chiSquared() : Double.NaN,
                n - p,
                remarks,
                law));
    }

    private static Quantity scattered(
            Quantity q, double[] root, double scale, double dof, String origin, String label) {
        Quantity out = q;
        for (int j = 0; j < root.length; j++) {
            double c = scale * root[j];
            if (c != 0 && Double.isFinite(c)) {
                out = out.with(
                        Leaf.typeA(origin + "#scatter" + j, label, origin, dof).inPool(origin + "#scatter"), c);
            }
        }
        return out;
    }

    /** Parameters of an exact fit, those that do no more than round the ordinates put to 0. */
    private static double[] withoutRounding(NumberedCurve curve, Columns data, double[] parameters) {
        double[] out = parameters.clone();
        double[] effect = new double[out.length];
        double[][] g = new double[out.length][data.x().length];
        curve.all(data.x(), parameters, new double[data.x().length], g, null);
        for (int k = 0; k < out.length; k++) {
            for (double d : g[k]) {
                effect[k] = Math.max(effect[k], Math.abs(d * parameters[k]));
            }
        }
        for (int k = 0; k < out.length; k++) {
            out[k] = PointScatter.isRounding(effect[k], data.y()) ? 0 : out[k];
        }
        return out;
    }

    static double[] difference(double[] y, double[] fitted) {
        double[] out = new double[y.length];
        for (int i = 0; i < out.length; i++) {
            out[i] = y[i] - fitted[i];
        }
        return out;
    }

    private static Regression.Weights weights(Points points, Predicate<Leaf> own, Scatter scatter) {
        int n = points.size();
        double[] uY = new double[n];
        double[] uX = new double[n];
        double[] covariance = new double[n];
        boolean both = false;
        boolean all = true;
        for (int i = 0; i < n; i++) {
            Quantity x = points.x().get(i).keeping(own);
            Quantity y = points.y().get(i).keeping(own);
            uX[i] = x.u();
            uY[i] = y.u();
            covariance[i] = x.covariance(y);
            both |= uX[i] > 0;
            all &= uX[i] > 0 || uY[i] > 0;
        }
        if (scatter == Scatter.GENERALISED) {
            return new Regression.Weights(null, null, null, slopes -> whole(points, slopes));
        }
        return !all
                ? Regression.Weights.ALIKE
                : new Regression.Weights(uY, both ? uX : null, both ? covariance : null, null);
    }

    private static double[][] whole(Points points, double[] slopes) {
        int n = points.size();
        List<Quantity> e = new ArrayList<>();
        for (int i = 0; i < n; i++) {
            e.add(Quantity.combination(
                    List.of(points.y().get(i).linear(), points.x().get(i).linear()),
                    new double[] {1, -slopes[i]},
                    0,
                    points.yUnit()));
        }
        double[][] v = new double[n][n];
        for (int i = 0; i < n; i++) {
            for (int j = 0; j <= i; j++) {
                v[i][j] = v[j][i] = e.get(i).covariance(e.get(j));
            }
        }
        return v;
    }

    private static double[] fitted(NumberedCurve curve, double[] x, double[] parameters) {
        double[] out = new double[x.length];
        curve.all(x, parameters, out, null, null);
        return out;
    }

    private static double residualSd(double[] y, double[] fitted, int p) {
        double ss = 0;
        for (int i = 0; i < y.length; i++) {
            ss += (y[i] - fitted[i]) * (y[i] - fitted[i]);
        }
        return y.length > p ? Math.sqrt(ss / (y.length - p)) : Double.NaN;
    }

    /** Adds what chi-square and the pattern of the residuals say. */
    static Fit remarked(Fit fit) {
        Fit out = fit;
        if (!Double.isNaN(fit.chiSquared()) && fit.dof() > 0) {
            double tail = 1 - new ChiSquaredDistribution(fit.dof()).cumulativeProbability(fit.chiSquared());
            out = out.withRemark(
                    tail < 0.025
                            ? Notation.sentence(
                                    "The points scatter more than their stated uncertainties allow (chi-square %.1f "
                                            + "for %d degrees of freedom, Birge ratio %.2f); standard uncertainties were "
                                            + "not scaled.",
                                    fit.chiSquared(), fit.dof(), Math.sqrt(fit.chiSquared() / fit.dof()))
                            : tail > 0.975 && fit.dof() > 3
                                    ? Notation.sentence(
                                            "The points scatter less than their stated uncertainties suggest "
                                                    + "(chi-square %.2f for %d degrees of freedom); they may be stated "
                                                    + "too large, or share an influence.",
                                            fit.chiSquared(), fit.dof())
                                    : Notation.sentence(
                                            "The scatter agrees with the stated uncertainties (chi-square %.1f for %d "
                                                    + "degrees of freedom).",
                                            fit.chiSquared(), fit.dof()));
        }
        Fit checked = out;
        return Residuals.remark(fit.residuals()).map(checked::withRemark).orElse(checked);
    }
}
