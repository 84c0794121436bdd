package eagerneedle.app.calibrate;

import eagerneedle.app.station.Desk;
import eagerneedle.app.workbench.LiveReadings;
import eagerneedle.core.formula.Written;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.core.trace.Trace;
import eagerneedle.core.trace.WindowStatistics;
import java.io.IOException;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * A live reading that says whether it is steady, judged from its samples. What was steady a moment ago is what a person
 * who presses the key now means. Time comes in as an argument.
 */
final class SteadyModel {
    private static final long STILL_MEANT = 1_500_000_000L;
    private static final long EVERY = 100_000_000L;
    private static final int FEWEST = 4;

    private final Desk desk;
    private final String name;
    private final double seconds;
    private final boolean typed;
    private @Nullable WindowStatistics now;
    private @Nullable WindowStatistics settled;
    private long settledAt;
    private double since;
    private boolean disturbed;
    private boolean collecting;
    private long lastLook;

    SteadyModel(Desk desk, String name, double seconds, boolean typed) {
        this.desk = desk;
        this.name = name;
        this.seconds = seconds;
        this.typed = typed;
    }

    /** A reading taken: its mean, standard uncertainty and how many samples it rests on (0 for a typed one). */
    record Taken(double mean, double u, int n) {}

    boolean isTyped() {
        return typed;
    }

    Channel channel() {
        return desk.bench().session().channel(desk.bench().sheet(), name);
    }

    private double newest() {
        RawSamples last = desk.rig().map(r -> r.last(name, 0.01)).orElse(RawSamples.NONE);
        return last.size() == 0 ? Double.NaN : last.time()[last.size() - 1];
    }

    /** Tells the bench what the hands do and starts the reading anew. */
    void arrange(Map<String, String> bench) {
        settled = null;
        now = null;
        if (desk.rig().isEmpty()) {
            return;
        }
        try {
            desk.rig().get().arrange(bench);
        } catch (IOException e) {
            throw new IllegalArgumentException(e.getMessage(), e);
        }
        since = Double.isNaN(newest()) ? 0 : newest() + 0.3;
        collecting = true;
    }

    /** Starts the reading anew, as after a trim was turned. */
    void again() {
        since = Double.isNaN(newest()) ? since : newest() + 0.05;
        settled = null;
        now = null;
    }

    private int wanted() {
        return (int) (0.8 * seconds * channel().rate());
    }

    /** The newest mean, steady or not; NaN without one. */
    double value() {
        return now == null ? Double.NaN : now.mean();
    }

    boolean isSteady() {
        return now != null && now.n() >= wanted() && !disturbed && now.steady(3);
    }

    Optional<WindowStatistics> statistics() {
        return Optional.ofNullable(now);
    }

    /**
     * Takes the newest samples in.
     *
     * @param nanos the time now
     * @return true when something changed
     */
    boolean look(long nanos) {
        if (typed || nanos - lastLook < EVERY) {
            return false;
        }
        lastLook = nanos;
        if (desk.rig().isEmpty()) {
            now = null;
            return true;
        }
        Trace trace = LiveReadings.trace(
                channel(), LiveReadings.since(desk.rig().get().last(name, seconds), since));
        now = trace.size() < FEWEST ? null : WindowStatistics.of(trace);
        disturbed = now != null && LiveReadings.disturbed(trace);
        collecting = now == null && collecting;
        if (isSteady()) {
            settled = now;
            settledAt = nanos;
        }
        return true;
    }

    /** The reading with its uncertainty; a dash without one. */
    String live() {
        return now == null || desk.rig().isEmpty()
                ? "—"
                : Notation.bracketed(now.mean(), now.uMean()) + " "
                        + channel().labUnit().pretty();
    }

    /** How it stands, in a few words. */
    String state() {
        if (desk.rig().isEmpty()) {
            return "Connect the instrument at Rig (key 2) to take readings.";
        }
        if (now == null) {
            return collecting ? "collecting · it has just been set" : "No reading: too few samples within reach yet.";
        }
        String how =
                isSteady() ? "steady" : now.n() < wanted() ? "collecting" : disturbed ? "something moved" : "drifting";
        return how + " · " + now.n() + " samples, scatter " + Notation.plain(now.sd(), 2) + " "
                + channel().labUnit().pretty();
    }

    /**
     * Takes the reading.
     *
     * @param nanos the time now
     * @param text what was typed, for an instrument without an output
     * @throws IllegalArgumentException with one sentence when there is nothing steady to take
     */
    Taken take(long nanos, String text) {
        if (typed) {
            return ofText(text);
        }
        if (desk.rig().isEmpty()) {
            throw new IllegalArgumentException("No instrument is connected: connect it at Rig first.");
        }
        boolean justSettled = settled != null && nanos - settledAt < STILL_MEANT;
        if (!justSettled) {
            check();
        }
        WindowStatistics meant = Objects.requireNonNull(justSettled ? settled : now);
        return new Taken(meant.mean(), meant.uMean(), meant.n());
    }

    private Taken ofText(String text) {
        if (text.isBlank()) {
            throw new IllegalArgumentException("Type what the display reads first.");
        }
        Quantity q = Written.quantity(text, name + "/typed", channel().label(), "display");
        Quantity in = q.unit().symbol().isEmpty() ? q : q.to(channel().labUnit());
        double u = in.u() > 0 ? in.u() : channel().toChain().stepAt(in.value()) / Math.sqrt(12);
        return new Taken(in.value(), u, 0);
    }

    private void check() {
        String span = Notation.plain(seconds, 2) + " s";
        if (now == null || now.n() < wanted()) {
            throw new IllegalArgumentException(
                    "The reading is not long enough yet; wait until it is steady for " + span + ".");
        }
        if (disturbed) {
            throw new IllegalArgumentException(
                    "Something moved within the last " + span + "; wait until it is steady.");
        }
        if (!now.steady(3)) {
            throw new IllegalArgumentException("The reading still drifts by " + Notation.plain(now.slope(), 2) + " "
                    + channel().labUnit().pretty() + "/s; wait until it is steady.");
        }
    }
}
