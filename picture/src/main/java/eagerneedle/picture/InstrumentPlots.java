package eagerneedle.picture;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.quantity.Reading;
import eagerneedle.core.stockroom.Instrument;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Stream;

/** What an instrument can do, and how it has fared, as plots. */
public final class InstrumentPlots {
    private static final int STEPS = 120;
    private static final double YEAR = 365.2425 * 86_400;

    private InstrumentPlots() {}

    /**
     * Standard uncertainty of one reading against the reading, one line for each instrument, in the unit of the first.
     *
     * @param instruments those that have a range and say how accurate they are or how finely they are read
     * @return empty where the first cannot be drawn
     */
    public static Optional<Plot> accuracy(List<Instrument> instruments) {
        List<Layer> layers = new ArrayList<>();
        List<Layer.Entry> legend = new ArrayList<>();
        if (instruments.isEmpty() || !isDrawn(instruments.get(0))) {
            return Optional.empty();
        }
        LabUnit unit = instruments.get(0).unit();
        LabUnit difference = unit.difference();
        for (Instrument i : instruments) {
            if (isDrawn(i) && i.unit().fits(unit)) {
                double[] ends = ends(i, unit);
                double[] x = new double[STEPS + 1];
                double[] y = new double[STEPS + 1];
                for (int k = 0; k <= STEPS; k++) {
                    x[k] = ends[0] + (ends[1] - ends[0]) * k / STEPS;
                    y[k] = i.reading(Quantity.exact(x[k], unit), "reading", "")
                            .to(unit)
                            .u();
                }
                int series = legend.size();
                layers.add(new Layer.Curve(i.id(), x, y, Ink.trace(series), 1.8, series > 0));
                legend.add(new Layer.Entry(i.name() + " " + i.id(), series));
            }
        }
        layers.add(new Layer.Level(0, Ink.RULE));
        Plot plot = new Plot(
                "Standard uncertainty of one reading",
                new Plot.Axis("reading", unit.pretty()),
                new Plot.Axis("u of one reading", difference.pretty()),
                layers);
        return Optional.of(legend.size() < 2 ? plot : plot.withEntries(legend));
    }

    private static boolean isDrawn(Instrument i) {
        return i.measures() != null && i.range().size() == 2 && (i.accuracy() != null || i.resolution() != null);
    }

    /** Lowest and highest reading in a unit. */
    static double[] ends(Instrument i, LabUnit unit) {
        double[] out = new double[2];
        for (int k = 0; k < 2; k++) {
            Reading r = Reading.parse(i.range().get(k));
            out[k] = r.unit().convert(r.value(), unit);
        }
        return out;
    }

    /**
     * The values found at its calibrations against time, with when the last one ceases to hold.
     *
     * @return empty where no calibration says a value
     */
    public static Optional<Plot> drift(Instrument i, Instant now) {
        List<Instrument.Event> found =
                i.history().stream().filter(e -> e.value() != null).toList();
        List<Reading> values = i.history().stream()
                .flatMap(e -> Stream.ofNullable(e.value()))
                .map(Reading::parse)
                .toList();
        if (found.isEmpty() || i.measures() == null) {
            return Optional.empty();
        }
        LabUnit unit = values.get(0).unit();
        int n = found.size();
        double[] x = new double[n];
        double[] y = new double[n];
        double[] u = new double[n];
        for (int k = 0; k < n; k++) {
            Reading r = values.get(k);
            x[k] = year(found.get(k).at());
            y[k] = r.unit().convert(r.value(), unit);
            u[k] = r.u() * r.unit().scaleTo(unit.difference());
        }
        List<Layer> layers = new ArrayList<>();
        layers.add(new Layer.Curve("between", x, y, Ink.QUIET, 1, true));
        layers.add(new Layer.Points("found", x, y, u, false, 0));
        layers.add(new Layer.Mark("today", year(now), Double.NaN));
        i.calibration()
                .ifPresent(c -> layers.add(new Layer.Mark("due", year(Objects.requireNonNull(c.due())), Double.NaN)));
        return Optional.of(new Plot(
                "Value found at calibrations",
                new Plot.Axis("year", ""),
                new Plot.Axis("value found", unit.pretty()),
                layers));
    }

    /** A moment as a year with its fraction. */
    static double year(Instant at) {
        return 1970 + at.getEpochSecond() / YEAR;
    }
}
