package eagerneedle.core.stockroom;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * The stockrooms of several machines as one. Histories are put together, since what happened to an instrument happened
 * wherever it was written down; of two specifications ours stays, and what differs is told.
 *
 * @param changed the instruments that are new or have a longer history now
 * @param says one sentence for each that is described otherwise elsewhere
 */
public record Merging(List<Instrument> changed, List<String> says) {
    public Merging {
        changed = List.copyOf(changed);
        says = List.copyOf(says);
    }

    /** Takes what others wrote down into ours. */
    public static Merging of(List<Instrument> ours, List<Instrument> theirs) {
        Map<String, Instrument> known = new LinkedHashMap<>();
        ours.forEach(i -> known.put(i.id(), i));
        Map<String, Instrument> changed = new LinkedHashMap<>();
        List<String> says = new ArrayList<>();
        for (Instrument other : theirs) {
            Instrument own = known.get(other.id());
            if (own == null) {
                known.put(other.id(), other);
                changed.put(other.id(), other);
                continue;
            }
            Set<Instrument.Event> events = new LinkedHashSet<>(own.history());
            events.addAll(other.history());
            List<Instrument.Event> all = new ArrayList<>(events);
            all.sort(Comparator.comparing(Instrument.Event::at));
            Instrument both = own.withHistory(all).retire(own.retired() || other.retired());
            if (!both.equals(own)) {
                known.put(own.id(), both);
                changed.put(own.id(), both);
            }
            if (!own.withHistory(List.of())
                    .retire(false)
                    .equals(other.withHistory(List.of()).retire(false))) {
                says.add(own.id() + " is described otherwise there (" + String.join(", ", differing(own, other))
                        + "); ours stays.");
            }
        }
        return new Merging(List.copyOf(changed.values()), says);
    }

    private static List<String> differing(Instrument a, Instrument b) {
        List<String> out = new ArrayList<>();
        differing(out, "kind", a.kind(), b.kind());
        differing(out, "name", a.name(), b.name());
        differing(out, "unit", a.measures(), b.measures());
        differing(out, "place", a.place(), b.place());
        differing(out, "range", a.range(), b.range());
        differing(out, "resolution", a.resolution(), b.resolution());
        differing(out, "accuracy", a.accuracy(), b.accuracy());
        differing(out, "value", a.value(), b.value());
        differing(out, "limits", a.limits(), b.limits());
        differing(out, "part in a chain", a.link(), b.link());
        return out.isEmpty() ? List.of("warm-up or minutes") : out;
    }

    private static void differing(List<String> out, String what, @Nullable Object a, @Nullable Object b) {
        if (!Objects.equals(a, b)) {
            out.add(what);
        }
    }
}
