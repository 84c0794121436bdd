package eagerneedle.report;

import eagerneedle.core.fit.Fit;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.trace.Trace;
import eagerneedle.core.trace.Window;
import eagerneedle.report.picture.Ink;
import eagerneedle.report.picture.Plot;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** The plots of a session: a run with its window and fit, the residuals under it, columns over runs with their line. */
public final class SessionPlots {
    private SessionPlots() {
    }

    /** A run's trace with its window and the fit through it; empty if there is no trace. */
    public static Optional<Plot> run(Reduction r, Run run, String channel) {
        return r.trace(run, channel).map(trace -> {
            Sheet.Channel c = r.sheet().channels().get(channel);
            List<Plot.Layer> layers = new ArrayList<>();
            Window w = r.sheet().captures().get(run.capture()).windows().entrySet().stream().filter(e -> e.getValue().on().equals(channel)).findFirst()
                    .flatMap(e -> r.window(run, e.getKey())).orElse(null);
            int a = w == null ? 0 : trace.indexAt(w.from());
            int b = w == null ? trace.size() : trace.indexAt(Math.nextUp(w.to()));
            if (w != null) {
                layers.add(new Plot.Span(w.from(), w.to(), true));
            }
            layers.add(points(c.label() + ", outside the window", trace, 0, a, true));
            layers.add(points(c.label(), trace, a, b, false));
            layers.add(points(c.label() + ", outside the window", trace, b, trace.size(), true));
            r.fitOfRun(run).ifPresent(f -> layers.add(new Plot.Curve(f.model(), f.x(), f.fitted(), Ink.INK, 1.4, false)));
            return new Plot(run.name() + ", " + levelLabel(r, run), new Plot.Axis("time", "s"), new Plot.Axis(c.label(), trace.unit().pretty()), layers);
        });
    }

    private static Plot.Points points(String name, Trace t, int from, int to, boolean weak) {
        return new Plot.Points(name, java.util.Arrays.copyOfRange(t.time(), from, Math.max(from, to)), java.util.Arrays.copyOfRange(t.value(), from, Math.max(from, to)), null, weak, 0);
    }

    /** Residuals of a run's fit, in a thousandth of the channel's unit. */
    public static Optional<Plot> residuals(Reduction r, Run run) {
        return r.fitOfRun(run).map(f -> {
            double[] res = f.residuals();
            double[] milli = new double[res.length];
            for (int i = 0; i < res.length; i++) {
                milli[i] = 1000 * res[i];
            }
            return new Plot("Residuals of " + run.name(), new Plot.Axis("time", "s"), new Plot.Axis("residual", "m".equals(f.yUnit().symbol()) ? "mm" : "10⁻³ " + f.yUnit().pretty()),
                    List.of(new Plot.Level(0, Ink.QUIET), new Plot.Stems(f.x(), milli, 0)));
        });
    }

    /** Two columns over runs with the sheet's fit; runs left out are shown hollow. Empty until there are two rows. */
    public static Optional<Plot> columns(Reduction r, Sheet.Picture p) {
        List<Quantity> x = r.column(p.x());
        List<Quantity> y = r.column(p.y());
        if (x.size() < 2 || x.size() != y.size()) {
            return Optional.empty();
        }
        LabUnit xu = p.xUnit() == null ? x.get(0).unit() : LabUnit.parse(p.xUnit());
        LabUnit yu = p.yUnit() == null ? y.get(0).unit() : LabUnit.parse(p.yUnit());
        List<Plot.Layer> layers = new ArrayList<>();
        Optional<Fit> fit = p.fit() == null ? Optional.empty() : r.fit(p.fit());
        fit.ifPresent(f -> layers.add(line(f, x, xu, yu)));
        layers.add(pointsOf("kept", x, y, xu, yu, false));
        List<Quantity> lx = new ArrayList<>();
        List<Quantity> ly = new ArrayList<>();
        String capture = p.x().contains(".") ? p.x().substring(0, p.x().indexOf('.')) : "";
        for (Run run : r.runs()) {
            if (run.capture().equals(capture) && run.discard() == null && run.leftOut() != null) {
                Optional<Quantity> qx = r.ofRun(run, p.x().substring(capture.length() + 1)).quantity();
                Optional<Quantity> qy = r.ofRun(run, p.y().substring(p.y().indexOf('.') + 1)).quantity();
                if (qx.isPresent() && qy.isPresent()) {
                    lx.add(qx.get());
                    ly.add(qy.get());
                }
            }
        }
        if (!lx.isEmpty()) {
            layers.add(pointsOf("left out", lx, ly, xu, yu, true));
        }
        fit.ifPresent(f -> layers.add(new Plot.Legend(List.of("slope " + f.parameter(1).to(yu.coherent().per(xu.coherent())),
                "intercept " + f.parameter(0).to(yu), x.size() + " runs · residual SD " + eagerneedle.core.quantity.Notation.figures(f.yUnit().scaleTo(yu) * f.residualSd(), 2) + " " + yu.pretty()), false)));
        return Optional.of(new Plot(p.title(), new Plot.Axis(p.xLabel() == null ? p.x() : p.xLabel(), xu.pretty()), new Plot.Axis(p.yLabel() == null ? p.y() : p.yLabel(), yu.pretty()), layers));
    }

    private static Plot.Points pointsOf(String name, List<Quantity> x, List<Quantity> y, LabUnit xu, LabUnit yu, boolean weak) {
        double[] px = x.stream().mapToDouble(q -> q.in(xu)).toArray();
        double[] py = y.stream().mapToDouble(q -> q.in(yu)).toArray();
        double[] u = y.stream().mapToDouble(q -> q.to(yu).u()).toArray();
        return new Plot.Points(name, px, py, u, weak, weak ? 1 : 0);
    }

    private static Plot.Curve line(Fit f, List<Quantity> x, LabUnit xu, LabUnit yu) {
        double min = x.stream().mapToDouble(q -> q.in(f.xUnit())).min().orElse(0);
        double max = x.stream().mapToDouble(q -> q.in(f.xUnit())).max().orElse(1);
        min = min > 0 && min < 0.5 * max ? 0 : min;
        int n = f.parameters().size() > 2 ? 80 : 2;
        double[] px = new double[n];
        double[] py = new double[n];
        for (int i = 0; i < n; i++) {
            double at = min + (max - min) * 1.02 * i / (n - 1);
            px[i] = f.xUnit().convert(at, xu);
            py[i] = f.at(at).in(yu);
        }
        return new Plot.Curve("fit", px, py, Ink.INK, 1.4, false);
    }

    /** "block C" for a run. */
    public static String levelLabel(Reduction r, Run run) {
        Sheet.Capture c = r.sheet().captures().get(run.capture());
        Sheet.Level l = c == null ? null : c.levels().get(run.level());
        return l == null || l.label() == null ? run.level() : l.label();
    }
}
