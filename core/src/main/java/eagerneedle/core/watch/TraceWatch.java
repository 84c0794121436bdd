package eagerneedle.core.watch;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Ranks;
import eagerneedle.core.trace.Trace;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;

/**
 * Looks at what samples mean: a limit, a trend against expectation, a reference that moved, a knock, a signal too fast
 * for its rate, leads that were exchanged. Thresholds are set so that noise alone does not reach them; the rate of
 * false alarms on clean simulated benches is measured in the tests.
 */
public final class TraceWatch {
    private static final int FEWEST = 24;
    private static final double STAYS = 6;
    private static final int BLOCKS = 12;
    private static final double NEAR = 0.95;
    private static final double KNOCK = 9;
    private static final double[] MAINS = {50, 60};
    private static final double FEWEST_CYCLES = 5;
    private static final double SURE = 23;

    private final String channel;
    private final Expectation expected;
    private final double noise;

    /**
     * A watch over one channel.
     *
     * @param channel what it is called in sentences
     * @param noise standard deviation of a sample that its chain states, in the channel's unit; 0 when it states none
     */
    public TraceWatch(String channel, Expectation expected, double noise) {
        this.channel = channel;
        this.expected = expected;
        this.noise = noise;
    }

    /** Findings over a trace of a run. */
    public List<Finding> look(int run, Trace t) {
        List<Finding> found = new ArrayList<>();
        limit(run, t).ifPresent(found::add);
        found.addAll(course(run, t));
        if (t.size() >= FEWEST) {
            undersampled(run, t).ifPresent(found::add);
        }
        return found;
    }

    /** What only the course of a run shows, be it of samples far apart: a trend, a reference that moved. */
    public List<Finding> course(int run, Trace t) {
        if (t.size() < FEWEST) {
            return List.of();
        }
        double[] blocks = medians(t.value());
        double scatter = scatter(t.value());
        return Stream.of(trend(run, t, blocks, scatter), reference(run, t, blocks, scatter))
                .flatMap(Optional::stream)
                .toList();
    }

    private static String unit(Trace t) {
        return t.unit().difference().pretty();
    }

    private Optional<Finding> limit(int run, Trace t) {
        if (Double.isNaN(expected.limit())) {
            return Optional.empty();
        }
        int worst = 0;
        for (int i = 1; i < t.size(); i++) {
            worst = Math.abs(t.value()[i]) > Math.abs(t.value()[worst]) ? i : worst;
        }
        double most = t.size() == 0 ? 0 : Math.abs(t.value()[worst]);
        double limit = Math.abs(expected.limit());
        if (most < NEAR * limit) {
            return Optional.empty();
        }
        boolean passed = most > limit;
        return Optional.of((passed ? Rule.LIMIT_PASSED : Rule.LIMIT_NEAR)
                .of(
                        run,
                        channel,
                        t.time()[worst],
                        t.time()[worst],
                        capital(channel) + (passed ? " passed" : " is close to") + " the limit of "
                                + Notation.plain(expected.limit(), 4) + " "
                                + t.unit().pretty() + ": " + Notation.plain(t.value()[worst], 4) + "."));
    }

    private Optional<Finding> trend(int run, Trace t, double[] blocks, double scatter) {
        if (expected.trend() == 0) {
            return Optional.empty();
        }
        double change = blocks[blocks.length - 1] - blocks[0];
        if (change * expected.trend() >= 0 || Math.abs(change) < 8 * scatter) {
            return Optional.empty();
        }
        return Optional.of(Rule.REVERSED.of(
                run,
                channel,
                t.time()[0],
                t.time()[t.size() - 1],
                capital(channel) + (change < 0 ? " falls" : " rises") + " where it should "
                        + (expected.trend() > 0 ? "rise." : "fall.")));
    }

    private Optional<Finding> reference(int run, Trace t, double[] blocks, double scatter) {
        if (Double.isNaN(expected.holds())) {
            return Optional.empty();
        }
        double moved = Arrays.stream(blocks).max().orElse(0)
                - Arrays.stream(blocks).min().orElse(0);
        // Two blocks on either side of a converter's step may be the same.
        if (moved <= expected.holds() + t.step() + 2 * scatter / Math.sqrt(t.size() / (double) BLOCKS)) {
            return Optional.empty();
        }
        return Optional.of(Rule.REFERENCE_LOST.of(
                run,
                channel,
                t.time()[0],
                t.time()[t.size() - 1],
                capital(channel) + " moved by " + Notation.plain(moved, 2) + " " + unit(t)
                        + " though it should hold within " + Notation.plain(expected.holds(), 2) + " " + unit(t)
                        + "."));
    }

    /**
     * Neighbours differ as much as the whole signal does, and by far more than its noise: it is faster than the rate.
     */
    private Optional<Finding> undersampled(int run, Trace t) {
        double[] v = t.value();
        double mean = Arrays.stream(v).average().orElse(0);
        double all = 0;
        double steps = 0;
        for (int i = 0; i < v.length; i++) {
            all += (v[i] - mean) * (v[i] - mean);
            steps += i == 0 ? 0 : (v[i] - v[i - 1]) * (v[i] - v[i - 1]);
        }
        double sd = Math.sqrt(all / v.length);
        double jump = Math.sqrt(steps / (v.length - 1));
        if (!(noise > 0) || sd < 20 * Math.max(noise, t.step()) || jump < 1.1 * sd) {
            return Optional.empty();
        }
        return Optional.of(Rule.UNDERSAMPLED.of(
                run,
                channel,
                t.time()[0],
                t.time()[t.size() - 1],
                capital(channel) + " changes from sample to sample as much as it changes at all."));
    }

    /**
     * Hum of the mains in what is left of a signal when its own shape is taken out: a line at 50 Hz or 60 Hz far above
     * what noise would show there.
     *
     * @param time evenly spaced, s
     * @param rest residuals of a fit, or a row that stands still; in {@code unit}
     */
    public Optional<Finding> hum(int run, double[] time, double[] rest, LabUnit unit) {
        int n = rest.length;
        double span = n < FEWEST ? 0 : time[n - 1] - time[0];
        for (double mains : MAINS) {
            if (span * mains < FEWEST_CYCLES || n / span < 3 * mains) {
                continue;
            }
            double mean = Arrays.stream(rest).average().orElse(0);
            double c = 0;
            double s = 0;
            double all = 0;
            for (int i = 0; i < n; i++) {
                double angle = 2 * Math.PI * mains * time[i];
                c += (rest[i] - mean) * Math.cos(angle) * 2 / n;
                s += (rest[i] - mean) * Math.sin(angle) * 2 / n;
                all += (rest[i] - mean) * (rest[i] - mean);
            }
            double amplitude = Math.hypot(c, s);
            double left = Math.sqrt(Math.max(1e-300, all / n - amplitude * amplitude / 2));
            // For noise alone the power of a line over its mean is exponential (Scargle 1982); this much comes once in
            // 10^10.
            if (amplitude * amplitude * n / (4 * left * left) > SURE && amplitude > left / 2) {
                return Optional.of(Rule.MAINS_HUM.of(
                        run,
                        channel,
                        time[0],
                        time[n - 1],
                        capital(channel) + " carries a hum of " + Notation.plain(mains, 3) + " Hz, "
                                + Notation.plain(amplitude, 2) + " " + unit.pretty() + " high."));
            }
        }
        return Optional.empty();
    }

    /** A knock or a step within a span that should be steady; to be asked for such spans only. */
    public Optional<Finding> contact(int run, Trace steady) {
        if (steady.size() < FEWEST) {
            return Optional.empty();
        }
        double scatter = Math.max(scatter(steady.value()), steady.step() / 3);
        double[] blocks = medians(steady.value());
        int worst = -1;
        for (int i = 1; i < blocks.length; i++) {
            double jump = Math.abs(blocks[i] - blocks[i - 1]);
            if (jump > KNOCK * scatter / Math.sqrt(steady.size() / (double) BLOCKS) + 3 * steady.step()
                    && stays(blocks, i)) {
                worst = i;
            }
        }
        if (worst < 0) {
            return Optional.empty();
        }
        double at = steady.time()[Math.min(steady.size() - 1, worst * steady.size() / BLOCKS)];
        return Optional.of(Rule.CONTACT.of(
                run, channel, at, at, capital(channel) + " jumps within a span that should be steady."));
    }

    /**
     * Channels outside the bands of their tags: two that show what is expected of each other are swapped, any other is
     * told alone.
     *
     * @param tagged the channels whose tags expect something
     */
    public static List<Finding> bands(int run, List<Tagged> tagged) {
        List<Tagged> outside = tagged.stream()
                .filter(t -> t.expected().outsideBand(t.typical()))
                .toList();
        List<Finding> found = new ArrayList<>();
        Set<String> paired = new HashSet<>();
        for (Tagged a : outside) {
            for (Tagged b : outside) {
                if (a.name().compareTo(b.name()) < 0
                        && b.expected().holdsBand(a.typical())
                        && a.expected().holdsBand(b.typical())) {
                    found.add(Rule.SWAPPED.ofRun(
                            run,
                            a.name() + "/" + b.name(),
                            capital(a.label()) + " and " + b.label() + " show what is expected of each other."));
                    paired.addAll(List.of(a.name(), b.name()));
                }
            }
        }
        // What should hold and lies beside its band has moved; what lies far from it is something else.
        outside.stream()
                .filter(t -> !paired.contains(t.name()))
                .forEach(t ->
                        found.add((t.expected().isReference() && t.expected().isBesideBand(t.typical())
                                        ? Rule.REFERENCE_LOST
                                        : Rule.OUTSIDE_ITS_BAND)
                                .ofRun(
                                        run,
                                        t.name(),
                                        capital(t.label()) + " shows " + Notation.plain(t.typical(), 3)
                                                + ", outside what its tag expects ("
                                                + Notation.plain(t.expected().low(), 3) + " to "
                                                + Notation.plain(t.expected().high(), 3) + ").")));
        return found;
    }

    /** A channel whose tag expects something, with a typical value of it. */
    public record Tagged(String name, String label, Expectation expected, double typical) {}

    /** Medians of equal blocks in order of time. */
    /**
     * True where the blocks from one on stand apart from those before by far more than either scatter: a knock or a
     * slip stays, what ripples comes back.
     */
    private static boolean stays(double[] blocks, int from) {
        double before = Arrays.stream(blocks, 0, from).average().orElse(0);
        double after = Arrays.stream(blocks, from, blocks.length).average().orElse(0);
        double squares = 0;
        for (int i = 0; i < blocks.length; i++) {
            squares += Math.pow(blocks[i] - (i < from ? before : after), 2);
        }
        return Math.abs(after - before) > STAYS * Math.sqrt(squares / (blocks.length - 2));
    }

    private static double median(double[] v) {
        return Ranks.select(v.clone(), 0, v.length, v.length / 2);
    }

    private static double[] medians(double[] v) {
        double[] out = new double[BLOCKS];
        for (int b = 0; b < BLOCKS; b++) {
            out[b] = median(Arrays.copyOfRange(v, b * v.length / BLOCKS, (b + 1) * v.length / BLOCKS));
        }
        return out;
    }

    /** Scatter of one sample, from the differences of neighbours, so that a trend does not count. */
    private static double scatter(double[] v) {
        double[] d = new double[v.length - 1];
        for (int i = 0; i < d.length; i++) {
            d[i] = Math.abs(v[i + 1] - v[i]);
        }
        double mean = Arrays.stream(d).average().orElse(0);
        double median = Ranks.select(d, 0, d.length, d.length / 2);
        return Math.max(1.4826 * median, 1.2533 * mean) / Math.sqrt(2);
    }

    private static String capital(String s) {
        return Character.toUpperCase(s.charAt(0)) + s.substring(1);
    }
}
