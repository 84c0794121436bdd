package eagerneedle.core.reduce;

import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.core.quantity.Quantity;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

class GraphTest {
    private static Graph.Node constant(double v) {
        return new Graph.Node(List.of(), v, look -> Outcome.of(Quantity.number(v)));
    }

    private static Graph.Node sum(String... needs) {
        return new Graph.Node(
                java.util.Arrays.stream(needs).map(n -> (Key) new Key.Global(n)).toList(), "sum", look -> {
                    double s = 0;
                    for (String n : needs) {
                        s += look.apply(new Key.Global(n))
                                .quantity()
                                .orElseThrow()
                                .value();
                    }
                    return Outcome.of(Quantity.number(s));
                });
    }

    private static Map<Key, Graph.Node> nodes(double a, double b) {
        Map<Key, Graph.Node> n = new LinkedHashMap<>();
        n.put(new Key.Global("all"), sum("left", "right"));
        n.put(new Key.Global("left"), sum("a"));
        n.put(new Key.Global("right"), sum("b"));
        n.put(new Key.Global("a"), constant(a));
        n.put(new Key.Global("b"), constant(b));
        return n;
    }

    @Test
    void orderOfDefinitionDoesNotMatter() {
        Graph g = Graph.evaluate(nodes(1, 2), null);
        assertThat(g.outcomes()
                        .get(new Key.Global("all"))
                        .quantity()
                        .orElseThrow()
                        .value())
                .isEqualTo(3);
        assertThat(g.computed()).isEqualTo(5);
    }

    @Test
    void oneChangeCostsOnlyWhatDependsOnIt() {
        Graph first = Graph.evaluate(nodes(1, 2), null);
        Graph same = Graph.evaluate(nodes(1, 2), first);
        assertThat(same.computed()).isZero();
        Graph changed = Graph.evaluate(nodes(1, 5), same);
        assertThat(changed.computed()).isEqualTo(3);
        assertThat(changed.outcomes()
                        .get(new Key.Global("all"))
                        .quantity()
                        .orElseThrow()
                        .value())
                .isEqualTo(6);
        assertThat(changed.outcomes().get(new Key.Global("left")))
                .isSameAs(first.outcomes().get(new Key.Global("left")));
    }

    @Test
    void aCircleIsAProblemNotACrash() {
        Map<Key, Graph.Node> n = new LinkedHashMap<>();
        n.put(
                new Key.Global("a"),
                new Graph.Node(List.of(new Key.Global("b")), "a", look -> look.apply(new Key.Global("b"))));
        n.put(
                new Key.Global("b"),
                new Graph.Node(List.of(new Key.Global("a")), "b", look -> look.apply(new Key.Global("a"))));
        assertThat(Graph.evaluate(n, null).outcomes().get(new Key.Global("a")).problem())
                .contains("depends on itself");
    }

    @Test
    void whatIsMissingIsAProblem() {
        Map<Key, Graph.Node> n = new LinkedHashMap<>();
        n.put(
                new Key.Global("a"),
                new Graph.Node(List.of(new Key.Global("zz")), "a", look -> look.apply(new Key.Global("zz"))));
        assertThat(Graph.evaluate(n, null).outcomes().get(new Key.Global("a")).problem())
                .isEqualTo("There is no zz.");
    }
}
