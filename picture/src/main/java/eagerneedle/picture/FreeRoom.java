package eagerneedle.picture;

import java.util.Optional;

/**
 * Where in the rectangle of a plot words may stand. The rectangle is divided into cells of a few pixels; those that
 * data, a fitted line, a window's edge or other words lie in are taken. Words then stand in the free place nearest to
 * where they belong, or, where there is none, outside.
 *
 * <p>Cells rather than shapes: a trace of a million samples costs one look at each, and a place is found by looking at
 * some thousands of cells whatever the data are.
 */
final class FreeRoom implements Layer.Cases<Void> {
    private static final double CELL = 4;
    /** How far data reach beyond their middle: half a marker. */
    private static final double MARKER = 4;

    private final PlotPainter.Frame f;
    private final int columns;
    private final int rows;
    private final boolean[] taken;

    FreeRoom(PlotPainter.Frame f) {
        this.f = f;
        columns = Math.max(1, (int) Math.ceil(f.width() / CELL));
        rows = Math.max(1, (int) Math.ceil(f.height() / CELL));
        taken = new boolean[columns * rows];
    }

    /** The room that the layers of a plot leave. */
    static FreeRoom of(Plot plot, PlotPainter.Frame f) {
        FreeRoom room = new FreeRoom(f);
        plot.layers().forEach(l -> l.as(room));
        return room;
    }

    /** Takes a rectangle of pixels; what lies outside the frame is left alone. */
    void take(double x0, double y0, double x1, double y1) {
        if (!(x1 >= x0) || !(y1 >= y0)) {
            return;
        }
        int c0 = Math.max(0, (int) Math.floor((x0 - f.left()) / CELL));
        int c1 = Math.min(columns - 1, (int) Math.floor((x1 - f.left()) / CELL));
        int r0 = Math.max(0, (int) Math.floor((y0 - f.top()) / CELL));
        int r1 = Math.min(rows - 1, (int) Math.floor((y1 - f.top()) / CELL));
        for (int r = r0; r <= r1; r++) {
            for (int c = c0; c <= c1; c++) {
                taken[r * columns + c] = true;
            }
        }
    }

    boolean isFree(double x, double y, double w, double h) {
        if (x < f.left() || y < f.top() || x + w > f.left() + f.width() || y + h > f.top() + f.height()) {
            return false;
        }
        int c0 = (int) Math.floor((x - f.left()) / CELL);
        int c1 = Math.min(columns - 1, (int) Math.floor((x + w - f.left()) / CELL));
        int r0 = (int) Math.floor((y - f.top()) / CELL);
        int r1 = Math.min(rows - 1, (int) Math.floor((y + h - f.top()) / CELL));
        for (int r = r0; r <= r1; r++) {
            for (int c = c0; c <= c1; c++) {
                if (taken[r * columns + c]) {
                    return false;
                }
            }
        }
        return true;
    }

    /**
     * The free place of a size nearest to where its left upper corner is wanted.
     *
     * @return left and upper edge in pixels; empty when it finds no room anywhere
     */
    Optional<double[]> nearest(double x, double y, double w, double h) {
        double bestX = 0;
        double bestY = 0;
        double best = Double.POSITIVE_INFINITY;
        double wantedX = Math.max(f.left() + 2, Math.min(x, f.left() + f.width() - w - 2));
        double wantedY = Math.max(f.top() + 2, Math.min(y, f.top() + f.height() - h - 2));
        if (isFree(wantedX, wantedY, w, h)) {
            return Optional.of(new double[] {wantedX, wantedY});
        }
        for (double at = f.top() + 2; at + h <= f.top() + f.height() - 2; at += CELL) {
            for (double left = f.left() + 2; left + w <= f.left() + f.width() - 2; left += CELL) {
                double far = Math.hypot(left - wantedX, at - wantedY);
                if (far < best && isFree(left, at, w, h)) {
                    best = far;
                    bestX = left;
                    bestY = at;
                }
            }
        }
        return best < Double.POSITIVE_INFINITY ? Optional.of(new double[] {bestX, bestY}) : Optional.empty();
    }

    private void point(double px, double py) {
        if (Double.isFinite(px) && Double.isFinite(py)) {
            take(px - MARKER, py - MARKER, px + MARKER, py + MARKER);
        }
    }

    private void line(double x0, double y0, double x1, double y1) {
        if (!Double.isFinite(x0 + y0 + x1 + y1)) {
            return;
        }
        double reach = Math.max(Math.abs(x1 - x0), Math.abs(y1 - y0));
        int n = (int) Math.min(4000, Math.ceil(reach / CELL));
        for (int i = 0; i <= n; i++) {
            double t = n == 0 ? 0 : (double) i / n;
            double x = x0 + t * (x1 - x0);
            double y = y0 + t * (y1 - y0);
            take(x - 1, y - 1, x + 1, y + 1);
        }
    }

    @Override
    public Void points(Layer.Points p) {
        for (int i = 0; i < p.x().length; i++) {
            double px = f.px(p.x()[i]);
            double py = f.py(p.y()[i]);
            point(px, py);
            if (p.u() != null) {
                take(px - 1, f.py(p.y()[i] + p.u()[i]), px + 1, f.py(p.y()[i] - p.u()[i]));
            }
            if (p.ux() != null) {
                take(f.px(p.x()[i] - p.ux()[i]), py - 1, f.px(p.x()[i] + p.ux()[i]), py + 1);
            }
        }
        return null;
    }

    @Override
    public Void envelope(Layer.Envelope e) {
        for (int i = 0; i < e.x().length; i++) {
            double right = f.px(e.x()[Math.min(i + 1, e.x().length - 1)]);
            take(f.px(e.x()[i]), f.py(e.high()[i]) - 1, right, f.py(e.low()[i]) + 1);
        }
        return null;
    }

    @Override
    public Void curve(Layer.Curve c) {
        for (int i = 1; i < c.x().length; i++) {
            line(f.px(c.x()[i - 1]), f.py(c.y()[i - 1]), f.px(c.x()[i]), f.py(c.y()[i]));
        }
        return null;
    }

    @Override
    public Void band(Layer.Band b) {
        for (int i = 1; i < b.x().length; i++) {
            take(f.px(b.x()[i - 1]), f.py(b.high()[i]), f.px(b.x()[i]), f.py(b.low()[i]));
        }
        return null;
    }

    @Override
    public Void stems(Layer.Stems st) {
        for (int i = 0; i < st.x().length; i++) {
            point(f.px(st.x()[i]), f.py(st.y()[i]));
        }
        return null;
    }

    @Override
    public Void span(Layer.Span window) {
        upright(window.from());
        upright(window.to());
        return null;
    }

    private void upright(double at) {
        double px = f.px(at);
        take(px - 7, f.top(), px + 7, f.top() + 10);
        take(px - 2, f.top(), px + 2, f.top() + f.height());
    }

    @Override
    public Void moment(Layer.Moment m) {
        double px = f.px(m.at());
        take(px - 2, f.top(), px + 2, f.top() + f.height());
        take(px - 7, f.top() + f.height() - 10, px + 7, f.top() + f.height());
        return null;
    }

    @Override
    public Void level(Layer.Level v) {
        take(f.left(), f.py(v.y()) - 1, f.left() + f.width(), f.py(v.y()) + 1);
        return null;
    }

    @Override
    public Void mark(Layer.Mark m) {
        if (Double.isNaN(m.y())) {
            take(f.px(m.x()) - 1, f.top(), f.px(m.x()) + 1, f.top() + f.height());
        } else if (Double.isNaN(m.x())) {
            take(f.left(), f.py(m.y()) - 1, f.left() + f.width(), f.py(m.y()) + 1);
        } else {
            take(f.px(m.x()) - 6, f.py(m.y()) - 6, f.px(m.x()) + 6, f.py(m.y()) + 6);
        }
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
}
