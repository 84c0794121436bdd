package eagerneedle.picture;

import eagerneedle.picture.Surface.Align;
import java.util.ArrayList;
import java.util.List;

/** Paints what lies over the data and may stand out of the frame: the edges of windows, words and legends. */
final class OverPainter implements Layer.Cases<Void> {
    /** From one line of a legend to the next. */
    private static final double LINE = 17;

    private final Surface s;
    private final PlotPainter.Frame f;
    private final double named;
    /** Left, right and baseline of words that stand already. */
    private final List<double[]> taken = new ArrayList<>();

    /** @param named where the name of the vertical axis ends */
    OverPainter(Surface s, PlotPainter.Frame f, double named) {
        this.s = s;
        this.f = f;
        this.named = named;
    }

    @Override
    public Void span(Layer.Span window) {
        edge(window.from(), window.handles());
        edge(window.to(), window.handles());
        return null;
    }

    /** Words beside their place, kept inside the frame and off words that stand already. */
    @Override
    public Void words(Layer.Words w) {
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
        return null;
    }

    @Override
    public Void mark(Layer.Mark m) {
        return words(new Layer.Words(
                m.name(),
                Double.isNaN(m.x()) ? f.xAt(f.left() + 4) : m.x(),
                Double.isNaN(m.y()) ? f.yAt(f.top() + 14) : f.yAt(f.py(m.y()) - 5),
                Ink.INK,
                false));
    }

    /** Its grip stands below, so that it is never under that of a window. */
    @Override
    public Void moment(Layer.Moment m) {
        double px = f.px(m.at());
        if (px >= f.left() - 1 && px <= f.left() + f.width() + 1) {
            double y = f.top() + f.height();
            s.polygon(new double[] {px - 6, px + 6, px}, new double[] {y + 1, y + 1, y - 9}, Ink.GOOD);
            words(new Layer.Words(m.label(), m.at(), f.yAt(y - 14), Ink.GOOD, false));
        }
        return null;
    }

    @Override
    public Void legend(Layer.Legend legend) {
        List<Layer.Entry> entries = fitting(legend.entries());
        double y = legend.corner().isBottom() ? f.top() + f.height() - 9 - LINE * (entries.size() - 1) : f.top() + 20;
        for (int i = 0; i < entries.size(); i++) {
            int series = entries.get(i).series();
            boolean first = i == 0 && series < 0;
            Lettering lettering = first ? Lettering.figures(12.5) : Lettering.text(11);
            if (s.textWidth(entries.get(i).text(), lettering) > f.width() - 26) {
                lettering = Lettering.text(10.5);
            }
            double sign = series < 0 ? 0 : 12;
            String line = BudgetPicture.fitting(s, entries.get(i).text(), f.width() - 16 - sign, lettering);
            double wide = s.textWidth(line, lettering);
            double x = legend.corner().isRight() ? f.left() + f.width() - 12 - wide : f.left() + 14 + sign;
            if (series >= 0) {
                Marker.paint(s, x - 9, y - 4, 3, series, false);
            }
            s.text(line, x, y, Align.LEFT, lettering, first || series >= 0 ? Ink.INK : Ink.QUIET);
            y += LINE;
        }
        return null;
    }

    /** The first line and what tells series apart, and of the rest what finds room in half of the frame. */
    private List<Layer.Entry> fitting(List<Layer.Entry> entries) {
        int most = (int) ((f.height() / 2 - 3) / LINE);
        List<Layer.Entry> out = new ArrayList<>(entries);
        for (int i = entries.size() - 1; i > 0 && out.size() > most; i--) {
            if (entries.get(i).series() < 0) {
                out.remove(i);
            }
        }
        return out;
    }

    @Override
    public Void points(Layer.Points layer) {
        return null;
    }

    @Override
    public Void envelope(Layer.Envelope layer) {
        return null;
    }

    @Override
    public Void curve(Layer.Curve layer) {
        return null;
    }

    @Override
    public Void band(Layer.Band layer) {
        return null;
    }

    @Override
    public Void stems(Layer.Stems layer) {
        return null;
    }

    @Override
    public Void level(Layer.Level layer) {
        return null;
    }

    private void edge(double at, boolean handles) {
        double px = f.px(at);
        if (px < f.left() - 1 || px > f.left() + f.width() + 1) {
            return;
        }
        s.line(px, f.top(), px, f.top() + f.height(), Ink.NEEDLE, 1.4);
        if (handles) {
            s.polygon(
                    new double[] {px - 6, px + 6, px},
                    new double[] {f.top() - 1, f.top() - 1, f.top() + 9},
                    Ink.NEEDLE);
            String text = String.format(java.util.Locale.ROOT, "%.2f s", at);
            double half = s.textWidth(text, Lettering.figures(11)) / 2;
            double centre = Math.min(
                    Math.max(px, Math.min(named, f.left() + f.width() / 2) + half), f.left() + f.width() - half);
            s.text(text, centre, f.top() - 6, Align.CENTRE, Lettering.figures(11), Ink.NEEDLE);
        }
    }
}
