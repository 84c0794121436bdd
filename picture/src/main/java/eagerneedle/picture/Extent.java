package eagerneedle.picture;

import org.jspecify.annotations.Nullable;

/** The ranges that layers take up, widened by one layer after another. */
final class Extent implements Layer.Cases<Extent> {
    private double left = Double.POSITIVE_INFINITY;
    private double right = Double.NEGATIVE_INFINITY;
    private double low = Double.POSITIVE_INFINITY;
    private double high = Double.NEGATIVE_INFINITY;

    private Extent with(double[] x, double[] y, double @Nullable [] u) {
        return with(x, y, null, u);
    }

    private Extent with(double[] x, double[] y, double @Nullable [] ux, double @Nullable [] u) {
        double x0 = left;
        double x1 = right;
        double y0 = low;
        double y1 = high;
        for (int i = 0; i < x.length; i++) {
            if (Double.isFinite(x[i]) && Double.isFinite(y[i])) {
                double d = u == null ? 0 : u[i];
                double across = ux == null ? 0 : ux[i];
                // Few points widen what was there: to ask is cheaper than to choose.
                x0 = x[i] - across < x0 ? x[i] - across : x0;
                x1 = x[i] + across > x1 ? x[i] + across : x1;
                y0 = y[i] - d < y0 ? y[i] - d : y0;
                y1 = y[i] + d > y1 ? y[i] + d : y1;
            }
        }
        left = x0;
        right = x1;
        low = y0;
        high = y1;
        return this;
    }

    @Override
    public Extent points(Layer.Points p) {
        return with(p.x(), p.y(), p.ux(), p.u());
    }

    @Override
    public Extent envelope(Layer.Envelope e) {
        return with(e.x(), e.low(), null).with(e.x(), e.high(), null);
    }

    @Override
    public Extent curve(Layer.Curve c) {
        return with(c.x(), c.y(), null);
    }

    @Override
    public Extent band(Layer.Band b) {
        return with(b.x(), b.low(), null).with(b.x(), b.high(), null);
    }

    @Override
    public Extent stems(Layer.Stems s) {
        return with(s.x(), s.y(), null);
    }

    @Override
    public Extent level(Layer.Level v) {
        low = Math.min(low, v.y());
        high = Math.max(high, v.y());
        return this;
    }

    @Override
    public Extent span(Layer.Span window) {
        return this;
    }

    @Override
    public Extent mark(Layer.Mark m) {
        if (Double.isFinite(m.x())) {
            left = Math.min(left, m.x());
            right = Math.max(right, m.x());
        }
        if (Double.isFinite(m.y())) {
            low = Math.min(low, m.y());
            high = Math.max(high, m.y());
        }
        return this;
    }

    @Override
    public Extent moment(Layer.Moment moment) {
        return this;
    }

    @Override
    public Extent words(Layer.Words words) {
        return this;
    }

    @Override
    public Extent legend(Layer.Legend legend) {
        return this;
    }

    /** All of it with a margin; 0 to 1 where there is nothing. */
    Plot.View view() {
        boolean any = right >= left;
        double x0 = any ? left : 0;
        double x1 = any ? right : 1;
        double y0 = any || Double.isFinite(low) ? low : 0;
        double y1 = any || Double.isFinite(high) ? high : 1;
        double mx = x1 > x0 ? 0.02 * (x1 - x0) : 0.5;
        double my = y1 > y0 ? 0.07 * (y1 - y0) : Math.max(0.5 * Math.abs(y0), 1e-6);
        return new Plot.View(x0 - mx, x1 + mx, y0 - my, y1 + my);
    }
}
