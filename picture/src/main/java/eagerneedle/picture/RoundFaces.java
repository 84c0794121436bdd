package eagerneedle.picture;

import eagerneedle.picture.Surface.Align;
import java.util.Map;

/** Faces along an arc: a dial, an angle scale, an analogue meter. */
final class RoundFaces extends FaceCanvas {
    private static final double HALF_METER = Math.toRadians(46);

    RoundFaces(Surface s, double w, double h, Map<String, String> values, boolean tells) {
        super(s, w, h, values, tells);
    }

    void dial() {
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
            stroke(cx, cy, a, r, in, i % every == 0 ? 1.4 : 0.8);
            if (i % every == 0) {
                double t = r - 22;
                letters(Integer.toString(i), cx, cy, a, t, 10);
            }
        }
        double a = 2 * Math.PI * hand / divisions;
        s.line(cx, cy, cx + (r - 8) * Math.sin(a), cy - (r - 8) * Math.cos(a), Ink.NEEDLE, 2);
        s.circle(cx, cy, 3, Ink.NEEDLE, null, 1);
        double value = number("main") + hand / divisions * step("turn", "main");
        beside("whole turns: " + values.get("main"));
        caption(values.get("main") + " and " + plain(hand) + ": " + plain(value) + " "
                + unitOf("main").pretty());
    }

    void angle() {
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
            stroke(cx, cy, a, r, in, i % numbered == 0 ? 1.6 : 1);
            if (i % numbered == 0) {
                double t = r - 38;
                letters(plain(i * division), cx, cy, a, t, 12);
            }
        }
        Arcs.arc(s, cx, cy, r, -(AROUND + 4) * gap, (AROUND + 4) * gap, Ink.INK, 1.6);
        s.line(cx, 4, cx, h - 26, Ink.NEEDLE, 1.6);
        caption("the line at " + plain(mark) + " " + unitOf("mark").pretty());
    }

    void meter() {
        double division = step("division", "mark");
        double range = quantity("range").in(unitOf("mark"));
        double mark = number("mark");
        long n = Math.max(1, Math.round(range / division));
        double r = Math.min(h - 40, (w / 2 - 34) / Math.sin(HALF_METER));
        double cx = w / 2;
        double cy = r + 20;
        Arcs.arc(s, cx, cy, r, -HALF_METER, HALF_METER, Ink.INK, 1.5);
        int numbered = n <= 12 ? 1 : numbered(division);
        long thin = Math.max(1, n / 120);
        for (long i = 0; i <= n; i += thin) {
            double a = HALF_METER * (2.0 * i / n - 1);
            double out = r + (i % numbered == 0 ? 10 : 5);
            stroke(cx, cy, a, r, out, i % numbered == 0 ? 1.5 : 0.9);
            if (i % numbered == 0) {
                double t = r - 14;
                letters(plain(i * division), cx, cy, a, t, 11);
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

    /** A stroke of the scale, along a radius. */
    private void stroke(double cx, double cy, double a, double from, double to, double width) {
        s.line(
                cx + from * Math.sin(a),
                cy - from * Math.cos(a),
                cx + to * Math.sin(a),
                cy - to * Math.cos(a),
                Ink.INK,
                width);
    }

    /** A number of the scale. */
    private void letters(String text, double cx, double cy, double a, double radius, int size) {
        s.text(
                text,
                cx + radius * Math.sin(a),
                cy - radius * Math.cos(a) + 4,
                Align.CENTRE,
                Lettering.figures(size),
                Ink.INK);
    }
}
