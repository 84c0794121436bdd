package eagerneedle.core.reduce;

import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.stockroom.Instrument;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;

/** Why a quantity is to be doubted: overdue or failed calibrations of what it was measured with. */
final class Doubts {
    private Doubts() {}

    static Optional<Instant> lastUse(Session session) {
        return session.keptRuns().stream().map(Run::started).max(Comparator.naturalOrder());
    }

    static Optional<Instant> lastUse(Session session, Sheet sheet, String channel) {
        return session.keptRuns().stream()
                .filter(r -> r.rawUnit(channel).equals(Run.COUNTS)
                        && sheet.captures().containsKey(r.capture())
                        && sheet.capture(r.capture()).channels().contains(channel))
                .map(Run::started)
                .max(Comparator.naturalOrder());
    }

    static List<String> of(Reduction r, Quantity q, Instant now) {
        List<String> out = new ArrayList<>();
        Session session = r.session();
        for (Calibration c : session.calibrations()) {
            if (session.isInForce(c)
                    && q.contributions().keySet().stream().anyMatch(l -> l.id().startsWith("calibration:" + c.id()))) {
                String what = r.sheet().channels().containsKey(c.channel())
                        ? r.sheet().channel(c.channel()).label()
                        : c.channel();
                if (c.overdue(r.lastUse(c.channel()).orElse(now))) {
                    out.add("It rests on the calibration of " + what + ", which was due on " + Notation.day(c.due())
                            + ".");
                }
                c.failure()
                        .ifPresent(f -> out.add(
                                "It rests on the calibration of " + what + ", which failed its verification: " + f));
            }
        }
        for (Instrument i : session.tied().values()) {
            if (q.contributions().keySet().stream()
                    .anyMatch(l -> l.id().equals("instrument:" + i.id())
                            || l.id().startsWith("input:") && l.source().equals(i.id()))) {
                i.objection(r.lastUse().orElse(now)).ifPresent(out::add);
            }
        }
        return out;
    }
}
