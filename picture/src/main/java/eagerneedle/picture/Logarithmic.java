package eagerneedle.picture;

import java.util.Arrays;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * A plot with logarithmic axes: layers hold the logarithms to base 10 of what they held, and the axis says so, so that
 * its ticks carry the values themselves. What is not above zero has no place on such an axis and is not drawn.
 */
final class Logarithmic implements Layer.Cases<Layer> {
    private final boolean x;
    private final boolean y;

    private Logarithmic(boolean x, boolean y) {
        this.x = x;
        this.y = y;
    }

    static Plot of(Plot plot, boolean x, boolean y) {
        if (!x && !y) {
            return plot;
        }
        Logarithmic l = new Logarithmic(x, y);
        return new Plot(
                plot.title(),
                x ? plot.x().logarithmically() : plot.x(),
                y ? plot.y().logarithmically() : plot.y(),
                plot.layers().stream().map(layer -> layer.as(l)).toList(),
                plot.equal());
    }

    private double[] across(double[] v) {
        return x ? logs(v) : v;
    }

    private double[] up(double[] v) {
        return y ? logs(v) : v;
    }

    private static double[] logs(double[] v) {
        return Arrays.stream(v).map(a -> a > 0 ? Math.log10(a) : Double.NaN).toArray();
    }

    @Override
    public Layer points(Layer.Points p) {
        return new Layer.Points(
                p.name(),
                across(p.x()),
                up(p.y()),
                x ? relative(p.ux(), p.x()) : p.ux(),
                y ? relative(p.u(), p.y()) : p.u(),
                p.rows(),
                p.weak(),
                p.series());
    }

    /** Uncertainties of logarithms to base 10. */
    private static double @Nullable [] relative(double @Nullable [] u, double[] of) {
        return u == null
                ? null
                : java.util.stream.IntStream.range(0, u.length)
                        .mapToDouble(i -> u[i] / (Math.abs(of[i]) * Math.log(10)))
                        .toArray();
    }

    @Override
    public Layer envelope(Layer.Envelope e) {
        return new Layer.Envelope(e.name(), across(e.x()), up(e.low()), up(e.high()), e.series());
    }

    @Override
    public Layer curve(Layer.Curve c) {
        int[] there = java.util.stream.IntStream.range(0, c.x().length)
                .filter(i -> (!x || c.x()[i] > 0) && (!y || c.y()[i] > 0))
                .toArray();
        return new Layer.Curve(
                c.name(), across(some(c.x(), there)), up(some(c.y(), there)), c.ink(), c.width(), c.dashed());
    }

    @Override
    public Layer band(Layer.Band b) {
        int[] there = java.util.stream.IntStream.range(0, b.x().length)
                .filter(i -> (!x || b.x()[i] > 0) && (!y || b.low()[i] > 0))
                .toArray();
        return new Layer.Band(
                b.name(), across(some(b.x(), there)), up(some(b.low(), there)), up(some(b.high(), there)));
    }

    private static double[] some(double[] v, int[] which) {
        return Arrays.stream(which).mapToDouble(i -> v[i]).toArray();
    }

    @Override
    public Layer stems(Layer.Stems s) {
        return new Layer.Stems(across(s.x()), s.y(), s.series());
    }

    @Override
    public Layer span(Layer.Span s) {
        return s;
    }

    @Override
    public Layer level(Layer.Level v) {
        return y && v.y() > 0 ? new Layer.Level(Math.log10(v.y()), v.ink()) : v;
    }

    @Override
    public Layer mark(Layer.Mark m) {
        return new Layer.Mark(m.name(), across(new double[] {m.x()})[0], up(new double[] {m.y()})[0]);
    }

    @Override
    public Layer moment(Layer.Moment m) {
        return m;
    }

    @Override
    public Layer words(Layer.Words w) {
        double[] at = {across(new double[] {w.x()})[0], up(new double[] {w.y()})[0]};
        return new Layer.Words(Objects.toString(w.text(), ""), at[0], at[1], w.ink(), w.figures());
    }

    @Override
    public Layer legend(Layer.Legend legend) {
        return legend;
    }
}
