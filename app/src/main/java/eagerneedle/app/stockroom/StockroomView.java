package eagerneedle.app.stockroom;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.json.JsonMapper;
import eagerneedle.app.station.Desk;
import eagerneedle.app.station.StationView;
import eagerneedle.app.widget.Files;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.core.chain.Link;
import eagerneedle.core.stockroom.Instrument;
import eagerneedle.store.FileName;
import eagerneedle.store.stockroom.Stockroom;
import java.io.File;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ChoiceBox;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextArea;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.GridPane;
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
    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("d MMM uuuu")
            .withLocale(java.util.Locale.UK)
            .withZone(ZoneId.systemDefault());
    private static final ObjectMapper JSON = JsonMapper.builder().build();
    private final Desk desk;
    private final Stockroom stock;
    private final HBox all = new HBox(22);
    private final TextField search = new TextField();
    private final ChoiceBox<String> kind = new ChoiceBox<>();
    private final VBox list = new VBox(1);
    private final Label count = Labels.quiet("");
    private final VBox card = new VBox(8);
    private final Map<String, TextField> fields = new LinkedHashMap<>();
    private final ChoiceBox<String> kinds = new ChoiceBox<>();
    private final TextArea link = new TextArea();
    private final Button undo = new Button("Take back");
    private Runnable back;
    private String shown;

    /** @param leave goes back to where one came from */
    public StockroomView(Desk desk, Runnable leave) {
        this.desk = desk;
        this.stock = desk.stockroom();
        all.getStyleClass().add("surface");
        all.setId("stockroom");
        search.setId("stock-search");
        search.setPromptText("serial, name, place, unit");
        search.setAccessibleText("Search the stockroom");
        search.textProperty().addListener((o, was, is) -> list());
        kind.getItems().add("everything");
        kind.getItems().addAll(Instrument.KINDS);
        kind.getSelectionModel().selectFirst();
        kind.setId("stock-kind");
        kind.setAccessibleText("Kind of instrument");
        kind.setOnAction(e -> list());
        HBox.setHgrow(search, Priority.ALWAYS);
        Button leaveButton = button("stock-leave", "← back", "Back to the station (or press its number)", leave);
        ScrollPane scroll = new ScrollPane(list);
        scroll.setFitToWidth(true);
        scroll.getStyleClass().add("bare");
        VBox.setVgrow(scroll, Priority.ALWAYS);
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        HBox head = new HBox(8, Labels.heading("Stockroom"), count, gap, leaveButton);
        head.setAlignment(Pos.CENTER_LEFT);
        FlowPane acts = new FlowPane(
                4,
                4,
                button("stock-add", "Add", "A new instrument, empty", this::add),
                button("stock-in", "Bring in JSON...", "Instruments from a JSON file of a stockroom", this::bringIn),
                button("stock-out", "Save as JSON...", "All instruments as a JSON file", this::saveOut),
                undo);
        undo.getStyleClass().add("quiet-button");
        undo.setId("stock-undo");
        undo.setDisable(true);
        undo.setOnAction(e -> takeBack());
        VBox left = new VBox(8, head, new HBox(8, search, kind), scroll, acts);
        left.setPrefWidth(420);
        left.setMinWidth(330);
        ScrollPane right = new ScrollPane(card);
        right.setFitToWidth(true);
        right.getStyleClass().add("bare");
        HBox.setHgrow(right, Priority.ALWAYS);
        all.getChildren().addAll(left, right);
        list();
    }

    private static Button button(String id, String words, String says, Runnable act) {
        Button b = new Button(words);
        b.setId(id);
        b.getStyleClass().add("quiet-button");
        b.setOnAction(e -> act.run());
        return Labels.explained(b, says);
    }

    private Instant now() {
        return desk.bench().clock().instant();
    }

    private void list() {
        list.getChildren().clear();
        List<Instrument> every = stock.all();
        List<Instrument> found = every.stream()
                .filter(i -> i.matches(search.getText())
                        && (kind.getSelectionModel().getSelectedIndex() == 0
                                || i.kind().equals(kind.getValue())))
                .toList();
        count.setText(found.size() + " of " + every.size());
        ToggleGroup group = new ToggleGroup();
        String last = "";
        for (Instrument i : found) {
            String heading = i.retired() ? "retired" : i.kind();
            if (!heading.equals(last)) {
                list.getChildren().add(Labels.styled(heading.toUpperCase(java.util.Locale.ROOT), "group"));
                last = heading;
            }
            Label serial = Labels.figure(i.id());
            serial.setMinWidth(92);
            Label name = new Label(i.name());
            name.setMinWidth(0);
            HBox.setHgrow(name, Priority.ALWAYS);
            name.setMaxWidth(Double.MAX_VALUE);
            Label state = Labels.quiet(
                    i.objection(now()).isPresent() && !i.retired() ? "▲ due" : i.place() == null ? "" : i.place());
            if (state.getText().startsWith("▲")) {
                state.getStyleClass().add("attention");
            }
            state.setMinWidth(Region.USE_PREF_SIZE);
            ToggleButton row = new ToggleButton();
            HBox box = new HBox(10, serial, name, state);
            box.setPrefWidth(360);
            row.setGraphic(box);
            row.setMaxWidth(Double.MAX_VALUE);
            row.setAlignment(Pos.CENTER_LEFT);
            row.setId("stock-" + i.id());
            row.setAccessibleText(i.id() + " " + i.name());
            row.getStyleClass().add("quiet-button");
            row.setToggleGroup(group);
            row.setSelected(i.id().equals(shown));
            row.setOnAction(e -> show(i));
            list.getChildren().add(row);
        }
        if (every.isEmpty()) {
            list.getChildren()
                    .addAll(
                            Labels.wrapped("The stockroom is empty. Add an instrument, bring in a JSON file, or begin "
                                    + "with the inventory of the demonstration."),
                            button(
                                    "stock-demo",
                                    "Bring in the demonstration inventory",
                                    "The instruments of Tarn Hollow College, to change into your own",
                                    () -> Notices.attempt(all, () -> {
                                        Notices.tell(all, stock.bringIn(Stockroom.demonstrationJson()));
                                        list();
                                    })));
        } else if (found.isEmpty()) {
            list.getChildren()
                    .add(Labels.wrapped("Nothing matches. Search for part of a serial, a name, a place or a unit."));
        }
        if (shown == null || stock.find(shown).isEmpty()) {
            card.getChildren()
                    .setAll(Labels.quiet(
                            every.isEmpty() ? "" : "Choose an instrument to see its specification and history."));
        }
    }

    /** Opens an instrument by its serial, if it is there. */
    public void show(String id) {
        stock.all().stream().filter(i -> i.id().equals(id)).findFirst().ifPresent(this::show);
    }

    private void show(Instrument i) {
        shown = i.id();
        card.getChildren().clear();
        fields.clear();
        GridPane grid = new GridPane();
        grid.setHgap(12);
        grid.setVgap(5);
        kinds.getItems().setAll(Instrument.KINDS);
        kinds.setValue(i.kind());
        kinds.setId("stock-field-kind");
        int row = 0;
        field(grid, row++, "id", "serial", i.id(), "TH-CP-01");
        grid.addRow(row++, Labels.quiet("kind"), kinds);
        field(grid, row++, "name", "name", i.name(), "caliper");
        field(grid, row++, "measures", "unit", i.measures(), "mm");
        field(grid, row++, "place", "kept at", i.place(), "cupboard A");
        field(
                grid,
                row++,
                "low",
                "range from",
                i.range().isEmpty() ? null : i.range().get(0),
                "0 mm");
        field(
                grid,
                row++,
                "high",
                "range to",
                i.range().isEmpty() ? null : i.range().get(1),
                "150 mm");
        field(grid, row++, "resolution", "resolution", i.resolution(), "0.02 mm");
        field(
                grid,
                row++,
                "edges",
                "edges lined up",
                i.edges() == null ? null : i.edges().toString(),
                "1; 2 for a rule laid freely");
        field(grid, row++, "accuracy", "accuracy", i.accuracy(), "0.02 mm + 0.1 mm/m, or 0.5 % of reading + 2 digits");
        field(grid, row++, "value", "reference value", i.value(), "100.012(4) ohm");
        field(
                grid,
                row++,
                "warm",
                "warm-up, min",
                i.warmUp() == null ? null : i.warmUp().toString(),
                "20");
        field(
                grid,
                row++,
                "minutes",
                "one reading, min",
                i.minutes() == null ? null : i.minutes().toString(),
                "1");
        field(grid, row, "limits", "limits", i.limits(), "no more than 400 °C");
        link.setId("stock-link");
        link.setPrefRowCount(3);
        link.setWrapText(true);
        link.setAccessibleText("Its part in a chain, as JSON");
        link.setText(i.link() == null ? "" : json(i.link()));
        link.setPromptText("as JSON: kind, label, from, to, gain or law with its constants");
        FlowPane acts = new FlowPane(
                6,
                6,
                button("stock-save", "Keep changes", "Checks and keeps what stands here", () -> save(i)),
                button("stock-copy", "Copy", "The same specification under the next free serial", () -> copy(i)),
                button(
                        "stock-retire",
                        i.retired() ? "Take back into use" : "Retire",
                        "A retired instrument is offered no more; old sessions keep it",
                        () -> retire(i)));
        i.objection(now()).ifPresent(o -> {
            Label l = Labels.wrapped("▲ " + o);
            l.getStyleClass().add("attention");
            card.getChildren().add(l);
        });
        card.getChildren().addAll(Labels.heading(i.name() + " " + i.id()), grid, acts);
        if (i.link() != null || List.of("sensor", "conditioner", "converter").contains(i.kind())) {
            card.getChildren().addAll(Labels.section("Its part in a chain"), link);
        }
        history(i);
        list();
    }

    private void field(GridPane grid, int row, String key, String label, String value, String example) {
        TextField f = new TextField(value == null ? "" : value);
        f.setId("stock-field-" + key);
        f.setPromptText(example);
        f.setPrefWidth(330);
        f.setAccessibleText(label);
        Labels.explained(f, "For instance " + example);
        fields.put(key, f);
        grid.addRow(row, Labels.quiet(label), f);
    }

    private static String json(Link l) {
        try {
            return JSON.writeValueAsString(l);
        } catch (JsonProcessingException e) {
            throw new IllegalStateException(e);
        }
    }

    private void history(Instrument i) {
        GridPane grid = new GridPane();
        grid.setHgap(12);
        grid.setVgap(3);
        int row = 0;
        for (Instrument.Event e : i.history()) {
            Label what = Labels.wrapped(e.what()
                    + (e.value() == null ? "" : ": " + e.value())
                    + (e.outcome() == null ? "" : ", " + e.outcome())
                    + (e.due() == null ? "" : ", due " + DAY.format(e.due())));
            grid.addRow(row++, Labels.figure(DAY.format(e.at())), what, Labels.quiet(e.by() == null ? "" : e.by()));
        }
        TextField what = new TextField();
        what.setId("stock-event-what");
        what.setAccessibleText("What happened to it");
        what.setPromptText("calibrated against ..., repaired, used for ...");
        what.setPrefWidth(230);
        TextField due = new TextField();
        due.setId("stock-event-due");
        due.setAccessibleText("Due date of a calibration");
        due.setPromptText("due, 2027-11-23");
        due.setPrefWidth(110);
        ChoiceBox<String> outcome = new ChoiceBox<>();
        outcome.getItems().addAll("", "passed", "failed");
        outcome.getSelectionModel().selectFirst();
        outcome.setId("stock-event-outcome");
        outcome.setAccessibleText("Outcome of a calibration");
        outcome.setPrefWidth(84);
        Button enter = button(
                "stock-event-add",
                "Enter",
                "Adds a line to its history; with a due date it counts as a calibration",
                () -> enter(i, what.getText(), due.getText(), outcome.getValue()));
        enter.setMinWidth(Region.USE_PREF_SIZE);
        HBox add = new HBox(6, what, due, outcome, enter);
        card.getChildren()
                .addAll(Labels.section("History"), i.history().isEmpty() ? Labels.quiet("Nothing yet.") : grid, add);
    }

    private void enter(Instrument i, String what, String due, String outcome) {
        Notices.attempt(all, () -> {
            if (what.isBlank()) {
                throw new IllegalArgumentException("Say what happened to it.");
            }
            Instant until = null;
            if (!due.isBlank()) {
                try {
                    until = LocalDate.parse(due.strip())
                            .atStartOfDay(ZoneOffset.UTC)
                            .toInstant();
                } catch (DateTimeParseException e) {
                    throw new IllegalArgumentException(
                            "'" + due.strip() + "' is not a date; write year-month-day, for instance 2027-11-23.", e);
                }
            }
            keep(
                    i,
                    i.withEvent(new Instrument.Event(
                            now(),
                            what.strip(),
                            "instructor on duty",
                            null,
                            until,
                            outcome.isEmpty() ? null : outcome)));
        });
    }

    /** Keeps a changed instrument and remembers how to take that back. */
    private void keep(Instrument before, Instrument after) {
        stock.put(after);
        back = () -> {
            if (before == null || !before.id().equals(after.id())) {
                stock.remove(after.id());
            }
            if (before != null) {
                stock.put(before);
            }
        };
        if (before != null && !before.id().equals(after.id())) {
            stock.remove(before.id());
        }
        undo.setDisable(false);
        show(after);
    }

    private void takeBack() {
        if (back != null) {
            Notices.attempt(all, back);
            back = null;
            undo.setDisable(true);
            stock.find(shown == null ? "" : shown).ifPresentOrElse(this::show, this::list);
        }
    }

    private String text(String key) {
        String t = fields.get(key).getText().strip();
        return t.isEmpty() ? null : t;
    }

    private Double number(String key) {
        try {
            return text(key) == null ? null : Double.valueOf(text(key));
        } catch (NumberFormatException e) {
            throw new IllegalArgumentException("'" + text(key) + "' is not a number.", e);
        }
    }

    private void save(Instrument before) {
        Notices.attempt(all, () -> {
            List<String> range = new ArrayList<>();
            if (text("low") != null && text("high") != null) {
                range.addAll(List.of(text("low"), text("high")));
            }
            Link part = null;
            if (!link.getText().isBlank()) {
                try {
                    part = JSON.readValue(link.getText(), Link.class);
                } catch (JsonProcessingException e) {
                    throw new IllegalArgumentException(
                            "Its part in a chain is not JSON that can be read; look at quotes and commas.", e);
                }
            }
            Double edges = number("edges");
            Instrument after = new Instrument(
                            text("id"),
                            kinds.getValue(),
                            text("name"),
                            fields.get("measures").getText().strip().isEmpty() && before.measures() == null
                                    ? null
                                    : fields.get("measures").getText().strip(),
                            text("place"),
                            range,
                            text("resolution"),
                            edges == null ? null : edges.intValue(),
                            text("accuracy"),
                            text("value"),
                            number("warm"),
                            number("minutes"),
                            text("limits"),
                            part,
                            before.history(),
                            before.retired())
                    .checked();
            if (!after.id().equals(before.id()) && stock.find(after.id()).isPresent()) {
                throw new IllegalArgumentException(
                        "There is an instrument " + after.id() + " already; choose another serial.");
            }
            keep(before, after);
            Notices.tell(all, "Kept " + after.name() + " " + after.id() + ".");
        });
    }

    private void add() {
        Notices.attempt(
                all,
                () -> keep(
                        null,
                        new Instrument(
                                stock.freeSerial("NEW-01"),
                                "hand instrument",
                                "new instrument",
                                "mm",
                                null,
                                null,
                                null,
                                null,
                                null,
                                null,
                                null,
                                1.0,
                                null,
                                null,
                                null,
                                false)));
    }

    private void copy(Instrument i) {
        Notices.attempt(all, () -> keep(null, i.copyAs(stock.freeSerial(i.id()))));
    }

    private void retire(Instrument i) {
        Notices.attempt(all, () -> keep(i, i.retire(!i.retired())));
    }

    private void bringIn() {
        FileChooser chooser = new FileChooser();
        chooser.setTitle("Bring in instruments");
        File f = chooser.showOpenDialog(all.getScene().getWindow());
        if (f != null) {
            Notices.attempt(all, () -> {
                try {
                    String before = stock.json();
                    Notices.tell(
                            all, stock.bringIn(java.nio.file.Files.readString(f.toPath(), StandardCharsets.UTF_8)));
                    back = () -> {
                        stock.all().forEach(i -> stock.remove(i.id()));
                        stock.bringIn(before);
                    };
                    undo.setDisable(false);
                    list();
                } catch (IOException e) {
                    throw new IllegalArgumentException(f.getName() + " cannot be read as text.", e);
                }
            });
        }
    }

    private void saveOut() {
        Path to = Files.askFor(all, "stockroom.json", "*.json");
        if (to != null) {
            Notices.attempt(all, () -> {
                Files.write(to, stock.json().getBytes(StandardCharsets.UTF_8));
                Notices.tell(all, "Saved " + FileName.of(to) + ".");
            });
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

    @Override
    public void refresh() {
        // The stockroom does not follow the session.
    }
}
