package eagerneedle.app.plot;

import eagerneedle.picture.Layer;
import eagerneedle.picture.Plot;
import eagerneedle.picture.PlotPainter;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * What can be moved in a plot: the two edges of its window, and moments that windows follow. One of them is in hand,
 * moved by a drag or by keys.
 */
final class WindowHandles {
    private static final double GRIP = 8;
    private static final int FEWEST_SAMPLES = 5;
    private static final int EDGES = 2;
    private static final double STEP = 0.02;

    private PlotView.@Nullable WindowListener listener;
    private PlotView.@Nullable MomentListener moments;
    private double step = STEP;
    private int inHand;
    /** Where keys have moved what is in hand, until they are let go; NaN while none is held. */
    private double pushedTo = Double.NaN;

    /** @param sampleStep how far one step of a key goes; listener null for edges that are only shown */
    void listen(double sampleStep, PlotView.WindowListener windowListener) {
        step = sampleStep;
        listener = windowListener;
    }

    /** Makes moments movable. */
    void listen(PlotView.MomentListener momentListener) {
        moments = momentListener;
    }

    boolean isMovable() {
        return listener != null;
    }

    double step() {
        return step;
    }

    /** The window of a plot that has handles; null when there is none. */
    static Layer.@Nullable Span window(@Nullable Plot plot) {
        return plot == null
                ? null
                : (Layer.Span) plot.layers().stream()
                        .filter(l -> l instanceof Layer.Span s && s.handles())
                        .findFirst()
                        .orElse(null);
    }

    /** The moments of a plot that can be moved. */
    private List<Layer.Moment> moments(@Nullable Plot plot) {
        return plot == null || moments == null
                ? List.of()
                : plot.layers().stream()
                        .filter(Layer.Moment.class::isInstance)
                        .map(Layer.Moment.class::cast)
                        .toList();
    }

    /** Where everything is that can be moved: from 0 the edges, not numbers without a window, then the moments. */
    private double[] places(@Nullable Plot plot) {
        Layer.Span s = window(plot);
        List<Layer.Moment> all = moments(plot);
        double[] at = new double[EDGES + all.size()];
        at[0] = s == null || listener == null ? Double.NaN : s.from();
        at[1] = s == null || listener == null ? Double.NaN : s.to();
        for (int i = 0; i < all.size(); i++) {
            at[EDGES + i] = all.get(i).at();
        }
        return at;
    }

    /** Where what is in hand is; NaN without anything to move. */
    double at(@Nullable Plot plot) {
        double[] at = places(plot);
        return inHand < at.length ? at[inHand] : at[0];
    }

    /** What a hand at this place would take: its number, or -1 for nothing. */
    int edgeAt(@Nullable Plot plot, PlotPainter.@Nullable Frame frame, double px) {
        int best = -1;
        double nearest = GRIP;
        if (frame == null) {
            return best;
        }
        double[] at = places(plot);
        for (int i = 0; i < at.length; i++) {
            double d = Math.abs(px - frame.px(at[i]));
            if (d <= nearest) {
                best = i;
                nearest = d;
            }
        }
        return best;
    }

    /** Takes something in hand. */
    void take(int which) {
        inHand = which;
    }

    /** Takes the next one in hand. */
    void takeOther(Plot plot) {
        letGo(plot);
        double[] at = places(plot);
        int next = inHand;
        do {
            next = (next + 1) % at.length;
        } while (Double.isNaN(at[next]) && next != inHand);
        inHand = next;
    }

    /** A key that is held comes faster than what follows can be worked out: it drags, and ends when it is let go. */
    void push(Plot plot, double steps) {
        pushedTo = move(plot, (Double.isNaN(pushedTo) ? at(plot) : pushedTo) + steps * step, false);
    }

    /** The key was let go, or something else has the keys now. */
    void letGo(@Nullable Plot plot) {
        if (!Double.isNaN(pushedTo) && !Double.isNaN(at(plot))) {
            move(plot, pushedTo, true);
        }
        pushedTo = Double.NaN;
    }

    /** Moves what is in hand, an edge not past the other one; where it is now. */
    double move(@Nullable Plot plot, double to, boolean finished) {
        List<Layer.Moment> all = moments(plot);
        if (moments != null && inHand >= EDGES && inHand - EDGES < all.size()) {
            moments.moved(all.get(inHand - EDGES).name(), to, finished);
            return to;
        }
        Layer.Span s = window(plot);
        if (s == null || listener == null) {
            return to;
        }
        boolean first = inHand != 1;
        double least = FEWEST_SAMPLES * step;
        double at = first ? Math.min(to, s.to() - least) : Math.max(to, s.from() + least);
        listener.moved(first ? at : s.from(), first ? s.to() : at, finished);
        return at;
    }
}
