package eagerneedle.core.reduce;

import eagerneedle.core.formula.RowLabels;
import eagerneedle.core.formula.Value;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.session.PoolSource;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.Pool;
import eagerneedle.core.sheet.Sheet;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/** The columns of a pool: the rows of all sessions that count, each called by the session it is of. */
final class PoolNodes {
    private final Sheet sheet;
    private final List<PoolSource> sources;

    PoolNodes(Session session, Sheet sheet, boolean planning) {
        this.sheet = sheet;
        this.sources = planning
                ? List.of()
                : session.sources().stream().filter(PoolSource::counts).toList();
    }

    void into(Map<Key, Graph.Node> nodes) {
        for (String name : sheet.pool().take().keySet()) {
            nodes.put(new Key.Column(Pool.NAME, name), new Graph.Node(List.of(), sources, look -> column(name)));
        }
    }

    private Outcome column(String name) {
        List<Quantity> rows = new ArrayList<>();
        List<RowLabels.Row> labels = new ArrayList<>();
        for (PoolSource s : sources) {
            rows.addAll(s.quantities(name));
            s.columns().getOrDefault(name, List.of()).forEach(r -> labels.add(row(s.name(), r)));
        }
        List<String> why = sources.stream()
                .flatMap(s -> s.remarks().stream().filter(r -> r.startsWith(name + " ")))
                .toList();
        if (rows.isEmpty() && !why.isEmpty()) {
            return Outcome.problem("In no session of the pool is there a value of it; " + why.get(0));
        }
        Outcome all = Outcome.of(new Value.Column(rows, new RowLabels(Pool.NAME, labels, List.of())));
        return why.isEmpty()
                ? all
                : all.with(List.of(why.size() + " of " + sources.size() + " sessions "
                        + (why.size() == 1 ? "has" : "have") + " no value of " + name + "."));
    }

    private static RowLabels.Row row(String session, PoolSource.Row within) {
        return new RowLabels.Row(session, within.level(), Map.of(Pool.NAME, session))
                .with(new RowLabels.Row("", "", within.labels()));
    }
}
