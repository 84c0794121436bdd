package eagerneedle.picture;

import eagerneedle.core.formula.Written;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Notation;
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
public final class Faces {
    private static final int AROUND = 9;
    private static final double HALF_METER = Math.toRadians(46);

    private final Surface s;
    private final double w;
    private final double h;
    private final Map<String, String> values;

    private Faces(Surface s, double w, double h, Map<String, String> values) {
        this.s = s;
        this.w = w;
        this.h = h;
        this.values = values;
    }

    /**
     * Paints a face.
     *
     * @param values what stands in its gaps, by name
     * @throws IllegalArgumentException with one sentence where a value cannot be read
     */
    public static void paint(Surface s, double w, double h, Face face, Map<String, String> values) {
        Faces f = new Faces(s, w, h, values);
        switch (face) {
            case RULE -> f.rule();
            case VERNIER -> f.vernier(f.number("main") / f.step("division", "main"), f.unitOf("main"));
            case MICROMETER -> f.micrometer();
            case DIAL -> f.dial();
            case DIAL_AND_VERNIER -> f.drum();
            case ANGLE -> f.angle();
            case MENISCUS -> f.meniscus();
            case METER -> f.meter();
            case BALANCE -> f.balance();
            case STOPWATCH -> f.display(values.get("time"), "");
            case DISPLAY -> f.display(values.get("low") + "  …  " + values.get("high"), "lowest and highest seen");
            case SEVERAL -> f.several();
        }
    }

    private Quantity quantity(String gap) {
        return Written.quantity(values.getOrDefault(gap, ""), gap, gap, gap);
    }

    private double number(String gap) {
        return quantity(gap).value();
    }

    private LabUnit unitOf(String gap) {
        return quantity(gap).unit();
    }

    /** A step in the unit of another value. */
    private double step(String gap, String like) {
        Quantity q = quantity(gap);
        LabUnit unit = unitOf(like);
        double step = q.in(unit.isAffine() ? unit.difference() : unit);
        if (!(step > 0)) {
            throw new IllegalArgumentException("A division is more than nothing, not " + values.get(gap) + ".");
        }
        return step;
    }

    private static String plain(double v) {
        return Notation.plain(Math.abs(v) < 1e-12 ? 0 : v, 6);
    }

    /** How many divisions stand between two numbers on a scale. */
    private static int numbered(double division) {
        double lead = division / Math.pow(10, Math.floor(Math.log10(division) + 1e-9));
        return Math.abs(lead - 2) < 1e-6 || Math.abs(lead - 0.2) < 1e-6 || Math.abs(lead - 5) < 1e-6 ? 5 : 10;
    }

    private static double tick(long i, int numbered) {
        return i % numbered == 0 ? 22 : numbered % 2 == 0 && i % (numbered / 2) == 0 ? 16 : 10;
    }

    private void rule() {
        double division = step("division", "mark");
        double mark = number("mark");
        int numbered = numbered(division);
        double at = mark / division;
        double gap = w / (2.0 * (AROUND + 4));
        double y = h * 0.42;
        s.rectangle(6, Math.max(14, y - 70), w / 2 - 6, Math.min(66, y - 18), Ink.REACH, Ink.RULE, 2);
        s.rectangle(6, y, w - 12, Math.min(74, h - y - 22), Ink.SURFACE, Ink.INK, 3);
        for (long i = (long) Math.ceil(at - AROUND - 4); i <= at + AROUND + 4; i++) {
            double x = w / 2 + (i - at) * gap;
            if (x < 10 || x > w - 10) {
                continue;
            }
            s.line(x, y, x, y + tick(i, numbered), Ink.INK, i % numbered == 0 ? 1.6 : 1);
            if (i % numbered == 0 && x > 20 && x < w - 20) {
                s.text(plain(i * division), x, y + 38, Align.CENTRE, Lettering.figures(12), Ink.INK);
            }
        }
        s.line(w / 2, 8, w / 2, y + 26, Ink.NEEDLE, 1.6);
        caption("the edge at " + plain(mark) + " " + unitOf("mark").pretty());
    }

    /** @param main what stands before the vernier's zero, in divisions of the main scale */
    private void vernier(double main, LabUnit unit) {
        double division = values.containsKey("division") ? step("division", "main") : 1;
        int marks = (int) Math.max(2, Math.min(200, number("marks")));
        double mark = number("mark");
        double zero = main + mark / marks;
        double reach = marks + 3.0;
        double gap = (w - 24) / reach;
        double y = h * 0.45;
        s.rectangle(6, 12, w - 12, y - 12, Ink.SURFACE, Ink.INK, 3);
        double left = Math.floor(zero) - 1;
        int numbered = numbered(division);
        for (long i = (long) left; i <= left + reach; i++) {
            double x = 12 + (i - left) * gap;
            s.line(x, y, x, y - tick(i, numbered), Ink.INK, i % numbered == 0 ? 1.5 : 0.9);
            if (i % numbered == 0 && x > 18 && x < w - 18) {
                s.text(plain(i * division), x, y - 28, Align.CENTRE, Lettering.figures(12), Ink.INK);
            }
        }
        double from = 12 + (zero - left) * gap;
        double vernierGap = gap * (marks - 1) / marks;
        s.rectangle(from - 8, y, vernierGap * marks + 16, 46, Ink.PAPER, Ink.INK, 3);
        int every = marks > 30 ? 10 : 5;
        for (int i = 0; i <= marks; i++) {
            double x = from + i * vernierGap;
            boolean meets = Math.abs(i - mark) < 0.51;
            s.line(x, y, x, y + (i % every == 0 ? 18 : 11), meets ? Ink.NEEDLE : Ink.INK, meets ? 2.2 : 0.9);
            if (i % every == 0) {
                s.text(Integer.toString(i), x, y + 34, Align.CENTRE, Lettering.figures(11), Ink.QUIET);
            }
        }
        caption("mark " + plain(mark) + " meets one above: " + plain(zero * division) + " " + unit.pretty());
    }

    private void micrometer() {
        double pitch = step("pitch", "sleeve");
        double sleeve = number("sleeve");
        double thimble = number("thimble");
        int divisions = (int) Math.max(2, number("divisions"));
        double value = sleeve + thimble / divisions * pitch;
        double edge = w * 0.56;
        double y = h * 0.48;
        double gap = Math.min(26, (edge - 20) / 9);
        s.rectangle(8, y - 34, edge - 8, 68, Ink.SURFACE, Ink.INK, 2);
        s.line(8, y, edge, y, Ink.INK, 1.2);
        for (long i = Math.round(sleeve / pitch) + 1; i >= 0; i--) {
            double x = edge - (value / pitch - i) * gap;
            if (x > edge + 0.5 || x < 16) {
                continue;
            }
            boolean above = i % 2 == 0;
            s.line(x, y, x, above ? y - 14 : y + 10, Ink.INK, 1.1);
            if (above && i % 10 == 0 || above && gap > 20 && i % 2 == 0 && i * pitch == Math.rint(i * pitch)) {
                s.text(plain(i * pitch), x, y - 19, Align.CENTRE, Lettering.figures(10), Ink.INK);
            }
        }
        double high = h - 44;
        s.rectangle(edge, y - high / 2, w * 0.3, high, Ink.PAPER, Ink.INK, 4);
        double step = high / 15;
        s.clipped(edge, y - high / 2, w * 0.3, high, () -> {
            for (long i = (long) Math.floor(thimble - 8); i <= thimble + 8; i++) {
                double at = y - (i - thimble) * step;
                long shown = Math.floorMod(i, divisions);
                s.line(edge, at, edge + (shown % 5 == 0 ? 20 : 12), at, Ink.INK, shown % 5 == 0 ? 1.5 : 0.9);
                if (shown % 5 == 0) {
                    s.text(Long.toString(shown), edge + 26, at + 4, Align.LEFT, Lettering.figures(11), Ink.INK);
                }
            }
        });
        s.line(edge - 6, y, edge + 22, y, Ink.NEEDLE, 1.6);
        caption("thimble at " + plain(thimble) + ": " + plain(value) + " "
                + unitOf("sleeve").pretty());
    }

    private void dial() {
        int divisions = (int) Math.max(2, Math.min(1000, number("divisions")));
        double hand = number("hand");
        double r = Math.min(w, h - 26) / 2 - 8;
        double cx = w / 2;
        double cy = (h - 20) / 2;
        s.circle(cx, cy, r, Ink.SURFACE, Ink.INK, 1.6);
        int thin = divisions > 120 ? divisions / 100 : 1;
        int every = divisions % 10 == 0 ? divisions / 10 : divisions % 4 == 0 ? divisions / 4 : divisions;
        for (int i = 0; i < divisions; i += thin) {
            double a = 2 * Math.PI * i / divisions;
            double in = r - (i % every == 0 ? 12 : 6);
            s.line(
                    cx + r * Math.sin(a),
                    cy - r * Math.cos(a),
                    cx + in * Math.sin(a),
                    cy - in * Math.cos(a),
                    Ink.INK,
                    i % every == 0 ? 1.4 : 0.8);
            if (i % every == 0) {
                double t = r - 22;
                s.text(
                        Integer.toString(i),
                        cx + t * Math.sin(a),
                        cy - t * Math.cos(a) + 4,
                        Align.CENTRE,
                        Lettering.figures(10),
                        Ink.INK);
            }
        }
        double a = 2 * Math.PI * hand / divisions;
        s.line(cx, cy, cx + (r - 8) * Math.sin(a), cy - (r - 8) * Math.cos(a), Ink.NEEDLE, 2);
        s.circle(cx, cy, 3, Ink.NEEDLE, null, 1);
        double value = number("main") + hand / divisions * step("turn", "main");
        caption(values.get("main") + " and " + plain(hand) + ": " + plain(value) + " "
                + unitOf("main").pretty());
    }

    /** A dial unrolled, with a vernier beside it. */
    private void drum() {
        double mark = number("mark");
        int divisions = (int) Math.max(2, number("divisions"));
        double fine = number("hand") + mark / Math.max(1, number("marks"));
        double value = number("main") + fine / divisions * step("turn", "main");
        vernier(number("hand"), LabUnit.ONE);
        s.rectangle(0, h - 20, w, 20, Ink.PAPER, null, 0);
        caption(values.get("main") + ", then " + plain(number("hand")) + " and mark " + plain(mark) + ": "
                + plain(value) + " " + unitOf("main").pretty());
    }

    private void angle() {
        double division = step("division", "mark");
        double mark = number("mark");
        int numbered = numbered(division);
        double at = mark / division;
        double r = h * 1.5;
        double cx = w / 2;
        double cy = h * 1.5 + 22;
        double gap = Math.toRadians(2.1);
        for (long i = (long) Math.ceil(at - AROUND - 3); i <= at + AROUND + 3; i++) {
            double a = (i - at) * gap;
            double in = r - tick(i, numbered);
            s.line(
                    cx + r * Math.sin(a),
                    cy - r * Math.cos(a),
                    cx + in * Math.sin(a),
                    cy - in * Math.cos(a),
                    Ink.INK,
                    i % numbered == 0 ? 1.6 : 1);
            if (i % numbered == 0) {
                double t = r - 38;
                s.text(
                        plain(i * division),
                        cx + t * Math.sin(a),
                        cy - t * Math.cos(a),
                        Align.CENTRE,
                        Lettering.figures(12),
                        Ink.INK);
            }
        }
        Arcs.arc(s, cx, cy, r, -(AROUND + 4) * gap, (AROUND + 4) * gap, 1.6);
        s.line(cx, 4, cx, h - 26, Ink.NEEDLE, 1.6);
        caption("the line at " + plain(mark) + " " + unitOf("mark").pretty());
    }

    /** A cylinder counts upwards, a burette, of which two surfaces are read, downwards. */
    private void meniscus() {
        double division = step("division", "mark");
        double mark = number("mark");
        boolean down = number("edges") > 1;
        double at = mark / division;
        int numbered = numbered(division);
        double tube = Math.min(90, w * 0.3);
        double x = w / 2 - tube / 2;
        double y = h * 0.46;
        double gap = (h - 30) / 22;
        s.clipped(0, 4, w, h - 26, () -> {
            s.rectangle(x, y - 5, tube, h, Ink.REACH, null, 0);
            int n = 24;
            double[] px = new double[n + 3];
            double[] py = new double[n + 3];
            for (int i = 0; i <= n; i++) {
                double u = 2.0 * i / n - 1;
                px[i] = x + tube * i / n;
                py[i] = y - 7 * u * u;
            }
            px[n + 1] = x + tube;
            py[n + 1] = y - 20;
            px[n + 2] = x;
            py[n + 2] = y - 20;
            s.rectangle(x, y - 8, tube, 8, Ink.REACH, null, 0);
            s.polygon(px, py, Ink.SURFACE);
            s.polyline(px, py, n + 1, Ink.TRACE1, 1.6);
            s.line(x, 0, x, h, Ink.INK, 1.4);
            s.line(x + tube, 0, x + tube, h, Ink.INK, 1.4);
            for (long i = (long) Math.ceil(at - AROUND - 3); i <= at + AROUND + 3; i++) {
                if (i < 0) {
                    continue;
                }
                double ty = y + (i - at) * gap * (down ? 1 : -1);
                s.line(x, ty, x + tick(i, numbered) * 1.3, ty, Ink.INK, i % numbered == 0 ? 1.5 : 0.9);
                if (i % numbered == 0) {
                    s.text(plain(i * division), x - 6, ty + 4, Align.RIGHT, Lettering.figures(12), Ink.INK);
                }
            }
        });
        s.line(x - 12, y, x + tube + 40, y, Ink.NEEDLE, 1.4);
        caption("lowest point at " + plain(mark) + " " + unitOf("mark").pretty()
                + (down ? ", counted downwards" : ", counted upwards"));
    }

    private void meter() {
        double division = step("division", "mark");
        double range = quantity("range").in(unitOf("mark"));
        double mark = number("mark");
        long n = Math.max(1, Math.round(range / division));
        double r = Math.min(h - 40, (w / 2 - 34) / Math.sin(HALF_METER));
        double cx = w / 2;
        double cy = r + 20;
        Arcs.arc(s, cx, cy, r, -HALF_METER, HALF_METER, 1.5);
        int numbered = n <= 12 ? 1 : numbered(division);
        long thin = Math.max(1, n / 120);
        for (long i = 0; i <= n; i += thin) {
            double a = HALF_METER * (2.0 * i / n - 1);
            double out = r + (i % numbered == 0 ? 10 : 5);
            s.line(
                    cx + r * Math.sin(a),
                    cy - r * Math.cos(a),
                    cx + out * Math.sin(a),
                    cy - out * Math.cos(a),
                    Ink.INK,
                    i % numbered == 0 ? 1.5 : 0.9);
            if (i % numbered == 0) {
                double t = r - 14;
                s.text(
                        plain(i * division),
                        cx + t * Math.sin(a),
                        cy - t * Math.cos(a) + 4,
                        Align.CENTRE,
                        Lettering.figures(11),
                        Ink.INK);
            }
        }
        double a = HALF_METER * (2 * Math.max(-0.05, Math.min(1.05, mark / range)) - 1);
        double tail = r * 0.3;
        s.line(
                cx + tail * Math.sin(a),
                cy - tail * Math.cos(a),
                cx + (r + 4) * Math.sin(a),
                cy - (r + 4) * Math.cos(a),
                Ink.NEEDLE,
                1.8);
        caption("the pointer at " + plain(mark) + " " + unitOf("mark").pretty());
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

    private void caption(String text) {
        s.text(text, w / 2, h - 6, Align.CENTRE, Lettering.text(12), Ink.QUIET);
    }
}
