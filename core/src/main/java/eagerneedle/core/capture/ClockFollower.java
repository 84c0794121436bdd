package eagerneedle.core.capture;

import eagerneedle.core.trace.DeviceClock;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/**
 * Learns how the clock of an instrument stands to this computer's from when its samples arrive.
 *
 * <p>A sample arrives after its stamp by what the clocks differ and by however long it was on its way. Being on its way
 * only ever takes longer than the quickest, so in every short stretch the least lag tells most; a straight line below
 * those of a whole run is the difference of the clocks and its drift. That a crystal is off by more than some hundred
 * millionths is not believed on the word of a few seconds (a prior for the rate). How long the quickest sample takes
 * cannot be told by anything that only listens: it is taken to be anywhere between nothing and what the wire may take.
 *
 * <p>Not thread-safe.
 */
public final class ClockFollower {
    private static final double BUCKET = 0.25;
    /** Standard uncertainty of a clock's rate before anything is known of it. */
    private static final double ANY_CRYSTAL = 200e-6;
    /** Lags told apart by less than this are the same, s. */
    private static final double FINEST = 2e-5;

    /** How many readings the scatter that is believed beforehand is worth. */
    private static final double BELIEVED = 2;

    /** The least lag in a stretch, and the stamp that had it. */
    private record Least(double stamp, double lag) {}

    private static final class Stretch {
        private final double from;
        private final List<Least> least = new ArrayList<>();

        Stretch(double from) {
            this.from = from;
        }
    }

    private final double longestWay;
    private final List<Stretch> stretches = new ArrayList<>();
    private double bucketEnds;
    private double stamp;
    private double lag = Double.POSITIVE_INFINITY;

    /** @param longestWay the longest that the quickest sample may be on its way, s */
    public ClockFollower(double longestWay) {
        this.longestWay = longestWay;
    }

    /**
     * Takes a sample.
     *
     * @param stamped by the instrument, s
     * @param arrived by this computer, s
     */
    public void take(double stamped, double arrived) {
        if (stretches.isEmpty()) {
            begin(stamped, arrived);
        } else if (arrived > bucketEnds) {
            close();
            bucketEnds = arrived + BUCKET;
        }
        if (arrived - stamped < lag) {
            lag = arrived - stamped;
            stamp = stamped;
        }
    }

    /** Its clock was set anew: from this stamp on nothing is known of it. */
    public void jumped(double stamped, double arrived) {
        close();
        begin(stamped, arrived);
        take(stamped, arrived);
    }

    private void begin(double stamped, double arrived) {
        stretches.add(new Stretch(stamped));
        bucketEnds = arrived + BUCKET;
    }

    private void close() {
        if (Double.isFinite(lag) && !stretches.isEmpty()) {
            stretches.get(stretches.size() - 1).least.add(new Least(stamp, lag));
        }
        lag = Double.POSITIVE_INFINITY;
    }

    /** True when no sample came. */
    public boolean isEmpty() {
        return stretches.isEmpty();
    }

    /**
     * The clock as it is known now.
     *
     * @param zero what this computer's clock showed when the clock of the run was 0, s
     */
    public DeviceClock clock(double zero) {
        List<DeviceClock.Piece> pieces = new ArrayList<>();
        for (int i = 0; i < stretches.size(); i++) {
            List<Least> all = new ArrayList<>(stretches.get(i).least);
            if (i == stretches.size() - 1 && Double.isFinite(lag)) {
                all.add(new Least(stamp, lag));
            }
            if (!all.isEmpty()) {
                pieces.add(piece(stretches.get(i).from, all, zero));
            }
        }
        return new DeviceClock(pieces, longestWay / Math.sqrt(12));
    }

    private DeviceClock.Piece piece(double from, List<Least> all, double zero) {
        int n = all.size();
        double middle = all.stream().mapToDouble(Least::stamp).average().orElse(from);
        double mean = all.stream().mapToDouble(Least::lag).average().orElse(0);
        double xx = 0;
        double xy = 0;
        for (Least l : all) {
            xx += (l.stamp - middle) * (l.stamp - middle);
            xy += (l.stamp - middle) * (l.lag - mean);
        }
        // What least lags scatter by, about the line of their own; never taken for less than can be told apart.
        double own = xx > 0 ? xy / xx : 0;
        double squares = 0;
        for (Least l : all) {
            double r = l.lag - mean - own * (l.stamp - middle);
            squares += r * r;
        }
        // A few lags that happen to agree prove little: as if two more had scattered by a quarter of the wire's way.
        double believed = longestWay / 4;
        double dof = Math.max(0, n - 2);
        double noise = Math.max(FINEST, Math.sqrt((squares + BELIEVED * believed * believed) / (dof + BELIEVED)));
        double known = xx / (noise * noise);
        double prior = 1 / (ANY_CRYSTAL * ANY_CRYSTAL);
        double rate = known * own / (known + prior);
        double[] excess = all.stream()
                .mapToDouble(l -> l.lag - rate * (l.stamp - middle))
                .sorted()
                .toArray();
        double usual = Arrays.stream(excess).average().orElse(excess[0]) - excess[0];
        double u = Math.max(noise, usual) / Math.sqrt(n);
        return new DeviceClock.Piece(
                from,
                middle,
                excess[0] - zero - longestWay / 2,
                rate,
                Math.max(FINEST, u),
                Math.sqrt(1 / (known + prior)));
    }
}
