package eagerneedle.store.export;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.SerializationFeature;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import eagerneedle.core.fit.Fit;
import eagerneedle.core.formula.Value;
import eagerneedle.core.judge.Comparison;
import eagerneedle.core.judge.School;
import eagerneedle.core.quantity.Corners;
import eagerneedle.core.quantity.Covariance;
import eagerneedle.core.quantity.Coverage;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.MonteCarlo;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Ledger;
import eagerneedle.core.reduce.Outcome;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.watch.Finding;
import java.util.List;
import java.util.Map;

/**
 * The JSON that {@code reduce}, {@code fit} and {@code eval} print; see docs/formats/reduction-json.md. Numbers at full
 * precision.
 */
public final class ReductionJson {
    private static final ObjectMapper MAPPER = new ObjectMapper().enable(SerializationFeature.INDENT_OUTPUT);

    /** Columns longer than this have no covariance matrix printed. */
    private static final int MOST_TOGETHER = 50;

    private ReductionJson() {}

    public static String of(Reduction reduction, List<Finding> findings) {
        ObjectNode root = MAPPER.createObjectNode();
        ArrayNode quantities = root.putArray("quantities");
        for (Ledger.Entry e : reduction.ledger().entries()) {
            e.quantity()
                    .ifPresentOrElse(
                            q -> add(
                                    quantities.addObject(),
                                    e.name(),
                                    q,
                                    reduction.session().coverage()),
                            () -> quantities
                                    .addObject()
                                    .put("name", e.name())
                                    .put(e.outcome().problem() == null ? "says" : "problem", e.instead()));
        }
        calibrations(quantities, reduction);
        ArrayNode remarks = root.putArray("remarks");
        reduction.ledger().entries().forEach(e -> e.outcome().remarks().forEach(r -> remarks.add(e.name() + ": " + r)));
        ArrayNode comparisons = root.putArray("comparisons");
        for (Comparison c : reduction.comparisons()) {
            ObjectNode n = comparisons.addObject();
            School speaks = reduction.speaks(c.id());
            n.put("id", c.id())
                    .put("label", c.label())
                    .put("difference", c.difference().value())
                    .put("unit", c.difference().unit().symbol());
            n.put("u", c.difference().u())
                    .put("normalised", c.normalised())
                    .put("k", c.factor())
                    .put("chance", c.chance())
                    .put("percent", Double.isNaN(c.percent()) ? null : c.percent());
            n.put("overlap", c.overlap()).put("school", name(speaks));
            ArrayNode said = n.putArray("remarks");
            reduction.circularity(c).ifPresent(said::add);
            if (c.drawn() != null) {
                said.add(c.drawn().remark());
            }
            for (School s : School.values()) {
                n.putObject(name(s))
                        .put("agrees", c.agrees(s))
                        .put("conclusion", c.conclusion(s).words())
                        .put("verdict", c.verdict(s));
            }
        }
        laws(root.putArray("laws"), reduction);
        if (reduction.session().blind() != null) {
            ObjectNode blind = root.putObject("blind")
                    .put("since", reduction.session().blind().since().toString())
                    .put("referencesHidden", reduction.session().hidesReferences());
            if (reduction.session().blind().lockedAt() != null) {
                blind.put("lockedAt", reduction.session().blind().lockedAt().toString());
                reduction.session().blind().locked().forEach(blind.putObject("locked")::put);
            }
        }
        ArrayNode watches = root.putArray("watches");
        for (Finding f : findings) {
            ObjectNode n = watches.addObject()
                    .put("watch", f.watch())
                    .put("severity", f.severity().name().toLowerCase(java.util.Locale.ROOT))
                    .put("message", f.message())
                    .put("cause", f.cause())
                    .put("remedy", f.remedy());
            if (f.run() > 0) {
                n.put("run", f.run());
            }
        }
        return root.toPrettyString();
    }

    /**
     * What every calibration gives: slope and intercept of its relation, or the intervals of both circles, by the names
     * that formulas have for them.
     */
    private static void calibrations(ArrayNode to, Reduction reduction) {
        for (String name : reduction.calibrated()) {
            Outcome o = reduction.outcome(name);
            if (o.value() instanceof Value.Column column) {
                for (int i = 0; i < column.rows().size(); i++) {
                    add(
                            to.addObject(),
                            name + "[" + i + "]",
                            column.rows().get(i),
                            reduction.session().coverage());
                }
            } else if (o.quantity().isPresent() && o.quantity().get().isExact()) {
                to.addObject()
                        .put("name", name)
                        .put("says", "taken as " + o.quantity().get() + "; this calibration does not find it");
            } else if (o.quantity().isPresent()) {
                add(
                        to.addObject(),
                        name,
                        o.quantity().get(),
                        reduction.session().coverage());
            } else {
                to.addObject().put("name", name).put("problem", o.problem());
            }
        }
    }

    /** The law of propagation of every result that is compared, and of what it rests on. */
    private static void laws(ArrayNode to, Reduction reduction) {
        java.util.Set<String> done = new java.util.HashSet<>();
        reduction
                .sheet()
                .comparisons()
                .forEach(c -> reduction.laws(c.result(), reduction.speaks(c.id())).stream()
                        .filter(l -> done.add(l.key() + l.school()))
                        .forEach(l -> {
                            ObjectNode n = to.addObject()
                                    .put("name", l.key())
                                    .put("school", name(l.school()))
                                    .put("law", l.law())
                                    .put("alone", l.alone())
                                    .put("stated", l.stated())
                                    .put("unit", l.result().unit().symbol());
                            ArrayNode terms = n.putArray("terms");
                            l.terms()
                                    .forEach(t -> terms.addObject()
                                            .put("name", t.name())
                                            .put("value", t.quantity().value())
                                            .put("unit", t.quantity().unit().symbol())
                                            .put("u", t.quantity().u())
                                            .put("derivative", t.derivative())
                                            .put(
                                                    "derivativeUnit",
                                                    t.per(l.result().unit(), LabUnit::symbol))
                                            .put("contribution", t.contribution()));
                        }));
    }

    /** One quantity, as {@code eval} prints it. */
    public static String of(String name, Quantity q, List<String> remarks) {
        ObjectNode root = MAPPER.createObjectNode();
        add(root.putArray("quantities").addObject(), name, q);
        remarks.forEach(root.putArray("remarks")::add);
        root.putArray("comparisons");
        root.putArray("watches");
        return root.toPrettyString();
    }

    /** Several quantities, as {@code eval} prints a column. */
    public static String of(String name, List<Quantity> rows) {
        ObjectNode root = MAPPER.createObjectNode();
        ArrayNode quantities = root.putArray("quantities");
        for (int i = 0; i < rows.size(); i++) {
            add(quantities.addObject(), name + "[" + i + "]", rows.get(i));
        }
        ArrayNode covariance = root.putArray("covariance");
        for (double[] row : Covariance.of(rows.subList(0, Math.min(rows.size(), MOST_TOGETHER)))
                .matrix()) {
            ArrayNode r = covariance.addArray();
            for (double c : row) {
                r.add(c);
            }
        }
        root.putArray("comparisons");
        root.putArray("watches");
        return root.toPrettyString();
    }

    /** Words, as {@code eval} prints a sentence or a comparison. */
    public static String words(String name, String text) {
        ObjectNode root = MAPPER.createObjectNode();
        root.putArray("quantities");
        root.putArray("comparisons");
        root.putArray("watches");
        root.put("name", name).put("text", text);
        return root.toPrettyString();
    }

    /** A fit that did not converge: no numbers, only why. */
    public static String notConverged(String why) {
        ObjectNode root = MAPPER.createObjectNode();
        root.putArray("quantities");
        root.putArray("parameters");
        root.putArray("covariance");
        root.put("converged", false).put("problem", why);
        return root.toPrettyString();
    }

    /** A fit that converged. */
    public static String of(Fit fit) {
        return of(fit, fit.remarks());
    }

    /** A fit that converged, with remarks. */
    public static String of(Fit fit, List<String> remarkList) {
        ObjectNode root = MAPPER.createObjectNode();
        ArrayNode quantities = root.putArray("quantities");
        ArrayNode parameters = root.putArray("parameters");
        for (int i = 0; i < fit.names().size(); i++) {
            Quantity q = fit.parameters().get(i);
            add(quantities.addObject(), fit.names().get(i), q);
            parameters
                    .addObject()
                    .put("name", fit.names().get(i))
                    .put("value", q.value())
                    .put("u", q.u());
        }
        ArrayNode covariance = root.putArray("covariance");
        for (double[] row : fit.covariance()) {
            ArrayNode r = covariance.addArray();
            for (double c : row) {
                r.add(c);
            }
        }
        root.put("residualSd", Double.isNaN(fit.residualSd()) ? null : (Double) fit.residualSd())
                .put("dof", fit.dof())
                .put("converged", true);
        root.put("rSquared", Double.isNaN(fit.rSquared()) ? null : (Double) fit.rSquared());
        if (!Double.isNaN(fit.chiSquared())) {
            root.put("chiSquared", fit.chiSquared());
        }
        ArrayNode remarks = root.putArray("remarks");
        remarkList.forEach(remarks::add);
        return root.toPrettyString();
    }

    /**
     * The hidden truth of a simulated rig.
     *
     * @param truth what its physics states
     * @param ideal of results of which it states nothing: what perfect instruments would find
     */
    public static String truth(Map<String, Quantity> truth, Map<String, Quantity> ideal) {
        ObjectNode root = MAPPER.createObjectNode();
        values(root.putObject("truth"), truth);
        values(root.putObject("ideal"), ideal);
        return root.toPrettyString();
    }

    private static void values(ObjectNode to, Map<String, Quantity> values) {
        values.forEach((name, q) ->
                to.putObject(name).put("value", q.value()).put("unit", q.unit().symbol()));
    }

    private static void add(ObjectNode n, String name, Quantity q) {
        add(n, name, q, Coverage.DEFAULT);
    }

    private static void add(ObjectNode n, String name, Quantity q, Coverage coverage) {
        double dof = q.dof();
        n.put("name", name)
                .put("value", q.value())
                .put("unit", q.unit().symbol())
                .put("u", q.u());
        if (Double.isInfinite(dof)) {
            n.putNull("dof");
        } else {
            n.put("dof", dof);
        }
        n.put("k", coverage.factor(dof))
                .put("U", coverage.expanded(q))
                .put("limit", q.limit())
                .put("school", name(School.STANDARD));
        boolean ofOneRun = name.contains("[");
        if (!q.isLinear() && !ofOneRun) {
            curved(n, q);
        }
    }

    /** What first order does not tell of a quantity that is curved in its inputs. */
    private static void curved(ObjectNode n, Quantity q) {
        Corners corners = Corners.of(q);
        n.putObject("limits")
                .put("low", corners.interval().low())
                .put("high", corners.interval().high())
                .put("exact", corners.exact());
        ObjectNode drawn = n.putObject("monteCarlo");
        try {
            MonteCarlo m = MonteCarlo.of(q, Coverage.DEFAULT, MonteCarlo.Settings.QUICK);
            drawn.put("draws", m.draws())
                    .put("stable", m.stable())
                    .put("mean", m.mean())
                    .put("u", m.sd())
                    .put("low", m.symmetric().low())
                    .put("high", m.symmetric().high())
                    .put("shortestLow", m.shortest().low())
                    .put("shortestHigh", m.shortest().high())
                    .put("firstOrderIsGoodEnough", m.firstOrderIsGoodEnough())
                    .put("remark", m.remark());
        } catch (ArithmeticException e) {
            drawn.put("remark", e.getMessage());
        }
    }

    private static String name(School s) {
        return s.name().toLowerCase(java.util.Locale.ROOT);
    }
}
