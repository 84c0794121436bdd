package eagerneedle.picture;

import eagerneedle.core.plan.TimeLine;
import eagerneedle.core.quantity.Notation;
import eagerneedle.picture.Surface.Align;
import java.util.function.DoubleUnaryOperator;

/**
 * A time line: a bar for each task, those for hands filled, those that run by themselves hollow; what delays the end in
 * red.
 */
public final class TimeLinePicture {
    private static final double ROW = 21;

    private TimeLinePicture() {}

    /** Height of the strip. */
    public static final double STRIP = 58;

    /**
     * The whole on two lanes, so that it can always be in sight: above what asks for hands, below what runs by itself.
     */
    public static void strip(Surface s, TimeLine t, double w) {
        double left = 78;
        double right = w - 40;
        double total = Math.max(1, t.total());
        DoubleUnaryOperator px = m -> left + m / total * (right - left);
        s.text("at hand", 2, 17, Align.LEFT, Lettering.text(11.5), Ink.QUIET);
        s.text("by itself", 2, 36, Align.LEFT, Lettering.text(11.5), Ink.QUIET);
        for (double tick : PlotPainter.ticks(0, total, (int) Math.max(2, Math.min(8, (right - left) / 34)))) {
            s.line(px.applyAsDouble(tick), 4, px.applyAsDouble(tick), 43, Ink.RULE, 1);
            s.text(Notation.plain(tick, 4), px.applyAsDouble(tick), 55, Align.CENTRE, Lettering.figures(11), Ink.QUIET);
        }
        s.text("min", w - 2, 55, Align.RIGHT, Lettering.text(11.5), Ink.QUIET);
        for (TimeLine.Slot slot : t.slots()) {
            double a = px.applyAsDouble(slot.start()) + 0.5;
            double b = Math.max(a + 2, px.applyAsDouble(slot.end()) - 0.5);
            boolean hands = slot.task().hands();
            double y = hands ? 5 : 24;
            Ink ink = slot.critical() ? Ink.NEEDLE : Ink.TRACE1;
            s.rectangle(a, y, b - a, 16, hands ? ink : Ink.PAPER, ink, 2);
            String name = BudgetPicture.fitting(s, slot.task().label(), b - a - 8, Lettering.text(11));
            if (b - a > 44) {
                s.text(name, a + 4, y + 12, Align.LEFT, Lettering.text(11), hands ? Ink.SURFACE : Ink.INK);
            }
        }
    }

    public static double height(TimeLine t) {
        return 30 + ROW * t.slots().size();
    }

    public static void paint(Surface s, TimeLine t, double w) {
        double left = Math.min(230, w * 0.42);
        double right = w - 46;
        double total = Math.max(1, t.total());
        DoubleUnaryOperator px = m -> left + m / total * (right - left);
        for (double tick : PlotPainter.ticks(0, total, 6)) {
            s.line(px.applyAsDouble(tick), 18, px.applyAsDouble(tick), height(t) - 6, Ink.RULE, 1);
            s.text(Notation.plain(tick, 4), px.applyAsDouble(tick), 12, Align.CENTRE, Lettering.figures(11), Ink.QUIET);
        }
        s.text("min", w - 2, 12, Align.RIGHT, Lettering.text(11), Ink.QUIET);
        double y = 24;
        for (TimeLine.Slot slot : t.slots()) {
            s.text(
                    BudgetPicture.fitting(s, slot.task().label(), left - 12),
                    left - 8,
                    y + 12,
                    Align.RIGHT,
                    Lettering.text(12),
                    Ink.INK);
            double a = px.applyAsDouble(slot.start());
            double b = Math.max(a + 3, px.applyAsDouble(slot.end()));
            Ink ink = slot.critical() ? Ink.NEEDLE : Ink.TRACE1;
            s.rectangle(a, y + 2, b - a, 12, slot.task().hands() ? ink : Ink.PAPER, ink, 2);
            s.text(
                    Notation.plain(slot.task().minutes(), 3),
                    b + 5,
                    y + 12,
                    Align.LEFT,
                    Lettering.figures(10.5),
                    Ink.QUIET);
            y += ROW;
        }
    }
}
