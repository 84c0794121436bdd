package eagerneedle.core.formula;

import static eagerneedle.core.formula.Functions.scalar;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reading.Accuracy;
import eagerneedle.core.reading.Photograph;
import eagerneedle.core.reading.Repeats;
import eagerneedle.core.reading.ScaleReading;
import eagerneedle.core.reading.Stopwatch;
import eagerneedle.core.reading.Vernier;
import eagerneedle.core.reading.WanderingDisplay;

/** Readings taken by eye, built from their causes. */
final class ReadingFunctions {
    private ReadingFunctions() {
    }

    static void define() {
        Functions.define("reading(mark, division: 1 mm, judged: 0.5, edges: 2, start: 0 mm)",
                "a mark on a scale; its division, the fraction of it that can be judged, how many edges were lined up, the start mark", "mark minus start, an influence an edge, unit of the mark",
                "u(reading(84.2 cm, division: 1 mm, judged: 0.5, edges: 2))", "0.02041241452 cm", a -> {
                    Quantity end = a.quantity(0);
                    Quantity division = a.quantity("division", "1 mm");
                    Quantity start = a.has("start") ? a.quantity("start", "0 mm") : Quantity.exact(0, end.unit());
                    return scalar(new ScaleReading(end, start, division, a.number("judged", 0.5), a.whole("edges", 2, 1, 100)).quantity(a.id(), a.scope().label()));
                });
        Functions.define("accuracy(x, instrument: \"instrument\", of_reading: 0 %, of_range: 0 %, range: 0, digits: 0, digit: 0, fixed: 0)",
                "a reading and its instrument's specification as largest errors; range, digit and fixed in a unit that fits", "x with the instrument's influence, shared by all its readings, same unit",
                "u(accuracy(12.0 V, instrument: \"TH-DM-2\", of_reading: 0.5 %, digits: 2, digit: 0.1 V))", "0.1205542755 V", a -> {
                    Quantity x = a.quantity(0);
                    return scalar(new Accuracy(a.words("instrument", "instrument"), a.quantity("of_reading", "0 %").in(LabUnit.ONE), a.quantity("of_range", "0 %").in(LabUnit.ONE), fitting(a, "range", x),
                            a.number("digits", 0), fitting(a, "digit", x), fitting(a, "fixed", x)).applied(x, a.id()));
                });
        Functions.define("repeats(column, resolution: 0)", "readings of one thing, a column or several; the display's smallest step", "mean with s/√n and rounding, same unit",
                "repeats(9.79 s, 9.83 s, 9.81 s, resolution: 0.01 s)", "9.810(12) s",
                a -> scalar(new Repeats(a.rowsOrAll(), a.has("resolution") ? a.quantity("resolution", "0") : Quantity.exact(0, a.rowsOrAll().get(0).unit())).quantity(a.id(), a.scope().label())));
        Functions.define("wander(low, high)", "lowest and highest value a display showed", "the middle, half the range as largest error, unit of the lowest", "wander(4.8 V, 5.2 V)", "5.00(12) V",
                a -> scalar(new WanderingDisplay(a.quantity(0), a.quantity(1)).quantity(a.id(), a.scope().label())));
        Functions.define("vernier(main, mark, division: 1 mm, marks: 20)", "main scale, coinciding vernier mark (a pure number), division of the main scale, parts the vernier splits it into", "the reading, unit of the main scale",
                "vernier(23 mm, 7)", "23.350(14) mm", a -> scalar(new Vernier(a.quantity(0), a.number(1), a.quantity("division", "1 mm"), a.whole("marks", 20, 2, 10_000)).quantity(a.id(), a.scope().label())));
        Functions.define("stopwatch(time, reaction: 0.1 s, resolution: 0.01 s)", "a time taken by hand; standard deviation of one reaction; the display's step", "the time, both reactions as influences, same unit",
                "stopwatch(12.42 s)", "12.42(14) s", a -> scalar(new Stopwatch(a.quantity(0), a.quantity("reaction", "0.1 s"), a.quantity("resolution", "0.01 s")).quantity(a.id(), a.scope().label())));
        Functions.define("photograph(object, scale, length, pick: 1, parallax: 0 %)", "distances of the object and of a scale on a picture in picture points, the scale's true length; errors of picking an end and of parallax",
                "the object's length, unit of the scale", "photograph(412, 1240, 300 mm, parallax: 0.5 %)", "99.68(36) mm",
                a -> scalar(new Photograph(a.number(0), a.number(1), a.quantity(2), a.number("pick", 1), a.quantity("parallax", "0 %").in(LabUnit.ONE)).quantity(a.id(), a.scope().label())));
    }

    private static Quantity fitting(Arguments a, String name, Quantity x) {
        return a.has(name) ? a.quantity(name, "0") : Quantity.exact(0, x.unit());
    }
}
