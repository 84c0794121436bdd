package eagerneedle.app.capture;

import eagerneedle.app.plot.PlotView;
import eagerneedle.app.widget.Theme;
import eagerneedle.app.workbench.LiveRig;
import eagerneedle.core.trace.Trace;
import eagerneedle.picture.Ink;
import eagerneedle.picture.Layer;
import eagerneedle.picture.Plot;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** The rate of change of the only trace of a capture, under it; several traces need the room for themselves. */
final class RateOfChange extends PlotView {
    /** Samples beyond which it is not worked out. */
    static final int MOST = 20_000;

    private static final int HALF = 3;
    private @Nullable PlotView followed;

    RateOfChange() {
        super("Live rate of change");
        setPrefHeight(Theme.px(190));
        setMinHeight(Theme.px(110));
    }

    /** Shows the time that the trace above it shows. */
    void follow(PlotView trace) {
        if (followed != trace) {
            followed = trace;
            share(trace);
        }
    }

    /** @param t null for nothing to show */
    void of(@Nullable Trace t, boolean alone) {
        boolean shown = alone && t != null && t.size() <= MOST;
        setVisible(shown);
        setManaged(shown);
        plot(shown && t != null && t.size() > 2 * HALF + 1 ? rate(t) : null, false);
    }

    /**
     * Of what is coming in now.
     *
     * @param whole true for the whole run, false for what came lately
     */
    void live(LiveTraces traces, LiveRig rig, String channel, boolean whole, double lately) {
        double samples = whole ? rig.count(channel) : rig.rate() * lately;
        if (samples > MOST) {
            of(null, true);
            return;
        }
        of(traces.exact(channel).apply(whole ? rig.all(channel) : rig.last(channel, lately)), true);
    }

    /** By a straight line over seven neighbouring samples, which need not be evenly spaced. */
    private static Plot rate(Trace t) {
        int n = t.size() - 2 * HALF;
        double[] x = new double[n];
        double[] y = new double[n];
        for (int i = 0; i < n; i++) {
            double stt = 0;
            double stv = 0;
            double mean = 0;
            for (int k = 0; k <= 2 * HALF; k++) {
                mean += t.time()[i + k] / (2 * HALF + 1);
            }
            for (int k = 0; k <= 2 * HALF; k++) {
                double dt = t.time()[i + k] - mean;
                stt += dt * dt;
                stv += dt * t.value()[i + k];
            }
            x[i] = t.time()[i + HALF];
            y[i] = stv / stt;
        }
        String name = "rate of " + t.name();
        return new Plot(
                name,
                new Plot.Axis("time", "s"),
                new Plot.Axis(name, t.unit().pretty() + "/s"),
                List.of(new Layer.Level(0, Ink.RULE), new Layer.Points(name, x, y, null, false, 2)));
    }
}
