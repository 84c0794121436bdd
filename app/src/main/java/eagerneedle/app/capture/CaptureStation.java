package eagerneedle.app.capture;

import eagerneedle.app.station.Desk;
import eagerneedle.app.station.StationView;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.TypedPanel;
import eagerneedle.app.workbench.LiveRig;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.RunCommand;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.picture.SessionPlots;
import java.io.IOException;
import java.util.Map;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;

/**
 * Capture: the schedule of levels and what comes next, the run in hand by one of the five modes, its live traces, what
 * becomes of it.
 */
public final class CaptureStation implements StationView {
    private final Desk desk;
    private final HBox all = new HBox(22);
    private final CaptureSchedule schedule;
    private final Label hint = Labels.wrapped("");
    private final Label clock = Labels.styled("0.0 s", "figure-big");
    private final Button start = new Button("Start");
    private final Button goOn = new Button("Continue");
    private final RunVerdict verdict;
    private final LiveTraces traces;
    private final RateOfChange speed = new RateOfChange();
    private final LiveWatch watch;
    private final RowTable rows;
    private final TypedPanel typed;
    private final StackPane panel = new StackPane();
    private String capture;
    private String level;
    private CaptureMode mode;
    private String modeOf;
    private Run pending;
    private Run shown;
    private boolean continuing;
    private boolean byHand;

    public CaptureStation(Desk desk) {
        this.desk = desk;
        this.verdict = new RunVerdict(desk, this::keep);
        this.traces = new LiveTraces(desk);
        this.watch = new LiveWatch(desk, traces);
        this.schedule = new CaptureSchedule(desk, this::choose);
        this.rows = new RowTable(desk);
        this.typed = new TypedPanel(desk.bench().sheet(), desk::rig);
        all.getStyleClass().add("surface");
        all.setFocusTraversable(true);
        all.setAccessibleText("Capture: Space starts and stops a run");
        start.setId("start-stop");
        start.setOnAction(e -> startOrStop());
        start.setMinWidth(javafx.scene.layout.Region.USE_PREF_SIZE);
        Labels.explained(start, "Start and stop the run (Space)");
        goOn.setId("continue-run");
        goOn.getStyleClass().add("quiet-button");
        goOn.setOnAction(e -> goOn());
        Labels.explained(
                goOn,
                "Go on with the run shown: new samples are added behind its own, with the time that passed in between");
        Button bring = new Button("Import a file...");
        bring.setId("import");
        bring.setOnAction(e -> new ImportDialog(desk, capture, level).show(all));
        Labels.explained(
                bring, "Bring in a run recorded elsewhere, from delimited text; or drop the file on the window");
        Button paste = new Button("Paste a table...");
        paste.setId("paste-table");
        paste.getStyleClass().add("quiet-button");
        paste.setOnAction(e -> new ImportDialog(desk, capture, level).paste(all));
        Labels.explained(paste, "Bring in a run from cells copied in a spreadsheet");
        VBox left = new VBox(10, schedule, new StopwatchPanel(), new HBox(6, bring, paste));
        left.setPrefWidth(235);
        left.setMinWidth(225);
        clock.setId("run-clock");
        HBox controls = new HBox(12, start, clock, goOn, verdict);
        controls.setAlignment(Pos.CENTER_LEFT);
        panel.setAlignment(Pos.CENTER_LEFT);
        VBox.setVgrow(traces, Priority.ALWAYS);
        VBox right = new VBox(8, hint, controls, panel, typed, watch.line(), traces, speed, rows);
        HBox.setHgrow(right, Priority.ALWAYS);
        all.getChildren().addAll(left, right);
        all.setOnKeyPressed(e -> {
            if (e.getTarget() instanceof TextInputControl) {
                return;
            }
            if (e.getCode() == KeyCode.SPACE) {
                startOrStop();
                e.consume();
            } else if (pending != null && !lasts() && e.getCode() == KeyCode.K) {
                verdict.fireKeep();
                e.consume();
            } else if (pending != null && !lasts() && e.getCode() == KeyCode.D) {
                verdict.fireVoid();
                e.consume();
            } else if (mode != null && !e.isShortcutDown() && mode.key(e.getCode())) {
                e.consume();
            }
        });
    }

    private boolean lasts() {
        return mode != null && desk.rig().map(mode::lasts).orElse(false);
    }

    private void startOrStop() {
        if (desk.rig().isEmpty()) {
            Notices.warn(all, "No instrument is connected: connect it at Rig first (key 2), or import a file.");
            return;
        }
        if (lasts()) {
            stop("");
            return;
        }
        if (pending != null) {
            Notices.warn(all, "Keep or void " + pending.name() + " first.");
            return;
        }
        LiveRig rig = desk.rig().get();
        Notices.attempt(all, () -> {
            try {
                Capture.Level set =
                        desk.bench().sheet().captures().get(capture).levels().get(level);
                set.outputs().forEach((output, value) -> {
                    if (!rig.outputs().containsKey(output)) {
                        throw new IllegalArgumentException(
                                rig.label() + " has no output " + output + "; set it by hand.");
                    }
                    rig.outputs().get(output).set(value);
                });
                Run run = rig.run(
                        desk.bench().file().nextRunId(desk.bench().session()),
                        capture,
                        level,
                        desk.bench().clock().instant());
                rig.arrange(Map.of("capture", capture, "level", level));
                mode.begin(rig, run);
                pending = run;
                continuing = false;
                shown = null;
                refreshControls();
            } catch (IOException e) {
                throw new IllegalArgumentException(e.getMessage(), e);
            }
        });
    }

    /** Goes on with the run that is shown. */
    private void goOn() {
        LiveRig rig = desk.rig().orElse(null);
        if (rig == null || shown == null || lasts()) {
            return;
        }
        Notices.attempt(all, () -> {
            Run run = desk.bench().session().run(shown.id()).orElseThrow();
            if (!run.setups().equals(desk.bench().session().setups())
                    || !run.rawUnits()
                            .equals(rig.run(0, run.capture(), run.level(), run.started())
                                    .rawUnits())) {
                throw new IllegalArgumentException(
                        run.name() + " was captured with another set-up or instrument; take a new run.");
            }
            double end = desk.bench().file().overview(run.id(), mode.first()).end();
            double from = Math.max(
                    end + 1 / rig.rate(),
                    java.time.Duration.between(
                                            run.started(), desk.bench().clock().instant())
                                    .toMillis()
                            / 1e3);
            try {
                rig.arrange(Map.of("capture", run.capture(), "level", run.level()));
                rig.record(run, desk.bench().file(), from);
            } catch (IOException e) {
                throw new IllegalArgumentException(e.getMessage(), e);
            }
            pending = run;
            continuing = true;
            refreshControls();
        });
    }

    /** @param why said when the run ended by itself; empty for nothing to say */
    private void stop(String why) {
        LiveRig rig = desk.rig().get();
        if (mode instanceof HoldMode h && !rig.isRecording()) {
            h.cancel();
            pending = null;
            refreshControls();
            return;
        }
        boolean unfired = rig.isArmed();
        long n = rig.finish();
        if (unfired || n == 0 && mode.needsSamples()) {
            pending = null;
            Notices.warn(
                    all,
                    unfired
                            ? "Disarmed before the trigger came; nothing was kept."
                            : "The run holds no samples; the instrument sent nothing.");
        } else if (continuing) {
            Run run = pending;
            pending = null;
            Notices.attempt(
                    all,
                    () -> desk.bench()
                            .apply(new RunCommand.ContinueRun(
                                    run.id(), desk.bench().clock().instant())));
            shown = desk.bench().session().run(run.id()).orElse(null);
            refresh();
        } else {
            pending = mode.ended(pending);
            verdict.show(pending, desk.bench().sheet().captures().get(capture));
            if (!why.isEmpty()) {
                Notices.tell(all, why);
            }
        }
        refreshControls();
        if (desk.bench().sheet().captures().get(capture).byEye().isEmpty() || pending == null) {
            all.requestFocus();
        }
    }

    private void keep(Run decided) {
        if (pending == null || lasts()) {
            return;
        }
        Run run = mode instanceof PromptedMode p ? p.completed(decided) : decided;
        desk.bench().apply(new RunCommand.KeepRun(run));
        pending = null;
        verdict.show(null, null);
        byHand = false;
        if (run.discard() == null) {
            shown = run;
            desk.choose(run);
        }
        refresh();
        all.requestFocus();
    }

    /** Attaches a picture to the run that waits to be kept. */
    public void attach(java.nio.file.Path picture) {
        if (pending == null || lasts()) {
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
        Sheet sheet = desk.bench().sheet();
        if (!byHand && pending == null) {
            String[] next = desk.bench()
                    .next()
                    .or(() -> desk.run()
                            .filter(r ->
                                    desk.rig().isEmpty() && sheet.captures().containsKey(r.capture()))
                            .map(r -> new String[] {r.capture(), r.level()}))
                    .orElse(capture == null ? first(sheet) : new String[] {capture, level});
            capture = next[0];
            level = next[1];
        }
        schedule.refresh(capture, level, pending != null);
        Capture plan = sheet.captures().get(capture);
        if (plan == null) {
            hint.setText("This sheet captures nothing.");
            start.setDisable(true);
            return;
        }
        if (!capture.equals(modeOf)) {
            modeOf = capture;
            mode = CaptureMode.of(desk, plan);
            panel.getChildren().setAll(mode.panel());
            panel.setManaged(mode.panel().isManaged());
        }
        traces.refresh();
        traces.channels(plan.channels());
        String what = plan.levels().get(level).label() == null
                ? level
                : plan.levels().get(level).label();
        hint.setText((desk.bench().next().isPresent() ? "Next: " : "All runs are taken. Another one of: ")
                + plan.label() + ", " + what + ". " + plan.hint());
        if (shown == null && pending == null && desk.rig().isEmpty()) {
            shown = desk.run().orElse(null);
        }
        refreshControls();
        typed.refresh();
        rows.show(capture);
        if (!plan.mode().equals("hold")) {
            rows.setVisible(false);
            rows.setManaged(false);
        }
        if (!lasts() && pending == null) {
            showStored();
        }
    }

    private static String[] first(Sheet sheet) {
        return sheet.captures().isEmpty()
                ? new String[] {"", ""}
                : new String[] {
                    sheet.captures().keySet().iterator().next(),
                    sheet.captures()
                            .values()
                            .iterator()
                            .next()
                            .levels()
                            .keySet()
                            .iterator()
                            .next()
                };
    }

    private void refreshControls() {
        boolean running = lasts();
        start.setText(running ? mode.ends() : mode == null ? "Start" : mode.begins());
        start.setDisable(pending != null && !running);
        boolean may = !running
                && pending == null
                && shown != null
                && desk.rig().isPresent()
                && mode != null
                && mode.getClass() == StreamMode.class
                && desk.bench().session().run(shown.id()).isPresent();
        goOn.setVisible(may);
        goOn.setManaged(may);
        if (running || pending == null) {
            verdict.show(null, null);
        }
        if (!running && pending == null) {
            clock.setText("0.0 s");
        }
    }

    private void showStored() {
        if (desk.rig().isPresent() && shown == null) {
            return;
        }
        Run run = shown == null
                ? null
                : desk.bench()
                        .session()
                        .run(shown.id())
                        .filter(r -> r.capture().equals(capture))
                        .orElse(null);
        traces.stored(run);
        if (run != null) {
            clock.setText(
                    run.name() + ", " + SessionPlots.levelLabel(desk.bench().reduction(), run));
        }
        String channel = channelName();
        boolean known = run != null && desk.bench().file().count(run.id(), channel) <= RateOfChange.MOST;
        speed.of(known ? desk.bench().reduction().trace(run, channel).orElse(null) : null, alone());
    }

    @Override
    public void tick() {
        schedule.tick();
        if (desk.rig().isEmpty() || mode == null) {
            watch.clear();
            return;
        }
        LiveRig rig = desk.rig().get();
        boolean running = lasts();
        if (!running && pending != null) {
            return;
        }
        if (!running && shown != null && !rig.isSimulated()) {
            shown = null;
        }
        if (!running && shown != null) {
            watch.tick(rig, desk.bench().sheet().captures().get(capture).channels(), mode instanceof GateMode);
            return;
        }
        if (running) {
            clock.setText(continuing ? "continued" : mode.clock(rig));
            String over = mode.tick(rig);
            if (over != null) {
                stop(over);
                return;
            }
        }
        mode.look(rig);
        boolean whole = rig.isRecording() && !rig.isArmed() && !(mode instanceof HoldMode);
        traces.live(rig, whole);
        if (speed.isManaged()) {
            speed.of(traces.exact(channelName(), whole ? rig.all(channelName()) : rig.last(channelName(), 6)), alone());
        }
        watch.tick(rig, desk.bench().sheet().captures().get(capture).channels(), mode instanceof GateMode);
    }

    /** True when the capture has one trace only, so that its rate of change has room. */
    private boolean alone() {
        Capture plan = desk.bench().sheet().captures().get(capture);
        return plan.channels().size() == 1 && plan.mode().equals("stream");
    }

    private void choose(String c, String l) {
        capture = c;
        level = l;
        byHand = true;
        refresh();
        javafx.application.Platform.runLater(all::requestFocus);
    }

    private String channelName() {
        return desk.bench().sheet().captures().get(capture).channels().get(0);
    }
}
