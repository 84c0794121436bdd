package eagerneedle.rig.simulated;

import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Outcome;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.reduce.SessionWatch;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.watch.Finding;
import eagerneedle.core.watch.Rule;
import java.time.Instant;

/** Whether a mistake shows: in a number, where it is made in reckoning; in what is said of a session, at the bench. */
final class MistakeShows {
    private static final Instant DAY = Instant.EPOCH.plusSeconds(86_400);

    private MistakeShows() {}

    /** True when any number of a session is another with the mistake. */
    static boolean changes(Sheet sheet, Reduction clean, Reduction mistaken) {
        return sheet.results().keySet().stream().anyMatch(n -> differ(clean.outcome(n), mistaken.outcome(n)))
                || clean.runs().stream()
                        .anyMatch(run -> sheet.capture(run.capture()).quantities().keySet().stream()
                                .anyMatch(q -> differ(clean.ofRun(run, q), mistaken.ofRun(run, q))));
    }

    private static boolean differ(Outcome a, Outcome b) {
        if (a.quantity().isEmpty() || b.quantity().isEmpty()) {
            return (a.problem() == null) != (b.problem() == null);
        }
        Quantity x = a.quantity().get();
        Quantity y = b.quantity().get();
        return !x.unit().fits(y.unit())
                || Math.abs(x.value() - y.in(x.unit())) > 1e-9 * Math.max(Math.abs(x.value()), x.u())
                || Math.abs(x.u() - y.u() * y.unit().scaleTo(x.unit())) > 1e-6 * x.u();
    }

    /** True when a watch, a check, a comparison, a row left out or a missing result says that something is amiss. */
    static boolean isNoticed(Sheet sheet, Reduction r) {
        return new SessionWatch()
                        .look(r, DAY).stream()
                                .anyMatch(f -> f.severity() != Finding.Severity.NOTE || f.rule() == Rule.ROW_LEFT_OUT)
                || r.checks().stream().anyMatch(c -> !c.met().orElse(false))
                || r.comparisons().stream().anyMatch(c -> c.isAmiss(r.speaks(c.id())))
                || sheet.results().entrySet().stream()
                        .anyMatch(e ->
                                e.getValue().shown() && r.outcome(e.getKey()).problem() != null);
    }
}
