package eagerneedle.core.session;

import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.chain.Link;
import eagerneedle.core.judge.School;
import eagerneedle.core.quantity.Coverage;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.sheet.Derived;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.stockroom.Correction;
import eagerneedle.core.stockroom.Instrument;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;

/**
 * Everything a session says, apart from raw samples. A value: commands make new ones.
 *
 * @param sheetText the method sheet, whole, so that the bench file can be mailed
 * @param title what a person calls the session
 * @param created when
 * @param planned planned readings that replace the sheet's, by input name
 * @param measured readings as measured, by input name
 * @param calibrations in order of time
 * @param runs in order of capture, discarded ones included
 * @param signOffs when each step was signed off, by step id
 * @param notes free notes, in order of time
 * @param school the school of uncertainty that speaks; null for the sheet's choice
 * @param tied the instrument an input is read with, by input name, specification and history included
 * @param setups how channels are set up, by channel, where that differs from the sheet
 * @param repeats runs at each level, by capture, where that differs from the sheet
 * @param timers when the timer of a step was started, by step id
 * @param explained what a person said to a watch, by the key of its finding
 * @param blind whether references are hidden until the result is locked; null when they never were
 * @param own quantities that were added to the sheet, by capture (results of the session under {@link #RESULTS}) and
 *     name
 * @param picked the ways that were chosen, by the key of the choice
 * @param sources what a pool took from other sessions, in the order in which they were taken first
 * @param bench who works where
 * @param coverageChosen the coverage probability that was chosen for this session; null for the usual 95 %
 * @param corrections what standards and instruments turned out to be wrong by, in the order in which that was found
 */
@JsonIgnoreProperties(ignoreUnknown = true)
public record Session(
        String sheetText,
        String title,
        Instant created,
        Map<String, String> planned,
        Map<String, String> measured,
        List<Calibration> calibrations,
        List<Run> runs,
        Map<String, Instant> signOffs,
        List<Note> notes,
        @Nullable School school,
        Map<String, Instrument> tied,
        Map<String, Setup> setups,
        Map<String, Integer> repeats,
        Map<String, Instant> timers,
        Map<String, String> explained,
        @Nullable Blind blind,
        Map<String, Map<String, Derived>> own,
        Map<String, String> picked,
        List<PoolSource> sources,
        AtBench bench,
        List<Correction> corrections,
        @Nullable Double coverageChosen) {
    /** Where {@link #own} keeps what belongs to no capture. */
    public static final String RESULTS = "";

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
        own = own == null ? Map.of() : frozen(own);
        picked = picked == null ? Map.of() : frozen(picked);
        sources = sources == null ? List.of() : List.copyOf(sources);
        bench = bench == null ? AtBench.NOBODY : bench;
        corrections = corrections == null ? List.of() : List.copyOf(corrections);
    }

    public static Session start(String sheetText, String title, Instant now) {
        return new Session(
                sheetText,
                title,
                now,
                Map.of(),
                Map.of(),
                List.of(),
                List.of(),
                Map.of(),
                List.of(),
                null,
                Map.of(),
                Map.of(),
                Map.of(),
                Map.of(),
                Map.of(),
                null,
                Map.of(),
                Map.of(),
                List.of(),
                AtBench.NOBODY,
                List.of(),
                null);
    }

    /** The coverage of stated intervals and of verdicts. */
    public Coverage coverage() {
        return coverageChosen == null ? Coverage.DEFAULT : new Coverage(coverageChosen);
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

    /**
     * The calibration in force for a channel: the latest of those that were taken of the instruments in its chain.
     *
     * @param as the channel as it is set up now, or as it was when a run was captured
     */
    public Optional<Calibration> calibrationOf(String channel, Channel as) {
        List<String> serials = Link.serials(as.chain());
        return calibrations.stream()
                .filter(c -> c.channel().equals(channel) && c.speaksOf(serials))
                .reduce((a, b) -> b);
    }

    /** The same for a channel as it is set up now; empty for one that the sheet does not have. */
    public Optional<Calibration> calibrationOf(String channel, Sheet sheet) {
        return sheet.channels().containsKey(channel)
                ? calibrationOf(channel, channel(sheet, channel))
                : Optional.empty();
    }

    /** The latest calibration of a channel, whatever was in its chain then. */
    public Optional<Calibration> latestCalibrationOf(String channel) {
        return calibrations.stream().filter(c -> c.channel().equals(channel)).reduce((a, b) -> b);
    }

    /** True for a calibration that no later one of the same channel and the same instruments has replaced. */
    public boolean isInForce(Calibration c) {
        return calibrations.stream()
                .skip(calibrations.indexOf(c) + 1L)
                .noneMatch(o -> o.channel().equals(c.channel())
                        && (o.chain() == null || c.chain() == null || o.chain().equals(c.chain())));
    }

    /** How a channel is set up; as the sheet says unless something was changed. */
    public Setup setup(String channel) {
        return setups.getOrDefault(channel, Setup.AS_SHEET);
    }

    /** A channel of the sheet as it is set up here. */
    public Channel channel(Sheet sheet, String name) {
        return setup(name).of(sheet.channel(name));
    }

    /** Runs to take at each level of a capture. */
    public int repeats(Sheet sheet, String capture) {
        return repeats.getOrDefault(capture, sheet.capture(capture).repeats());
    }

    /** True while references are hidden: blind, and the result not locked yet. */
    public boolean hidesReferences() {
        return blind != null && blind.lockedAt() == null;
    }

    /** The same session with its sheet's text replaced; a bench file keeps the sheet apart from the acts. */
    public Session withSheetText(String text) {
        return with(d -> d.sheetText = text);
    }

    Session withPlanned(String input, @Nullable String reading) {
        return with(d -> d.planned = put(planned, input, reading));
    }

    Session withMeasured(String input, @Nullable String reading) {
        return with(d -> d.measured = put(measured, input, reading));
    }

    Session withCalibration(Calibration c) {
        return withCalibrations(plus(calibrations, c));
    }

    Session withCalibrations(List<Calibration> list) {
        return with(d -> d.calibrations = list);
    }

    Session withRun(Run r) {
        return with(d -> d.runs = plus(runs, r));
    }

    Session changingRun(int id, UnaryOperator<Run> change) {
        return with(d -> d.runs =
                runs.stream().map(r -> r.id() == id ? change.apply(r) : r).toList());
    }

    Session withSignOff(String step, @Nullable Instant at) {
        return with(d -> d.signOffs = put(signOffs, step, at));
    }

    Session withNote(Note n) {
        return with(d -> d.notes = plus(notes, n));
    }

    Session withSchool(@Nullable School s) {
        return with(d -> d.school = s);
    }

    Session withCoverage(double probability) {
        return with(d -> d.coverageChosen = probability == Coverage.DEFAULT.probability() ? null : probability);
    }

    Session withTied(String input, @Nullable Instrument instrument) {
        return with(d -> d.tied = put(tied, input, instrument));
    }

    Session withSetup(String channel, @Nullable Setup setup) {
        return with(d -> d.setups = put(setups, channel, setup));
    }

    Session withRepeats(String capture, @Nullable Integer n) {
        return with(d -> d.repeats = put(repeats, capture, n));
    }

    Session withTimer(String step, @Nullable Instant at) {
        return with(d -> d.timers = put(timers, step, at));
    }

    Session withExplained(String key, @Nullable String text) {
        return with(d -> d.explained = put(explained, key, text));
    }

    Session withBlind(@Nullable Blind b) {
        return with(d -> d.blind = b);
    }

    Session withPicked(String choice, @Nullable String way) {
        return with(d -> d.picked = put(picked, choice, way));
    }

    /** With a source of the pool, in the place of the one of its name. */
    Session withSource(PoolSource source) {
        boolean known = sources.stream().anyMatch(o -> o.name().equals(source.name()));
        return with(d -> d.sources = known
                ? sources.stream()
                        .map(o -> o.name().equals(source.name()) ? source : o)
                        .toList()
                : plus(sources, source));
    }

    /** With a quantity added to a capture or to the results, or without it when {@code quantity} is null. */
    Session withOwn(String capture, String name, @Nullable Derived quantity) {
        Map<String, Derived> there = put(own.getOrDefault(capture, Map.of()), name, quantity);
        return with(d -> d.own = put(own, capture, there.isEmpty() ? null : there));
    }

    Session withBench(AtBench where) {
        return with(d -> d.bench = where);
    }

    /** With a standard put right: its correction reaches readings; calibrations are replaced by what they are now. */
    public Session withCorrection(Correction c) {
        return with(d -> d.corrections = plus(corrections, c));
    }

    private Session with(Consumer<Draft> change) {
        Draft d = new Draft(this);
        change.accept(d);
        return d.done();
    }

    /** The fields of a session while one of them is exchanged. */
    private static final class Draft {
        private String sheetText;
        private final String title;
        private final Instant created;
        private Map<String, String> planned;
        private Map<String, String> measured;
        private List<Calibration> calibrations;
        private List<Run> runs;
        private Map<String, Instant> signOffs;
        private List<Note> notes;
        private @Nullable School school;
        private Map<String, Instrument> tied;
        private Map<String, Setup> setups;
        private Map<String, Integer> repeats;
        private Map<String, Instant> timers;
        private Map<String, String> explained;
        private @Nullable Blind blind;
        private Map<String, Map<String, Derived>> own;
        private Map<String, String> picked;
        private List<PoolSource> sources;
        private AtBench bench;
        private List<Correction> corrections;
        private @Nullable Double coverageChosen;

        Draft(Session s) {
            sheetText = s.sheetText;
            title = s.title;
            created = s.created;
            planned = s.planned;
            measured = s.measured;
            calibrations = s.calibrations;
            runs = s.runs;
            signOffs = s.signOffs;
            notes = s.notes;
            school = s.school;
            tied = s.tied;
            setups = s.setups;
            repeats = s.repeats;
            timers = s.timers;
            explained = s.explained;
            blind = s.blind;
            own = s.own;
            picked = s.picked;
            sources = s.sources;
            bench = s.bench;
            corrections = s.corrections;
            coverageChosen = s.coverageChosen;
        }

        Session done() {
            return new Session(
                    sheetText,
                    title,
                    created,
                    planned,
                    measured,
                    calibrations,
                    runs,
                    signOffs,
                    notes,
                    school,
                    tied,
                    setups,
                    repeats,
                    timers,
                    explained,
                    blind,
                    own,
                    picked,
                    sources,
                    bench,
                    corrections,
                    coverageChosen);
        }
    }

    private static <T> Map<String, T> put(Map<String, T> map, String key, @Nullable T value) {
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
