package eagerneedle.core.fit;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Set;

/**
 * A law fitted to points: started from the best point of its grid, its parameters in units, and put into the form that
 * people expect.
 */
final class NamedFit {
    private static final Set<NamedModel> ABOVE_ZERO =
            Set.of(NamedModel.LOGARITHM, NamedModel.POWER_LAW, NamedModel.ARRHENIUS);

    private final NamedModel model;
    private final List<NamedModel.Kind> kinds;
    private final int[] curved;

    NamedFit(NamedModel model, List<NamedModel.Kind> kinds, int[] curved) {
        this.model = model;
        this.kinds = kinds;
        this.curved = curved;
    }

    Fit of(Points data, FitOptions choices) {
        Points points = model == NamedModel.ARRHENIUS ? data.withAbsoluteAbscissa() : data;
        double[] x = points.xValues();
        double least = Arrays.stream(x).min().orElseThrow();
        if (ABOVE_ZERO.contains(model) && least <= 0) {
            throw new FitException("A " + model.words() + " needs abscissae above zero; one is "
                    + Quantity.exact(least, points.xUnit()) + ".");
        }
        if (points.size() < model.parameters().size()) {
            throw FitException.tooFew("A fit of " + model.words() + " needs at least "
                    + (model.parameters().size() + 1) + " points; there are " + points.size() + ".");
        }
        List<LabUnit> units = new ArrayList<>();
        double yx = points.yUnit().factor() / points.xUnit().factor();
        for (NamedModel.Kind k : kinds) {
            units.add(
                    switch (k) {
                        case X -> points.xUnit().difference();
                        case Y -> points.yUnit();
                        case DY -> points.yUnit().difference();
                        case ONE -> LabUnit.ONE;
                        case Y_PER_X ->
                            points.yUnit().coherent().per(points.xUnit().coherent());
                        case MOLAR_ENERGY -> LabUnit.parse("J/mol");
                    });
        }
        boolean slopes = kinds.contains(NamedModel.Kind.Y_PER_X);
        double[] s = model.start(x, points.yValues());
        for (int k = 0; k < s.length; k++) {
            s[k] *= kinds.get(k) == NamedModel.Kind.Y_PER_X ? yx : 1;
            s[k] = choices.start().getOrDefault(model.parameters().get(k), s[k]);
        }
        Curve law = !slopes
                ? model::value
                : (at, p, g) -> {
                    double[] inner = p.clone();
                    for (int k = 0; k < inner.length; k++) {
                        inner[k] = kinds.get(k) == NamedModel.Kind.Y_PER_X ? p[k] / yx : p[k];
                    }
                    double v = model.value(at, inner, g);
                    for (int k = 0; k < inner.length; k++) {
                        g[k] = kinds.get(k) == NamedModel.Kind.Y_PER_X ? g[k] / yx : g[k];
                    }
                    return v;
                };
        Fit fit = CurveFit.ofPoints(model.words(), model.parameters(), units, s, law, points, choices);
        double[] found = fit.parameters().stream().mapToDouble(Quantity::value).toArray();
        double[] plain = canonical(found.clone());
        return Arrays.equals(found, plain)
                ? fit
                : CurveFit.ofPoints(model.words(), model.parameters(), units, plain, law, points, choices);
    }

    /**
     * The same curve with its model.parameters() in the form people expect: no negative period or amplitude, the
     * shorter time first.
     */
    private double[] canonical(double[] p) {
        if (model == NamedModel.DAMPED_COSINE) {
            if (p[3] < 0) {
                p[3] = -p[3];
                p[4] = -p[4];
            }
            if (p[1] < 0) {
                p[1] = -p[1];
                p[4] += Math.PI;
            }
            if (Math.abs(p[4]) > Math.PI) {
                p[4] = Math.IEEEremainder(p[4], 2 * Math.PI);
            }
        } else if (model == NamedModel.TWO_EXPONENTIALS && p[1] > p[3]) {
            return new double[] {p[2], p[3], p[0], p[1]};
        }
        return p;
    }

    /** Starting values from the data alone, in the law's own plain numbers. */
    double[] start(double[] x, double[] y) {
        int p = model.parameters().size();
        double[] best = null;
        double bestSquares = Double.POSITIVE_INFINITY;
        for (double[] tried : model.grid(x)) {
            double[] theta = new double[p];
            for (int c = 0; c < curved.length; c++) {
                theta[curved[c]] = tried[c];
            }
            double squares = solveLinear(x, y, theta);
            if (squares < bestSquares) {
                bestSquares = squares;
                best = theta;
            }
        }
        if (best == null) {
            throw new FitException("No starting values for " + model.words() + " could be found in these data.");
        }
        return best;
    }

    /**
     * Puts the linear model.parameters() of theta at their best; gives the sum of squares left, infinite where that
     * fails.
     */
    private double solveLinear(double[] x, double[] y, double[] theta) {
        int p = model.parameters().size();
        List<Integer> linear = new ArrayList<>();
        for (int k = 0; k < p; k++) {
            int at = k;
            if (Arrays.stream(curved).noneMatch(c -> c == at)) {
                linear.add(k);
            }
        }
        double[][] design = new double[x.length][linear.size()];
        double[] g = new double[p + 1];
        for (int i = 0; i < x.length; i++) {
            model.value(x[i], theta, g);
            for (int c = 0; c < design[i].length; c++) {
                design[i][c] = g[linear.get(c)];
                if (!Double.isFinite(design[i][c])) {
                    return Double.POSITIVE_INFINITY;
                }
            }
        }
        double[] solved = NormalEquations.solve(design, y);
        if (solved == null) {
            return Double.POSITIVE_INFINITY;
        }
        for (int c = 0; c < solved.length; c++) {
            theta[linear.get(c)] = solved[c];
        }
        double squares = 0;
        for (int i = 0; i < x.length; i++) {
            double r = y[i] - model.value(x[i], theta, g);
            squares += r * r;
        }
        return Double.isNaN(squares) ? Double.POSITIVE_INFINITY : squares;
    }
}
