package eagerneedle.core.event;

import eagerneedle.core.trace.Crossings;
import eagerneedle.core.trace.Trace;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/**
 * The edges of one kind that a gate saw, in order, and which of them are suspect.
 *
 * @param times n moments in seconds, rising
 * @param suspects what is wrong where, empty for a clean train
 */
public record Edges(double[] times, List<Suspect> suspects) {
    private static final double MISSED = 1.5;
    private static final double DOUBLE = 0.5;
    private static final int NEIGHBOURS = 4;
    private static final int FEWEST = 3;

    /** What may have happened. */
    public enum Kind {
        MISSED,
        DOUBLE
    }

    /**
     * One suspect.
     *
     * @param kind a missed edge in the interval after edge {@code index}, or a double edge at it
     * @param index 0-based index of the edge
     * @param count how many edges are missing, or 1
     */
    public record Suspect(Kind kind, int index, int count) {
        /** For messages. */
        public String sentence() {
            return kind == Kind.MISSED
                    ? "After edge %d %s seem%s to be missing."
                            .formatted(index + 1, count == 1 ? "one edge" : count + " edges", count == 1 ? "s" : "")
                    : "Edge %d follows too soon on the one before; it may be the same one seen twice."
                            .formatted(index + 1);
        }
    }

    /**
     * Edges of a train that is steady or changes its speed evenly, each interval judged against those around it.
     *
     * @throws IllegalArgumentException when the times do not rise
     */
    public static Edges of(double[] times) {
        int n = times.length;
        double[] gaps = new double[Math.max(0, n - 1)];
        for (int i = 0; i < gaps.length; i++) {
            gaps[i] = times[i + 1] - times[i];
            if (!(gaps[i] > 0)) {
                throw new IllegalArgumentException(
                        "Edge times must rise; edge " + (i + 2) + " does not come after edge " + (i + 1) + ".");
            }
        }
        List<Suspect> suspects = new ArrayList<>();
        for (int i = 0; i < gaps.length && gaps.length > FEWEST; i++) {
            double expected = gaps[i] * rate(times, gaps, i);
            if (expected > MISSED) {
                suspects.add(new Suspect(Kind.MISSED, i, (int) Math.max(1, Math.round(expected) - 1)));
            } else if (expected < DOUBLE) {
                suspects.add(new Suspect(Kind.DOUBLE, i + 1, 1));
            }
        }
        return new Edges(times.clone(), List.copyOf(suspects));
    }

    /**
     * Edges a second in the middle of an interval, by the intervals around it: a straight line in time through their
     * rates, which is exact under a constant acceleration, with the median of the slopes (Theil 1950), which a few
     * wrong ones do not move.
     */
    private static double rate(double[] times, double[] gaps, int i) {
        int from = Math.max(0, Math.min(i - NEIGHBOURS, gaps.length - 2 * NEIGHBOURS - 1));
        int to = Math.min(gaps.length, from + 2 * NEIGHBOURS + 1);
        double middle = (times[i] + times[i + 1]) / 2;
        List<Double> slopes = new ArrayList<>();
        List<Double> near = new ArrayList<>();
        for (int a = from; a < to; a++) {
            for (int b = a + 1; b < to && a != i; b++) {
                if (b != i) {
                    slopes.add(2 * (1 / gaps[b] - 1 / gaps[a]) / (times[b + 1] + times[b] - times[a + 1] - times[a]));
                }
            }
        }
        double slope = median(slopes);
        for (int a = from; a < to; a++) {
            if (a != i) {
                near.add(1 / gaps[a] - slope * ((times[a] + times[a + 1]) / 2 - middle));
            }
        }
        double rate = median(near);
        return rate > 0 ? rate : 1 / gaps[i];
    }

    private static double median(List<Double> list) {
        double[] sorted =
                list.stream().mapToDouble(Double::doubleValue).sorted().toArray();
        int n = sorted.length;
        return n % 2 == 1 ? sorted[n / 2] : (sorted[n / 2 - 1] + sorted[n / 2]) / 2;
    }

    /** Edges of a gate's signal where it crosses half of its range. */
    public static Edges of(Trace trace, boolean rising) {
        return of(crossings(trace, rising).stream()
                .mapToDouble(Crossings.Crossing::moment)
                .toArray());
    }

    /** The same edges with what the samples leave open of their moments. */
    public static List<Crossings.Crossing> crossings(Trace trace, boolean rising) {
        double low = Arrays.stream(trace.value()).min().orElse(0);
        double high = Arrays.stream(trace.value()).max().orElse(0);
        return Crossings.found(trace, (low + high) / 2, 0.2 * (high - low), rising);
    }

    /** The same train without the edges that seem to be doubles. */
    public Edges withoutDoubles() {
        List<Double> kept = new ArrayList<>();
        for (int i = 0; i < times.length; i++) {
            int at = i;
            if (suspects.stream().noneMatch(s -> s.kind() == Kind.DOUBLE && s.index() == at)) {
                kept.add(times[i]);
            }
        }
        return of(kept.stream().mapToDouble(Double::doubleValue).toArray());
    }

    /** Number of each edge in the train: 0, 1, 2, ..., missing edges counted. */
    public double[] numbers() {
        double[] out = new double[times.length];
        for (int i = 1; i < out.length; i++) {
            int at = i - 1;
            int missing = suspects.stream()
                    .filter(s -> s.kind() == Kind.MISSED && s.index() == at)
                    .mapToInt(Suspect::count)
                    .sum();
            out[i] = out[i - 1] + 1 + missing;
        }
        return out;
    }
}
