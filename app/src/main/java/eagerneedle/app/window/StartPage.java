package eagerneedle.app.window;

import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Theme;
import eagerneedle.app.workbench.Beginning;
import eagerneedle.app.workbench.Demonstration;
import eagerneedle.app.workbench.Fault;
import eagerneedle.app.workbench.Home;
import eagerneedle.app.workbench.SheetFile;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.sheet.SheetException;
import eagerneedle.core.sheet.SheetHead;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.store.FileName;
import eagerneedle.store.bench.Recent;
import java.io.File;
import java.io.IOException;
import java.nio.file.Path;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import javafx.application.Platform;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.input.KeyCode;
import javafx.scene.input.TransferMode;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.stage.FileChooser;
import org.jspecify.annotations.Nullable;

/**
 * Where work begins: the sessions of lately, the methods by subject, a bench file to open, a file of readings to bring
 * in.
 */
public final class StartPage extends VBox {
    private static final int MOST_TOLD = 6;
    /** The method in whose demonstration newcomers walk round. */
    private static final String WALKED = "baggage-chute";

    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("d MMM uuuu, HH:mm")
            .withLocale(Locale.UK)
            .withZone(ZoneId.systemDefault());

    /** What can be asked for here. */
    public interface Visitor {
        void open(Path benchFile);

        /** Begins a session of a sheet; {@code bring}, unless null, is a file of readings for its first run. */
        void begin(SheetReader.Located sheet, @Nullable Path bring);

        /** Begins a session without a method. */
        void begin(Beginning beginning);

        /** Shows the stockroom; null where there is no session yet to tie its instruments to. */
        default @Nullable Runnable stockroom() {
            return null;
        }

        void say(String sentence);

        /** Opens a bench file and walks round in it. */
        void walk(Path benchFile);

        /**
         * Opens the demonstration session of a shipped method; the first time it is carried out on its simulated rig,
         * which takes a few seconds.
         */
        default void demonstrate(String method) {
            demonstrate(method, this::open);
        }

        /** The same, with what is done with it then. */
        default void demonstrate(String method, Consumer<Path> then) {
            say("The demonstration is being carried out on its simulated rig ...");
            Thread work = new Thread(
                    () -> {
                        try {
                            Path file = Demonstration.of(method);
                            Platform.runLater(() -> then.accept(file));
                        } catch (IOException e) {
                            Platform.runLater(() -> say(Fault.said(
                                    e,
                                    "The demonstration could not be kept in " + Home.folder()
                                            + "; make room there and try again.")));
                        } catch (RuntimeException e) {
                            Platform.runLater(() -> say(Fault.said(e)));
                        }
                    },
                    "demonstration");
            work.setDaemon(true);
            work.start();
        }
    }

    private final Visitor visitor;
    private final Recent recent;
    private final VBox lately = new VBox(2);
    private final Label choose = Labels.wrapped("");
    private @Nullable Path bringing;

    public StartPage(Visitor visitor, Recent recent) {
        super(14);
        this.visitor = visitor;
        this.recent = recent;
        setId("start-page");
        getStyleClass().add("surface");
        choose.setId("start-choose");
        choose.getStyleClass().add("needle-ink");
        HBox columns = new HBox(34, left(), methods());
        VBox.setVgrow(columns, Priority.ALWAYS);
        Button methods = act(
                "begin-methods",
                "Choose below",
                "From the plan to the report, with its equations, cautions and checks",
                () -> lookup("#begin-" + SheetReader.shipped().get(0)).requestFocus());
        getChildren()
                .addAll(
                        new Beginnings(
                                Beginnings.card(
                                        "A method",
                                        "From the question to the report, with its cautions and checks.",
                                        methods),
                                visitor::begin),
                        columns);
        setOnDragOver(e -> {
            if (e.getDragboard().hasFiles()) {
                e.acceptTransferModes(TransferMode.COPY);
                e.consume();
            }
        });
        setOnDragDropped(e -> {
            drop(e.getDragboard().getFiles().stream().map(File::toPath).toList());
            e.consume();
        });
    }

    private Region left() {
        Button open = act(
                "start-open",
                "Open a bench file...",
                "A session that was kept before, or that somebody sent",
                this::askOpen);
        Button bring = act(
                "start-import",
                "Readings for a method...",
                "A file of another program or logger; the method it belongs to is asked for next",
                this::askImport);
        Button walk = act(
                "start-walk",
                "Walk round in two minutes",
                "One sentence a station in a demonstration; it can be left at any time",
                () -> visitor.demonstrate(WALKED, visitor::walk));
        FlowPane acts = new FlowPane(8, 6, open, bring, walk);
        if (visitor.stockroom() != null) {
            acts.getChildren()
                    .add(act(
                            "start-stockroom",
                            "Stockroom",
                            "Instruments with their specifications and calibration histories",
                            visitor.stockroom()));
        }
        drawLately();
        ScrollPane scroll = new ScrollPane(lately);
        scroll.setFitToWidth(true);
        scroll.getStyleClass().add("bare");
        VBox.setVgrow(scroll, Priority.ALWAYS);
        VBox box = new VBox(
                8, Labels.heading("Go on with a session"), scroll, acts, Labels.quiet("Or drop it on this page."));
        box.setPrefWidth(Theme.px(330));
        box.setMinWidth(Theme.px(300));
        return box;
    }

    private static Button act(String id, String text, String says, Runnable run) {
        Button b = new Button(text);
        b.setId(id);
        b.setMinWidth(Region.USE_PREF_SIZE);
        b.setOnAction(e -> run.run());
        return Labels.explained(b, says);
    }

    private void drawLately() {
        lately.getChildren().clear();
        for (Recent.Entry e : recent.entries()) {
            boolean there = java.nio.file.Files.exists(e.file());
            Label title = Labels.section(e.title());
            title.setMinWidth(0);
            Label more = Labels.quiet((e.place().isEmpty() ? "" : e.place() + " · ") + DAY.format(e.opened()) + " · "
                    + FileName.of(e.file()) + (there ? "" : " · no longer there"));
            VBox words = new VBox(0, title, more);
            words.setMinWidth(0);
            HBox.setHgrow(words, Priority.ALWAYS);
            Button forget = new Button("Take off");
            forget.getStyleClass().add("quiet-button");
            forget.setMinWidth(Region.USE_PREF_SIZE);
            Labels.explained(forget, "Take it off this list; the file stays where it is");
            forget.setOnAction(x -> {
                recent.forget(e);
                drawLately();
            });
            HBox row = row(
                    "recent-" + lately.getChildren().size(), e.title(), () -> visitor.open(e.file()), words, forget);
            if (!there) {
                title.getStyleClass().add("quiet");
            }
            lately.getChildren().add(row);
        }
        if (lately.getChildren().isEmpty()) {
            lately.getChildren()
                    .add(Labels.wrapped("No session yet. Choose a method to begin one; it is kept as it is made, so "
                            + "there is nothing to save."));
        }
    }

    private static HBox row(String id, String says, Runnable go, javafx.scene.Node... parts) {
        HBox row = new HBox(8, parts);
        row.setId(id);
        row.setAlignment(Pos.CENTER_LEFT);
        row.getStyleClass().add("run-row");
        row.setFocusTraversable(true);
        row.setAccessibleText(says);
        row.setOnMouseClicked(e -> go.run());
        row.setOnKeyPressed(e -> {
            if (e.getCode() == KeyCode.ENTER || e.getCode() == KeyCode.SPACE) {
                e.consume();
                go.run();
            }
        });
        return row;
    }

    private Region methods() {
        Map<String, List<SheetHead>> bySubject = new LinkedHashMap<>();
        for (String id : SheetReader.shipped()) {
            SheetHead head = SheetHead.shipped(id);
            bySubject
                    .computeIfAbsent(head.subject(), s -> new java.util.ArrayList<>())
                    .add(head);
        }
        List<MethodCard> cards = bySubject.values().stream()
                .flatMap(List::stream)
                .map(head -> new MethodCard(
                        head,
                        () -> begin(SheetReader.read(SheetReader.shippedText(head.id()), head.id() + ".yaml")),
                        () -> visitor.demonstrate(head.id())))
                .toList();
        CardShelf shelf = new CardShelf(cards);
        VBox.setVgrow(shelf, Priority.ALWAYS);
        Button sheet = act(
                "start-sheet",
                "A sheet of your own...",
                "A method sheet from a file, checked before a session begins",
                this::askSheet);
        sheet.getStyleClass().add("quiet-button");
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        Label begin = Labels.heading("Begin with a method");
        begin.setMinWidth(Region.USE_PREF_SIZE);
        HBox head = new HBox(8, begin, gap, sheet);
        head.setAlignment(Pos.CENTER_LEFT);
        VBox box = new VBox(8, head, choose, shelf);
        Labels.says(choose, "");
        HBox.setHgrow(box, Priority.ALWAYS);
        box.setPrefWidth(Theme.px(420));
        return box;
    }

    private void begin(SheetReader.Located sheet) {
        Path bring = bringing;
        choosing(null);
        visitor.begin(sheet, bring);
    }

    /** Takes what is dropped: a bench file, a sheet, or records, whose traces are shown at once. */
    void drop(List<Path> files) {
        if (!files.isEmpty() && files.stream().allMatch(Beginnings::isData)) {
            visitor.begin(new Beginning.Files(files));
        } else {
            files.stream().findFirst().ifPresent(this::take);
        }
    }

    /** Opens a bench file, or asks which method a file of readings belongs to. */
    public void take(Path file) {
        String name = FileName.of(file);
        if (name.endsWith(".needle")) {
            visitor.open(file);
        } else if (name.endsWith(".yaml") || name.endsWith(".yml")) {
            own(file);
        } else {
            choosing(file);
        }
    }

    private void choosing(@Nullable Path file) {
        bringing = file;
        Labels.says(
                choose,
                file == null
                        ? ""
                        : "Which method do the readings of " + FileName.of(file) + " belong to? Choose it here.");
        if (file != null) {
            lookup("#begin-" + SheetReader.shipped().get(0)).requestFocus();
        }
    }

    /** Begins with a sheet of one's own; where it is not good, everything that is wrong with it is told. */
    private void own(Path file) {
        try {
            SheetReader.Looked looked = SheetTrial.look(SheetFile.text(file), FileName.of(file));
            if (looked.problems().isEmpty()) {
                visitor.begin(looked.located().orElseThrow(), null);
            } else {
                visitor.say(told(looked.problems()));
            }
        } catch (java.io.IOException e) {
            visitor.say(Fault.said(e, FileName.of(file) + " cannot be read; a sheet is a text file in UTF-8."));
        } catch (RuntimeException e) {
            visitor.say(Fault.said(e));
        }
    }

    private static String told(List<SheetException> problems) {
        String text = problems.stream()
                .limit(MOST_TOLD)
                .map(SheetException::getMessage)
                .collect(Collectors.joining("\n"));
        int more = problems.size() - MOST_TOLD;
        return more <= 0 ? text : text + "\nand " + more + " more; ./needle check tells them all.";
    }

    private void askOpen() {
        ask("Open a bench file", "Bench files", "*.needle").ifPresent(this::take);
    }

    private void askImport() {
        ask("Bring in readings", "Readings", "*").ifPresent(this::take);
    }

    private void askSheet() {
        ask("A sheet of your own", "Method sheets", "*.yaml", "*.yml").ifPresent(this::own);
    }

    private java.util.Optional<Path> ask(String title, String what, String... kinds) {
        FileChooser chooser = new FileChooser();
        chooser.setTitle(title);
        chooser.getExtensionFilters().add(new FileChooser.ExtensionFilter(what, kinds));
        return java.util.Optional.ofNullable(chooser.showOpenDialog(getScene().getWindow()))
                .map(File::toPath);
    }
}
