package eagerneedle.picture;

import eagerneedle.core.judge.Comparison;
import eagerneedle.core.judge.School;
import eagerneedle.picture.Surface.Align;

/**
 * The agreement needle: a shallow arc whose centre is "no difference" and whose graduations are combined standard
 * uncertainties; the needle shows the difference, the shaded sector the agreement band of the school.
 */
public final class NeedlePicture {
    private static final double HALF_ANGLE = Math.toRadians(48);

    private NeedlePicture() {}

    /** Paints the needle of a comparison into a box; {@code small} leaves numbers away. */
    public static void paint(
            Surface s, Comparison c, School school, double x, double y, double w, double h, boolean small) {
        double band = band(c, school);
        double at = c.normalised();
        double full = Math.max(4, Math.min(12, 2 * Math.ceil(Math.abs(band) * 0.75)));
        double margin = small ? 4 : 26;
        double tailShare = small ? 0.45 : 0.28;
        double radius = Math.min((w / 2 - margin) / Math.sin(HALF_ANGLE), (h - margin - 4) / (1 - tailShare));
        double cx = x + w / 2;
        double cy = y + margin + radius;
        double inner = radius * (small ? 0.76 : 0.84);
        double reach = Math.min(1, Math.abs(band / full)) * HALF_ANGLE;
        Arcs.sector(s, cx, cy, inner, radius, -reach, reach, Ink.BAND);
        Arcs.arc(s, cx, cy, radius, -HALF_ANGLE, HALF_ANGLE, Ink.INK, small ? 1.2 : 1.6);
        for (double g = -full; g <= full + 1e-9; g += small ? full / 4 : 0.5) {
            boolean whole = Math.abs(g - Math.rint(g)) < 1e-9;
            double in = radius - (small ? 4 : whole ? 16 : 9);
            double a = g / full * HALF_ANGLE;
            Arcs.spoke(s, cx, cy, radius, in, a, Ink.INK, small ? 0.8 : 1.2);
            if (!small && whole) {
                double out = radius + 13;
                String label = g == 0 ? "0" : (g > 0 ? "+" : "−") + (int) Math.abs(g);
                s.text(
                        label,
                        cx + out * Math.sin(a),
                        cy - out * Math.cos(a) + 4,
                        Align.CENTRE,
                        Lettering.figures(11),
                        Ink.QUIET);
            }
        }
        double clamped = Math.max(-full, Math.min(full, Double.isNaN(at) ? 0 : at));
        double a = clamped / full * HALF_ANGLE;
        double tip = radius * (small ? 0.93 : 0.97);
        double tail = radius * tailShare;
        double half = small ? 1.6 : 3.6;
        double bx = cx + tail * Math.sin(a);
        double by = cy - tail * Math.cos(a);
        s.polygon(
                new double[] {cx + tip * Math.sin(a), bx + half * Math.cos(a), bx - half * Math.cos(a)},
                new double[] {cy - tip * Math.cos(a), by + half * Math.sin(a), by - half * Math.sin(a)},
                Ink.NEEDLE);
    }

    /** Paints the scale of a comparison that cannot be made yet: graduations in quiet ink, no band, no needle. */
    public static void empty(Surface s, double x, double y, double w, double h) {
        double radius = Math.min((w / 2 - 4) / Math.sin(HALF_ANGLE), (h - 8) / 0.55);
        double cx = x + w / 2;
        double cy = y + 4 + radius;
        Arcs.arc(s, cx, cy, radius, -HALF_ANGLE, HALF_ANGLE, Ink.QUIET, 1.2);
        for (int i = -4; i <= 4; i++) {
            Arcs.spoke(s, cx, cy, radius, radius - (i == 0 ? 7 : 4), i / 4.0 * HALF_ANGLE, Ink.QUIET, 0.8);
        }
    }

    /** Half-width of the agreement band in combined standard uncertainties. */
    static double band(Comparison c, School school) {
        double u = c.difference().u();
        if (school == School.LIMITS && u > 0) {
            return (c.result().limit() + c.reference().limit()) / u;
        }
        return c.factor();
    }
}
