package eagerneedle.app.reduce;

import eagerneedle.app.plot.PictureView;
import eagerneedle.app.plot.PlotView;
import eagerneedle.app.station.Desk;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.core.fit.Fit;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Key;
import eagerneedle.core.reduce.Ledger;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.session.Command;
import eagerneedle.core.session.ReduceCommand;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.RunCommand;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.trace.Cursor;
import eagerneedle.core.trace.Trace;
import eagerneedle.core.trace.Window;
import eagerneedle.core.trace.WindowStatistics;
import eagerneedle.picture.Plot;
import eagerneedle.picture.SessionPlots;
import eagerneedle.picture.ValueRows;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ChoiceBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/**
 * One run: its trace with window and fit, the residuals, other channels under it, figures of the window or of two
 * cursors, and what other windows would give.
 */
final class RunTrace extends VBox {
    private static final String ALL = "all channels";
    private static final Map<String, Double> OTHERWISE = new LinkedHashMap<>();

    static {
        OTHERWISE.put("both edges in 10 %", -0.10);
        OTHERWISE.put("both edges in 5 %", -0.05);
        OTHERWISE.put("both edges out 5 %", 0.05);
    }

    private final Desk desk;
    private final PlotView trace = new PlotView("Trace of the run");
    private final PlotView residuals = new PlotView("Residuals of the fit");
    private final VBox others = new VBox();
    private final ChoiceBox<String> channels = new ChoiceBox<>();
    private final Label said = Labels.wrapped("");
    private final Label figures = Labels.styled("", "figure-small");
    private final Button voids = new Button("Leave a to b out...");
    private final TextField why = new TextField();
    private final PictureView otherwise = new PictureView("If the window were otherwise", null);
    private double[] cursors = {};
    private Command dragged;
    private int shown = -1;
    private List<String> otherwiseFor = List.of();
    private List<ValueRows.Row> otherwiseRows = List.of();

    RunTrace(Desk desk) {
        super(3);
        this.desk = desk;
        trace.setId("trace");
        trace.emptySays("Capture or import a run first (key 4).");
        trace.onCursors(at -> {
            cursors = at;
            figures();
        });
        residuals.share(trace);
        trace.showTimeAxis(false);
        residuals.setPrefHeight(116);
        residuals.setMinHeight(90);
        said.setId("run-says");
        figures.setId("run-figures");
        figures.setMinWidth(0);
        channels.setId("which-channel");
        channels.setAccessibleText("Channel shown");
        channels.setOnAction(e -> refresh());
        voids.setId("void-span");
        voids.getStyleClass().add("quiet-button");
        voids.setMinWidth(Region.USE_PREF_SIZE);
        voids.setOnAction(e -> asking(true));
        Labels.explained(
                voids, "The samples between the two cursors do not count, for a reason; they stay in the file");
        why.setId("void-span-reason");
        why.setPromptText("why? Enter keeps");
        why.setAccessibleText("Reason for leaving these samples out");
        why.setOnAction(e -> voidSpan());
        asking(false);
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        HBox line = new HBox(8, figures, gap, why, voids, channels);
        line.setAlignment(javafx.geometry.Pos.CENTER_LEFT);
        VBox.setVgrow(trace, Priority.ALWAYS);
        trace.setMinHeight(130);
        getChildren().addAll(said, trace, residuals, others, line);
    }

    /** What would follow from other windows, as a picture to be laid elsewhere. */
    Region otherwise() {
        return otherwise;
    }

    Node focus() {
        return trace;
    }

    private Optional<Run> run() {
        return desk.run().flatMap(r -> desk.bench().session().run(r.id())).filter(r -> r.discard() == null);
    }

    private Capture capture(Run run) {
        return desk.bench().sheet().captures().get(run.capture());
    }

    private Optional<String> windowName(Run run) {
        return capture(run).windows().keySet().stream().findFirst();
    }

    private void asking(boolean ask) {
        why.setVisible(ask);
        why.setManaged(ask);
        voids.setVisible(!ask && cursors.length == 2);
        voids.setManaged(voids.isVisible());
        if (ask) {
            why.requestFocus();
        }
    }

    private void voidSpan() {
        Run run = run().orElseThrow();
        double from = Math.min(cursors[0], cursors[1]);
        double to = Math.max(cursors[0], cursors[1]);
        if (Notices.attempt(
                this, () -> desk.bench().apply(new RunCommand.VoidSamples(run.id(), from, to, why.getText())))) {
            why.clear();
            trace.clearCursors();
            cursors = new double[0];
            asking(false);
            figures();
        }
    }

    void refresh() {
        Reduction r = desk.bench().reduction();
        Run run = run().orElse(null);
        if (run == null) {
            trace.plot(null, false);
            residuals.plot(null, false);
            otherwise.show(null);
            others.getChildren().clear();
            figures.setText("");
            said.setManaged(false);
            channels.setVisible(false);
            return;
        }
        boolean same = shown == run.id();
        shown = run.id();
        offer(run);
        String channel = channel(run);
        Optional<Fit> fit = r.fitOfRun(run);
        said.setText(String.join(
                "\n",
                r.ofRun(run).stream()
                        .filter(e -> e.quantity().isEmpty()
                                && e.outcome().problem() == null
                                && !e.instead().isEmpty())
                        .map(e -> capital(e.label()) + ": " + e.instead())
                        .toList()));
        said.setVisible(!said.getText().isEmpty());
        said.setManaged(said.isVisible());
        Optional<String> window = windowName(run);
        Optional<Plot> plot = SessionPlots.run(r, run, channel);
        double step = r.trace(run, channel).map(Trace::interval).orElse(0.02);
        trace.onWindow(
                step,
                (from, to, finished) ->
                        window.ifPresent(w -> move(run, w, r.trace(run, channel).orElse(null), from, to, finished)));
        trace.plot(plot.orElse(null), same);
        if (plot.isEmpty()) {
            trace.emptySays(Optional.ofNullable(r.ofRun(run, channel).problem()).orElse("There is no trace."));
        }
        residuals.setVisible(fit.isPresent());
        residuals.setManaged(fit.isPresent());
        residuals.plot(SessionPlots.residuals(r, run).orElse(null), same);
        under(r, run, channel);
        if (!same) {
            trace.clearCursors();
            cursors = new double[0];
        }
        asking(false);
        figures();
        otherwise(r, run, window);
    }

    /** The channels of the run to choose from; not there when there is only one. */
    private void offer(Run run) {
        List<String> labels = new ArrayList<>(capture(run).channels().stream()
                .map(c -> desk.bench().sheet().channels().get(c).label())
                .toList());
        if (labels.size() > 1) {
            labels.add(ALL);
        }
        if (!channels.getItems().equals(labels)) {
            channels.setOnAction(null);
            channels.getItems().setAll(labels);
            channels.getSelectionModel().selectFirst();
            channels.setOnAction(e -> refresh());
        }
        channels.setVisible(labels.size() > 1);
        channels.setManaged(labels.size() > 1);
    }

    private String channel(Run run) {
        int i = channels.getSelectionModel().getSelectedIndex();
        List<String> names = capture(run).channels();
        return names.get(i >= 0 && i < names.size() ? i : 0);
    }

    /** The other channels under the first, on the same time axis with scales of their own. */
    private void under(Reduction r, Run run, String first) {
        others.getChildren().clear();
        if (!ALL.equals(channels.getValue())) {
            return;
        }
        for (String c : capture(run).channels()) {
            if (!c.equals(first)) {
                PlotView view = new PlotView("Trace of " + c);
                view.share(trace);
                view.setPrefHeight(110);
                view.setMinHeight(70);
                view.plot(SessionPlots.run(r, run, c).map(Plot::withoutHandles).orElse(null), true);
                others.getChildren().add(view);
            }
        }
    }

    static String capital(String s) {
        return Character.toUpperCase(s.charAt(0)) + s.substring(1);
    }

    /** Numbers of what lies in the window, or at the cursors where they are set. */
    private void figures() {
        Run run = run().orElse(null);
        Reduction r = desk.bench().reduction();
        Optional<Trace> t = run == null ? Optional.empty() : r.trace(run, channel(run));
        voids.setVisible(cursors.length == 2 && !why.isVisible());
        voids.setManaged(voids.isVisible());
        if (t.isEmpty()) {
            figures.setText("");
            return;
        }
        try {
            figures.setText(cursors.length == 0 ? statistics(r, run, t.get()) : atCursors(t.get()));
        } catch (IllegalArgumentException e) {
            figures.setText(e.getMessage());
        }
    }

    private String statistics(Reduction r, Run run, Trace t) {
        Trace in = windowName(run).flatMap(w -> r.window(run, w)).map(t::within).orElse(t);
        if (in.size() < 3 || SessionPlots.ownPoints(r, run, t).isPresent()) {
            return "";
        }
        WindowStatistics s = WindowStatistics.of(in);
        String unit = (" " + t.unit().pretty()).stripTrailing();
        return "window: n %d · mean %s%s · SD %s · least %s, greatest %s%s · %s"
                .formatted(
                        s.n(),
                        Notation.bracketed(s.mean(), s.uMean()),
                        unit,
                        Notation.figures(s.sd(), 2),
                        Notation.plain(s.min(), 5),
                        Notation.plain(s.max(), 5),
                        unit,
                        s.steady(3) ? "steady" : "drifting");
    }

    private String atCursors(Trace t) {
        Cursor a = Cursor.at(t, cursors[0], "cursor a");
        if (cursors.length == 1) {
            return "a: " + a.moment() + ", " + a.value() + "   (a second click sets b)";
        }
        Cursor b = Cursor.at(t, cursors[1], "cursor b");
        Quantity dt = b.moment().minus(a.moment());
        Quantity dv = b.value().minus(a.value());
        LabUnit per = dv.unit().per(LabUnit.SECOND);
        return "a " + a.moment() + ": " + a.value() + " · b " + b.moment() + ": " + b.value() + " · b − a: " + dt + ", "
                + dv + (dt.value() == 0 ? "" : ", " + dv.dividedBy(dt).to(per));
    }

    private void move(Run run, String window, Trace t, double from, double to, boolean finished) {
        if (t == null) {
            return;
        }
        double a = Math.max(t.time()[0], Math.min(from, t.time()[t.size() - 1]));
        double b = Math.min(t.time()[t.size() - 1], Math.max(to, t.time()[0]));
        if (!(b > a)) {
            return;
        }
        Command command = new ReduceCommand.SetWindow(run.id(), window, new Window(a, b, "moved by hand"));
        if (finished) {
            dragged = null;
            Notices.attempt(this, () -> desk.bench().apply(command));
        } else {
            dragged = command;
        }
    }

    /** A drag sends more positions than can be shown; the latest is previewed once a frame. */
    void tick() {
        if (dragged != null) {
            Command latest = dragged;
            dragged = null;
            Notices.attempt(this, () -> desk.bench().preview(latest));
        }
    }

    /** The first quantity of the run under windows a little different from the one chosen. */
    private void otherwise(Reduction r, Run run, Optional<String> window) {
        Optional<Ledger.Entry> entry = r.headline(run).filter(e -> e.quantity().isPresent());
        Optional<Window> chosen = window.flatMap(w -> r.window(run, w));
        if (entry.isEmpty() || chosen.isEmpty()) {
            otherwise.show(null);
            return;
        }
        Quantity now = entry.get().quantity().get();
        List<String> key = List.of(entry.get().key().toString(), chosen.get().toString(), now.toString());
        if (!key.equals(otherwiseFor) && !desk.bench().isPreviewing()) {
            List<ValueRows.Row> rows = new ArrayList<>(List.of(new ValueRows.Row("as chosen", now)));
            OTHERWISE.forEach((label, share) -> whatIf(
                            run,
                            window.get(),
                            chosen.get().grown(share),
                            entry.get().key())
                    .ifPresent(q -> rows.add(new ValueRows.Row(label, q))));
            otherwiseRows = rows;
            otherwiseFor = key;
        }
        List<ValueRows.Row> rows = otherwiseRows;
        double spread = rows.stream().mapToDouble(x -> x.value().value()).max().orElse(0)
                - rows.stream().mapToDouble(x -> x.value().value()).min().orElse(0);
        String foot = entry.get().label() + ", spread " + Notation.figures(spread, 2) + " "
                + now.unit().pretty() + " against u " + Notation.figures(now.u(), 2);
        otherwise.show((s, w, h) -> ValueRows.paint(s, w, h, "If the window were otherwise", foot, rows));
    }

    private Optional<Quantity> whatIf(Run run, String window, Window other, Key key) {
        try {
            return desk.bench()
                    .whatIf(new ReduceCommand.SetWindow(
                            run.id(), window, new Window(Math.max(0, other.from()), other.to(), "what if")))
                    .quantity(key);
        } catch (IllegalArgumentException e) {
            return Optional.empty();
        }
    }
}
