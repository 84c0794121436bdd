package eagerneedle.picture;

import java.util.ArrayList;
import java.util.List;

/**
 * A plot as data: two named axes and layers in painting order. The painter adds nothing of its own but ticks.
 *
 * @param title what it shows, for export and assistive technology
 * @param x horizontal axis
 * @param y vertical axis
 * @param layers in painting order
 */
public record Plot(String title, Axis x, Axis y, List<Layer> layers) {
    /** An axis with its name and unit; an empty unit for a pure number. */
    public record Axis(String name, String unit, boolean logarithmic) {
        public Axis(String name, String unit) {
            this(name, unit, false);
        }

        /** The same for logarithms of the values; its ticks carry the values. */
        Axis logarithmically() {
            return new Axis(name, unit, true);
        }

        public String label() {
            return unit.isEmpty() ? name : name + ", " + unit;
        }
    }

    /** With a legend in the corner that holds the fewest points. */
    public Plot withLegend(List<String> lines) {
        View v = whole();
        Layer.Corner best = Layer.Corner.TOP_LEFT;
        double fewest = Double.POSITIVE_INFINITY;
        for (Layer.Corner c : Layer.Corner.values()) {
            double held = layers.stream()
                    .mapToDouble(l -> l instanceof Layer.Points p
                            ? held(p.x(), p.y(), v, c)
                            : l instanceof Layer.Curve k ? held(k.x(), k.y(), v, c) / 4 : 0)
                    .sum();
            if (held < fewest) {
                fewest = held;
                best = c;
            }
        }
        return with(new Layer.Legend(lines, best));
    }

    /** How many points lie in the corner's third of the height and two thirds of the width. */
    private static double held(double[] x, double[] y, View v, Layer.Corner c) {
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
        Extent all = new Extent();
        layers.forEach(l -> l.as(all));
        return all.view();
    }

    /** With one more layer on top. */
    public Plot with(Layer layer) {
        List<Layer> more = new ArrayList<>(layers);
        more.add(layer);
        return new Plot(title, x, y, more);
    }

    /** The same with windows shaded only, not to be moved. */
    public Plot withoutHandles() {
        return new Plot(
                title,
                x,
                y,
                layers.stream()
                        .map(l -> l instanceof Layer.Span s ? new Layer.Span(s.from(), s.to(), false) : l)
                        .toList());
    }
}
