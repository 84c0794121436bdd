package eagerneedle.core.reduce;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;

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

    private final Map<Key, Node> nodes;
    private final Map<Key, Memory> before;
    private final Map<Key, Memory> now = new HashMap<>();
    private final Set<Key> open = new HashSet<>();
    private int computed;

    private Graph(Map<Key, Node> nodes, Map<Key, Memory> before) {
        this.nodes = nodes;
        this.before = before;
    }

    /** Evaluates all nodes; {@code previous} may be null. */
    static Graph evaluate(Map<Key, Node> nodes, Graph previous) {
        Graph g = new Graph(nodes, previous == null ? Map.of() : previous.now);
        nodes.keySet().forEach(g::outcome);
        return g;
    }

    Map<Key, Outcome> outcomes() {
        Map<Key, Outcome> out = new LinkedHashMap<>();
        nodes.keySet().forEach(k -> out.put(k, now.get(k).outcome()));
        return out;
    }

    /** How many nodes had to be computed this time. */
    int computed() {
        return computed;
    }

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
        Memory memory = old != null && old.stamp().equals(node.stamp()) && sameObjects(old.needed(), needed)
                ? old
                : new Memory(node.stamp(), needed, compute(node));
        open.remove(key);
        now.put(key, memory);
        return memory.outcome();
    }

    private Outcome compute(Node node) {
        computed++;
        return node.compute().apply(this::outcome);
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
