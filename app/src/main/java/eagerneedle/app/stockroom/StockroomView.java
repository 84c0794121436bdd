package eagerneedle.app.stockroom;

import eagerneedle.app.station.Desk;
import eagerneedle.app.station.StationView;
import eagerneedle.app.stockroom.StockroomModel.Line;
import eagerneedle.app.widget.Files;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.Rows;
import eagerneedle.app.widget.Theme;
import eagerneedle.app.workbench.InstrumentsInUse;
import eagerneedle.core.stockroom.Instrument;
import eagerneedle.store.FileName;
import java.io.File;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import javafx.application.Platform;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ChoiceBox;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.stage.FileChooser;

/**
 * The stockroom: search on the left, one instrument with its specification and history on the right. Every change can
 * be taken back.
 */
public final class StockroomView implements StationView {
    private final StockroomModel model;
    private final HBox all = new HBox(22);
    private final TextField search = new TextField();
    private final ChoiceBox<String> kind = new ChoiceBox<>();
    private final VBox listBox = new VBox(1);
    private final ToggleGroup group = new ToggleGroup();
    private final Rows<Line> list = Rows.changing(listBox, StockroomView::key, this::row, StockroomView::show);
    private final Label count = Labels.quiet("");
    private final Label none = Labels.wrapped("");
    private final Button demonstration;
    private final ScrollPane right = new ScrollPane();
    private final InstrumentCard card;
    private final Label choose = Labels.quiet("Choose an instrument to see its specification and history.");
    private final Button undo;

    /** @param leave goes back to where one came from */
    public StockroomView(Desk desk, Runnable leave) {
        model = new StockroomModel(desk.stockroom(), desk.bench().clock());
        card = new InstrumentCard(
                model, this::showAll, desk::showPutRight, desk.site().places());
        all.getStyleClass().add("surface");
        all.setId("stockroom");
        search.setId("stock-search");
        search.setPromptText("serial, name, place, unit");
        search.setAccessibleText("Search the stockroom");
        search.textProperty().addListener((o, was, is) -> list());
        kind.getItems().add(StockroomModel.EVERYTHING);
        kind.getItems().addAll(Instrument.KINDS);
        kind.getSelectionModel().selectFirst();
        kind.setId("stock-kind");
        kind.setAccessibleText("Kind of instrument");
        kind.setOnAction(e -> list());
        HBox.setHgrow(search, Priority.ALWAYS);
        demonstration = act(
                "stock-demo",
                "Bring in the demonstration inventory",
                "The instruments of Tarn Hollow College, to change into your own",
                () -> Notices.tell(all, model.bringInDemonstration()));
        undo = act("stock-undo", "Take back", "Takes the last change of the stockroom back", model::takeBack);
        all.getChildren().addAll(left(leave), right);
        right.setFitToWidth(true);
        right.getStyleClass().add("bare");
        HBox.setHgrow(right, Priority.ALWAYS);
        model.chooseFirst();
        showAll();
        lookThrough(desk.sessions());
    }

    /** Sessions are looked through beside the work; the card is filled in when that is done. */
    private void lookThrough(List<Path> sessions) {
        Set<String> serials = model.serials();
        CompletableFuture.supplyAsync(() -> InstrumentsInUse.among(sessions, serials))
                .thenAccept(found -> Platform.runLater(() -> {
                    model.usedIn(found);
                    model.card().ifPresent(c -> card.usedIn(c.instrument(), c.uses()));
                }));
    }

    private VBox left(Runnable leave) {
        ScrollPane scroll = new ScrollPane(new VBox(8, listBox, none, demonstration));
        scroll.setFitToWidth(true);
        scroll.getStyleClass().add("bare");
        VBox.setVgrow(scroll, Priority.ALWAYS);
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        Button leaveButton = new Button("← back");
        leaveButton.setId("stock-leave");
        leaveButton.getStyleClass().add("quiet-button");
        leaveButton.setOnAction(e -> leave.run());
        Labels.explained(leaveButton, "Back to the station (or press its number)");
        HBox head = new HBox(8, Labels.heading("Stockroom"), count, gap, leaveButton);
        head.setAlignment(Pos.CENTER_LEFT);
        FlowPane acts = new FlowPane(
                4,
                4,
                act("stock-add", "Add", "A new instrument, empty", model::add),
                act("stock-in", "Bring in JSON...", "Instruments from a JSON file of a stockroom", this::bringIn),
                act("stock-out", "Save as JSON...", "All instruments as a JSON file", this::saveOut),
                undo);
        VBox left = new VBox(8, head, new HBox(8, search, kind), scroll, acts);
        left.setPrefWidth(Theme.px(400));
        left.setMinWidth(Theme.px(330));
        return left;
    }

    private Button act(String id, String words, String says, Runnable act) {
        Button b = new Button(words);
        b.setId(id);
        b.getStyleClass().add("quiet-button");
        b.setOnAction(e -> {
            Notices.attempt(all, act);
            showAll();
        });
        return Labels.explained(b, says);
    }

    private void list() {
        List<Line> found = model.found(search.getText(), kind.getValue());
        list.show(found);
        count.setText(model.count(search.getText(), kind.getValue()));
        Labels.says(
                none,
                model.isEmpty()
                        ? "The stockroom is empty. Add an instrument, bring in a JSON file, or begin with the "
                                + "inventory of the demonstration."
                        : found.isEmpty()
                                ? "Nothing matches. Search for part of a serial, a name, a place or a unit."
                                : "");
        Labels.shown(demonstration, model.isEmpty());
    }

    private static Object key(Line line) {
        return line instanceof Line.Item i ? i.id() : line;
    }

    private Node row(Line line) {
        if (line instanceof Line.Group g) {
            return Labels.styled(g.label(), "group");
        }
        String id = ((Line.Item) line).id();
        ToggleButton row = new ToggleButton();
        row.setMaxWidth(Double.MAX_VALUE);
        row.setAlignment(Pos.CENTER_LEFT);
        row.setId("stock-" + id);
        row.getStyleClass().add("quiet-button");
        row.setToggleGroup(group);
        row.setOnAction(e -> show(id));
        return row;
    }

    private static void show(Node node, Line line) {
        if (line instanceof Line.Item i) {
            Label serial = Labels.figure(i.id());
            serial.setMinWidth(Theme.px(92));
            Label name = new Label(i.name());
            name.setMinWidth(0);
            HBox.setHgrow(name, Priority.ALWAYS);
            name.setMaxWidth(Double.MAX_VALUE);
            Label about = Labels.quiet(i.about());
            Labels.styled(about, "attention", i.due());
            about.setMinWidth(Region.USE_PREF_SIZE);
            HBox box = new HBox(10, serial, name, about);
            box.setPrefWidth(Theme.px(360));
            ToggleButton row = (ToggleButton) node;
            row.setGraphic(box);
            row.setAccessibleText(i.id() + " " + i.name());
            row.setSelected(i.chosen());
        }
    }

    /** Opens an instrument by its serial, if it is there. */
    public void show(String id) {
        model.choose(id);
        showAll();
    }

    private void bringIn() {
        FileChooser chooser = new FileChooser();
        chooser.setTitle("Bring in instruments");
        File f = chooser.showOpenDialog(all.getScene().getWindow());
        if (f != null) {
            Notices.tell(all, model.bringIn(f.toPath()));
        }
    }

    private void saveOut() {
        Path to = Files.askFor(all, "stockroom.json", "*.json");
        if (to != null) {
            Files.write(to, model.json());
            Notices.tell(all, "Saved " + FileName.of(to) + ".");
        }
    }

    @Override
    public Node node() {
        return all;
    }

    @Override
    public Optional<Node> focus() {
        return Optional.of(search);
    }

    /** The stockroom does not follow the session: what is half-written in the card stays. */
    @Override
    public void refresh() {
        list();
    }

    private void showAll() {
        list();
        undo.setDisable(!model.canTakeBack());
        model.card()
                .ifPresentOrElse(
                        c -> {
                            card.show(c);
                            right.setContent(card);
                        },
                        () -> right.setContent(model.isEmpty() ? null : choose));
    }
}
