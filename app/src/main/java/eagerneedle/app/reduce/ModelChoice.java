package eagerneedle.app.reduce;

import eagerneedle.app.plot.PlotView;
import eagerneedle.app.station.Desk;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Rows;
import eagerneedle.app.widget.Theme;
import java.util.List;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/**
 * The models that a run was fitted with, side by side: the curve, its residuals, the share of the likelihood; and what
 * the data say in words.
 */
final class ModelChoice extends ScrollPane {
    private final ModelsModel model;
    private final HBox columns = new HBox(12);
    private final HBox straight = new HBox(12);
    private final Label words = Labels.wrapped("");
    private final Rows<ModelsModel.Card> cards = new Rows<>(columns, ModelChoice::card);
    private final Rows<ModelsModel.View> views = new Rows<>(straight, ModelChoice::view);

    ModelChoice(Desk desk) {
        model = new ModelsModel(desk);
        words.setId("models-say");
        columns.setId("models");
        VBox.setVgrow(columns, Priority.ALWAYS);
        straight.setId("views");
        straight.setPrefHeight(Theme.px(170));
        straight.setMinHeight(Theme.px(120));
        VBox all = new VBox(8);
        setContent(all);
        setFitToWidth(true);
        setFitToHeight(true);
        getStyleClass().add("bare");
        setMinHeight(Theme.px(200));
        all.getChildren()
                .addAll(
                        words,
                        columns,
                        straight,
                        Labels.quiet("Shares are Akaike weights of the same readings (AICc). r² is printed because "
                                + "people ask; it decides nothing."));
    }

    void refresh() {
        List<ModelsModel.View> seen = model.views();
        views.show(seen);
        straight.setManaged(!seen.isEmpty());
        ModelsModel.Comparison c = model.comparison();
        words.setText(c.words());
        cards.show(c.cards());
    }

    private static Node view(ModelsModel.View v) {
        PlotView view = new PlotView(v.title());
        view.plot(v.plot(), false);
        view.setMinHeight(Theme.px(120));
        HBox.setHgrow(view, Priority.ALWAYS);
        view.setPrefWidth(Theme.px(220));
        return view;
    }

    private static Node card(ModelsModel.Card c) {
        PlotView curve = new PlotView(c.name());
        curve.plot(c.curve(), false);
        PlotView residuals = new PlotView(c.residuals().title());
        residuals.plot(c.residuals(), false);
        residuals.share(curve);
        curve.showTimeAxis(false);
        curve.setPrefHeight(Theme.px(150));
        curve.setMinHeight(Theme.px(70));
        residuals.setMinHeight(Theme.px(84));
        VBox.setVgrow(curve, Priority.ALWAYS);
        VBox.setVgrow(residuals, Priority.ALWAYS);
        Label share = Labels.styled(c.share(), c.best() ? "good" : "plain");
        Label more = Labels.wrapped(c.more());
        more.getStyleClass().add("quiet");
        Label parameters = Labels.wrapped(c.parameters());
        parameters.getStyleClass().add("figure-small");
        VBox card =
                Labels.card(Labels.section(TraceModel.capital(c.name())), share, curve, residuals, more, parameters);
        card.setSpacing(3);
        Labels.styled(card, "speaks", c.best());
        card.setMinWidth(0);
        HBox.setHgrow(card, Priority.ALWAYS);
        card.setPrefWidth(Theme.px(220));
        return card;
    }
}
