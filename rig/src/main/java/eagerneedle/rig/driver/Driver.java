package eagerneedle.rig.driver;

import java.io.IOException;
import java.util.Collections;
import java.util.List;
import java.util.Map;

/**
 * An instrument. Samples come on the driver's own thread; everything else may be called from any thread and does not
 * wait for the instrument longer than two seconds.
 */
public interface Driver extends AutoCloseable {
    /**
     * What the instrument says of itself.
     *
     * @param id its serial
     * @param label what it is
     * @param channels names of its channels, in the order of its samples
     * @param units unit of each channel's samples, "counts" for a converter's own
     * @param simulated true for a rig of ours, which can be arranged
     */
    record Description(String id, String label, List<String> channels, List<String> units, boolean simulated) {
        public static final String COUNTS = "counts";

        public Description(String id, String label, List<String> channels, boolean simulated) {
            this(id, label, channels, Collections.nCopies(channels.size(), COUNTS), simulated);
        }
    }

    /** How it stands with the instrument; refused means that it answers, but what it sends cannot be used. */
    enum State {
        CLOSED,
        READY,
        RUNNING,
        SILENT,
        LOST,
        REFUSED
    }

    /**
     * Samples of all channels, as they came.
     *
     * @param time n moments in seconds since start, by the instrument's clock
     * @param counts one array of n raw values for each channel, in the units of the description
     */
    record Block(double[] time, double[][] counts) {
        public int size() {
            return time.length;
        }
    }

    /** Where samples and news go. Called on the driver's thread; must not block. */
    interface Sink {
        void block(Block block);

        /** The state changed; {@code sentence} says what happened and what to do. */
        void state(State state, String sentence);

        /** From this moment of the samples on, s, the instrument's clock is another: it was restarted or it jumped. */
        default void clockSet(double from) {}
    }

    /**
     * Opens the connection and asks who is there.
     *
     * @throws IOException with one sentence when nobody answers or the answer makes no sense
     */
    Description open() throws IOException;

    /** Sets the sampling rate, in samples a second. */
    void configure(double rate) throws IOException;

    /** Starts sampling; time starts at 0. */
    void start(Sink sink) throws IOException;

    /** Stops sampling; does nothing if it does not run. */
    void stop();

    State state();

    /** Lines or samples that arrived but could not be understood since the start. */
    long unreadable();

    /** The longest that the quickest sample may be on its way from the instrument to here, s. */
    default double longestWay() {
        return 0.002;
    }

    /** Lets the instrument show which one it is, where it can: a lamp, a beep. */
    default void identify() throws IOException {
        throw new IOException("This instrument cannot show itself.");
    }

    /** Asks the instrument to test itself; what it says, empty when all is well. */
    default String selfTest() throws IOException {
        return "";
    }

    /**
     * Sets an output, at once. What is set goes through an {@link OutputGuard}, which knows limits, ramp and dwell.
     *
     * @throws IOException with one sentence when the instrument has no such output, refuses the value or does not
     *     confirm it
     */
    default void setOutput(String output, double value) throws IOException {
        throw new IOException("This instrument has no output called " + output + ".");
    }

    /**
     * Tells a simulated rig what the hands at the bench do: where things stand, which level is set. Ignored by real
     * ones.
     */
    default void arrange(Map<String, String> bench) throws IOException {}

    /** Stops and closes, outputs made safe first; safe to call twice. */
    @Override
    void close();
}
