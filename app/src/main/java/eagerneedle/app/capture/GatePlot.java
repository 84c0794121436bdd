package eagerneedle.app.capture;

import eagerneedle.core.event.Edges;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.picture.Ink;
import eagerneedle.picture.Layer;
import eagerneedle.picture.Plot;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** How fast something passes a gate, against time: a point for each interval, and marked where edges seem amiss. */
final class GatePlot {
    private static final int FEWEST = 3;

    private GatePlot() {}

    /**
     * From samples of a gate's state, 1 while it is blocked.
     *
     * @param series picks ink and marker
     * @return empty while there are too few passages to show
     */
    static Optional<Plot> of(String label, RawSamples states, int series) {
        double[] times = GateFigures.edges(states).get(0).stream()
                .mapToDouble(Double::doubleValue)
                .toArray();
        if (times.length < FEWEST) {
            return Optional.empty();
        }
        double[] x = new double[times.length - 1];
        double[] y = new double[times.length - 1];
        for (int i = 0; i < x.length; i++) {
            x[i] = (times[i] + times[i + 1]) / 2;
            y[i] = 1 / (times[i + 1] - times[i]);
        }
        List<Layer> layers = new ArrayList<>(List.of(new Layer.Points(label, x, y, null, false, series)));
        for (Edges.Suspect s : Edges.of(times).suspects()) {
            boolean missed = s.kind() == Edges.Kind.MISSED;
            int at = Math.min(x.length - 1, missed ? s.index() : Math.max(0, s.index() - 1));
            layers.add(new Layer.Words(
                    missed
                            ? s.count() == 1 ? "one edge missing" : s.count() + " edges missing"
                            : "the same edge twice?",
                    x[at],
                    y[at],
                    Ink.ATTENTION,
                    false));
        }
        return Optional.of(new Plot(
                "Rate at " + label, new Plot.Axis("time", "s"), new Plot.Axis(label + ": passages", "1/s"), layers));
    }
}
