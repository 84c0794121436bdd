package eagerneedle.app.reduce;

import eagerneedle.app.plot.PlotView;
import eagerneedle.app.station.Desk;
import eagerneedle.app.widget.Labels;
import eagerneedle.core.fit.Fit;
import eagerneedle.core.fit.FitException;
import eagerneedle.core.fit.ModelComparison;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.picture.Ink;
import eagerneedle.picture.Layer;
import eagerneedle.picture.Plot;
import eagerneedle.picture.SessionPlots;
import java.util.List;
import java.util.Optional;
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
    private final Desk desk;
    private final HBox columns = new HBox(12);
    private final HBox straight = new HBox(12);
    private final Label words = Labels.wrapped("");

    ModelChoice(Desk desk) {
        this.desk = desk;
        words.setId("models-say");
        columns.setId("models");
        VBox.setVgrow(columns, Priority.ALWAYS);
        straight.setId("views");
        straight.setPrefHeight(170);
        straight.setMinHeight(120);
        VBox all = new VBox(8);
        setContent(all);
        setFitToWidth(true);
        setFitToHeight(true);
        getStyleClass().add("bare");
        setMinHeight(200);
        all.getChildren()
                .addAll(
                        words,
                        columns,
                        straight,
                        Labels.quiet("Shares are Akaike weights of the same readings (AICc). r² is printed because "
                                + "people ask; it decides nothing."));
    }

    /** True when runs of this capture are fitted with more than one model, or have pictures of their own. */
    static boolean has(Sheet sheet, Run run) {
        return !sheet.captures().get(run.capture()).views().isEmpty()
                || sheet.captures().get(run.capture()).quantities().values().stream()
                                .filter(d -> d.formula().startsWith("fit(")
                                        || d.formula().startsWith("polynomial("))
                                .count()
                        > 1;
    }

    void refresh() {
        columns.getChildren().clear();
        straight.getChildren().clear();
        Reduction r = desk.bench().reduction();
        Optional<Run> run = desk.run().flatMap(x -> desk.bench().session().run(x.id()));
        run.ifPresent(x -> r.sheet()
                .captures()
                .get(x.capture())
                .views()
                .forEach(v -> SessionPlots.view(r, x, v).ifPresent(plot -> {
                    PlotView view = new PlotView(v.title());
                    view.plot(plot, false);
                    view.setMinHeight(120);
                    HBox.setHgrow(view, Priority.ALWAYS);
                    view.setPrefWidth(220);
                    straight.getChildren().add(view);
                })));
        straight.setManaged(!straight.getChildren().isEmpty());
        List<Fit> all = run.map(r::fitsOfRun).orElse(List.of());
        List<Fit> fits = all.stream()
                .filter(f -> f.yUnit().equals(all.get(0).yUnit())
                        && java.util.Arrays.equals(f.y(), all.get(0).y()))
                .toList();
        if (fits.size() < 2) {
            words.setText("This run is fitted with one model only.");
            return;
        }
        try {
            ModelComparison c = ModelComparison.of(fits);
            String reading = r.sheet()
                    .channels()
                    .get(r.sheet()
                            .captures()
                            .get(run.get().capture())
                            .channels()
                            .get(0))
                    .label();
            words.setText(c.advice());
            c.entries().forEach(e -> columns.getChildren().add(card(e, e == c.best(), reading)));
        } catch (FitException e) {
            words.setText(e.getMessage());
        }
    }

    private static VBox card(ModelComparison.Entry e, boolean best, String reading) {
        Fit f = e.fit();
        PlotView curve = new PlotView(f.model());
        curve.plot(
                new Plot(
                        f.model(),
                        new Plot.Axis("time", f.xUnit().pretty()),
                        new Plot.Axis(reading, f.yUnit().pretty()),
                        List.of(
                                new Layer.Points("readings", f.x(), f.y(), null, false, 0),
                                new Layer.Curve(f.model(), f.x(), f.fitted(), Ink.INK, 1.4, false))),
                false);
        PlotView residuals = new PlotView("Residuals of " + f.model());
        residuals.plot(
                new Plot(
                        "Residuals of " + f.model(),
                        new Plot.Axis("time", f.xUnit().pretty()),
                        new Plot.Axis("residual", f.yUnit().pretty()),
                        List.of(new Layer.Level(0, Ink.QUIET), new Layer.Stems(f.x(), f.residuals(), 0))),
                false);
        residuals.share(curve);
        curve.showTimeAxis(false);
        curve.setPrefHeight(150);
        VBox.setVgrow(curve, Priority.ALWAYS);
        VBox.setVgrow(residuals, Priority.ALWAYS);
        Label share = new Label("share "
                + (e.share() > 0.9995
                        ? "over 99.9"
                        : e.share() < 0.0005 ? "under 0.1" : Notation.plain(100 * e.share(), 3))
                + " %" + (best ? ": the likeliest" : ""));
        share.getStyleClass().add(best ? "good" : "plain");
        Label more = Labels.wrapped("residual SD " + SessionPlots.finely(f.residualSd(), f.yUnit()) + " · runs test "
                + Notation.plain(e.runs(), 2) + (e.runs() < -3 ? ", they bend" : "") + " · r² "
                + Notation.plain(f.rSquared(), 5));
        more.getStyleClass().add("quiet");
        Label parameters = Labels.wrapped(String.join(
                "\n",
                java.util.stream.IntStream.range(0, f.names().size())
                        .mapToObj(i -> f.names().get(i) + " = " + f.parameter(i))
                        .toList()));
        parameters.getStyleClass().add("figure-small");
        curve.setMinHeight(70);
        residuals.setMinHeight(84);
        VBox card = Labels.card(Labels.section(RunTrace.capital(f.model())), share, curve, residuals, more, parameters);
        card.setSpacing(3);
        if (best) {
            card.getStyleClass().add("speaks");
        }
        card.setMinWidth(0);
        HBox.setHgrow(card, Priority.ALWAYS);
        card.setPrefWidth(220);
        return card;
    }
}
