package eagerneedle.core.benches;

import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Key;
import eagerneedle.core.reduce.PoolTaking;
import eagerneedle.core.reduce.Reducer;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.reduce.SampleSource;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.SheetReader;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;

/** The session of one bench, reduced, with what may be changed in it to see what that would make of its results. */
public final class Bench {
    private final String name;
    private final Session session;
    private final Reducer reducer;
    private final Reduction reduction;
    private final Map<Key, List<Key>> needs;
    private final UnaryOperator<Quantity> besideOthers;

    /**
     * A place in a method where a bench has a value: an input, a result or what a calibration gives, or a quantity of
     * the runs at one level.
     *
     * @param capture empty for what belongs to no run
     * @param level empty likewise, or where the capture has none
     */
    record Place(String capture, String level, String name) {
        /** True where another is the same thing at another level. */
        boolean isLike(Place other) {
            return capture.equals(other.capture) && name.equals(other.name);
        }
    }

    /**
     * The bench of a session.
     *
     * @param name what it is called, as no other is
     * @param samples open as long as this is used
     */
    public Bench(String name, SheetReader.Located located, Session session, SampleSource samples) {
        this.name = name;
        this.session = session;
        reducer = new Reducer(located, samples);
        reducer.takeLong();
        reduction = reducer.reduce(session);
        needs = reducer.needs(session);
        besideOthers = PoolTaking.besideOthers(name, reduction.sheet(), session);
    }

    public String name() {
        return name;
    }

    public Reduction reduction() {
        return reduction;
    }

    /** A result as it stands beside those of other benches; empty where there is none. */
    public Optional<Benches.Row> row(String result) {
        return reduction.quantity(result).map(q -> new Benches.Row(name, besideOthers.apply(q)));
    }

    /** Everything with a value that a result comes from, directly or not. */
    Map<Place, List<Key>> above(String result) {
        Map<Place, List<Key>> out = new LinkedHashMap<>();
        ancestors(new Key.Global(result))
                .forEach(key -> place(key)
                        .filter(p -> reduction.quantity(key).isPresent())
                        .ifPresent(p ->
                                out.computeIfAbsent(p, x -> new ArrayList<>()).add(key)));
        return out;
    }

    /** The same with the result itself. */
    Map<Place, List<Key>> withAbove(String result) {
        Map<Place, List<Key>> out = above(result);
        Key key = new Key.Global(result);
        if (reduction.quantity(key).isPresent()) {
            out.put(new Place("", "", result), List.of(key));
        }
        return out;
    }

    /** Keys that one is worked out from, directly or not; without itself. */
    Set<Key> ancestors(Key of) {
        Set<Key> out = new LinkedHashSet<>();
        Deque<Key> next = new ArrayDeque<>(needs.getOrDefault(of, List.of()));
        while (!next.isEmpty()) {
            Key key = next.pop();
            if (out.add(key)) {
                next.addAll(needs.getOrDefault(key, List.of()));
            }
        }
        return out;
    }

    private Optional<Place> place(Key key) {
        if (key instanceof Key.Global g) {
            return Optional.of(new Place("", "", g.name()));
        }
        if (key instanceof Key.OfRun of) {
            Run run = session.run(of.run()).orElseThrow();
            Capture capture = reduction.sheet().captures().get(run.capture());
            boolean known = run.takesPart() && capture != null && isQuantity(capture, of.name());
            return known
                    ? Optional.of(new Place(run.capture(), run.level() == null ? "" : run.level(), of.name()))
                    : Optional.empty();
        }
        return Optional.empty();
    }

    private static boolean isQuantity(Capture capture, String name) {
        return capture.quantities().containsKey(name) || capture.byEye().containsKey(name);
    }

    /** Mean of what stands at a place, in the unit of the first. */
    Quantity mean(List<Key> keys) {
        List<Quantity> all =
                keys.stream().flatMap(k -> reduction.quantity(k).stream()).toList();
        double[] share = new double[all.size()];
        java.util.Arrays.fill(share, 1.0 / all.size());
        double value =
                all.stream().mapToDouble(q -> q.in(all.get(0).unit())).average().orElseThrow();
        return all.size() == 1
                ? all.get(0)
                : Quantity.combination(
                        all.stream().map(q -> q.to(all.get(0).unit())).toList(),
                        share,
                        value,
                        all.get(0).unit());
    }

    /** A result as it would be with other values; empty where there would be none. */
    Optional<Quantity> asIf(Map<Key, Quantity> put, String result) {
        return reducer.asIf(session, put).quantity(result);
    }
}
