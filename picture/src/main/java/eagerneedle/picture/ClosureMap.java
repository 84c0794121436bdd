package eagerneedle.picture;

import eagerneedle.core.calibration.ClosureReadings;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.picture.Surface.Align;
import org.jspecify.annotations.Nullable;

/** The map of a circle closure: both circles with the error of each interval, and the residual of every reading. */
public final class ClosureMap {
    private ClosureMap() {}

    /**
     * Paints two circles side by side and the table of readings under them.
     *
     * @param next series and reading that come next, drawn as the two intervals to set; null for none
     * @param solved what follows; null while too few readings are there
     */
    public static void paint(
            Surface s,
            ClosureReadings readings,
            ClosureReadings.@Nullable Solution solved,
            int @Nullable [] next,
            double w,
            double h) {
        int n = readings.readings().length;
        double radius = Math.max(40, Math.min(w / 4 - 34, h * 0.30 - 20));
        double top = radius + 34;
        String unit = eagerneedle.core.quantity.LabUnit.parse(readings.unit()).pretty();
        circle(
                s,
                "lower circle",
                solved == null ? null : solved.lower(),
                n,
                next == null ? -1 : next[1],
                w * 0.25,
                top,
                radius,
                unit);
        circle(
                s,
                "upper circle",
                solved == null ? null : solved.upper(),
                n,
                next == null ? -1 : (next[0] + next[1]) % n,
                w * 0.75,
                top,
                radius,
                unit);
        table(s, readings, solved, next, 0, top + radius + 34, w, h - top - radius - 40, unit);
    }

    private static void circle(
            Surface s,
            String name,
            java.util.@Nullable List<Quantity> errors,
            int n,
            int marked,
            double cx,
            double cy,
            double radius,
            String unit) {
        double largest = errors == null
                ? 1
                : errors.stream()
                        .mapToDouble(q -> Math.abs(q.value()) + 2 * q.u())
                        .max()
                        .orElse(1);
        double inner = radius * 0.55;
        double middle = radius * 0.775;
        for (int i = 0; i < n; i++) {
            double a0 = 2 * Math.PI * i / n;
            double a1 = 2 * Math.PI * (i + 1) / n;
            if (i == marked) {
                Arcs.sector(s, cx, cy, inner, radius, a0, a1, Ink.WINDOW);
            }
            if (errors != null) {
                double share = errors.get(i).value() / largest;
                double u = errors.get(i).u() / largest;
                Arcs.sector(
                        s,
                        cx,
                        cy,
                        Math.min(middle, middle + share * (radius - middle)),
                        Math.max(middle, middle + share * (radius - middle)),
                        a0 + 0.15 * (a1 - a0),
                        a1 - 0.15 * (a1 - a0),
                        share >= 0 ? Ink.TRACE1 : Ink.TRACE2);
                double mid = (a0 + a1) / 2;
                double at = middle + share * (radius - middle);
                s.line(
                        cx + (at - u * (radius - middle)) * Math.sin(mid),
                        cy - (at - u * (radius - middle)) * Math.cos(mid),
                        cx + (at + u * (radius - middle)) * Math.sin(mid),
                        cy - (at + u * (radius - middle)) * Math.cos(mid),
                        Ink.INK,
                        1.2);
            }
            Arcs.spoke(s, cx, cy, inner, radius, a0, Ink.RULE, 1);
            double label = radius + 11;
            s.text(
                    Integer.toString(i + 1),
                    cx + label * Math.sin((a0 + a1) / 2),
                    cy - label * Math.cos((a0 + a1) / 2) + 4,
                    Align.CENTRE,
                    Lettering.figures(11),
                    i == marked ? Ink.NEEDLE : Ink.QUIET);
        }
        s.circle(cx, cy, middle, null, Ink.QUIET, 1);
        s.circle(cx, cy, radius, null, Ink.INK, 1.2);
        s.circle(cx, cy, inner, null, Ink.RULE, 1);
        s.text(name, cx, cy - 3, Align.CENTRE, Lettering.text(12), Ink.INK);
        s.text(
                errors == null ? "not yet" : "± " + Notation.plain(largest, 2) + " " + unit,
                cx,
                cy + 14,
                Align.CENTRE,
                Lettering.figures(11),
                Ink.QUIET);
    }

    private static void table(
            Surface s,
            ClosureReadings readings,
            ClosureReadings.@Nullable Solution solved,
            int @Nullable [] next,
            double x,
            double y,
            double w,
            double h,
            String unit) {
        int n = readings.readings().length;
        double left = x + 58;
        double cw = (w - 58 - 78) / n;
        double ch = Math.min(24, (h - 22) / n);
        s.text("series", x, y + 10, Align.LEFT, Lettering.text(11), Ink.QUIET);
        s.text("closes to, " + unit, x + w, y + 10, Align.RIGHT, Lettering.text(11), Ink.QUIET);
        for (int i = 0; i < n; i++) {
            s.text(
                    Integer.toString(i + 1),
                    left + (i + 0.5) * cw,
                    y + 10,
                    Align.CENTRE,
                    Lettering.figures(11),
                    Ink.QUIET);
        }
        for (int k = 0; k < n; k++) {
            double cy = y + 16 + k * ch;
            s.text(Integer.toString(k + 1), x + 18, cy + ch * 0.68, Align.CENTRE, Lettering.figures(11), Ink.QUIET);
            for (int i = 0; i < n; i++) {
                double v = readings.readings()[k][i];
                boolean here = next != null && next[0] == k && next[1] == i;
                double r = solved == null ? Double.NaN : solved.residuals()[k][i];
                boolean far = solved != null && Math.abs(r) > 3 * solved.sd();
                s.rectangle(
                        left + i * cw + 1,
                        cy + 1,
                        cw - 2,
                        ch - 2,
                        here ? Ink.WINDOW : far ? Ink.WINDOW : Double.isNaN(v) ? Ink.PAPER : Ink.REACH,
                        here || far ? Ink.NEEDLE : null,
                        2);
                if (!Double.isNaN(v)) {
                    s.text(
                            signed(v),
                            left + (i + 0.5) * cw,
                            cy + ch * 0.68,
                            Align.CENTRE,
                            Lettering.figures(Math.min(11, cw / 4.4)),
                            Ink.INK);
                }
            }
            if (solved != null && !Double.isNaN(solved.closures()[k])) {
                boolean bad = Math.abs(solved.closures()[k]) > 3 * solved.uClosure();
                s.text(
                        signed(solved.closures()[k]),
                        x + w,
                        cy + ch * 0.68,
                        Align.RIGHT,
                        Lettering.figures(11),
                        bad ? Ink.NEEDLE : Ink.INK);
            }
        }
    }

    private static String signed(double v) {
        return Notation.sentence("%+.2f", v);
    }
}
