package eagerneedle.core.trace;

import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import eagerneedle.core.quantity.Distribution;
import eagerneedle.core.quantity.Leaf;
import java.util.ArrayList;
import java.util.List;
import java.util.function.DoubleUnaryOperator;

/**
 * How the clock of one instrument stood to that of the run while several recorded together. Samples keep the stamps
 * that their instrument gave them; this says what a stamp means.
 *
 * <p>What was estimated from a run alone is uncertain by itself, piece by piece. How long the quickest sample is on its
 * way cannot be told from arrivals, and is the same in every run: it is one influence of the instrument.
 *
 * @param pieces from one jump of its clock to the next, rising; never empty
 * @param uDelay standard uncertainty of how long the quickest sample took, s
 */
@JsonIgnoreProperties(ignoreUnknown = true)
public record DeviceClock(List<Piece> pieces, double uDelay) {
    /**
     * One stretch in which the clock ran evenly.
     *
     * @param from its first stamp, s
     * @param at stamp at which its offset is known best, s
     * @param offset time of the run less stamp, there, s
     * @param rate how much faster the run goes than the stamps, a pure number: 50e-6 for 50 ppm
     * @param uOffset standard uncertainty of the offset there, s
     * @param uRate standard uncertainty of the rate
     */
    @JsonIgnoreProperties(ignoreUnknown = true)
    public record Piece(double from, double at, double offset, double rate, double uOffset, double uRate) {
        double time(double stamp) {
            return stamp + offset + rate * (stamp - at);
        }
    }

    public DeviceClock {
        pieces = List.copyOf(pieces);
        if (pieces.isEmpty()) {
            throw new IllegalArgumentException("A clock has at least one piece.");
        }
    }

    private Piece piece(double stamp) {
        Piece found = pieces.get(0);
        for (Piece p : pieces) {
            if (stamp >= p.from()) {
                found = p;
            }
        }
        return found;
    }

    /** The time of the run that a stamp means, s. */
    public double time(double stamp) {
        return piece(stamp).time(stamp);
    }

    /** Standard uncertainty of {@link #time}, s. */
    public double u(double stamp) {
        Piece p = piece(stamp);
        return Math.hypot(uDelay, Math.hypot(p.uOffset(), p.uRate() * (stamp - p.at())));
    }

    /**
     * Samples at times of the run.
     *
     * @param stamped by the instrument; where two pieces meet no sample comes before one that was taken earlier
     */
    public RawSamples aligned(RawSamples stamped) {
        double[] t = new double[stamped.size()];
        for (int i = 0; i < t.length; i++) {
            double time = time(stamped.time()[i]);
            t[i] = i > 0 && time <= t[i - 1] ? Math.nextUp(t[i - 1]) : time;
        }
        return new RawSamples(t, stamped.values());
    }

    /**
     * What the clock's uncertainty does to a trace at times of the run: one influence for the instrument, and for each
     * piece its offset and its rate.
     *
     * @param run identity of the run
     * @param device identity of the instrument
     * @param label what people call it
     * @param gate true for one that tells edges, of which only the moments matter
     */
    public Trace on(Trace trace, String run, String device, String label, boolean gate) {
        List<Trace.Shared> all = new ArrayList<>(trace.shared());
        String root = "clock:" + device;
        add(all, trace, gate, leaf(root + "/delay", label + ": delay of its samples", label), t -> uDelay);
        for (int k = 0; k < pieces.size(); k++) {
            Piece p = pieces.get(k);
            double from = k == 0 ? Double.NEGATIVE_INFINITY : p.time(p.from());
            double to = k + 1 == pieces.size()
                    ? Double.POSITIVE_INFINITY
                    : pieces.get(k + 1).time(pieces.get(k + 1).from());
            double middle = p.at() + p.offset();
            String id = root + "/" + run + "/" + k;
            add(all, trace, gate, leaf(id, label + ": clock", label), t -> t < from || t >= to ? 0 : p.uOffset());
            add(
                    all,
                    trace,
                    gate,
                    leaf(id + "/rate", label + ": rate of its clock", label),
                    t -> t < from || t >= to ? 0 : p.uRate() * (t - middle));
        }
        return new Trace(trace.name(), trace.time(), trace.value(), trace.unit(), trace.step(), all);
    }

    private static Leaf leaf(String id, String label, String source) {
        return Leaf.typeB(id, label, source, Distribution.NORMAL);
    }

    /** @param seconds by how much times are wrong for one standard deviation, s */
    private static void add(List<Trace.Shared> all, Trace trace, boolean gate, Leaf leaf, DoubleUnaryOperator seconds) {
        all.add(gate ? Trace.Shared.ofEdges(leaf, seconds) : Trace.Shared.ofTimes(leaf, trace, seconds));
    }
}
