package eagerneedle.app.reduce;

import eagerneedle.app.plot.PlotView;
import eagerneedle.app.station.Desk;
import eagerneedle.app.station.StationView;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.core.fit.Fit;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Ledger;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.session.Command;
import eagerneedle.core.session.ReduceCommand;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.RunCommand;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.trace.Window;
import eagerneedle.picture.Layer;
import eagerneedle.picture.Plot;
import eagerneedle.picture.SessionPlots;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ChoiceBox;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.input.Clipboard;
import javafx.scene.input.ClipboardContent;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;

/**
 * Reduce: the list of runs, and of the run in hand its trace, all runs of its kind over each other, the models it was
 * fitted with, or the table of runs; under them the columns over runs with the lines through them.
 */
public final class ReduceStation implements StationView {
    /** What is shown of the runs. */
    private enum Sight {
        RUN("This run", "The trace with its window, the fit and its residuals"),
        ALL("All runs", "All runs of this kind over each other, and what those of one level give together"),
        MODELS("Models", "The models that this run was fitted with, side by side"),
        TABLE("Table", "All runs as a table; columns and results can be added by formula");

        private final String title;
        private final String says;

        Sight(String title, String says) {
            this.title = title;
            this.says = says;
        }
    }

    private final Desk desk;
    private final HBox all = new HBox(16);
    private final VBox runs = new VBox(1);
    private final ScrollPane runScroll = new ScrollPane(runs);
    private final RunTrace one;
    private final RunsTogether together;
    private final ModelChoice models;
    private final RunTable table;
    private final StackPane sights = new StackPane();
    private final Map<Sight, ToggleButton> sightButtons = new EnumMap<>(Sight.class);
    private Sight sight = Sight.RUN;
    private final PlotView columns = new PlotView("Columns over runs");
    private final PlotView columnResiduals = new PlotView("Residuals over runs");
    private final HBox below;
    private final Label title = Labels.styled("", "section");
    private final Label says = Labels.quiet("");
    private final Label what = Labels.quiet("");
    private final Label effect = Labels.wrapped("");
    private final Button leave = new Button("Leave out...");
    private final TextField reason = new TextField();
    private final Button proposal = new Button("Proposed window");
    private final MenuButton windows = new MenuButton("Windows");
    private final Button longRuns = new Button();
    private java.util.concurrent.CompletableFuture<Void> working;
    private final ChoiceBox<String> which = new ChoiceBox<>();

    public ReduceStation(Desk desk) {
        this.desk = desk;
        this.one = new RunTrace(desk);
        this.together = new RunsTogether(desk);
        this.models = new ModelChoice(desk);
        this.table = new RunTable(desk);
        all.getStyleClass().add("surface");
        runScroll.setFitToWidth(true);
        runScroll.getStyleClass().add("bare");
        VBox.setVgrow(runScroll, Priority.ALWAYS);
        Button copy = new Button("Copy");
        copy.setId("copy-runs");
        copy.getStyleClass().add("quiet-button");
        copy.setOnAction(e -> copyTable());
        Labels.explained(
                copy,
                "Copy the table of runs for a spreadsheet: every quantity of every run with its standard uncertainty");
        Region wide = new Region();
        HBox.setHgrow(wide, Priority.ALWAYS);
        HBox runsHead = new HBox(6, Labels.heading("Runs"), wide, what, copy);
        runsHead.setAlignment(Pos.CENTER_LEFT);
        longRuns.setId("long-runs");
        longRuns.setOnAction(e -> workOutLong());
        Labels.explained(
                longRuns,
                "Reads every sample of runs that are too long to be worked out whenever the session opens; it "
                        + "may take minutes");
        VBox left = new VBox(6, runsHead, longRuns, runScroll);
        left.setPrefWidth(188);
        left.setMinWidth(180);
        columns.emptySays("The line appears when two runs take part.");
        columns.setId("columns");
        columns.onPoint(this::pickPoint);
        columnResiduals.share(columns);
        columns.showTimeAxis(false);
        columnResiduals.setPrefHeight(86);
        columnResiduals.setMinHeight(78);
        leave.setId("leave-out");
        leave.getStyleClass().add("quiet-button");
        leave.setOnAction(e -> leaveOut());
        Labels.explained(
                leave,
                "Leave this run out of the results, with a reason; it stays in the session. A click on its point "
                        + "in the picture below asks the same");
        effect.setId("leave-effect");
        reason.setId("reason");
        reason.setPromptText("why is it left out? Enter keeps, Escape forgets");
        reason.setAccessibleText("Reason for leaving the run out");
        reason.setPrefWidth(290);
        reason.setMinWidth(160);
        reason.setOnAction(e -> giveReason());
        reason.setOnKeyPressed(e -> {
            if (e.getCode() == KeyCode.ESCAPE) {
                asking(false);
                one.focus().requestFocus();
            }
        });
        proposal.getStyleClass().add("quiet-button");
        proposal.setId("proposal");
        proposal.setOnAction(e -> current()
                .ifPresent(run -> windowName(run)
                        .ifPresent(w -> desk.bench().apply(new ReduceCommand.SetWindow(run.id(), w, null)))));
        Labels.explained(proposal, "Take the proposed window again");
        windows.setId("windows");
        windows.getStyleClass().add("quiet-button");
        Labels.explained(
                windows,
                "Move the windows of all runs of this kind as here, propose them all again, take samples in again");
        windows.setOnShowing(e -> windowMenu());
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        HBox head = new HBox(8, title, says, reason, gap, windows, proposal, leave);
        head.setAlignment(Pos.CENTER_LEFT);
        VBox.setVgrow(sights, Priority.ALWAYS);
        VBox lines = new VBox(0, columns, columnResiduals);
        VBox.setVgrow(columns, Priority.ALWAYS);
        below = new HBox(14, lines, one.otherwise());
        HBox.setHgrow(lines, Priority.ALWAYS);
        one.otherwise().setPrefWidth(320);
        one.otherwise().setMinWidth(225);
        lines.setPrefWidth(330);
        lines.setMinWidth(245);
        title.setMinWidth(Region.USE_PREF_SIZE);
        says.setMinWidth(0);
        windows.setMinWidth(Region.USE_PREF_SIZE);
        proposal.setMinWidth(Region.USE_PREF_SIZE);
        leave.setMinWidth(Region.USE_PREF_SIZE);
        below.setPrefHeight(246);
        below.setMinHeight(200);
        desk.bench().sheet().pictures().forEach(p -> which.getItems().add(p.title()));
        which.getSelectionModel().selectFirst();
        which.setId("which-picture");
        which.setAccessibleText("Picture of columns over runs");
        which.setVisible(which.getItems().size() > 1);
        which.setManaged(which.isVisible());
        which.setOnAction(e -> refresh());
        asking(false);
        VBox right = new VBox(3, new HBox(4, sightBar(), which), head, effect, sights, below);
        HBox.setHgrow(right, Priority.ALWAYS);
        all.getChildren().addAll(left, right);
        see(Sight.RUN);
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
        sightButtons.get(s).setSelected(true);
        sights.getChildren()
                .setAll(
                        switch (s) {
                            case RUN -> one;
                            case ALL -> together;
                            case MODELS -> models;
                            case TABLE -> table;
                        });
        below.setVisible(s == Sight.RUN || s == Sight.ALL);
        below.setManaged(below.isVisible());
        one.otherwise().setVisible(s == Sight.RUN);
        one.otherwise().setManaged(s == Sight.RUN);
        refresh();
    }

    /** A point in the picture over runs was clicked: its run is the one in hand, and whether it takes part is asked. */
    private void pickPoint(Layer.Points layer, int index) {
        picture()
                .flatMap(p -> SessionPlots.runOf(desk.bench().reduction(), p, layer, index))
                .ifPresent(run -> {
                    desk.choose(run);
                    leaveOut();
                });
    }

    private void windowMenu() {
        windows.getItems().clear();
        current().ifPresent(run -> {
            windowName(run).ifPresent(w -> {
                item("All runs of this kind: edges moved as here", () -> asHere(run, w));
                item(
                        "All runs of this kind: proposed again",
                        () -> desk.bench()
                                .apply(new Command.Together(
                                        "Took the proposed windows of all runs of " + run.capture() + " again.",
                                        proposals(run, w))));
            });
            run.entries()
                    .voided()
                    .forEach(v -> item(
                            String.format(
                                    java.util.Locale.ROOT,
                                    "Take %.3f s to %.3f s in again (%s)",
                                    v.from(),
                                    v.to(),
                                    v.reason()),
                            () -> desk.bench().apply(new RunCommand.CountSamples(run.id(), v))));
        });
        if (windows.getItems().isEmpty()) {
            item("This kind of run has no window.", () -> {});
        }
    }

    private void item(String words, Runnable act) {
        MenuItem i = new MenuItem(words);
        i.setOnAction(e -> Notices.attempt(all, act));
        windows.getItems().add(i);
    }

    private List<Command> proposals(Run run, String window) {
        return desk.bench().session().keptRuns().stream()
                .filter(x -> x.capture().equals(run.capture()))
                .map(x -> (Command) new ReduceCommand.SetWindow(x.id(), window, null))
                .toList();
    }

    /**
     * Moves the edges of every run's window by as much as they were moved here from what is proposed, each from its own
     * proposal.
     */
    private void asHere(Run run, String window) {
        Reduction proposed = desk.bench().whatIf(new Command.Together("proposals", proposals(run, window)));
        Window here = desk.bench()
                .reduction()
                .window(run, window)
                .orElseThrow(() -> new IllegalArgumentException("This run has no window to take the others from."));
        Window own = proposed.window(run, window)
                .orElseThrow(() -> new IllegalArgumentException(
                        "No window can be proposed for this run, so the others cannot be moved as here."));
        List<Command> acts = new java.util.ArrayList<>();
        for (Run x : desk.bench().session().keptRuns()) {
            if (x.capture().equals(run.capture())) {
                proposed.window(x, window)
                        .map(p -> new Window(
                                p.from() + here.from() - own.from(),
                                p.to() + here.to() - own.to(),
                                "moved as in " + run.name()))
                        .filter(p -> p.to() > p.from())
                        .ifPresent(p -> acts.add(new ReduceCommand.SetWindow(x.id(), window, p)));
            }
        }
        desk.bench()
                .apply(new Command.Together(
                        "Moved the windows of " + acts.size() + " runs as in " + run.name() + ".", acts));
    }

    private void workOutLong() {
        if (working != null) {
            working.cancel(false);
            working = null;
        } else {
            working = desk.bench().workOutLongRuns(javafx.application.Platform::runLater);
            working.whenComplete((done, failed) -> {
                working = null;
                if (failed != null && !(failed instanceof java.util.concurrent.CancellationException)) {
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

    private Optional<Run> current() {
        return desk.run().flatMap(r -> desk.bench().session().run(r.id())).filter(r -> r.discard() == null);
    }

    private Optional<String> windowName(Run run) {
        return desk.bench().sheet().captures().get(run.capture()).windows().keySet().stream()
                .findFirst();
    }

    private void leaveOut() {
        current().ifPresent(run -> {
            if (run.leftOut() != null) {
                desk.bench().apply(new RunCommand.LeaveOut(run.id(), null));
                return;
            }
            asking(true);
            reason.requestFocus();
        });
    }

    private void asking(boolean ask) {
        reason.setVisible(ask);
        reason.setManaged(ask);
        effect.setVisible(ask);
        effect.setManaged(ask);
        effect.setText(ask ? current().map(this::without).orElse("") : "");
    }

    /** What the main result would be without a run. */
    private String without(Run run) {
        Sheet.Comparison main = desk.bench().sheet().mainComparison();
        if (main == null) {
            return "";
        }
        Optional<Quantity> now = desk.bench().reduction().quantity(main.result());
        Optional<Quantity> then =
                desk.bench().whatIf(new RunCommand.LeaveOut(run.id(), "tried")).quantity(main.result());
        String label = desk.bench().sheet().results().containsKey(main.result())
                ? desk.bench().sheet().results().get(main.result()).label()
                : main.result();
        return now.isEmpty()
                ? ""
                : then.map(t -> "Without it " + label + " would be " + t + "; with it, it is " + now.get() + ".")
                        .orElse("Without it there is no " + label + ".");
    }

    private void giveReason() {
        current().filter(run -> !reason.getText().isBlank()).ifPresent(run -> {
            if (Notices.attempt(
                    all,
                    () -> desk.bench()
                            .apply(new RunCommand.LeaveOut(
                                    run.id(), reason.getText().strip())))) {
                reason.clear();
                asking(false);
                one.focus().requestFocus();
            }
        });
    }

    @Override
    public Node node() {
        return all;
    }

    @Override
    public Optional<Node> focus() {
        return Optional.of(sight == Sight.RUN ? one.focus() : sightButtons.get(sight));
    }

    @Override
    public void refresh() {
        Reduction r = desk.bench().reduction();
        longRuns.setVisible(working != null || desk.bench().hasLongRuns());
        longRuns.setManaged(longRuns.isVisible());
        longRuns.setText(working == null ? "Work out long runs" : "Working... Cancel");
        list(r);
        Run run = current().orElse(null);
        leave.setDisable(run == null);
        windows.setDisable(run == null);
        boolean severalModels = run != null && ModelChoice.has(desk.bench().sheet(), run);
        sightButtons.get(Sight.MODELS).setVisible(severalModels);
        sightButtons.get(Sight.MODELS).setManaged(severalModels);
        if (!severalModels && sight == Sight.MODELS) {
            see(Sight.RUN);
            return;
        }
        if (run == null) {
            title.setText("");
            says.setText("");
            proposal.setDisable(true);
        } else {
            show(r, run);
        }
        one.refresh();
        switch (sight) {
            case ALL -> together.refresh();
            case MODELS -> models.refresh();
            case TABLE -> table.refresh();
            default -> {}
        }
        columns.plot(picture().flatMap(p -> SessionPlots.columns(r, p)).orElse(null), false);
        Optional<Plot> rest = picture().flatMap(p -> SessionPlots.residuals(r, p));
        columnResiduals.plot(rest.orElse(null), false);
        columnResiduals.setVisible(rest.isPresent());
        columnResiduals.setManaged(rest.isPresent());
        columns.showTimeAxis(rest.isEmpty());
    }

    /** The picture that is chosen; the first one until then. */
    private Optional<Sheet.Picture> picture() {
        return desk.bench().sheet().pictures().stream()
                .filter(p -> p.title().equals(which.getValue()))
                .findFirst();
    }

    private void list(Reduction r) {
        double at = runScroll.getVvalue();
        runs.getChildren().clear();
        String capture = "";
        for (Run run : desk.bench().session().keptRuns()) {
            Capture c = desk.bench().sheet().captures().get(run.capture());
            if (!run.capture().equals(capture)) {
                capture = run.capture();
                runs.getChildren()
                        .add(Labels.styled(
                                (c == null ? capture : c.label()).toUpperCase(java.util.Locale.ROOT), "group"));
            }
            Optional<Ledger.Entry> first = r.headline(run);
            first.flatMap(Ledger.Entry::quantity)
                    .ifPresent(q -> what.setText(
                            first.get().symbol() == null
                                    ? q.unit().pretty()
                                    : first.get().symbol() + ", " + q.unit().pretty()));
            String value = first.flatMap(Ledger.Entry::quantity)
                    .map(q -> Notation.bracketed(q.value(), q.u()))
                    .orElse("—");
            Label name = Labels.styled(run.name(), "section");
            name.setMinWidth(0);
            Region gap = new Region();
            HBox.setHgrow(gap, Priority.ALWAYS);
            Label number = Labels.figure(value);
            number.setMinWidth(Region.USE_PREF_SIZE);
            HBox line = new HBox(4, name, gap, number);
            VBox row = new VBox(
                    0,
                    line,
                    Labels.quiet(SessionPlots.levelLabel(r, run)
                            + (run.leftOut() == null ? "" : " · left out: " + run.leftOut())));
            row.getStyleClass().add("run-row");
            row.setId("run-" + run.id());
            row.setFocusTraversable(true);
            row.setAccessibleText(run.name() + ", " + value);
            if (run.leftOut() != null) {
                row.getStyleClass().add("left-out");
            }
            if (desk.run().map(x -> x.id() == run.id()).orElse(false)) {
                row.getStyleClass().add("chosen");
            }
            row.setOnMouseClicked(e -> desk.choose(run));
            row.setOnKeyPressed(e -> {
                if (e.getCode() == KeyCode.ENTER) {
                    desk.choose(run);
                    e.consume();
                } else if (e.getCode() == KeyCode.DOWN || e.getCode() == KeyCode.UP) {
                    step(run, e.getCode() == KeyCode.DOWN ? 1 : -1);
                    e.consume();
                }
            });
            runs.getChildren().add(row);
        }
        if (runs.getChildren().isEmpty()) {
            runs.getChildren().add(Labels.quiet("No runs yet."));
        }
        runScroll.setVvalue(at);
    }

    /** The tables of all captures, for a spreadsheet. */
    private void copyTable() {
        Reduction r = desk.bench().reduction();
        StringBuilder b = new StringBuilder();
        desk.bench().sheet().captures().forEach((name, capture) -> {
            String rows = RunTable.tabbed(r, name);
            b.append(rows.isEmpty() ? "" : capture.label() + "\n" + rows);
        });
        ClipboardContent c = new ClipboardContent();
        c.putString(b.toString());
        Clipboard.getSystemClipboard().setContent(c);
        Notices.tell(all, "The table of runs is on the clipboard.");
    }

    private void step(Run from, int by) {
        List<Run> kept = desk.bench().session().keptRuns();
        int i = kept.stream().map(Run::id).toList().indexOf(from.id()) + by;
        if (i >= 0 && i < kept.size()) {
            desk.choose(kept.get(i));
            Node row = runs.lookup("#run-" + kept.get(i).id());
            if (row != null) {
                row.requestFocus();
            }
        }
    }

    private void show(Reduction r, Run run) {
        title.setText(run.name() + ", " + SessionPlots.levelLabel(r, run));
        Optional<Fit> fit = r.fitOfRun(run);
        says.setText(
                fit.map(f -> f.x().length + " points · residual SD " + SessionPlots.finely(f.residualSd(), f.yUnit())
                                + " · " + (f.remarks().isEmpty() ? "no pattern" : "a pattern in the residuals"))
                        .orElse(""));
        leave.setText(run.leftOut() == null ? "Leave out..." : "Take in again");
        Optional<String> window = windowName(run);
        proposal.setDisable(window.isEmpty() || !run.windows().containsKey(window.get()));
    }

    @Override
    public void tick() {
        one.tick();
    }
}
