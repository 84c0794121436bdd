package eagerneedle.app.writing;

import eagerneedle.app.plot.EquationView;
import eagerneedle.app.plot.PlotView;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Rows;
import eagerneedle.app.widget.Theme;
import eagerneedle.app.workbench.Fault;
import eagerneedle.core.edit.Mend;
import eagerneedle.core.sheet.Descent;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.picture.Plot;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.IntConsumer;
import javafx.application.Platform;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ChoiceBox;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;

/**
 * What a sheet means: its equations, what follows from what, its predicted budget, a rehearsal. Only what is looked at
 * is worked out.
 */
final class MeaningPane extends VBox {
    private enum Side {
        EQUATIONS("Equations"),
        QUANTITIES("Quantities"),
        BUDGET("Budget"),
        REHEARSAL("Rehearsal");

        private final String title;

        Side(String title) {
            this.title = title;
        }
    }

    private final WritingModel model;
    private final IntConsumer go;
    private final VBox content = new VBox(8);
    private final ChoiceBox<String> fault = new ChoiceBox<>();
    private final Button rehearse = new Button("Rehearse");
    private final Button check = new Button("Check on twenty seeds");
    private final Label progress = Labels.quiet("");
    private final Label noRig = Labels.wrapped("The sheet has no rig; write one to rehearse with it.");
    private final PlotView trace = new PlotView("A trace of the rehearsal");
    private final VBox rehearsed = new VBox(6);
    private final Rows<Meaning.Line> rehearsedRows = new Rows<>(rehearsed, l -> line(l, false));
    private final VBox rehearsal =
            new VBox(8, new FlowPane(8, 6, rehearse, fault, check), progress, noRig, trace, rehearsed);
    private final Label said = Labels.wrapped("");
    private final VBox equations = new VBox(8);
    private final Rows<Meaning.Equation> equationRows = new Rows<>(equations, MeaningPane::equation);
    private final VBox budget = new VBox(8);
    private final Rows<Meaning.Line> budgetRows = new Rows<>(budget, l -> line(l, true));
    private final AtomicInteger generation = new AtomicInteger();
    private Side side = Side.EQUATIONS;
    private WritingModel.@Nullable Seen seen;
    private boolean checking;

    /** @param go where a press leads: an offset in the text */
    MeaningPane(WritingModel model, IntConsumer go) {
        super(8);
        this.model = model;
        this.go = go;
        setPrefWidth(Theme.px(400));
        setMinWidth(Theme.px(190));
        FlowPane bar = new FlowPane(2, 2);
        ToggleGroup group = new ToggleGroup();
        for (Side s : Side.values()) {
            ToggleButton b = new ToggleButton(s.title);
            b.setId("side-" + s.name().toLowerCase(java.util.Locale.ROOT));
            b.getStyleClass().add("quiet-button");
            b.setToggleGroup(group);
            b.setMinWidth(Region.USE_PREF_SIZE);
            b.setSelected(s == side);
            b.setOnAction(e -> {
                side = s;
                b.setSelected(true);
                refresh();
            });
            bar.getChildren().add(b);
        }
        rehearse.setId("rehearse");
        rehearse.setOnAction(e -> rehearse());
        Labels.explained(rehearse, "Carries the sheet out once on its simulated rig (Ctrl+R), with the mistake chosen");
        check.setId("check-twenty");
        check.setOnAction(e -> check());
        fault.setId("rehearse-fault");
        fault.setAccessibleText("A mistake at the bench");
        fault.setMaxWidth(Theme.px(180));
        progress.setId("check-progress");
        progress.setWrapText(true);
        rehearsed.setId("rehearsed");
        trace.setPrefHeight(Theme.px(180));
        trace.setMinHeight(Theme.px(150));
        Labels.shown(trace, false);
        said.getStyleClass().add("quiet");
        ScrollPane scroll = new ScrollPane(content);
        scroll.setFitToWidth(true);
        scroll.getStyleClass().add("bare");
        VBox.setVgrow(scroll, Priority.ALWAYS);
        getChildren().addAll(bar, scroll);
    }

    /** A text that was looked through. */
    void show(WritingModel.Seen found) {
        if (seen == null || !seen.text().equals(found.text())) {
            seen = found;
            refresh();
        }
    }

    private void refresh() {
        WritingModel.Seen now = seen;
        if (now == null) {
            return;
        }
        if (now.sheet().isEmpty()) {
            say("What it means stands here as soon as its form is good.");
            return;
        }
        SheetReader.Located located = now.sheet().get();
        Sheet sheet = located.sheet();
        switch (side) {
            case EQUATIONS -> equations(sheet);
            case QUANTITIES -> beside(() -> Descent.of(sheet), items -> descent(located, items));
            case BUDGET -> beside(() -> Meaning.budget(located), this::lines);
            case REHEARSAL -> rehearsal(sheet);
        }
    }

    private void equations(Sheet sheet) {
        List<Meaning.Equation> all = Meaning.equations(sheet);
        if (all.isEmpty()) {
            say("No equation yet: write a principle, or a result.");
        } else {
            shows(equations);
            equationRows.show(all);
        }
    }

    private static VBox equation(Meaning.Equation e) {
        VBox box = new VBox(8);
        if (!e.label().isEmpty()) {
            box.getChildren().add(Labels.quiet(e.label()));
        }
        box.getChildren().add(EquationView.of(e.equation()));
        return box;
    }

    private void say(String words) {
        said.setText(words);
        shows(said);
    }

    private void shows(Node only) {
        if (content.getChildren().size() != 1 || content.getChildren().get(0) != only) {
            content.getChildren().setAll(only);
        }
    }

    /** What follows from what, drawn; a press on a quantity goes to where it is written. */
    private void descent(SheetReader.Located located, List<Descent.Item> items) {
        if (items.isEmpty()) {
            say("Nothing is found from this sheet yet.");
            return;
        }
        shows(new DescentView(items, item -> {
            int[] at = located.places().get(item.pointer());
            if (at != null) {
                go.accept(Mend.offset(located.text(), at[0], at[1]));
            }
        }));
    }

    private void lines(List<Meaning.Line> lines) {
        if (lines.isEmpty()) {
            say("Nothing is found from this sheet yet.");
        } else {
            shows(budget);
            budgetRows.show(lines);
        }
    }

    private interface Work<T> {
        T done();
    }

    private <T> void beside(Work<T> work, java.util.function.Consumer<T> then) {
        int mine = generation.incrementAndGet();
        CompletableFuture.supplyAsync(work::done)
                .whenComplete((found, failed) -> Platform.runLater(() -> {
                    if (mine == generation.get()) {
                        if (failed == null) {
                            then.accept(found);
                        } else {
                            say(Fault.said(failed));
                        }
                    }
                }));
    }

    private void rehearsal(Sheet sheet) {
        List<String> faults = Meaning.faults(sheet);
        String chosen = fault.getValue();
        if (!faults.equals(fault.getItems())) {
            fault.getItems().setAll(faults);
            fault.getSelectionModel()
                    .select(faults.contains(chosen) ? chosen : faults.isEmpty() ? null : faults.get(0));
        }
        boolean can = Meaning.canRehearse(sheet);
        rehearse.setDisable(!can);
        check.setDisable(!can);
        Labels.shown(progress, can);
        Labels.shown(noRig, !can);
        shows(rehearsal);
    }

    /** Carries the sheet out once, with the mistake that is chosen. */
    void rehearse() {
        WritingModel.Seen of = seen;
        if (of == null || of.sheet().isEmpty() || !of.problems().isEmpty()) {
            return;
        }
        if (side != Side.REHEARSAL) {
            side = Side.REHEARSAL;
            getChildren()
                    .get(0)
                    .lookupAll(".toggle-button")
                    .forEach(n -> ((ToggleButton) n).setSelected(n.getId().equals("side-rehearsal")));
            refresh();
        }
        String mistake = fault.getValue();
        progress.setText("It is being carried out...");
        CompletableFuture.supplyAsync(() -> Meaning.rehearsed(of.sheet().orElseThrow(), mistake))
                .whenComplete((r, failed) -> Platform.runLater(() -> {
                    progress.setText(failed == null ? r.says() : Fault.said(failed));
                    Optional<Plot> found = failed == null ? r.trace() : Optional.empty();
                    found.ifPresent(p -> trace.plot(p, false));
                    Labels.shown(trace, found.isPresent());
                    rehearsedRows.showOrHide(failed == null ? r.lines() : List.of());
                }));
    }

    private static VBox line(Meaning.Line l, boolean strong) {
        Label head = Labels.wrapped(l.head());
        Labels.styled(head, "section", strong);
        Label more = Labels.wrapped("");
        more.getStyleClass().add("quiet");
        Labels.says(more, l.more());
        return new VBox(0, head, more);
    }

    /** Carries the sheet out twenty times; again stops it. */
    private void check() {
        if (checking) {
            checking = false;
            return;
        }
        WritingModel.Seen of = seen;
        if (of == null || of.sheet().isEmpty() || !of.problems().isEmpty()) {
            return;
        }
        checking = true;
        check.setText("Stop");
        AtomicInteger done = new AtomicInteger();
        CompletableFuture.supplyAsync(() -> Meaning.checked(of.sheet().orElseThrow(), () -> {
                    int n = done.incrementAndGet();
                    Platform.runLater(() -> progress.setText("Carried out " + n + " times..."));
                    return !checking;
                }))
                .whenComplete((says, failed) -> Platform.runLater(() -> {
                    check.setText("Check on twenty seeds");
                    boolean stopped = !checking;
                    checking = false;
                    progress.setText(stopped ? "Stopped." : failed == null ? says : Fault.said(failed));
                }));
    }
}
