package eagerneedle.app.window;

import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Theme;
import eagerneedle.app.workbench.Beginning;
import java.io.File;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.Consumer;
import javafx.geometry.Insets;
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
import javafx.stage.FileChooser;

/** The beginnings that need no method: files, an instrument on the table, a question. */
final class Beginnings extends HBox {
    /** How an instrument is spoken to, by the words people choose. */
    private static final Map<String, String> SPOKEN = new java.util.LinkedHashMap<>();

    static {
        SPOKEN.put("a logger or meter that sends lines", "line");
        SPOKEN.put("light gates", "gate");
        SPOKEN.put("an instrument that answers queries", "scpi");
        SPOKEN.put("a file that another program writes", "file");
    }

    private final Consumer<Beginning> begin;
    private final ChoiceBox<String> spoken = new ChoiceBox<>();
    private final TextField address = new TextField();
    private final TextField query = new TextField();
    private final TextField question = new TextField();

    /** @param first stands before the others */
    Beginnings(Node first, Consumer<Beginning> begin) {
        this(begin);
        show(first, file(), instrument(), question());
    }

    private Beginnings(Consumer<Beginning> begin) {
        super(12);
        this.begin = begin;
        setId("beginnings");
    }

    /** What a session that has begun can take in. */
    static Beginnings toAdd(Consumer<Beginning> add) {
        Beginnings b = new Beginnings(add);
        b.show(b.file(), b.instrument());
        return b;
    }

    private void show(Node... cards) {
        getChildren().addAll(cards);
        getChildren().forEach(c -> {
            HBox.setHgrow(c, Priority.ALWAYS);
            ((Region) c).setPrefWidth(Theme.px(240));
            ((Region) c).setMinWidth(Theme.px(130));
        });
    }

    /** One beginning: what there is, what comes of it, and what to do. */
    static VBox card(String title, String says, Node... acts) {
        Label more = Labels.wrapped(says);
        more.getStyleClass().add("quiet");
        VBox card = Labels.card(Labels.section(title), more);
        Region gap = new Region();
        VBox.setVgrow(gap, Priority.ALWAYS);
        HBox row = new HBox(8, acts);
        row.setAlignment(Pos.CENTER_LEFT);
        card.getChildren().addAll(gap, row);
        card.setSpacing(4);
        card.setPadding(new Insets(10, 12, 10, 12));
        return card;
    }

    private Node file() {
        Button choose = new Button("Choose files...");
        choose.setId("begin-files");
        choose.setMinWidth(USE_PREF_SIZE);
        choose.setOnAction(e -> {
            FileChooser chooser = new FileChooser();
            chooser.setTitle("Records to look at");
            List<File> chosen = chooser.showOpenMultipleDialog(getScene().getWindow());
            if (chosen != null) {
                begin.accept(
                        new Beginning.Files(chosen.stream().map(File::toPath).toList()));
            }
        });
        Labels.explained(choose, "Delimited text, JSON or sound; columns become channels, runs become runs");
        return card("These files", "Drop files or a folder anywhere here: their traces stand at once.", choose);
    }

    private Node instrument() {
        spoken.getItems().setAll(SPOKEN.keySet());
        spoken.getSelectionModel().selectFirst();
        spoken.setId("begin-spoken");
        spoken.setAccessibleText("How the instrument is spoken to");
        spoken.setPrefWidth(Theme.px(128));
        field(address, "begin-address", "host:port or serial port", 130);
        field(query, "begin-query", "query, such as READ?", 100);
        Labels.shown(query, false);
        spoken.getSelectionModel().selectedItemProperty().addListener((o, was, is) -> {
            boolean asks = "scpi".equals(SPOKEN.get(is));
            Labels.shown(query, asks);
            address.setPromptText("file".equals(SPOKEN.get(is)) ? "path of the file" : "host:port or serial port");
        });
        Button listen = new Button("Listen");
        listen.setId("begin-listen");
        listen.setMinWidth(USE_PREF_SIZE);
        listen.setOnAction(e -> listen());
        address.setOnAction(e -> listen());
        query.setOnAction(e -> listen());
        HBox.setHgrow(spoken, Priority.ALWAYS);
        spoken.setMaxWidth(Double.MAX_VALUE);
        HBox where = new HBox(8, address, query, listen);
        where.setAlignment(Pos.CENTER_LEFT);
        VBox acts = new VBox(5, spoken, where);
        HBox.setHgrow(acts, Priority.ALWAYS);
        return card(
                "This instrument", "It is asked what it sends; its values run live, and what is kept is a run.", acts);
    }

    private void listen() {
        begin.accept(new Beginning.Instrument(
                Objects.requireNonNull(SPOKEN.get(spoken.getValue())),
                address.getText().strip(),
                query.getText().strip()));
    }

    private Node question() {
        field(question, "begin-question", "what is to be found?", 170);
        HBox.setHgrow(question, Priority.ALWAYS);
        Button ask = new Button("Begin");
        ask.setId("begin-ask");
        ask.setMinWidth(USE_PREF_SIZE);
        ask.setOnAction(
                e -> begin.accept(new Beginning.Question(question.getText().strip())));
        question.setOnAction(e -> ask.fire());
        return card(
                "This question",
                "An empty plan with the question over it; the rest is added as it comes.",
                question,
                ask);
    }

    private static void field(TextField f, String id, String prompt, double width) {
        f.setId(id);
        f.setPromptText(prompt);
        f.setAccessibleText(prompt);
        f.setPrefWidth(Theme.px(width));
        f.setMinWidth(Theme.px(60));
        HBox.setHgrow(f, Priority.ALWAYS);
    }

    /** True for a path that is neither a session nor a sheet, but may hold readings. */
    static boolean isData(Path p) {
        String name = p.toString().toLowerCase(java.util.Locale.ROOT);
        return !name.endsWith(".needle") && !name.endsWith(".yaml") && !name.endsWith(".yml");
    }
}
