package eagerneedle.picture;

import eagerneedle.picture.Surface.Align;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * The lines of a legend as one block: in the corner that was asked for, in another free place, or, where the data leave
 * none, above the frame, which then begins lower.
 */
final class LegendBlock {
    /** From one line to the next. */
    private static final double LINE = 17;

    /** Above the frame: room for the times at the edges of a window. */
    private static final double TIMES = 14;

    private final Surface s;
    private final Layer.Legend legend;

    LegendBlock(Surface s, Layer.Legend legend) {
        this.s = s;
        this.legend = legend;
    }

    /** Height that it takes above a frame, where it finds no room in it; 0 where it does. */
    double above(FreeRoom room, PlotPainter.Frame f) {
        List<Layer.Entry> entries = fitting(f.height());
        return place(room, f, entries).isPresent() ? 0 : entries.size() * LINE + TIMES;
    }

    /** Paints it into a frame; {@code lowered} when that was made lower for it. */
    void paint(FreeRoom room, PlotPainter.Frame f, double lowered) {
        List<Layer.Entry> entries = fitting(f.height() + lowered);
        if (lowered > 0) {
            lines(entries, f, f.left() + 2, f.top() - lowered, false);
            return;
        }
        // A frame that must keep its shape cannot begin lower: there the corner has to do.
        double[] at = place(room, f, entries).orElseGet(() -> wanted(f, entries));
        lines(entries, f, at[0], at[1], legend.corner().isRight());
        room.take(at[0], at[1], at[0] + width(entries, f), at[1] + entries.size() * LINE);
    }

    private double[] wanted(PlotPainter.Frame f, List<Layer.Entry> entries) {
        return new double[] {
            legend.corner().isRight() ? f.left() + f.width() - width(entries, f) - 8 : f.left() + 10,
            legend.corner().isBottom() ? f.top() + f.height() - entries.size() * LINE - 6 : f.top() + 6
        };
    }

    private Optional<double[]> place(FreeRoom room, PlotPainter.Frame f, List<Layer.Entry> entries) {
        double[] wanted = wanted(f, entries);
        return room.nearest(wanted[0], wanted[1], width(entries, f), entries.size() * LINE + 2);
    }

    private void lines(List<Layer.Entry> entries, PlotPainter.Frame f, double left, double top, boolean toTheRight) {
        double width = width(entries, f);
        for (int i = 0; i < entries.size(); i++) {
            Layer.Entry e = entries.get(i);
            double y = top + 12.5 + i * LINE;
            double sign = e.series() < 0 ? 0 : 14;
            String line =
                    BudgetPicture.fitting(s, e.text(), Math.max(20, f.width() - 20 - sign), lettering(entries, i, f));
            double x = toTheRight ? left + width - s.textWidth(line, lettering(entries, i, f)) : left + sign;
            if (e.series() >= 0) {
                Marker.paint(s, x - 9, y - 4, 3, e.series(), false);
            }
            s.text(
                    line,
                    x,
                    y,
                    Align.LEFT,
                    lettering(entries, i, f),
                    isFirst(entries, i) || e.series() >= 0 ? Ink.INK : Ink.QUIET);
        }
    }

    private double width(List<Layer.Entry> entries, PlotPainter.Frame f) {
        double w = 0;
        for (int i = 0; i < entries.size(); i++) {
            w = Math.max(
                    w,
                    s.textWidth(entries.get(i).text(), lettering(entries, i, f))
                            + (entries.get(i).series() < 0 ? 0 : 14));
        }
        return Math.min(w, f.width() - 14);
    }

    private static boolean isFirst(List<Layer.Entry> entries, int i) {
        return i == 0 && entries.get(i).series() < 0;
    }

    private Lettering lettering(List<Layer.Entry> entries, int i, PlotPainter.Frame f) {
        Lettering usual = isFirst(entries, i) ? Lettering.heading(12.5) : Lettering.text(11.5);
        return s.textWidth(entries.get(i).text(), usual) > f.width() - 26 ? Lettering.text(10.5) : usual;
    }

    /** The first line and what tells series apart, and of the rest what finds room in half of the height. */
    private List<Layer.Entry> fitting(double height) {
        int most = (int) ((height / 2 - 3) / LINE);
        List<Layer.Entry> out = new ArrayList<>(legend.entries());
        for (int i = out.size() - 1; i > 0 && out.size() > most; i--) {
            if (out.get(i).series() < 0) {
                out.remove(i);
            }
        }
        return out;
    }
}
