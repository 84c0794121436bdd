package eagerneedle.picture;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.PictureSource;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.sheet.Picture;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;

/** What a fit through the points of a picture leaves over. */
public final class ResidualPlots {
    private ResidualPlots() {}

    /** Residuals of the first fit of a picture over runs, in a thousandth of its unit where that has a name. */
    public static Optional<Plot> of(Reduction r, Picture p) {
        PictureSource source = PictureSource.overRuns(r);
        return p.lines().stream()
                .flatMap(l -> Stream.ofNullable(l.fit())
                        .flatMap(n -> source.fit(n).stream())
                        .map(f -> {
                            List<Quantity> x = r.column(l.x());
                            LabUnit xu = p.xUnit() != null
                                    ? LabUnit.parse(p.xUnit())
                                    : x.isEmpty() ? f.xUnit() : x.get(0).unit();
                            LabUnit yu = p.yUnit() != null ? LabUnit.parse(p.yUnit()) : f.yUnit();
                            Optional<LabUnit> fine = SessionPlots.fine(yu);
                            double scale = f.yUnit().scaleTo(fine.orElse(yu));
                            double[] px = Arrays.stream(f.x())
                                    .map(v -> f.xUnit().convert(v, xu))
                                    .toArray();
                            double[] shown = Arrays.stream(f.residuals())
                                    .map(v -> v * scale)
                                    .toArray();
                            Plot residuals = new Plot(
                                    "Residuals of " + p.title(),
                                    new Plot.Axis(p.xLabel() == null ? source.named(l.x()) : p.xLabel(), xu.pretty()),
                                    new Plot.Axis("residual", fine.orElse(yu).pretty()),
                                    List.of(
                                            new Layer.Level(0, Ink.QUIET),
                                            new Layer.Stems(px, shown, p.lines().indexOf(l))));
                            return Logarithmic.of(residuals, p.xAxis().equals("logarithmic"), false);
                        }))
                .findFirst();
    }
}
