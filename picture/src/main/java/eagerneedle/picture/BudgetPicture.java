package eagerneedle.picture;

import eagerneedle.core.quantity.Budget;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Notation;
import eagerneedle.picture.Surface.Align;

/** An uncertainty budget as sorted bars, the largest contributor in the needle's red. */
public final class BudgetPicture {
    public static final double ROW = 27;

    private BudgetPicture() {}

    /** Height that a budget needs. */
    public static double height(Budget budget, int most) {
        return 14 + ROW * Math.min(most, budget.lines().size());
    }

    public static void paint(Surface s, Budget budget, double x, double y, double w, int most) {
        int n = Math.min(most, budget.lines().size());
        // As wide as the longest name wants: names differ at their ends, and a bar says as much when it is short.
        double labels = Math.min(
                w * 0.56,
                12
                        + budget.lines().stream()
                                .limit(n)
                                .mapToDouble(l -> s.textWidth(l.label(), Lettering.text(12.5)))
                                .max()
                                .orElse(100));
        double room = w - labels - 150;
        for (int i = 0; i < n; i++) {
            Budget.Line line = budget.lines().get(i);
            double row = y + 8 + i * ROW;
            s.text(fitting(s, line.label(), labels - 12), x, row + 14, Align.LEFT, Lettering.text(12.5), Ink.INK);
            double bar = Math.max(
                    1.5, room * line.share() / Math.max(budget.lines().get(0).share(), 1e-12));
            s.rectangle(x + labels, row + 3, bar, 14, i == 0 ? Ink.NEEDLE : Ink.TRACE1, null, 2);
            String dof = Double.isInfinite(line.dof()) ? "" : ", " + Math.round(line.dof()) + " d.f.";
            s.text(
                    share(line.share()) + " " + (line.type() == Leaf.Type.A ? "A" : "B") + dof,
                    x + labels + bar + 8,
                    row + 14,
                    Align.LEFT,
                    Lettering.text(11.5),
                    Ink.QUIET);
        }
    }

    /** A share of the variance, as people say it. */
    public static String share(double share) {
        return share >= 0.995
                ? "100 %"
                : share >= 0.095
                        ? Math.round(100 * share) + " %"
                        : share >= 0.001
                                ? Notation.plain(100 * share, share < 0.01 ? 1 : 2) + " %"
                                : "< " + Notation.fixed(0.1, 1) + " %";
    }

    /** The text, cut with dots if it is wider than the room. */
    public static String fitting(Surface s, String text, double room) {
        return fitting(s, text, room, Lettering.text(12.5));
    }

    /** The same in another lettering. */
    static String fitting(Surface s, String text, double room, Lettering lettering) {
        if (s.textWidth(text, lettering) <= room) {
            return text;
        }
        int kept = text.length() - 1;
        String cut = text;
        while (kept > 3 && s.textWidth(cut, lettering) > room) {
            // What stands at the end of a name tells it from its like: a third of what is kept is from there.
            int end = kept > 12 ? kept / 3 : 0;
            cut = text.substring(0, kept - end).strip() + "…"
                    + text.substring(text.length() - end).strip();
            kept--;
        }
        return cut;
    }
}
