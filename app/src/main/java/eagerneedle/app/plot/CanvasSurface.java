package eagerneedle.app.plot;

import eagerneedle.app.widget.Typefaces;
import eagerneedle.picture.Ink;
import eagerneedle.picture.Lettering;
import eagerneedle.picture.Surface;
import java.util.HashMap;
import java.util.Map;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.image.PixelFormat;
import javafx.scene.image.WritableImage;
import javafx.scene.paint.Color;
import javafx.scene.text.Text;
import javafx.scene.text.TextAlignment;
import org.jspecify.annotations.Nullable;

/** Paints pictures on a JavaFX canvas in the colours of the theme. */
public final class CanvasSurface implements Surface {
    private static final Map<String, Color> COLOURS = new HashMap<>();
    private final GraphicsContext g;
    private static final double MOST = 4000;
    private final boolean dark;

    public CanvasSurface(GraphicsContext g, boolean dark) {
        this.g = g;
        this.dark = dark;
    }

    private Color colour(Ink ink) {
        return COLOURS.computeIfAbsent(ink.web(dark), Color::web);
    }

    @Override
    public void line(double x1, double y1, double x2, double y2, Ink ink, double width) {
        g.setStroke(colour(ink));
        g.setLineWidth(width);
        g.strokeLine(x1, y1, x2, y2);
    }

    @Override
    public void polyline(double[] x, double[] y, int n, Ink ink, double width, double... dash) {
        g.setStroke(colour(ink));
        g.setLineWidth(width);
        g.setLineDashes(dash);
        g.strokePolyline(x, y, n);
        g.setLineDashes();
    }

    /**
     * Thousands of strokes as one image: many times faster than one by one where everything is drawn by the processor.
     */
    @Override
    public void columns(double left, double[] top, double[] bottom, Ink ink) {
        double highest = Double.POSITIVE_INFINITY;
        double lowest = Double.NEGATIVE_INFINITY;
        for (int c = 0; c < top.length; c++) {
            if (!Double.isNaN(top[c])) {
                highest = Math.min(highest, top[c]);
                lowest = Math.max(lowest, bottom[c]);
            }
        }
        int from = (int) Math.floor(Math.max(0, highest));
        int h = (int) Math.ceil(Math.min(MOST, lowest)) - from + 1;
        if (!(lowest >= highest) || h < 1) {
            return;
        }
        int w = top.length;
        Color colour = colour(ink);
        int argb = 0xFF000000
                | (int) Math.round(255 * colour.getRed()) << 16
                | (int) Math.round(255 * colour.getGreen()) << 8
                | (int) Math.round(255 * colour.getBlue());
        int[] pixels = new int[w * h];
        for (int c = 0; c < w; c++) {
            if (!Double.isNaN(top[c])) {
                int a = Math.max(0, (int) Math.round(top[c]) - from);
                int b = Math.min(h, Math.max(a + 1, (int) Math.round(bottom[c]) - from));
                for (int y = a; y < b; y++) {
                    pixels[y * w + c] = argb;
                }
            }
        }
        WritableImage image = new WritableImage(w, h);
        image.getPixelWriter().setPixels(0, 0, w, h, PixelFormat.getIntArgbPreInstance(), pixels, 0, w);
        g.drawImage(image, left, from);
    }

    @Override
    public void polygon(double[] x, double[] y, Ink fill) {
        g.setFill(colour(fill));
        g.fillPolygon(x, y, x.length);
    }

    @Override
    public void rectangle(
            double x, double y, double w, double h, @Nullable Ink fill, @Nullable Ink stroke, double corner) {
        if (fill != null) {
            g.setFill(colour(fill));
            g.fillRoundRect(x, y, w, h, 2 * corner, 2 * corner);
        }
        if (stroke != null) {
            g.setStroke(colour(stroke));
            g.setLineWidth(1);
            g.strokeRoundRect(x, y, w, h, 2 * corner, 2 * corner);
        }
    }

    @Override
    public void circle(double x, double y, double r, @Nullable Ink fill, @Nullable Ink stroke, double width) {
        if (fill != null) {
            g.setFill(colour(fill));
            g.fillOval(x - r, y - r, 2 * r, 2 * r);
        }
        if (stroke != null) {
            g.setStroke(colour(stroke));
            g.setLineWidth(width);
            g.strokeOval(x - r, y - r, 2 * r, 2 * r);
        }
    }

    @Override
    public void text(String text, double x, double y, Align align, Lettering l, Ink ink) {
        g.setFill(colour(ink));
        g.setFont(Typefaces.of(l));
        g.setTextAlign(
                switch (align) {
                    case LEFT -> TextAlignment.LEFT;
                    case CENTRE -> TextAlignment.CENTER;
                    case RIGHT -> TextAlignment.RIGHT;
                });
        g.fillText(text, x, y);
    }

    @Override
    public double textWidth(String text, Lettering l) {
        Text t = new Text(text);
        t.setFont(Typefaces.of(l));
        return t.getLayoutBounds().getWidth();
    }

    @Override
    public void clipped(double x, double y, double w, double h, Runnable painting) {
        g.save();
        g.beginPath();
        g.rect(x, y, w, h);
        g.clip();
        painting.run();
        g.restore();
    }
}
