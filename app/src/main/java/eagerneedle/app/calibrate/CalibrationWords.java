package eagerneedle.app.calibrate;

import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.calibration.Departure;
import eagerneedle.core.calibration.Relation;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.picture.CalibrationPlots;
import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** A calibration in words: the relation, how well it fits, whether its verification holds, until when. */
final class CalibrationWords {
    private CalibrationWords() {}

    /** Unit of a difference of values, as shown: kelvin for degrees. */
    static String difference(LabUnit u) {
        return u.difference().pretty();
    }

    /** What is still missing before there is a relation; empty when nothing is. */
    static String missing(@Nullable Calibration c, int fewest, boolean adjusting) {
        if (c == null) {
            return "No calibration yet."
                    + (adjusting
                            ? ""
                            : fewest == 1
                                    ? " One point is enough, more are better."
                                    : " Take at least " + fewest + " points.");
        }
        if (CalibrationPlots.fitted(c).isPresent()) {
            return "";
        }
        int more = fewest - c.points().size();
        return more > 0
                ? more + " more to go before there is a " + c.relation().label() + "."
                : "These points do not determine the relation.";
    }

    /** The relation, its fit and its verification. */
    static String of(Calibration c, LabUnit unit) {
        StringBuilder b = new StringBuilder();
        List<Quantity> k = c.coefficients();
        b.append(
                        switch (c.relation()) {
                            case OFFSET -> "x = indication + " + k.get(0);
                            case FACTOR -> "x = " + k.get(1) + " × indication";
                            case ADJUSTED -> "The indicator reads x itself; " + CalibrationPlots.words(c);
                            case LINE ->
                                "x = " + k.get(0) + " + " + k.get(1) + " × indication\ncorrelation of the two "
                                        + Notation.figures(k.get(0).correlation(k.get(1)), 2);
                            default ->
                                "x = " + k.get(0) + " + " + k.get(1) + " × indication + " + k.get(2) + " × indication²"
                                        + (k.size() > 3 ? " + ..." : "");
                        })
                .append(".");
        if (c.relation() != Relation.ADJUSTED && !c.fit().remarks().isEmpty()) {
            b.append("\n").append(String.join(" ", c.fit().remarks()));
        }
        Departure d = c.departure();
        if (!c.verification().isEmpty()) {
            b.append("\n")
                    .append(c.failure()
                            .map(f -> "▲ Verification failed. " + f)
                            .orElse("● Verification holds: largest error "
                                    + (Notation.plain(d.largest(), 2) + " " + difference(unit)).strip() + "."));
            double range = c.validRange()[1] - c.validRange()[0];
            if (!Double.isNaN(d.linearity()) && c.relation() == Relation.ADJUSTED) {
                b.append(" Linearity ")
                        .append(Notation.plain(100 * d.linearity() / range, 2))
                        .append(" % of span");
                b.append(
                        Double.isNaN(d.hysteresis())
                                ? "."
                                : ", hysteresis " + Notation.plain(100 * d.hysteresis() / range, 2) + " %.");
            }
        }
        return b.toString();
    }

    /** When a kept calibration was taken, until when it holds, and what drifted. */
    static String dates(Calibration stored, Instant now) {
        return "\nTaken " + CalibrationKeeping.DAY.format(stored.taken()) + ", due "
                + CalibrationKeeping.DAY.format(stored.due()) + (stored.overdue(now) ? ": ▲ overdue." : ".")
                + stored.driftFound()
                        .map(x -> "\nAfter use it had drifted by " + x + ".")
                        .orElse("");
    }
}
