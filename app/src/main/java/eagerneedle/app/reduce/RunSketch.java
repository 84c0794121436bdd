package eagerneedle.app.reduce;

import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.chain.Chain;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.trace.Pyramid;
import eagerneedle.picture.Ink;
import eagerneedle.picture.Surface;
import java.util.Arrays;
import java.util.Optional;

/**
 * The trace of a run as a sketch in a list: its course, without scales, by the outline that the bench file keeps, so
 * that a list of long runs costs no more than one of short ones.
 *
 * @param y heights from 0 at the bottom to 1, evenly spaced in time
 */
record RunSketch(double[] y) {
    private static final int COLUMNS = 48;
    /** Samples up to which all of them are read. */
    private static final int FEW = 20_000;

    /** The sketch of a run; empty where nothing was recorded, or only when a gate was passed. */
    static Optional<RunSketch> of(Workbench bench, Run run) {
        Capture c = bench.sheet().captures().get(run.capture());
        Optional<String> channel = c == null || c.mode().equals("gate") ? Optional.empty() : c.top();
        return channel.filter(name -> bench.file().count(run.id(), name) > 2).map(name -> {
            boolean falls = falls(run.channel(bench.sheet(), name).toChain());
            if (bench.file().count(run.id(), name) <= FEW) {
                return of(bench.file().samples(run.id(), name).values(), falls);
            }
            Pyramid p = bench.file().overview(run.id(), name);
            Pyramid.Outline o = p.over(p.start(), p.end(), COLUMNS);
            double[] middles = new double[o.size()];
            for (int i = 0; i < middles.length; i++) {
                middles[i] = (o.low()[i] + (double) o.high()[i]) / 2;
            }
            return of(middles, falls);
        });
    }

    /**
     * From values in order of time, evenly spaced.
     *
     * @param falls true where a greater raw value means a smaller one
     */
    static RunSketch of(double[] values, boolean falls) {
        int n = Math.min(COLUMNS, values.length);
        double[] y = new double[n];
        double low = Double.POSITIVE_INFINITY;
        double high = Double.NEGATIVE_INFINITY;
        for (int i = 0; i < n; i++) {
            int from = (int) ((long) i * values.length / n);
            int to = (int) ((i + 1L) * values.length / n);
            y[i] = (falls ? -1 : 1) * Arrays.stream(values, from, to).average().orElse(0);
            low = Math.min(low, y[i]);
            high = Math.max(high, y[i]);
        }
        for (int i = 0; i < n; i++) {
            y[i] = high > low ? (y[i] - low) / (high - low) : 0.5;
        }
        return new RunSketch(y);
    }

    private static boolean falls(Chain chain) {
        double a = chain.indication(chain.converter().lowestCount());
        double b = chain.indication(chain.converter().highestCount());
        return b < a;
    }

    void paint(Surface s, double w, double h) {
        double[] px = new double[y.length];
        double[] py = new double[y.length];
        for (int i = 0; i < y.length; i++) {
            px[i] = 1 + (w - 2) * i / Math.max(1, y.length - 1);
            py[i] = h - 2 - (h - 4) * y[i];
        }
        s.polyline(px, py, y.length, Ink.TRACE1, 1.2);
    }
}
