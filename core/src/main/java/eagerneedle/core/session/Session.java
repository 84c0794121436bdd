package eagerneedle.core.session;

import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.judge.School;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.stockroom.Instrument;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.UnaryOperator;

/**
 * Everything a session says, apart from raw samples. A value: commands make new ones.
 *
 * @param sheetText    the method sheet, whole, so that the bench file can be mailed
 * @param title        what a person calls the session
 * @param created      when
 * @param planned      planned readings that replace the sheet's, by input name
 * @param measured     readings as measured, by input name
 * @param calibrations in order of time
 * @param runs         in order of capture, discarded ones included
 * @param signOffs     when each step was signed off, by step id
 * @param notes        free notes, in order of time
 * @param school       the school of uncertainty that speaks; null for the sheet's choice
 * @param tied         the instrument an input is read with, by input name, specification and history included
 * @param setups       how channels are set up, by channel, where that differs from the sheet
 * @param repeats      runs at each level, by capture, where that differs from the sheet
 * @param timers       when the timer of a step was started, by step id
 * @param explained    what a person said to a watch, by the key of its finding
 */
@JsonIgnoreProperties(ignoreUnknown = true)
public record Session(String sheetText, String title, Instant created, Map<String, String> planned, Map<String, String> measured,
                      List<Calibration> calibrations, List<Run> runs, Map<String, Instant> signOffs, List<Note> notes, School school, Map<String, Instrument> tied,
                      Map<String, Setup> setups, Map<String, Integer> repeats, Map<String, Instant> timers, Map<String, String> explained) {
    /** A free note. */
    public record Note(Instant at, String text) {
    }

    public Session {
        planned = frozen(planned);
        measured = frozen(measured);
        calibrations = List.copyOf(calibrations);
        runs = List.copyOf(runs);
        signOffs = frozen(signOffs);
        notes = List.copyOf(notes);
        tied = tied == null ? Map.of() : frozen(tied);
        setups = setups == null ? Map.of() : frozen(setups);
        repeats = repeats == null ? Map.of() : frozen(repeats);
        timers = timers == null ? Map.of() : frozen(timers);
        explained = explained == null ? Map.of() : frozen(explained);
    }

    public static Session start(String sheetText, String title, Instant now) {
        return new Session(sheetText, title, now, Map.of(), Map.of(), List.of(), List.of(), Map.of(), List.of(), null, Map.of(), Map.of(), Map.of(), Map.of(), Map.of());
    }

    public Optional<Run> run(int id) {
        return runs.stream().filter(r -> r.id() == id).findFirst();
    }

    /** The runs that are not discarded. */
    public List<Run> keptRuns() {
        return runs.stream().filter(r -> r.discard() == null).toList();
    }

    public int nextRunId() {
        return runs.stream().mapToInt(Run::id).max().orElse(0) + 1;
    }

    /** The calibration in force for a channel: the latest. */
    public Optional<Calibration> calibrationOf(String channel) {
        return calibrations.stream().filter(c -> c.channel().equals(channel)).reduce((a, b) -> b);
    }

    /** How a channel is set up; as the sheet says unless something was changed. */
    public Setup setup(String channel) {
        return setups.getOrDefault(channel, Setup.AS_SHEET);
    }

    /** A channel of the sheet as it is set up here. */
    public Sheet.Channel channel(Sheet sheet, String name) {
        return setup(name).of(sheet.channels().get(name));
    }

    /** Runs to take at each level of a capture. */
    public int repeats(Sheet sheet, String capture) {
        return repeats.getOrDefault(capture, sheet.captures().get(capture).repeats());
    }

    /** The same session with its sheet's text replaced; a bench file keeps the sheet apart from the acts. */
    public Session withSheetText(String text) {
        return new Session(text, title, created, planned, measured, calibrations, runs, signOffs, notes, school, tied, setups, repeats, timers, explained);
    }

    Session withPlanned(String input, String reading) {
        return new Session(sheetText, title, created, put(planned, input, reading), measured, calibrations, runs, signOffs, notes, school, tied, setups, repeats, timers, explained);
    }

    Session withMeasured(String input, String reading) {
        return new Session(sheetText, title, created, planned, put(measured, input, reading), calibrations, runs, signOffs, notes, school, tied, setups, repeats, timers, explained);
    }

    Session withCalibration(Calibration c) {
        return withCalibrations(plus(calibrations, c));
    }

    Session withCalibrations(List<Calibration> list) {
        return new Session(sheetText, title, created, planned, measured, list, runs, signOffs, notes, school, tied, setups, repeats, timers, explained);
    }

    Session withRun(Run r) {
        return withRuns(plus(runs, r));
    }

    Session changingRun(int id, UnaryOperator<Run> change) {
        return withRuns(runs.stream().map(r -> r.id() == id ? change.apply(r) : r).toList());
    }

    private Session withRuns(List<Run> list) {
        return new Session(sheetText, title, created, planned, measured, calibrations, list, signOffs, notes, school, tied, setups, repeats, timers, explained);
    }

    Session withSignOff(String step, Instant at) {
        return new Session(sheetText, title, created, planned, measured, calibrations, runs, put(signOffs, step, at), notes, school, tied, setups, repeats, timers, explained);
    }

    Session withNote(Note n) {
        return new Session(sheetText, title, created, planned, measured, calibrations, runs, signOffs, plus(notes, n), school, tied, setups, repeats, timers, explained);
    }

    Session withSchool(School s) {
        return new Session(sheetText, title, created, planned, measured, calibrations, runs, signOffs, notes, s, tied, setups, repeats, timers, explained);
    }

    Session withTied(String input, Instrument instrument) {
        return new Session(sheetText, title, created, planned, measured, calibrations, runs, signOffs, notes, school, put(tied, input, instrument), setups, repeats, timers, explained);
    }

    Session withSetup(String channel, Setup setup) {
        return new Session(sheetText, title, created, planned, measured, calibrations, runs, signOffs, notes, school, tied, put(setups, channel, setup), repeats, timers, explained);
    }

    Session withRepeats(String capture, Integer n) {
        return new Session(sheetText, title, created, planned, measured, calibrations, runs, signOffs, notes, school, tied, setups, put(repeats, capture, n), timers, explained);
    }

    Session withTimer(String step, Instant at) {
        return new Session(sheetText, title, created, planned, measured, calibrations, runs, signOffs, notes, school, tied, setups, repeats, put(timers, step, at), explained);
    }

    Session withExplained(String key, String text) {
        return new Session(sheetText, title, created, planned, measured, calibrations, runs, signOffs, notes, school, tied, setups, repeats, timers, put(explained, key, text));
    }

    private static <T> Map<String, T> put(Map<String, T> map, String key, T value) {
        Map<String, T> copy = new LinkedHashMap<>(map);
        if (value == null) {
            copy.remove(key);
        } else {
            copy.put(key, value);
        }
        return copy;
    }

    private static <T> List<T> plus(List<T> list, T item) {
        List<T> copy = new ArrayList<>(list);
        copy.add(item);
        return copy;
    }

    private static <T> Map<String, T> frozen(Map<String, T> map) {
        return Collections.unmodifiableMap(new LinkedHashMap<>(map));
    }
}
