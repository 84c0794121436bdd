package eagerneedle.picture;

import eagerneedle.core.quantity.MonteCarlo;
import eagerneedle.core.quantity.Notation;
import eagerneedle.picture.Surface.Align;

/** The draws of a quantity as a skyline, the first-order curve over it, and both coverage intervals under it. */
public final class DrawsPicture {
    private static final int BINS = 60;
    private static final double FOOT = 58;

    private DrawsPicture() {}

    public static void paint(Surface s, MonteCarlo m, double w, double h) {
        double[][] bars = m.histogram(BINS);
        double from = bars[0][0];
        double to = bars[0][bars[0].length - 1];
        int n = bars[1].length;
        double wide = (to - from) / n;
        double top = 1e-300;
        for (int i = 0; i < n; i++) {
            top = Math.max(top, Math.max(bars[1][i], m.firstOrderDensity(from + (i + 0.5) * wide)));
        }
        double left = 14;
        double right = w - 14;
        double ground = h - FOOT;
        double x = (right - left) / (to - from);
        double y = (ground - 12) / top;
        for (int i = 0; i < n; i++) {
            double tall = bars[1][i] * y;
            s.rectangle(left + i * wide * x, ground - tall, wide * x - 0.6, tall, Ink.TRACE1, null, 0);
        }
        double[] cx = new double[201];
        double[] cy = new double[201];
        for (int i = 0; i < cx.length; i++) {
            double v = from + (to - from) * i / 200;
            cx[i] = left + (v - from) * x;
            cy[i] = ground - m.firstOrderDensity(v) * y;
        }
        s.polyline(cx, cy, cx.length, Ink.NEEDLE, 1.6);
        s.line(left, ground, right, ground, Ink.INK, 1);
        s.line(
                left + (m.symmetric().low() - from) * x,
                ground + 10,
                left + (m.symmetric().high() - from) * x,
                ground + 10,
                Ink.INK,
                3);
        s.line(
                left + (m.shortest().low() - from) * x,
                ground + 16,
                left + (m.shortest().high() - from) * x,
                ground + 16,
                Ink.QUIET,
                3);
        String unit = m.of().unit().pretty();
        s.text(
                m.coverage().percent() + ", even tails: "
                        + Notation.plain(m.symmetric().low(), 5) + " to "
                        + Notation.plain(m.symmetric().high(), 5) + " " + unit,
                left,
                ground + 34,
                Align.LEFT,
                Lettering.text(11.5),
                Ink.INK);
        s.text(
                "shortest: " + Notation.plain(m.shortest().low(), 5) + " to "
                        + Notation.plain(m.shortest().high(), 5) + " " + unit + "   ·   red: first order",
                left,
                ground + 50,
                Align.LEFT,
                Lettering.text(11.5),
                Ink.QUIET);
    }
}
