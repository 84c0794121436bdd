package eagerneedle.app.day;

import eagerneedle.app.station.StationView;
import eagerneedle.app.widget.CellGrid;
import eagerneedle.app.widget.Files;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.Rows;
import eagerneedle.app.widget.Sentence;
import eagerneedle.app.widget.Theme;
import eagerneedle.app.workbench.Draft;
import eagerneedle.app.workbench.Home;
import eagerneedle.report.Paper;
import eagerneedle.store.FileName;
import eagerneedle.store.export.Beside;
import eagerneedle.store.stockroom.ReadyBook;
import java.io.File;
import java.io.IOException;
import java.nio.file.Path;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import javafx.animation.PauseTransition;
import javafx.application.Platform;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextArea;
import javafx.scene.input.TransferMode;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.VBox;
import javafx.stage.FileChooser;
import javafx.util.Duration;

/**
 * An afternoon as it is written, and beside it what follows: clashes first, who is where, what to fetch and switch on.
 */
public final class DayView implements StationView {
    private static final Duration PAUSE = Duration.millis(500);
    private final BorderPane all = new BorderPane();
    private final TextArea text = new TextArea();
    private final VBox above = new VBox(10);
    private final Label who = Labels.section("Who is where");
    private final CellGrid rota = new CellGrid();
    private final VBox below = new VBox(10);
    private final Rows<Sentence> before = new Rows<>(above, Labels::of);
    private final Rows<Sentence> after = new Rows<>(below, Labels::of);
    private final DayModel model;
    private final Label state = Labels.quiet("");
    private final Button pages = new Button("Pages...");
    private final PauseTransition pause = new PauseTransition(PAUSE);

    /** @param back leads to the session again */
    public DayView(Runnable back) {
        model = new DayModel(
                Home.stockroom(),
                () -> new ReadyBook(Home.siteFolder()).all(),
                Draft.named("afternoon"),
                Draft.named("afternoon-file"));
        all.getStyleClass().add("surface");
        all.setId("day");
        text.setId("day-text");
        text.setAccessibleText("The afternoon: groups, methods, rounds, staff");
        text.getStyleClass().add("sheet-text");
        text.setPrefColumnCount(34);
        text.setText(model.begin());
        text.textProperty().addListener((o, was, is) -> {
            pages.setDisable(true);
            pause.playFromStart();
        });
        pause.setOnFinished(e -> follow());
        Button open = button("day-open", "Open...", this::open);
        Button keep = button("day-keep", "Keep...", this::keep);
        pages.setId("day-pages");
        pages.getStyleClass().add("default-act");
        pages.setOnAction(e -> print());
        Labels.explained(pages, "One page for the wall and one for each bench, as PDF or HTML");
        Button close = button("day-back", "Back", back);
        close.getStyleClass().add("quiet-button");
        state.setId("day-state");
        FlowPane acts = new FlowPane(8, 6, open, keep, pages, close, state);
        acts.setRowValignment(javafx.geometry.VPos.CENTER);
        VBox top = new VBox(8, Labels.heading("The day"), acts);
        top.setPadding(new javafx.geometry.Insets(0, 0, 10, 0));
        rota.setId("day-rota");
        rota.setHgap(18);
        rota.setVgap(5);
        Labels.shown(who, false);
        VBox plan = new VBox(10, above, who, rota, below);
        plan.setId("day-plan");
        plan.setPadding(new javafx.geometry.Insets(0, 0, 0, 16));
        ScrollPane scroll = new ScrollPane(plan);
        scroll.setFitToWidth(true);
        scroll.getStyleClass().add("bare");
        text.setPrefWidth(Theme.px(360));
        text.setMinWidth(Theme.px(240));
        all.setTop(top);
        all.setLeft(text);
        all.setCenter(scroll);
        all.setOnDragOver(e -> {
            if (e.getDragboard().hasFiles()) {
                e.acceptTransferModes(TransferMode.COPY);
                e.consume();
            }
        });
        all.setOnDragDropped(e -> {
            take(e.getDragboard().getFiles().get(0).toPath());
            e.consume();
        });
        follow();
    }

    private static Button button(String id, String words, Runnable act) {
        Button b = new Button(words);
        b.setId(id);
        b.setMinWidth(Button.USE_PREF_SIZE);
        b.setOnAction(e -> act.run());
        return b;
    }

    private void open() {
        FileChooser chooser = new FileChooser();
        chooser.getExtensionFilters().add(new FileChooser.ExtensionFilter("An afternoon", "*.yaml", "*.yml"));
        File f = chooser.showOpenDialog(all.getScene().getWindow());
        if (f != null) {
            take(f.toPath());
        }
    }

    /** Shows the afternoon of a file. */
    public void take(Path from) {
        Notices.attempt(all, () -> {
            String read = DayFile.text(from);
            model.file(from);
            // In place of what stands there, so that taking back brings that back.
            text.replaceText(0, text.getLength(), read);
            follow();
        });
    }

    private void keep() {
        Path to = Files.askFor(all, model.file().map(FileName::of).orElse("afternoon.yaml"), "*.yaml");
        if (to != null) {
            Notices.attempt(all, () -> {
                try {
                    Beside.write(to, text.getText());
                } catch (IOException e) {
                    throw new IllegalArgumentException(FileName.of(to) + " cannot be written here.", e);
                }
                model.file(to);
                Notices.tell(all, "Kept " + FileName.of(to) + ".");
            });
        }
    }

    private void print() {
        Path to = model.mayPrint() ? Files.askFor(all, "afternoon.pdf", "*.pdf", "*.html") : null;
        if (to != null) {
            Notices.attempt(all, () -> {
                model.print(to, Home.paper() == Paper.LETTER);
                Notices.tell(all, "Saved " + FileName.of(to) + ".");
            });
        }
    }

    /** Plans what stands there, away from the interface. */
    private void follow() {
        DayModel.Asked asked = model.ask(text.getText());
        keepDraft();
        state.setText(model.state());
        CompletableFuture.supplyAsync(asked::plan)
                .whenComplete((found, failed) -> Platform.runLater(() -> {
                    if (model.answer(asked, found, failed)) {
                        show();
                    }
                }));
    }

    private void show() {
        state.setText(model.state());
        pages.setDisable(!model.mayPrint());
        before.showOrHide(model.before());
        rota.show(model.rota());
        Labels.shown(who, model.mayPrint());
        Labels.shown(rota, model.mayPrint());
        after.showOrHide(model.after());
    }

    /** What is written is there again when the view is opened again. */
    private void keepDraft() {
        Notices.attempt(all, () -> model.keep(text.getText()));
    }

    @Override
    public void left() {
        keepDraft();
    }

    @Override
    public Node node() {
        return all;
    }

    @Override
    public Optional<Node> focus() {
        return Optional.of(text);
    }

    @Override
    public void refresh() {
        // What is planned follows the text, not the session.
    }

    @Override
    public void tick() {
        // Nothing moves by itself.
    }
}
