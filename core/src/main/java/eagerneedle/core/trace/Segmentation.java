package eagerneedle.core.trace;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;

/**
 * Splits a trace into pieces that are each a parabola plus noise: held, rolling, hit the stop.
 *
 * <p>Optimal partitioning by dynamic programming (Jackson et al. 2005, IEEE Signal Processing Letters 12, 105) of the
 * residual sum of squares of the pieces, starts that can never win again dropped on the way (Killick et al. 2012), each
 * new piece costing {@code penalty} times the noise variance times ln n. A piece that grows only gets worse, so that
 * what a start cost when it was last looked at is the least it can cost now: it is looked at again only where that
 * could still win, and the start that won at the sample before is looked at first. The noise is taken from third
 * differences, which no parabola disturbs, by their median absolute value. The sums of squares come from running
 * moments, so that a piece costs the same however long it is. Traces longer than {@value #MOST} samples are searched on
 * every m-th sample.
 */
public final class Segmentation {
    private static final int MOST = 300;
    private static final int SHORTEST = 5;
    private static final double PENALTY = 12;
    private static final int BETWEEN_CLEANINGS = 8;

    private Segmentation() {}

    /**
     * One piece.
     *
     * @param from index of its first sample
     * @param to index after its last sample
     * @param travel value at its end minus value at its start, smoothed, in the trace's unit
     */
    public record Piece(int from, int to, double travel) {}

    /** Pieces in order of time that together cover the whole trace; one piece for a trace too short to split. */
    public static List<Piece> quadraticPieces(Trace trace) {
        return pieces(trace, 2);
    }

    /** The same with straight pieces: a melt that cools, stands still while it freezes, and cools on. */
    public static List<Piece> linearPieces(Trace trace) {
        return pieces(trace, 1);
    }

    /** Straight pieces, without changes that a noise which remembers explains as well: see {@link Demanded}. */
    public static List<Piece> demandedPieces(Trace trace) {
        List<Piece> found = pieces(trace, 1);
        int stride = Math.max(1, (trace.size() + MOST - 1) / MOST);
        return found.size() < 2
                ? found
                : Demanded.of(trace.value(), stride, found).stream()
                        .map(p -> new Piece(p[0], p[1], travel(trace.value(), p[0], p[1])))
                        .toList();
    }

    private static List<Piece> pieces(Trace trace, int degree) {
        int n = trace.size();
        int stride = Math.max(1, (n + MOST - 1) / MOST);
        int m = n / stride;
        if (m < 2 * SHORTEST) {
            return n < 2 ? List.of() : List.of(new Piece(0, n, trace.value()[n - 1] - trace.value()[0]));
        }
        double[] v = new double[m];
        for (int i = 0; i < m; i++) {
            v[i] = trace.value()[i * stride];
        }
        double sigma = Math.max(noise(v), Math.max(trace.step() / Math.sqrt(12), 1e-12 * span(v)));
        double penalty = PENALTY * sigma * sigma * Math.log(m);
        Moments moments = new Moments(v, degree);
        double[] best = new double[m + 1];
        int[] previous = new int[m + 1];
        Arrays.fill(best, Double.POSITIVE_INFINITY);
        best[0] = -penalty;
        int[] starts = new int[m + 1];
        double[] least = new double[m + 1];
        int alive = 0;
        for (int end = SHORTEST; end <= m; end++) {
            starts[alive] = end - SHORTEST;
            least[alive++] = best[end - SHORTEST];
            int likely = Math.max(0, Arrays.binarySearch(starts, 0, alive, previous[end - 1]));
            least[likely] = best[starts[likely]] + moments.residualSquares(starts[likely], end);
            double won = least[likely] + penalty;
            int winner = starts[likely];
            for (int s = 0; s < alive; s++) {
                if (least[s] + penalty > won) {
                    continue;
                }
                int start = starts[s];
                least[s] = best[start] + moments.residualSquares(start, end);
                double whole = least[s] + penalty;
                if (whole < won || whole == won && start < winner) {
                    won = whole;
                    winner = start;
                }
            }
            best[end] = won;
            previous[end] = winner;
            if (end % BETWEEN_CLEANINGS != 0) {
                continue;
            }
            int kept = 0;
            for (int s = 0; s < alive; s++) {
                if (least[s] <= best[end] || end - starts[s] < 2 * SHORTEST) {
                    starts[kept] = starts[s];
                    least[kept++] = least[s];
                }
            }
            alive = kept;
        }
        List<Piece> pieces = new ArrayList<>();
        for (int end = m; end > 0; end = previous[end]) {
            int from = previous[end] * stride;
            int to = end == m ? n : end * stride;
            pieces.add(new Piece(from, to, travel(trace.value(), from, to)));
        }
        Collections.reverse(pieces);
        return List.copyOf(pieces);
    }

    /** Standard deviation of white noise on a smooth signal, from third differences; in the unit of the values. */
    public static double noise(double[] v) {
        if (v.length < 4) {
            return 0;
        }
        double[] d = new double[v.length - 3];
        for (int i = 0; i < d.length; i++) {
            d[i] = Math.abs(v[i + 3] - 3 * v[i + 2] + 3 * v[i + 1] - v[i]);
        }
        Arrays.sort(d);
        return 1.4826 * d[d.length / 2] / Math.sqrt(20);
    }

    private static double span(double[] v) {
        return Arrays.stream(v).max().orElse(0) - Arrays.stream(v).min().orElse(0);
    }

    private static double travel(double[] v, int from, int to) {
        int k = Math.max(1, Math.min(3, (to - from) / 3));
        double start = 0;
        double end = 0;
        for (int i = 0; i < k; i++) {
            start += v[from + i];
            end += v[to - 1 - i];
        }
        return (end - start) / k;
    }

    /**
     * Running sums of v i^b from which the residual squares of a parabola over any span follow at once; what depends on
     * the length of the span alone is worked out beforehand.
     */
    private static final class Moments {
        /** Four sums a sample: of v, v i, v i² and v². */
        private final double[] sums;
        /** Four factors a length: those of the mean, the slope and the bend, and the mean square of the places. */
        private final double[] factors;

        Moments(double[] v, int degree) {
            int n = v.length;
            double centre = Arrays.stream(v).average().orElse(0);
            sums = new double[4 * (n + 1)];
            factors = new double[4 * (n + 1)];
            for (int i = 0; i < n; i++) {
                double d = v[i] - centre;
                sums[4 * i + 4] = sums[4 * i] + d;
                sums[4 * i + 5] = sums[4 * i + 1] + d * i;
                sums[4 * i + 6] = sums[4 * i + 2] + d * i * i;
                sums[4 * i + 7] = sums[4 * i + 3] + d * d;
            }
            for (int k = 1; k <= n; k++) {
                double length = k;
                double s2 = length * (length * length - 1) / 12;
                double s4 = length * (length * length - 1) * (3 * length * length - 7) / 240;
                double norm = s4 - s2 * s2 / length;
                factors[4 * k] = 1 / length;
                factors[4 * k + 1] = s2 > 0 ? 1 / s2 : 0;
                factors[4 * k + 2] = degree > 1 && norm > 0 ? 1 / norm : 0;
                factors[4 * k + 3] = s2 / length;
            }
        }

        double residualSquares(int from, int to) {
            int a = 4 * from;
            int b = 4 * to;
            int n = b - a;
            double c = (from + to - 1) * 0.5;
            double w0 = sums[b] - sums[a];
            double w1raw = sums[b + 1] - sums[a + 1];
            double w1 = w1raw - c * w0;
            double w2 = sums[b + 2] - sums[a + 2] - c * (2 * w1raw - c * w0);
            double q = w2 - w0 * factors[n + 3];
            double rest = sums[b + 3]
                    - sums[a + 3]
                    - w0 * w0 * factors[n]
                    - w1 * w1 * factors[n + 1]
                    - q * q * factors[n + 2];
            return rest > 0 ? rest : 0;
        }
    }
}
