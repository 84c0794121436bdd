package eagerneedle.app.plan;

import eagerneedle.app.plot.PictureView;
import eagerneedle.app.station.Desk;
import eagerneedle.app.station.StationView;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.Rows;
import eagerneedle.app.widget.Theme;
import eagerneedle.core.plan.TimeLine;
import eagerneedle.core.quantity.Budget;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.picture.BudgetPicture;
import eagerneedle.picture.FormulaPicture;
import eagerneedle.picture.Ink;
import eagerneedle.picture.TimeLinePicture;
import javafx.animation.PauseTransition;
import javafx.application.Platform;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.util.Duration;

/** Plan: what is to be found, by which equation, from which inputs, and how uncertain it will be. */
public final class PlanStation implements StationView {
    private final Desk desk;
    private static final int MOST_LINES = 6;
    private final PlanModel model;
    private final ScrollPane scroll = new ScrollPane();
    private final Label predicted = Labels.styled("", "figure-big");
    private final Label coverage = Labels.quiet("");
    private final PictureView budget = new PictureView("Predicted uncertainty budget", null);
    private final Label schedule = Labels.wrapped("");
    private final Label materials = Labels.wrapped("");
    private final VBox cautionBox = new VBox(4);
    private final Rows<PlanModel.Caution> cautions =
            Rows.changing(cautionBox, PlanModel.Caution::id, this::caution, PlanStation::show);
    private final Label verdict = Labels.wrapped("");
    private final InputTable inputs;
    private final InstrumentChips hand;
    /** Whoever passes by, or is still writing, does not set rehearsals going. */
    private final PauseTransition pause = new PauseTransition(Duration.millis(300));

    public PlanStation(Desk desk) {
        this.desk = desk;
        model = new PlanModel(desk);
        InputsModel inputsModel = new InputsModel(desk);
        inputs = new InputTable(inputsModel);
        hand = new InstrumentChips(desk, inputsModel, inputs.rows());
        Sheet sheet = desk.bench().sheet();
        VBox all = new VBox(14, new HBox(28, question(sheet), prediction(desk)));
        model.timeLine().ifPresent(line -> timeLine(all, line));
        all.getStyleClass().add("surface");
        scroll.setContent(all);
        pause.setOnFinished(e -> {
            boolean here = scroll.getScene() != null
                    && scroll.getScene().getWindow() != null
                    && scroll.getScene().getWindow().isShowing();
            if (here) {
                desk.bench().planRehearsal().begin(Platform::runLater);
            }
        });
        scroll.setFitToWidth(true);
    }

    private VBox question(Sheet sheet) {
        VBox left = new VBox(10);
        left.setPrefWidth(Theme.px(360));
        left.setMinWidth(Theme.px(210));
        left.getChildren()
                .addAll(
                        Labels.heading("To be found"),
                        Labels.wrapped(sheet.question()),
                        Labels.section("By which equations"));
        sheet.principle().forEach(p -> left.getChildren().add(equation(p)));
        if (sheet.pool().isThere()) {
            Label sessions = Labels.wrapped(model.sessions());
            sessions.setId("sessions-expected");
            left.getChildren().addAll(Labels.section("Sessions to take"), sessions);
        }
        if (!sheet.captures().isEmpty()) {
            left.getChildren().addAll(Labels.section("Runs to take"), schedule);
        }
        if (!sheet.materials().isEmpty()) {
            left.getChildren().addAll(Labels.section("To have ready"), materials);
        }
        if (!model.cautions().isEmpty()) {
            left.getChildren().addAll(Labels.section("Cautions"), cautionBox);
        }
        if (!model.verdict().isEmpty()) {
            verdict.setId("sheet-verdict");
            left.getChildren().addAll(Labels.section("This sheet"), verdict);
        }
        return left;
    }

    private VBox prediction(Desk desk) {
        predicted.setId("predicted");
        predicted.setMinWidth(Region.USE_PREF_SIZE);
        coverage.setMinWidth(0);
        Button stock = new Button("Stockroom");
        stock.setId("plan-stockroom");
        stock.getStyleClass().add("quiet-button");
        stock.setOnAction(e -> desk.showStockroom());
        Labels.explained(stock, "All instruments with their specifications and calibrations");
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        HBox head = new HBox(8, Labels.heading("Inputs"), gap, stock);
        head.setAlignment(Pos.CENTER_LEFT);
        VBox right = new VBox(
                7,
                Labels.heading("Predicted before anything is switched on"),
                new HBox(14, predicted, coverage),
                new TargetPanel(desk),
                head,
                hand,
                inputs,
                Labels.heading("Where the predicted uncertainty comes from"),
                budget);
        HBox.setHgrow(right, Priority.ALWAYS);
        return right;
    }

    private static void timeLine(VBox all, TimeLine line) {
        PictureView picture = new PictureView("Time line", (s, w, h) -> TimeLinePicture.paint(s, line, w));
        picture.setPrefHeight(TimeLinePicture.height(line));
        picture.setMinHeight(TimeLinePicture.height(line));
        all.getChildren()
                .addAll(
                        Labels.heading("Time line: " + Math.round(line.total()) + " min with one pair of hands"),
                        Labels.quiet("filled: somebody has to be at it; hollow: runs by itself; red: a delay of "
                                + "it delays the end"),
                        picture);
    }

    private static Node equation(Sheet.Principle p) {
        PictureView view = new PictureView(p.formula(), null);
        view.show((s, w, h) -> {
            FormulaPicture.Size size = FormulaPicture.measure(s, p.formula(), 16);
            double needed = Math.ceil(size.ascent() + size.descent() + 8);
            if (needed > h) {
                // A fraction in a fraction is taller than a line.
                Platform.runLater(() -> {
                    view.setMinHeight(needed);
                    view.setPrefHeight(needed);
                });
            }
            FormulaPicture.paint(s, p.formula(), 14, (h + size.ascent() - size.descent()) / 2, 16, Ink.INK);
        });
        view.setMinHeight(Theme.px(40));
        view.setPrefHeight(Theme.px(44));
        Label text = Labels.quiet(p.text() == null ? "" : p.text());
        text.setWrapText(true);
        return new VBox(0, text, view);
    }

    private CheckBox caution(PlanModel.Caution c) {
        CheckBox read = new CheckBox("▲ " + c.text());
        read.setId(c.id());
        read.setWrapText(true);
        read.setMinHeight(Region.USE_PREF_SIZE);
        Labels.explained(read, "Tick it when it was read and understood; the notebook keeps when");
        read.setOnAction(e -> Notices.attempt(scroll, () -> model.acknowledge(c, read.isSelected())));
        return read;
    }

    private static void show(CheckBox read, PlanModel.Caution c) {
        read.setSelected(c.read());
        Labels.styled(read, "quiet", c.read());
        Labels.styled(read, "attention", !c.read());
    }

    @Override
    public Node node() {
        return scroll;
    }

    @Override
    public void refresh() {
        pause.playFromStart();
        verdict.setText(String.join("\n", model.verdict()));
        inputs.refresh();
        hand.refresh();
        schedule.setText(model.runs());
        materials.setText(model.materials());
        cautions.show(model.cautions());
        PlanModel.Prediction p = model.prediction();
        predicted.setText(p.value());
        coverage.setText(p.words());
        if (p.budget().isPresent()) {
            Budget b = p.budget().get();
            budget.setPrefHeight(BudgetPicture.height(b, MOST_LINES));
            budget.setMinHeight(BudgetPicture.height(b, MOST_LINES));
            budget.show((s, w, h) -> BudgetPicture.paint(s, b, 0, 0, w, MOST_LINES));
        } else {
            budget.show(null);
        }
    }
}
