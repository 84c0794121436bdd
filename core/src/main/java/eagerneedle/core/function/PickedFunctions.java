package eagerneedle.core.function;

import static eagerneedle.core.formula.Parameter.number;
import static eagerneedle.core.formula.Parameter.quantity;
import static eagerneedle.core.formula.Parameter.words;
import static eagerneedle.core.function.Functions.scalar;

import eagerneedle.core.formula.Arguments;
import eagerneedle.core.formula.Function;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.reading.Dial;
import eagerneedle.core.reading.OnPicture;
import eagerneedle.core.reading.OnPicture.Point;
import eagerneedle.core.reading.Weighing;

/** Readings of screws, dials and balances, and what is picked on pictures. */
final class PickedFunctions {
    private PickedFunctions() {}

    static void define() {
        Functions.define(
                Function.of(
                                "micrometer",
                                quantity("sleeve"),
                                number("thimble"),
                                quantity("pitch").usually("0.5 mm"),
                                number("divisions").usually("50"),
                                number("judged").usually("0.2"))
                        .described(
                                "the last mark of the sleeve, the thimble in its divisions; pitch, divisions of a "
                                        + "turn, the fraction of one that can be judged",
                                "the reading, unit of the sleeve",
                                "micrometer(7.5 mm, 23.4)",
                                "7.73400(58) mm"),
                a -> scalar(new Dial(
                                a.quantity(0),
                                a.number(1),
                                a.quantity("pitch"),
                                a.whole("divisions", 2, 10_000),
                                a.number("judged"),
                                0,
                                0)
                        .quantity(a.id(), a.scope().label())));
        Functions.define(
                Function.of(
                                "dial",
                                quantity("main"),
                                number("hand"),
                                quantity("turn").usually("1 mm"),
                                number("divisions").usually("100"),
                                number("judged").usually("0.5"),
                                number("mark").usually("0"),
                                number("marks").usually("0"))
                        .described(
                                "main scale, the hand in its divisions; what one turn is, its divisions, the "
                                        + "fraction of one that can be judged, coinciding mark and number of marks of a "
                                        + "vernier beside it",
                                "the reading, unit of the main scale",
                                "dial(12 mm, 34.5)",
                                "12.3450(14) mm"),
                a -> scalar(new Dial(
                                a.quantity(0),
                                a.number(1),
                                a.quantity("turn"),
                                a.whole("divisions", 2, 10_000),
                                a.number("judged"),
                                a.number("mark"),
                                a.whole("marks", 0, 10_000))
                        .quantity(a.id(), a.scope().label())));
        Functions.define(
                Function.of(
                                "balance",
                                quantity("weight"),
                                quantity("tolerance").usually("0"),
                                quantity("sensitivity").usually("0"),
                                words("set").saying("weights"))
                        .repeating(0, 1)
                        .described(
                                "weights that keep a beam level; largest error of one, smallest mass that moves the "
                                        + "beam, name of the set",
                                "their sum; each weight one influence in all weighings with its set, unit of the first",
                                "balance(100 g, 20 g, tolerance: 1 mg, sensitivity: 2 mg)",
                                "120.0000(14) g"),
                a -> scalar(new Weighing(
                                a.all(),
                                a.quantityLike("tolerance", a.all().get(0)),
                                a.quantityLike("sensitivity", a.all().get(0)),
                                a.words("set"))
                        .quantity(a.id(), a.scope().label())));
        Functions.define(
                Function.of(
                                "picked_length",
                                number("x1"),
                                number("y1"),
                                number("x2"),
                                number("y2"),
                                number("scale_x1"),
                                number("scale_y1"),
                                number("scale_x2"),
                                number("scale_y2"),
                                quantity("length"),
                                number("pick").usually("1"),
                                quantity("parallax").in("%").usually("0 %"),
                                number("picture").usually("0"))
                        .described(
                                "both ends of a length and of a scale, picked on a picture, in picture points; the "
                                        + "scale's true length, largest error of a coordinate and of parallax, number "
                                        + "of the picture",
                                "the length; lengths with one scale share its error, unit of the scale",
                                "picked_length(100, 50, 512, 50, 100, 400, 1340, 400, 300 mm)",
                                "99.68(21) mm"),
                a -> scalar(onPicture(a)
                        .length(
                                point(a, 0),
                                point(a, 2),
                                point(a, 4),
                                point(a, 6),
                                a.quantity(8),
                                a.id(),
                                a.scope().label())));
        Functions.define(
                Function.of(
                                "picked_angle",
                                number("x"),
                                number("y"),
                                number("x1"),
                                number("y1"),
                                number("x2"),
                                number("y2"),
                                number("pick").usually("1"),
                                number("picture").usually("0"))
                        .described(
                                "a point and two others, picked on a picture, in picture points; largest error of a "
                                        + "coordinate, number of the picture",
                                "the angle at the first between the other two, 0 to 180°",
                                "picked_angle(100, 100, 500, 100, 100, 400)",
                                "90.00(19) °"),
                a -> scalar(
                        new OnPicture(Integer.toString(a.whole("picture", 0, Integer.MAX_VALUE)), a.number("pick"), 0)
                                .angle(
                                        point(a, 0),
                                        point(a, 2),
                                        point(a, 4),
                                        a.id(),
                                        a.scope().label())));
    }

    private static OnPicture onPicture(Arguments a) {
        return new OnPicture(
                Integer.toString(a.whole("picture", 0, Integer.MAX_VALUE)),
                a.number("pick"),
                a.quantity("parallax").in(LabUnit.ONE));
    }

    private static Point point(Arguments a, int at) {
        return new Point(a.number(at), a.number(at + 1));
    }
}
