package eagerneedle.core.reduce;

import eagerneedle.core.quantity.Distribution;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * A rehearsed result where inputs are known better or worse than they were in the rehearsals: what each of them does to
 * it is as much larger as its uncertainty is. That is at once there, where carrying the method out again takes seconds.
 */
public final class RescaledPlan {
    private RescaledPlan() {}

    /**
     * The same result under other inputs.
     *
     * @param rehearsed its influences carry the labels of those of the inputs
     * @param before the plan that was rehearsed
     * @param after the plan as it is now
     * @return empty where an input has another value, so that the result may have one too
     */
    public static Optional<Quantity> of(Quantity rehearsed, Reduction before, Reduction after) {
        Quantity out = rehearsed;
        for (String input : after.sheet().inputs().keySet()) {
            Optional<Quantity> was = before.quantity(input);
            Optional<Quantity> is = after.quantity(input);
            if (was.isEmpty() || is.isEmpty()) {
                continue;
            }
            double difference = is.get().value() - was.get().to(is.get().unit()).value();
            if (Math.abs(difference) > 1e-12 * Math.abs(is.get().value())) {
                return Optional.empty();
            }
            out = scaled(out, input, was.get(), is.get());
        }
        return Optional.of(out);
    }

    private static Quantity scaled(Quantity result, String input, Quantity was, Quantity is) {
        Map<String, Double> old = byLabel(was);
        Map<String, Double> now = byLabel(is.to(was.unit()));
        if (old.equals(now) || was.u() == 0) {
            return result;
        }
        Set<Leaf> its = new LinkedHashSet<>();
        double square = 0;
        for (Map.Entry<Leaf, Double> c : result.contributions().entrySet()) {
            if (old.containsKey(c.getKey().label())) {
                its.add(c.getKey());
                square += c.getValue() * c.getValue();
            }
        }
        double perUnit = Math.sqrt(square) / was.u();
        Quantity out = result.keeping(leaf -> !its.contains(leaf));
        for (Map.Entry<String, Double> c : now.entrySet()) {
            double u = perUnit * c.getValue();
            if (u > 0) {
                out = out.with(
                        Leaf.typeB("rescaled:" + input + "/" + c.getKey(), c.getKey(), input, Distribution.NORMAL), u);
            }
        }
        return out;
    }

    private static Map<String, Double> byLabel(Quantity q) {
        Map<String, Double> out = new LinkedHashMap<>();
        q.contributions().forEach((leaf, c) -> out.merge(leaf.label(), c * c, Double::sum));
        out.replaceAll((label, square) -> Math.sqrt(square));
        return out;
    }
}
