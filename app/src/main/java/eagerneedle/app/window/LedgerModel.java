package eagerneedle.app.window;

import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.quantity.Budget;
import eagerneedle.core.quantity.Coverage;
import eagerneedle.core.quantity.MonteCarlo;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Key;
import eagerneedle.core.reduce.Ledger;
import eagerneedle.core.reduce.Lineage;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.session.Run;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;

/** The quantities of a session as the ledger lists them, and what is said of the one that is looked at. */
final class LedgerModel {
    /** Longest number that stands in its column without pushing the unit away. */
    static final int MOST_FIGURES = 13;

    private static final int MOST_ALIGNED = 6;
    private static final int MOST_SHARES = 4;
    private static final int MOST_RUNS = 3;

    /** How a quantity stands to the one that is looked at. */
    enum Role {
        NONE,
        SELECTED,
        COMES_FROM,
        FEEDS
    }

    /** A line of the ledger. */
    sealed interface Line {
        /** Quantities of a group follow. */
        record Group(String label) implements Line {}

        /**
         * One quantity.
         *
         * @param fresh it has changed and was not looked at since
         * @param planned it is only planned, not measured yet
         * @param value with its point under the others; a dash without one
         * @param was what it was before choices were tried; empty where it is the same
         */
        record Item(
                Key key,
                String id,
                String name,
                boolean fresh,
                boolean planned,
                String value,
                String unit,
                String said,
                String hint,
                Role role,
                String was)
                implements Line {}
    }

    /** What is said of the quantity looked at: words, and the style they are said in. */
    record Remark(String words, String style) {}

    private Workbench bench;
    private Run run;
    private boolean planned;
    private Key selected;
    private Quantity was;

    /** A session, from the beginning. */
    void open(Workbench newBench) {
        bench = newBench;
        selected = null;
    }

    boolean isOpen() {
        return bench != null;
    }

    /** Also lists the quantities of this run. */
    void focusRun(Run newRun) {
        run = newRun;
    }

    /** Lists what is predicted. True when it did not before, or the other way round. */
    boolean planned(boolean show) {
        boolean other = planned != show;
        planned = show;
        return other;
    }

    /** Looks at a quantity; the same again looks away. */
    void select(Key key) {
        selected = key.equals(selected) ? null : key;
        was = bench.before(key).orElse(null);
        bench.lookedAt(key);
    }

    /** Looks at a quantity, whichever was looked at. */
    void reveal(Key key) {
        selected = null;
        select(key);
    }

    private Reduction reduction() {
        return planned ? bench.plan() : bench.reduction();
    }

    List<Line> lines() {
        Reduction r = reduction();
        List<Ledger.Entry> entries = entries(r);
        Optional<Lineage> lit = Optional.ofNullable(selected).map(r::lineage);
        int left = entries.stream()
                .flatMap(e -> e.quantity().stream())
                .mapToInt(LedgerModel::point)
                .max()
                .orElse(1);
        List<Line> out = new ArrayList<>();
        String group = null;
        for (Ledger.Entry e : entries) {
            if (!e.group().equals(group)) {
                group = e.group();
                boolean predicted = planned && e.source().equals("derived");
                out.add(new Line.Group(
                        (predicted ? "Predicted " + group.toLowerCase(Locale.ROOT) : group).toUpperCase(Locale.ROOT)));
            }
            out.add(item(r, e, left, lit));
        }
        return out;
    }

    /** Results, then the run in hand, then inputs. */
    private List<Ledger.Entry> entries(Reduction r) {
        List<Ledger.Entry> all = r.ledger().entries();
        List<Ledger.Entry> out = new ArrayList<>();
        all.stream()
                .filter(e -> !e.key().isOfRun() && e.source().equals("derived"))
                .forEach(out::add);
        if (run != null && !planned) {
            bench.session()
                    .run(run.id())
                    .filter(x -> x.discard() == null)
                    .map(r::ofRun)
                    .ifPresent(out::addAll);
        }
        all.stream()
                .filter(e -> !e.key().isOfRun() && !e.source().equals("derived"))
                .forEach(out::add);
        return out;
    }

    private Line.Item item(Reduction r, Ledger.Entry e, int left, Optional<Lineage> lit) {
        boolean fresh = !planned && isFresh(e);
        boolean doubtful = e.quantity()
                .filter(q -> !r.doubts(q, bench.clock().instant()).isEmpty())
                .isPresent();
        Role role = e.key().equals(selected)
                ? Role.SELECTED
                : lit.filter(l -> l.from().contains(e.key())).isPresent()
                        ? Role.COMES_FROM
                        : lit.filter(l -> l.feeds().contains(e.key())).isPresent() ? Role.FEEDS : Role.NONE;
        Optional<Quantity> before = bench.before(e.key());
        return new Line.Item(
                e.key(),
                "ledger-" + e.name().replaceAll("[^A-Za-z0-9_-]", "-"),
                (fresh ? "● " : "") + (doubtful ? "▲ " : "") + e.label(),
                fresh,
                e.source().equals("as planned") && !planned,
                e.quantity().map(q -> figures(q, left)).orElse("   —"),
                e.quantity().map(q -> q.unit().pretty()).orElse(""),
                e.label() + " "
                        + e.quantity()
                                .map(Quantity::toString)
                                .orElse("has no value: " + e.outcome().problem()),
                hint(e, fresh, before),
                role,
                bench.isTrying() && fresh ? before.map(b -> figures(b, left)).orElse("") : "");
    }

    private boolean isFresh(Ledger.Entry e) {
        return bench.isTrying()
                ? bench.before(e.key())
                        .filter(b -> e.quantity().isEmpty()
                                || !b.toString().equals(e.quantity().get().toString()))
                        .isPresent()
                : bench.changed().contains(e.key());
    }

    private static String hint(Ledger.Entry e, boolean fresh, Optional<Quantity> before) {
        String problem = e.outcome().problem();
        return e.label()
                + (fresh
                        ? before.flatMap(b -> e.quantity().map(q -> "\n" + moved(b, q)))
                                .orElse("")
                        : "")
                + (problem != null ? "\n" + problem : e.source().equals("derived") ? "" : "\n" + e.source());
    }

    private static int point(Quantity q) {
        String s = Notation.bracketed(q.value(), q.u());
        int dot = s.indexOf('.');
        int bracket = s.indexOf('(');
        return dot >= 0 ? dot : bracket >= 0 ? bracket : s.length();
    }

    /**
     * A number with its uncertainty in brackets, its point under the others. An exact one is cut to what can be read.
     */
    private static String figures(Quantity q, int left) {
        String s = Notation.bracketed(q.value(), q.u());
        return " ".repeat(Math.max(0, Math.min(MOST_ALIGNED, left) - point(q)))
                + (q.isExact() && s.length() > MOST_FIGURES ? Notation.plain(q.value(), 6) : s);
    }

    /** What moved and by how much, in one sentence. */
    static String moved(Quantity before, Quantity now) {
        double by = now.value() - before.in(now.unit());
        return "It was " + before + " and moved by " + Notation.plain(by, 2) + " "
                + now.unit().difference().pretty()
                + (before.u() > 0
                        ? ", "
                                + Notation.plain(
                                        Math.abs(by) / before.to(now.unit()).u(), 2)
                                + " of its standard uncertainty then."
                        : ".");
    }

    /** What is said of the quantity looked at; nothing while none is. */
    List<Remark> detail() {
        if (selected == null) {
            return List.of();
        }
        Reduction r = reduction();
        List<Remark> out = new ArrayList<>();
        out.add(new Remark(label(r, selected).orElse(selected.toString()), "section"));
        r.formula(selected).ifPresent(f -> out.add(new Remark(f, "figure-small")));
        Optional<Quantity> q = r.quantity(selected);
        if (r.isHidden(selected)) {
            out.add(new Remark(Reduction.HIDDEN, "quiet"));
        } else if (q.isEmpty()) {
            String problem = r.outcome(selected).problem();
            out.add(new Remark(problem == null ? "No value." : problem, "attention"));
        } else {
            of(r, q.get(), out);
        }
        return out;
    }

    private void of(Reduction r, Quantity v, List<Remark> out) {
        out.add(new Remark(uncertainty(v), "quiet"));
        if (was != null && was.unit().fits(v.unit())) {
            out.add(new Remark(moved(was, v), "needle-ink"));
        }
        r.doubts(v, bench.clock().instant()).forEach(doubt -> out.add(new Remark("▲ " + doubt, "attention")));
        if (!v.isLinear()) {
            MonteCarlo m = MonteCarlo.of(v, Coverage.DEFAULT, MonteCarlo.Settings.QUICK);
            out.add(new Remark(m.remark(), m.firstOrderIsGoodEnough() ? "quiet" : "attention"));
        }
        r.outcome(selected).remarks().forEach(said -> out.add(new Remark(said, "quiet")));
        Budget.of(v).lines().stream()
                .limit(MOST_SHARES)
                .forEach(l -> out.add(new Remark(Math.round(100 * l.share()) + " %  " + l.label(), "plain-small")));
        Lineage lineage = r.lineage(selected);
        names(r, "Comes from", lineage.from()).ifPresent(out::add);
        names(r, "Feeds", lineage.feeds()).ifPresent(out::add);
    }

    private static String uncertainty(Quantity v) {
        return v.isExact()
                ? "Taken as exact."
                : "± " + Notation.figures(Coverage.DEFAULT.expanded(v), 2) + " "
                        + v.unit().pretty() + " at 95 %, k = " + Notation.plain(Coverage.DEFAULT.factor(v.dof()), 3)
                        + (Double.isInfinite(v.dof()) ? "" : ", " + Notation.plain(v.dof(), 3) + " degrees of freedom");
    }

    private static Optional<String> label(Reduction r, Key key) {
        return r.ledger().entries().stream()
                .filter(e -> e.key().equals(key))
                .map(Ledger.Entry::label)
                .findFirst();
    }

    private static Optional<Remark> names(Reduction r, String what, Set<Key> keys) {
        long runs = keys.stream().filter(Key::isOfRun).count();
        List<String> labels = new ArrayList<>();
        keys.stream()
                .filter(k -> !k.isOfRun() || runs <= MOST_RUNS)
                .forEach(k -> label(r, k).ifPresent(labels::add));
        if (runs > MOST_RUNS) {
            labels.add(runs + " values of runs");
        }
        return labels.isEmpty()
                ? Optional.empty()
                : Optional.of(new Remark(what + ": " + String.join(", ", labels), "quiet"));
    }

    /** Every quantity for a spreadsheet, with tabs between cells. */
    String tabbed() {
        StringBuilder b = new StringBuilder("name\tvalue\tu\tunit\n");
        for (Ledger.Entry e : reduction().ledger().entries()) {
            e.quantity()
                    .ifPresent(q -> b.append(e.name())
                            .append('\t')
                            .append(q.value())
                            .append('\t')
                            .append(q.u())
                            .append('\t')
                            .append(q.unit().symbol())
                            .append('\n'));
        }
        return b.toString();
    }
}
