package eagerneedle.app.day;

import eagerneedle.app.station.StationView;
import eagerneedle.app.widget.Files;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.Theme;
import eagerneedle.app.workbench.Home;
import eagerneedle.core.day.ReadyCheck;
import eagerneedle.report.Paper;
import eagerneedle.store.FileName;
import eagerneedle.store.export.Beside;
import eagerneedle.store.stockroom.ReadyBook;
import eagerneedle.store.stockroom.StockroomException;
import java.io.File;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
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
import javafx.scene.layout.GridPane;
import javafx.scene.layout.VBox;
import javafx.stage.FileChooser;
import javafx.util.Duration;
import org.jspecify.annotations.Nullable;

/**
 * An afternoon as it is written, and beside it what follows: clashes first, who is where, what to fetch and switch on.
 */
public final class DayView implements StationView {
    private static final Duration PAUSE = Duration.millis(500);
    private final BorderPane all = new BorderPane();
    private final TextArea text = new TextArea();
    private final VBox plan = new VBox(10);
    private final Label state = Labels.quiet("");
    private final Button pages = new Button("Pages...");
    private final PauseTransition pause = new PauseTransition(PAUSE);
    private @Nullable Path file;
    private @Nullable DayPlan made;
    private int asked;

    /** @param back leads to the session again */
    public DayView(Runnable back) {
        all.getStyleClass().add("surface");
        all.setId("day");
        text.setId("day-text");
        text.setAccessibleText("The afternoon: groups, methods, rounds, staff");
        text.getStyleClass().add("sheet-text");
        text.setPrefColumnCount(34);
        text.setText(DayFile.example());
        text.textProperty().addListener((o, was, is) -> pause.playFromStart());
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
            text.setText(DayFile.text(from));
            file = from;
            follow();
        });
    }

    private void keep() {
        Path to = Files.askFor(all, file == null ? "afternoon.yaml" : FileName.of(file), "*.yaml");
        if (to != null) {
            Notices.attempt(all, () -> {
                try {
                    Beside.write(to, text.getText());
                } catch (IOException e) {
                    throw new IllegalArgumentException(FileName.of(to) + " cannot be written here.", e);
                }
                file = to;
                Notices.tell(all, "Kept " + FileName.of(to) + ".");
            });
        }
    }

    private void print() {
        DayPlan printed = made;
        Path to = printed == null ? null : Files.askFor(all, "afternoon.pdf", "*.pdf", "*.html");
        if (printed != null && to != null) {
            Notices.attempt(all, () -> {
                try {
                    DayPaper.write(printed, checks(), to, Home.paper() == Paper.LETTER);
                } catch (IOException e) {
                    throw new IllegalArgumentException(FileName.of(to) + " cannot be written here.", e);
                }
                Notices.tell(all, "Saved " + FileName.of(to) + ".");
            });
        }
    }

    private static List<ReadyCheck> checks() {
        try {
            return new ReadyBook(Home.siteFolder()).all();
        } catch (StockroomException unreadable) {
            return List.of();
        }
    }

    /** Plans what stands there, away from the interface: a rota may take seconds to find. */
    private void follow() {
        int turn = ++asked;
        String written = text.getText();
        Path folder = file == null ? Path.of("") : FileName.folder(file);
        String where = file == null ? "The afternoon" : FileName.of(file);
        state.setText("planning...");
        CompletableFuture.supplyAsync(() -> DayFile.of(written, where, folder, Home.stockroom()))
                .whenComplete((found, failed) -> Platform.runLater(() -> {
                    if (turn == asked) {
                        show(found, failed);
                    }
                }));
    }

    private void show(@Nullable DayPlan found, @Nullable Throwable failed) {
        made = found;
        pages.setDisable(found == null || !found.rota().isThere());
        plan.getChildren().clear();
        if (found == null) {
            Throwable cause =
                    failed instanceof CompletionException && failed.getCause() != null ? failed.getCause() : failed;
            state.setText("");
            String says = cause instanceof IllegalArgumentException || cause instanceof StockroomException
                    ? cause.getMessage()
                    : null;
            plan.getChildren()
                    .add(Labels.attention(says == null ? "This afternoon cannot be planned as it is written." : says));
            return;
        }
        state.setText(DayPaper.date(found));
        found.rota().clashes().forEach(c -> plan.getChildren().add(warning(c)));
        if (found.rota().isThere()) {
            plan.getChildren().addAll(Labels.section("Who is where"), table(found));
        }
        List<String> ready = found.ready(checks());
        list("Ready", ready);
        list("To be switched on", found.switching());
        list("From the stockroom", found.fetching());
        if (!found.warnings().isEmpty()) {
            plan.getChildren().add(Labels.section("Not counted, or missing"));
            found.warnings().forEach(w -> plan.getChildren().add(warning(w)));
        }
    }

    private static Label warning(String sentence) {
        Label l = Labels.attention("▲ " + sentence);
        l.setWrapText(true);
        return l;
    }

    private void list(String head, List<String> lines) {
        if (!lines.isEmpty()) {
            plan.getChildren().add(Labels.section(head));
            lines.forEach(l -> plan.getChildren().add(Labels.wrapped(l)));
        }
    }

    private static GridPane table(DayPlan made) {
        GridPane grid = new GridPane();
        grid.setId("day-rota");
        grid.setHgap(18);
        grid.setVgap(5);
        for (int s = 0; s < made.day().slots(); s++) {
            grid.add(Labels.quiet(made.time(s)), s + 1, 0);
        }
        int row = 1;
        for (List<String> r : DayPaper.rows(made)) {
            for (int c = 0; c < r.size(); c++) {
                Label cell = c == 0 ? Labels.styled(r.get(c), "strong") : new Label(r.get(c));
                cell.setWrapText(true);
                grid.add(cell, c, row);
            }
            row++;
        }
        return grid;
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
