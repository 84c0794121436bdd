package eagerneedle.app.plan;

import eagerneedle.app.plot.DrawingView;
import eagerneedle.app.plot.EquationView;
import eagerneedle.app.plot.PictureView;
import eagerneedle.app.station.CautionCard;
import eagerneedle.app.station.Desk;
import eagerneedle.app.station.HandoutPaper;
import eagerneedle.app.station.StationView;
import eagerneedle.app.widget.AddRow;
import eagerneedle.app.widget.BesideOrBelow;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.Theme;
import eagerneedle.app.widget.Typing;
import eagerneedle.app.workbench.OpenBench;
import eagerneedle.core.quantity.Budget;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.picture.Apparatus;
import eagerneedle.picture.BudgetPicture;
import java.util.Optional;
import javafx.animation.PauseTransition;
import javafx.application.Platform;
import javafx.beans.binding.Bindings;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.util.Duration;

/** Plan: what is to be found, by which equation, from which inputs, and how uncertain it will be. */
public final class PlanStation implements StationView {
    private final Desk desk;
    private static final double LOW = 520;
    private final PlanModel model;
    private final BorderPane whole = new BorderPane();
    private final ScrollPane scroll = new ScrollPane();
    private final Label predicted = Labels.styled("", "result");
    private final Label coverage = Labels.quiet("");
    private final PictureView budget = new PictureView("Predicted uncertainty budget", null);
    private final Label schedule = Labels.wrapped("");
    private final Label materials = Labels.wrapped("");
    private final CautionCard cautions;
    private Optional<DrawingView> drawing = Optional.empty();
    private final Label verdict = Labels.wrapped("");
    private final InputTable inputs;
    private final InstrumentChips hand;
    /** Whoever passes by, or is still writing, does not set rehearsals going. */
    private final PauseTransition pause = new PauseTransition(Duration.millis(300));

    public PlanStation(Desk desk) {
        model = new PlanModel(desk);
        this.desk = desk;
        InputsModel inputsModel = new InputsModel(desk);
        inputs = new InputTable(inputsModel);
        hand = new InstrumentChips(desk, inputsModel, inputs.rows());
        cautions = new CautionCard(desk, true);
        Sheet sheet = desk.bench().sheet();
        VBox all = new VBox(16, cautions, new BesideOrBelow(question(sheet), prediction()), inputs(desk), rest(sheet));
        all.getStyleClass().add("surface");
        scroll.setContent(all);
        scroll.setFitToWidth(true);
        scroll.getStyleClass().add("plan-scroll");
        scroll.viewportBoundsProperty().addListener((o, was, is) -> inputs.room(is.getWidth()));
        pause.setOnFinished(e -> {
            boolean here = scroll.getScene() != null
                    && scroll.getScene().getWindow() != null
                    && scroll.getScene().getWindow().isShowing();
            if (here) {
                desk.bench().planRehearsal().begin(Platform::runLater);
            }
        });
        whole.setCenter(scroll);
        model.timeLine().ifPresent(line -> whole.setBottom(new TimeLineBar(line)));
        inputs.onPoint(key -> drawing.ifPresent(v -> v.light(key)));
        drawing.ifPresent(v -> v.onPoint(inputs::light));
    }

    /** What is asked, and with what it is found. */
    /** The question; at an open bench it is a line to write in. */
    private Node asked(Sheet sheet) {
        if (!OpenBench.isOpen(desk.bench())) {
            return Labels.wrapped(sheet.question());
        }
        TextField line = new TextField(sheet.question());
        line.setId("question");
        line.setAccessibleText("What is to be found");
        line.setOnAction(e -> Notices.attempt(scroll, () -> model.ask(line.getText())));
        line.focusedProperty().addListener((o, was, is) -> {
            if (!is && scroll.getScene() != null) {
                Notices.attempt(scroll, () -> model.ask(line.getText()));
            }
        });
        return line;
    }

    private VBox question(Sheet sheet) {
        VBox left = new VBox(8, Labels.heading("To be found"), asked(sheet));
        left.setPrefWidth(Theme.px(440));
        left.setMinWidth(Theme.px(250));
        drawing = Apparatus.of(sheet).map(a -> DrawingView.of(a, sheet.title()));
        drawing.ifPresent(v -> {
            v.setId("drawing");
            v.setMinHeight(Theme.px(140));
            // In a low window the inputs are to be in sight too.
            v.prefHeightProperty()
                    .bind(Bindings.createDoubleBinding(
                            () -> Math.max(Theme.px(140), Math.min(Theme.px(228), 0.36 * scroll.getHeight())),
                            scroll.heightProperty()));
            left.getChildren().add(v);
        });
        return left;
    }

    /** The result as it will be, and what to do about its uncertainty: what the station is for. */
    private VBox prediction() {
        predicted.setId("predicted");
        predicted.setMinWidth(Region.USE_PREF_SIZE);
        coverage.setWrapText(true);
        coverage.setMinHeight(Region.USE_PREF_SIZE);
        VBox right = new VBox(
                6,
                Labels.heading("Predicted before anything is switched on"),
                predicted,
                coverage,
                Labels.quiet("where its uncertainty comes from, as shares of the variance"),
                budget,
                new TargetPanel(desk));
        right.setMinWidth(0);
        return right;
    }

    private VBox inputs(Desk desk) {
        Button stock = new Button("Stockroom");
        stock.setId("plan-stockroom");
        stock.getStyleClass().add("quiet-button");
        stock.setOnAction(e -> desk.showStockroom());
        Labels.explained(stock, "All instruments with their specifications and calibrations");
        MenuButton paper = new MenuButton("Handout");
        paper.setId("plan-handout");
        paper.getStyleClass().add("quiet-button");
        paper.setMinWidth(Region.USE_PREF_SIZE);
        Labels.explained(
                paper, "This method on paper, with tables to fill; or with what is expected, for the instructor");
        MenuItem students = new MenuItem("For students...");
        students.setOnAction(e -> Notices.attempt(
                scroll, () -> HandoutPaper.ask(scroll, desk.bench().session().sheetText(), false)));
        MenuItem key = new MenuItem("With what is expected...");
        key.setOnAction(e -> Notices.attempt(
                scroll, () -> HandoutPaper.ask(scroll, desk.bench().session().sheetText(), true)));
        paper.getItems().addAll(students, key);
        HBox acts = new HBox(8, paper, hand.toggle(), stock);
        acts.setAlignment(Pos.CENTER_RIGHT);
        BesideOrBelow head = new BesideOrBelow(Labels.heading("Inputs"), acts);
        AddRow add = new AddRow(
                        "add-input",
                        "Add an input",
                        Typing.as(
                                "Something that is read once, with its uncertainty: 20.02(5) mm, or 20.02 limit 0.05 mm"),
                        v -> model.addInput(v.get(0), v.get(1), Typing.of(v.get(2))))
                .text("name", "name", 96)
                .text("label", "what it is", 190)
                .text("value", Typing.as("value: 20.02(5) mm"), 170);
        AddRow result = new AddRow(
                        "add-result",
                        "Add a result",
                        "A result by formula, from inputs, other results, and columns over runs such as record.tau",
                        v -> model.addResult(v.get(0), v.get(1), v.get(2)))
                .text("name", "name", 96)
                .words("=")
                .text("formula", "formula, such as V / I", 220)
                .text("unit", "unit", 80);
        return new VBox(6, head, hand, inputs, add, result);
    }

    /** Equations, and what is to be taken and had ready. */
    private Node rest(Sheet sheet) {
        VBox equations = new VBox(8, Labels.heading("By which equations"));
        sheet.principle().forEach(p -> equations.getChildren().add(equation(p)));
        equations.setPrefWidth(Theme.px(440));
        equations.setMinWidth(Theme.px(250));
        VBox lists = new VBox(8);
        if (sheet.pool().isThere()) {
            Label sessions = Labels.wrapped(model.sessions());
            sessions.setId("sessions-expected");
            lists.getChildren().addAll(Labels.heading("Sessions to take"), sessions);
        }
        if (!sheet.captures().isEmpty()) {
            lists.getChildren().addAll(Labels.heading("Runs to take"), schedule);
        }
        if (!sheet.materials().isEmpty()) {
            lists.getChildren().addAll(Labels.heading("To have ready"), materials);
        }
        if (!model.verdict().isEmpty()) {
            verdict.setId("sheet-verdict");
            lists.getChildren().addAll(Labels.heading("This sheet"), verdict);
        }
        return sheet.principle().isEmpty() ? lists : new BesideOrBelow(equations, lists);
    }

    private static Node equation(Sheet.Principle p) {
        Label text = Labels.quiet(p.text() == null ? "" : p.text());
        text.setWrapText(true);
        return new VBox(0, text, EquationView.of(p.formula()));
    }

    /** Lines of the budget that are drawn: the largest few where the window is low. */
    private int lines() {
        return scroll.getHeight() < Theme.px(LOW) ? 3 : 5;
    }

    @Override
    public Node node() {
        return whole;
    }

    @Override
    public void refresh() {
        pause.playFromStart();
        verdict.setText(String.join("\n", model.verdict()));
        inputs.refresh();
        hand.refresh();
        schedule.setText(model.runs());
        materials.setText(model.materials());
        cautions.refresh();
        PlanModel.Prediction p = model.prediction();
        predicted.setText(p.value());
        coverage.setText(p.words());
        if (p.budget().isPresent()) {
            Budget b = p.budget().get();
            int lines = lines();
            budget.setPrefHeight(Theme.px(BudgetPicture.height(b, lines)));
            budget.setMinHeight(Theme.px(BudgetPicture.height(b, lines)));
            budget.show((s, w, h) -> BudgetPicture.paint(s, b, 0, 0, w, lines));
        } else {
            budget.show(null);
            budget.setPrefHeight(Theme.px(40));
            budget.setMinHeight(Theme.px(40));
        }
    }
}
