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
        return new Graph.Node(List.of(needs), "sum", look -> {
            double s = 0;
            for (String n : needs) {
                s += look.apply(n).quantity().orElseThrow().value();
            }
            return Outcome.of(Quantity.number(s));
        });
    }

    private static Map<String, Graph.Node> nodes(double a, double b) {
        Map<String, Graph.Node> n = new LinkedHashMap<>();
        n.put("all", sum("left", "right"));
        n.put("left", sum("a"));
        n.put("right", sum("b"));
        n.put("a", constant(a));
        n.put("b", constant(b));
        return n;
    }

    @Test
    void orderOfDefinitionDoesNotMatter() {
        Graph g = Graph.evaluate(nodes(1, 2), null);
        assertThat(g.outcomes().get("all").quantity().orElseThrow().value()).isEqualTo(3);
        assertThat(g.computed()).isEqualTo(5);
    }

    @Test
    void oneChangeCostsOnlyWhatDependsOnIt() {
        Graph first = Graph.evaluate(nodes(1, 2), null);
        Graph same = Graph.evaluate(nodes(1, 2), first);
        assertThat(same.computed()).isZero();
        Graph changed = Graph.evaluate(nodes(1, 5), same);
        assertThat(changed.computed()).isEqualTo(3);
        assertThat(changed.outcomes().get("all").quantity().orElseThrow().value()).isEqualTo(6);
        assertThat(changed.outcomes().get("left")).isSameAs(first.outcomes().get("left"));
    }

    @Test
    void aCircleIsAProblemNotACrash() {
        Map<String, Graph.Node> n = new LinkedHashMap<>();
        n.put("a", new Graph.Node(List.of("b"), "a", look -> look.apply("b")));
        n.put("b", new Graph.Node(List.of("a"), "b", look -> look.apply("a")));
        assertThat(Graph.evaluate(n, null).outcomes().get("a").problem()).contains("depends on itself");
    }

    @Test
    void whatIsMissingIsAProblem() {
        Map<String, Graph.Node> n = new LinkedHashMap<>();
        n.put("a", new Graph.Node(List.of("zz"), "a", look -> look.apply("zz")));
        assertThat(Graph.evaluate(n, null).outcomes().get("a").problem()).isEqualTo("There is no zz.");
    }
}
