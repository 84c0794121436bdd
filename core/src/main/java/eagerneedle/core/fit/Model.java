package eagerneedle.core.fit;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import java.util.List;
import java.util.Map;
import java.util.Objects;

/**
 * The door to fits: a model takes points and choices and gives a {@link Fit}. Polynomials and the line through the
 * origin are made here, laws that find their own start are {@link NamedModel}s, and any formula becomes a model through
 * {@code FormulaFit.model} of the language.
 */
@FunctionalInterface
public interface Model {
    /**
     * Fits this model.
     *
     * @throws FitException when there are too few points, it does not converge, or parameters cannot be told apart
     */
    Fit fit(Points points, FitOptions choices);

    /** A polynomial of a degree, 1 for the straight line, 0 for the mean. */
    static Model polynomial(int degree) {
        return (points, choices) -> PolynomialFit.ofPoints(points, degree, choices);
    }

    /** The straight line through the origin. */
    static Model proportional() {
        return PolynomialFit::throughOrigin;
    }

    /**
     * Any law with starting values that give its parameters their units.
     *
     * @param words what it is called in messages
     * @param start starting value of each parameter, in the order the law takes them
     * @param law the curve; takes each parameter in the unit of its starting value
     */
    static Model of(String words, Map<String, Quantity> start, Curve law) {
        List<String> names = List.copyOf(start.keySet());
        List<LabUnit> units = names.stream()
                .map(n -> Objects.requireNonNull(start.get(n)).unit())
                .toList();
        double[] from = names.stream()
                .mapToDouble(n -> Objects.requireNonNull(start.get(n)).value())
                .toArray();
        return (points, choices) -> CurveFit.ofPoints(words, names, units, from, law, points, choices);
    }
}
