package eagerneedle.picture;

import eagerneedle.core.fit.Fit;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.trace.Trace;
import eagerneedle.core.trace.Window;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;

/** The plots of a session: a run with its window and fit, the residuals under it, columns over runs with their line. */
public final class SessionPlots {
    private SessionPlots() {}

    /** A run's trace with its window and the fit through it; empty if there is no trace. */
    public static Optional<Plot> run(Reduction r, Run run, String channel) {
        return r.trace(run, channel).map(trace -> {
            Channel c = r.sheet().channel(channel);
            List<Layer> layers = new ArrayList<>();
            Window w = r.sheet().capture(run.capture()).windows().entrySet().stream()
                    .filter(e -> channel.equals(e.getValue().on()))
                    .findFirst()
                    .flatMap(e -> r.window(run, e.getKey()))
                    .orElse(null);
            int a = w == null ? 0 : trace.indexAt(w.from());
            int b = w == null ? trace.size() : trace.indexAt(Math.nextUp(w.to()));
            if (w != null) {
                layers.add(new Layer.Span(w.from(), w.to(), true));
            }
            layers.add(points(c.label() + ", outside the window", trace, 0, a, true));
            layers.add(points(c.label(), trace, a, b, false));
            layers.add(points(c.label() + ", outside the window", trace, b, trace.size(), true));
            Optional<Fit> own = ownPoints(r, run, trace);
            Optional<DrawnFit> fit = own.or(
                            () -> through(r, run, trace).filter(f -> f.yUnit().fits(trace.unit())))
                    .map(DrawnFit::throughPoints);
            if (own.isPresent()) {
                layers.removeIf(l -> l instanceof Layer.Points);
                layers.add(new Layer.Points(c.label(), own.get().x(), own.get().y(), null, false, 0));
            }
            layers.addAll(0, moments(r, run, channel));
            fit.ifPresent(f -> {
                layers.add(0, f.band());
                layers.add(f.curve());
            });
            Plot.Axis y = own.map(
                            f -> new Plot.Axis("from " + c.label(), f.yUnit().pretty()))
                    .orElseGet(() -> new Plot.Axis(c.label(), trace.unit().pretty()));
            Plot plot = new Plot(run.name() + ", " + levelLabel(r, run), new Plot.Axis("time", "s"), y, layers);
            List<String> legend = r.sheet()
                            .capture(run.capture())
                            .top()
                            .filter(channel::equals)
                            .isPresent()
                    ? legend(r, run, fit)
                    : List.of();
            return legend.isEmpty() ? plot : plot.withLegend(legend);
        });
    }

    /** The moments of a run that its windows follow, as far as they are known. */
    private static List<Layer> moments(Reduction r, Run run, String channel) {
        Capture capture = r.sheet().capture(run.capture());
        List<Layer> out = new ArrayList<>();
        for (String name : capture.moments(channel)) {
            r.ofRun(run, name)
                    .quantity()
                    .filter(q -> q.unit().fits(LabUnit.SECOND))
                    .ifPresent(q -> {
                        String label = Objects.requireNonNull(
                                        capture.quantities().get(name))
                                .label();
                        Quantity s = q.to(LabUnit.SECOND);
                        out.add(new Layer.Moment(name, label == null ? name : label, s.value(), s.u()));
                    });
        }
        return out;
    }

    /** What stands for the run, and the model that is drawn through its window. */
    private static List<String> legend(Reduction r, Run run, Optional<DrawnFit> drawn) {
        List<String> lines = new ArrayList<>();
        r.headline(run).ifPresent(e -> e.quantity().ifPresent(q -> lines.add(e.label() + " " + q)));
        boolean windowed = !r.sheet().capture(run.capture()).windows().isEmpty();
        drawn.ifPresent(
                d -> lines.add(d.fit().model() + (windowed ? " through the window" : " through the whole run")));
        return lines;
    }

    private static Layer.Points points(String name, Trace t, int from, int to, boolean weak) {
        return new Layer.Points(
                name,
                java.util.Arrays.copyOfRange(t.time(), from, Math.max(from, to)),
                java.util.Arrays.copyOfRange(t.value(), from, Math.max(from, to)),
                null,
                weak,
                0);
    }

    /** The fit that goes with a trace: of several channels the first through samples of this one. */
    private static Optional<Fit> through(Reduction r, Run run, Trace trace) {
        return r.sheet().capture(run.capture()).channels().size() < 2
                ? r.fitOfRun(run)
                : r.fitsOfRun(run).stream().filter(f -> isThrough(f, trace)).findFirst();
    }

    private static boolean isThrough(Fit f, Trace trace) {
        if (f.x().length == 0 || !f.xUnit().fits(LabUnit.SECOND) || !f.yUnit().fits(trace.unit())) {
            return false;
        }
        double middle = f.x()[f.x().length / 2];
        int at = Math.min(trace.size() - 1, trace.indexAt(middle));
        double there = f.at(middle).in(trace.unit())
                + f.residuals()[f.x().length / 2]
                        * f.yUnit().difference().scaleTo(trace.unit().difference());
        return Math.abs(trace.time()[at] - middle) < trace.interval() / 2
                && Math.abs(trace.value()[at] - there) < 1e-6 * (Math.abs(there) + trace.step());
    }

    /**
     * Residuals of the fit through a trace of a run, in a thousandth of its unit where that has a name.
     *
     * @param channel whose trace it is; empty for a run without one
     */
    public static Optional<Plot> residuals(Reduction r, Run run, String channel) {
        Optional<Fit> fit =
                channel.isEmpty() ? r.fitOfRun(run) : r.trace(run, channel).flatMap(t -> through(r, run, t));
        return fit.map(f -> {
            Optional<LabUnit> fine = fine(f.yUnit());
            double scale = fine.map(f.yUnit()::scaleTo).orElse(1.0);
            double[] shown =
                    java.util.Arrays.stream(f.residuals()).map(v -> v * scale).toArray();
            return new Plot(
                    "Residuals of " + run.name(),
                    new Plot.Axis(
                            f.xUnit().fits(LabUnit.SECOND) ? "time" : "abscissa",
                            f.xUnit().pretty()),
                    new Plot.Axis("residual", fine.orElse(f.yUnit()).pretty()),
                    List.of(new Layer.Level(0, Ink.QUIET), new Layer.Stems(f.x(), shown, 0)));
        });
    }

    /** The unit a thousand times finer, where residuals of the unit would all be small numbers. */
    static Optional<LabUnit> fine(LabUnit unit) {
        return java.util.Map.of("m", "mm", "V", "mV", "N", "mN", "s", "ms", "A", "mA", "m/s²", "mm/s^2", "N·m", "mN*m")
                .entrySet()
                .stream()
                .filter(e -> e.getKey().equals(unit.symbol()))
                .map(e -> LabUnit.parse(e.getValue()))
                .findFirst();
    }

    /** A residual standard deviation with its unit, in the unit that its plot uses. */
    public static String finely(double sd, LabUnit unit) {
        Optional<LabUnit> fine = fine(unit);
        return (Notation.figures(sd * fine.map(unit::scaleTo).orElse(1.0), 2) + " "
                        + fine.orElse(unit).pretty())
                .strip();
    }

    private static double last(double[] x) {
        return x[x.length - 1];
    }

    /**
     * All kept runs of a capture over each other, time counted from the beginning of each one's window; the levels told
     * apart by ink and marker.
     */
    public static Optional<Plot> overlay(Reduction r, String captureName, String channel) {
        Capture capture = r.sheet().capture(captureName);
        Channel c = r.sheet().channel(channel);
        List<String> levels = new ArrayList<>(capture.levels().keySet());
        List<Layer> layers = new ArrayList<>();
        java.util.Set<String> named = new java.util.HashSet<>();
        boolean windowed = false;
        Plot.Axis yAxis = new Plot.Axis(c.label(), c.labUnit().pretty());
        for (Run run : r.runs()) {
            Optional<Trace> trace = run.capture().equals(captureName) && run.discard() == null
                    ? r.trace(run, channel)
                    : Optional.empty();
            if (trace.isEmpty()) {
                continue;
            }
            Optional<Window> w = capture.windows().keySet().stream().findFirst().flatMap(n -> r.window(run, n));
            windowed |= w.isPresent();
            Trace t = trace.get();
            Optional<Fit> own = ownPoints(r, run, t);
            yAxis = own.map(f -> new Plot.Axis("from " + c.label(), f.yUnit().pretty()))
                    .orElse(yAxis);
            Layer.Points p = own.map(f -> new Layer.Points("", f.x(), f.y(), null, false, 0))
                    .orElseGet(() -> points(
                            "",
                            t,
                            w.isPresent() ? t.indexAt(w.get().from()) : 0,
                            w.isPresent() ? t.indexAt(Math.nextUp(w.get().to())) : t.size(),
                            false));
            if (p.x().length == 0) {
                continue;
            }
            double zero = w.map(Window::from).orElse(t.time()[0]);
            double[] x = java.util.Arrays.stream(p.x()).map(v -> v - zero).toArray();
            int series = levels.indexOf(run.level());
            layers.add(new Layer.Points(
                    run.name() + ", " + levelLabel(r, run), x, p.y(), null, run.leftOut() != null, series));
            if (run.leftOut() == null && named.add(run.level())) {
                layers.add(new Layer.Words(levelLabel(r, run), last(x), last(p.y()), Ink.trace(series), false));
            }
        }
        return layers.isEmpty()
                ? Optional.empty()
                : Optional.of(new Plot(
                        capture.label() + ", all runs",
                        new Plot.Axis(windowed ? "time from the beginning of the window" : "time", "s"),
                        yAxis,
                        layers));
    }

    /**
     * The fit of a run that is of something else than its trace, such as the way of counted spokes; it is shown with
     * its own points.
     */
    public static Optional<Fit> ownPoints(Reduction r, Run run, Trace trace) {
        return r.fitOfRun(run)
                .filter(f -> f.xUnit().fits(LabUnit.SECOND) && !f.yUnit().fits(trace.unit()))
                .filter(f -> r.sheet().capture(run.capture()).channels().stream()
                        .flatMap(c -> r.trace(run, c).stream())
                        .noneMatch(t -> isThrough(f, t)));
    }

    /** "block C" for a run. */
    public static String levelLabel(Reduction r, Run run) {
        Capture c = r.sheet().captures().get(run.capture());
        Capture.Level l = c == null ? null : c.levels().get(run.level());
        return l == null || l.label() == null ? run.level() : l.label();
    }
}
