package eagerneedle.core.reduce;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * An incremental graph of definitions.
 *
 * <p>Each node has a stamp that changes when its own definition does. A node is computed anew only if its stamp changed
 * or one of the outcomes it needs is a different object from last time; everything else is carried over. So one edit
 * costs what depends on it and no more.
 */
final class Graph {
    /**
     * One definition.
     *
     * @param needs keys of the nodes it may look at
     * @param stamp equal stamps mean equal definitions
     * @param compute its outcome, given a way to look at the needed outcomes
     */
    record Node(List<Key> needs, Object stamp, Function<Function<Key, Outcome>, Outcome> compute) {}

    /** Of a node that was computed: what it needed then, in the order of its needs, and what came of it. */
    private record Memory(List<Outcome> needed, Outcome outcome) {}

    /** A node in its graph: whose outcomes it needs, who waits for its own, and what came of it. */
    private static final class Place {
        private final Key key;
        private final Node node;
        /** Null for a need that is not of the graph. */
        private final @Nullable Place[] needs;

        private final List<Place> dependents = new ArrayList<>(2);
        private int missing;
        private @Nullable Memory memory;

        Place(Key key, Node node) {
            this.key = key;
            this.node = node;
            this.needs = new Place[node.needs().size()];
        }

        List<Outcome> needed() {
            List<Outcome> needed = new ArrayList<>(needs.length);
            for (int i = 0; i < needs.length; i++) {
                Place p = needs[i];
                needed.add(p == null || p.memory == null ? unknown(node.needs().get(i)) : p.memory.outcome());
            }
            return needed;
        }

        /** What is remembered of it, if it still holds: the same definition, of the same objects. */
        boolean holds(List<Outcome> needed, Place now) {
            return memory != null && node.stamp().equals(now.node.stamp()) && sameObjects(memory.needed(), needed);
        }
    }

    /** Fewer than this are computed one after the other. */
    private static final int WORTH_SHARING = 8;

    /** In the order of the nodes. */
    private final Map<Key, Place> places;

    private final Set<Key> open = new HashSet<>();
    private int computed;

    private Graph(Map<Key, Node> nodes) {
        this.places = new LinkedHashMap<>(2 * nodes.size());
        nodes.forEach((key, node) -> places.put(key, new Place(key, node)));
    }

    /**
     * Evaluates all nodes; {@code previous} may be null.
     *
     * <p>Nodes whose needs are all met do not know of each other: they are computed together, wave after wave. What is
     * left then stands in a circle, and each such node says so.
     */
    static Graph evaluate(Map<Key, Node> nodes, @Nullable Graph previous) {
        Graph g = new Graph(nodes);
        Map<Key, Place> before = previous == null ? Map.of() : previous.places;
        List<Place> ready = new ArrayList<>();
        for (Place p : g.places.values()) {
            for (int i = 0; i < p.needs.length; i++) {
                Place other = g.places.get(p.node.needs().get(i));
                if (other != null) {
                    p.needs[i] = other;
                    other.dependents.add(p);
                    p.missing++;
                }
            }
            if (p.missing == 0) {
                ready.add(p);
            }
        }
        int done = 0;
        for (List<Place> wave = ready; !wave.isEmpty(); wave = released(wave)) {
            g.compute(wave, before);
            done += wave.size();
        }
        if (done < nodes.size()) {
            nodes.keySet().forEach(key -> g.outcome(key, before));
        }
        return g;
    }

    /** Of some nodes what they need, and what that needs, in the order in which all of them stand. */
    static Map<Key, Node> under(List<Key> wanted, Map<Key, Node> nodes) {
        Set<Key> reached = new HashSet<>();
        Deque<Key> open = new ArrayDeque<>(wanted);
        while (!open.isEmpty()) {
            Key key = open.pop();
            Node node = nodes.get(key);
            if (node != null && reached.add(key)) {
                open.addAll(node.needs());
            }
        }
        Map<Key, Node> out = new LinkedHashMap<>(nodes);
        out.keySet().retainAll(reached);
        return out;
    }

    private static List<Place> released(List<Place> wave) {
        List<Place> next = new ArrayList<>();
        for (Place p : wave) {
            for (Place d : p.dependents) {
                d.missing--;
                if (d.missing == 0) {
                    next.add(d);
                }
            }
        }
        return next;
    }

    private void compute(List<Place> wave, Map<Key, Place> before) {
        List<Place> stale = new ArrayList<>();
        for (Place p : wave) {
            Place old = before.get(p.key);
            if (old != null && old.holds(p.needed(), p)) {
                p.memory = old.memory;
            } else {
                stale.add(p);
            }
        }
        Stream<Place> all = stale.size() < WORTH_SHARING ? stale.stream() : stale.parallelStream();
        List<Memory> fresh = all.map(
                        p -> new Memory(p.needed(), p.node.compute().apply(this::met)))
                .toList();
        for (int i = 0; i < fresh.size(); i++) {
            stale.get(i).memory = fresh.get(i);
        }
        computed += fresh.size();
    }

    /** What was computed in an earlier wave. */
    private Outcome met(Key key) {
        Place p = places.get(key);
        return p == null || p.memory == null ? unknown(key) : p.memory.outcome();
    }

    private static Outcome unknown(Key key) {
        return Outcome.problem("There is no " + key + ".");
    }

    Map<Key, Outcome> outcomes() {
        Map<Key, Outcome> out = new LinkedHashMap<>(2 * places.size());
        places.forEach((key, p) ->
                out.put(key, Objects.requireNonNull(p.memory, "computed").outcome()));
        return out;
    }

    /** How many nodes had to be computed this time. */
    int computed() {
        return computed;
    }

    /** One by one, for nodes in a circle. */
    private Outcome outcome(Key key, Map<Key, Place> before) {
        Place p = places.get(key);
        if (p == null) {
            return unknown(key);
        }
        if (p.memory != null) {
            return p.memory.outcome();
        }
        if (!open.add(key)) {
            return Outcome.problem(key + " depends on itself.");
        }
        List<Outcome> needed = new ArrayList<>();
        p.node.needs().forEach(n -> needed.add(outcome(n, before)));
        Place old = before.get(key);
        Memory memory = old != null && old.holds(needed, p) ? old.memory : null;
        if (memory == null) {
            memory = new Memory(needed, p.node.compute().apply(k -> outcome(k, before)));
            computed++;
        }
        open.remove(key);
        p.memory = memory;
        return memory.outcome();
    }

    private static boolean sameObjects(List<Outcome> a, List<Outcome> b) {
        if (a.size() != b.size()) {
            return false;
        }
        for (int i = 0; i < a.size(); i++) {
            if (a.get(i) != b.get(i)) {
                return false;
            }
        }
        return true;
    }
}
