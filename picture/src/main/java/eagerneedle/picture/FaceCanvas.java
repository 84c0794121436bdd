package eagerneedle.picture;

import eagerneedle.core.formula.Written;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.picture.Surface.Align;
import java.util.Map;

/** What every face paints with: its surface, what stands in its gaps, and how divisions are drawn and numbered. */
abstract class FaceCanvas {
    static final int AROUND = 9;

    final Surface s;
    final double w;
    final double h;
    final Map<String, String> values;
    /** Whether what is read is said: not where somebody is asked to read it. */
    final boolean tells;

    FaceCanvas(Surface s, double w, double h, Map<String, String> values, boolean tells) {
        this.s = s;
        this.w = w;
        this.h = h;
        this.values = values;
        this.tells = tells;
    }

    Quantity quantity(String gap) {
        return Written.quantity(values.getOrDefault(gap, ""), gap, gap, gap);
    }

    double number(String gap) {
        return quantity(gap).value();
    }

    LabUnit unitOf(String gap) {
        return quantity(gap).unit();
    }

    /** A step in the unit of another value. */
    double step(String gap, String like) {
        Quantity q = quantity(gap);
        LabUnit unit = unitOf(like);
        double step = q.in(unit.difference());
        if (!(step > 0)) {
            throw new IllegalArgumentException("A division is more than nothing, not " + values.get(gap) + ".");
        }
        return step;
    }

    static String plain(double v) {
        return Notation.plain(Math.abs(v) < 1e-12 ? 0 : v, 6);
    }

    /** How many divisions stand between two numbers on a scale. */
    static int numbered(double division) {
        double lead = division / Math.pow(10, Math.floor(Math.log10(division) + 1e-9));
        return Math.abs(lead - 2) < 1e-6 || Math.abs(lead - 0.2) < 1e-6 || Math.abs(lead - 5) < 1e-6 ? 5 : 10;
    }

    static double tick(long i, int numbered) {
        return i % numbered == 0 ? 22 : numbered % 2 == 0 && i % (numbered / 2) == 0 ? 16 : 10;
    }

    /** What is read. */
    void caption(String text) {
        if (tells) {
            under(text);
        }
    }

    /** What cannot be seen on the picture, where the reading itself is not said. */
    void beside(String text) {
        if (!tells) {
            under(text);
        }
    }

    private void under(String text) {
        s.text(text, w / 2, h - 6, Align.CENTRE, Lettering.text(12), Ink.QUIET);
    }
}
