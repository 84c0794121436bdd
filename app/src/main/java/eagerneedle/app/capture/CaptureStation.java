package eagerneedle.app.capture;

import eagerneedle.app.station.CautionCard;
import eagerneedle.app.station.Desk;
import eagerneedle.app.station.StationView;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.Tone;
import eagerneedle.app.widget.TypedPanel;
import eagerneedle.app.workbench.LiveRig;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.trace.Trace;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import javafx.application.Platform;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;

/**
 * Capture: the schedule of levels and what comes next, the run in hand by one of the five modes, its live traces, what
 * becomes of it.
 */
public final class CaptureStation implements StationView {
    /** What is shown while no run is taken, s. */
    private static final double LATELY = 6;

    private final Desk desk;
    private final CaptureModel model;
    private final HBox all = new HBox(22);
    private final CaptureSchedule schedule;
    private final Label hint = Labels.wrapped("");
    private final CautionCard cautions;
    private final Label stepsLeft = Labels.styled("", "attention");
    private final RunVerdict verdict;
    private final LiveTraces traces;
    private final RateOfChange speed = new RateOfChange();
    private final LiveWatch watch;
    private final RowTable rows;
    private final TypedPanel typed;
    private final StackPane panel = new StackPane();
    private final StopwatchPanel stopwatch;
    private final StartBar controls = new StartBar(this::startOrStop, this::goOn);
    private final RowsByEye byEye;
    private final AllLevels levels;
    private @Nullable CaptureMode mode;
    private @Nullable String modeOf;

    public CaptureStation(Desk desk) {
        this.desk = desk;
        this.model = new CaptureModel(desk);
        this.verdict = new RunVerdict(desk, this::keep);
        this.cautions = new CautionCard(desk, false);
        stepsLeft.setId("steps-left");
        this.byEye = new RowsByEye(desk, model, verdict);
        this.levels = new AllLevels(desk, model, all, this::begin, this::keep);
        this.traces = new LiveTraces(desk);
        this.watch = new LiveWatch(desk, traces);
        this.schedule = new CaptureSchedule(desk, this::choose);
        this.rows = new RowTable(desk);
        this.typed = new TypedPanel(desk.bench().sheet(), desk::rig);
        all.getStyleClass().add("surface");
        all.setFocusTraversable(true);
        all.setAccessibleText("Capture: Space starts and stops a run");
        stopwatch = new StopwatchPanel(this::stopped);
        verdict.onRows(text -> {
            if (Notices.attempt(all, () -> Notices.tell(all, model.paste(text)))) {
                refresh();
            }
        });
        hint.getStyleClass().add("next");
        panel.setAlignment(Pos.CENTER_LEFT);
        VBox.setVgrow(traces, Priority.ALWAYS);
        VBox right = new VBox(
                8,
                cautions,
                stepsLeft,
                hint,
                controls,
                verdict,
                panel,
                typed,
                watch.line(),
                traces,
                speed,
                rows,
                byEye.picture());
        HBox.setHgrow(right, Priority.ALWAYS);
        all.getChildren().addAll(new CaptureAside(desk, model, all, schedule, stopwatch), right);
        new CaptureKeys(all, stopwatch, verdict).with(this::startOrStop, this::waitsToBeKept, this::pressed);
    }

    /** What a key means to the mode that is on; false for nothing. */
    private boolean pressed(KeyCode code) {
        return mode != null && mode.key(code);
    }

    private boolean waitsToBeKept() {
        return model.pending().isPresent() && !lasts();
    }

    /** A time that was taken belongs where one is waited for. */
    private void stopped(double seconds) {
        boolean wanted = model.plan().filter(p -> !p.byEye().isEmpty()).isPresent();
        if (!verdict.stopped(seconds) && wanted) {
            Notices.tell(all, "No reading of this run waits for a time; it stands beside the stopwatch.");
        }
    }

    private boolean lasts() {
        return mode != null && desk.rig().map(mode::lasts).orElse(false);
    }

    private void startOrStop() {
        if (model.isByEye()) {
            verdict.focus();
            return;
        }
        if (desk.rig().isEmpty()) {
            Notices.warn(all, "No instrument is connected: connect it at Rig first (key 2), or import a file.");
            return;
        }
        if (model.isBeginning()) {
            model.doNotBegin();
            if (mode instanceof HoldMode h) {
                h.cancel();
            }
            Notices.tell(all, "Not begun.");
            refreshControls();
            return;
        }
        if (lasts()) {
            stop("");
            return;
        }
        begin();
    }

    private void begin() {
        watch.clear();
        if (!Notices.attempt(all, () -> model.begin(desk.rig().get(), Objects.requireNonNull(mode)))
                && mode instanceof HoldMode h) {
            h.endAutomatic("Not begun.");
        }
        refreshControls();
    }

    /** Goes on with the run that is shown. */
    private void goOn() {
        if (desk.rig().isPresent() && model.shown().isPresent() && !lasts()) {
            Notices.attempt(
                    all,
                    () -> model.goOn(
                            desk.rig().get(), Objects.requireNonNull(mode).first()));
            refreshControls();
        }
    }

    /** @param why said when the run ended by itself; empty for nothing to say */
    private void stop(String why) {
        LiveRig rig = desk.rig().get();
        if (mode instanceof HoldMode h && !rig.isRecording()) {
            if (h.isAutomatic()) {
                levels.rest();
            }
            h.cancel();
            model.giveUp();
            refreshControls();
            return;
        }
        if (isWhole(rig)) {
            traces.end(rig);
        }
        switch (model.finish(rig, Objects.requireNonNull(mode))) {
            case UNFIRED -> Notices.warn(all, "Disarmed before the trigger came; nothing was kept.");
            case EMPTY -> Notices.warn(all, "The run holds no samples; the instrument sent nothing.");
            case CONTINUED -> {
                Notices.attempt(all, model::keepContinued);
                refresh();
            }
            case PENDING -> {
                verdict.show(model.pending().orElseThrow(), model.plan().orElseThrow());
                verdict.refuse(model.refusal());
                verdict.watched(model.watched());
                watch.clear();
                if (!why.isEmpty()) {
                    Notices.tell(all, why);
                }
                if (mode instanceof HoldMode hold && hold.isAutomatic()) {
                    levels.goOn(hold, () -> mode == hold);
                }
            }
        }
        refreshControls();
        if (model.plan().orElseThrow().byEye().isEmpty() || model.pending().isEmpty()) {
            all.requestFocus();
        }
    }

    private void keep(Run decided) {
        if (model.isByEye()) {
            if (byEye.keep(decided)) {
                refresh();
                verdict.focus();
            }
            return;
        }
        if (model.pending().isEmpty() || lasts()) {
            return;
        }
        model.keep(mode instanceof PromptedMode p ? p.completed(decided) : decided);
        verdict.show(null, null);
        refresh();
        all.requestFocus();
    }

    /** Attaches a picture to the run that waits to be kept. */
    public void attach(java.nio.file.Path picture) {
        if (!model.isByEye() && (model.pending().isEmpty() || lasts())) {
            Notices.warn(all, "A picture is attached to a run that has just ended; take one first.");
        } else {
            verdict.attach(picture);
        }
    }

    @Override
    public Node node() {
        return all;
    }

    @Override
    public Optional<Node> focus() {
        return Optional.of(all);
    }

    @Override
    public void refresh() {
        model.follow();
        schedule.refresh(model.capture(), model.level(), model.pending().isPresent());
        hint.setText(model.hint());
        cautions.refresh();
        Labels.says(stepsLeft, model.stepsLeft());
        Capture plan = model.plan().orElse(null);
        if (plan == null) {
            controls.off();
            return;
        }
        boolean eye = plan.isByEye();
        List.of(controls, traces).forEach(n -> Labels.shown(n, !eye));
        if (eye) {
            mode = null;
            modeOf = "";
            panel.getChildren().clear();
            panel.setManaged(false);
            watch.clear();
            typed.refresh();
            Labels.shown(speed, false);
            rows.show(model.capture());
            byEye.show();
            return;
        }
        byEye.leave();
        if (!model.capture().equals(modeOf)) {
            modeOf = model.capture();
            mode = CaptureMode.of(desk, plan);
            panel.getChildren().setAll(mode.panel());
            panel.setManaged(mode.panel().isManaged());
        }
        Node panelOfMode = Objects.requireNonNull(mode).panel();
        boolean shown = !(mode instanceof GateMode) || desk.rig().isPresent();
        panel.setVisible(shown);
        panel.setManaged(shown && panelOfMode.isManaged());
        traces.refresh();
        traces.channels(model.capture(), plan.channels());
        traces.first().ifPresent(speed::follow);
        Labels.shown(speed, alone() && speed.isVisible());
        refreshControls();
        typed.refresh();
        rows.show(model.capture());
        if (!plan.mode().equals("hold")) {
            Labels.shown(rows, false);
        }
        if (!lasts() && model.pending().isEmpty()) {
            showStored();
        }
    }

    private void refreshControls() {
        boolean running = lasts() || model.isBeginning();
        boolean waiting = model.pending().isPresent();
        controls.show(
                running && mode != null ? mode.ends() : mode == null ? "Start" : mode.begins(),
                !waiting || running,
                !running && mode != null && mode.getClass() == StreamMode.class && model.mayGoOn());
        if (running || !waiting) {
            verdict.show(null, null);
        }
        if (!running && !waiting) {
            controls.clock(StartBar.NOTHING_YET);
        }
    }

    private void showStored() {
        if (desk.rig().isPresent() && model.shown().isEmpty()) {
            return;
        }
        Run run = model.stored().orElse(null);
        traces.stored(run);
        if (run != null) {
            // Its level is marked in the list of runs to take.
            controls.clock(run.name());
        }
        String channel = model.channel();
        Trace known = run != null && desk.bench().file().count(run.id(), channel) <= RateOfChange.MOST
                ? desk.bench().reduction().trace(run, channel).orElse(null)
                : null;
        speed.of(known, alone());
    }

    @Override
    public void tick() {
        schedule.tick();
        if (model.isByEye() || desk.rig().isEmpty() || mode == null) {
            watch.clear();
            return;
        }
        LiveRig rig = desk.rig().get();
        if (model.isBeginning()) {
            begin(rig);
            return;
        }
        boolean running = lasts();
        if (!running && model.pending().isPresent()) {
            return;
        }
        if (!running && model.shown().isPresent() && !rig.isSimulated()) {
            model.showLive();
        }
        if (!running && model.shown().isPresent()) {
            watch.tick(rig, model.plan().orElseThrow());
            return;
        }
        if (running) {
            controls.clock(model.isContinuing() ? "continued" : mode.clock(rig));
            String over = mode.tick(rig);
            if (over != null) {
                if (Tone.isWanted()) {
                    Tone.play();
                }
                stop(over);
                return;
            }
        }
        mode.look(rig);
        boolean whole = isWhole(rig);
        traces.live(rig, whole);
        if (alone()) {
            speed.live(traces, rig, model.channel(), whole, LATELY);
        }
        watch.tick(rig, model.plan().orElseThrow());
    }

    /** True where all that came since the run began is shown; a row is of the last seconds. */
    private boolean isWhole(LiveRig rig) {
        return rig.isRecording() && !rig.isArmed() && !(mode instanceof HoldMode);
    }

    /** Outputs are on their way; the run begins once they are there. */
    private void begin(LiveRig rig) {
        boolean goes = Notices.attempt(all, () -> model.goOnBeginning(rig, Objects.requireNonNull(mode)));
        controls.clock(model.isBeginning() ? "setting" : StartBar.NOTHING_YET);
        hint.setText(model.isBeginning() ? model.waitsFor() : model.hint());
        if (!goes && mode instanceof HoldMode h) {
            h.endAutomatic("Not begun.");
        }
        if (!model.isBeginning()) {
            refreshControls();
        }
    }

    /** True when the capture has one trace only, so that its rate of change has room. */
    private boolean alone() {
        Capture plan = model.plan().orElseThrow();
        return plan.channels().size() == 1 && plan.mode().equals("stream");
    }

    private void choose(String c, String l) {
        model.choose(c, l);
        refresh();
        Platform.runLater(all::requestFocus);
    }
}
