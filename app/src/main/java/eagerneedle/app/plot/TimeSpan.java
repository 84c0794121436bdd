package eagerneedle.app.plot;

import eagerneedle.picture.Plot;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.function.LongSupplier;
import org.jspecify.annotations.Nullable;

/**
 * What plots with a common horizontal axis show of it. One axis may belong to several plots: zooming one zooms all, and
 * each step can be taken back by itself.
 */
final class TimeSpan {
    private static final int MOST = 60;
    private static final long ONE_TURN = 330_000_000L;
    private final Deque<double[]> before = new ArrayDeque<>();
    private final List<Runnable> listeners = new ArrayList<>();
    private final List<PlotView> plots = new ArrayList<>();
    private final LongSupplier clock;
    private double @Nullable [] shown;
    private long lastStep;
    private boolean turning;

    /** @param clock ns, that goes on */
    TimeSpan(LongSupplier clock) {
        this.clock = clock;
    }

    void onChange(Runnable listener) {
        listeners.add(listener);
    }

    /** A plot shows its horizontal axis here. */
    void joins(PlotView plot) {
        plots.add(plot);
    }

    /** From and to of all that the plots together hold; null while they hold nothing. */
    double @Nullable [] whole() {
        double from = Double.POSITIVE_INFINITY;
        double to = Double.NEGATIVE_INFINITY;
        for (PlotView p : plots) {
            Plot.View v = p.whole();
            if (v != null) {
                from = Math.min(from, v.x0());
                to = Math.max(to, v.x1());
            }
        }
        return from < to ? new double[] {from, to} : null;
    }

    /** From and to; null while everything is shown. */
    double @Nullable [] shown() {
        return shown;
    }

    /** Shows another span. Turns of the wheel within a third of a second are one step. */
    void show(double from, double to) {
        long now = clock.getAsLong();
        if (!turning || now - lastStep > ONE_TURN) {
            before.push(shown == null ? new double[0] : shown);
            if (before.size() > MOST) {
                before.removeLast();
            }
        }
        lastStep = now;
        turning = true;
        shown = new double[] {from, to};
        tell();
    }

    /** Takes the last step back; does nothing when there is none. */
    void back() {
        if (!before.isEmpty()) {
            double[] was = before.pop();
            shown = was.length == 0 ? null : was;
            turning = false;
            tell();
        }
    }

    /** Shows everything; that too can be taken back. */
    void all() {
        if (shown != null) {
            before.push(shown);
            shown = null;
            turning = false;
            tell();
        }
    }

    /** Forgets every step, as for another run. */
    void forget() {
        before.clear();
        if (shown != null) {
            shown = null;
            tell();
        }
    }

    private void tell() {
        List.copyOf(listeners).forEach(Runnable::run);
    }
}
