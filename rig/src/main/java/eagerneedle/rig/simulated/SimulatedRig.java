package eagerneedle.rig.simulated;

import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.session.PoolSource;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** The physics of one rig. Time advances only when told to. Not thread-safe. */
public interface SimulatedRig {
    /** Names of the channels it reads, in order. */
    List<String> channels();

    /**
     * Hands at the bench: {@code reference} with a quantity puts the target at a reference value; {@code capture} and
     * {@code level} set the rig up for a run of that kind, which begins to move by itself soon after {@link #begin()}.
     */
    void arrange(Map<String, String> bench);

    /** Sampling starts: the clock of the run is at 0. */
    void begin();

    /** Lets time pass, in seconds. */
    void advance(double seconds);

    /** Raw counts of all channels now. */
    double[] read();

    /** True for a rig that is read by a gate timer: it tells {@link #edges()} and is not sampled. */
    default boolean isGate() {
        return false;
    }

    /**
     * What its gates did since the last call: moments in s since {@link #begin()}, each followed by the state of every
     * gate after it, 1 for blocked.
     */
    default List<double[]> edges() {
        return List.of();
    }

    /**
     * What a person reads by eye during the arranged run, by the sheet's names, as written; what is not named is read
     * as the sheet expects it.
     */
    default Map<String, String> byEye() {
        return Map.of();
    }

    /** False for a channel whose calibration is left out, by a mistake that is rehearsed. */
    default boolean calibrates(String channel) {
        return true;
    }

    /** The clocks of several instruments; none where there is one, or none is wrong. */
    default Optional<Clocks> clocks() {
        return Optional.empty();
    }

    /** How long a run of the arranged kind is worth recording, in seconds. */
    double duration();

    /** The sessions that a pool takes, carried out from a moment on; none for a bench. */
    default List<PoolSource> sources(Instant start) {
        return List.of();
    }

    /** What is hidden: values by the names of the ledger. */
    Map<String, Quantity> truth();

    /** What a careful person would read of the inputs, by input name: the truth with a reading error, as written. */
    Map<String, String> readings();
}
