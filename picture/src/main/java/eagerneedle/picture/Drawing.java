package eagerneedle.picture;

import java.awt.geom.FlatteningPathIterator;
import java.awt.geom.Path2D;
import java.awt.geom.PathIterator;
import java.io.IOException;
import java.io.StringReader;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import javax.xml.XMLConstants;
import javax.xml.parsers.DocumentBuilderFactory;
import javax.xml.parsers.ParserConfigurationException;
import org.w3c.dom.Element;
import org.w3c.dom.NodeList;
import org.xml.sax.InputSource;
import org.xml.sax.SAXException;

/**
 * A line drawing of an apparatus: strokes in two inks and call-outs that are tied to what a sheet names.
 *
 * <p>It is kept as SVG (W3C SVG 1.1) beside its sheet, so that any drawing program can open it, and read with the few
 * elements that a plain drawing needs: {@code path} with M, L, H, V, Q, C and Z, and {@code circle}. A class says how
 * an element is drawn: {@code line}, {@code body} (filled with paper, hiding what is behind), {@code solid},
 * {@code quiet} (thin, in the second ink) or {@code call-out}. A call-out goes from its place to where its words stand,
 * and says in {@code data-names} what it is: a channel or an input of the sheet, or {@code caution-2}. Read into
 * polylines once, it is painted on any surface, in the colours of the theme and in any size, with words that never
 * shrink.
 */
public record Drawing(double width, double height, List<Stroke> strokes, List<CallOut> callOuts) {
    private static final double FLAT = 0.2;

    /** How a stroke is drawn. */
    public enum Manner {
        LINE,
        BODY,
        SOLID,
        QUIET
    }

    /** One line, closed or not; a circle is one with radius. */
    public record Stroke(double[] x, double[] y, Manner manner) {}

    /**
     * A call-out.
     *
     * @param name channel or input of the sheet, or {@code caution-} with its number
     * @param x its place
     * @param toX where its words stand
     */
    public record CallOut(String name, double x, double y, double toX, double toY) {}

    public Drawing {
        strokes = List.copyOf(strokes);
        callOuts = List.copyOf(callOuts);
    }

    /**
     * Reads a drawing.
     *
     * @throws IllegalArgumentException with one sentence when it is not one
     */
    public static Drawing read(String svg) {
        Element root = root(svg);
        double[] box = numbers(root.getAttribute("viewBox"));
        if (box.length != 4 || !(box[2] > 0) || !(box[3] > 0)) {
            throw new IllegalArgumentException("A drawing needs a viewBox of four numbers, such as 0 0 480 250.");
        }
        List<Stroke> strokes = new ArrayList<>();
        List<CallOut> callOuts = new ArrayList<>();
        NodeList all = root.getElementsByTagName("*");
        for (int i = 0; i < all.getLength(); i++) {
            Element e = (Element) all.item(i);
            switch (e.getTagName()) {
                case "path" -> {
                    Path2D path = PathData.read(e.getAttribute("d"));
                    if (e.getAttribute("class").equals("call-out")) {
                        callOuts.add(callOut(e.getAttribute("data-names"), path));
                    } else {
                        add(path, manner(e), strokes);
                    }
                }
                case "circle" -> strokes.add(circle(e));
                case "style", "title", "desc", "g" -> {}
                default ->
                    throw new IllegalArgumentException(
                            "A drawing has paths and circles; " + e.getTagName() + " is neither.");
            }
        }
        return new Drawing(box[2], box[3], strokes, callOuts);
    }

    private static Element root(String svg) {
        try {
            DocumentBuilderFactory f = DocumentBuilderFactory.newInstance();
            f.setFeature(XMLConstants.FEATURE_SECURE_PROCESSING, true);
            f.setFeature("http://apache.org/xml/features/disallow-doctype-decl", true);
            var builder = f.newDocumentBuilder();
            builder.setErrorHandler(null);
            return builder.parse(new InputSource(new StringReader(svg))).getDocumentElement();
        } catch (SAXException | IOException | ParserConfigurationException e) {
            throw new IllegalArgumentException("This is no drawing: it is not well-formed SVG.", e);
        }
    }

    private static Manner manner(Element e) {
        String name = e.getAttribute("class");
        return Arrays.stream(Manner.values())
                .filter(m -> m.name().equalsIgnoreCase(name))
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException(
                        "The class of a stroke is line, body, solid or quiet; '" + name + "' is none of them."));
    }

    private static Stroke circle(Element e) {
        double cx = number(e, "cx");
        double cy = number(e, "cy");
        double r = number(e, "r");
        int n = Math.max(12, (int) (4 * Math.sqrt(r) * 4));
        double[] x = new double[n + 1];
        double[] y = new double[n + 1];
        for (int i = 0; i <= n; i++) {
            x[i] = cx + r * Math.cos(2 * Math.PI * i / n);
            y[i] = cy + r * Math.sin(2 * Math.PI * i / n);
        }
        return new Stroke(x, y, manner(e));
    }

    private static double number(Element e, String name) {
        double[] all = numbers(e.getAttribute(name));
        if (all.length != 1) {
            throw new IllegalArgumentException("A circle of a drawing needs " + name + ", a number.");
        }
        return all[0];
    }

    private static double[] numbers(String text) {
        try {
            return Arrays.stream(text.strip().split("[\\s,]+"))
                    .mapToDouble(Double::parseDouble)
                    .toArray();
        } catch (NumberFormatException e) {
            return new double[0];
        }
    }

    private static void add(Path2D path, Manner manner, List<Stroke> into) {
        List<double[]> points = new ArrayList<>();
        double[] c = new double[6];
        for (PathIterator i = new FlatteningPathIterator(path.getPathIterator(null), FLAT); !i.isDone(); i.next()) {
            int kind = i.currentSegment(c);
            if (kind == PathIterator.SEG_MOVETO) {
                end(points, manner, into);
                points = new ArrayList<>();
            }
            points.add(kind == PathIterator.SEG_CLOSE ? points.get(0) : new double[] {c[0], c[1]});
        }
        end(points, manner, into);
    }

    private static void end(List<double[]> points, Manner manner, List<Stroke> into) {
        if (points.size() > 1) {
            into.add(new Stroke(
                    points.stream().mapToDouble(p -> p[0]).toArray(),
                    points.stream().mapToDouble(p -> p[1]).toArray(),
                    manner));
        }
    }

    private static CallOut callOut(String name, Path2D path) {
        List<Stroke> one = new ArrayList<>();
        add(path, Manner.QUIET, one);
        if (name.isEmpty() || one.size() != 1 || one.get(0).x().length != 2) {
            throw new IllegalArgumentException("A call-out is one straight line with data-names, the name of a channel,"
                    + " an input or a caution.");
        }
        Stroke s = one.get(0);
        return new CallOut(name, s.x()[0], s.y()[0], s.x()[1], s.y()[1]);
    }
}
