package eagerneedle.app.capture;

import eagerneedle.app.eye.EyeReadings;
import eagerneedle.app.station.Cautions;
import eagerneedle.app.station.Desk;
import eagerneedle.app.workbench.LiveRig;
import eagerneedle.core.quantity.Digits;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.reduce.LevelOutputs;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.reduce.SessionWatch;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.RunCommand;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.core.watch.Finding;
import eagerneedle.core.watch.Rule;
import eagerneedle.core.watch.SampleWatch;
import java.io.IOException;
import java.time.Duration;
import java.util.Arrays;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * The run that is taken: which capture and level come next, the run that waits to be kept, the run that is shown, and
 * what may be done now.
 */
final class CaptureModel {
    /** How a recording ended. */
    enum End {
        /** A trigger was waited for that never came. */
        UNFIRED,
        /** The instrument sent nothing. */
        EMPTY,
        /** New samples are behind those of a run that exists. */
        CONTINUED,
        /** A run waits to be kept or voided. */
        PENDING
    }

    private static final int MOST_SAID = 3;
    private static final long AT_ONCE = 200_000;

    private final Desk desk;
    private String capture = "";
    private String level = "";
    private boolean byHand;
    private @Nullable Run pending;
    private @Nullable Run shown;
    private boolean continuing;
    private @Nullable OutputsFirst first;

    CaptureModel(Desk desk) {
        this.desk = desk;
        first(desk.bench().sheet());
    }

    private void first(Sheet sheet) {
        sheet.captures().entrySet().stream().findFirst().ifPresent(e -> {
            capture = e.getKey();
            level = e.getValue().levels().keySet().iterator().next();
        });
    }

    String capture() {
        return capture;
    }

    String level() {
        return level;
    }

    /** What is captured; absent when the sheet captures nothing. */
    Optional<Capture> plan() {
        return Optional.ofNullable(desk.bench().sheet().captures().get(capture));
    }

    /** The channel on top; empty where nothing is recorded. */
    String channel() {
        return plan().flatMap(Capture::top).orElse("");
    }

    /** True where nothing is recorded: a row is what somebody reads. */
    boolean isByEye() {
        return plan().filter(Capture::isByEye).isPresent();
    }

    /** The run that is read next, before anything is read. */
    Run blank() {
        return EyeReadings.blank(
                desk.bench(),
                capture,
                level,
                desk.bench().file().nextRunId(desk.bench().session()));
    }

    /**
     * Keeps rows that were pasted: below headings, or in the order of what is read at the levels that come next.
     *
     * @return what was done, in one sentence
     * @throws IllegalArgumentException with one sentence when they do not fit; then none is kept
     */
    String paste(String tabbed) {
        return EyeReadings.paste(desk.bench(), capture, tabbed);
    }

    /** The run that is being taken or waits to be kept. */
    Optional<Run> pending() {
        return Optional.ofNullable(pending);
    }

    /** The run that is shown and may be gone on with. */
    Optional<Run> shown() {
        return Optional.ofNullable(shown);
    }

    boolean isContinuing() {
        return continuing;
    }

    /** Takes a level by hand, until its run is kept. */
    void choose(String newCapture, String newLevel) {
        capture = newCapture;
        level = newLevel;
        byHand = true;
    }

    /** The session or the instrument is another: what comes next follows, and what is shown. */
    void follow() {
        Sheet sheet = desk.bench().sheet();
        if (!byHand && pending == null) {
            desk.bench()
                    .schedule()
                    .next()
                    .or(() -> desk.run()
                            .filter(r ->
                                    desk.rig().isEmpty() && sheet.captures().containsKey(r.capture()))
                            .map(r -> new String[] {r.capture(), r.level()}))
                    .ifPresent(next -> {
                        capture = next[0];
                        level = next[1];
                    });
        }
        if (shown == null && pending == null && desk.rig().isEmpty()) {
            shown = desk.run().orElse(null);
        }
    }

    /** What is to be done next, in words. */
    String hint() {
        return plan().map(plan -> {
                    String label =
                            Objects.requireNonNull(plan.levels().get(level)).label();
                    return (desk.bench().schedule().next().isPresent()
                                    ? "Next: "
                                    : "All runs are taken. Another one of: ")
                            + plan.label() + ", " + (label == null ? level : label) + ". " + plan.hint();
                })
                .orElse("This sheet captures nothing.");
    }

    /**
     * Sets the outputs of the level and begins a run, at once or when they are there.
     *
     * @throws IllegalArgumentException with one sentence when it cannot be begun
     */
    void begin(LiveRig rig, RunTaking mode) {
        new Cautions(desk.bench()).require();
        if (pending != null) {
            throw new IllegalArgumentException("Keep " + pending.name() + " or leave it out first.");
        }
        Map<String, Double> wanted = LevelOutputs.of(desk.bench().reduction(), capture, level);
        if (wanted.isEmpty()) {
            record(rig, mode);
            return;
        }
        Capture plan = plan().orElseThrow();
        double rest = plan.hold() == null ? 0 : plan.hold().rest();
        first = new OutputsFirst(rig.outputs(), wanted, rest, rig.label());
        goOnBeginning(rig, mode);
    }

    /** Steps of the preparation that nobody signed off before the first run; empty for none. */
    String stepsLeft() {
        return desk.bench().session().keptRuns().isEmpty() ? new Cautions(desk.bench()).stepsLeft() : "";
    }

    /** True while outputs are brought to where the level wants them. */
    boolean isBeginning() {
        return first != null;
    }

    /** What is waited for before the run begins; empty for nothing. */
    String waitsFor() {
        return first == null ? "" : first.says();
    }

    /** Looks whether the outputs are there; then the run begins. */
    void goOnBeginning(LiveRig rig, RunTaking mode) {
        try {
            if (first != null && first.isThere(System.nanoTime() / 1e9)) {
                first = null;
                record(rig, mode);
            }
        } catch (IllegalArgumentException off) {
            first = null;
            throw off;
        }
    }

    /** The run is not begun after all; outputs stay where they are. */
    void doNotBegin() {
        first = null;
    }

    private void record(LiveRig rig, RunTaking mode) {
        Run run = rig.run(
                desk.bench().file().nextRunId(desk.bench().session()),
                capture,
                level,
                desk.bench().clock().instant());
        try {
            rig.arrange(Map.of("capture", capture, "level", level));
            mode.begin(rig, run);
        } catch (IOException e) {
            throw new IllegalArgumentException(e.getMessage(), e);
        }
        pending = run;
        continuing = false;
        shown = null;
    }

    /** True when the run that is shown may be gone on with, as far as the session says. */
    boolean mayGoOn() {
        return pending == null
                && shown != null
                && desk.rig().filter(r -> r.devices().size() < 2).isPresent()
                && desk.bench().session().run(shown.id()).isPresent();
    }

    /**
     * Goes on with the run that is shown: the time that passed in between stays between its samples.
     *
     * @param channel whose last sample tells where the run ended
     * @throws IllegalArgumentException with one sentence when it cannot be gone on with
     */
    void goOn(LiveRig rig, String channel) {
        Run run = desk.bench().session().run(Objects.requireNonNull(shown).id()).orElseThrow();
        if (!run.setups().equals(desk.bench().session().setups())
                || !run.rawUnits()
                        .equals(rig.run(0, run.capture(), run.level(), run.started())
                                .rawUnits())) {
            throw new IllegalArgumentException(
                    run.name() + " was captured with another set-up or instrument; take a new run.");
        }
        double end = desk.bench().file().overview(run.id(), channel).end();
        double passed =
                Duration.between(run.started(), desk.bench().clock().instant()).toMillis() / 1e3;
        try {
            rig.arrange(Map.of("capture", run.capture(), "level", run.level()));
            rig.record(run, desk.bench().file(), Math.max(end + 1 / rig.rate(), passed));
        } catch (IOException e) {
            throw new IllegalArgumentException(e.getMessage(), e);
        }
        pending = run;
        continuing = true;
    }

    /** Nothing was taken after all. */
    void giveUp() {
        pending = null;
    }

    /** Ends the recording. */
    End finish(LiveRig rig, RunTaking mode) {
        boolean unfired = rig.isArmed();
        long n = rig.finish();
        if (unfired || n == 0 && mode.needsSamples()) {
            pending = null;
            return unfired ? End.UNFIRED : End.EMPTY;
        }
        if (!continuing) {
            Run ended = mode.ended(Objects.requireNonNull(pending)).clockedBy(rig.clocks());
            pending = ended.entered(ended.entries().with(stood(rig)));
            return End.PENDING;
        }
        return End.CONTINUED;
    }

    /** What the outputs that are on stand at. */
    private static Map<String, String> stood(LiveRig rig) {
        Map<String, String> out = new LinkedHashMap<>();
        rig.outputs().forEach((name, g) -> {
            if (g.isOn()) {
                String value = Digits.plain(g.value(), 6);
                out.put(name, (value + " " + LabUnit.parse(g.limits().unit()).symbol()).strip());
            }
        });
        return out;
    }

    /** A channel of the run that waits of which most samples are beyond its range; empty where none is. */
    Optional<String> saturated(LiveRig rig) {
        Sheet sheet = desk.bench().sheet();
        return plan().orElseThrow().channels().stream()
                .map(n -> new Object[] {desk.bench().session().channel(sheet, n), rig.all(n)})
                .filter(o -> isSaturated((Channel) o[0], (RawSamples) o[1]))
                .map(o -> ((Channel) o[0]).label())
                .findFirst();
    }

    private static boolean isSaturated(Channel channel, RawSamples raw) {
        SampleWatch watch = new SampleWatch(channel.label(), channel.toChain(), 0);
        return raw.size() > 0
                && 2 * Arrays.stream(raw.values()).filter(watch::beyondReach).count() > raw.size();
    }

    /** Why the sheet would not keep the run that waits; empty when it would. */
    String refusal() {
        return pending == null ? "" : refusal(pending);
    }

    /** Why the sheet would not keep a run; empty when it would. */
    String refusal(Run waiting) {
        if (plan().orElseThrow().rules().values().stream().noneMatch(r -> r.refuses() || r.leavesOut())) {
            return "";
        }
        return desk.bench().whatIf(new RunCommand.KeepRun(waiting)).broken(waiting).stream()
                .filter(r -> r.refuses() || r.leavesOut())
                .map(r -> (r.refuses() ? "Not to be kept: " : "Counts nowhere: ") + r.says())
                .reduce((a, b) -> a + " " + b)
                .orElse("");
    }

    /**
     * What the watches find in the run that waits: what can be put right by taking it again now, the worst first. A run
     * that is too long to be looked through while somebody waits is looked through once it is kept.
     */
    List<String> watched() {
        Run ended = Objects.requireNonNull(pending);
        long samples = plan().orElseThrow().channels().stream()
                .mapToLong(c -> desk.bench().file().count(ended.id(), c))
                .sum();
        if (samples > AT_ONCE || desk.bench().isSilent()) {
            return List.of();
        }
        Reduction kept = desk.bench().whatIf(new RunCommand.KeepRun(ended));
        // What is read by eye is entered only now, so that there cannot be a value yet.
        boolean complete = plan().orElseThrow().byEye().isEmpty();
        return new SessionWatch()
                .ofRun(kept, ended).stream()
                        .filter(f -> f.severity() != Finding.Severity.NOTE && f.rule() != Rule.ROW)
                        .filter(f -> complete || f.rule() != Rule.NO_VALUE)
                        .sorted(Comparator.comparing(Finding::severity).reversed())
                        .map(f -> f.message() + " " + f.remedy())
                        .distinct()
                        .limit(MOST_SAID)
                        .toList();
    }

    /** Keeps the new samples of a run that was gone on with. */
    void keepContinued() {
        Run run = Objects.requireNonNull(pending);
        pending = null;
        desk.bench()
                .apply(new RunCommand.ContinueRun(run.id(), desk.bench().clock().instant()));
        shown = desk.bench().session().run(run.id()).orElse(null);
    }

    /** Keeps the run that waits, as it was decided: with what was entered, or voided with a reason. */
    void keep(Run decided) {
        desk.bench().apply(new RunCommand.KeepRun(decided));
        pending = null;
        byHand = false;
        if (decided.discard() == null) {
            shown = decided;
            desk.choose(decided);
        }
    }

    /** The run that is shown as it is now in the session, if it is of this capture. */
    Optional<Run> stored() {
        return shown().flatMap(r -> desk.bench().session().run(r.id()))
                .filter(r -> r.capture().equals(capture));
    }

    /** Shows what the instrument sends in place of a stored run. */
    void showLive() {
        shown = null;
    }
}
