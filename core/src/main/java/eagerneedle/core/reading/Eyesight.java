package eagerneedle.core.reading;

import eagerneedle.core.quantity.Digits;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.quantity.Reading;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.DoubleSupplier;
import java.util.function.ToDoubleFunction;

/**
 * What a careful eye reads of a truth: each face the other way round. Edges are off by what cannot be judged, hands and
 * marks stand at the nearest that can be told apart, a reaction scatters. What comes of reading it is wrong by as much
 * as the reading says.
 */
public final class Eyesight {
    private final DoubleSupplier even;
    private final DoubleSupplier normal;
    private final ToDoubleFunction<String> instrument;

    /**
     * An eye whose errors are drawn.
     *
     * @param even draws evenly from -1 to 1
     * @param normal draws from a normal distribution of variance 1
     * @param instrument the error of an instrument by its name, -1 to 1 of what it is allowed; the same each time
     */
    public Eyesight(DoubleSupplier even, DoubleSupplier normal, ToDoubleFunction<String> instrument) {
        this.even = even;
        this.normal = normal;
        this.instrument = instrument;
    }

    /**
     * What would be seen of a truth.
     *
     * @param like what stands in the gaps of the face: its divisions stay, what is seen changes
     * @throws IllegalArgumentException when a value cannot be read or the truth does not fit
     */
    public Map<String, String> seen(Face face, Map<String, String> like, Quantity truth) {
        Map<String, String> out = new LinkedHashMap<>(like);
        switch (face) {
            case RULE, ANGLE, MENISCUS -> {
                Reading mark = reading(like, "mark");
                double step = in(like, "division", mark.unit()) * number(like, "judged");
                double start = in(like, "start", mark.unit());
                double v = truth.in(mark.unit()) + start;
                for (int edge = 1; edge < number(like, "edges"); edge++) {
                    v += step / 2 * even.getAsDouble();
                }
                out.put("mark", text(step * Math.rint(v / step), step, mark.unit()));
            }
            case METER -> {
                Reading mark = reading(like, "mark");
                double step = in(like, "division", mark.unit()) * number(like, "judged");
                double off = in(like, "range", mark.unit())
                        * reading(like, "share").unit().convert(number(like, "share"), LabUnit.ONE);
                double v = truth.in(mark.unit()) + off * instrument.applyAsDouble(like.get("instrument"));
                out.put("mark", text(step * Math.rint(v / step), step, mark.unit()));
            }
            case VERNIER -> {
                Reading main = reading(like, "main");
                double division = in(like, "division", main.unit());
                double marks = number(like, "marks");
                double steps = Math.rint(truth.in(main.unit()) / division * marks);
                out.put("main", text(Math.floor(steps / marks) * division, division, main.unit()));
                out.put("mark", Digits.plain(steps - Math.floor(steps / marks) * marks, 6));
            }
            case MICROMETER -> turned(out, "sleeve", "thimble", "pitch", truth);
            case DIAL, DIAL_AND_VERNIER -> turned(out, "main", "hand", "turn", truth);
            case BALANCE -> {
                LabUnit unit = Reading.parse(like.getOrDefault("weights", "").split(",")[0])
                        .unit();
                double step = in(like, "sensitivity", unit);
                double v = truth.in(unit) + step * even.getAsDouble();
                out.put("weights", text(step > 0 ? step * Math.rint(v / step) : v, step, unit));
            }
            case STOPWATCH -> {
                Reading time = reading(like, "time");
                double step = in(like, "resolution", time.unit());
                double v = truth.in(time.unit())
                        + in(like, "reaction", time.unit()) * (normal.getAsDouble() + normal.getAsDouble());
                out.put("time", text(step > 0 ? step * Math.rint(v / step) : v, step, time.unit()));
            }
            case DISPLAY -> {
                Reading low = reading(like, "low");
                double half = (in(like, "high", low.unit()) - low.value()) / 2;
                double middle = truth.in(low.unit()) + half * even.getAsDouble();
                out.put("low", text(middle - half, half / 50, low.unit()));
                out.put("high", text(middle + half, half / 50, low.unit()));
            }
            case SEVERAL -> out.put("readings", Digits.bracket(truth));
        }
        return out;
    }

    /** Main scale and hand at the nearest that can be told apart. */
    private static void turned(Map<String, String> out, String main, String hand, String turn, Quantity truth) {
        LabUnit unit = reading(out, main).unit();
        double whole = in(out, turn, unit);
        double divisions = number(out, "divisions");
        double marks = out.containsKey("marks") ? Math.max(1, number(out, "marks")) : 1;
        double told = marks > 1 ? 1 / marks : number(out, "judged");
        double steps = Math.rint(truth.in(unit) / whole * divisions / told);
        double perTurn = Math.rint(divisions / told);
        double turns = Math.floor(steps / perTurn);
        double rest = (steps - turns * perTurn) * told;
        out.put(main, text(turns * whole, whole, unit));
        if (marks > 1) {
            double shown = Math.floor(rest + 1e-9);
            out.put(hand, Digits.plain(shown, 6));
            out.put("mark", Digits.plain(Math.rint((rest - shown) * marks), 6));
        } else {
            out.put(hand, Digits.plain(rest, 6));
        }
    }

    /** @throws IllegalArgumentException when nothing stands in the gap, or nothing that can be read */
    private static Reading reading(Map<String, String> of, String gap) {
        String text = of.get(gap);
        if (text == null) {
            throw new IllegalArgumentException("Nothing is said of " + gap + ".");
        }
        return Reading.parse(text);
    }

    private static double number(Map<String, String> of, String gap) {
        return reading(of, gap).value();
    }

    private static double in(Map<String, String> of, String gap, LabUnit unit) {
        Reading r = reading(of, gap);
        LabUnit to = unit.isAffine() && !r.unit().isAffine() ? unit.difference() : unit;
        return r.value() == 0 ? 0 : r.unit().convert(r.value(), to);
    }

    /** With as many decimals as a step needs. */
    private static String text(double v, double step, LabUnit unit) {
        int figures = step > 0 ? (int) Math.ceil(Math.log10(Math.max(1, Math.abs(v) / step)) + 3) : 12;
        return (Digits.plain(v == 0 ? 0 : v, Math.min(15, figures)) + " " + unit.symbol()).strip();
    }
}
