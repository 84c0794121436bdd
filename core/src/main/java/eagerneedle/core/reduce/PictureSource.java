package eagerneedle.core.reduce;

import eagerneedle.core.fit.Fit;
import eagerneedle.core.formula.AlignedRows;
import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.formula.RowLabels;
import eagerneedle.core.formula.Scope;
import eagerneedle.core.formula.Value;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.Derived;
import eagerneedle.core.sheet.Pool;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.trace.Trace;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * What pictures of a sheet draw, of all runs or of one: every entry of a picture is a formula, so what can be reckoned
 * can be drawn.
 */
public final class PictureSource {
    private final Reduction reduction;
    private final @Nullable Run run;

    private PictureSource(Reduction reduction, @Nullable Run run) {
        this.reduction = reduction;
        this.run = run;
    }

    /** Of the columns over all runs that count. */
    public static PictureSource overRuns(Reduction r) {
        return new PictureSource(r, null);
    }

    /** Of what one run holds. */
    public static PictureSource of(Reduction r, @Nullable Run run) {
        return new PictureSource(r, run);
    }

    /** True for pictures of all runs. */
    public boolean isOverRuns() {
        return run == null;
    }

    /**
     * Rows of two columns that belong together by what they are called.
     *
     * @param rows what each pair is; empty where nobody knows
     */
    public record Pairs(List<Quantity> x, List<Quantity> y, List<RowLabels.Row> rows) {
        /** The pairs of one kind each, in the order in which they come; one kind of all where {@code by} is null. */
        public Map<String, Pairs> by(@Nullable String by) {
            if (by == null || rows.isEmpty()) {
                return Map.of("", this);
            }
            Map<String, Pairs> out = new java.util.LinkedHashMap<>();
            for (int i = 0; i < rows.size(); i++) {
                RowLabels.Row row = rows.get(i);
                String kind = by.equals("level") ? row.level() : row.labels().getOrDefault(by, "");
                Pairs p = out.computeIfAbsent(
                        kind, k -> new Pairs(new ArrayList<>(), new ArrayList<>(), new ArrayList<>()));
                p.x.add(x.get(i));
                p.y.add(y.get(i));
                p.rows.add(row);
            }
            return out;
        }
    }

    /**
     * Two columns, row by row.
     *
     * @throws IllegalArgumentException with one sentence where they have no rows together
     */
    public Pairs pairs(String x, String y) {
        Value.Column a = column(x);
        Value.Column b = column(y);
        if (a.rows().size() == b.rows().size() && a.labels() == null && b.labels() == null) {
            return new Pairs(a.rows(), b.rows(), List.of());
        }
        AlignedRows pairs = AlignedRows.of(a, b);
        List<Quantity> px = new ArrayList<>();
        List<Quantity> py = new ArrayList<>();
        for (int i = 0; i < pairs.size(); i++) {
            px.add(a.rows().get(pairs.left(i)));
            py.add(b.rows().get(pairs.right(i)));
        }
        return new Pairs(
                px, py, pairs.labels() == null ? List.of() : pairs.labels().rows());
    }

    private Value.Column column(String formula) {
        if (value(formula) instanceof Value.Column c) {
            return c;
        }
        throw new IllegalArgumentException(formula + " is not a column.");
    }

    /** Both as traces on the clock of the first; empty where one of them is none. */
    public Optional<Trace[]> traces(String x, String y) {
        return run != null && value(x) instanceof Value.Signal a && value(y) instanceof Value.Signal b
                ? Optional.of(new Trace[] {a.trace(), b.trace()})
                : Optional.empty();
    }

    /**
     * One quantity.
     *
     * @throws IllegalArgumentException with one sentence where it has no value
     */
    public Quantity quantity(String formula) {
        if (value(formula) instanceof Value.Scalar s) {
            return s.quantity();
        }
        throw new IllegalArgumentException("'" + formula + "' does not give one quantity.");
    }

    /** A formula of {@code x} at every abscissa. */
    public List<Quantity> along(String curve, List<Quantity> x) {
        Value v = value(curve, Map.of("x", new Value.Column(x)));
        if (v instanceof Value.Column c && c.rows().size() == x.size()) {
            return c.rows();
        }
        if (v instanceof Value.Scalar s) {
            return java.util.Collections.nCopies(x.size(), s.quantity());
        }
        throw new IllegalArgumentException("'" + curve + "' does not give one quantity at each x.");
    }

    public Optional<Fit> fit(String name) {
        return run == null ? reduction.fit(name) : reduction.fitOfRun(run, name);
    }

    /** What people call the rows of one kind. */
    public String kind(String by, String kind) {
        Sheet sheet = reduction.sheet();
        if (!by.equals("level")) {
            return sheet.member(by, kind);
        }
        return sheet.captures().values().stream()
                .flatMap(c -> java.util.stream.Stream.ofNullable(c.levels().get(kind)))
                .map(l -> l.label() == null ? kind : l.label())
                .findFirst()
                .orElse(kind);
    }

    /** What people call a column or a trace: its label, or what it is written as. */
    public String named(String formula) {
        Sheet sheet = reduction.sheet();
        int dot = formula.indexOf('.');
        Capture capture = run != null
                ? sheet.captures().get(run.capture())
                : dot < 0 ? null : sheet.captures().get(formula.substring(0, dot));
        String own = run != null || capture == null ? formula : formula.substring(dot + 1);
        if (capture != null && capture.quantities().containsKey(own)) {
            Derived d = capture.quantities().get(own);
            return d.label() != null ? d.label() : d.symbol() != null ? d.symbol() : own;
        }
        if (capture != null && capture.byEye().containsKey(own)) {
            return capture.byEye().get(own).label();
        }
        if (run != null && sheet.channels().containsKey(own)) {
            return sheet.channel(own).label();
        }
        Derived result = sheet.results().get(own);
        if (result != null && result.label() != null) {
            return result.label();
        }
        return sheet.inputs().containsKey(own)
                ? sheet.inputs().get(own).label()
                : pooled(own).orElse(own);
    }

    /** What the sessions of a pool call a column of it. */
    private Optional<String> pooled(String column) {
        return column.startsWith(Pool.NAME + ".")
                ? reduction.session().sources().stream()
                        .flatMap(s -> java.util.stream.Stream.ofNullable(
                                s.labels().get(column.substring(Pool.NAME.length() + 1))))
                        .findFirst()
                : Optional.empty();
    }

    /** The unit in which the ledger gives the slope of a fit, where it gives it in one of its own. */
    public Optional<LabUnit> slopeUnit(String fit) {
        return reduction.sheet().results().values().stream()
                .filter(d -> d.unit() != null
                        && (d.formula().equals("slope(" + fit + ")")
                                || d.formula().equals(fit + ".slope")))
                .map(d -> LabUnit.parse(d.unit()))
                .findFirst();
    }

    /**
     * The value of a formula.
     *
     * @throws IllegalArgumentException with one sentence where it has none
     */
    public Value value(String formula) {
        return value(formula, Map.of());
    }

    private Value value(String formula, Map<String, Value> more) {
        Scope all = run == null ? reduction.scope() : reduction.scope(run);
        try {
            return Formula.parse(formula)
                    .evaluate(Scope.over(
                            "picture",
                            more.keySet(),
                            n -> more.containsKey(n) ? Optional.of(more.get(n)) : all.lookup(n)));
        } catch (NodeScope.Missing | FormulaException e) {
            throw new IllegalArgumentException(e.getMessage(), e);
        }
    }
}
