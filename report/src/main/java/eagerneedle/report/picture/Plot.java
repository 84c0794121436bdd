package eagerneedle.report.picture;

import eagerneedle.store.export.SpreadsheetCell;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.List;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;

/**
 * A plot as data: two named axes and layers in painting order. The painter adds nothing of its own but ticks.
 *
 * @param title  what it shows, for export and assistive technology
 * @param x      horizontal axis
 * @param y      vertical axis
 * @param layers in painting order
 */
public record Plot(String title, Axis x, Axis y, List<Layer> layers) {
    /** An axis with its name and unit; an empty unit for a pure number. */
    public record Axis(String name, String unit) {
        public String label() {
            return unit.isEmpty() ? name : name + ", " + unit;
        }
    }

    /** Something drawn between the axes, in the axes' units. */
    public sealed interface Layer {
    }

    /**
     * Points, joined by nothing.
     *
     * @param u      standard uncertainties drawn as bars of one each way; null for none
     * @param weak   true for points that do not take part: hollow and pale
     * @param series picks ink and marker
     */
    public record Points(String name, double[] x, double[] y, double[] u, boolean weak, int series) implements Layer {
    }

    /** Many samples as the least and greatest value of each of n spans that begin at {@code x}. */
    public record Envelope(String name, double[] x, double[] low, double[] high, int series) implements Layer {
    }

    /** A smooth line through many points. */
    public record Curve(String name, double[] x, double[] y, Ink ink, double width, boolean dashed) implements Layer {
    }

    /** The space between two lines: a coverage band. */
    public record Band(String name, double[] x, double[] low, double[] high) implements Layer {
    }

    /** Vertical lines from 0, for residuals. */
    public record Stems(double[] x, double[] y, int series) implements Layer {
    }

    /** A window with two edges that stand out. */
    public record Span(double from, double to, boolean handles) implements Layer {
    }

    /** A horizontal line. */
    public record Level(double y, Ink ink) implements Layer {
    }

    /** Words at a place. */
    public record Words(String text, double x, double y, Ink ink, boolean figures) implements Layer {
    }

    /** A corner of the rectangle between the axes. */
    public enum Corner {
        TOP_LEFT, TOP_RIGHT, BOTTOM_LEFT, BOTTOM_RIGHT;

        boolean isRight() {
            return this == TOP_RIGHT || this == BOTTOM_RIGHT;
        }

        boolean isBottom() {
            return this == BOTTOM_LEFT || this == BOTTOM_RIGHT;
        }
    }

    /** Lines of words in a corner, the first heavier; the legend on the data. */
    public record Legend(List<String> lines, Corner corner) implements Layer {
    }

    /** With a legend in the corner that holds the fewest points. */
    public Plot withLegend(List<String> lines) {
        View v = whole();
        Corner best = Corner.TOP_LEFT;
        double fewest = Double.POSITIVE_INFINITY;
        for (Corner c : Corner.values()) {
            double held = layers.stream().mapToDouble(l -> l instanceof Points p ? held(p.x, p.y, v, c) : l instanceof Curve k ? held(k.x, k.y, v, c) / 4 : 0).sum();
            if (held < fewest) {
                fewest = held;
                best = c;
            }
        }
        return with(new Legend(lines, best));
    }

    /** How many points lie in the corner's third of the height and two thirds of the width. */
    private static double held(double[] x, double[] y, View v, Corner c) {
        int n = 0;
        for (int i = 0; i < x.length; i++) {
            double across = (x[i] - v.x0()) / (v.x1() - v.x0());
            double up = (y[i] - v.y0()) / (v.y1() - v.y0());
            n += (c.isRight() ? across > 0.33 : across < 0.67) && (c.isBottom() ? up < 0.4 : up > 0.6) ? 1 : 0;
        }
        return n;
    }

    public Plot {
        layers = List.copyOf(layers);
    }

    /** What is seen: ranges of both axes. */
    public record View(double x0, double x1, double y0, double y1) {
        public View zoomed(double atX, double factor) {
            return new View(atX - (atX - x0) * factor, atX + (x1 - atX) * factor, y0, y1);
        }

        public View panned(double dx) {
            return new View(x0 + dx, x1 + dx, y0, y1);
        }
    }

    /** A view that shows everything with a margin. */
    public View whole() {
        double[] r = {Double.POSITIVE_INFINITY, Double.NEGATIVE_INFINITY, Double.POSITIVE_INFINITY, Double.NEGATIVE_INFINITY};
        for (Layer l : layers) {
            if (l instanceof Points p) {
                extend(r, p.x, p.y, p.u);
            } else if (l instanceof Envelope e) {
                extend(r, e.x, e.low, null);
                extend(r, e.x, e.high, null);
            } else if (l instanceof Band b) {
                extend(r, b.x, b.low, null);
                extend(r, b.x, b.high, null);
            } else if (l instanceof Curve c) {
                extend(r, c.x, c.y, null);
            } else if (l instanceof Stems s) {
                extend(r, s.x, s.y, null);
            } else if (l instanceof Level v) {
                r[2] = Math.min(r[2], v.y);
                r[3] = Math.max(r[3], v.y);
            }
        }
        if (!(r[1] >= r[0])) {
            r = new double[] {0, 1, Double.isFinite(r[2]) ? r[2] : 0, Double.isFinite(r[3]) ? r[3] : 1};
        }
        double mx = r[1] > r[0] ? 0.02 * (r[1] - r[0]) : 0.5;
        double my = r[3] > r[2] ? 0.07 * (r[3] - r[2]) : Math.max(0.5 * Math.abs(r[2]), 1e-6);
        return new View(r[0] - mx, r[1] + mx, r[2] - my, r[3] + my);
    }

    private static void extend(double[] r, double[] x, double[] y, double[] u) {
        for (int i = 0; i < x.length; i++) {
            if (Double.isFinite(x[i]) && Double.isFinite(y[i])) {
                double d = u == null ? 0 : u[i];
                r[0] = Math.min(r[0], x[i]);
                r[1] = Math.max(r[1], x[i]);
                r[2] = Math.min(r[2], y[i] - d);
                r[3] = Math.max(r[3], y[i] + d);
            }
        }
    }

    /** With one more layer on top. */
    public Plot with(Layer layer) {
        List<Layer> more = new ArrayList<>(layers);
        more.add(layer);
        return new Plot(title, x, y, more);
    }

    /** The same with windows shaded only, not to be moved. */
    public Plot withoutHandles() {
        return new Plot(title, x, y, layers.stream().map(l -> l instanceof Span s ? new Span(s.from, s.to, false) : l).toList());
    }

    /** The data of all layers of points and stems as CSV with a header. */
    public String csv() {
        return printed(CSVFormat.DEFAULT);
    }

    /** The same for the clipboard, from which a spreadsheet takes cells apart at tabs. */
    public String tabbed() {
        return printed(CSVFormat.TDF);
    }

    private String printed(CSVFormat format) {
        StringBuilder out = new StringBuilder();
        try (CSVPrinter csv = new CSVPrinter(out, format.builder().setRecordSeparator("\n").get())) {
            csv.printRecord("series", SpreadsheetCell.words(x.label().replace(", ", " / ")), SpreadsheetCell.words(y.label().replace(", ", " / ")), "u");
            for (Layer l : layers) {
                if (l instanceof Points p) {
                    for (int i = 0; i < p.x.length; i++) {
                        csv.printRecord(SpreadsheetCell.words(p.name), p.x[i], p.y[i], p.u == null ? "" : p.u[i]);
                    }
                } else if (l instanceof Stems s) {
                    for (int i = 0; i < s.x.length; i++) {
                        csv.printRecord("residual", s.x[i], s.y[i], "");
                    }
                }
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return out.toString();
    }
}
