package eagerneedle.picture;

import java.util.Arrays;

/** Paints what is drawn to the scale of the axes and cut off at their frame. */
final class DataPainter implements Layer.Cases<Void> {
    private final Surface s;
    private final PlotPainter.Frame f;

    DataPainter(Surface s, PlotPainter.Frame f) {
        this.s = s;
        this.f = f;
    }

    @Override
    public Void points(Layer.Points p) {
        if (p.x().length > 2 * f.width()) {
            columns(p.x(), p.y(), p.y(), p.weak() ? Ink.QUIET : Ink.trace(p.series()));
        } else {
            for (int i = 0; i < p.x().length; i++) {
                point(p, i);
            }
        }
        return null;
    }

    @Override
    public Void envelope(Layer.Envelope e) {
        columns(e.x(), e.low(), e.high(), Ink.trace(e.series()));
        return null;
    }

    @Override
    public Void curve(Layer.Curve c) {
        double[] px = new double[c.x().length];
        double[] py = new double[c.x().length];
        for (int i = 0; i < px.length; i++) {
            px[i] = f.px(c.x()[i]);
            py[i] = f.py(c.y()[i]);
        }
        s.polyline(px, py, px.length, c.ink(), c.width(), c.dashed() ? new double[] {5, 4} : new double[0]);
        return null;
    }

    @Override
    public Void band(Layer.Band b) {
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
        return null;
    }

    @Override
    public Void stems(Layer.Stems st) {
        double zero = f.py(0);
        for (int i = 0; i < st.x().length; i++) {
            double px = f.px(st.x()[i]);
            if (st.x().length < f.width() / 3) {
                s.line(px, zero, px, f.py(st.y()[i]), Ink.REACH, 1);
            }
            s.circle(px, f.py(st.y()[i]), 1.7, Ink.trace(st.series()), null, 0);
        }
        return null;
    }

    @Override
    public Void level(Layer.Level v) {
        s.line(f.left(), f.py(v.y()), f.left() + f.width(), f.py(v.y()), v.ink(), 1);
        return null;
    }

    @Override
    public Void span(Layer.Span window) {
        return null;
    }

    @Override
    public Void mark(Layer.Mark m) {
        double right = f.left() + f.width();
        double bottom = f.top() + f.height();
        if (Double.isNaN(m.y())) {
            s.line(f.px(m.x()), f.top(), f.px(m.x()), bottom, Ink.QUIET, 1);
        } else if (Double.isNaN(m.x())) {
            s.line(f.left(), f.py(m.y()), right, f.py(m.y()), Ink.QUIET, 1);
        } else {
            s.line(f.px(m.x()) - 6, f.py(m.y()), f.px(m.x()) + 6, f.py(m.y()), Ink.INK, 1.4);
            s.line(f.px(m.x()), f.py(m.y()) - 6, f.px(m.x()), f.py(m.y()) + 6, Ink.INK, 1.4);
        }
        return null;
    }

    @Override
    public Void moment(Layer.Moment m) {
        double half = Math.max(1, f.px(m.at() + m.u()) - f.px(m.at()));
        s.rectangle(f.px(m.at()) - half, f.top(), 2 * half, f.height(), Ink.BAND, null, 0);
        s.line(f.px(m.at()), f.top(), f.px(m.at()), f.top() + f.height(), Ink.GOOD, 1.4);
        return null;
    }

    @Override
    public Void words(Layer.Words words) {
        return null;
    }

    @Override
    public Void legend(Layer.Legend legend) {
        return null;
    }

    private void point(Layer.Points p, int i) {
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
        if (p.ux() != null && p.ux()[i] > 0) {
            s.line(f.px(p.x()[i] - p.ux()[i]), py, f.px(p.x()[i] + p.ux()[i]), py, ink, 1.3);
            r = 3;
        }
        Marker.paint(s, px, py, r, p.series(), p.weak());
    }

    private void columns(double[] x, double[] least, double[] greatest, Ink ink) {
        int n = (int) f.width();
        double[] low = new double[n + 1];
        double[] high = new double[n + 1];
        Arrays.fill(low, Double.POSITIVE_INFINITY);
        Arrays.fill(high, Double.NEGATIVE_INFINITY);
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
}
