package eagerneedle.picture;

import eagerneedle.core.benches.Benches;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.picture.Surface.Align;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * One result of all benches, one below the other on a common scale: a thick line for the standard uncertainty, a thin
 * one for twice that; their mean as a line through all with its expanded uncertainty as a band, and a paler one for the
 * scatter between benches. Those that do not belong with the others are hollow, and carry a wedge as well.
 */
public final class BenchesPicture {
    private static final double ROW = 24;
    private static final double FOOT = 40;
    private static final double TOP = 8;
    private static final double NAMES = 0.2;
    private static final double VALUES = 118;

    private BenchesPicture() {}

    /** Height that so many benches need. */
    public static double height(int benches) {
        return TOP + ROW * benches + FOOT;
    }

    /**
     * Paints them.
     *
     * @param shown all benches
     * @param mean those whose mean is drawn
     */
    public static void paint(Surface s, Benches shown, Benches mean, String label, double w, @Nullable String lit) {
        LabUnit unit = shown.mean().unit();
        double low = Double.POSITIVE_INFINITY;
        double high = Double.NEGATIVE_INFINITY;
        for (Benches.Row r : shown.rows()) {
            low = Math.min(low, r.value().value() - 2 * r.value().u());
            high = Math.max(high, r.value().value() + 2 * r.value().u());
        }
        double m = mean.mean().in(unit);
        low = Math.min(low, m - mean.between());
        high = Math.max(high, m + mean.between());
        double margin = high > low ? 0.04 * (high - low) : 0.5 * Math.max(1e-300, Math.abs(m));
        low -= margin;
        high += margin;
        double left = Math.max(70, NAMES * w) + 10;
        double right = w - VALUES;
        double from = low;
        double scale = (right - left) / (high - low);
        int n = shown.rows().size();
        double bottom = TOP + ROW * n;
        double at = left + scale * (m - from);
        double band = 2 * mean.mean().u() * scale;
        double pale = mean.between() * scale;
        if (pale > 0) {
            s.rectangle(at - pale, TOP, 2 * pale, bottom - TOP, Ink.REACH, null, 0);
        }
        s.rectangle(at - band, TOP, 2 * band, bottom - TOP, Ink.BAND, null, 0);
        s.line(at, TOP, at, bottom, Ink.GOOD, 1.4);
        List<String> apart = shown.namesApart();
        for (int i = 0; i < n; i++) {
            row(s, shown.rows().get(i), TOP + ROW * (i + 0.5), new double[] {left, right, from, scale, w}, apart, lit);
        }
        s.line(left, bottom + 3, right, bottom + 3, Ink.EDGE, 1);
        double[] ticks = PlotPainter.ticks(low, high, (int) Math.max(3, (right - left) / 90));
        for (double t : ticks) {
            double x = left + scale * (t - from);
            s.line(x, bottom + 3, x, bottom + 8, Ink.EDGE, 1);
            s.text(PlotPainter.label(t, ticks), x, bottom + 20, Align.CENTRE, Lettering.figures(11.5), Ink.QUIET);
        }
        String axis = unit.pretty().isEmpty() ? label : label + ", " + unit.pretty();
        s.text(axis, (left + right) / 2, bottom + 36, Align.CENTRE, Lettering.text(12.5), Ink.INK);
    }

    private static void row(
            Surface s, Benches.Row r, double y, double[] place, List<String> apart, @Nullable String lit) {
        boolean odd = apart.contains(r.name());
        Ink ink = odd ? Ink.NEEDLE : Ink.INK;
        Lettering name = r.name().equals(lit) ? Lettering.heading(12.5) : Lettering.text(12.5);
        s.text(
                BudgetPicture.fitting(s, r.name(), place[0] - 26, name),
                14,
                y + 4,
                Align.LEFT,
                name,
                odd ? Ink.NEEDLE : Ink.INK);
        Quantity q = r.value();
        double x = place[0] + place[3] * (q.value() - place[2]);
        double u = place[3] * q.u();
        s.line(x - 2 * u, y, x + 2 * u, y, ink, 1);
        s.line(x - u, y, x + u, y, ink, 3);
        s.circle(x, y, 4.2, odd ? Ink.SURFACE : ink, ink, 1.6);
        if (odd) {
            s.polygon(new double[] {2, 10, 2}, new double[] {y - 5, y, y + 5}, Ink.NEEDLE);
        }
        s.text(
                q.u() > 0 ? Notation.bracketed(q.value(), q.u()) : Notation.plain(q.value(), 5),
                place[4] - 6,
                y + 4,
                Align.RIGHT,
                Lettering.figures(12.5),
                ink);
    }

    /** The bench whose row is at a height; -1 for none. */
    public static int at(double y, int benches) {
        int row = (int) Math.floor((y - TOP) / ROW);
        return row < 0 || row >= benches ? -1 : row;
    }
}
