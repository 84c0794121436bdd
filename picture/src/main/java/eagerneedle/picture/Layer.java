package eagerneedle.picture;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Something drawn between the axes of a plot, in the axes' units.
 *
 * <p>The kinds are closed: whoever draws, measures or lists layers answers {@link Cases}, one method a kind, so that a
 * new kind does not compile until every one of them knows it. (A switch over the sealed kinds would say the same; the
 * language has it only from version 21 on, and the program runs on 17.)
 */
public sealed interface Layer {
    /** Asks the case of this kind. */
    <R> R as(Cases<R> cases);

    /** One answer for each kind of layer. */
    interface Cases<R> {
        R points(Points layer);

        R envelope(Envelope layer);

        R curve(Curve layer);

        R band(Band layer);

        R stems(Stems layer);

        R span(Span layer);

        R level(Level layer);

        R mark(Mark layer);

        R moment(Moment layer);

        R words(Words layer);

        R legend(Legend layer);
    }

    /**
     * Points, joined by nothing.
     *
     * @param ux standard uncertainties along the abscissa, drawn as bars of one each way; null for none
     * @param u the same upright
     * @param rows what each point is called, as many as there are points; empty where they have no names
     * @param weak true for points that do not take part: hollow and pale
     * @param series picks ink and marker
     */
    record Points(
            String name,
            double[] x,
            double[] y,
            double @Nullable [] ux,
            double @Nullable [] u,
            List<String> rows,
            boolean weak,
            int series)
            implements Layer {
        public Points(
                String name,
                double[] x,
                double[] y,
                double @Nullable [] ux,
                double @Nullable [] u,
                List<String> rows,
                boolean weak,
                int series) {
            this.name = name;
            this.x = x;
            this.y = y;
            this.ux = ux;
            this.u = u;
            this.rows = List.copyOf(rows);
            this.weak = weak;
            this.series = series;
        }

        /** Points that are known along the abscissa and have no names. */
        public Points(String name, double[] x, double[] y, double @Nullable [] u, boolean weak, int series) {
            this(name, x, y, null, u, List.of(), weak, series);
        }

        @Override
        public <R> R as(Cases<R> cases) {
            return cases.points(this);
        }
    }

    /** A place with its name; a line across where one of the coordinates is not a number. */
    record Mark(String name, double x, double y) implements Layer {
        @Override
        public <R> R as(Cases<R> cases) {
            return cases.mark(this);
        }
    }

    /** Many samples as the least and greatest value of each of n spans that begin at {@code x}. */
    record Envelope(String name, double[] x, double[] low, double[] high, int series) implements Layer {
        @Override
        public <R> R as(Cases<R> cases) {
            return cases.envelope(this);
        }
    }

    /** A smooth line through many points. */
    record Curve(String name, double[] x, double[] y, Ink ink, double width, boolean dashed) implements Layer {
        @Override
        public <R> R as(Cases<R> cases) {
            return cases.curve(this);
        }
    }

    /** The space between two lines: a coverage band. */
    record Band(String name, double[] x, double[] low, double[] high) implements Layer {
        @Override
        public <R> R as(Cases<R> cases) {
            return cases.band(this);
        }
    }

    /** Vertical lines from 0, for residuals. */
    record Stems(double[] x, double[] y, int series) implements Layer {
        @Override
        public <R> R as(Cases<R> cases) {
            return cases.stems(this);
        }
    }

    /** A window with two edges that stand out. */
    record Span(double from, double to, boolean handles) implements Layer {
        @Override
        public <R> R as(Cases<R> cases) {
            return cases.span(this);
        }
    }

    /** A moment that windows follow, with its standard uncertainty; it can be moved. */
    record Moment(String name, String label, double at, double u) implements Layer {
        @Override
        public <R> R as(Cases<R> cases) {
            return cases.moment(this);
        }
    }

    /** A horizontal line. */
    record Level(double y, Ink ink) implements Layer {
        @Override
        public <R> R as(Cases<R> cases) {
            return cases.level(this);
        }
    }

    /** Words at a place. */
    record Words(String text, double x, double y, Ink ink, boolean figures) implements Layer {
        @Override
        public <R> R as(Cases<R> cases) {
            return cases.words(this);
        }
    }

    /** A line of a legend, with the sign of the series that it speaks of; -1 for none. */
    record Entry(String text, int series) {
        static Entry of(String text) {
            return new Entry(text, -1);
        }
    }

    /** Lines of words in a corner; the legend on the data. */
    record Legend(List<Entry> entries, Corner corner) implements Layer {
        public Legend {
            entries = List.copyOf(entries);
        }

        List<String> lines() {
            return entries.stream().map(Entry::text).toList();
        }

        @Override
        public <R> R as(Cases<R> cases) {
            return cases.legend(this);
        }
    }

    /** A corner of the rectangle between the axes. */
    enum Corner {
        TOP_LEFT,
        TOP_RIGHT,
        BOTTOM_LEFT,
        BOTTOM_RIGHT;

        boolean isRight() {
            return this == TOP_RIGHT || this == BOTTOM_RIGHT;
        }

        boolean isBottom() {
            return this == BOTTOM_LEFT || this == BOTTOM_RIGHT;
        }
    }
}
