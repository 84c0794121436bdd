package eagerneedle.report;

import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.calibration.CalibrationPoint;
import eagerneedle.core.calibration.Relation;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Printed;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.sheet.Channel;
import eagerneedle.picture.CalibrationPlots;
import java.time.Instant;
import java.util.ArrayList;
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
        List<Map<String, Object>> points = new ArrayList<>();
        double[] residuals = residuals(c);
        for (int i = 0; i < c.points().size(); i++) {
            CalibrationPoint p = c.points().get(i);
            points.add(Map.of(
                    "set",
                    p.value() == null ? "" : Notation.asWritten(p.reference()),
                    "reference",
                    p.value() == null
                            ? Notation.asWritten(p.reference())
                            : Printed.of(c.referenceOf(i)).text(),
                    "indication",
                    Notation.bracketed(p.indication(), p.uIndication()) + " "
                            + LabUnit.parse(c.unit()).pretty(),
                    "residual",
                    Double.isNaN(residuals[i]) ? "" : Notation.plain(residuals[i], 2),
                    "n",
                    p.samples()));
        }
        m.put("points", points);
        m.put("words", c.points().stream().anyMatch(p -> p.value() != null) ? "yes" : "");
        m.put("unit", LabUnit.parse(c.unit()).pretty());
        return m;
    }

    /** What the relation leaves of each reference, in the channel's unit. */
    private static double[] residuals(Calibration c) {
        double[] out = new double[c.points().size()];
        java.util.Arrays.fill(out, Double.NaN);
        if (c.relation() != Relation.CLOSURE) {
            double[] refs = c.references(c.points());
            for (int i = 0; i < out.length; i++) {
                out[i] = refs[i] - c.at(c.points().get(i).indication()).value();
            }
        }
        return out;
    }
}
