package eagerneedle.core.marking;

import eagerneedle.core.quantity.LabUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;

/** Slips that make another number of a right one, whatever it came from. */
enum Factors {
    SIGN("sign", "Its sign", "The other sign: look which way is counted positive.") {
        @Override
        double of(double v) {
            return -v;
        }
    },
    RECIPROCAL("reciprocal", "Its reciprocal", "One over it was asked for, or the other way round.") {
        @Override
        double of(double v) {
            return 1 / v;
        }
    },
    TWICE("factor-2", "Twice as large", "A factor of two: diameter and radius, there and back, or both sides.") {
        @Override
        double of(double v) {
            return 2 * v;
        }
    },
    HALF("factor-half", "Half as large", "A factor of two: diameter and radius, there and back, or both sides.") {
        @Override
        double of(double v) {
            return v / 2;
        }
    },
    PI("factor-pi", "Pi times as large", "A factor of pi: round and across.") {
        @Override
        double of(double v) {
            return Math.PI * v;
        }
    },
    PER_PI("factor-1/pi", "Too small by a factor of pi", "A factor of pi: round and across.") {
        @Override
        double of(double v) {
            return v / Math.PI;
        }
    },
    TURN("factor-2pi", "2 pi times as large", "Turns and radians, or frequency and angular frequency.") {
        @Override
        double of(double v) {
            return 2 * Math.PI * v;
        }
    },
    PER_TURN(
            "factor-1/2pi", "Too small by a factor of 2 pi", "Turns and radians, or frequency and angular frequency.") {
        @Override
        double of(double v) {
            return v / (2 * Math.PI);
        }
    };

    /** Units in which a time is written, not one that only has it in its definition. */
    private static final Pattern TIMED = Pattern.compile("(?<!\\p{L})(m?s|min|h|rpm|Hz)(?!\\p{L})");

    private final String id;
    private final String label;
    private final String says;

    Factors(String id, String label, String says) {
        this.id = id;
        this.label = label;
        this.says = says;
    }

    abstract double of(double v);

    /** All that can be made of a value, minutes for seconds where its unit has time in it. */
    static List<Explanation> of(double value, LabUnit unit) {
        List<Explanation> out = new ArrayList<>();
        for (Factors f : values()) {
            out.add(new Explanation(Change.Kind.SLIP, f.id, f.label, f.says, f.of(value), 0));
        }
        double time = TIMED.matcher(unit.symbol()).find() ? unit.exponentOfTime() : 0;
        if (time != 0) {
            double by = Math.pow(60, time);
            out.add(new Explanation(
                    Change.Kind.SLIP, "minutes", "Minutes for seconds", "Times go in as seconds.", value / by, 0));
            out.add(new Explanation(
                    Change.Kind.SLIP, "seconds", "Seconds for minutes", "The unit asks for it.", value * by, 0));
        }
        return out;
    }
}
