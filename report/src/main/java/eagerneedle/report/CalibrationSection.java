package eagerneedle.report;

import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.calibration.Relation;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.sheet.Channel;
import eagerneedle.picture.CalibrationPlots;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** What a calibration found, and whether it is to be believed. */
final class CalibrationSection {
    private final Reduction reduction;
    private final Instant now;

    /** @param now decides which calibrations are overdue */
    CalibrationSection(Reduction reduction, Instant now) {
        this.reduction = reduction;
        this.now = now;
    }

    Map<String, Object> of(Calibration c) {
        Channel channel = reduction.sheet().channels().get(c.channel());
        Map<String, Object> m = new LinkedHashMap<>();
        m.put("channel", channel == null ? c.channel() : channel.label());
        m.put("kind", c.kind());
        m.put("taken", SessionReport.STAMP.format(c.taken()));
        m.put("due", SessionReport.STAMP.format(c.due()));
        m.put("by", c.by());
        m.put(
                "conditions",
                (c.reference() == null || c.reference().isBlank() ? "" : "Reference: " + c.reference() + ". ")
                        + (c.conditions() == null ? "" : c.conditions()));
        m.put(
                "relation",
                c.relation() == Relation.CLOSURE
                        ? "Both circles close; the errors of the intervals stand in the certificate."
                        : "Relation: " + CalibrationPlots.words(c) + ".");
        m.put(
                "remarks",
                c.relation() == Relation.ADJUSTED || c.relation() == Relation.CLOSURE
                        ? List.of()
                        : c.fit().remarks());
        m.put(
                "doubt",
                (c.overdue(now) ? "It was due on " + SessionReport.STAMP.format(c.due()) + ". " : "")
                        + c.failure()
                                .map(f -> "It failed its verification: " + f)
                                .orElse(""));
        m.put(
                "drift",
                c.driftFound()
                        .map(d -> "After use it had drifted by " + d + ".")
                        .orElse(""));
        m.put(
                "points",
                c.points().stream()
                        .map(p -> Map.of(
                                "reference",
                                p.reference(),
                                "indication",
                                Notation.bracketed(p.indication(), p.uIndication()) + " "
                                        + LabUnit.parse(c.unit()).pretty(),
                                "n",
                                p.samples()))
                        .toList());
        return m;
    }
}
