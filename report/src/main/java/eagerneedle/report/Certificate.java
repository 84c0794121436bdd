package eagerneedle.report;

import eagerneedle.core.calibration.AfterUse;
import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.calibration.CalibrationPoint;
import eagerneedle.core.calibration.ClosureReadings;
import eagerneedle.core.calibration.Departure;
import eagerneedle.core.calibration.Relation;
import eagerneedle.core.chain.Link;
import eagerneedle.core.fit.Fit;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.sheet.Channel;
import eagerneedle.picture.CalibrationPlots;
import eagerneedle.picture.ClosureMap;
import eagerneedle.picture.Plot;
import eagerneedle.picture.PlotPainter;
import eagerneedle.picture.SvgSurface;
import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * The certificate of a calibration as one page: what, against what, points, relation with covariance, verification, due
 * date, drift.
 */
public final class Certificate {
    private static final DateTimeFormatter STAMP = DateTimeFormatter.ofPattern("d MMM uuuu HH:mm")
            .withLocale(Locale.UK)
            .withZone(ZoneId.systemDefault());
    private final Calibration c;
    private final Channel channel;
    private final String place;
    private final Instant now;
    private int pictures;

    private Certificate(Calibration c, Channel channel, String place, Instant now) {
        this.c = c;
        this.channel = channel;
        this.place = place;
        this.now = now;
    }

    /** As one self-contained page of well-formed HTML. */
    public static String html(Calibration c, Channel channel, String place, Instant now) {
        return Papers.html("certificate.ftlh", new Certificate(c, channel, place, now).model());
    }

    /** The same page as PDF. */
    public static byte[] pdf(Calibration c, Channel channel, String place, Instant now) {
        return Papers.pdf(html(c, channel, place, now));
    }

    private LabUnit span() {
        LabUnit u = LabUnit.parse(c.unit());
        return u.difference();
    }

    private Map<String, Object> model() {
        Map<String, Object> m = new LinkedHashMap<>();
        m.put("channel", channel.label());
        m.put("kind", c.kind());
        m.put("place", place);
        m.put("id", c.id());
        m.put("taken", STAMP.format(c.taken()));
        m.put("due", STAMP.format(c.due()));
        m.put("by", c.by());
        m.put("reference", c.reference() == null || c.reference().isBlank() ? "not stated" : c.reference());
        m.put("conditions", c.conditions() == null ? "" : c.conditions());
        m.put(
                "chain",
                channel.chain().stream()
                        .map(l -> Map.of(
                                "kind",
                                l.kind(),
                                "label",
                                l.label(),
                                "instrument",
                                l.instrument() == null ? "" : l.instrument()))
                        .toList());
        m.put(
                "verdict",
                c.failure()
                        .map(f -> "Failed. " + f)
                        .orElse(
                                c.verification().isEmpty()
                                        ? "Not verified: no verification points were taken."
                                        : "Passed: every verification point holds."));
        m.put("failed", c.failure().isPresent());
        m.put(
                "overdue",
                c.overdue(now)
                        ? "This calibration was due on " + STAMP.format(c.due()) + " and must be repeated before use."
                        : "");
        m.put("relation", relation());
        m.put("coefficients", c.relation() == Relation.CLOSURE ? List.of() : coefficients());
        m.put("points", rows(c.points(), null));
        m.put("verification", rows(c.verification(), c.verification().isEmpty() ? null : c.departure()));
        m.put("unit", LabUnit.parse(c.unit()).pretty());
        m.put("remarks", remarks());
        m.put("plots", plots());
        m.put("closure", c.relation() == Relation.CLOSURE ? closure() : List.of());
        m.put("drift", drift());
        double[] valid = c.points().isEmpty() ? new double[] {0, 0} : c.validRange();
        m.put(
                "valid",
                c.points().isEmpty()
                        ? ""
                        : Notation.plain(valid[0], 4) + " to " + Notation.plain(valid[1], 4) + " "
                                + LabUnit.parse(c.unit()).pretty());
        return m;
    }

    private String relation() {
        return switch (c.relation()) {
            case OFFSET -> "measurand = indication + offset";
            case FACTOR -> "measurand = factor × indication";
            case LINE -> "measurand = intercept + slope × indication";
            case PARABOLA, CUBIC -> "measurand = sum of coefficients × powers of the indication";
            case ADJUSTED ->
                "The indicator was adjusted: it reads the measurand. Zero and span were set to their references, "
                        + "so what follows tests linearity, hysteresis and repeatability, not the references.";
            case CLOSURE ->
                "Every interval of either circle was compared with every interval of the other; both circles close.";
        };
    }

    private List<Map<String, String>> coefficients() {
        List<Map<String, String>> out = new ArrayList<>();
        List<Quantity> q = c.coefficients();
        for (int k = 0; k < q.size(); k++) {
            if (!q.get(k).isExact()) {
                String name = switch (c.relation()) {
                    case OFFSET -> "offset";
                    case FACTOR -> "factor";
                    default -> k == 0 ? "intercept" : k == 1 ? "slope" : "coefficient of power " + k;
                };
                out.add(Map.of(
                        "name",
                        name,
                        "value",
                        q.get(k).toString(),
                        "u",
                        Notation.figures(q.get(k).u(), 2)));
            }
        }
        if (out.size() > 1 && c.relation() != Relation.ADJUSTED) {
            out.add(Map.of(
                    "name",
                    "correlation of the first two",
                    "value",
                    Notation.figures(q.get(0).correlation(q.get(1)), 2),
                    "u",
                    ""));
        }
        return out;
    }

    private List<Map<String, String>> rows(List<CalibrationPoint> points, @Nullable Departure d) {
        List<Map<String, String>> out = new ArrayList<>();
        double[] refs = points.isEmpty() ? new double[0] : c.references(points);
        Fit fit = d == null
                        && c.relation() != Relation.ADJUSTED
                        && c.relation() != Relation.CLOSURE
                        && c.relation() != Relation.OFFSET
                ? c.fit()
                : null;
        for (int i = 0; i < points.size(); i++) {
            CalibrationPoint p = points.get(i);
            double residual = d != null
                    ? -d.errors()[i]
                    : fit != null
                            ? fit.residuals()[i]
                            : refs[i] - c.at(p.indication()).value();
            out.add(Map.of(
                    "set",
                    Notation.asWritten(p.reference()),
                    "value",
                    Notation.plain(refs[i], 6),
                    "indication",
                    Notation.bracketed(p.indication(), p.uIndication()),
                    "residual",
                    Notation.plain(residual, 2),
                    "n",
                    Integer.toString(p.samples()),
                    "steady",
                    p.steady() ? "" : "typed or not steady"));
        }
        return out;
    }

    private List<String> remarks() {
        List<String> out = new ArrayList<>();
        if (c.relation() != Relation.ADJUSTED && c.relation() != Relation.CLOSURE) {
            out.addAll(c.fit().remarks());
        }
        Departure d = c.departure();
        if (c.relation() == Relation.ADJUSTED && !Double.isNaN(d.linearity())) {
            double[] r = c.validRange();
            double range = r[1] - r[0];
            out.add("Linearity " + Notation.plain(100 * d.linearity() / range, 2) + " % of span"
                    + (Double.isNaN(d.hysteresis())
                            ? "."
                            : ", hysteresis " + Notation.plain(100 * d.hysteresis() / range, 2) + " % of span."));
        }
        return out;
    }

    private List<String> plots() {
        List<String> out = new ArrayList<>();
        CalibrationPlots.relation(c, channel.label()).ifPresent(p -> out.add(plot(p, 620, 280)));
        CalibrationPlots.departures(c, channel.label()).ifPresent(p -> out.add(plot(p, 620, 150)));
        if (c.relation() == Relation.CLOSURE) {
            SvgSurface s = new SvgSurface(620, 560, false, "c" + pictures++);
            ClosureMap.paint(s, c.circles(), c.closed(), null, 620, 560);
            out.add(s.document("Closure map"));
        }
        return out;
    }

    private String plot(Plot p, double w, double h) {
        SvgSurface s = new SvgSurface(w, h, false, "c" + pictures++);
        PlotPainter.paint(s, p, p.whole(), 0, 0, w, h, true);
        return s.document(p.title());
    }

    private List<Map<String, String>> closure() {
        ClosureReadings.Solution s = c.closed();
        List<Map<String, String>> out = new ArrayList<>();
        for (int i = 0; i < s.lower().size(); i++) {
            out.add(Map.of(
                    "n",
                    Integer.toString(i + 1),
                    "lower",
                    s.lower().get(i).toString(),
                    "upper",
                    s.upper().get(i).toString()));
        }
        return out;
    }

    private String drift() {
        AfterUse after = c.after();
        if (after == null) {
            return "Not checked after use.";
        }
        return c.driftFound()
                .map(d -> "Checked after use on " + STAMP.format(after.taken()) + ": it had drifted by "
                        + d.to(span())
                        + switch (after.use()) {
                            case CORRECT -> "; the drift is taken out in proportion to time.";
                            case INFLUENCE -> "; the drift is kept as an influence of that size.";
                            case TELL -> ".";
                        })
                .orElse("Not checked after use.");
    }

    /** The links of a chain as one line, for a label. */
    static String line(List<Link> links) {
        return String.join(" → ", links.stream().map(Link::label).toList());
    }
}
