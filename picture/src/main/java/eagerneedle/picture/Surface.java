package eagerneedle.picture;

import org.jspecify.annotations.Nullable;

/** What a picture paints on. Coordinates in pixels, y downwards. */
public interface Surface {
    /** Where a text stands relative to its x. */
    enum Align {
        LEFT,
        CENTRE,
        RIGHT
    }

    void line(double x1, double y1, double x2, double y2, Ink ink, double width);

    /** A line through n points; {@code dash} of length 0 for a solid one. */
    void polyline(double[] x, double[] y, int n, Ink ink, double width, double... dash);

    /**
     * One upright stroke a pixel column, from {@code left} on.
     *
     * @param top y of the upper end of each of n strokes; NaN for a column without one
     * @param bottom y of the lower ends
     */
    default void columns(double left, double[] top, double[] bottom, Ink ink) {
        for (int c = 0; c < top.length; c++) {
            if (!Double.isNaN(top[c])) {
                line(left + c, top[c], left + c, bottom[c], ink, 1);
            }
        }
    }

    void polygon(double[] x, double[] y, Ink fill);

    /** A rectangle; either ink may be null. */
    void rectangle(
            double x, double y, double width, double height, @Nullable Ink fill, @Nullable Ink stroke, double corner);

    /** A circle; either ink may be null. */
    void circle(double x, double y, double radius, @Nullable Ink fill, @Nullable Ink stroke, double width);

    /** Text whose baseline is at y. */
    void text(String text, double x, double y, Align align, Lettering lettering, Ink ink);

    double textWidth(String text, Lettering lettering);

    /** Paints with everything outside the rectangle left out. */
    void clipped(double x, double y, double width, double height, Runnable painting);
}
