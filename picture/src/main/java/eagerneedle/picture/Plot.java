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
 * @param equal true where a length means the same along both axes
 */
public record Plot(String title, Axis x, Axis y, List<Layer> layers, boolean equal) {
    public Plot(String title, Axis x, Axis y, List<Layer> layers) {
        this(title, x, y, layers, false);
    }

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
        return withEntries(lines.stream().map(Layer.Entry::of).toList());
    }

    /** The same with signs of the series that its lines speak of. */
    Plot withEntries(List<Layer.Entry> entries) {
        View v = whole();
        Room room = Room.of(entries);
        Layer.Corner best = Layer.Corner.TOP_LEFT;
        double fewest = Double.POSITIVE_INFINITY;
        for (Layer.Corner c : Layer.Corner.values()) {
            double held = layers.stream()
                    .mapToDouble(l -> l instanceof Layer.Points p
                            ? room.held(p.x(), p.y(), v, c)
                            : l instanceof Layer.Curve k ? room.held(k.x(), k.y(), v, c) / 4.0 : 0)
                    .sum();
            if (held < fewest) {
                fewest = held;
                best = c;
            }
        }
        return with(new Layer.Legend(entries, best));
    }

    /** What part of a small frame a legend takes, across and up. */
    private record Room(double across, double up) {
        private static final double WIDE = 330;
        private static final double HIGH = 190;
        private static final double LETTER = 6.4;
        private static final double LINE = 17;

        static Room of(List<Layer.Entry> entries) {
            int longest =
                    entries.stream().mapToInt(e -> e.text().length()).max().orElse(0);
            return new Room(
                    Math.min(0.9, (longest * LETTER + 30) / WIDE), Math.min(0.8, (entries.size() * LINE + 10) / HIGH));
        }

        int held(double[] x, double[] y, View v, Layer.Corner c) {
            int n = 0;
            for (int i = 0; i < x.length; i++) {
                double px = (x[i] - v.x0()) / (v.x1() - v.x0());
                double py = (y[i] - v.y0()) / (v.y1() - v.y0());
                n += (c.isRight() ? px > 1 - across : px < across) && (c.isBottom() ? py < up : py > 1 - up) ? 1 : 0;
            }
            return n;
        }
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

        /** Widened one way or the other, so that a unit takes as many pixels along both axes. */
        View equal(double width, double height) {
            double unit = Math.max((x1 - x0) / width, (y1 - y0) / height);
            double x = (unit * width - (x1 - x0)) / 2;
            double y = (unit * height - (y1 - y0)) / 2;
            return new View(x0 - x, x1 + x, y0 - y, y1 + y);
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
        return new Plot(title, x, y, more, equal);
    }

    /** The same with windows shaded only, not to be moved. */
    public Plot withoutHandles() {
        return new Plot(
                title,
                x,
                y,
                layers.stream()
                        .filter(l -> !(l instanceof Layer.Moment))
                        .map(l -> l instanceof Layer.Span s ? new Layer.Span(s.from(), s.to(), false) : l)
                        .toList(),
                equal);
    }
}
