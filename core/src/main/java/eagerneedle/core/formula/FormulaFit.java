package eagerneedle.core.formula;

import eagerneedle.core.fit.CurveFit;
import eagerneedle.core.fit.Fit;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * Fits a formula of the sheet language to columns of plain numbers.
 *
 * <p>The derivatives are those of the language itself: a parameter enters as a quantity with one leaf of unit contribution, so
 * that the contribution of that leaf to the result is the partial derivative, exactly.
 */
public final class FormulaFit {
    private static final Set<String> CONSTANTS = Set.of("pi", "e");

    private FormulaFit() {
    }

    /**
     * Fits a model.
     *
     * @param model   {@code y = a + b*x}: the name on the left and every name that is a column are data, the others parameters
     * @param columns data by name, n numbers each
     * @param start   starting values by parameter; 1 where none is given
     * @param uY      n standard uncertainties of the ordinate, or null
     * @throws FormulaException           when the ordinate is no column, or the model has no parameters
     * @throws eagerneedle.core.fit.FitException when it does not converge
     */
    public static Fit of(Formula model, Map<String, double[]> columns, Map<String, Double> start, double[] uY) {
        double[] y = columns.get(model.defines());
        if (y == null) {
            throw new FormulaException(1, "There is no column " + model.defines() + NearName.hint(model.defines(), columns.keySet()));
        }
        Set<String> parameters = new LinkedHashSet<>(model.names());
        parameters.removeAll(columns.keySet());
        parameters.removeAll(CONSTANTS);
        List<String> names = List.copyOf(parameters);
        if (names.isEmpty()) {
            throw new FormulaException(1, "The model has no parameters: all its names are columns.");
        }
        for (String s : start.keySet()) {
            if (!parameters.contains(s)) {
                throw new FormulaException(0, "The model has no parameter " + s + NearName.hint(s, parameters));
            }
        }
        double[] from = names.stream().mapToDouble(n -> start.getOrDefault(n, 1.0)).toArray();
        String abscissa = model.names().stream().filter(columns::containsKey).findFirst().orElse(model.defines());
        List<Leaf> leaves = new ArrayList<>();
        names.forEach(n -> leaves.add(Leaf.typeA("parameter:" + n, n, "fit", Double.POSITIVE_INFINITY)));
        CurveFit.Curve curve = (point, values, gradient) -> {
            Map<String, Value> seen = new HashMap<>();
            columns.forEach((name, column) -> seen.put(name, new Value.Scalar(Quantity.number(column[point]))));
            for (int k = 0; k < values.length; k++) {
                seen.put(names.get(k), new Value.Scalar(Quantity.of(values[k], 1, LabUnit.ONE, leaves.get(k))));
            }
            Value v = model.evaluate(new Columns(seen));
            if (!(v instanceof Value.Scalar s)) {
                throw new FormulaException(1, "A model gives one number at each point, not " + v.described() + ".");
            }
            Quantity q = s.quantity().to(LabUnit.ONE);
            for (int k = 0; k < gradient.length; k++) {
                gradient[k] = q.contribution(leaves.get(k));
            }
            return q.value();
        };
        return CurveFit.of(model.text(), names, from, curve, columns.get(abscissa), y, uY, "fit");
    }

    /** A scope over one row. */
    private record Columns(Map<String, Value> seen) implements Scope {
        @Override
        public Optional<Value> lookup(String name) {
            return Optional.ofNullable(seen.get(name));
        }

        @Override
        public Collection<String> names() {
            return seen.keySet();
        }

        @Override
        public String origin() {
            return "fit";
        }

        @Override
        public String label() {
            return "fit";
        }

        @Override
        public boolean planning() {
            return false;
        }

        @Override
        public Optional<eagerneedle.core.trace.Window> window(String name, eagerneedle.core.trace.Trace trace) {
            return Optional.empty();
        }
    }
}
