package eagerneedle.report.picture;

import eagerneedle.core.quantity.Notation;
import eagerneedle.report.picture.Surface.Align;
import java.util.ArrayList;
import java.util.List;

/**
 * Paints a plot into a rectangle of a surface.
 *
 * <p>Many points are reduced to one vertical stroke a pixel column, from the least to the greatest value in it, so that a
 * million points cost no more than a screenful and no spike is lost.
 */
public final class PlotPainter {
    private static final Lettering TICK = Lettering.figures(11);
    private static final Lettering NAME = Lettering.text(11.5);

    private PlotPainter() {
    }

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
    public static Frame paint(Surface s, Plot plot, Plot.View view, double x, double y, double w, double h, boolean showX) {
        double top = y + 22;
        double bottom = y + h - (showX ? 36 : 8);
        double[] yTicks = ticks(view.y0(), view.y1(), bottom - top < 34 ? 1 : Math.max(2, (int) ((bottom - top) / 38)));
        double left = x + 62;
        Frame f = new Frame(left, top, Math.max(10, x + w - 12 - left), Math.max(10, bottom - top), view);
        s.rectangle(f.left(), f.top(), f.width(), f.height(), Ink.SURFACE, null, 0);
        s.text(plot.y().label(), x + 4, y + 13, Align.LEFT, NAME, Ink.INK);
        for (Plot.Layer l : plot.layers()) {
            if (l instanceof Plot.Span span) {
                double a = Math.max(f.left(), f.px(span.from()));
                double b = Math.min(f.left() + f.width(), f.px(span.to()));
                if (b > a) {
                    s.rectangle(a, f.top(), b - a, f.height(), Ink.WINDOW, null, 0);
                }
            }
        }
        for (double t : yTicks) {
            s.line(f.left(), f.py(t), f.left() + f.width(), f.py(t), Ink.RULE, 0.7);
            s.text(label(t, yTicks), f.left() - 7, f.py(t) + 4, Align.RIGHT, TICK, Ink.QUIET);
        }
        double[] xTicks = ticks(view.x0(), view.x1(), Math.max(2, (int) (f.width() / 90)));
        for (double t : xTicks) {
            s.line(f.px(t), f.top() + f.height(), f.px(t), f.top() + f.height() + 5, Ink.QUIET, 1);
            if (showX) {
                s.text(label(t, xTicks), f.px(t), f.top() + f.height() + 17, Align.CENTRE, TICK, Ink.QUIET);
            }
        }
        if (showX) {
            s.text(plot.x().label(), f.left() + f.width(), f.top() + f.height() + 32, Align.RIGHT, NAME, Ink.INK);
        }
        s.clipped(f.left(), f.top() - 1, f.width(), f.height() + 2, () -> plot.layers().forEach(l -> layer(s, f, l)));
        s.line(f.left(), f.top(), f.left(), f.top() + f.height(), Ink.QUIET, 1);
        s.line(f.left(), f.top() + f.height(), f.left() + f.width(), f.top() + f.height(), Ink.QUIET, 1);
        List<double[]> taken = new ArrayList<>();
        double named = x + 10 + s.textWidth(plot.y().label(), NAME);
        plot.layers().forEach(l -> over(s, f, l, named, taken));
        return f;
    }

    private static void layer(Surface s, Frame f, Plot.Layer l) {
        if (l instanceof Plot.Points p) {
            if (p.x().length > 2 * f.width()) {
                columns(s, f, p.x(), p.y(), p.y(), p.weak() ? Ink.QUIET : Ink.trace(p.series()));
            } else {
                for (int i = 0; i < p.x().length; i++) {
                    point(s, f, p, i);
                }
            }
        } else if (l instanceof Plot.Envelope e) {
            columns(s, f, e.x(), e.low(), e.high(), Ink.trace(e.series()));
        } else if (l instanceof Plot.Band b) {
            int n = b.x().length;
            double[] px = new double[2 * n];
            double[] py = new double[2 * n];
            for (int i = 0; i < n; i++) {
                px[i] = f.px(b.x()[i]);
                px[2 * n - 1 - i] = px[i];
                py[i] = f.py(b.low()[i]);
                py[2 * n - 1 - i] = f.py(b.high()[i]);
            }
            s.polygon(px, py, Ink.BAND);
        } else if (l instanceof Plot.Curve c) {
            double[] px = new double[c.x().length];
            double[] py = new double[c.x().length];
            for (int i = 0; i < px.length; i++) {
                px[i] = f.px(c.x()[i]);
                py[i] = f.py(c.y()[i]);
            }
            s.polyline(px, py, px.length, c.ink(), c.width(), c.dashed() ? new double[] {5, 4} : new double[0]);
        } else if (l instanceof Plot.Stems st) {
            double zero = f.py(0);
            for (int i = 0; i < st.x().length; i++) {
                double px = f.px(st.x()[i]);
                if (st.x().length < f.width() / 3) {
                    s.line(px, zero, px, f.py(st.y()[i]), Ink.REACH, 1);
                }
                s.circle(px, f.py(st.y()[i]), 1.7, Ink.trace(st.series()), null, 0);
            }
        } else if (l instanceof Plot.Level v) {
            s.line(f.left(), f.py(v.y()), f.left() + f.width(), f.py(v.y()), v.ink(), 1);
        }
    }

    private static void point(Surface s, Frame f, Plot.Points p, int i) {
        double px = f.px(p.x()[i]);
        double py = f.py(p.y()[i]);
        if (!Double.isFinite(py) || px < f.left() - 5 || px > f.left() + f.width() + 5) {
            return;
        }
        Ink ink = p.weak() ? Ink.QUIET : Ink.trace(p.series());
        double r = p.x().length > 250 ? 1.6 : 2.6;
        if (p.u() != null && p.u()[i] > 0) {
            s.line(px, f.py(p.y()[i] - p.u()[i]), px, f.py(p.y()[i] + p.u()[i]), ink, 1.3);
            r = 3;
        }
        if (p.weak()) {
            s.circle(px, py, r, null, ink, 0.8);
        } else if (Math.floorMod(p.series(), 4) == 1) {
            s.rectangle(px - r, py - r, 2 * r, 2 * r, ink, null, 0);
        } else if (Math.floorMod(p.series(), 4) == 2) {
            s.polygon(new double[] {px, px + r * 1.2, px - r * 1.2}, new double[] {py - r * 1.2, py + r, py + r}, ink);
        } else if (Math.floorMod(p.series(), 4) == 3) {
            s.polygon(new double[] {px, px + r * 1.3, px, px - r * 1.3}, new double[] {py - r * 1.3, py, py + r * 1.3, py}, ink);
        } else {
            s.circle(px, py, r, ink, null, 0);
        }
    }

    private static void columns(Surface s, Frame f, double[] x, double[] least, double[] greatest, Ink ink) {
        int n = (int) f.width();
        double[] low = new double[n + 1];
        double[] high = new double[n + 1];
        java.util.Arrays.fill(low, Double.POSITIVE_INFINITY);
        java.util.Arrays.fill(high, Double.NEGATIVE_INFINITY);
        for (int i = 0; i < x.length; i++) {
            int c = (int) (f.px(x[i]) - f.left());
            if (c >= 0 && c <= n) {
                low[c] = Math.min(low[c], least[i]);
                high[c] = Math.max(high[c], greatest[i]);
            }
        }
        double[] top = new double[n + 1];
        double[] bottom = new double[n + 1];
        for (int c = 0; c <= n; c++) {
            boolean any = high[c] >= low[c];
            top[c] = any ? f.py(high[c]) : Double.NaN;
            bottom[c] = any ? Math.max(top[c] + 1, f.py(low[c])) : Double.NaN;
        }
        s.columns(f.left(), top, bottom, ink);
    }

    /**
     * What lies over the data.
     *
     * @param named where the name of the vertical axis ends
     * @param taken left, right and baseline of words that stand already
     */
    private static void over(Surface s, Frame f, Plot.Layer l, double named, List<double[]> taken) {
        if (l instanceof Plot.Span span) {
            edge(s, f, span.from(), span.handles(), named);
            edge(s, f, span.to(), span.handles(), named);
        } else if (l instanceof Plot.Words w) {
            words(s, f, w, taken);
        } else if (l instanceof Plot.Legend legend) {
            double y = legend.corner().isBottom() ? f.top() + f.height() - 9 - 17 * (legend.lines().size() - 1) : f.top() + 20;
            for (int i = 0; i < legend.lines().size(); i++) {
                Lettering lettering = i == 0 ? Lettering.figures(12.5) : Lettering.text(11);
                if (s.textWidth(legend.lines().get(i), lettering) > f.width() - 26) {
                    lettering = Lettering.text(10.5);
                }
                String line = BudgetPicture.fitting(s, legend.lines().get(i), f.width() - 16, lettering);
                double wide = s.textWidth(line, lettering);
                double x = legend.corner().isRight() ? f.left() + f.width() - 12 - wide : f.left() + 14;
                s.text(line, x, y, Align.LEFT, lettering, i == 0 ? Ink.INK : Ink.QUIET);
                y += 17;
            }
        }
    }

    /** Words beside their place, kept inside the frame and off words that stand already. */
    private static void words(Surface s, Frame f, Plot.Words w, List<double[]> taken) {
        Lettering lettering = w.figures() ? Lettering.figures(11.5) : Lettering.text(11);
        double wide = s.textWidth(w.text(), lettering);
        double left = Math.min(f.px(w.x()) + 4, f.left() + f.width() - wide - 2);
        double y = Math.max(f.top() + 12, Math.min(f.py(w.y()), f.top() + f.height() - 4));
        for (int tries = 0; tries < 12; tries++) {
            double at = y;
            if (taken.stream().noneMatch(t -> left < t[1] + 4 && left + wide > t[0] - 4 && Math.abs(at - t[2]) < 12)) {
                break;
            }
            y += 12.5;
        }
        taken.add(new double[] {left, left + wide, y});
        s.text(w.text(), left, y, Align.LEFT, lettering, w.ink());
    }

    private static void edge(Surface s, Frame f, double at, boolean handles, double named) {
        double px = f.px(at);
        if (px < f.left() - 1 || px > f.left() + f.width() + 1) {
            return;
        }
        s.line(px, f.top(), px, f.top() + f.height(), Ink.NEEDLE, 1.4);
        if (handles) {
            s.polygon(new double[] {px - 6, px + 6, px}, new double[] {f.top() - 1, f.top() - 1, f.top() + 9}, Ink.NEEDLE);
            String text = String.format(java.util.Locale.ROOT, "%.2f s", at);
            double half = s.textWidth(text, Lettering.figures(11)) / 2;
            double centre = Math.min(Math.max(px, Math.min(named, f.left() + f.width() / 2) + half), f.left() + f.width() - half);
            s.text(text, centre, f.top() - 6, Align.CENTRE, Lettering.figures(11), Ink.NEEDLE);
        }
    }

    /** Round tick positions within a range, about {@code wanted} of them, at steps of 1, 2 or 5 times a power of ten. */
    public static double[] ticks(double from, double to, int wanted) {
        double raw = (to - from) / Math.max(1, wanted);
        if (!(raw > 0) || !Double.isFinite(raw)) {
            return new double[0];
        }
        double power = Math.pow(10, Math.floor(Math.log10(raw)));
        double step = raw / power < 1.5 ? power : raw / power < 3.5 ? 2 * power : raw / power < 7.5 ? 5 * power : 10 * power;
        List<Double> out = new ArrayList<>();
        for (double k = Math.ceil(from / step - 1e-9); k * step <= to + 1e-9 * step && out.size() < 100; k++) {
            out.add(k * step);
        }
        return out.stream().mapToDouble(Double::doubleValue).toArray();
    }

    /** A tick's number, all ticks of an axis with equally many decimals. */
    static String label(double t, double[] all) {
        double step = all.length > 1 ? all[1] - all[0] : Math.abs(t);
        int decimals = step <= 0 ? 0 : (int) Math.max(0, Math.ceil(-Math.log10(step) - 1e-9));
        if (decimals > 5 || Math.abs(t) >= 1e6) {
            return Notation.plain(t, 4);
        }
        String s = String.format(java.util.Locale.ROOT, "%." + decimals + "f", t);
        return s.matches("-0\\.?0*") ? s.substring(1) : s.replace('-', '−');
    }
}
