package eagerneedle.core.marking;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.sheet.Descent;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * Whether a number follows from earlier ones that were handed in wrong: they are put in place of what the data give.
 */
final class Following {
    private final OwnData data;
    private final Map<String, Marked> done;

    Following(OwnData data, Map<String, Marked> done) {
        this.data = data;
        this.done = done;
    }

    /** The earlier numbers that this one follows from; empty where it follows from what is right. */
    List<String> from(String quantity, double value, double right, double step) {
        Set<String> above = new LinkedHashSet<>();
        collect(
                quantity,
                above,
                Descent.of(data.sheet()).stream().collect(Collectors.toMap(Descent.Item::name, i -> i)));
        Map<String, Double> wrong = new LinkedHashMap<>();
        Map<String, Double> half = new LinkedHashMap<>();
        for (String q : above) {
            Marked m = done.get(q);
            if (m != null
                            && m.given() != null
                            && m.expected() != null
                            && !m.verdict().isRightNumber()
                    || m != null && m.verdict() == Verdict.FOLLOWED) {
                double[] v = inUnit(m);
                wrong.put(q, v[0]);
                half.put(q, v[1] / 2);
            }
        }
        List<Map<String, Double>> tried = new ArrayList<>();
        wrong.forEach((q, v) -> tried.add(Map.of(q, v)));
        if (wrong.size() > 1) {
            tried.add(wrong);
        }
        for (Map<String, Double> t : tried) {
            OptionalDouble v = data.following(t, quantity);
            if (v.isPresent() && v.getAsDouble() != right) {
                double slack = 0;
                for (Map.Entry<String, Double> e : t.entrySet()) {
                    Map<String, Double> moved = new LinkedHashMap<>(t);
                    moved.put(e.getKey(), e.getValue() + half.getOrDefault(e.getKey(), 0.0));
                    OptionalDouble w = data.following(moved, quantity);
                    slack += w.isPresent() ? Math.abs(w.getAsDouble() - v.getAsDouble()) : 0;
                }
                boolean moves = Math.abs(v.getAsDouble() - right) > step + 2 * slack;
                if (moves && Math.abs(value - v.getAsDouble()) <= OneNumber.HALF * step + slack) {
                    return List.copyOf(t.keySet());
                }
            }
        }
        return List.of();
    }

    private void collect(String name, Set<String> out, Map<String, Descent.Item> items) {
        Descent.Item item = items.get(name);
        if (item != null) {
            for (String f : item.from()) {
                if (out.add(f)) {
                    collect(f, out, items);
                }
            }
        }
    }

    /** A number that was marked, and its step, in the unit of the right result. */
    private static double[] inUnit(Marked m) {
        GivenNumber g = Objects.requireNonNull(m.given());
        Quantity is = Objects.requireNonNull(m.expected());
        if (!g.unit().isEmpty()) {
            try {
                LabUnit own = LabUnit.parse(g.unit());
                if (own.fits(is.unit())) {
                    return new double[] {own.convert(g.value(), is.unit()), Math.abs(g.step() * own.scaleTo(is.unit()))
                    };
                }
            } catch (IllegalArgumentException unknown) {
                // As if in the right unit.
            }
        }
        return new double[] {g.value(), g.step()};
    }
}
