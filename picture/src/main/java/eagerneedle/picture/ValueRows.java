package eagerneedle.picture;

import eagerneedle.core.quantity.Quantity;
import java.util.List;

/**
 * Values of one kind under each other on a common scale, each with its standard uncertainty; a broken line through the
 * first.
 */
public final class ValueRows {
    private static final double STEP = 26;
    private static final double HEAD = 22;

    /** A value and what it is. */
    public record Row(String label, Quantity value) {}

    private ValueRows() {}

    /** The height that so many rows want, in points. */
    public static double height(int rows, boolean heading) {
        return (heading ? HEAD : 0) + 14 + rows * STEP + 20;
    }

    /**
     * Paints rows.
     *
     * @param heading above them; empty for none
     * @param foot below them; empty for none
     * @param rows values whose units fit that of the first
     */
    public static void paint(Surface s, double w, double h, String heading, String foot, List<Row> rows) {
        double top = heading.isEmpty() ? 0 : HEAD;
        s.text(heading, 6, 13, Surface.Align.LEFT, Lettering.heading(12), Ink.INK);
        List<Quantity> values =
                rows.stream().map(r -> r.value().to(rows.get(0).value().unit())).toList();
        double lo =
                values.stream().mapToDouble(q -> q.value() - 1.3 * q.u()).min().orElse(0);
        double hi =
                values.stream().mapToDouble(q -> q.value() + 1.3 * q.u()).max().orElse(1);
        double widest = rows.stream()
                .mapToDouble(r -> s.textWidth(r.label(), Lettering.text(12)))
                .max()
                .orElse(0);
        double left = Math.max(Math.min(142, 0.42 * w), Math.min(widest + 18, 0.64 * w));
        double scale = (w - 14 - left) / Math.max(hi - lo, 1e-300);
        s.rectangle(0, top, w, h - top, Ink.SURFACE, null, 0);
        double centre = left + (values.get(0).value() - lo) * scale;
        double step = Math.min(STEP, (h - top - (foot.isEmpty() ? 16 : 40)) / rows.size());
        double bottom = top + 12 + rows.size() * step;
        for (double y = top + 8; y < bottom; y += 6) {
            s.line(centre, y, centre, y + 3, Ink.NEEDLE, 1);
        }
        for (int i = 0; i < rows.size(); i++) {
            Quantity q = values.get(i);
            double y = top + 8 + step * (i + 0.55);
            s.text(
                    BudgetPicture.fitting(s, rows.get(i).label(), left - 16),
                    8,
                    y + 4,
                    Surface.Align.LEFT,
                    Lettering.text(12),
                    i == 0 ? Ink.INK : Ink.QUIET);
            double x = left + (q.value() - lo) * scale;
            s.line(x - q.u() * scale, y, x + q.u() * scale, y, Ink.TRACE1, 1.6);
            s.circle(x, y, 3.4, Ink.TRACE1, null, 0);
        }
        s.text(
                BudgetPicture.fitting(s, foot, w - 12),
                8,
                bottom + 18,
                Surface.Align.LEFT,
                Lettering.text(11.5),
                Ink.QUIET);
    }
}
