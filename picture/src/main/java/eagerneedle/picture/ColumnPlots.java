package eagerneedle.picture;

import eagerneedle.core.fit.Fit;
import eagerneedle.core.formula.RowLabels;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Printed;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.PictureSource;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.Picture;
import eagerneedle.core.trace.Trace;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;

/**
 * The pictures that a sheet asks for: columns with their fits, curves by formulas, circles, marks, and records of one
 * run against each other.
 *
 * <p>A picture whose parts do not go together is not drawn, nor is a part that has no value yet; the check of the sheet
 * says why. It must not keep a session from being shown.
 */
public final class ColumnPlots {
    private static final int ROUND = 120;
    private static final int SMOOTH = 160;

    private final PictureSource source;
    private final Picture picture;
    private final List<Layer> bands = new ArrayList<>();
    private final List<Layer> lines = new ArrayList<>();
    private final List<Layer> points = new ArrayList<>();
    private final List<Layer.Entry> legend = new ArrayList<>();
    private final List<Quantity> abscissae = new ArrayList<>();
    private @Nullable LabUnit xUnit;
    private @Nullable LabUnit yUnit;
    private int series;

    private ColumnPlots(PictureSource source, Picture picture) {
        this.source = source;
        this.picture = picture;
        xUnit = picture.xUnit() == null ? null : LabUnit.parse(picture.xUnit());
        yUnit = picture.yUnit() == null ? null : LabUnit.parse(picture.yUnit());
    }

    /** Over the runs that count; runs left out are shown hollow. Empty while nothing can be drawn. */
    public static Optional<Plot> columns(Reduction r, Picture p) {
        return of(new ColumnPlots(PictureSource.overRuns(r), p), r);
    }

    /** Of one run. */
    public static Optional<Plot> view(Reduction r, Run run, Picture p) {
        return of(new ColumnPlots(PictureSource.of(r, run), p), r);
    }

    private static Optional<Plot> of(ColumnPlots plots, Reduction r) {
        try {
            return plots.drawn(r);
        } catch (IllegalArgumentException | ArithmeticException unfitting) {
            return Optional.empty();
        }
    }

    private Optional<Plot> drawn(Reduction r) {
        for (Picture.Line l : picture.lines()) {
            line(r, l);
        }
        picture.others().forEach(this::layer);
        if (points.isEmpty() && lines.isEmpty()) {
            return Optional.empty();
        }
        List<Layer> all = new ArrayList<>(bands);
        all.addAll(lines);
        all.addAll(points);
        Plot plot = new Plot(
                picture.title(),
                axis(picture.xLabel(), xUnit, true),
                axis(picture.yLabel(), yUnit, false),
                all,
                picture.equal());
        Plot scaled = Logarithmic.of(plot, isLogarithmic(picture.xAxis()), isLogarithmic(picture.yAxis()));
        return Optional.of(legend.isEmpty() ? scaled : scaled.withEntries(legend));
    }

    /** What an axis is called: as the sheet says, or as what is drawn first is called. */
    private Plot.Axis axis(@Nullable String label, @Nullable LabUnit unit, boolean across) {
        String name = label != null
                ? label
                : common(picture.lines().stream()
                        .map(l -> source.named(across ? l.x() : l.y()))
                        .toList());
        return new Plot.Axis(name, unit == null ? "" : unit.pretty());
    }

    /** What names begin with alike, up to a comma; the first where they have nothing in common. */
    private static String common(List<String> names) {
        if (names.isEmpty() || new java.util.HashSet<>(names).size() == 1) {
            return names.isEmpty() ? "" : names.get(0);
        }
        String start = names.get(0).split(",")[0];
        return names.stream().allMatch(n -> n.startsWith(start + ",")) ? start : names.get(0);
    }

    private static boolean isLogarithmic(String axis) {
        return axis.equals("logarithmic");
    }

    /** Runs its drawing; a part that has no value yet is left away. */
    private static void where(Runnable drawing) {
        try {
            drawing.run();
        } catch (IllegalArgumentException notYet) {
            // The check of the sheet says what is wrong, the ledger what is missing.
            return;
        }
    }

    private void line(Reduction r, Picture.Line l) {
        Optional<Trace[]> records = source.traces(l.x(), l.y());
        if (records.isPresent()) {
            record(l, records.get()[0], records.get()[1]);
            return;
        }
        where(() -> {
            PictureSource.Pairs pairs = source.pairs(l.x(), l.y());
            if (pairs.x().size() < (l.fit() == null && !picture.layers().isEmpty() ? 1 : 2)) {
                return;
            }
            units(pairs.x().get(0).unit(), pairs.y().get(0).unit());
            abscissae.addAll(pairs.x());
            boolean several = picture.lines().size() > 1;
            List<String> said = new ArrayList<>();
            String fit = l.fit();
            if (fit != null) {
                source.fit(fit).ifPresent(f -> said.addAll(through(f, fit, l, pairs, several)));
            }
            Map<String, PictureSource.Pairs> kinds = pairs.by(l.by());
            kinds.forEach((kind, some) -> {
                String name = kind.isEmpty()
                        ? several ? called(l) : "kept"
                        : source.kind(Objects.requireNonNull(l.by()), kind);
                points.add(pointsOf(name, some, false, series));
                if (l.joined()) {
                    lines.add(joined(name, some, series));
                }
                if (kind.isEmpty() && said.size() == 1 || kind.isEmpty() && several && said.isEmpty()) {
                    legend.add(new Layer.Entry(said.isEmpty() ? name : said.get(0), several ? series : -1));
                } else if (!kind.isEmpty()) {
                    legend.add(new Layer.Entry(name, series));
                }
                series++;
            });
            if (l.by() != null || said.size() > 1) {
                said.forEach(line -> legend.add(Layer.Entry.of(line)));
            }
            if (source.isOverRuns()) {
                leftOut(r, l, series - kinds.size()).ifPresent(points::add);
            }
        });
    }

    private String called(Picture.Line l) {
        return l.label() == null ? source.named(l.y()) : l.label();
    }

    /** Known once something was drawn. */
    private LabUnit xUnit() {
        return Objects.requireNonNull(xUnit);
    }

    private LabUnit yUnit() {
        return Objects.requireNonNull(yUnit);
    }

    /** The units of the axes, where the sheet does not say them: those of what is drawn first. */
    private void units(@Nullable LabUnit x, @Nullable LabUnit y) {
        xUnit = xUnit == null ? x : xUnit;
        yUnit = yUnit == null ? y : yUnit;
    }

    /** What a legend says of the fit. */
    private List<String> through(Fit fit, String name, Picture.Line l, PictureSource.Pairs pairs, boolean several) {
        DrawnFit f = DrawnFit.along(fit, pairs.x(), xUnit(), yUnit(), isLogarithmic(picture.xAxis()));
        bands.add(f.band());
        lines.add(f.curve());
        Optional<LabUnit> slope = source.slopeUnit(name);
        boolean brief = several || !source.isOverRuns();
        List<String> said = new ArrayList<>(f.says(several ? called(l) + ": " : "", brief, xUnit(), yUnit(), slope));
        if (!brief) {
            said.add(pairs.x().size() + " runs · residual SD "
                    + Printed.plain(f.fit().yUnit().scaleTo(yUnit()) * f.fit().residualSd(), 2, yUnit().difference()));
        }
        return said;
    }

    private void layer(Picture.Layer l) {
        where(() -> {
            String fit = l.fit();
            String curve = l.curve();
            Picture.Round circle = l.circle();
            Picture.Place mark = l.mark();
            if (fit != null) {
                source.fit(fit).ifPresent(f -> alone(f, fit, l));
            } else if (curve != null) {
                curve(curve, l);
            } else if (circle != null) {
                circle(circle, l.label());
            } else if (mark != null) {
                mark(mark, l.label());
            }
        });
    }

    /** A fit without points of its own; one whose abscissa stands upright is drawn over the ordinates. */
    private void alone(Fit fit, String name, Picture.Layer l) {
        units(l.swap() ? fit.yUnit() : fit.xUnit(), l.swap() ? fit.xUnit() : fit.yUnit());
        List<Quantity> along = Arrays.stream(fit.x())
                .mapToObj(v -> Quantity.exact(v, fit.xUnit()))
                .toList();
        DrawnFit f = l.swap()
                ? DrawnFit.along(fit, along, yUnit(), xUnit(), isLogarithmic(picture.yAxis()))
                        .swapped()
                : DrawnFit.along(fit, along, xUnit(), yUnit(), isLogarithmic(picture.xAxis()));
        bands.add(f.band());
        lines.add(f.curve());
        f.says(
                        l.label() == null ? "" : l.label() + ": ",
                        true,
                        l.swap() ? yUnit() : xUnit(),
                        l.swap() ? xUnit() : yUnit(),
                        source.slopeUnit(name))
                .forEach(line -> legend.add(Layer.Entry.of(line)));
    }

    /** From where the points begin to where they end, where the sheet does not say. */
    private void curve(String formula, Picture.Layer l) {
        if (l.from() == null && abscissae.isEmpty() || l.to() == null && abscissae.isEmpty()) {
            return;
        }
        Quantity from = l.from() == null ? null : source.quantity(l.from());
        LabUnit unit = xUnit == null ? Objects.requireNonNull(from).unit() : xUnit();
        double least = from == null ? least(unit) : from.in(unit);
        double most =
                l.to() == null ? -least(unit, -1) : source.quantity(l.to()).in(unit);
        boolean logarithmic = isLogarithmic(picture.xAxis()) && least > 0;
        List<Quantity> x = IntStream.rangeClosed(0, SMOOTH)
                .mapToDouble(i -> logarithmic
                        ? least * Math.pow(most / least, (double) i / SMOOTH)
                        : least + (most - least) * i / SMOOTH)
                .mapToObj(v -> Quantity.exact(v, unit))
                .toList();
        List<Quantity> y = source.along(formula, x);
        units(unit, y.get(0).unit());
        lines.add(new Layer.Curve(
                l.label() == null ? formula : l.label(), values(x, xUnit()), values(y, yUnit()), Ink.INK, 1.2, true));
        if (l.label() != null) {
            legend.add(Layer.Entry.of("- - " + l.label()));
        }
    }

    private double least(LabUnit unit) {
        return least(unit, 1);
    }

    private double least(LabUnit unit, int sign) {
        return abscissae.stream().mapToDouble(q -> sign * q.in(unit)).min().orElse(0);
    }

    private void circle(Picture.Round circle, @Nullable String label) {
        Quantity cx = source.quantity(circle.x());
        Quantity cy = source.quantity(circle.y());
        Quantity radius = source.quantity(circle.radius());
        units(cx.unit(), cy.unit());
        double[] x = new double[ROUND + 1];
        double[] y = new double[ROUND + 1];
        for (int i = 0; i <= ROUND; i++) {
            double angle = 2 * Math.PI * i / ROUND;
            x[i] = cx.in(xUnit()) + radius.in(xUnit()) * Math.cos(angle);
            y[i] = cy.in(yUnit()) + radius.in(yUnit()) * Math.sin(angle);
        }
        lines.add(new Layer.Curve(label == null ? "circle" : label, x, y, Ink.trace(series), 1.6, false));
        if (label != null) {
            points.add(new Layer.Words(label, x[ROUND / 8], y[ROUND / 8], Ink.trace(series), false));
        }
        series++;
    }

    private void mark(Picture.Place mark, @Nullable String label) {
        Quantity x = mark.x() == null ? null : source.quantity(mark.x());
        Quantity y = mark.y() == null ? null : source.quantity(mark.y());
        units(x == null ? null : x.unit(), y == null ? null : y.unit());
        points.add(new Layer.Mark(
                label == null ? "" : label,
                x == null ? Double.NaN : x.in(xUnit()),
                y == null ? Double.NaN : y.in(yUnit())));
    }

    /** One record against another, on the clock of the first. */
    private void record(Picture.Line l, Trace x, Trace y) {
        if (x.size() == 0 || y.size() == 0) {
            return;
        }
        units(x.unit(), y.unit());
        int[] there = IntStream.range(0, x.size())
                .filter(i -> x.time()[i] >= y.time()[0] && x.time()[i] <= y.time()[y.size() - 1])
                .toArray();
        double[] px = Arrays.stream(there)
                .mapToDouble(i -> x.unit().convert(x.value()[i], xUnit()))
                .toArray();
        double[] py = Arrays.stream(there)
                .mapToDouble(i -> y.unit().convert(y.valueAt(x.time()[i]), yUnit()))
                .toArray();
        String name = called(l);
        lines.add(new Layer.Curve(name, px, py, Ink.trace(series), 1.2, false));
        series++;
    }

    private Layer joined(String name, PictureSource.Pairs of, int ink) {
        return new Layer.Curve(name, values(of.x(), xUnit()), values(of.y(), yUnit()), Ink.trace(ink), 1, false);
    }

    private Layer.Points pointsOf(String name, PictureSource.Pairs of, boolean weak, int ink) {
        return new Layer.Points(
                name,
                values(of.x(), xUnit()),
                values(of.y(), yUnit()),
                uncertainties(of.x(), xUnit()),
                uncertainties(of.y(), yUnit()),
                of.rows().stream().map(ColumnPlots::named).toList(),
                weak,
                ink);
    }

    /** What a row is called: its run and what else it is. */
    private static String named(RowLabels.Row row) {
        List<String> all = new ArrayList<>();
        if (!row.run().isEmpty()) {
            all.add(row.run());
        }
        row.labels().values().stream().filter(v -> !all.contains(v)).forEach(all::add);
        return String.join(", ", all);
    }

    private static double[] values(List<Quantity> of, LabUnit unit) {
        return of.stream().mapToDouble(q -> q.in(unit)).toArray();
    }

    private static double[] uncertainties(List<Quantity> of, LabUnit unit) {
        return of.stream().mapToDouble(q -> q.to(unit).u()).toArray();
    }

    private Optional<Layer> leftOut(Reduction r, Picture.Line l, int ink) {
        List<Quantity> x = new ArrayList<>();
        List<Quantity> y = new ArrayList<>();
        List<RowLabels.Row> rows = new ArrayList<>();
        String capture = l.x().contains(".") ? l.x().substring(0, l.x().indexOf('.')) : "";
        for (Run run : r.runs()) {
            if (run.capture().equals(capture) && run.discard() == null && run.leftOut() != null) {
                Optional<Quantity> qx = ofRun(r, run, l.x());
                Optional<Quantity> qy = ofRun(r, run, l.y());
                if (qx.isPresent() && qy.isPresent()) {
                    x.add(qx.get());
                    y.add(qy.get());
                    rows.add(new RowLabels.Row("run " + run.id(), run.level()));
                }
            }
        }
        return x.isEmpty()
                ? Optional.empty()
                : Optional.of(pointsOf("left out", new PictureSource.Pairs(x, y, rows), true, ink));
    }

    private static Optional<Quantity> ofRun(Reduction r, Run run, String column) {
        return r.ofRun(run, column.substring(column.indexOf('.') + 1)).quantity();
    }

    /** The run behind a point of a picture over runs; empty for a point that is of no run alone. */
    public static Optional<Run> runOf(Reduction r, Layer.Points layer, int index) {
        if (index >= layer.rows().size()) {
            return Optional.empty();
        }
        String row = layer.rows().get(index);
        return r.runs().stream()
                .filter(run -> (row + ",").startsWith("run " + run.id() + ","))
                .findFirst();
    }
}
