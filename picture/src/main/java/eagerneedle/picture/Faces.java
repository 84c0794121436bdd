package eagerneedle.picture;

import eagerneedle.core.formula.Written;
import eagerneedle.core.quantity.DecimalSign;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reading.Face;
import eagerneedle.picture.Surface.Align;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/**
 * The face of an instrument as it looks at a reading, so that it can be held against the real one: scales near the
 * value, the vernier's marks that meet, the thimble at its line, the surface of a liquid.
 */
public final class Faces extends FaceCanvas {
    private Faces(Surface s, double w, double h, Map<String, String> values, boolean tells) {
        super(s, w, h, values, tells);
    }

    /**
     * Paints a face.
     *
     * @param values what stands in its gaps, by name
     * @throws IllegalArgumentException with one sentence where a value cannot be read
     */
    public static void paint(Surface s, double w, double h, Face face, Map<String, String> values) {
        paint(s, w, h, face, values, true);
    }

    /** The same without saying what is read, for who is asked to read it. */
    public static void asked(Surface s, double w, double h, Face face, Map<String, String> values) {
        paint(s, w, h, face, values, false);
    }

    private static void paint(Surface s, double w, double h, Face face, Map<String, String> values, boolean tells) {
        StraightFaces straight = new StraightFaces(s, w, h, values, tells);
        RoundFaces round = new RoundFaces(s, w, h, values, tells);
        Faces other = new Faces(s, w, h, values, tells);
        switch (face) {
            case RULE -> straight.rule();
            case VERNIER ->
                straight.vernier(straight.number("main") / straight.step("division", "main"), straight.unitOf("main"));
            case MICROMETER -> straight.micrometer();
            case DIAL -> round.dial();
            case DIAL_AND_VERNIER -> straight.drum();
            case ANGLE -> round.angle();
            case MENISCUS -> straight.meniscus();
            case METER -> round.meter();
            case BALANCE -> other.balance();
            case STOPWATCH -> other.display(DecimalSign.inUse().shown(values.getOrDefault("time", "")), "");
            case DISPLAY ->
                other.display(
                        DecimalSign.inUse().shown(values.get("low") + "  …  " + values.get("high")),
                        "lowest and highest seen");
            case SEVERAL -> other.several();
        }
    }

    private void balance() {
        List<String> weights = new ArrayList<>();
        double sum = 0;
        LabUnit unit = null;
        for (String part : values.getOrDefault("weights", "").split(",")) {
            Quantity q = Written.quantity(part, "weight", "weight", "weight");
            unit = unit == null ? q.unit() : unit;
            sum += q.in(unit);
            weights.add(part.strip());
        }
        double y = h * 0.2;
        double foot = h - 30;
        s.line(w / 2, y, w / 2, foot, Ink.INK, 2);
        s.line(w * 0.12, y, w * 0.88, y, Ink.INK, 2.4);
        s.line(w / 2 - 40, foot, w / 2 + 40, foot, Ink.INK, 2.4);
        s.line(w / 2, y, w / 2, y - 14, Ink.NEEDLE, 1.8);
        double pan = foot - 26;
        for (double x : new double[] {w * 0.2, w * 0.8}) {
            s.line(x, y, x - w * 0.12, pan, Ink.INK, 0.9);
            s.line(x, y, x + w * 0.12, pan, Ink.INK, 0.9);
            s.line(x - w * 0.15, pan, x + w * 0.15, pan, Ink.INK, 2);
        }
        s.circle(w * 0.2, pan - 17, 16, Ink.REACH, Ink.INK, 1);
        double wide = Math.min(46, w * 0.28 / weights.size());
        for (int i = 0; i < weights.size(); i++) {
            double x = w * 0.8 - wide * weights.size() / 2 + i * wide;
            s.rectangle(x + 1, pan - 24, wide - 2, 23, Ink.SURFACE, Ink.INK, 2);
            s.text(weights.get(i), x + wide / 2, pan - 8, Align.CENTRE, Lettering.figures(9), Ink.INK);
        }
        caption("level at " + plain(sum) + " " + (unit == null ? "" : unit.pretty()));
    }

    private void display(String text, String under) {
        double y = h * 0.42;
        s.rectangle(w * 0.12, y - 34, w * 0.76, 58, Ink.SURFACE, Ink.INK, 6);
        s.text(text, w / 2, y + 4, Align.CENTRE, Lettering.figures(24), Ink.INK);
        caption(under);
    }

    private void several() {
        String[] parts = values.getOrDefault("readings", "").split(";");
        Quantity mean = Written.quantity(values.getOrDefault("readings", ""), "mean", "mean", "mean");
        double low = Double.POSITIVE_INFINITY;
        double high = Double.NEGATIVE_INFINITY;
        double[] v = new double[parts.length];
        for (int i = 0; i < parts.length; i++) {
            Quantity q = Written.quantity(parts[i], "reading", "reading", "reading");
            v[i] = q.unit().fits(mean.unit()) ? q.in(mean.unit()) : q.value();
            low = Math.min(low, v[i]);
            high = Math.max(high, v[i]);
        }
        double span = high > low ? high - low : Math.max(1e-9, Math.abs(high) * 0.01);
        double y = h * 0.45;
        s.line(20, y, w - 20, y, Ink.RULE, 1);
        for (double x : v) {
            s.circle(40 + (x - low) / span * (w - 80), y, 5, Ink.TRACE1, null, 1);
        }
        double at = 40 + (mean.value() - low) / span * (w - 80);
        s.line(at, y - 26, at, y + 26, Ink.NEEDLE, 1.6);
        s.text(plain(low), 40, y + 46, Align.CENTRE, Lettering.figures(11), Ink.QUIET);
        s.text(plain(high), w - 40, y + 46, Align.CENTRE, Lettering.figures(11), Ink.QUIET);
        caption(String.format(
                Locale.ROOT,
                "%d readings, mean %s %s",
                v.length,
                plain(mean.value()),
                mean.unit().pretty()));
    }
}
