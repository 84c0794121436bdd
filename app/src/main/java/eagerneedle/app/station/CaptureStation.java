package eagerneedle.app.station;

import eagerneedle.app.bench.LiveRig;
import eagerneedle.app.plot.PlotView;
import eagerneedle.app.window.Labels;
import eagerneedle.app.window.Notices;
import eagerneedle.app.window.WatchStrip;
import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.calibration.Relation;
import eagerneedle.core.chain.Chain;
import eagerneedle.core.session.Command;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.core.trace.Trace;
import eagerneedle.core.watch.Finding;
import eagerneedle.core.watch.SampleWatch;
import eagerneedle.report.SessionPlots;
import eagerneedle.report.picture.Plot;
import java.io.IOException;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** Capture: the schedule of levels, live traces, start and stop by key, keep or discard each run, import of files. */
public final class CaptureStation implements StationView {
    private final Desk desk;
    private final HBox all = new HBox(22);
    private final VBox schedule = new VBox(2);
    private final ToggleGroup choice = new ToggleGroup();
    private final Label hint = Labels.wrapped("");
    private final Label clock = Labels.styled("0.0 s", "figure-big");
    private final Button start = new Button("Start");
    private final Button keep = new Button("Keep");
    private final Button discard = new Button("Discard");
    private final TextField name = new TextField();
    private final HBox verdict = new HBox(8, name, keep, discard);
    private final PlotView position = new PlotView("Live trace");
    private final PlotView speed = new PlotView("Live rate of change");
    private final TypedPanel typed;
    private final Label watchLine = Labels.wrapped("");
    private String capture;
    private String level;
    private Run pending;
    private Run shown;
    private boolean byHand;

    public CaptureStation(Desk desk) {
        this.desk = desk;
        all.getStyleClass().add("surface");
        all.setFocusTraversable(true);
        all.setAccessibleText("Capture: Space starts and stops a run");
        start.setId("start-stop");
        start.setOnAction(e -> startOrStop());
        Labels.explained(start, "Start and stop the run (Space)");
        keep.setId("keep-run");
        keep.setOnAction(e -> keep());
        Labels.explained(keep, "Keep this run in the session (K)");
        discard.setId("discard-run");
        discard.setOnAction(e -> discard());
        Labels.explained(discard, "Discard this run; its samples stay in the bench file (D)");
        name.setId("run-name");
        name.setPrefWidth(130);
        name.setAccessibleText("Name of the run");
        name.setOnAction(e -> keep());
        verdict.setAlignment(Pos.CENTER_LEFT);
        Button bring = new Button("Import a file...");
        bring.setId("import");
        bring.setOnAction(e -> new ImportDialog(desk, capture, level).show(all));
        Labels.explained(bring, "Bring in a run recorded elsewhere, from delimited text; or drop the file on the window");
        ScrollPane scroll = new ScrollPane(schedule);
        scroll.setFitToWidth(true);
        scroll.getStyleClass().add("bare");
        VBox.setVgrow(scroll, Priority.ALWAYS);
        VBox left = new VBox(10, Labels.heading("Runs to take"), scroll, bring);
        left.setPrefWidth(235);
        left.setMinWidth(225);
        clock.setId("run-clock");
        watchLine.setId("live-watch");
        watchLine.getStyleClass().add("attention");
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        HBox controls = new HBox(12, start, clock, gap, verdict);
        controls.setAlignment(Pos.CENTER_LEFT);
        position.emptySays("Connect the instrument at Rig (key 2) to see its trace here, or import a file.");
        speed.setPrefHeight(190);
        speed.setMinHeight(130);
        VBox.setVgrow(position, Priority.ALWAYS);
        typed = new TypedPanel(desk);
        VBox right = new VBox(8, hint, controls, typed, watchLine, position, speed);
        HBox.setHgrow(right, Priority.ALWAYS);
        all.getChildren().addAll(left, right);
        all.setOnKeyPressed(e -> {
            if (e.getTarget() instanceof TextField) {
                return;
            }
            if (e.getCode() == KeyCode.SPACE) {
                startOrStop();
                e.consume();
            } else if (e.getCode() == KeyCode.K && pending != null && !recording()) {
                keep();
                e.consume();
            } else if (e.getCode() == KeyCode.D && pending != null && !recording()) {
                discard();
                e.consume();
            }
        });
        refresh();
    }

    private boolean recording() {
        return desk.rig().map(LiveRig::isRecording).orElse(false);
    }

    private void startOrStop() {
        if (desk.rig().isEmpty()) {
            Notices.warn(all, "No instrument is connected: connect it at Rig first (key 2), or import a file.");
            return;
        }
        if (recording()) {
            stop();
            return;
        }
        if (pending != null) {
            Notices.warn(all, "Keep or discard " + pending.name() + " first.");
            return;
        }
        LiveRig rig = desk.rig().get();
        Notices.attempt(all, () -> {
            try {
                Run run = rig.run(desk.bench().file().nextRunId(desk.bench().session()), capture, level, desk.bench().clock().instant());
                rig.arrange(Map.of("capture", capture, "level", level));
                rig.record(run, desk.bench().file());
                pending = run;
                shown = null;
                refreshControls();
            } catch (IOException e) {
                throw new IllegalArgumentException(e.getMessage());
            }
        });
    }

    private void stop() {
        long n = desk.rig().get().finish();
        if (n == 0) {
            pending = null;
            Notices.warn(all, "The run holds no samples; the instrument sent nothing.");
        } else {
            name.setText(pending.name());
        }
        refreshControls();
        all.requestFocus();
    }

    private void keep() {
        if (pending == null || recording()) {
            return;
        }
        Run run = pending.named(name.getText().isBlank() ? pending.name() : name.getText().strip());
        if (Notices.attempt(all, () -> desk.bench().apply(new Command.KeepRun(run)))) {
            pending = null;
            shown = run;
            byHand = false;
            desk.choose(run);
            refresh();
            all.requestFocus();
        }
    }

    private void discard() {
        if (pending == null || recording()) {
            return;
        }
        Run run = pending.discarded("discarded at capture");
        if (Notices.attempt(all, () -> desk.bench().apply(new Command.KeepRun(run)))) {
            pending = null;
            refresh();
            all.requestFocus();
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
        if (!byHand) {
            String[] next = desk.bench().next().orElse(capture == null ? first(sheet) : new String[] {capture, level});
            capture = next[0];
            level = next[1];
        }
        schedule.getChildren().clear();
        sheet.captures().forEach((c, plan) -> {
            schedule.getChildren().add(Labels.styled(plan.label().toUpperCase(java.util.Locale.ROOT), "group"));
            plan.levels().forEach((l, what) -> {
                long done = desk.bench().runsAt(c, l);
                ToggleButton b = new ToggleButton((what.label() == null ? l : what.label()) + "   " + done + " of " + desk.bench().session().repeats(sheet, c) + (done >= desk.bench().session().repeats(sheet, c) ? "  ✓" : ""));
                b.setToggleGroup(choice);
                b.setId("level-" + c + "-" + l);
                b.setMaxWidth(Double.MAX_VALUE);
                b.setAlignment(Pos.CENTER_LEFT);
                b.getStyleClass().add("quiet-button");
                b.setSelected(c.equals(capture) && l.equals(level));
                b.setOnAction(e -> {
                    capture = c;
                    level = l;
                    byHand = true;
                    refresh();
                    javafx.application.Platform.runLater(all::requestFocus);
                });
                schedule.getChildren().add(b);
            });
        });
        Sheet.Capture plan = sheet.captures().get(capture);
        if (plan == null) {
            hint.setText("This sheet captures nothing.");
            start.setDisable(true);
            return;
        }
        String what = plan.levels().get(level).label() == null ? level : plan.levels().get(level).label();
        hint.setText((desk.bench().next().isPresent() ? "Next: " : "All runs are taken. Another one of: ") + plan.label() + ", " + what + ". " + plan.hint());
        if (shown == null && pending == null && desk.rig().isEmpty()) {
            shown = desk.run().orElse(null);
        }
        refreshControls();
        typed.refresh();
        if (!recording() && pending == null) {
            showStored();
        }
    }

    private static String[] first(Sheet sheet) {
        return sheet.captures().isEmpty() ? new String[] {"", ""}
                : new String[] {sheet.captures().keySet().iterator().next(), sheet.captures().values().iterator().next().levels().keySet().iterator().next()};
    }

    private void refreshControls() {
        boolean running = recording();
        start.setText(running ? "Stop" : "Start");
        start.setDisable(pending != null && !running);
        verdict.setVisible(pending != null && !running);
        if (!running && pending == null) {
            clock.setText("0.0 s");
        }
    }

    private void showStored() {
        if (desk.rig().isPresent() && shown == null) {
            return;
        }
        Run run = shown == null ? null : desk.bench().session().run(shown.id()).orElse(null);
        String channel = desk.bench().sheet().captures().get(capture).channels().get(0);
        Plot plot = run == null ? null : SessionPlots.run(desk.bench().reduction(), run, channel).orElse(null);
        if (run != null) {
            clock.setText(run.name() + ", " + SessionPlots.levelLabel(desk.bench().reduction(), run));
        }
        position.plot(plot == null ? null : plot.withoutHandles(), false);
        speed.plot(run == null ? null : desk.bench().reduction().trace(run, channel).map(this::rate).orElse(null), false);
    }

    @Override
    public void tick() {
        if (desk.rig().isEmpty() || desk.bench().sheet().captures().get(capture) == null) {
            watchLine.setText("");
            return;
        }
        LiveRig rig = desk.rig().get();
        boolean running = recording();
        if (!running && (pending != null || shown != null)) {
            if (pending != null) {
                return;
            }
            if (shown != null && !desk.rig().get().isSimulated()) {
                shown = null;
            }
            if (shown != null) {
                liveWatch(rig, rig.last(channelName(), 1.0));
                return;
            }
        }
        RawSamples raw = running || pending != null ? rig.all(channelName()) : rig.last(channelName(), 6);
        if (running) {
            double t = raw.size() == 0 ? 0 : raw.time()[raw.size() - 1];
            clock.setText(String.format(java.util.Locale.ROOT, "%.1f s", t));
            if (t > desk.bench().sheet().captures().get(capture).longest()) {
                stop();
                Notices.tell(all, "The run reached its longest time and was stopped.");
            }
        }
        draw(raw, running ? "Recording" : "Live");
        liveWatch(rig, running ? raw : rig.last(channelName(), 1.0));
    }

    private String channelName() {
        return desk.bench().sheet().captures().get(capture).channels().get(0);
    }

    private void draw(RawSamples raw, String title) {
        Sheet.Channel channel = desk.bench().session().channel(desk.bench().sheet(), channelName());
        Chain chain = channel.toChain();
        SampleWatch watch = new SampleWatch(channel.label(), chain, channel.rate());
        int n = 0;
        double[] t = new double[raw.size()];
        double[] v = new double[raw.size()];
        for (int i = 0; i < raw.size(); i++) {
            if (!watch.beyondReach(raw.values()[i])) {
                t[n] = raw.time()[i];
                v[n++] = chain.indication(raw.values()[i]);
            }
        }
        if (n < 2) {
            return;
        }
        Trace trace = new Trace(channel.label(), java.util.Arrays.copyOf(t, n), java.util.Arrays.copyOf(v, n), channel.labUnit(), 0, List.of());
        Calibration c = desk.bench().session().calibrationOf(channelName()).orElse(null);
        Trace shownTrace = c == null || c.relation() == Relation.CLOSURE ? trace : c.apply(trace);
        position.plot(new Plot(title, new Plot.Axis("time", "s"), new Plot.Axis(channel.label(), channel.labUnit().pretty()),
                List.of(new Plot.Points(channel.label(), shownTrace.time(), shownTrace.value(), null, false, 0))), false);
        speed.plot(rate(shownTrace), false);
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
        return new Plot(name, new Plot.Axis("time", "s"), new Plot.Axis(name, t.unit().pretty() + "/s"), List.of(new Plot.Level(0, eagerneedle.report.picture.Ink.RULE), new Plot.Points(name, x, y, null, false, 2)));
    }

    private void liveWatch(LiveRig rig, RawSamples raw) {
        Sheet.Channel channel = desk.bench().session().channel(desk.bench().sheet(), channelName());
        String says = rig.news();
        if (says.isEmpty()) {
            List<Finding> found = new SampleWatch(channel.label(), channel.toChain(), channel.rate()).look(0, raw.time(), raw.values());
            says = found.isEmpty() ? "" : found.get(0).message() + " " + found.get(0).cause() + " " + found.get(0).remedy();
        }
        watchLine.setText(says.isEmpty() ? "" : "▲ " + says);
        if (all.getScene() != null && all.getScene().lookup("#watch-strip") instanceof WatchStrip strip) {
            strip.live(says);
        }
    }
}
