package eagerneedle.app.plot;

import eagerneedle.picture.Layer;
import eagerneedle.picture.Plot;
import eagerneedle.picture.PlotPainter;

/** The two edges of a window in a plot: one of them in hand, moved by a drag or by keys. */
final class WindowHandles {
    private static final double GRIP = 8;
    private static final int FEWEST_SAMPLES = 5;
    private static final double STEP = 0.02;

    private PlotView.WindowListener listener;
    private double step = STEP;
    private int edge;
    /** Where keys have moved the edge in hand, until they are let go; NaN while none is held. */
    private double pushedTo = Double.NaN;

    /** @param sampleStep how far one step of a key goes; listener null for edges that are only shown */
    void listen(double sampleStep, PlotView.WindowListener windowListener) {
        step = sampleStep;
        listener = windowListener;
    }

    boolean isMovable() {
        return listener != null;
    }

    double step() {
        return step;
    }

    /** The window of a plot that has handles; null when there is none. */
    static Layer.Span window(Plot plot) {
        return plot == null
                ? null
                : (Layer.Span) plot.layers().stream()
                        .filter(l -> l instanceof Layer.Span s && s.handles())
                        .findFirst()
                        .orElse(null);
    }

    /** Where the edge in hand is; NaN without a window. */
    double at(Plot plot) {
        Layer.Span s = window(plot);
        return s == null ? Double.NaN : edge == 0 ? s.from() : s.to();
    }

    /** Which edge a hand at this place would take: 0, 1 or -1 for none. */
    int edgeAt(Plot plot, PlotPainter.Frame frame, double px) {
        Layer.Span s = window(plot);
        if (s == null || frame == null || listener == null) {
            return -1;
        }
        double a = Math.abs(px - frame.px(s.from()));
        double b = Math.abs(px - frame.px(s.to()));
        return Math.min(a, b) > GRIP ? -1 : a < b ? 0 : 1;
    }

    /** Takes an edge in hand. */
    void take(int which) {
        edge = which;
    }

    /** Takes the other edge in hand. */
    void takeOther(Plot plot) {
        letGo(plot);
        edge = 1 - edge;
    }

    /** A key that is held comes faster than what follows can be worked out: it drags, and ends when it is let go. */
    void push(Plot plot, double steps) {
        pushedTo = move(plot, (Double.isNaN(pushedTo) ? at(plot) : pushedTo) + steps * step, false);
    }

    /** The key was let go, or something else has the keys now. */
    void letGo(Plot plot) {
        if (!Double.isNaN(pushedTo) && window(plot) != null && listener != null) {
            move(plot, pushedTo, true);
        }
        pushedTo = Double.NaN;
    }

    /** Moves the edge in hand, not past the other one; where it is now. */
    double move(Plot plot, double to, boolean finished) {
        Layer.Span s = window(plot);
        double least = FEWEST_SAMPLES * step;
        double at = edge == 0 ? Math.min(to, s.to() - least) : Math.max(to, s.from() + least);
        listener.moved(edge == 0 ? at : s.from(), edge == 0 ? s.to() : at, finished);
        return at;
    }
}
