package eagerneedle.core.function;

import eagerneedle.core.arithmetic.Program;
import eagerneedle.core.fit.Curve;
import eagerneedle.core.fit.CurveFit;
import eagerneedle.core.fit.Fit;
import eagerneedle.core.fit.Model;
import eagerneedle.core.fit.NumberedCurve;
import eagerneedle.core.formula.Constants;
import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.formula.NearName;
import eagerneedle.core.formula.Scope;
import eagerneedle.core.formula.Spelling;
import eagerneedle.core.formula.Value;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.DoubleSupplier;
import org.jspecify.annotations.Nullable;

/**
 * Fits a formula of the sheet language to columns of plain numbers.
 *
 * <p>The derivatives are exact: by forward differentiation of the formula laid out for speed, or, for formulas that
 * need the whole language, through quantities whose leaves have unit contributions.
 */
public final class FormulaFit {
    private FormulaFit() {}

    /**
     * Fits a model.
     *
     * @param model {@code y = a + b*x}: the name on the left and every name that is a column are data, the others
     *     parameters
     * @param columns data by name, n numbers each
     * @param start starting values by parameter; 1 where none is given
     * @param uX n standard uncertainties of the abscissa, the first column the model names; or null
     * @param uY n standard uncertainties of the ordinate, or null
     * @throws FormulaException when the ordinate is no column, or the model has no parameters
     * @throws eagerneedle.core.fit.FitException when it does not converge
     */
    public static Fit of(
            Formula model,
            Map<String, double[]> columns,
            Map<String, Double> start,
            double @Nullable [] uX,
            double @Nullable [] uY) {
        String ordinate = model.defines();
        if (ordinate == null) {
            throw new FormulaException(1, "The model does not say what it gives; write y = before it.");
        }
        double[] y = columns.get(ordinate);
        if (y == null) {
            throw new FormulaException(1, "There is no column " + ordinate + NearName.hint(ordinate, columns.keySet()));
        }
        Set<String> parameters = new LinkedHashSet<>(model.names());
        parameters.removeAll(columns.keySet());
        parameters.removeIf(n -> Constants.has(n) && !start.containsKey(n));
        List<String> names = List.copyOf(parameters);
        if (names.isEmpty()) {
            throw new FormulaException(1, "The model has no parameters: all its names are columns.");
        }
        for (String s : start.keySet()) {
            if (!parameters.contains(s)) {
                throw new FormulaException(0, "The model has no parameter " + s + NearName.hint(s, parameters));
            }
        }
        double[] from =
                names.stream().mapToDouble(n -> start.getOrDefault(n, 1.0)).toArray();
        List<String> data = model.names().stream().filter(columns::containsKey).toList();
        double[] x = data.isEmpty() ? y : Objects.requireNonNull(columns.get(data.get(0)));
        NumberedCurve curve = Program.of(model.expression(), names, data)
                .<NumberedCurve>map(program -> new CompiledCurve(
                        program, names.size(), data.stream().map(columns::get).toArray(double[][]::new)))
                .orElseGet(() -> careful(model, names, data, columns));
        return CurveFit.ofColumns(model.text(), names, from, curve, new CurveFit.Columns(x, y, uX, uY), "fit");
    }

    /**
     * A formula in {@code x} as a model for points with units.
     *
     * @param formula a formula of {@code x} and parameters; a name on the left is ignored
     * @param start starting values; they give each parameter its unit
     * @throws FormulaException when a parameter has no starting value; the fit throws one when units do not fit
     */
    public static Model model(Formula formula, Map<String, Quantity> start) {
        List<String> names = formula.names().stream()
                .filter(n -> !n.equals("x") && (!Constants.has(n) || start.containsKey(n)))
                .toList();
        Map<String, Quantity> inOrder = new LinkedHashMap<>();
        for (String n : names) {
            if (!start.containsKey(n)) {
                throw new FormulaException(
                        1,
                        "The parameter " + n + " needs a starting value with its unit, for instance start: \"" + n
                                + " = 1\".");
            }
            inOrder.put(n, start.get(n));
        }
        int p = names.size();
        List<LabUnit> units = inOrder.values().stream().map(Quantity::unit).toList();
        List<Leaf> leaves = new ArrayList<>();
        names.forEach(n -> leaves.add(Leaf.typeA("parameter:" + n, n, "fit", Double.POSITIVE_INFINITY)));
        leaves.add(Leaf.typeA("abscissa:", "abscissa", "fit", Double.POSITIVE_INFINITY));
        return (points, choices) -> {
            boolean[] worked = {false};
            Curve law = (x, values, gradient) -> guarded(worked, gradient, () -> {
                Map<String, Value> seen = new HashMap<>();
                seen.put("x", new Value.Scalar(Quantity.of(x, 1, points.xUnit(), leaves.get(p))));
                for (int k = 0; k < p; k++) {
                    seen.put(names.get(k), new Value.Scalar(Quantity.of(values[k], 1, units.get(k), leaves.get(k))));
                }
                if (!(formula.evaluate(Scope.over("fit", seen)) instanceof Value.Scalar s)) {
                    throw new FormulaException(1, "A model gives one quantity at each point.");
                }
                Quantity q = s.quantity().to(points.yUnit());
                for (int k = 0; k <= p; k++) {
                    gradient[k] = q.contribution(leaves.get(k));
                }
                return q.value();
            });
            Curve fast = UnitCurve.of(formula, inOrder, points, law).orElse(law);
            return Model.of(Spelling.of(formula.expression()), inOrder, fast).fit(points, choices);
        };
    }

    /** Through the language itself: the contribution of a leaf of unit uncertainty is the partial derivative. */
    private static NumberedCurve careful(
            Formula model, List<String> names, List<String> data, Map<String, double[]> columns) {
        int p = names.size();
        List<Leaf> leaves = new ArrayList<>();
        names.forEach(n -> leaves.add(Leaf.typeA("parameter:" + n, n, "fit", Double.POSITIVE_INFINITY)));
        leaves.add(Leaf.typeA("abscissa:", "abscissa", "fit", Double.POSITIVE_INFINITY));
        double[][] given = data.stream().map(columns::get).toArray(double[][]::new);
        boolean[] worked = {false};
        return (point, x, parameters, gradient) -> guarded(worked, gradient, () -> {
            Map<String, Value> seen = new HashMap<>();
            for (int c = 0; c < data.size(); c++) {
                seen.put(
                        data.get(c),
                        new Value.Scalar(
                                c == 0
                                        ? Quantity.of(x, 1, LabUnit.ONE, leaves.get(p))
                                        : Quantity.number(given[c][point])));
            }
            for (int k = 0; k < p; k++) {
                seen.put(names.get(k), new Value.Scalar(Quantity.of(parameters[k], 1, LabUnit.ONE, leaves.get(k))));
            }
            Value v = model.evaluate(Scope.over("fit", seen));
            if (!(v instanceof Value.Scalar s)) {
                throw new FormulaException(1, "A model gives one number at each point, not " + v.described() + ".");
            }
            Quantity q = s.quantity().to(LabUnit.ONE);
            for (int k = 0; k <= p; k++) {
                gradient[k] = q.contribution(leaves.get(k));
            }
            return q.value();
        });
    }

    /**
     * A formula that has worked once may leave its domain on the way to the optimum; that is "no value" to the fit, not
     * a mistake of the user.
     */
    private static double guarded(boolean[] worked, double[] gradient, DoubleSupplier evaluation) {
        try {
            double value = evaluation.getAsDouble();
            worked[0] = true;
            return value;
        } catch (FormulaException e) {
            if (!worked[0]) {
                throw e;
            }
            java.util.Arrays.fill(gradient, Double.NaN);
            return Double.NaN;
        }
    }
}
