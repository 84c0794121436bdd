package eagerneedle.app.stockroom;

import eagerneedle.app.plot.PictureView;
import eagerneedle.app.plot.PlotView;
import eagerneedle.app.widget.Cell;
import eagerneedle.app.widget.CellGrid;
import eagerneedle.app.widget.Files;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.Theme;
import eagerneedle.app.widget.Typing;
import eagerneedle.app.workbench.InstrumentsInUse;
import eagerneedle.core.stockroom.Instrument;
import eagerneedle.picture.InstrumentPlots;
import eagerneedle.picture.Plot;
import eagerneedle.picture.RangePicture;
import eagerneedle.store.FileName;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ChoiceBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextArea;
import javafx.scene.control.TextField;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/**
 * One instrument as what it can do: its range, how accurate it is over that, how it has fared, and another beside it.
 * Its specification is folded away until somebody wants to change it.
 */
final class InstrumentCard extends VBox {
    private final StockroomModel model;
    private final Runnable changed;
    private final List<String> places;
    private final Label objection = Labels.attention("");
    private final Label title = Labels.styled("", "instrument-name");
    private final Label serial = Labels.styled("", "instrument-serial");
    private final Label facts = Labels.wrapped("");
    private final Label standing = Labels.wrapped("");
    private final PictureView range = new PictureView("Range", null);
    private final PlotView accuracy = new PlotView("Standard uncertainty of one reading");
    private final PlotView drift = new PlotView("Values found at calibrations");
    private final ChoiceBox<String> beside = new ChoiceBox<>();
    private final VBox details = new VBox(8);
    private final Button change = new Button("Change the specification");
    private final ChoiceBox<String> kinds = new ChoiceBox<>();
    private final Map<String, TextField> fields = new LinkedHashMap<>();
    private boolean filling;
    private final Button retire;
    private final VBox chain;
    private final TextArea link = new TextArea();
    private final CellGrid past = new CellGrid();
    private final Label noPast = Labels.quiet("Nothing yet.");
    private final CellGrid used = new CellGrid((label, column) -> label.setMinWidth(0));
    private final Label usedWhere = Labels.section("Used in");

    /**
     * @param changed is called when the instrument or which one is in hand was changed
     * @param wrong is called with a serial that turned out wrong after it was used
     * @param places where the laboratory keeps things; empty where it does not say
     */
    InstrumentCard(StockroomModel model, Runnable changed, Consumer<String> wrong, List<String> places) {
        super(8);
        this.model = model;
        this.changed = changed;
        this.places = places;
        link.setId("stock-link");
        link.setPrefRowCount(3);
        link.setWrapText(true);
        link.setAccessibleText("Its part in a chain, as JSON");
        link.setPromptText("as JSON: kind, label, from, to, gain or law with its constants");
        chain = new VBox(8, Labels.section("Its part in a chain"), link);
        retire = act(
                "stock-retire",
                "Retire",
                "A retired instrument is offered no more; old sessions keep it",
                model::retire);
        FlowPane acts = new FlowPane(
                6,
                6,
                act("stock-save", "Keep changes", "Checks and keeps what stands here", this::save),
                act("stock-copy", "Copy", "The same specification under the next free serial", model::copy),
                retire);
        past.setHgap(12);
        past.setVgap(3);
        used.setVgap(3);
        details.getChildren().addAll(specification(), acts, chain);
        change.setId("stock-change");
        change.getStyleClass().add("quiet-button");
        change.setMinWidth(USE_PREF_SIZE);
        change.setOnAction(e -> open(!details.isVisible()));
        Button right = new Button("It was wrong...");
        right.setId("stock-wrong");
        right.getStyleClass().add("quiet-button");
        right.setMinWidth(USE_PREF_SIZE);
        right.setOnAction(e -> wrong.accept(serial.getText()));
        Labels.explained(right, "Puts sessions right in which something was read with it, or calibrated against it");
        Labels.explained(change, "Its specification and its part in a chain, field by field");
        facts.getStyleClass().add("quiet");
        getChildren()
                .addAll(
                        head(),
                        objection,
                        standing,
                        facts,
                        range,
                        pictures(),
                        Labels.section("History"),
                        noPast,
                        past,
                        entering(),
                        usedWhere,
                        used,
                        new HBox(8, change, right),
                        details);
        open(false);
    }

    /** Shows the fields of the specification, or folds them. */
    private void open(boolean shown) {
        Labels.shown(details, shown);
        change.setText(shown ? "Fold the specification" : "Change the specification");
    }

    private HBox head() {
        Button label = new Button("Label to print...");
        label.setId("stock-label");
        label.getStyleClass().add("quiet-button");
        label.setMinWidth(USE_PREF_SIZE);
        label.setOnAction(e -> saveLabel());
        Labels.explained(label, "A label with its serial as a code, 62 mm by 29 mm, as PDF");
        beside.setId("stock-beside");
        beside.setAccessibleText("Instrument to compare it with");
        beside.setMaxWidth(Theme.px(230));
        beside.setMinWidth(Theme.px(116));
        beside.setOnAction(e -> {
            if (!filling) {
                model.compareWith(beside.getValue());
                changed.run();
            }
        });
        Labels.explained(beside, "Draws another instrument of the same unit beside it");
        Label compare = Labels.quiet("beside it");
        compare.setMinWidth(USE_PREF_SIZE);
        title.setMinWidth(0);
        serial.setMinWidth(USE_PREF_SIZE);
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        HBox head = new HBox(10, title, serial, gap, compare, beside, label);
        head.setAlignment(Pos.CENTER_LEFT);
        return head;
    }

    private HBox pictures() {
        HBox both = new HBox(14, accuracy, drift);
        for (PlotView v : List.of(accuracy, drift)) {
            v.setPrefHeight(Theme.px(210));
            v.setMinHeight(Theme.px(150));
            v.setPrefWidth(Theme.px(300));
            HBox.setHgrow(v, Priority.ALWAYS);
        }
        return both;
    }

    private void saveLabel() {
        Path to = Files.askFor(this, serial.getText() + " label.pdf", "*.pdf");
        if (to != null && Notices.attempt(this, () -> Files.write(to, model.label()))) {
            Notices.tell(this, "Saved " + FileName.of(to) + ".");
        }
    }

    private Button act(String id, String words, String says, Runnable act) {
        Button b = new Button(words);
        b.setId(id);
        b.getStyleClass().add("quiet-button");
        b.setMinWidth(USE_PREF_SIZE);
        b.setOnAction(e -> {
            if (Notices.attempt(this, act)) {
                changed.run();
            }
        });
        return Labels.explained(b, says);
    }

    private GridPane specification() {
        GridPane grid = new GridPane();
        grid.setHgap(12);
        grid.setVgap(5);
        kinds.getItems().setAll(Instrument.KINDS);
        kinds.setId("stock-field-kind");
        kinds.setAccessibleText("Kind of this instrument");
        for (SpecificationField f : SpecificationField.ALL) {
            TextField field = new TextField();
            field.setId("stock-field-" + f.key());
            field.setPromptText(Typing.as(f.example()));
            field.setPrefWidth(Theme.px(330));
            field.setAccessibleText(f.label());
            Labels.explained(field, "For instance " + Typing.as(f.example()));
            fields.put(f.key(), field);
            grid.addRow(grid.getRowCount(), Labels.quiet(f.label()), field);
            if (fields.size() == 1) {
                grid.addRow(grid.getRowCount(), Labels.quiet("kind"), kinds);
            }
        }
        return grid;
    }

    private Node entering() {
        TextField what = new TextField();
        what.setId("stock-event-what");
        what.setAccessibleText("What happened to it");
        what.setPromptText("calibrated against ..., repaired, used for ...");
        what.setPrefWidth(Theme.px(230));
        what.setMinWidth(Theme.px(120));
        HBox.setHgrow(what, Priority.ALWAYS);
        what.setMaxWidth(Theme.px(330));
        TextField due = new TextField();
        due.setId("stock-event-due");
        due.setAccessibleText("Due date of a calibration");
        due.setPromptText("due, 2027-11-23");
        due.setPrefWidth(Theme.px(132));
        due.setMinWidth(Theme.px(110));
        ChoiceBox<String> outcome = new ChoiceBox<>();
        outcome.getItems().addAll("", "passed", "failed", Instrument.BROKEN, Instrument.REPAIRED);
        outcome.getSelectionModel().selectFirst();
        outcome.setId("stock-event-outcome");
        outcome.setAccessibleText("Outcome of a calibration, or broken or repaired");
        outcome.setPrefWidth(Theme.px(104));
        Button enter = act(
                "stock-event-add",
                "Enter",
                "Adds a line to its history; with a due date it counts as a calibration. What is broken is out of every plan at "
                        + "once; what was repaired asks for a calibration",
                () -> {
                    model.enter(what.getText(), due.getText(), outcome.getValue());
                    what.clear();
                    due.clear();
                    outcome.getSelectionModel().selectFirst();
                });
        return new HBox(6, what, due, outcome, enter);
    }

    private void save() {
        Map<String, String> written = new LinkedHashMap<>();
        fields.forEach((key, f) -> written.put(key, Typing.in(f)));
        String said = model.save(kinds.getValue(), written, link.getText());
        String place = written.getOrDefault("place", "").strip();
        if (place.isEmpty() || places.isEmpty() || places.contains(place)) {
            Notices.tell(this, said);
        } else {
            Notices.warn(
                    this,
                    said + " The laboratory names no place '" + place + "'; it has: " + String.join(", ", places)
                            + ".");
        }
    }

    private static void shown(PlotView view, Optional<Plot> plot) {
        view.plot(plot.orElse(null), false);
        Labels.shown(view, plot.isPresent());
    }

    /** The sessions it was used in; nothing stands there where it was used in none. */
    void usedIn(Instrument i, List<InstrumentsInUse.Use> uses) {
        used.show(uses.stream()
                .map(u -> List.of(
                        Cell.plain(InstrumentWords.use(i, u)).saying(u.file().toString())))
                .toList());
        for (Region part : List.of(usedWhere, used)) {
            Labels.shown(part, !uses.isEmpty());
        }
    }

    void show(StockroomModel.Card card) {
        Instrument i = card.instrument();
        Labels.says(objection, card.objection().map(o -> "▲ " + o).orElse(""));
        if (!i.id().equals(serial.getText())) {
            // A new one wants its fields filled in; any other is looked at first.
            open(i.name().equals("new instrument"));
        }
        title.setText(i.name());
        serial.setText(i.id());
        standing.setText(card.standing());
        facts.setText(Typing.as(card.facts()));
        filling = true;
        beside.getItems().setAll(card.comparable());
        beside.setValue(card.beside().map(Instrument::id).orElse(StockroomModel.ALONE));
        filling = false;
        List<Instrument> drawn = card.beside().map(other -> List.of(i, other)).orElse(List.of(i));
        boolean ranged = RangePicture.draws(i);
        Labels.shown(range, ranged);
        range.setMinHeight(Theme.px(RangePicture.height(drawn.size())));
        range.setPrefHeight(Theme.px(RangePicture.height(drawn.size())));
        range.show((s, w, h) -> RangePicture.paint(s, drawn, w));
        shown(accuracy, InstrumentPlots.accuracy(drawn));
        shown(drift, card.drift());
        kinds.setValue(i.kind());
        fields.forEach((key, f) -> Typing.show(f, card.fields().getOrDefault(key, "")));
        retire.setText(i.retired() ? "Take back into use" : "Retire");
        link.setText(card.link().orElse(""));
        chain.setVisible(card.link().isPresent());
        chain.setManaged(chain.isVisible());
        past.show(card.history().stream()
                .map(p -> List.of(
                        new Cell(p.day(), Cell.Look.DIGITS, ""),
                        new Cell(p.what(), Cell.Look.WRAPPED, ""),
                        Cell.quiet(p.by())))
                .toList());
        noPast.setVisible(card.history().isEmpty());
        noPast.setManaged(noPast.isVisible());
        usedIn(i, card.uses());
    }
}
