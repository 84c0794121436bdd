package eagerneedle.picture;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.stockroom.Instrument;
import eagerneedle.picture.Surface.Align;
import java.util.List;

/** The ranges of instruments of one unit as bars on a common scale. */
public final class RangePicture {
    private static final double ROW = 26;

    private RangePicture() {}

    public static double height(int instruments) {
        return instruments * ROW + 26;
    }

    /** True for an instrument of which a bar can be drawn: it says what it measures, and from where to where. */
    public static boolean draws(Instrument i) {
        return i.range().size() == 2 && i.measures() != null;
    }

    /** Paints a bar for each instrument with a range, the scale of the first below; nothing where that has none. */
    public static void paint(Surface s, List<Instrument> all, double w) {
        if (all.isEmpty() || !draws(all.get(0))) {
            return;
        }
        LabUnit unit = all.get(0).unit();
        List<Instrument> drawn =
                all.stream().filter(i -> draws(i) && i.unit().fits(unit)).toList();
        double low = drawn.stream()
                .mapToDouble(i -> InstrumentPlots.ends(i, unit)[0])
                .min()
                .orElse(0);
        double high = drawn.stream()
                .mapToDouble(i -> InstrumentPlots.ends(i, unit)[1])
                .max()
                .orElse(1);
        double labels = drawn.size() > 1 ? 104 : 0;
        double left = labels + 14;
        double right = w - 60;
        double scale = (right - left) / Math.max(1e-300, high - low);
        double y = 4;
        for (int k = 0; k < drawn.size(); k++) {
            double[] ends = InstrumentPlots.ends(drawn.get(k), unit);
            if (labels > 0) {
                s.text(drawn.get(k).id(), 2, y + 12, Align.LEFT, Lettering.figures(12), Ink.INK);
            }
            s.rectangle(left, y, right - left, 16, Ink.REACH, null, 4);
            s.rectangle(
                    left + scale * (ends[0] - low),
                    y,
                    Math.max(2, scale * (ends[1] - ends[0])),
                    16,
                    Ink.trace(k),
                    null,
                    4);
            y += ROW;
        }
        double[] ticks = PlotPainter.ticks(low, high, 8);
        for (double t : ticks) {
            double x = left + scale * (t - low);
            s.line(x, y - 6, x, y - 2, Ink.QUIET, 1);
            s.text(PlotPainter.label(t, ticks), x, y + 10, Align.CENTRE, Lettering.figures(11), Ink.QUIET);
        }
        s.text(
                unit.pretty().isEmpty() ? Notation.plain(1, 1) : unit.pretty(),
                w - 4,
                y + 10,
                Align.RIGHT,
                Lettering.text(12),
                Ink.QUIET);
    }
}
