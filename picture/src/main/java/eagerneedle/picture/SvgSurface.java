package eagerneedle.picture;

import java.util.Locale;
import org.jspecify.annotations.Nullable;

/** Paints an SVG document with text as text. */
public final class SvgSurface implements Surface {
    private final StringBuilder body = new StringBuilder();
    private final double width;
    private final double height;
    private final boolean dark;
    private final String prefix;
    private int clips;

    /** @param prefix makes ids unique where several pictures stand in one page */
    public SvgSurface(double width, double height, boolean dark, String prefix) {
        this.width = width;
        this.height = height;
        this.dark = dark;
        this.prefix = prefix;
    }

    /** The document; {@code title} is read aloud by assistive technology. */
    public String document(String title) {
        return "<svg xmlns=\"http://www.w3.org/2000/svg\" viewBox=\"0 0 " + n(width) + " " + n(height) + "\" width=\""
                + n(width) + "\" height=\"" + n(height) + "\" role=\"img\"><title>" + escape(title) + "</title>" + body
                + "</svg>";
    }

    @Override
    public void line(double x1, double y1, double x2, double y2, Ink ink, double w) {
        body.append("<line x1=\"")
                .append(n(x1))
                .append("\" y1=\"")
                .append(n(y1))
                .append("\" x2=\"")
                .append(n(x2))
                .append("\" y2=\"")
                .append(n(y2))
                .append('"')
                .append(stroke(ink, w))
                .append("/>");
    }

    @Override
    public void polyline(double[] x, double[] y, int count, Ink ink, double w, double... dash) {
        body.append("<polyline fill=\"none\" stroke-linejoin=\"round\" points=\"")
                .append(points(x, y, count))
                .append('"')
                .append(stroke(ink, w));
        if (dash.length > 0) {
            body.append(" stroke-dasharray=\"");
            for (double d : dash) {
                body.append(n(d)).append(' ');
            }
            body.append('"');
        }
        body.append("/>");
    }

    @Override
    public void polygon(double[] x, double[] y, Ink fill) {
        body.append("<polygon points=\"")
                .append(points(x, y, x.length))
                .append("\" fill=\"")
                .append(fill.web(dark))
                .append("\"/>");
    }

    @Override
    public void rectangle(
            double x, double y, double w, double h, @Nullable Ink fill, @Nullable Ink stroke, double corner) {
        body.append("<rect x=\"")
                .append(n(x))
                .append("\" y=\"")
                .append(n(y))
                .append("\" width=\"")
                .append(n(w))
                .append("\" height=\"")
                .append(n(h))
                .append("\" rx=\"")
                .append(n(corner))
                .append("\" fill=\"")
                .append(fill == null ? "none" : fill.web(dark))
                .append('"')
                .append(stroke == null ? "" : stroke(stroke, 1))
                .append("/>");
    }

    @Override
    public void circle(double x, double y, double r, @Nullable Ink fill, @Nullable Ink stroke, double w) {
        body.append("<circle cx=\"")
                .append(n(x))
                .append("\" cy=\"")
                .append(n(y))
                .append("\" r=\"")
                .append(n(r))
                .append("\" fill=\"")
                .append(fill == null ? "none" : fill.web(dark))
                .append('"')
                .append(stroke == null ? "" : stroke(stroke, w))
                .append("/>");
    }

    @Override
    public void text(String text, double x, double y, Align align, Lettering l, Ink ink) {
        String anchor = switch (align) {
            case LEFT -> "start";
            case CENTRE -> "middle";
            case RIGHT -> "end";
        };
        body.append("<text x=\"")
                .append(n(x))
                .append("\" y=\"")
                .append(n(y))
                .append("\" text-anchor=\"")
                .append(anchor)
                .append("\" font-size=\"")
                .append(n(l.size()))
                .append("\" font-family=\"")
                .append(
                        l.face() == Lettering.Face.FIGURES
                                ? "'JetBrains Mono', monospace"
                                : "Inter, 'Segoe UI', sans-serif")
                .append('"')
                .append(l.bold() ? " font-weight=\"600\"" : "")
                .append(l.face() == Lettering.Face.ITALIC ? " font-style=\"italic\"" : "")
                .append(" xml:space=\"preserve\" fill=\"")
                .append(ink.web(dark))
                .append("\">")
                .append(escape(text))
                .append("</text>");
    }

    @Override
    public double textWidth(String text, Lettering lettering) {
        return Fonts.width(text, lettering);
    }

    @Override
    public void clipped(double x, double y, double w, double h, Runnable painting) {
        String id = prefix + "c" + clips++;
        body.append("<clipPath id=\"")
                .append(id)
                .append("\"><rect x=\"")
                .append(n(x))
                .append("\" y=\"")
                .append(n(y))
                .append("\" width=\"")
                .append(n(w))
                .append("\" height=\"")
                .append(n(h))
                .append("\"/></clipPath><g clip-path=\"url(#")
                .append(id)
                .append(")\">");
        painting.run();
        body.append("</g>");
    }

    private String stroke(Ink ink, double w) {
        return " stroke=\"" + ink.web(dark) + "\" stroke-width=\"" + n(w) + "\"";
    }

    private static String points(double[] x, double[] y, int count) {
        StringBuilder b = new StringBuilder();
        for (int i = 0; i < count; i++) {
            b.append(n(x[i])).append(',').append(n(y[i])).append(' ');
        }
        return b.toString().strip();
    }

    private static String n(double v) {
        String s = String.format(Locale.ROOT, "%.2f", v);
        return s.replaceAll("\\.?0+$", "");
    }

    private static String escape(String s) {
        return s.replaceAll("[\\x00-\\x08\\x0B\\x0C\\x0E-\\x1F]", "\uFFFD")
                .replace("&", "&amp;")
                .replace("<", "&lt;")
                .replace(">", "&gt;");
    }
}
