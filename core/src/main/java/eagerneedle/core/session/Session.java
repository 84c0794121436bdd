package eagerneedle.core.session;

import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.judge.School;
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
 */
public record Session(String sheetText, String title, Instant created, Map<String, String> planned, Map<String, String> measured,
                      List<Calibration> calibrations, List<Run> runs, Map<String, Instant> signOffs, List<Note> notes, School school) {
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
    }

    public static Session start(String sheetText, String title, Instant now) {
        return new Session(sheetText, title, now, Map.of(), Map.of(), List.of(), List.of(), Map.of(), List.of(), null);
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

    /** The same session with its sheet's text replaced; a bench file keeps the sheet apart from the acts. */
    public Session withSheetText(String text) {
        return new Session(text, title, created, planned, measured, calibrations, runs, signOffs, notes, school);
    }

    Session withPlanned(String input, String reading) {
        return new Session(sheetText, title, created, put(planned, input, reading), measured, calibrations, runs, signOffs, notes, school);
    }

    Session withMeasured(String input, String reading) {
        return new Session(sheetText, title, created, planned, put(measured, input, reading), calibrations, runs, signOffs, notes, school);
    }

    Session withCalibration(Calibration c) {
        return new Session(sheetText, title, created, planned, measured, plus(calibrations, c), runs, signOffs, notes, school);
    }

    Session withRun(Run r) {
        return new Session(sheetText, title, created, planned, measured, calibrations, plus(runs, r), signOffs, notes, school);
    }

    Session changingRun(int id, UnaryOperator<Run> change) {
        List<Run> changed = runs.stream().map(r -> r.id() == id ? change.apply(r) : r).toList();
        return new Session(sheetText, title, created, planned, measured, calibrations, changed, signOffs, notes, school);
    }

    Session withSignOff(String step, Instant at) {
        return new Session(sheetText, title, created, planned, measured, calibrations, runs, put(signOffs, step, at), notes, school);
    }

    Session withNote(Note n) {
        return new Session(sheetText, title, created, planned, measured, calibrations, runs, signOffs, plus(notes, n), school);
    }

    Session withSchool(School s) {
        return new Session(sheetText, title, created, planned, measured, calibrations, runs, signOffs, notes, s);
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
