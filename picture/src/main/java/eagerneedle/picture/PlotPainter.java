package eagerneedle.picture;

import eagerneedle.core.quantity.Notation;
import eagerneedle.picture.Surface.Align;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/**
 * Paints a plot into a rectangle of a surface.
 *
 * <p>Many points are reduced to one vertical stroke a pixel column, from the least to the greatest value in it, so that
 * a million points cost no more than a screenful and no spike is lost.
 */
public final class PlotPainter {
    private static final Lettering TICK = Lettering.figures(11.5);
    private static final Lettering NAME = Lettering.text(12);

    /** Decades on a logarithmic axis below which 2 and 5 are marked too. */
    /** Ticks by which a scale can be read. */
    private static final int FEWEST = 3;

    private static final double DECADES = 2.5;

    private PlotPainter() {}

    /** Where the plot's rectangle came to lie, and how to get from pixels to values and back. */
    public record Frame(double left, double top, double width, double height, Plot.View view) {
        public double px(double x) {
            return left + (x - view.x0()) / (view.x1() - view.x0()) * width;
        }

        public double py(double y) {
            return top + height - (y - view.y0()) / (view.y1() - view.y0()) * height;
        }

        public double xAt(double px) {
            return view.x0() + (px - left) / width * (view.x1() - view.x0());
        }

        public double yAt(double py) {
            return view.y0() + (top + height - py) / height * (view.y1() - view.y0());
        }

        public boolean contains(double px, double py) {
            return px >= left && px <= left + width && py >= top && py <= top + height;
        }
    }

    /**
     * Paints a plot.
     *
     * @param showX whether the horizontal axis carries numbers and name (a residual strip above its like may share one)
     */
    public static Frame paint(
            Surface s, Plot plot, Plot.View asked, double x, double y, double w, double h, boolean showX) {
        double lowered = lowered(s, plot, asked, x, y, w, h, showX);
        double top = y + 22 + lowered;
        double bottom = y + h - (showX ? 36 : 8);
        Plot.View view = plot.equal() ? asked.equal(Math.max(10, w - 74), Math.max(10, bottom - top)) : asked;
        double[] yTicks =
                ticks(plot.y(), view.y0(), view.y1(), bottom - top < 34 ? 1 : Math.max(2, (int) ((bottom - top) / 38)));
        double left = x + 62;
        Frame f = new Frame(left, top, Math.max(10, x + w - 12 - left), Math.max(10, bottom - top), view);
        AxisScale yScale = AxisScale.of(plot.y(), view.y0(), view.y1());
        AxisScale xScale = AxisScale.of(plot.x(), view.x0(), view.x1());
        s.rectangle(f.left(), f.top(), f.width(), f.height(), Ink.SURFACE, null, 0);
        s.text(yScale.label(plot.y()), x + 4, y + 13, Align.LEFT, NAME, Ink.INK);
        for (Layer l : plot.layers()) {
            if (l instanceof Layer.Span span) {
                double a = Math.max(f.left(), f.px(span.from()));
                double b = Math.min(f.left() + f.width(), f.px(span.to()));
                if (b > a) {
                    s.rectangle(a, f.top(), b - a, f.height(), Ink.WINDOW, null, 0);
                }
            }
        }
        for (double t : yTicks) {
            s.line(f.left(), f.py(t), f.left() + f.width(), f.py(t), Ink.RULE, 0.7);
            s.text(label(t, yTicks, plot.y(), yScale), f.left() - 7, f.py(t) + 4, Align.RIGHT, TICK, Ink.QUIET);
        }
        double[] xTicks = ticks(plot.x(), view.x0(), view.x1(), Math.max(2, (int) (f.width() / 90)));
        for (double t : xTicks) {
            s.line(f.px(t), f.top() + f.height(), f.px(t), f.top() + f.height() + 5, Ink.QUIET, 1);
            if (showX) {
                s.text(
                        label(t, xTicks, plot.x(), xScale),
                        f.px(t),
                        f.top() + f.height() + 17,
                        Align.CENTRE,
                        TICK,
                        Ink.QUIET);
            }
        }
        if (showX) {
            s.text(xScale.label(plot.x()), f.left() + f.width(), f.top() + f.height() + 32, Align.RIGHT, NAME, Ink.INK);
        }
        DataPainter data = new DataPainter(s, f);
        s.clipped(
                f.left(),
                f.top() - 1,
                f.width(),
                f.height() + 2,
                () -> plot.layers().forEach(l -> l.as(data)));
        s.line(f.left(), f.top(), f.left(), f.top() + f.height(), Ink.QUIET, 1);
        s.line(f.left(), f.top() + f.height(), f.left() + f.width(), f.top() + f.height(), Ink.QUIET, 1);
        OverPainter over =
                new OverPainter(s, f, x + 10 + s.textWidth(yScale.label(plot.y()), NAME), room(plot, f), lowered);
        // A legend first: single words go round it.
        plot.layers().stream().filter(l -> l instanceof Layer.Legend).forEach(l -> l.as(over));
        plot.layers().stream().filter(l -> !(l instanceof Layer.Legend)).forEach(l -> l.as(over));
        return f;
    }

    /** The room for words; where there are none nothing is looked at, since a live trace has no time for it. */
    private static FreeRoom room(Plot plot, Frame f) {
        return plot.layers().stream().anyMatch(PlotPainter::hasWords) ? FreeRoom.of(plot, f) : new FreeRoom(f);
    }

    private static boolean hasWords(Layer l) {
        return l instanceof Layer.Legend
                || l instanceof Layer.Words
                || l instanceof Layer.Mark
                || l instanceof Layer.Moment;
    }

    /** By how much the frame begins lower, so that its legend stands above where the data leave no room for it. */
    private static double lowered(
            Surface s, Plot plot, Plot.View view, double x, double y, double w, double h, boolean showX) {
        if (plot.equal()) {
            return 0;
        }
        Frame whole = new Frame(x + 62, y + 22, Math.max(10, w - 74), Math.max(10, h - 22 - (showX ? 36 : 8)), view);
        return plot.layers().stream()
                .filter(l -> l instanceof Layer.Legend)
                .mapToDouble(l -> new LegendBlock(s, (Layer.Legend) l).above(FreeRoom.of(plot, whole), whole))
                .max()
                .orElse(0);
    }

    /**
     * Round tick positions within a range, about {@code wanted} of them, at steps of 1, 2 or 5 times a power of ten.
     */
    public static double[] ticks(double from, double to, int wanted) {
        double raw = (to - from) / Math.max(1, wanted);
        if (!(raw > 0) || !Double.isFinite(raw)) {
            return new double[0];
        }
        double power = Math.pow(10, Math.floor(Math.log10(raw)));
        double step =
                raw / power < 1.5 ? power : raw / power < 3.5 ? 2 * power : raw / power < 7.5 ? 5 * power : 10 * power;
        List<Double> out = new ArrayList<>();
        for (double k = Math.ceil(from / step - 1e-9); k * step <= to + 1e-9 * step && out.size() < 100; k++) {
            out.add(k * step);
        }
        return out.stream().mapToDouble(Double::doubleValue).toArray();
    }

    /** On a logarithmic axis whole powers of ten, with their 2 and 5 fold where there are few; else round values. */
    private static double[] ticks(Plot.Axis axis, double from, double to, int wanted) {
        if (!axis.logarithmic()) {
            return ticks(from, to, wanted);
        }
        double[] steps = to - from < DECADES ? new double[] {1, 2, 5} : new double[] {1};
        int every = (int) Math.max(1, Math.ceil((to - from) / Math.max(1, wanted)));
        List<Double> out = new ArrayList<>();
        for (int p = (int) Math.floor(from); p <= Math.ceil(to); p++) {
            for (double step : steps) {
                double at = p + Math.log10(step);
                if (at >= from && at <= to && (steps.length > 1 || Math.floorMod(p, every) == 0)) {
                    out.add(at);
                }
            }
        }
        return to - from < 1 && out.size() < FEWEST
                ? Arrays.stream(ticks(Math.pow(10, from), Math.pow(10, to), wanted))
                        .filter(v -> v > 0)
                        .map(Math::log10)
                        .toArray()
                : out.stream().mapToDouble(Double::doubleValue).toArray();
    }

    /** With as many digits as tell a value from those beside it, three at least. */
    private static String logarithmic(double t, double[] all) {
        double v = Math.pow(10, t);
        double gap = Arrays.stream(all)
                .filter(other -> other != t)
                .map(other -> Math.abs(Math.pow(10, other) - v))
                .min()
                .orElse(v);
        return Notation.plain(v, Math.max(3, 1 + (int) Math.ceil(Math.log10(v / gap))));
    }

    private static String label(double t, double[] all, Plot.Axis axis, AxisScale scale) {
        return axis.logarithmic()
                ? logarithmic(t, all)
                : label(
                        scale.factor() * t,
                        Arrays.stream(all).map(x -> scale.factor() * x).toArray());
    }

    /** A tick's number, all ticks of an axis with equally many decimals. */
    static String label(double t, double[] all) {
        double step = all.length > 1 ? all[1] - all[0] : Math.abs(t);
        int decimals = step <= 0 ? 0 : (int) Math.max(0, Math.ceil(-Math.log10(step) - 1e-9));
        if (decimals > 5 || Math.abs(t) >= 1e6) {
            return Notation.plain(t, 4);
        }
        return Notation.fixed(t, decimals);
    }
}
