package eagerneedle.picture;

import eagerneedle.core.sheet.Descent;
import eagerneedle.picture.Surface.Align;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * What follows from what: quantities one below the other, each below all that it follows from, joined by arcs at the
 * right. Unlike a drawing of boxes and lines, it stays readable however narrow it is and however many there are.
 */
public final class DescentPicture {
    private static final double ROW = 20;
    private static final double TOP = 6;
    private static final double ARCS = 96;
    private static final int CORNERS = 24;

    private DescentPicture() {}

    /** Height that so many quantities need. */
    public static double height(int quantities) {
        return 2 * TOP + ROW * quantities;
    }

    /** The quantity whose row is at a height; -1 for none. */
    public static int at(double y, int quantities) {
        int row = (int) Math.floor((y - TOP) / ROW);
        return row < 0 || row >= quantities ? -1 : row;
    }

    /**
     * Paints them.
     *
     * @param lit the quantity whose arcs stand out, with its forebears and what follows from it; null for none
     */
    public static void paint(Surface s, List<Descent.Item> items, double w, Descent.@Nullable Item lit) {
        double dots = w - ARCS;
        int n = items.size();
        Map<String, Integer> rows = new HashMap<>();
        for (int i = 0; i < n; i++) {
            rows.put(items.get(i).name(), i);
        }
        for (int i = 0; i < n; i++) {
            Descent.Item item = items.get(i);
            for (String from : item.from()) {
                int j = Objects.requireNonNull(rows.get(from));
                boolean shines = lit != null && (lit.equals(item) || lit.name().equals(from));
                arc(s, dots, middle(j), middle(i), bulge(i - j, n), shines);
            }
        }
        for (int i = 0; i < n; i++) {
            Descent.Item item = items.get(i);
            boolean touched = lit != null
                    && (lit.equals(item)
                            || lit.from().contains(item.name())
                            || item.from().contains(lit.name()));
            double y = middle(i);
            Ink ink = touched ? Ink.NEEDLE : item.kind() == Descent.Kind.RESULT ? Ink.INK : Ink.QUIET;
            Lettering named = item.kind() == Descent.Kind.RESULT ? Lettering.heading(12.5) : Lettering.text(12.5);
            String name = BudgetPicture.fitting(s, item.name(), dots - 14, named);
            s.text(name, 0, y + 4, Align.LEFT, named, ink);
            double used = s.textWidth(name, named) + 8;
            if (dots - 14 - used > 40 && !item.label().isEmpty()) {
                s.text(
                        BudgetPicture.fitting(s, item.label(), dots - 14 - used, Lettering.text(11.5)),
                        used,
                        y + 4,
                        Align.LEFT,
                        Lettering.text(11.5),
                        Ink.QUIET);
            }
            if (item.kind() == Descent.Kind.GIVEN) {
                s.circle(dots, y, 3.4, Ink.PAPER, ink, 1.3);
            } else {
                s.circle(dots, y, item.kind() == Descent.Kind.RESULT ? 4.2 : 3.4, ink, null, 0);
            }
        }
    }

    private static double middle(int row) {
        return TOP + ROW * (row + 0.5);
    }

    /** Near neighbours are joined close by, far ones further out, so that long arcs do not lie on short ones. */
    private static double bulge(int rows, int all) {
        return 10 + (ARCS - 16) * Math.sqrt((double) (rows - 1) / Math.max(1, all - 1));
    }

    private static void arc(Surface s, double x, double top, double bottom, double out, boolean shines) {
        double[] px = new double[CORNERS + 1];
        double[] py = new double[CORNERS + 1];
        for (int i = 0; i <= CORNERS; i++) {
            double a = Math.PI * i / CORNERS;
            px[i] = x + 5 + out * Math.sin(a);
            py[i] = (top + bottom) / 2 - (bottom - top) / 2 * Math.cos(a);
        }
        s.polyline(px, py, CORNERS + 1, shines ? Ink.NEEDLE : Ink.TRACE6, shines ? 1.8 : 0.8);
    }
}
