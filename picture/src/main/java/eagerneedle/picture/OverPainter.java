package eagerneedle.picture;

import eagerneedle.core.quantity.Notation;
import eagerneedle.picture.Surface.Align;

/** Paints what lies over the data and may stand out of the frame: the edges of windows, words and legends. */
final class OverPainter implements Layer.Cases<Void> {
    /** Height of a line of words. */
    private static final double HIGH = 14;

    /** Words that stand farther than this from their place are tied to it. */
    private static final double FAR = 22;
    /** Between the times of two edges. */
    private static final double GAP = 8;

    private final Surface s;
    private final PlotPainter.Frame f;
    private final double named;
    private final FreeRoom room;
    private final double lowered;

    /**
     * @param named where the name of the vertical axis ends
     * @param lowered by how much the frame was made lower for its legend
     */
    OverPainter(Surface s, PlotPainter.Frame f, double named, FreeRoom room, double lowered) {
        this.s = s;
        this.f = f;
        this.named = named;
        this.room = room;
        this.lowered = lowered;
    }

    @Override
    public Void span(Layer.Span window) {
        double free = edge(window.from(), window.handles(), Double.NEGATIVE_INFINITY);
        edge(window.to(), window.handles(), free);
        return null;
    }

    /** Words beside their place, or in the nearest free one; what stands far off is tied to its place by a line. */
    @Override
    public Void words(Layer.Words w) {
        Lettering lettering = w.figures() ? Lettering.figures(12) : Lettering.text(11.5);
        double wide = s.textWidth(w.text(), lettering);
        double px = f.px(w.x());
        double py = f.py(w.y());
        double[] at = room.nearest(px + 5, py - HIGH + 3, wide, HIGH).orElseGet(() -> new double[] {
            Math.max(f.left() + 2, Math.min(px + 4, f.left() + f.width() - wide - 2)),
            Math.max(f.top(), Math.min(py - HIGH + 3, f.top() + f.height() - HIGH))
        });
        double nearX = Math.max(at[0], Math.min(px, at[0] + wide));
        double nearY = Math.max(at[1], Math.min(py, at[1] + HIGH));
        if (Math.hypot(nearX - px, nearY - py) > FAR && f.contains(px, py)) {
            s.line(px, py, nearX, nearY, Ink.QUIET, 0.7);
        }
        room.take(at[0] - 2, at[1], at[0] + wide + 2, at[1] + HIGH);
        s.text(w.text(), at[0], at[1] + HIGH - 3.5, Align.LEFT, lettering, w.ink());
        return null;
    }

    @Override
    public Void mark(Layer.Mark m) {
        return words(new Layer.Words(
                m.name(),
                Double.isNaN(m.x()) ? f.xAt(f.left() + 4) : m.x(),
                Double.isNaN(m.y()) ? f.yAt(f.top() + 14) : f.yAt(f.py(m.y()) - 5),
                Ink.INK,
                false));
    }

    /** Its grip stands below, so that it is never under that of a window. */
    @Override
    public Void moment(Layer.Moment m) {
        double px = f.px(m.at());
        if (px >= f.left() - 1 && px <= f.left() + f.width() + 1) {
            double y = f.top() + f.height();
            s.polygon(new double[] {px - 6, px + 6, px}, new double[] {y + 1, y + 1, y - 9}, Ink.GOOD);
            words(new Layer.Words(m.label(), m.at(), f.yAt(y - 14), Ink.GOOD, false));
        }
        return null;
    }

    @Override
    public Void legend(Layer.Legend legend) {
        new LegendBlock(s, legend).paint(room, f, lowered);
        return null;
    }

    @Override
    public Void points(Layer.Points layer) {
        return null;
    }

    @Override
    public Void envelope(Layer.Envelope layer) {
        return null;
    }

    @Override
    public Void curve(Layer.Curve layer) {
        return null;
    }

    @Override
    public Void band(Layer.Band layer) {
        return null;
    }

    @Override
    public Void stems(Layer.Stems layer) {
        return null;
    }

    @Override
    public Void level(Layer.Level layer) {
        return null;
    }

    /**
     * An edge of a window with its time.
     *
     * @param free where words may begin
     * @return where those of the next edge may: two edges near each other would write over each other
     */
    private double edge(double at, boolean handles, double free) {
        double px = f.px(at);
        if (px < f.left() - 1 || px > f.left() + f.width() + 1) {
            return free;
        }
        s.line(px, f.top(), px, f.top() + f.height(), Ink.NEEDLE, 1.4);
        if (!handles) {
            return free;
        }
        s.polygon(new double[] {px - 6, px + 6, px}, new double[] {f.top() - 1, f.top() - 1, f.top() + 9}, Ink.NEEDLE);
        String text = Notation.fixed(at, 2) + " s";
        double width = s.textWidth(text, Lettering.figures(11));
        // The first of two leaves as much room on the right as the second needs.
        double right = f.left() + f.width() - (free == Double.NEGATIVE_INFINITY ? width + GAP : 0);
        double least = Math.min(named, f.left() + f.width() / 2);
        double centre = Math.max(Math.min(Math.max(px, least + width / 2), right - width / 2), free + width / 2);
        s.text(text, centre, f.top() - 6, Align.CENTRE, Lettering.figures(11), Ink.NEEDLE);
        return centre + width / 2 + GAP;
    }
}
