package eagerneedle.core.physics;

import eagerneedle.core.formula.Written;
import eagerneedle.core.quantity.Distribution;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.quantity.Reading;
import eagerneedle.core.reading.Eyesight;
import eagerneedle.core.reading.Face;
import eagerneedle.core.sheet.Sheet;
import java.util.Locale;
import java.util.Map;
import java.util.function.Function;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/**
 * The truth behind what a sheet expects to be read, and what is read of a truth: drawn about it within what the reading
 * says, with the digits of the display that it was planned with.
 */
final class InputTruth {
    private static final Pattern NUMBER = Pattern.compile("[+-]?(?:\\d+\\.?(\\d*)|\\.(\\d+))");
    private static final Pattern UNCERTAINTY =
            Pattern.compile("\\(\\d+\\.?\\d*\\)|\\s*(?:±|limit)\\s*\\d+\\.?\\d*(?:[eE][+-]?\\d+)?");
    private final Function<String, Draws> draws;
    private final boolean exactly;

    /**
     * @param draws those of an input, by its name
     * @param exactly true where whatever is read is the truth itself
     */
    InputTruth(Function<String, Draws> draws, boolean exactly) {
        this.draws = draws;
        this.exactly = exactly;
    }

    /** Drawn about the planned value. */
    Quantity truth(String name, Sheet.Input input) {
        String key = "input/" + name;
        Draws own = draws.apply(name);
        try {
            Reading r = Reading.parse(input.value());
            return Quantity.exact(r.value() + DrawnFormula.of(r, own.stream(key)), r.unit());
        } catch (IllegalArgumentException built) {
            Quantity q = Written.quantity(input.value(), name, name, name);
            return Quantity.exact(q.value() + q.u() * own.normal(key), q.unit());
        }
    }

    /** A truth in the unit in which the input is read. */
    Quantity likeRead(Sheet.Input input, Quantity truth) {
        LabUnit unit = Written.quantity(input.value(), "unit", "unit", "unit").unit();
        return truth.unit().fits(unit) ? truth.to(unit) : truth;
    }

    /**
     * What is read of a truth. A value that is given, such as that of a certificate, stays as written; one that is
     * built from its causes is seen on the face that it is read from.
     *
     * @param as a reading like it, with its unit, its uncertainty and its digits
     * @param random where the error of reading is drawn from
     */
    String reading(Sheet.Input input, String as, Quantity truth, Draws.Stream random) {
        if (exactly) {
            Quantity like = Written.quantity(as, "like", "like", "like");
            Quantity q = truth.to(like.unit());
            return (q.value() + " ± " + like.u() + " " + like.unit().symbol()).strip();
        }
        if (input.isGiven()) {
            return input.value();
        }
        if (!World.isReading(as)) {
            return built(as, truth, random);
        }
        Reading r = Reading.parse(as);
        double seen = truth.unit().convert(truth.value(), r.unit()) + DrawnFormula.of(r, random);
        return r.u() == 0 && seen == r.value()
                ? as
                : written(as, r, seen, truth.unit().convert(truth.value(), r.unit()));
    }

    /** A reading that is built from its causes, as the eye sees it at a truth; as written where no face wrote it. */
    private String built(String as, Quantity truth, Draws.Stream random) {
        for (Face face : Face.values()) {
            Map<String, String> like = face.taken(as).orElse(null);
            if (like != null) {
                return face.written(new Eyesight(random::even, random::normal, this::error).seen(face, like, truth));
            }
        }
        return as;
    }

    /** What an instrument is wrong by in all its readings of this session, -1 to 1 of what it may be. */
    private double error(String instrument) {
        return draws.apply(instrument).stream("instrument/" + instrument).even();
    }

    /** Several readings of one truth, their scatter being what one reading is uncertain by. */
    String readings(Sheet.Input input, String as, Quantity truth, Draws.Stream random) {
        if (exactly) {
            Quantity like = Written.quantity(as, "like", "like", "like");
            return (truth.in(like.unit()) + " ± " + like.u() / Math.sqrt(input.times()) + " "
                            + like.unit().symbol())
                    .strip();
        }
        return IntStream.range(0, input.times())
                .mapToObj(i ->
                        UNCERTAINTY.matcher(reading(input, as, truth, random)).replaceAll(""))
                .collect(Collectors.joining("; "));
    }

    /** Another number in the place of the first one of a text, with as many decimals. */
    private static String written(String text, Reading r, double value, double truth) {
        Matcher m = NUMBER.matcher(text);
        if (!m.find()) {
            return r.again(value).text();
        }
        String fraction = m.group(1) != null ? m.group(1) : m.group(2);
        int decimals = fraction == null ? 0 : fraction.length();
        double first = Double.parseDouble(m.group());
        double ten = first == 0 || r.value() == 0 ? 1 : r.value() / first;
        double step = Math.pow(10, -decimals) * Math.abs(ten);
        double shown = Math.rint(value / step) * step;
        if (r.distribution() == Distribution.RECTANGULAR && Math.abs(shown - truth) > r.u() * Math.sqrt(3)) {
            // A limit is a limit, the rounding of the display included.
            shown -= Math.signum(shown - truth) * step;
        }
        String number = String.format(Locale.ROOT, "%." + decimals + "f", shown / ten);
        return text.substring(0, m.start()) + number + text.substring(m.end());
    }
}
