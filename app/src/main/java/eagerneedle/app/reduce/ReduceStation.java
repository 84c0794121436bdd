package eagerneedle.app.reduce;

import eagerneedle.app.eye.RunCorrection;
import eagerneedle.app.station.Desk;
import eagerneedle.app.station.StationView;
import eagerneedle.app.widget.Copied;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.Theme;
import eagerneedle.core.edit.Additions;
import eagerneedle.core.session.Run;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import java.util.concurrent.CompletableFuture;
import javafx.application.Platform;
import javafx.beans.binding.Bindings;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;

/**
 * Reduce: the list of runs, and of the run in hand its trace, all runs of its kind over each other, the models it was
 * fitted with, or the table of runs; under them the columns over runs with the lines through them.
 */
public final class ReduceStation implements StationView {
    /** What is shown of the runs. */
    private enum Sight {
        RUN("This run", "The trace with its window, the fit and its residuals"),
        ALL("All runs", "All runs of this kind over each other, and what those of one level give together"),
        WAYS("Ways", "What can be reckoned in several ways: the one taken, and what the others would give"),
        MODELS("Models", "The models that this run was fitted with, side by side"),
        TABLE("Table", "All runs as a table; columns and results can be added by formula");

        private final String title;
        private final String says;

        Sight(String title, String says) {
            this.title = title;
            this.says = says;
        }
    }

    private static final double ROOMY = 860;
    private final Desk desk;
    private final ReduceModel model;
    private final HBox all = new HBox(16);
    private final RunList runs;
    private final RunTrace one;
    private final RunsTogether together;
    private final ModelChoice models;
    private final WaysPanel ways;
    private final RunTable table;
    private final StackPane sights = new StackPane();
    private final Map<Sight, ToggleButton> sightButtons = new EnumMap<>(Sight.class);
    private Sight sight = Sight.RUN;
    private final ColumnsPanel columns;
    private final HBox below;
    private final Label title = Labels.styled("", "section");
    private final Label says = Labels.quiet("");
    private final Label listed = Labels.quiet("");
    private final Label effect = Labels.wrapped("");
    private final Button leave = new Button("Leave out...");
    private final TextField reason = new TextField();
    private final Button correct = new Button("Correct");
    private final Button proposal = new Button("As proposed");
    private final MenuButton windows = new MenuButton("Windows");
    private final MenuButton fit = new MenuButton("Fit");
    private final Button longRuns = new Button();
    private @Nullable CompletableFuture<Void> working;

    public ReduceStation(Desk desk) {
        this.desk = desk;
        model = new ReduceModel(desk);
        runs = new RunList(model);
        one = new RunTrace(desk);
        together = new RunsTogether(desk);
        models = new ModelChoice(desk);
        ways = new WaysPanel(desk);
        table = new RunTable(desk);
        columns = new ColumnsPanel(model, this::leaveOut);
        all.getStyleClass().add("surface");
        below = new HBox(14, columns, one.otherwise());
        HBox.setHgrow(columns, Priority.ALWAYS);
        one.otherwise().setPrefWidth(Theme.px(320));
        one.otherwise().setMinWidth(Theme.px(225));
        below.setPrefHeight(Theme.px(246));
        below.setMinHeight(Theme.px(200));
        VBox.setVgrow(sights, Priority.ALWAYS);
        asking(false);
        VBox right = new VBox(3, new HBox(4, sightBar(), columns.choice()), head(), effect, sights, below);
        HBox.setHgrow(right, Priority.ALWAYS);
        all.getChildren().addAll(list(), right);
        see(Sight.RUN);
    }

    private VBox list() {
        VBox.setVgrow(runs, Priority.ALWAYS);
        Button copy = new Button("Copy");
        copy.setId("copy-runs");
        copy.getStyleClass().add("quiet-button");
        copy.setOnAction(e -> copyTable());
        Labels.explained(
                copy,
                "Copy the table of runs for a spreadsheet: every quantity of every run with its standard uncertainty");
        Region wide = new Region();
        HBox.setHgrow(wide, Priority.ALWAYS);
        Label name = Labels.heading("Runs");
        name.setMinWidth(Region.USE_PREF_SIZE);
        copy.setMinWidth(Region.USE_PREF_SIZE);
        listed.setMinWidth(0);
        HBox head = new HBox(6, name, wide, listed, copy);
        head.setAlignment(Pos.CENTER_LEFT);
        longRuns.setId("long-runs");
        longRuns.setOnAction(e -> workOutLong());
        Labels.explained(
                longRuns,
                "Reads every sample of runs that are too long to be worked out whenever the session opens; it "
                        + "may take minutes");
        VBox left = new VBox(6, head, longRuns, runs);
        left.setPrefWidth(Theme.px(188));
        left.setMinWidth(Theme.px(180));
        return left;
    }

    private HBox head() {
        leave.setId("leave-out");
        leave.getStyleClass().add("quiet-button");
        leave.setOnAction(e -> leaveOut());
        Labels.explained(
                leave,
                "Leave this run out of the results, with a reason; it stays in the session. A click on its point "
                        + "in the picture below asks the same");
        correct.setId("correct");
        correct.getStyleClass().add("quiet-button");
        correct.setMinWidth(Region.USE_PREF_SIZE);
        correct.setOnAction(e -> model.run().ifPresent(this::correct));
        Labels.explained(
                correct,
                "Put this run right: its name, its level, what was read by eye, a picture (F2 in the list of runs); what "
                        + "stood there stays in the notebook");
        runs.onCorrect(() -> model.run().ifPresent(this::correct));
        effect.setId("leave-effect");
        reason.setId("reason");
        reason.setPromptText("why is it left out? Enter keeps, Escape forgets");
        reason.setAccessibleText("Reason for leaving the run out");
        reason.setPrefWidth(Theme.px(290));
        reason.setMinWidth(Theme.px(160));
        reason.setOnAction(e -> giveReason());
        reason.setOnKeyPressed(e -> {
            if (e.getCode() == KeyCode.ESCAPE) {
                asking(false);
                one.focus().requestFocus();
            }
        });
        proposal.getStyleClass().add("quiet-button");
        proposal.setId("proposal");
        proposal.setOnAction(e -> Notices.attempt(all, model::propose));
        Labels.explained(proposal, "Take the proposed window again");
        windows.setId("windows");
        windows.getStyleClass().add("quiet-button");
        Labels.explained(
                windows,
                "Move the windows of all runs of this kind as here, propose them all again, take samples in again");
        windows.setOnShowing(e -> windowMenu());
        fit.setId("fit");
        fit.getStyleClass().add("quiet-button");
        fit.setMinWidth(Region.USE_PREF_SIZE);
        Labels.explained(
                fit,
                "Fit a model to the trace that is shown, within its window; the curve, its residuals and its parameters "
                        + "stand for every run of this kind");
        fit.setOnShowing(e -> fitMenu());
        // In a small window the name gives way to what can be done.
        title.minWidthProperty()
                .bind(Bindings.when(all.widthProperty().greaterThan(ROOMY))
                        .then(118.0)
                        .otherwise(48.0));
        says.setMinWidth(0);
        windows.setMinWidth(Region.USE_PREF_SIZE);
        proposal.setMinWidth(Region.USE_PREF_SIZE);
        leave.setMinWidth(Region.USE_PREF_SIZE);
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        HBox head = new HBox(6, title, says, reason, gap, correct, fit, windows, proposal, leave);
        head.setAlignment(Pos.CENTER_LEFT);
        return head;
    }

    private HBox sightBar() {
        HBox bar = new HBox(2);
        ToggleGroup group = new ToggleGroup();
        for (Sight s : Sight.values()) {
            ToggleButton b = new ToggleButton(s.title);
            b.setId("sight-" + s.name().toLowerCase(java.util.Locale.ROOT));
            b.getStyleClass().add("quiet-button");
            b.setToggleGroup(group);
            b.setOnAction(e -> see(s));
            Labels.explained(b, s.says);
            b.setMinWidth(Region.USE_PREF_SIZE);
            sightButtons.put(s, b);
            bar.getChildren().add(b);
        }
        HBox.setHgrow(bar, Priority.ALWAYS);
        return bar;
    }

    private void see(Sight s) {
        sight = s;
        Objects.requireNonNull(sightButtons.get(s)).setSelected(true);
        sights.getChildren()
                .setAll(
                        switch (s) {
                            case RUN -> one;
                            case ALL -> together;
                            case MODELS -> models;
                            case WAYS -> ways;
                            case TABLE -> table;
                        });
        one.otherwise().setVisible(s == Sight.RUN);
        one.otherwise().setManaged(s == Sight.RUN);
        refresh();
    }

    private void windowMenu() {
        windows.getItems().clear();
        model.see(one.seen());
        if (model.lacksWindow()) {
            windows.getItems().add(item("Put a window on this trace", model::putWindow));
        }
        for (ReduceModel.Act act : model.windowActs()) {
            windows.getItems().add(item(act.words(), act.run()));
        }
        if (windows.getItems().isEmpty()) {
            windows.getItems().add(new MenuItem("This kind of run has no window."));
        }
    }

    private void fitMenu() {
        fit.getItems().clear();
        model.see(one.seen());
        for (Additions.Curve curve : Additions.Curve.values()) {
            fit.getItems().add(item(TraceModel.capital(curve.label()), () -> model.fit(curve)));
        }
        model.fits()
                .forEach((name, formula) -> fit.getItems().add(item("Take away " + formula, () -> model.unfit(name))));
    }

    private MenuItem item(String words, Runnable act) {
        MenuItem i = new MenuItem(words);
        i.setOnAction(e -> Notices.attempt(all, act));
        return i;
    }

    private void workOutLong() {
        if (working != null) {
            working.cancel(false);
            working = null;
        } else {
            working = desk.bench().workOutLongRuns(Platform::runLater);
            working.whenComplete((done, failed) -> {
                working = null;
                if (failed != null && !(failed instanceof CancellationException)) {
                    Notices.warn(
                            all,
                            "The long runs could not be worked out: there is not enough memory for them, or the "
                                    + "file cannot be read. Nothing was changed.");
                }
                refresh();
            });
        }
        refresh();
    }

    /** Leaves the run in hand out, once a reason is given, or takes it in again. */
    private void correct(Run run) {
        Notices.attempt(all, () -> RunCorrection.open(all, desk.bench(), run));
    }

    private void leaveOut() {
        model.run().ifPresent(run -> {
            if (run.leftOut() != null) {
                Notices.attempt(all, () -> model.leaveOut(null));
            } else {
                asking(true);
                reason.requestFocus();
            }
        });
    }

    private void asking(boolean ask) {
        Labels.shown(reason, ask);
        Labels.says(effect, ask ? model.without() : "");
    }

    private void giveReason() {
        if (!reason.getText().isBlank() && Notices.attempt(all, () -> model.leaveOut(reason.getText()))) {
            reason.clear();
            asking(false);
            one.focus().requestFocus();
        }
    }

    @Override
    public Node node() {
        return all;
    }

    @Override
    public Optional<Node> focus() {
        return Optional.of(sight == Sight.RUN ? one.focus() : Objects.requireNonNull(sightButtons.get(sight)));
    }

    @Override
    public void refresh() {
        boolean severalModels = model.hasModels();
        boolean severalWays = ways.model().hasWays();
        offer(Sight.MODELS, severalModels);
        offer(Sight.WAYS, severalWays);
        if (!severalModels && sight == Sight.MODELS || !severalWays && sight == Sight.WAYS) {
            see(Sight.RUN);
            return;
        }
        longRuns.setVisible(working != null || desk.bench().hasLongRuns());
        longRuns.setManaged(longRuns.isVisible());
        longRuns.setText(working == null ? "Work out long runs" : "Working... Cancel");
        runs.refresh();
        listed.setText(model.listed());
        Optional<ReduceModel.Head> head = model.head();
        title.setText(head.map(ReduceModel.Head::title).orElse(""));
        says.setText(head.map(ReduceModel.Head::says).orElse(""));
        head.ifPresent(h -> leave.setText(h.leave()));
        one.refresh();
        model.see(one.seen());
        boolean fittable = model.mayFit();
        Labels.shown(fit, fittable);
        boolean windowed = model.hasWindows();
        List.of(windows, proposal).forEach(b -> {
            Labels.shown(b, windowed);
        });
        leave.setDisable(head.isEmpty());
        correct.setDisable(head.isEmpty());
        windows.setDisable(head.isEmpty());
        proposal.setDisable(!model.head().map(ReduceModel.Head::moved).orElse(false));
        switch (sight) {
            case ALL -> together.refresh();
            case MODELS -> models.refresh();
            case WAYS -> ways.refresh();
            case TABLE -> table.refresh();
            case RUN -> {}
        }
        columns.refresh();
        below.setVisible(sight == Sight.RUN && one.hasOtherwise()
                || (sight == Sight.RUN || sight == Sight.ALL) && columns.isVisible());
        below.setManaged(below.isVisible());
    }

    private void offer(Sight s, boolean there) {
        Objects.requireNonNull(sightButtons.get(s)).setVisible(there);
        sightButtons.get(s).setManaged(there);
    }

    /** The tables of all captures, for a spreadsheet. */
    private void copyTable() {
        Copied.table(model.tables());
        Notices.tell(all, "The table of runs is on the clipboard.");
    }

    @Override
    public void tick() {
        one.tick();
    }
}
