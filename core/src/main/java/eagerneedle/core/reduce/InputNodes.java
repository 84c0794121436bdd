package eagerneedle.core.reduce;

import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.calibration.Relation;
import eagerneedle.core.fit.FitException;
import eagerneedle.core.formula.Value;
import eagerneedle.core.formula.Written;
import eagerneedle.core.quantity.Correlated;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.stockroom.Correction;
import eagerneedle.core.stockroom.Instrument;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/** What formulas find of inputs and calibrations. */
final class InputNodes {
    private final Session session;
    private final Sheet sheet;
    private final boolean planning;
    private final Map<Key, Graph.Node> nodes;

    /** @param nodes the graph that is being built */
    InputNodes(Session session, Sheet sheet, boolean planning, Map<Key, Graph.Node> nodes) {
        this.session = session;
        this.sheet = sheet;
        this.planning = planning;
        this.nodes = nodes;
    }

    void reading(String key, String text, Sheet.Input input) {
        List<String> together = correlatedWith(key);
        Instrument tied = session.tied().get(key);
        boolean byTheSheet = planning && !session.planned().containsKey(key);
        String by = tied != null ? tied.name() + " " + tied.id() : input.by() == null ? "reading" : input.by();
        String label = tied == null ? input.leafLabel() : input.label() + " by " + by;
        List<Correction> corrections = Corrections.of(session, by);
        nodes.put(
                together.isEmpty() ? new Key.Global(key) : new Key.Alone(key),
                new Graph.Node(List.of(), Arrays.asList(text, label, tied, byTheSheet, corrections), look -> {
                    try {
                        Quantity q = Written.quantity(text, "input:" + key, label, tied == null ? by : tied.id());
                        Quantity read = tied != null && (byTheSheet || q.isExact())
                                ? tied.reading(Quantity.exact(q.value(), q.unit()), "input:" + key, input.label())
                                : q;
                        return Outcome.of(Corrections.of(read, corrections));
                    } catch (IllegalArgumentException e) {
                        return Outcome.problem(String.valueOf(e.getMessage()));
                    }
                }));
        if (!together.isEmpty()) {
            nodes.put(
                    new Key.Global(key),
                    new Graph.Node(
                            together.stream().map(n -> (Key) new Key.Alone(n)).toList(),
                            List.of(sheet.correlations()),
                            look -> correlated(key, together, look)));
        }
    }

    /**
     * What a calibration gives to formulas: slope and intercept of its relation, or the interval errors of both
     * circles. What a plan will find is told by carrying it out; where that cannot be done the relation is one to one.
     */
    void calibration(String name, Channel channel) {
        Channel.CalibrationPlan plan = channel.calibration();
        if (plan == null) {
            return;
        }
        Calibration c = planning
                ? null
                : session.calibrationOf(name, sheet)
                        .map(k -> k.called(channel.label()))
                        .orElse(null);
        boolean closure = plan.toRelation() == Relation.CLOSURE;
        String untold = planning
                ? sheet.hasPhysics() ? channel.label() + " is calibrated when the plan is carried out." : ""
                : c == null ? channel.label() + " is not calibrated yet." : "";
        if (closure) {
            nodes.put(
                    new Key.Global(name + ".scatter"),
                    new Graph.Node(List.of(), Arrays.asList(c, planning, untold), look -> {
                        try {
                            return !untold.isEmpty()
                                    ? Outcome.problem(untold)
                                    : Outcome.of(Quantity.exact(
                                            c == null ? 0 : c.closed().sd(), channel.labUnit()));
                        } catch (FitException e) {
                            return Outcome.problem(String.valueOf(e.getMessage()));
                        }
                    }));
        }
        for (int i = 0; i < 2; i++) {
            boolean first = i == 0;
            nodes.put(
                    new Key.Global(name + (closure ? first ? ".lower" : ".upper" : first ? ".slope" : ".intercept")),
                    new Graph.Node(List.of(), Arrays.asList(c, planning, untold), look -> {
                        if (!untold.isEmpty()) {
                            return Outcome.problem(untold);
                        }
                        try {
                            if (closure) {
                                return Outcome.of(new Value.Column(
                                        c == null
                                                ? java.util.Collections.nCopies(
                                                        plan.intervals(), Quantity.exact(0, channel.labUnit()))
                                                : first
                                                        ? c.closed().lower()
                                                        : c.closed().upper()));
                            }
                            return Outcome.of(
                                    c == null
                                            ? first ? Quantity.number(1) : Quantity.exact(0, channel.labUnit())
                                            : c.coefficients().get(first ? 1 : 0));
                        } catch (FitException e) {
                            return Outcome.problem(String.valueOf(e.getMessage()));
                        }
                    }));
        }
    }

    /**
     * All inputs bound to this one by declared correlations, itself included, in the order of the sheet; empty for one
     * that stands alone.
     */
    private List<String> correlatedWith(String key) {
        Set<String> group = new LinkedHashSet<>(Set.of(key));
        for (int before = 0; before != group.size(); ) {
            before = group.size();
            sheet.correlations().stream()
                    .filter(c -> c.between().stream().anyMatch(group::contains))
                    .forEach(c -> group.addAll(c.between()));
        }
        return group.size() == 1
                ? List.of()
                : sheet.inputs().keySet().stream().filter(group::contains).toList();
    }

    private Outcome correlated(String key, List<String> together, java.util.function.Function<Key, Outcome> look) {
        int n = together.size();
        List<Quantity> alone = new ArrayList<>();
        for (String name : together) {
            Outcome o = look.apply(new Key.Alone(name));
            if (o.quantity().isEmpty()) {
                return o;
            }
            alone.add(o.quantity().get());
        }
        double[][] r = new double[n][n];
        for (int i = 0; i < n; i++) {
            r[i][i] = 1;
        }
        for (Sheet.Correlation c : sheet.correlations()) {
            int i = together.indexOf(c.between().get(0));
            int j = together.indexOf(c.between().get(1));
            if (i >= 0 && j >= 0) {
                r[i][j] = r[j][i] = c.r();
            }
        }
        try {
            List<String> ids = together.stream().map(name -> "input:" + name).toList();
            List<String> labels =
                    together.stream().map(name -> sheet.input(name).leafLabel()).toList();
            return Outcome.of(Correlated.of(alone, r, ids, labels).get(together.indexOf(key)));
        } catch (IllegalArgumentException e) {
            return Outcome.problem(String.valueOf(e.getMessage()));
        }
    }
}
