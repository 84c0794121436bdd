package eagerneedle.picture;

import eagerneedle.core.quantity.Notation;
import eagerneedle.picture.Surface.Align;

/**
 * The big needle for turning a trim: where the reading stands between far off on either side, and the band in which to
 * stop.
 */
public final class TrimNeedle {
    private static final double HALF_ANGLE = Math.toRadians(52);
    private static final double LINEAR = 3;

    private TrimNeedle() {}

    /**
     * Paints the needle. Its scale is even out to three bands and then closes up, so that far off still shows on which
     * side.
     *
     * @param reading what it reads now; NaN for nothing
     * @param aim where to stop
     * @param band how near
     * @param unit of all three
     */
    public static void paint(Surface s, double reading, double aim, double band, String unit, double w, double h) {
        double radius = Math.min((w / 2 - 30) / Math.sin(HALF_ANGLE), h * 1.15 - 40);
        double cx = w / 2;
        double cy = 34 + radius;
        Arcs.sector(s, cx, cy, radius * 0.82, radius, angle(-1), angle(1), Ink.BAND);
        Arcs.arc(s, cx, cy, radius, -HALF_ANGLE, HALF_ANGLE, Ink.INK, 1.8);
        for (double k : new double[] {-100, -30, -10, -3, -2, -1, 0, 1, 2, 3, 10, 30, 100}) {
            double a = angle(k);
            double in = radius - (k == 0 ? 20 : 11);
            s.line(
                    cx + radius * Math.sin(a),
                    cy - radius * Math.cos(a),
                    cx + in * Math.sin(a),
                    cy - in * Math.cos(a),
                    Ink.INK,
                    k == 0 ? 2 : 1.1);
            if (k == 0 || Math.abs(k) == 1 || Math.abs(k) == 10 || Math.abs(k) == 100) {
                String label =
                        k == 0 ? Notation.plain(aim, 5) : (k > 0 ? "+" : "−") + Notation.plain(Math.abs(k) * band, 2);
                s.text(
                        label,
                        cx + (radius + 14) * Math.sin(a),
                        cy - (radius + 14) * Math.cos(a) + 4,
                        Align.CENTRE,
                        Lettering.figures(k == 0 ? 13 : 11),
                        k == 0 ? Ink.INK : Ink.QUIET);
            }
        }
        if (Double.isNaN(reading)) {
            s.text("no reading", cx, cy - radius * 0.5, Align.CENTRE, Lettering.text(13), Ink.QUIET);
            return;
        }
        double a = angle((reading - aim) / band);
        double bx = cx + radius * 0.3 * Math.sin(a);
        double by = cy - radius * 0.3 * Math.cos(a);
        s.polygon(
                new double[] {cx + radius * 0.97 * Math.sin(a), bx + 4.5 * Math.cos(a), bx - 4.5 * Math.cos(a)},
                new double[] {cy - radius * 0.97 * Math.cos(a), by + 4.5 * Math.sin(a), by - 4.5 * Math.sin(a)},
                Ink.NEEDLE);
        s.text(unit, cx, cy - radius * 0.3 + 22, Align.CENTRE, Lettering.text(11.5), Ink.QUIET);
    }

    /** Angle of an error counted in bands: even to three, then by its logarithm to a hundred and a little more. */
    static double angle(double bands) {
        double k = Math.abs(bands);
        double share = k <= LINEAR ? 0.5 * k / LINEAR : 0.5 + 0.42 * Math.log(k / LINEAR) / Math.log(100 / LINEAR);
        return Math.copySign(Math.min(1, share), bands) * HALF_ANGLE;
    }
}
