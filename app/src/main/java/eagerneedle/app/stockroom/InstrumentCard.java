package eagerneedle.app.stockroom;

import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.Theme;
import eagerneedle.core.stockroom.Instrument;
import java.util.LinkedHashMap;
import java.util.Map;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ChoiceBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextArea;
import javafx.scene.control.TextField;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;

/** One instrument: its specification to change, its part in a chain, its history. */
final class InstrumentCard extends VBox {
    private final StockroomModel model;
    private final Runnable changed;
    private final Label objection = Labels.attention("");
    private final Label title = Labels.heading("");
    private final ChoiceBox<String> kinds = new ChoiceBox<>();
    private final Map<String, TextField> fields = new LinkedHashMap<>();
    private final Button retire;
    private final VBox chain;
    private final TextArea link = new TextArea();
    private final GridPane past = new GridPane();
    private final Label noPast = Labels.quiet("Nothing yet.");

    /** @param changed is called when the instrument or which one is in hand was changed */
    InstrumentCard(StockroomModel model, Runnable changed) {
        super(8);
        this.model = model;
        this.changed = changed;
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
        getChildren()
                .addAll(
                        objection,
                        title,
                        specification(),
                        acts,
                        chain,
                        Labels.section("History"),
                        noPast,
                        past,
                        entering());
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
        for (StockroomModel.Field f : StockroomModel.FIELDS) {
            TextField field = new TextField();
            field.setId("stock-field-" + f.key());
            field.setPromptText(f.example());
            field.setPrefWidth(Theme.px(330));
            field.setAccessibleText(f.label());
            Labels.explained(field, "For instance " + f.example());
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
        TextField due = new TextField();
        due.setId("stock-event-due");
        due.setAccessibleText("Due date of a calibration");
        due.setPromptText("due, 2027-11-23");
        due.setPrefWidth(Theme.px(110));
        ChoiceBox<String> outcome = new ChoiceBox<>();
        outcome.getItems().addAll("", "passed", "failed");
        outcome.getSelectionModel().selectFirst();
        outcome.setId("stock-event-outcome");
        outcome.setAccessibleText("Outcome of a calibration");
        outcome.setPrefWidth(Theme.px(84));
        Button enter = act(
                "stock-event-add",
                "Enter",
                "Adds a line to its history; with a due date it counts as a calibration",
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
        fields.forEach((key, f) -> written.put(key, f.getText()));
        Notices.tell(this, model.save(kinds.getValue(), written, link.getText()));
    }

    void show(StockroomModel.Card card) {
        Instrument i = card.instrument();
        Labels.says(objection, card.objection().map(o -> "▲ " + o).orElse(""));
        title.setText(i.name() + " " + i.id());
        kinds.setValue(i.kind());
        fields.forEach((key, f) -> f.setText(card.fields().getOrDefault(key, "")));
        retire.setText(i.retired() ? "Take back into use" : "Retire");
        link.setText(card.link().orElse(""));
        chain.setVisible(card.link().isPresent());
        chain.setManaged(chain.isVisible());
        past.getChildren().clear();
        for (StockroomModel.Past p : card.history()) {
            past.addRow(past.getRowCount(), Labels.figure(p.day()), Labels.wrapped(p.what()), Labels.quiet(p.by()));
        }
        noPast.setVisible(card.history().isEmpty());
        noPast.setManaged(noPast.isVisible());
    }
}
