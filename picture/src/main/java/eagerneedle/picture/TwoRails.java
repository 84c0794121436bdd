package eagerneedle.picture;

import eagerneedle.core.quantity.Notation;
import eagerneedle.picture.Surface.Align;
import java.util.ArrayList;
import java.util.List;

/**
 * Few calibration points as two rails: reference values are pegs on the upper one, indications pegs on the lower one,
 * and a strand joins each pair. Strands that lean alike are an offset, strands that fan out are a wrong factor. Both
 * rails share one scale; what the strands lean by is drawn larger by the round factor that stands beside them, since it
 * is small beside the range.
 */
public final class TwoRails {
    private static final double WANTED_LEAN = 0.1;
    private static final int ROWS = 1;

    private TwoRails() {}

    /**
     * One pair.
     *
     * @param words what was set
     * @param reference its value
     * @param indication what was read; NaN while it is still to be taken
     * @param check a verification point
     * @param current the one that is next
     */
    public record Strand(String words, double reference, double indication, boolean check, boolean current) {}

    /**
     * Paints the rails.
     *
     * @param against what the reference values come from
     * @param unit of the values
     * @param difference unit of their differences
     */
    public static void paint(
            Surface s, List<Strand> strands, String against, String unit, String difference, double w, double h) {
        if (strands.isEmpty()) {
            s.text(
                    "The picture appears with the first point.",
                    w / 2,
                    h / 2,
                    Align.CENTRE,
                    Lettering.text(13),
                    Ink.QUIET);
            return;
        }
        double low = strands.stream().mapToDouble(Strand::reference).min().orElse(0);
        double high = strands.stream().mapToDouble(Strand::reference).max().orElse(1);
        double span = high > low
                ? high - low
                : strands.stream()
                                .mapToDouble(p -> Math.abs(p.indication() - p.reference()))
                                .filter(Double::isFinite)
                                .max()
                                .orElse(0)
                        * 8;
        span = span > 0 ? span : Math.max(1, Math.abs(low));
        double middle = (low + high) / 2;
        double left = 30;
        double right = w - 30;
        double scale = (right - left) * 0.78 / span;
        double largest = strands.stream()
                .map(p -> Math.abs(p.indication() - p.reference()))
                .mapToDouble(d -> d)
                .filter(Double::isFinite)
                .max()
                .orElse(0);
        double magnified = magnification(largest, span);
        double top = Math.max(76, h * 0.32);
        double bottom = Math.max(top + 60, h * 0.68);
        rail(s, left, right, top, "reference: " + against + (unit.isEmpty() ? "" : ", " + unit), top - 62);
        rail(s, left, right, bottom, "indicated" + (unit.isEmpty() ? "" : ", " + unit), bottom + 58);
        List<double[]> taken = new ArrayList<>();
        for (Strand p : strands) {
            double x = (left + right) / 2 + (p.reference() - middle) * scale;
            boolean read = !Double.isNaN(p.indication());
            double to = x + (read ? (p.indication() - p.reference()) * scale * magnified : 0);
            to = Math.max(left, Math.min(right, to));
            Ink ink = !read ? Ink.QUIET : p.check() ? Ink.TRACE3 : Ink.TRACE1;
            s.polyline(new double[] {x, x}, new double[] {top, bottom}, 2, Ink.RULE, 1);
            if (read) {
                s.line(x, top, to, bottom, ink, 2);
            }
            peg(s, x, top, read, p.check(), p.current(), ink);
            if (read) {
                peg(s, to, bottom, true, p.check(), false, ink);
                label(
                        s,
                        w,
                        taken,
                        signed(p.indication() - p.reference()) + (difference.isEmpty() ? "" : " " + difference),
                        to,
                        bottom + 20,
                        14,
                        Ink.INK);
            }
            label(s, w, taken, p.words(), x, top - 12, -14, p.current() ? Ink.NEEDLE : read ? Ink.INK : Ink.QUIET);
        }
        if (magnified > 1) {
            s.text(
                    "lean drawn ×" + Notation.plain(magnified, 3),
                    right,
                    bottom + 58,
                    Align.RIGHT,
                    Lettering.text(11),
                    Ink.QUIET);
        }
    }

    /**
     * A power of ten, or two or five times one, by which leans are drawn larger so that the largest can be seen; at
     * least 1.
     */
    static double magnification(double largest, double span) {
        if (!(largest > 0)) {
            return 1;
        }
        double wanted = WANTED_LEAN * span / largest;
        if (wanted < 1) {
            return 1;
        }
        double ten = Math.pow(10, Math.floor(Math.log10(wanted)));
        return wanted >= 5 * ten ? 5 * ten : wanted >= 2 * ten ? 2 * ten : ten;
    }

    private static void rail(Surface s, double left, double right, double y, String says, double at) {
        s.line(left, y, right, y, Ink.INK, 1.6);
        s.text(says, left, at, Align.LEFT, Lettering.text(11.5), Ink.QUIET);
    }

    private static void peg(Surface s, double x, double y, boolean filled, boolean check, boolean current, Ink ink) {
        if (check) {
            s.polygon(new double[] {x, x + 6, x, x - 6}, new double[] {y - 6, y, y + 6, y}, filled ? ink : Ink.SURFACE);
            if (!filled) {
                s.polyline(new double[] {x, x + 6, x, x - 6, x}, new double[] {y - 6, y, y + 6, y, y - 6}, 5, ink, 1.3);
            }
        } else {
            s.circle(x, y, 5, filled ? ink : Ink.SURFACE, ink, 1.4);
        }
        if (current) {
            s.circle(x, y, 9, null, Ink.NEEDLE, 1.6);
        }
    }

    /** A text near its place, moved a row further where another stands already. */
    private static void label(
            Surface s, double w, List<double[]> taken, String text, double wanted, double y, double step, Ink ink) {
        Lettering letters = Lettering.text(11.5);
        double half = s.textWidth(text, letters) / 2 + 3;
        double x = Math.max(half, Math.min(w - half, wanted));
        double at = y;
        for (int row = 0; row < ROWS && overlaps(taken, x - half, x + half, at); row++) {
            at += step;
        }
        if (!overlaps(taken, x - half, x + half, at)) {
            taken.add(new double[] {x - half, x + half, at});
            s.text(text, x, at, Align.CENTRE, letters, ink);
        }
    }

    private static boolean overlaps(List<double[]> taken, double from, double to, double y) {
        return taken.stream().anyMatch(t -> t[0] < to && from < t[1] && Math.abs(t[2] - y) < 12);
    }

    private static String signed(double v) {
        return (v < 0 ? "−" : "+") + Notation.plain(Math.abs(v), 2);
    }
}
