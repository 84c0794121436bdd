package eagerneedle.app.writing;

import eagerneedle.app.station.Desk;
import eagerneedle.app.station.HandoutPaper;
import eagerneedle.app.station.StationView;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.Rows;
import eagerneedle.app.widget.Theme;
import eagerneedle.core.edit.Outline;
import eagerneedle.core.edit.Template;
import eagerneedle.core.stockroom.Instrument;
import eagerneedle.store.FileName;
import eagerneedle.store.export.Beside;
import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import javafx.animation.PauseTransition;
import javafx.application.Platform;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.stage.FileChooser;
import javafx.util.Duration;
import org.fxmisc.flowless.VirtualizedScrollPane;
import org.jspecify.annotations.Nullable;

/**
 * The method desk: the text of a sheet with what is wrong with it, and beside it what it means. The session's sheet is
 * changed only when it is taken over, and what moves in the ledger is shown before.
 */
public final class WritingView implements StationView {
    private static final Duration PAUSE = Duration.millis(120);
    private static final int FEW = 12;

    private final Desk desk;
    private final WritingModel model;
    private final Runnable leave;
    private final BorderPane all = new BorderPane();
    private final SheetEditor editor;
    private final MeaningPane meaning;
    private final Label state = Labels.quiet("");
    private final Label help = Labels.wrapped("");
    private final VBox problemBox = new VBox(3);
    private final Rows<WritingModel.Problem> problems = new Rows<>(problemBox, this::problem);
    private final Moves moves;
    private final ScrollPane told = new ScrollPane();
    private final Button take = new Button("Take over...");
    private final SearchBar searching;
    private final TextField name = new TextField();
    private final PauseTransition pause = new PauseTransition(PAUSE);
    private final PauseTransition still = new PauseTransition(PAUSE);
    private @Nullable Path file;
    private WritingModel.@Nullable Seen seen;

    /** @param leave goes back to the station */
    public WritingView(Desk desk, Runnable leave) {
        this.desk = desk;
        this.leave = leave;
        model = new WritingModel(desk);
        moves = new Moves(model);
        editor = new SheetEditor(model::proposals);
        meaning = new MeaningPane(model, this::goTo);
        searching = new SearchBar(editor);
        all.getStyleClass().add("surface");
        String text = model.draft().read().orElseGet(model::sessionText);
        editor.replaceText(text);
        editor.getUndoManager().forgetHistory();
        editor.moveTo(0);
        editor.requestFollowCaret();
        // Neither may cost a key anything: both wait until nobody types.
        editor.plainTextChanges().subscribe(c -> {
            moves.forget();
            pause.playFromStart();
        });
        editor.caretPositionProperty().addListener((o, was, is) -> still.playFromStart());
        still.setOnFinished(e -> Labels.says(help, model.help(editor.getText(), editor.getCaretPosition())));
        pause.setOnFinished(e -> look());
        editor.addEventFilter(KeyEvent.KEY_PRESSED, this::pressed);
        told.setContent(new VBox(6, moves, problemBox));
        told.setFitToWidth(true);
        told.getStyleClass().add("bare");
        told.setPrefHeight(Theme.px(128));
        told.setMinHeight(Theme.px(70));
        problemBox.setId("problems");
        help.setId("sheet-help");
        help.getStyleClass().add("quiet");
        help.setMaxHeight(Theme.px(60));
        VirtualizedScrollPane<SheetEditor> scroll = new VirtualizedScrollPane<>(editor);
        VBox.setVgrow(scroll, Priority.ALWAYS);
        VBox left = new VBox(6, bar(), searching, scroll, help, told);
        left.setMinWidth(Theme.px(300));
        HBox.setHgrow(left, Priority.ALWAYS);
        left.setPrefWidth(Theme.px(700));
        HBox both = new HBox(14, left, meaning);
        all.setCenter(both);
        look();
    }

    private HBox bar() {
        state.setId("desk-state");
        state.setMinWidth(0);
        take.setId("take-over");
        take.getStyleClass().add("default-act");
        take.setMinWidth(Region.USE_PREF_SIZE);
        take.setOnAction(e -> takeOver());
        Labels.explained(take, "Gives the session this sheet, once you have seen what moves in the ledger");
        Button back = act("desk-back", "Back", "Back to the station (Escape); what is written stays here", leave);
        MenuButton sheet = new MenuButton("Sheet");
        sheet.setId("desk-sheet");
        sheet.setMinWidth(Region.USE_PREF_SIZE);
        sheet.getItems()
                .addAll(
                        item("The session's sheet", () -> show(model.sessionText(), null)),
                        item(
                                "As the session began",
                                () -> show(desk.bench().file().firstSheet(), null)),
                        item("An empty page", () -> show("", null)),
                        item("Open a sheet...", this::open),
                        item("Save...  Ctrl+S", this::save),
                        item("Handout for students...", () -> HandoutPaper.ask(all, editor.getText(), false)),
                        item("Handout with what is expected...", () -> HandoutPaper.ask(all, editor.getText(), true)));
        MenuButton insert = new MenuButton("Insert");
        insert.setId("desk-insert");
        insert.setMinWidth(Region.USE_PREF_SIZE);
        for (Template t : Template.values()) {
            insert.getItems()
                    .add(item(t.label(), () -> inserted(t.in(editor.getText()).text())));
        }
        for (Instrument i : model.stocked()) {
            insert.getItems()
                    .add(item(
                            "A channel with " + i.name() + " " + i.id(),
                            () -> inserted(model.withInstrument(editor.getText(), i))));
        }
        name.setId("new-name");
        name.setPromptText("new name");
        name.setAccessibleText("New name for what the caret stands in");
        name.setPrefWidth(Theme.px(110));
        name.setMinWidth(Theme.px(60));
        name.setOnAction(e -> rename());
        Button rename =
                act("rename", "Rename", "Changes the name at the caret wherever it is meant (F2)", this::rename);
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        HBox bar = new HBox(8, sheet, insert, name, rename, gap, state, take, back);
        bar.setAlignment(Pos.CENTER_LEFT);
        return bar;
    }

    private Button act(String id, String words, String says, Runnable run) {
        Button b = new Button(words);
        b.setId(id);
        b.setMinWidth(Region.USE_PREF_SIZE);
        b.getStyleClass().add("quiet-button");
        b.setOnAction(e -> run.run());
        return Labels.explained(b, says);
    }

    private MenuItem item(String words, Runnable run) {
        MenuItem i = new MenuItem(words);
        i.setOnAction(e -> Notices.attempt(all, run));
        return i;
    }

    private void pressed(KeyEvent e) {
        if (e.getCode() == KeyCode.F2) {
            name.requestFocus();
        } else if (e.getCode() == KeyCode.F12 || e.getCode() == KeyCode.B && e.isShortcutDown()) {
            goToDefinition();
        } else if (e.getCode() == KeyCode.F && e.isShortcutDown()) {
            searching.open();
        } else if (e.getCode() == KeyCode.S && e.isShortcutDown()) {
            Notices.attempt(all, this::save);
        } else if (e.getCode() == KeyCode.R && e.isShortcutDown()) {
            meaning.rehearse();
        } else if (e.getCode() == KeyCode.OPEN_BRACKET && e.isShortcutDown()) {
            editor.fold();
        } else {
            return;
        }
        e.consume();
    }

    private void goToDefinition() {
        Optional<Outline.Given> given = WritingModel.definition(editor.getText(), editor.getCaretPosition());
        given.ifPresentOrElse(
                g -> {
                    editor.selectRange(g.offset(), g.offset() + g.name().length());
                    editor.requestFollowCaret();
                },
                () -> Notices.warn(all, "No name that the sheet gives stands at the caret."));
    }

    private void rename() {
        Notices.attempt(all, () -> {
            int caret = editor.getCaretPosition();
            editor.exchange(WritingModel.renamed(editor.getText(), caret, name.getText()));
            name.clear();
            editor.requestFocus();
        });
    }

    private void inserted(String text) {
        editor.exchange(text);
        editor.requestFocus();
        editor.requestFollowCaret();
    }

    private void show(String text, @Nullable Path of) {
        file = of;
        editor.exchange(text);
        editor.requestFocus();
    }

    private void open() {
        FileChooser chooser = new FileChooser();
        chooser.setTitle("Open a sheet");
        chooser.getExtensionFilters().add(new FileChooser.ExtensionFilter("Method sheets", "*.yaml", "*.yml"));
        File f = chooser.showOpenDialog(all.getScene().getWindow());
        if (f != null) {
            open(f.toPath());
        }
    }

    /** Shows the sheet in a file; it is saved there again. */
    void open(Path path) {
        try {
            show(Files.readString(path), path);
        } catch (IOException e) {
            throw new IllegalArgumentException(FileName.of(path) + " cannot be read; a sheet is a text in UTF-8.", e);
        }
    }

    private void save() {
        Path to = file;
        if (to == null) {
            to = eagerneedle.app.widget.Files.ask(all.getScene().getWindow(), "method.yaml");
        }
        if (to != null) {
            save(to);
        }
    }

    /** Writes the text into a file, good or not; its history can be undone as before. */
    public void save(Path to) {
        try {
            Beside.write(to, editor.getText());
        } catch (IOException e) {
            throw new IllegalArgumentException(FileName.of(to) + " cannot be written there; choose another folder.", e);
        }
        file = to;
        Notices.tell(all, "Saved " + FileName.of(to) + ".");
    }

    /** Looks the text through beside the writing; the newest text wins. */
    private void look() {
        String text = editor.getText();
        boolean changed = model.differs(text);
        if (changed) {
            Notices.attempt(all, () -> model.draft().keep(text));
        } else {
            model.draft().forget();
        }
        CompletableFuture.supplyAsync(() -> model.seen(text))
                .thenAccept(found -> Platform.runLater(() -> {
                    if (found.text().equals(editor.getText())) {
                        told(found);
                    }
                }));
    }

    private void told(WritingModel.Seen found) {
        seen = found;
        problems.show(found.problems().stream().limit(FEW).toList());
        int n = found.problems().size();
        boolean changed = model.differs(found.text());
        state.setText((n == 0 ? "good" : n == 1 ? "1 problem" : n + " problems")
                + (file != null ? " · " + FileName.of(file) : changed ? " · not taken over" : " · the session's"));
        state.getStyleClass().setAll("label", n == 0 ? "good" : "attention");
        take.setDisable(n > 0 || !changed);
        take.setText(moves.wereSeen(found.text()) ? "Take it over" : "Take over...");
        tell();
        meaning.show(found);
    }

    /** What is told stands below the text only where there is something. */
    private void tell() {
        boolean any =
                !problemBox.getChildren().isEmpty() || !moves.getChildren().isEmpty();
        Labels.shown(told, any);
    }

    private void takeOver() {
        String text = editor.getText();
        if (seen == null || !seen.text().equals(text) || !seen.problems().isEmpty()) {
            look();
            return;
        }
        Notices.attempt(all, () -> {
            if (moves.take(text)) {
                Notices.tell(all, "The session has this sheet now; undo brings back the one before.");
                look();
            } else {
                take.setText("Take it over");
                tell();
            }
        });
    }

    private Node problem(WritingModel.Problem p) {
        Label words = Labels.wrapped(p.words());
        words.getStyleClass().add("attention");
        words.setOnMouseClicked(e -> goTo(p));
        HBox.setHgrow(words, Priority.ALWAYS);
        HBox row = new HBox(8, words);
        row.setAlignment(Pos.CENTER_LEFT);
        row.setFocusTraversable(true);
        row.setOnKeyPressed(e -> {
            if (e.getCode() == KeyCode.ENTER) {
                goTo(p);
            }
        });
        p.mend().ifPresent(m -> {
            Button mend = act("mend", m.words(), "Puts this right", () -> editor.replaceText(m.from(), m.to(), m.by()));
            mend.setMinWidth(Theme.px(120));
            row.getChildren().add(mend);
        });
        return row;
    }

    private void goTo(WritingModel.Problem p) {
        if (p.offset() >= 0) {
            goTo(p.offset());
        }
    }

    private void goTo(int offset) {
        editor.moveTo(Math.min(offset, editor.getLength()));
        editor.requestFollowCaret();
        editor.requestFocus();
    }

    /**
     * Puts the caret where a name is given.
     *
     * @param capture whose runs it belongs to; empty for none
     */
    public void reveal(String capture, String name) {
        String of = name.contains(".") ? name.substring(0, name.indexOf('.')) : name;
        Outline.of(editor.getText())
                .definition(of, capture.isEmpty() ? List.of() : List.of("captures", capture))
                .ifPresent(g -> {
                    editor.selectRange(g.offset(), g.offset() + g.name().length());
                    editor.requestFollowCaret();
                });
    }

    SheetEditor editor() {
        return editor;
    }

    @Override
    public Node node() {
        return all;
    }

    @Override
    public Optional<Node> focus() {
        return Optional.of(editor);
    }

    @Override
    public void refresh() {
        look();
    }
}
