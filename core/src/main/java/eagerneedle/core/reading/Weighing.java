package eagerneedle.core.reading;

import eagerneedle.core.quantity.Distribution;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * A mass found on a beam balance: the weights that keep it level. Each weight of a set is one influence, the same in
 * every weighing it is used in, so that it cancels in a difference of two of them; where the beam is level is judged
 * anew each time.
 *
 * @param weights nominal masses on the pan, one or more, in units that fit
 * @param tolerance largest error of one weight; zero where they are known
 * @param sensitivity smallest mass at which the beam visibly moves
 * @param set name of the set, root of the identity of its weights
 */
public record Weighing(List<Quantity> weights, Quantity tolerance, Quantity sensitivity, String set) {
    public Weighing {
        weights = List.copyOf(weights);
        if (weights.isEmpty()) {
            throw new IllegalArgumentException("A weighing needs at least one weight.");
        }
        if (tolerance.value() < 0 || sensitivity.value() < 0) {
            throw new IllegalArgumentException("A tolerance and a sensitivity are not below zero.");
        }
    }

    /** The sum of the weights, in the unit of the first, with an influence for each weight and one for the beam. */
    public Quantity quantity(String origin, String label) {
        Quantity sum = Quantity.exact(0, weights.get(0).unit());
        Map<String, Integer> seen = new HashMap<>();
        for (Quantity w : weights) {
            String name = Notation.pointed(Quantity.exact(w.value(), w.unit()));
            int nth = seen.merge(name, 1, Integer::sum);
            Quantity one = Quantity.exact(w.value(), w.unit());
            double limit = tolerance.to(w.unit()).value();
            sum = sum.plus(
                    limit == 0
                            ? one
                            : one.with(
                                    Leaf.typeB(
                                            "weights:" + set + ":" + name + ":" + nth,
                                            set + ": " + name,
                                            set,
                                            Distribution.RECTANGULAR),
                                    limit / Math.sqrt(3)));
        }
        double beam = sensitivity.to(sum.unit()).value();
        return beam == 0
                ? sum
                : sum.with(
                        Leaf.typeB(origin + "#beam", label + ": beam", "weighing", Distribution.RECTANGULAR),
                        beam / Math.sqrt(3));
    }
}
