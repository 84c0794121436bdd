package eagerneedle.core.trace;

import java.util.Arrays;
import java.util.Optional;

/**
 * Finds in the edges of a gate where a steady acceleration ends.
 *
 * <p>Under a constant acceleration the mean speed from edge to edge is the speed in the middle of that time, and lies
 * on a straight line against it. Two straight lines are laid through the speeds, each weighted by the inverse square of
 * its speed because the scatter of a timed interval is a share of it; the break between them with the least sum of
 * squares is the end. When one line does as well by the Bayesian criterion (Schwarz 1978, Annals of Statistics 6, 461),
 * everything is taken.
 */
final class SpeedingUp {
    private static final int LEAST = 5;
    /** Parameters that a break adds: its place and a second line. */
    private static final int COST = 3;

    private static final int GUARD = 3;
    private static final double REST = 0.5;

    private SpeedingUp() {}

    /** The window between two edges; empty when there are too few or they never come faster. */
    static Optional<Window> of(Trace gate) {
        double low = Arrays.stream(gate.value()).min().orElse(0);
        double high = Arrays.stream(gate.value()).max().orElse(0);
        double[] edge = Crossings.of(gate, (low + high) / 2, 0.2 * (high - low), true);
        double[] v = new double[Math.max(0, edge.length - 1)];
        double[] t = new double[v.length];
        int top = 0;
        for (int i = 0; i < v.length; i++) {
            v[i] = 1 / (edge[i + 1] - edge[i]);
            t[i] = (edge[i] + edge[i + 1]) / 2;
            top = v[i] > v[top] ? i : top;
        }
        // A wheel that comes to rest has intervals in which its speed changes much; nothing is to be learned from them.
        int n = v.length;
        while (n > top + LEAST + 1 && v[n - 1] < REST * v[top]) {
            n--;
        }
        if (n < 2 * LEAST) {
            return Optional.empty();
        }
        double[] weight = new double[n];
        for (int i = 0; i < n; i++) {
            double[] near = Arrays.copyOfRange(v, Math.max(0, i - 2), Math.min(n, i + 3));
            Arrays.sort(near);
            weight[i] = 1 / (near[near.length / 2] * near[near.length / 2]);
        }
        double best = Double.POSITIVE_INFINITY;
        int end = n;
        for (int k = LEAST; k <= n - LEAST; k++) {
            double[] first = line(t, v, weight, 0, k);
            double both = first[1] + line(t, v, weight, k, n)[1];
            if (first[0] > 0 && both < best) {
                best = both;
                end = k;
            }
        }
        double[] whole = line(t, v, weight, 0, n);
        if (whole[0] > 0 && n * Math.log(whole[1] / best) < COST * Math.log(n)) {
            end = n;
        } else if (best == Double.POSITIVE_INFINITY) {
            return Optional.empty();
        }
        int last = end == n ? n : end - GUARD;
        return Optional.of(new Window(
                edge[0] - 1e-6,
                edge[last] + 1e-6,
                "proposed: from the first edge until they no longer come faster"
                        + (end == n ? "" : ", " + GUARD + " edges clear of it")));
    }

    /** Slope and weighted sum of squared residuals of a straight line. */
    private static double[] line(double[] x, double[] y, double[] w, int from, int to) {
        double s = 0;
        double sx = 0;
        double sy = 0;
        for (int i = from; i < to; i++) {
            s += w[i];
            sx += w[i] * x[i];
            sy += w[i] * y[i];
        }
        double mx = sx / s;
        double my = sy / s;
        double xx = 0;
        double xy = 0;
        for (int i = from; i < to; i++) {
            xx += w[i] * (x[i] - mx) * (x[i] - mx);
            xy += w[i] * (x[i] - mx) * (y[i] - my);
        }
        double slope = xy / xx;
        double ss = 0;
        for (int i = from; i < to; i++) {
            double r = y[i] - my - slope * (x[i] - mx);
            ss += w[i] * r * r;
        }
        return new double[] {slope, ss};
    }
}
