package eagerneedle.app.window;

import eagerneedle.app.window.LedgerModel.Remark;
import eagerneedle.core.formula.Formula;
import eagerneedle.core.quantity.Budget;
import eagerneedle.core.quantity.Coverage;
import eagerneedle.core.quantity.MonteCarlo;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Key;
import eagerneedle.core.reduce.Ledger;
import eagerneedle.core.reduce.Lineage;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.sheet.PlainWords;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * What is said of the quantity that is looked at: its equation, its uncertainty, who contributes most, where it comes
 * from and what it feeds.
 *
 * @param was what it was before it moved; null where it did not
 */
record LedgerDetail(Reduction r, Key key, @Nullable Quantity was, PlainWords words, Instant now) {
    /** Style of a remark that is an equation. */
    static final String FORMULA = "formula";

    private static final int MOST_SHARES = 4;
    private static final int MOST_RUNS = 3;

    /** All of it, in the order in which it is read. */
    List<Remark> remarks() {
        List<Remark> out = new ArrayList<>();
        out.add(new Remark(label(key).orElse(key.toString()), "section"));
        equation().ifPresent(out::add);
        Optional<Quantity> q = r.quantity(key);
        if (r.isHidden(key)) {
            out.add(new Remark(Reduction.HIDDEN, "quiet"));
        } else if (q.isEmpty()) {
            String problem = r.outcome(key).problem();
            out.add(new Remark(problem == null ? "No value." : words.say(problem), "attention"));
        } else {
            of(q.get(), out);
        }
        return out;
    }

    /** How it follows from others, as an equation; what cannot be set as one is left away. */
    private Optional<Remark> equation() {
        return r.formula(key).flatMap(f -> {
            String name = key instanceof Key.OfRun of ? of.name() : key.toString();
            try {
                Formula.parse(name);
                Formula.parse(f);
                return Optional.of(new Remark(words.formula(name + " = " + f), FORMULA));
            } catch (IllegalArgumentException e) {
                return Optional.empty();
            }
        });
    }

    private void of(Quantity v, List<Remark> out) {
        out.add(new Remark(uncertainty(v, r.session().coverage()), "quiet"));
        if (was != null && was.unit().fits(v.unit())) {
            out.add(new Remark(moved(was, v), "needle-ink"));
        }
        r.doubts(v, now).forEach(doubt -> out.add(new Remark("▲ " + doubt, "attention")));
        if (!v.isLinear()) {
            MonteCarlo m = MonteCarlo.of(v, r.session().coverage(), MonteCarlo.Settings.QUICK);
            out.add(new Remark(m.remark(), m.firstOrderIsGoodEnough() ? "quiet" : "attention"));
        }
        r.outcome(key).remarks().forEach(said -> out.add(new Remark(words.say(said), "quiet")));
        Budget.of(v).lines().stream()
                .limit(MOST_SHARES)
                .forEach(l -> out.add(
                        new Remark(Math.round(100 * l.share()) + " %  " + words.say(l.label()), "plain-small")));
        Lineage lineage = r.lineage(key);
        names("Comes from", lineage.from()).ifPresent(out::add);
        names("Feeds", lineage.feeds()).ifPresent(out::add);
    }

    private static String uncertainty(Quantity v, Coverage coverage) {
        return v.isExact()
                ? "Taken as exact."
                : "± " + Notation.figures(coverage.expanded(v), 2) + " "
                        + v.unit().pretty() + " at " + coverage.percent() + ", k = "
                        + Notation.plain(coverage.factor(v.dof()), 3)
                        + (Double.isInfinite(v.dof()) ? "" : ", " + Notation.plain(v.dof(), 3) + " degrees of freedom");
    }

    private Optional<String> label(Key of) {
        return r.ledger().entries().stream()
                .filter(e -> e.key().equals(of))
                .map(Ledger.Entry::label)
                .findFirst();
    }

    private Optional<Remark> names(String what, Set<Key> keys) {
        long runs = keys.stream().filter(Key::isOfRun).count();
        List<String> labels = new ArrayList<>();
        keys.stream().filter(k -> !k.isOfRun() || runs <= MOST_RUNS).forEach(k -> label(k).ifPresent(labels::add));
        if (runs > MOST_RUNS) {
            labels.add(runs + " values of runs");
        }
        return labels.isEmpty()
                ? Optional.empty()
                : Optional.of(new Remark(what + ": " + String.join(", ", labels), "quiet"));
    }

    /** What moved and by how much, in one sentence. */
    static String moved(Quantity before, Quantity now) {
        if (!before.unit().fits(now.unit())) {
            return "It was " + Notation.bracket(before) + ", a quantity of another kind.";
        }
        double by = now.value() - before.in(now.unit());
        return "It was " + Notation.bracket(before) + " and moved by " + Notation.plain(by, 2) + " "
                + now.unit().difference().pretty()
                + (before.u() > 0
                        ? ", "
                                + Notation.plain(
                                        Math.abs(by) / before.to(now.unit()).u(), 2)
                                + " of its standard uncertainty then."
                        : ".");
    }
}
