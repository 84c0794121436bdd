package eagerneedle.core.function;

import static eagerneedle.core.formula.Parameter.number;
import static eagerneedle.core.formula.Parameter.quantity;
import static eagerneedle.core.formula.Parameter.rows;
import static eagerneedle.core.formula.Parameter.words;
import static eagerneedle.core.function.Functions.scalar;

import eagerneedle.core.formula.Function;
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
    private ReadingFunctions() {}

    static void define() {
        Functions.define(
                Function.of(
                                "reading",
                                quantity("mark"),
                                quantity("division").usually("1 mm"),
                                number("judged").usually("0.5"),
                                number("edges").usually("2"),
                                quantity("start").usually("0"))
                        .described(
                                "a mark on a scale; its division, the fraction of it that can be judged, how "
                                        + "many edges were lined up, the start mark",
                                "mark minus start, an influence an edge, unit of the mark",
                                "u(reading(84.2 cm, division: 1 mm, judged: 0.5, edges: 2))",
                                "0.02041241452 cm"),
                a -> {
                    Quantity end = a.quantity(0);
                    Quantity division = a.quantity("division");
                    Quantity start = a.quantityLike("start", end);
                    return scalar(new ScaleReading(end, start, division, a.number("judged"), a.whole("edges", 1, 100))
                            .quantity(a.id(), a.scope().label()));
                });
        Functions.define(
                Function.of(
                                "accuracy",
                                quantity("x"),
                                words("instrument").saying("instrument"),
                                quantity("of_reading").in("%").usually("0 %"),
                                quantity("of_range").in("%").usually("0 %"),
                                quantity("range").usually("0"),
                                number("digits").usually("0"),
                                quantity("digit").usually("0"),
                                quantity("fixed").usually("0"))
                        .described(
                                "a reading and its instrument's specification as largest errors; range, digit "
                                        + "and fixed in a unit that fits",
                                "x with the instrument's influence, shared by all its readings, same unit",
                                "u(accuracy(12.0 V, instrument: \"TH-DM-2\", of_reading: 0.5 %, digits: 2, "
                                        + "digit: 0.1 V))",
                                "0.1205542755 V"),
                a -> {
                    Quantity x = a.quantity(0);
                    return scalar(new Accuracy(
                                    a.words("instrument"),
                                    a.quantity("of_reading").in(LabUnit.ONE),
                                    a.quantity("of_range").in(LabUnit.ONE),
                                    a.quantityLike("range", x),
                                    a.number("digits"),
                                    a.quantityLike("digit", x),
                                    a.quantityLike("fixed", x))
                            .applied(x, a.id()));
                });
        Functions.define(
                Function.of("repeats", rows("column"), quantity("resolution").usually("0"))
                        .repeating(0, 1)
                        .described(
                                "readings of one thing, a column or several; the display's smallest step",
                                "mean with s/√n and rounding, same unit",
                                "repeats(9.79 s, 9.83 s, 9.81 s, resolution: 0.01 s)",
                                "9.810(12) s"),
                a -> scalar(new Repeats(
                                a.rowsOrAll(),
                                a.quantityLike("resolution", a.rowsOrAll().get(0)))
                        .quantity(a.id(), a.scope().label())));
        Functions.define(
                Function.of("wander", quantity("low"), quantity("high"))
                        .described(
                                "lowest and highest value a display showed",
                                "the middle, half the range as largest error, unit of the lowest",
                                "wander(4.8 V, 5.2 V)",
                                "5.00(12) V"),
                a -> scalar(new WanderingDisplay(a.quantity(0), a.quantity(1))
                        .quantity(a.id(), a.scope().label())));
        Functions.define(
                Function.of(
                                "vernier",
                                quantity("main"),
                                number("mark"),
                                quantity("division").usually("1 mm"),
                                number("marks").usually("20"))
                        .described(
                                "main scale, coinciding vernier mark (a pure number), division of the main "
                                        + "scale, parts the vernier splits it into",
                                "the reading, unit of the main scale",
                                "vernier(23 mm, 7)",
                                "23.350(14) mm"),
                a -> scalar(new Vernier(a.quantity(0), a.number(1), a.quantity("division"), a.whole("marks", 2, 10_000))
                        .quantity(a.id(), a.scope().label())));
        Functions.define(
                Function.of(
                                "stopwatch",
                                quantity("time").in("s"),
                                quantity("reaction").in("s").usually("0.1 s"),
                                quantity("resolution").in("s").usually("0.01 s"))
                        .described(
                                "a time taken by hand; standard deviation of one reaction; the display's step",
                                "the time, both reactions as influences, same unit",
                                "stopwatch(12.42 s)",
                                "12.42(14) s"),
                a -> scalar(new Stopwatch(a.quantity(0), a.quantity("reaction"), a.quantity("resolution"))
                        .quantity(a.id(), a.scope().label())));
        Functions.define(
                Function.of(
                                "photograph",
                                number("object"),
                                number("scale"),
                                quantity("length"),
                                number("pick").usually("1"),
                                quantity("parallax").in("%").usually("0 %"))
                        .described(
                                "distances of the object and of a scale on a picture in picture points, the "
                                        + "scale's true length; errors of picking an end and of parallax",
                                "the object's length, unit of the scale",
                                "photograph(412, 1240, 300 mm, parallax: 0.5 %)",
                                "99.68(36) mm"),
                a -> scalar(new Photograph(
                                a.number(0),
                                a.number(1),
                                a.quantity(2),
                                a.number("pick"),
                                a.quantity("parallax").in(LabUnit.ONE))
                        .quantity(a.id(), a.scope().label())));
    }
}
