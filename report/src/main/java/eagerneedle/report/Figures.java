package eagerneedle.report;

import eagerneedle.picture.FormulaPicture;
import eagerneedle.picture.Ink;
import eagerneedle.picture.Plot;
import eagerneedle.picture.PlotPainter;
import eagerneedle.picture.SvgSurface;

/** Pictures that stand in a page, each under a name of its own. */
final class Figures {
    /** Width of the text, px. */
    static final double WIDE = 620;

    private int pictures;

    /** A plot as a whole. */
    String plot(Plot p, double w, double h) {
        SvgSurface s = surface(w, h);
        PlotPainter.paint(s, p, p.whole(), 0, 0, w, h, true);
        return s.document(p.title());
    }

    /** An equation on one line. */
    String equation(String formula) {
        FormulaPicture.Size size = FormulaPicture.measure(new SvgSurface(1, 1, false, "m"), formula, 17);
        SvgSurface s = surface(size.width() + 4, size.ascent() + size.descent() + 6);
        FormulaPicture.paint(s, formula, 2, size.ascent() + 3, 17, Ink.INK);
        return s.document(formula);
    }

    /** A name as formulas set it, small enough for a row of a table. */
    String symbol(String name) {
        FormulaPicture.Size size = FormulaPicture.measure(new SvgSurface(1, 1, false, "m"), name, 11);
        SvgSurface s = surface(size.width() + 2, size.ascent() + size.descent() + 2);
        FormulaPicture.paint(s, name, 1, size.ascent() + 1, 11, Ink.INK);
        return s.document(name);
    }

    /** Whole points: the writer of PDF takes fractions for no size at all. */
    SvgSurface surface(double w, double h) {
        return new SvgSurface(Math.ceil(w), Math.ceil(h), false, "p" + pictures++);
    }
    /** An equation over as many lines as it takes. */
    String law(String text) {
        double h = FormulaPicture.paintWithin(new SvgSurface(1, 1, false, "m"), text, 2, 0, 14, WIDE - 8, Ink.INK);
        SvgSurface s = surface(WIDE, h);
        FormulaPicture.paintWithin(s, text, 2, 0, 14, WIDE - 8, Ink.INK);
        return s.document(text);
    }
}
