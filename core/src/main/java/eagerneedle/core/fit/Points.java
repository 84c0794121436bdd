package eagerneedle.core.fit;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.trace.Trace;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Predicate;

/**
 * Points to be fitted, with their uncertainties and whatever they share.
 *
 * @param x n abscissae in one unit
 * @param y n ordinates in one unit
 */
public record Points(List<Quantity> x, List<Quantity> y) {
    /** @throws FitException when there are not as many abscissae as ordinates, or none */
    public static Points of(List<Quantity> x, List<Quantity> y) {
        if (x.size() != y.size()) {
            throw new FitException(
                    "A fit needs as many abscissae as ordinates, not " + x.size() + " and " + y.size() + ".");
        }
        if (x.isEmpty()) {
            throw new FitException("A fit needs points; there are none.");
        }
        LabUnit xUnit = x.get(0).unit();
        LabUnit yUnit = y.get(0).unit();
        return new Points(
                x.stream().map(q -> q.to(xUnit)).toList(),
                y.stream().map(q -> q.to(yUnit)).toList());
    }

    /** The samples of a trace: moments in s as abscissae, values with what they share as ordinates. */
    public static Points of(Trace trace) {
        List<Quantity> x = new ArrayList<>();
        List<Quantity> y = new ArrayList<>();
        for (int i = 0; i < trace.size(); i++) {
            x.add(Quantity.exact(trace.time()[i], LabUnit.SECOND));
            y.add(trace.sample(i));
        }
        return of(x, y);
    }

    public int size() {
        return x.size();
    }

    public LabUnit xUnit() {
        return x.get(0).unit();
    }

    public LabUnit yUnit() {
        return y.get(0).unit();
    }

    /** The abscissae with a temperature in kelvin where it was in degrees Celsius; laws like Arrhenius's need that. */
    Points withAbsoluteAbscissa() {
        return xUnit().isAffine()
                ? new Points(x.stream().map(Quantity::coherent).toList(), y)
                : this;
    }

    /** The abscissae in {@link #xUnit}. */
    public double[] xValues() {
        return x.stream().mapToDouble(Quantity::value).toArray();
    }

    double[] yValues() {
        return y.stream().mapToDouble(Quantity::value).toArray();
    }

    /** True of the leaves that act on one point alone. */
    Predicate<Leaf> own() {
        Map<Leaf, Integer> seenAt = new HashMap<>();
        for (int i = 0; i < size(); i++) {
            int point = i;
            x.get(i)
                    .contributions()
                    .keySet()
                    .forEach(leaf -> seenAt.merge(leaf, point, (a, b) -> a.equals(b) ? a : -1));
            y.get(i)
                    .contributions()
                    .keySet()
                    .forEach(leaf -> seenAt.merge(leaf, point, (a, b) -> a.equals(b) ? a : -1));
        }
        return leaf -> seenAt.getOrDefault(leaf, -1) >= 0;
    }
}
