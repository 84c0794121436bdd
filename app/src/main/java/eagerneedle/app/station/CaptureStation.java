package eagerneedle.app.station;

import eagerneedle.app.bench.LiveRig;
import eagerneedle.app.plot.PlotView;
import eagerneedle.app.window.Labels;
import eagerneedle.app.window.Notices;
import eagerneedle.app.window.WatchStrip;
import eagerneedle.core.session.Command;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.trace.Trace;
import eagerneedle.core.watch.Finding;
import eagerneedle.core.watch.SampleWatch;
import eagerneedle.core.watch.TraceWatch;
import eagerneedle.report.SessionPlots;
import eagerneedle.report.picture.Ink;
import eagerneedle.report.picture.Plot;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextInputControl;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;

/** Capture: the schedule of levels and what comes next, the run in hand by one of the five modes, its live traces, what becomes of it. */
public final class CaptureStation implements StationView {
    private static final int RATE_OF = 20_000;
    private static final long WATCH_EVERY = 150_000_000L;
    private final Desk desk;
    private final HBox all = new HBox(22);
    private final VBox schedule = new VBox(2);
    private final ToggleGroup choice = new ToggleGroup();
    private final Label hint = Labels.wrapped("");
    private final Label clock = Labels.styled("0.0 s", "figure-big");
    private final Button start = new Button("Start");
    private final Button goOn = new Button("Continue");
    private final RunVerdict verdict;
    private final LiveTraces traces;
    private final PlotView speed = new PlotView("Live rate of change");
    private final RowTable rows;
    private final TypedPanel typed;
    private final StackPane panel = new StackPane();
    private final Label watchLine = Labels.wrapped("");
    private String capture;
    private String level;
    private CaptureMode mode;
    private String modeOf;
    private Run pending;
    private Run shown;
    private boolean continuing;
    private boolean byHand;
    private long lastWatch;

    public CaptureStation(Desk desk) {
        this.desk = desk;
        this.verdict = new RunVerdict(desk, this::keep);
        this.traces = new LiveTraces(desk);
        this.rows = new RowTable(desk);
        this.typed = new TypedPanel(desk);
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
        Labels.explained(goOn, "Go on with the run shown: new samples are added behind its own, with the time that passed in between");
        Button bring = new Button("Import a file...");
        bring.setId("import");
        bring.setOnAction(e -> new ImportDialog(desk, capture, level).show(all));
        Labels.explained(bring, "Bring in a run recorded elsewhere, from delimited text; or drop the file on the window");
        Button paste = new Button("Paste a table...");
        paste.setId("paste-table");
        paste.getStyleClass().add("quiet-button");
        paste.setOnAction(e -> new ImportDialog(desk, capture, level).paste(all));
        Labels.explained(paste, "Bring in a run from cells copied in a spreadsheet");
        ScrollPane scroll = new ScrollPane(schedule);
        scroll.setFitToWidth(true);
        scroll.getStyleClass().add("bare");
        VBox.setVgrow(scroll, Priority.ALWAYS);
        VBox left = new VBox(10, Labels.heading("Runs to take"), scroll, new StopwatchPanel(), new HBox(6, bring, paste));
        left.setPrefWidth(235);
        left.setMinWidth(225);
        clock.setId("run-clock");
        watchLine.setId("live-watch");
        watchLine.getStyleClass().add("attention");
        HBox controls = new HBox(12, start, clock, goOn, verdict);
        controls.setAlignment(Pos.CENTER_LEFT);
        panel.setAlignment(Pos.CENTER_LEFT);
        speed.setPrefHeight(190);
        speed.setMinHeight(110);
        VBox.setVgrow(traces, Priority.ALWAYS);
        VBox right = new VBox(8, hint, controls, panel, typed, watchLine, traces, speed, rows);
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
        refresh();
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
                Sheet.Level set = desk.bench().sheet().captures().get(capture).levels().get(level);
                set.outputs().forEach((output, value) -> {
                    if (!rig.outputs().containsKey(output)) {
                        throw new IllegalArgumentException(rig.label() + " has no output " + output + "; set it by hand.");
                    }
                    rig.outputs().get(output).set(value);
                });
                Run run = rig.run(desk.bench().file().nextRunId(desk.bench().session()), capture, level, desk.bench().clock().instant());
                rig.arrange(Map.of("capture", capture, "level", level));
                mode.begin(rig, run);
                pending = run;
                continuing = false;
                shown = null;
                refreshControls();
            } catch (IOException e) {
                throw new IllegalArgumentException(e.getMessage());
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
            if (!run.setups().equals(desk.bench().session().setups()) || !run.rawUnits().equals(rig.run(0, run.capture(), run.level(), run.started()).rawUnits())) {
                throw new IllegalArgumentException(run.name() + " was captured with another set-up or instrument; take a new run.");
            }
            double end = desk.bench().file().overview(run.id(), mode.first()).end();
            double from = Math.max(end + 1 / rig.rate(), java.time.Duration.between(run.started(), desk.bench().clock().instant()).toMillis() / 1e3);
            try {
                rig.arrange(Map.of("capture", run.capture(), "level", run.level()));
                rig.record(run, desk.bench().file(), from);
            } catch (IOException e) {
                throw new IllegalArgumentException(e.getMessage());
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
            Notices.warn(all, unfired ? "Disarmed before the trigger came; nothing was kept." : "The run holds no samples; the instrument sent nothing.");
        } else if (continuing) {
            Run run = pending;
            pending = null;
            Notices.attempt(all, () -> desk.bench().apply(new Command.ContinueRun(run.id(), desk.bench().clock().instant())));
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
        desk.bench().apply(new Command.KeepRun(run));
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
            String[] next = desk.bench().next().or(() -> desk.run().filter(r -> desk.rig().isEmpty() && sheet.captures().containsKey(r.capture())).map(r -> new String[] {r.capture(), r.level()}))
                    .orElse(capture == null ? first(sheet) : new String[] {capture, level});
            capture = next[0];
            level = next[1];
        }
        schedule.getChildren().clear();
        sheet.captures().forEach((c, plan) -> {
            schedule.getChildren().add(Labels.styled(plan.label().toUpperCase(Locale.ROOT), "group"));
            plan.levels().forEach((l, what) -> schedule.getChildren().add(levelButton(sheet, c, l, what)));
        });
        Sheet.Capture plan = sheet.captures().get(capture);
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
        String what = plan.levels().get(level).label() == null ? level : plan.levels().get(level).label();
        hint.setText((desk.bench().next().isPresent() ? "Next: " : "All runs are taken. Another one of: ") + plan.label() + ", " + what + ". " + plan.hint());
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

    private ToggleButton levelButton(Sheet sheet, String c, String l, Sheet.Level what) {
        long done = desk.bench().runsAt(c, l);
        ToggleButton b = new ToggleButton((what.label() == null ? l : what.label()) + "   " + done + " of " + desk.bench().session().repeats(sheet, c) + (done >= desk.bench().session().repeats(sheet, c) ? "  ✓" : ""));
        b.setToggleGroup(choice);
        b.setId("level-" + c + "-" + l);
        b.setMaxWidth(Double.MAX_VALUE);
        b.setAlignment(Pos.CENTER_LEFT);
        b.getStyleClass().add("quiet-button");
        b.setSelected(c.equals(capture) && l.equals(level));
        b.setDisable(pending != null);
        b.setOnAction(e -> {
            capture = c;
            level = l;
            byHand = true;
            refresh();
            javafx.application.Platform.runLater(all::requestFocus);
        });
        return b;
    }

    private static String[] first(Sheet sheet) {
        return sheet.captures().isEmpty() ? new String[] {"", ""}
                : new String[] {sheet.captures().keySet().iterator().next(), sheet.captures().values().iterator().next().levels().keySet().iterator().next()};
    }

    private void refreshControls() {
        boolean running = lasts();
        start.setText(running ? mode.ends() : mode == null ? "Start" : mode.begins());
        start.setDisable(pending != null && !running);
        boolean may = !running && pending == null && shown != null && desk.rig().isPresent() && mode != null && mode.getClass() == StreamMode.class && desk.bench().session().run(shown.id()).isPresent();
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
        Run run = shown == null ? null : desk.bench().session().run(shown.id()).filter(r -> r.capture().equals(capture)).orElse(null);
        traces.stored(run);
        if (run != null) {
            clock.setText(run.name() + ", " + SessionPlots.levelLabel(desk.bench().reduction(), run));
        }
        String channel = channelName();
        boolean short_ = run != null && desk.bench().file().count(run.id(), channel) <= RATE_OF;
        rateOf(short_ ? desk.bench().reduction().trace(run, channel).orElse(null) : null);
    }

    @Override
    public void tick() {
        if (desk.rig().isEmpty() || mode == null) {
            watchLine.setText("");
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
            liveWatch(rig);
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
            rateOf(traces.exact(channelName(), whole ? rig.all(channelName()) : rig.last(channelName(), 6)));
        }
        liveWatch(rig);
    }

    private String channelName() {
        return desk.bench().sheet().captures().get(capture).channels().get(0);
    }

    /** The rate of change of the only trace, under it; several traces need the room for themselves. */
    private void rateOf(Trace t) {
        Sheet.Capture plan = desk.bench().sheet().captures().get(capture);
        boolean alone = plan.channels().size() == 1 && plan.mode().equals("stream") && (t == null || t.size() <= RATE_OF);
        speed.setVisible(alone);
        speed.setManaged(alone);
        if (!alone) {
            return;
        }
        if (t == null || t.size() < 8) {
            speed.plot(null, false);
            return;
        }
        speed.plot(rate(t), false);
    }

    /** Rate of change by a straight line over seven neighbouring samples. */
    private Plot rate(Trace t) {
        int half = 3;
        int n = Math.max(0, t.size() - 2 * half);
        double[] x = new double[n];
        double[] y = new double[n];
        for (int i = 0; i < n; i++) {
            double stt = 0;
            double stv = 0;
            double mean = 0;
            for (int k = 0; k <= 2 * half; k++) {
                mean += t.time()[i + k] / (2 * half + 1);
            }
            for (int k = 0; k <= 2 * half; k++) {
                double dt = t.time()[i + k] - mean;
                stt += dt * dt;
                stv += dt * t.value()[i + k];
            }
            x[i] = t.time()[i + half];
            y[i] = stv / stt;
        }
        String name = t.name().equals("position") ? "speed" : "rate of " + t.name();
        return new Plot(name, new Plot.Axis("time", "s"), new Plot.Axis(name, t.unit().pretty() + "/s"), List.of(new Plot.Level(0, Ink.RULE), new Plot.Points(name, x, y, null, false, 2)));
    }

    /** What the watches say of the last second of a channel. */
    private List<Finding> watched(LiveRig rig, String name) {
        Sheet.Channel channel = desk.bench().session().channel(desk.bench().sheet(), name);
        var raw = rig.last(name, Math.min(1.0, RATE_OF / rig.rate()));
        List<Finding> found = new ArrayList<>(new SampleWatch(channel.label(), channel.toChain(), channel.rate()).look(0, raw.time(), raw.values()));
        Trace t = traces.exact(name, raw);
        if (t.size() > 0) {
            found.addAll(new TraceWatch(channel.label(), channel.expectation(), channel.toChain().noiseAt(t.value()[t.size() - 1])).look(0, t));
        }
        return found;
    }

    private void liveWatch(LiveRig rig) {
        long now = System.nanoTime();
        if (now - lastWatch < WATCH_EVERY) {
            return;
        }
        lastWatch = now;
        String says = rig.news();
        if (says.isEmpty() && !(mode instanceof GateMode)) {
            says = desk.bench().sheet().captures().get(capture).channels().stream().flatMap(c -> watched(rig, c).stream()).findFirst().map(f -> f.message() + " " + f.cause() + " " + f.remedy()).orElse("");
        }
        watchLine.setText(says.isEmpty() ? "" : "▲ " + says);
        watchLine.setManaged(!says.isEmpty());
        if (all.getScene() != null && all.getScene().lookup("#watch-strip") instanceof WatchStrip strip) {
            strip.live(says);
        }
    }
}
