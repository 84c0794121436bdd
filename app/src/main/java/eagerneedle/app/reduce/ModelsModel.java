package eagerneedle.app.reduce;

import eagerneedle.app.station.Desk;
import eagerneedle.core.fit.Fit;
import eagerneedle.core.fit.FitException;
import eagerneedle.core.fit.ModelComparison;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.picture.ColumnPlots;
import eagerneedle.picture.Ink;
import eagerneedle.picture.Layer;
import eagerneedle.picture.Plot;
import eagerneedle.picture.SessionPlots;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/** The models that the run in hand was fitted with: how likely each is, and the pictures that tell them apart. */
final class ModelsModel {
    /** A picture of the run with its title. */
    record View(String title, Plot plot) {}

    /**
     * One model beside the others.
     *
     * @param share of the Akaike weights, in words
     * @param more how it fits, in words
     */
    record Card(String name, boolean best, String share, String more, String parameters, Plot curve, Plot residuals) {}

    /** All models with what they come to in words. */
    record Comparison(String words, List<Card> cards) {}

    private final Desk desk;

    ModelsModel(Desk desk) {
        this.desk = desk;
    }

    /** True when runs of this capture are fitted with more than one model, or have pictures of their own. */
    static boolean has(Sheet sheet, Run run) {
        Capture c = sheet.capture(run.capture());
        return !c.views().isEmpty()
                || c.quantities().values().stream()
                                .filter(d -> d.formula().startsWith("fit(")
                                        || d.formula().startsWith("polynomial("))
                                .count()
                        > 1;
    }

    private Optional<Run> run() {
        return desk.run().flatMap(x -> desk.bench().session().run(x.id()));
    }

    /** The pictures that the sheet asks for, of the run in hand. */
    List<View> views() {
        Reduction r = desk.bench().reduction();
        List<View> out = new ArrayList<>();
        run().ifPresent(x -> r.sheet()
                .capture(x.capture())
                .views()
                .forEach(v -> ColumnPlots.view(r, x, v).ifPresent(p -> out.add(new View(v.title(), p)))));
        return out;
    }

    Comparison comparison() {
        Reduction r = desk.bench().reduction();
        List<Fit> all = run().map(r::fitsOfRun).orElse(List.of());
        List<Fit> fits = all.stream()
                .filter(f -> f.yUnit().equals(all.get(0).yUnit())
                        && Arrays.equals(f.y(), all.get(0).y()))
                .toList();
        if (fits.size() < 2) {
            return new Comparison("This run is fitted with one model only.", List.of());
        }
        try {
            ModelComparison c = ModelComparison.of(fits);
            Capture capture = r.sheet().capture(run().orElseThrow().capture());
            String reading =
                    capture.top().map(top -> r.sheet().channel(top).label()).orElse(capture.label());
            return new Comparison(
                    c.advice(),
                    c.entries().stream()
                            .map(e -> card(e, e == c.best(), reading))
                            .toList());
        } catch (FitException e) {
            return new Comparison(String.valueOf(e.getMessage()), List.of());
        }
    }

    private static Card card(ModelComparison.Entry e, boolean best, String reading) {
        Fit f = e.fit();
        Plot.Axis time = new Plot.Axis("time", f.xUnit().pretty());
        return new Card(
                f.model(),
                best,
                "share "
                        + (e.share() > 0.9995
                                ? "over " + Notation.fixed(99.9, 1)
                                : e.share() < 0.0005
                                        ? "under " + Notation.fixed(0.1, 1)
                                        : Notation.plain(100 * e.share(), 3))
                        + " %" + (best ? ": the likeliest" : ""),
                "residual SD " + SessionPlots.finely(f.residualSd(), f.yUnit()) + " · runs test "
                        + Notation.plain(e.runs(), 2) + (e.runs() < -3 ? ", they bend" : "") + " · r² "
                        + Notation.plain(f.rSquared(), 5),
                IntStream.range(0, f.names().size())
                        .mapToObj(i -> f.names().get(i) + " = " + f.parameter(i))
                        .collect(Collectors.joining("\n")),
                new Plot(
                        f.model(),
                        time,
                        new Plot.Axis(reading, f.yUnit().pretty()),
                        List.of(
                                new Layer.Points("readings", f.x(), f.y(), null, false, 0),
                                new Layer.Curve(f.model(), f.x(), f.fitted(), Ink.INK, 1.4, false))),
                new Plot(
                        "Residuals of " + f.model(),
                        time,
                        new Plot.Axis("residual", f.yUnit().pretty()),
                        List.of(new Layer.Level(0, Ink.QUIET), new Layer.Stems(f.x(), f.residuals(), 0))));
    }
}
