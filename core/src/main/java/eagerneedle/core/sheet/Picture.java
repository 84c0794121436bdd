package eagerneedle.core.sheet;

import com.fasterxml.jackson.annotation.JsonProperty;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * What a sheet wants drawn: one pair of columns with its fit, several {@code lines} of them, or {@code layers} of any
 * kind; axes linear or logarithmic, and {@code equal} where a length means the same along both.
 *
 * @param lines pairs of columns, whichever way they were written
 * @param layers what else is drawn, in the order of the sheet
 */
public record Picture(
        String title,
        @Nullable String x,
        @JsonProperty("x_label") @Nullable String xLabel,
        @JsonProperty("x_unit") @Nullable String xUnit,
        @Nullable String y,
        @JsonProperty("y_label") @Nullable String yLabel,
        @JsonProperty("y_unit") @Nullable String yUnit,
        @Nullable String fit,
        List<Line> lines,
        @JsonProperty("x_axis") String xAxis,
        @JsonProperty("y_axis") String yAxis,
        boolean equal,
        List<Layer> layers) {
    private static final String LINEAR = "linear";

    public Picture {
        xAxis = xAxis == null ? LINEAR : xAxis;
        yAxis = yAxis == null ? LINEAR : yAxis;
        layers = Sheet.orEmpty(layers);
        if (lines != null) {
            lines = List.copyOf(lines);
        } else if (x != null || y != null || layers.isEmpty()) {
            lines = List.of(new Line(null, Sheet.orEmpty(x), Sheet.orEmpty(y), fit, null, false));
        } else {
            lines = layers.stream().map(Layer::line).filter(Objects::nonNull).toList();
        }
    }

    /** What is not a pair of columns. */
    public List<Layer> others() {
        return layers.stream().filter(l -> l.points() == null).toList();
    }

    /**
     * One pair of columns, or of traces of one run, with the fit through it.
     *
     * @param label tells it from the others
     * @param by a set, a capture or {@code level}: rows are told apart by what they are of it; null for all alike
     * @param joined true where points are joined in the order of the rows
     */
    public record Line(
            @Nullable String label,
            String x,
            String y,
            @Nullable String fit,
            @Nullable String by,
            boolean joined) {
        public Line {
            x = Sheet.orEmpty(x);
            y = Sheet.orEmpty(y);
        }
    }

    /**
     * One thing that is drawn: exactly one of points, a curve, a circle, a mark, or a fit alone.
     *
     * @param fit a fit; beside points the one through them
     * @param swap true for a fit whose abscissa stands upright
     * @param curve a formula of {@code x}, the abscissa with its unit
     * @param from where a curve begins; where the points do if not said
     * @param to where it ends
     */
    public record Layer(
            @Nullable String label,
            @Nullable Pair points,
            boolean joined,
            @Nullable String fit,
            boolean swap,
            @Nullable String curve,
            @Nullable String from,
            @Nullable String to,
            @Nullable Round circle,
            @Nullable Place mark) {
        private @Nullable Line line() {
            return points == null ? null : new Line(label, points.x(), points.y(), fit, points.by(), joined);
        }

        /** How many things it is; a fit beside points is none of its own. */
        public int kinds() {
            int alone = points == null && fit != null ? 1 : 0;
            return alone
                    + (points == null ? 0 : 1)
                    + (curve == null ? 0 : 1)
                    + (circle == null ? 0 : 1)
                    + (mark == null ? 0 : 1);
        }
    }

    /** Two columns, or two traces of one run. */
    public record Pair(String x, String y, @Nullable String by) {}

    /** A circle by formulas: its centre and its radius. */
    public record Round(String x, String y, String radius) {}

    /** A place by formulas; with one of them alone it is a line across the picture. */
    public record Place(@Nullable String x, @Nullable String y) {}
}
