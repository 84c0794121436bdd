package eagerneedle.picture;

import eagerneedle.picture.Surface.Align;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * Paints a drawing of an apparatus into a box, as large as it fits, its shape kept. With words for its call-outs each
 * stands at the end of its line; what is lit is drawn in the red of the needle, with a ring at its place.
 */
public final class DrawingPainter {
    private static final double LETTER = 12;
    private static final double NEAR = 22;
    private final Drawing drawing;
    private final Ink ground;
    private final double left;
    private final double top;
    private final double scale;

    /**
     * Fits a drawing into a box.
     *
     * @param ground what it is painted on; words stand on it and hide the strokes behind them
     */
    public DrawingPainter(Drawing drawing, Ink ground, double x, double y, double w, double h) {
        this.drawing = drawing;
        this.ground = ground;
        scale = Math.min(w / drawing.width(), h / drawing.height());
        left = x + (w - scale * drawing.width()) / 2;
        top = y + (h - scale * drawing.height()) / 2;
    }

    private double px(double x) {
        return left + scale * x;
    }

    private double py(double y) {
        return top + scale * y;
    }

    /** Paints the strokes alone, as on a card. */
    public void paint(Surface s) {
        for (Drawing.Stroke stroke : drawing.strokes()) {
            double[] x = Arrays.stream(stroke.x()).map(this::px).toArray();
            double[] y = Arrays.stream(stroke.y()).map(this::py).toArray();
            switch (stroke.manner()) {
                case BODY -> s.polygon(x, y, ground);
                case SOLID -> s.polygon(x, y, Ink.INK);
                default -> {}
            }
            boolean quiet = stroke.manner() == Drawing.Manner.QUIET;
            s.polyline(
                    x,
                    y,
                    x.length,
                    quiet ? Ink.QUIET : Ink.INK,
                    (quiet ? 0.9 : 1.5) * Math.min(1.3, Math.max(0.6, scale)));
        }
    }

    /**
     * Paints the strokes and the call-outs.
     *
     * @param words what each call-out says, by its name; one without words is left away
     * @param lit name of the call-out that is pointed at; empty for none
     */
    public void paint(Surface s, Map<String, String> words, String lit) {
        paint(s);
        List<Drawing.CallOut> said = drawing.callOuts().stream()
                .filter(c -> words.containsKey(c.name()))
                .toList();
        for (Drawing.CallOut c : said) {
            boolean on = c.name().equals(lit);
            Ink ink = on ? Ink.NEEDLE : Ink.QUIET;
            s.line(px(c.x()), py(c.y()), px(c.toX()), py(c.toY()), ink, on ? 1.6 : 0.8);
            s.circle(px(c.x()), py(c.y()), on ? 5 : 2, on ? null : ink, on ? ink : null, 1.6);
        }
        List<Said> placed = new ArrayList<>();
        // What is lit is said in any case; of the rest, in a small drawing, what finds room.
        said.stream()
                .filter(c -> c.name().equals(lit))
                .forEach(c -> placed.add(said(s, c, words.getOrDefault(c.name(), ""), true)));
        for (Drawing.CallOut c : said) {
            if (!c.name().equals(lit)) {
                Said next = said(s, c, words.getOrDefault(c.name(), ""), false);
                if (placed.stream().noneMatch(next::over)) {
                    placed.add(next);
                }
            }
        }
        placed.forEach(w -> w.paint(s, ground));
    }

    /** Words of a call-out where they stand. */
    private record Said(String text, double x, double y, double wide, boolean on) {
        boolean over(Said o) {
            return x < o.x + o.wide + 2 && o.x < x + wide + 2 && Math.abs(y - o.y) < LETTER;
        }

        void paint(Surface s, Ink ground) {
            s.rectangle(x - 2, y - LETTER + 1, wide + 4, LETTER + 3, ground, null, 2);
            s.text(
                    text,
                    x,
                    y,
                    Align.LEFT,
                    on ? Lettering.heading(LETTER) : Lettering.text(LETTER),
                    on ? Ink.NEEDLE : Ink.INK);
        }
    }

    /** Words stand beyond the end of their line, inside the drawing. */
    private Said said(Surface s, Drawing.CallOut c, String says, boolean on) {
        Lettering l = on ? Lettering.heading(LETTER) : Lettering.text(LETTER);
        double dx = c.toX() - c.x();
        double dy = c.toY() - c.y();
        boolean upright = Math.abs(dx) < Math.abs(dy) / 3;
        double right = left + scale * drawing.width();
        String fits = BudgetPicture.fitting(s, says, right - left, l);
        double wide = s.textWidth(fits, l);
        double x = upright ? px(c.toX()) - wide / 2 : dx > 0 ? px(c.toX()) + 3 : px(c.toX()) - 3 - wide;
        double y = upright ? dy > 0 ? py(c.toY()) + LETTER : py(c.toY()) - 4 : py(c.toY()) + 4;
        return new Said(
                fits,
                Math.max(left, Math.min(x, right - wide)),
                Math.max(top + LETTER - 2, Math.min(y, top + scale * drawing.height() - 2)),
                wide,
                on);
    }

    /** The call-out near a place of the surface. */
    public Optional<String> at(double x, double y) {
        return drawing.callOuts().stream()
                .filter(c -> distance(c, x, y) < NEAR)
                .min((a, b) -> Double.compare(distance(a, x, y), distance(b, x, y)))
                .map(Drawing.CallOut::name);
    }

    private double distance(Drawing.CallOut c, double x, double y) {
        double toPlace = Math.hypot(px(c.x()) - x, py(c.y()) - y);
        double toWords = Math.hypot(px(c.toX()) - x, py(c.toY()) - y);
        return Math.min(toPlace, toWords);
    }
}
