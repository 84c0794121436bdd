package eagerneedle.app.reduce;

import eagerneedle.app.plot.PictureView;
import eagerneedle.app.plot.PlotView;
import eagerneedle.app.station.Desk;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.Rows;
import eagerneedle.app.widget.Theme;
import eagerneedle.core.session.Run;
import eagerneedle.picture.Plot;
import eagerneedle.picture.ValueRows;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import javafx.geometry.Pos;
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
    private final TraceModel model;
    private final PlotView trace = new PlotView("Trace of the run");
    private final PlotView residuals = new PlotView("Residuals of the fit");
    private final VBox otherBox = new VBox();
    private final Rows<String> others;
    private final ChoiceBox<String> channels = new ChoiceBox<>();
    private final Label said = Labels.wrapped("");
    private final Label figures = Labels.styled("", "figure-small");
    private final Button voids = new Button("Leave a to b out...");
    private final TextField why = new TextField();
    private final PictureView otherwise = new PictureView("If the window were otherwise", null);
    private static final String GESTURES =
            "Drag an edge, or move it with the arrow keys. The wheel zooms, a double click shows all.";
    private final Label gestures = Labels.quiet("");
    /** Whoever has moved an edge once knows. */
    private boolean known;

    private double[] cursors = {};
    private int shown = -1;
    private boolean otherwiseThere;

    RunTrace(Desk desk) {
        super(3);
        model = new TraceModel(desk);
        others = Rows.changing(otherBox, Function.identity(), this::below, this::show);
        trace.setId("trace");
        trace.emptySays("Capture or import a run first (key 4).");
        trace.onCursors(at -> {
            cursors = at;
            figures();
        });
        residuals.share(trace);
        trace.showTimeAxis(false);
        residuals.setPrefHeight(Theme.px(116));
        residuals.setMinHeight(Theme.px(90));
        said.setId("run-says");
        figures.setId("run-figures");
        figures.setMinWidth(0);
        channels.setId("which-channel");
        channels.setAccessibleText("Channel shown");
        channels.setMinWidth(Theme.px(96));
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
        line.setAlignment(Pos.CENTER_LEFT);
        VBox.setVgrow(trace, Priority.ALWAYS);
        trace.setMinHeight(Theme.px(130));
        gestures.setId("gestures");
        getChildren().addAll(said, trace, residuals, gestures, otherBox, line);
    }

    /** What would follow from other windows, as a picture to be laid elsewhere. */
    Region otherwise() {
        return otherwise;
    }

    /** True where it has something to say. */
    boolean hasOtherwise() {
        return otherwiseThere;
    }

    Node focus() {
        return trace;
    }

    private void asking(boolean ask) {
        Labels.shown(why, ask);
        offerToVoid();
        if (ask) {
            why.requestFocus();
        }
    }

    private void offerToVoid() {
        voids.setVisible(!why.isVisible() && cursors.length == 2);
        voids.setManaged(voids.isVisible());
    }

    private void voidSpan() {
        if (Notices.attempt(this, () -> model.leaveOut(cursors[0], cursors[1], why.getText()))) {
            why.clear();
            forgetCursors();
            asking(false);
            figures();
        }
    }

    private void forgetCursors() {
        trace.clearCursors();
        cursors = new double[0];
    }

    void refresh() {
        Optional<Run> run = model.run();
        if (run.isPresent()) {
            show(run.get());
            return;
        }
        trace.plot(null, false);
        residuals.plot(null, false);
        otherwise.show(null);
        otherwiseThere = false;
        others.show(List.of());
        figures.setText("");
        Labels.says(said, "");
        channels.setVisible(false);
    }

    private void show(Run run) {
        boolean same = shown == run.id();
        shown = run.id();
        offer(run);
        String channel = channel(run);
        Labels.says(said, model.said(run));
        trace.onWindow(model.step(run, channel), (from, to, finished) -> {
            known = true;
            Notices.attempt(this, () -> model.move(run, channel, from, to, finished));
        });
        trace.onMoment((name, at, finished) ->
                Notices.attempt(this, () -> model.moveMoment(run, channel, name, at, finished)));
        Optional<Plot> plot = model.plot(run, channel);
        trace.plot(plot.orElse(null), same);
        Labels.says(gestures, known || plot.isEmpty() ? "" : GESTURES);
        if (plot.isEmpty()) {
            trace.emptySays(model.noPlot(run, channel));
        }
        Optional<Plot> left = model.residuals(run, channel);
        residuals.setVisible(left.isPresent());
        residuals.setManaged(residuals.isVisible());
        trace.showTimeAxis(left.isEmpty());
        residuals.plot(left.orElse(null), same);
        others.show(TraceModel.ALL.equals(channels.getValue()) ? model.under(run, channel) : List.of());
        if (!same) {
            forgetCursors();
        }
        asking(false);
        figures();
        Optional<WindowsOtherwise.Otherwise> elsewhere = model.otherwise(run, channel);
        otherwiseThere = elsewhere.isPresent();
        elsewhere.ifPresentOrElse(
                o -> otherwise.show(
                        (s, w, h) -> ValueRows.paint(s, w, h, "If the window were otherwise", o.foot(), o.rows())),
                () -> otherwise.show(null));
    }

    /** The channels of the run to choose from; not there when there is only one. */
    private void offer(Run run) {
        List<String> sights = model.sights(run);
        if (!channels.getItems().equals(sights)) {
            channels.setOnAction(null);
            channels.getItems().setAll(sights);
            channels.getSelectionModel().selectFirst();
            channels.setOnAction(e -> refresh());
        }
        channels.setVisible(sights.size() > 1);
        channels.setManaged(sights.size() > 1);
    }

    /** The channel on top. */
    String seen() {
        return model.run().map(this::channel).orElse("");
    }

    private String channel(Run run) {
        return model.channel(run, channels.getSelectionModel().getSelectedIndex());
    }

    /** Another channel under the first, on the same time axis with a scale of its own. */
    private PlotView below(String channel) {
        PlotView view = new PlotView("Trace of " + channel);
        view.share(trace);
        view.setPrefHeight(Theme.px(110));
        view.setMinHeight(Theme.px(70));
        return view;
    }

    private void show(PlotView view, String channel) {
        view.plot(
                model.run()
                        .flatMap(run -> model.plot(run, channel))
                        .map(Plot::withoutHandles)
                        .orElse(null),
                true);
    }

    /** Numbers of what lies in the window, or at the cursors where they are set. */
    private void figures() {
        offerToVoid();
        figures.setText(
                model.run().map(run -> model.figures(channel(run), cursors)).orElse(""));
    }

    /** A drag sends more positions than can be shown; the latest is previewed once a frame. */
    void tick() {
        Notices.attempt(this, model::preview);
    }
}
