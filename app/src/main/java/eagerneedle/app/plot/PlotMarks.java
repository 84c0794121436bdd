package eagerneedle.app.plot;

import eagerneedle.core.quantity.Notation;
import eagerneedle.picture.Ink;
import eagerneedle.picture.Layer;
import eagerneedle.picture.Lettering;
import eagerneedle.picture.Plot;
import eagerneedle.picture.PlotPainter;
import eagerneedle.picture.Surface;

/** What the hand has put on a plot: its cursors, and the reading nearest to the pointer. */
final class PlotMarks {
    private static final double DASH = 4;
    private static final double PITCH = 7;

    private PlotMarks() {}

    /** Broken lines with the letters a and b. */
    static void cursors(Surface s, PlotPainter.Frame frame, double... at) {
        double foot = frame.top() + frame.height();
        for (int i = 0; i < at.length; i++) {
            double px = frame.px(at[i]);
            if (px >= frame.left() && px <= frame.left() + frame.width()) {
                for (double y = frame.top(); y < foot; y += PITCH) {
                    s.line(px, y, px, Math.min(y + DASH, foot), Ink.INK, 1.2);
                }
                s.text(i == 0 ? "a" : "b", px + 4, foot - 6, Surface.Align.LEFT, Lettering.heading(11.5), Ink.INK);
            }
        }
    }

    /** The reading of the first layer of points that is nearest to a place, ringed and written out. */
    static void nearest(Surface s, PlotPainter.Frame frame, Plot plot, double x) {
        for (Layer l : plot.layers()) {
            if (l instanceof Layer.Points p && p.x().length > 0 && x >= p.x()[0] && x <= p.x()[p.x().length - 1]) {
                int best = 0;
                for (int i = 1; i < p.x().length; i++) {
                    best = Math.abs(p.x()[i] - x) < Math.abs(p.x()[best] - x) ? i : best;
                }
                String says = Notation.plain(p.x()[best], 4) + " " + plot.x().unit() + "   "
                        + Notation.plain(p.y()[best], 5) + " " + plot.y().unit();
                s.circle(frame.px(p.x()[best]), frame.py(p.y()[best]), 4, null, Ink.INK, 1.2);
                s.text(
                        says,
                        frame.left() + frame.width() - 8,
                        frame.top() + 16,
                        Surface.Align.RIGHT,
                        Lettering.figures(11.5),
                        Ink.INK);
                return;
            }
        }
    }
}
