package eagerneedle.core.sheet;

import com.fasterxml.jackson.annotation.JsonCreator;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * The physics of a rig as a sheet writes it: what nature knows and what happens, from causes to what a sensor sees.
 *
 * <p>The same entries at three lifetimes: of the rig itself for a session, of a capture for a run, of a level for a run
 * at that level. Formulas are kept as written.
 *
 * @param nature what is so in every session, whoever measures it; of the rig alone
 * @param hidden what nature knows; the name of an input says how its truth is drawn
 * @param state what changes in time, with its value at the start
 * @param rates how fast each changes; what has no rate is a memory
 * @param when what happens at moments
 * @param signals what each channel is shown
 * @param edges what each gate is shown
 * @param readings what an eye would see, where it is not simply the truth
 * @param stuck when the counts of a channel stand still
 * @param circles how large the errors of divided circles are, by channel
 * @param lasts how long a run is worth recording
 * @param truth results by the physics itself
 * @param parts of captures, and within them of levels
 * @param uncalibrated channels whose calibration is left out, by a mistake
 */
public record RigPlan(
        Map<String, String> nature,
        Map<String, String> hidden,
        Map<String, String> state,
        Map<String, String> rates,
        Map<String, Event> when,
        Map<String, String> signals,
        Map<String, Edges> edges,
        Map<String, Eye> readings,
        Map<String, String> stuck,
        Map<String, String> circles,
        @Nullable String lasts,
        Map<String, String> truth,
        Map<String, RigPlan> parts,
        Set<String> uncalibrated) {
    /** A rig that knows nothing. */
    public static final RigPlan NONE = of(Map.of());

    /** The part that holds while references are set at points of a calibration. */
    public static final String POINTS = "points";

    /** The entries of which captures and levels may not have the name. */
    public static final Set<String> WORDS = Set.of(
            "nature",
            "hidden",
            "state",
            "rates",
            "when",
            "signals",
            "edges",
            "readings",
            "stuck",
            "circles",
            "lasts",
            "truth");

    /**
     * Something that happens.
     *
     * @param at a time, or null
     * @param passes a formula that rises through zero, or null
     * @param set values it gives, all from those before
     * @param once true when it happens only the first time
     */
    public record Event(@Nullable String at, @Nullable String passes, Map<String, String> set, boolean once) {}

    /**
     * A gate.
     *
     * @param of what moves
     * @param every from one spoke to the next, in the unit of {@code of}
     * @param blocked share of it that is dark
     * @param jitter error of each edge, in the unit of {@code of}; null for none
     * @param lost spokes, counted {@code n} from 0, that are not seen; null for none
     * @param uneven error of each spoke, the same at every turn; null for none
     * @param round after how many spokes they come again
     */
    public record Edges(
            String of,
            String every,
            String blocked,
            @Nullable String jitter,
            @Nullable String lost,
            @Nullable String uneven,
            int round) {}

    /**
     * What an eye sees.
     *
     * @param formula the value, before any error of reading
     * @param at {@code end} for the end of a run; the start when not said
     * @param value how it is written, with its uncertainty; as the sheet plans it when not said
     */
    public record Eye(
            String formula, @Nullable String at, @Nullable String value) {}

    /** From the entries of the block. */
    @JsonCreator
    public static RigPlan of(Map<String, Object> entries) {
        Map<String, RigPlan> parts = new LinkedHashMap<>();
        entries.forEach((name, value) -> {
            if (!WORDS.contains(name)) {
                parts.put(name, of(map(value)));
            }
        });
        return new RigPlan(
                texts(entries.get("nature")),
                texts(entries.get("hidden")),
                texts(entries.get("state")),
                texts(entries.get("rates")),
                events(entries.get("when")),
                texts(entries.get("signals")),
                gates(entries.get("edges")),
                eyes(entries.get("readings")),
                texts(entries.get("stuck")),
                texts(entries.get("circles")),
                text(entries.get("lasts")),
                texts(entries.get("truth")),
                parts,
                Set.of());
    }

    /** True when it says what happens in a capture: in a part of its own, or in what one of its channels is shown. */
    public boolean tells(String name, Capture capture) {
        return parts.containsKey(name)
                || capture.channels().stream().anyMatch(c -> signals.containsKey(c) || edges.containsKey(c));
    }

    /** The same with something else that is so in every session. */
    public RigPlan withNature(Map<String, String> other) {
        return new RigPlan(
                other,
                hidden,
                state,
                rates,
                when,
                signals,
                edges,
                readings,
                stuck,
                circles,
                lasts,
                truth,
                parts,
                uncalibrated);
    }

    /** The part of a capture or a level; one that knows nothing where the sheet has none. */
    public RigPlan part(String name) {
        return parts.getOrDefault(name, NONE);
    }

    @SuppressWarnings("unchecked")
    private static Map<String, Object> map(@Nullable Object value) {
        return value == null ? Map.of() : (Map<String, Object>) value;
    }

    private static @Nullable String text(@Nullable Object value) {
        return value == null ? null : value.toString();
    }

    /** What the sheet's schema asks for. */
    private static String needed(@Nullable Object value) {
        return Objects.requireNonNull(value).toString();
    }

    private static Map<String, String> texts(@Nullable Object value) {
        Map<String, String> out = new LinkedHashMap<>();
        map(value).forEach((k, v) -> out.put(k, needed(v)));
        return out;
    }

    private static Map<String, Event> events(@Nullable Object value) {
        Map<String, Event> out = new LinkedHashMap<>();
        map(value).forEach((k, v) -> {
            Map<String, Object> e = map(v);
            out.put(
                    k,
                    new Event(
                            text(e.get("at")),
                            text(e.get("passes")),
                            texts(e.get("set")),
                            Boolean.TRUE.equals(e.get("once"))));
        });
        return out;
    }

    private static Map<String, Edges> gates(@Nullable Object value) {
        Map<String, Edges> out = new LinkedHashMap<>();
        map(value).forEach((k, v) -> {
            Map<String, Object> e = map(v);
            out.put(
                    k,
                    new Edges(
                            needed(e.get("of")),
                            needed(e.get("every")),
                            e.containsKey("blocked") ? needed(e.get("blocked")) : "0.5",
                            text(e.get("jitter")),
                            text(e.get("lost")),
                            text(e.get("uneven")),
                            e.get("round") instanceof Number n ? n.intValue() : 1));
        });
        return out;
    }

    private static Map<String, Eye> eyes(@Nullable Object value) {
        Map<String, Eye> out = new LinkedHashMap<>();
        map(value).forEach((k, v) -> {
            if (v instanceof Map) {
                out.put(k, new Eye(needed(map(v).get("formula")), text(map(v).get("at")), text(map(v).get("value"))));
            } else {
                out.put(k, new Eye(needed(v), null, null));
            }
        });
        return out;
    }
}
