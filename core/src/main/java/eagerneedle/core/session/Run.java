package eagerneedle.core.session;

import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.trace.DeviceClock;
import eagerneedle.core.trace.Window;
import java.time.Instant;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * One capture. Its raw samples lie in the bench file under its id and are never altered; this is what is said about
 * them.
 *
 * @param id 1, 2, 3, ... within the session
 * @param name what a person calls it
 * @param capture which capture of the sheet
 * @param level which level of that capture
 * @param started when
 * @param source the instrument, or the file it was imported from
 * @param rawUnit "counts", or the unit the samples were imported in
 * @param discard why it was voided; null while it is kept
 * @param leftOut why it is left out of the results though kept; null while it takes part
 * @param windows windows set by hand, by name; others are proposed
 * @param setups how the channels were set up when it was captured, where that differed from the sheet
 * @param rawUnits what the samples of a channel are in, by channel, where that is not {@code rawUnit}
 * @param entries what was entered with it: prompted readings, readings by eye, pictures
 * @param clocks how the clocks of instruments stood to that of the run, by device; empty where one instrument recorded
 *     alone, whose clock is that of the run
 */
@JsonIgnoreProperties(ignoreUnknown = true)
public record Run(
        int id,
        String name,
        String capture,
        String level,
        Instant started,
        String source,
        String rawUnit,
        @Nullable String discard,
        @Nullable String leftOut,
        Map<String, Window> windows,
        Map<String, Setup> setups,
        Map<String, String> rawUnits,
        Entries entries,
        Map<String, DeviceClock> clocks) {
    public static final String COUNTS = "counts";

    public Run {
        windows = Collections.unmodifiableMap(new LinkedHashMap<>(windows));
        setups = setups == null ? Map.of() : Collections.unmodifiableMap(new LinkedHashMap<>(setups));
        rawUnits = rawUnits == null ? Map.of() : Map.copyOf(rawUnits);
        entries = entries == null ? Entries.NONE : entries;
        clocks = clocks == null ? Map.of() : Map.copyOf(clocks);
    }

    public static Run captured(int id, String capture, String level, Instant started, String source, String rawUnit) {
        return new Run(
                id,
                "Run " + id,
                capture,
                level,
                started,
                source,
                rawUnit,
                null,
                null,
                Map.of(),
                Map.of(),
                Map.of(),
                Entries.NONE,
                Map.of());
    }

    /** True when it is neither voided nor left out. */
    public boolean takesPart() {
        return discard == null && leftOut == null;
    }

    public Run named(String newName) {
        return new Run(
                id, newName, capture, level, started, source, rawUnit, discard, leftOut, windows, setups, rawUnits,
                entries, clocks);
    }

    /** At another level of its capture. */
    public Run at(String newLevel) {
        return new Run(
                id, name, capture, newLevel, started, source, rawUnit, discard, leftOut, windows, setups, rawUnits,
                entries, clocks);
    }

    public Run discarded(@Nullable String reason) {
        return new Run(
                id, name, capture, level, started, source, rawUnit, reason, leftOut, windows, setups, rawUnits, entries,
                clocks);
    }

    public Run leftOut(@Nullable String reason) {
        return new Run(
                id, name, capture, level, started, source, rawUnit, discard, reason, windows, setups, rawUnits, entries,
                clocks);
    }

    /** Captured with channels set up in this way. */
    public Run setUp(Map<String, Setup> how) {
        return new Run(
                id, name, capture, level, started, source, rawUnit, discard, leftOut, windows, how, rawUnits, entries,
                clocks);
    }

    /** With samples in these units, by channel. */
    public Run measuredIn(Map<String, String> units) {
        return new Run(
                id, name, capture, level, started, source, rawUnit, discard, leftOut, windows, setups, units, entries,
                clocks);
    }

    /** With other entries. */
    public Run entered(Entries what) {
        return new Run(
                id, name, capture, level, started, source, rawUnit, discard, leftOut, windows, setups, rawUnits, what,
                clocks);
    }

    /** With the clocks of several instruments that recorded it together. */
    public Run clockedBy(Map<String, DeviceClock> how) {
        return new Run(
                id, name, capture, level, started, source, rawUnit, discard, leftOut, windows, setups, rawUnits,
                entries, how);
    }

    /** The clock of the instrument that a channel is read with; empty where that is the run's own. */
    public Optional<DeviceClock> clock(Sheet sheet, String channel) {
        String device = sheet.channel(channel).device();
        return Optional.ofNullable(device == null ? null : clocks.get(device));
    }

    /** What the samples of a channel are in. */
    public String rawUnit(String channel) {
        return rawUnits.getOrDefault(channel, rawUnit);
    }

    /** A channel of the sheet as it was set up for this run. */
    public Channel channel(Sheet sheet, String channel) {
        return setups.getOrDefault(channel, Setup.AS_SHEET).of(sheet.channel(channel));
    }

    /** With a window set by hand, or with the proposal again when {@code window} is null. */
    public Run windowed(String windowName, @Nullable Window window) {
        Map<String, Window> w = new LinkedHashMap<>(windows);
        if (window == null) {
            w.remove(windowName);
        } else {
            w.put(windowName, window);
        }
        return new Run(
                id, name, capture, level, started, source, rawUnit, discard, leftOut, w, setups, rawUnits, entries,
                clocks);
    }
}
