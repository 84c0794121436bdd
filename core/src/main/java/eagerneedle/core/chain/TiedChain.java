package eagerneedle.core.chain;

import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.trace.Trace;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.function.Function;

/**
 * Links some of whose constants inputs give: one amplifier whose gain was measured, say, before two channels.
 *
 * <p>Such a constant is the input and nothing beside it, so that every channel and every formula that rests on the
 * input is moved by the same influence.
 *
 * @param links with the constants that inputs give put to their values, exactly
 * @param given what gives them
 */
public record TiedChain(List<Link> links, List<Given> given) {
    /** A constant of link {@code place}, as a plain number in the unit of the constant. */
    record Given(int place, String constant, Quantity value) {}

    /**
     * Of the links of a channel.
     *
     * @param input the value of an input, by its name
     */
    public static TiedChain of(List<Link> links, Function<String, Quantity> input) {
        List<Link> exact = new ArrayList<>();
        List<Given> given = new ArrayList<>();
        for (Link link : links) {
            Link now = link;
            for (Map.Entry<String, String> e :
                    (link.inputs() == null ? Map.<String, String>of() : link.inputs()).entrySet()) {
                Quantity q = in(input.apply(e.getValue()), e.getValue(), link, e.getKey());
                given.add(new Given(exact.size(), e.getKey(), q));
                now = now.exactly(e.getKey(), q.value());
            }
            exact.add(now);
        }
        return new TiedChain(List.copyOf(exact), List.copyOf(given));
    }

    /** True when an input gives one of the constants. */
    public static boolean isTied(List<Link> links) {
        return links.stream().anyMatch(l -> l.inputs() != null);
    }

    /** Names of the inputs that give constants of these links. */
    public static List<String> inputs(List<Link> links) {
        return links.stream()
                .filter(l -> l.inputs() != null)
                .flatMap(l -> l.inputs().values().stream())
                .distinct()
                .toList();
    }

    private static Quantity in(Quantity q, String name, Link link, String constant) {
        return in(q, name, link.label(), link.unitOf(constant), constant);
    }

    /**
     * A quantity as a constant of a link, a plain number in the unit of the constant.
     *
     * @throws IllegalArgumentException with one sentence where its unit does not fit
     */
    public static Quantity in(Quantity q, String name, String label, ConstantUnit unit, String constant) {
        return unit.number(q, name + " in " + q.unit().named() + " cannot be the " + constant + " of " + label);
    }

    /** What the inputs do to every sample, one influence of theirs after another. */
    public List<Trace.Shared> shared() {
        List<Trace.Shared> out = new ArrayList<>();
        Chain now = Chain.of(links);
        for (Given g : given) {
            for (Map.Entry<Leaf, Double> c : g.value.contributions().entrySet()) {
                List<Link> moved = new ArrayList<>(links);
                moved.set(g.place, links.get(g.place).exactly(g.constant, g.value.value() + c.getValue()));
                Chain other = Chain.of(moved);
                out.add(new Trace.Shared(c.getKey(), v -> other.indication(now.exactCounts(v)) - v));
            }
        }
        return out;
    }
}
