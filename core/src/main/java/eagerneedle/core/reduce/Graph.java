package eagerneedle.core.reduce;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
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

    private record Memory(Object stamp, List<Outcome> needed, Outcome outcome) {}

    /** Fewer than this are computed one after the other. */
    private static final int WORTH_SHARING = 8;

    private final Map<Key, Node> nodes;
    private final Map<Key, Memory> before;
    private final Map<Key, Memory> now;
    private final Set<Key> open = new HashSet<>();
    private int computed;

    private Graph(Map<Key, Node> nodes, Map<Key, Memory> before) {
        this.nodes = nodes;
        this.before = before;
        this.now = new HashMap<>(2 * nodes.size());
    }

    /**
     * Evaluates all nodes; {@code previous} may be null.
     *
     * <p>Nodes whose needs are all met do not know of each other: they are computed together, wave after wave. What is
     * left then stands in a circle, and each such node says so.
     */
    static Graph evaluate(Map<Key, Node> nodes, @Nullable Graph previous) {
        Graph g = new Graph(nodes, previous == null ? Map.of() : previous.now);
        Map<Key, Waiting> all = new HashMap<>(2 * nodes.size());
        nodes.forEach((key, node) -> all.put(key, new Waiting(key, node)));
        List<Waiting> ready = new ArrayList<>();
        nodes.keySet().forEach(key -> {
            Waiting w = Objects.requireNonNull(all.get(key));
            for (Key need : w.node.needs()) {
                Waiting other = all.get(need);
                if (other != null) {
                    other.dependents.add(w);
                    w.missing++;
                }
            }
            if (w.missing == 0) {
                ready.add(w);
            }
        });
        for (List<Waiting> wave = ready; !wave.isEmpty(); wave = released(wave)) {
            g.compute(wave);
        }
        if (g.now.size() < nodes.size()) {
            nodes.keySet().forEach(g::outcome);
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

    /** A node, how many of its needs are not met yet, and who waits for it. */
    private static final class Waiting {
        private final Key key;
        private final Node node;
        private final List<Waiting> dependents = new ArrayList<>(2);
        private int missing;

        Waiting(Key key, Node node) {
            this.key = key;
            this.node = node;
        }
    }

    private static List<Waiting> released(List<Waiting> wave) {
        List<Waiting> next = new ArrayList<>();
        for (Waiting w : wave) {
            for (Waiting d : w.dependents) {
                d.missing--;
                if (d.missing == 0) {
                    next.add(d);
                }
            }
        }
        return next;
    }

    private void compute(List<Waiting> wave) {
        List<Waiting> stale = new ArrayList<>();
        for (Waiting w : wave) {
            Memory old = before.get(w.key);
            if (old != null && old.stamp().equals(w.node.stamp()) && sameObjects(old.needed(), needed(w.node))) {
                now.put(w.key, old);
            } else {
                stale.add(w);
            }
        }
        Stream<Waiting> all = stale.size() < WORTH_SHARING ? stale.stream() : stale.parallelStream();
        List<Memory> fresh = all.map(w -> fresh(w.node)).toList();
        for (int i = 0; i < fresh.size(); i++) {
            now.put(stale.get(i).key, fresh.get(i));
        }
        computed += fresh.size();
    }

    private List<Outcome> needed(Node node) {
        List<Outcome> needed = new ArrayList<>(node.needs().size());
        for (Key need : node.needs()) {
            needed.add(met(need));
        }
        return needed;
    }

    private Memory fresh(Node node) {
        return new Memory(node.stamp(), needed(node), node.compute().apply(this::met));
    }

    /** What was computed in an earlier wave. */
    private Outcome met(Key key) {
        Memory done = now.get(key);
        return done != null ? done.outcome() : Outcome.problem("There is no " + key + ".");
    }

    Map<Key, Outcome> outcomes() {
        Map<Key, Outcome> out = new LinkedHashMap<>();
        nodes.keySet()
                .forEach(k -> out.put(k, Objects.requireNonNull(now.get(k)).outcome()));
        return out;
    }

    /** How many nodes had to be computed this time. */
    int computed() {
        return computed;
    }

    /** One by one, for nodes in a circle. */
    private Outcome outcome(Key key) {
        Memory done = now.get(key);
        if (done != null) {
            return done.outcome();
        }
        Node node = nodes.get(key);
        if (node == null) {
            return Outcome.problem("There is no " + key + ".");
        }
        if (!open.add(key)) {
            return Outcome.problem(key + " depends on itself.");
        }
        List<Outcome> needed = new ArrayList<>();
        node.needs().forEach(n -> needed.add(outcome(n)));
        Memory old = before.get(key);
        Memory memory = old;
        if (memory == null || !memory.stamp().equals(node.stamp()) || !sameObjects(memory.needed(), needed)) {
            memory = new Memory(node.stamp(), needed, node.compute().apply(this::outcome));
            computed++;
        }
        open.remove(key);
        now.put(key, memory);
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
