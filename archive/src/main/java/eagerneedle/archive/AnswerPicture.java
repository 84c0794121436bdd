package eagerneedle.archive;

import eagerneedle.picture.Ink;
import eagerneedle.picture.Lettering;
import eagerneedle.picture.Surface;
import eagerneedle.picture.Surface.Align;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;

/** An answer as bars below each other, to the right of zero and to its left. */
final class AnswerPicture {
    private static final double ROW = 22;
    private static final double TOP = 34;
    private static final double FOOT = 12;
    private static final double NAMES = 260;
    private static final double VALUES = 90;
    private static final int MOST = 40;
    private static final Lettering SMALL = Lettering.text(12);

    private AnswerPicture() {}

    /** One bar. */
    private record Bar(String name, double value) {}

    private static List<Bar> bars(Answer a, Question q) {
        int value = a.columns().indexOf(q.drawn());
        int name = a.columns().indexOf(q.of());
        List<Bar> out = new ArrayList<>();
        for (List<@Nullable Object> r : a.rows()) {
            if (r.get(value) instanceof Number n && out.size() < MOST) {
                int more = a.columns().indexOf("term");
                String extra = more < 0 ? "" : ", " + r.get(more);
                out.add(new Bar(r.get(name) + extra, n.doubleValue()));
            }
        }
        return out;
    }

    static double height(Answer a, Question q) {
        return TOP + ROW * bars(a, q).size() + FOOT;
    }

    static void paint(Surface s, Answer a, Question q, double w) {
        List<Bar> bars = bars(a, q);
        double least = Math.min(0, bars.stream().mapToDouble(Bar::value).min().orElse(0));
        double most = Math.max(0, bars.stream().mapToDouble(Bar::value).max().orElse(1));
        double left = NAMES;
        double scale = (w - NAMES - VALUES) / Math.max(1e-300, most - least);
        double zero = left - least * scale;
        s.text(q.drawn().replace('_', ' '), zero, TOP - 16, Align.LEFT, SMALL, Ink.QUIET);
        double y = TOP;
        for (Bar b : bars) {
            double to = zero + b.value() * scale;
            s.rectangle(Math.min(zero, to), y + 4, Math.abs(to - zero), ROW - 8, Ink.QUIET, null, 0);
            s.text(cut(b.name()), 10, y + ROW / 2 + 4, Align.LEFT, SMALL, Ink.INK);
            s.text(
                    String.format(Locale.ROOT, "%.4g", b.value()),
                    Math.max(zero, to) + 6,
                    y + ROW / 2 + 4,
                    Align.LEFT,
                    SMALL,
                    Ink.INK);
            y += ROW;
        }
        s.line(zero, TOP - 6, zero, y, Ink.INK, 1);
    }

    private static String cut(String name) {
        int most = 42;
        return name.length() <= most ? name : name.substring(0, most - 3) + "...";
    }
}
