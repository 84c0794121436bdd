package eagerneedle.core.training;

import eagerneedle.core.formula.Written;
import eagerneedle.core.quantity.DecimalSign;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reading.Eyesight;
import eagerneedle.core.reading.Face;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.random.RandomGenerator;

/**
 * One instrument to be read, drawn at random: what stands on its face, and what is read there with its uncertainty by
 * the same rules by which readings are built at the bench.
 *
 * @param face the instrument
 * @param values what stands in its gaps, see {@link Face#gaps}
 * @param right the reading, from what is seen and how finely it can be judged
 */
public record Drill(Face face, Map<String, String> values, Quantity right) {
    /** The faces on which something stands that has to be read. */
    public static final List<Face> FACES = List.of(
            Face.RULE,
            Face.VERNIER,
            Face.MICROMETER,
            Face.DIAL,
            Face.DIAL_AND_VERNIER,
            Face.ANGLE,
            Face.MENISCUS,
            Face.METER,
            Face.BALANCE);

    /** Uncertainties within which a value is right: what can be judged is a limit of 1.7 of them. */
    private static final double WITHIN = 2;

    private static final double NEAR = 2.5;
    private static final int[] WEIGHTS = {100, 50, 20, 20, 10, 5, 2, 2, 1};

    /**
     * What is to be said of an answer.
     *
     * @param value whether the value is right
     * @param u whether its uncertainty is
     * @param says one sentence each
     */
    public record Judged(boolean value, boolean u, List<String> says) {
        public Judged {
            says = List.copyOf(says);
        }

        /** True for an answer in which nothing is wrong. */
        public boolean isRight() {
            return value && u;
        }
    }

    /** Draws a question on a face. */
    public static Drill of(Face face, RandomGenerator random) {
        Map<String, String> like = new LinkedHashMap<>(face.usual());
        double most = shaped(face, like, random);
        Map<String, String> values = like;
        if (face == Face.BALANCE) {
            like.put("weights", weights(random));
        } else {
            LabUnit unit =
                    LabUnit.parse(unitOf(like.getOrDefault(face.gaps().get(0).name(), "")));
            double truth = most * (0.08 + 0.88 * random.nextDouble());
            values = new Eyesight(() -> 0, () -> 0, n -> 0).seen(face, like, Quantity.exact(truth, unit));
        }
        return new Drill(face, values, Written.quantity(face.written(values), "reading", "reading", "reading"));
    }

    /** Sets divisions as instruments have them; the end of the scale, in the unit of what is read. */
    private static double shaped(Face face, Map<String, String> like, RandomGenerator random) {
        boolean coin = random.nextBoolean();
        switch (face) {
            case RULE -> {
                like.put("mark", "84.2 mm");
                like.put("edges", "1");
                like.put("division", coin ? "1 mm" : "0.5 mm");
                return 300;
            }
            case VERNIER -> {
                like.put("marks", List.of("10", "20", "50").get(random.nextInt(3)));
                return 120;
            }
            case MICROMETER -> {
                return 24;
            }
            case DIAL -> {
                return 9;
            }
            case DIAL_AND_VERNIER -> {
                return 90;
            }
            case ANGLE -> {
                like.put("edges", "1");
                like.put("division", coin ? "1 deg" : "0.5 deg");
                return 90;
            }
            case MENISCUS -> {
                like.put("edges", coin ? "1" : "2");
                return 48;
            }
            case METER -> {
                like.put("range", coin ? "5 V" : "10 V");
                like.put("division", coin ? "0.1 V" : "0.2 V");
                return coin ? 5 : 10;
            }
            default -> {
                return 100;
            }
        }
    }

    private static String weights(RandomGenerator random) {
        List<String> on = new ArrayList<>();
        for (int w : WEIGHTS) {
            if (random.nextInt(5) < 2) {
                on.add(w + " g");
            }
        }
        return on.isEmpty() ? "50 g" : String.join(", ", on);
    }

    private static String unitOf(String reading) {
        return Written.quantity(reading, "unit", "unit", "unit").unit().symbol();
    }

    /** What must be known to read it: divisions, and how finely they can be judged. */
    public String known() {
        List<String> out = new ArrayList<>();
        for (Face.Gap g : face.gaps().subList(1, face.gaps().size())) {
            boolean seen = List.of("mark", "thimble", "hand", "start", "edges", "instrument", "set")
                    .contains(g.name());
            if (!seen) {
                out.add(g.says() + ": " + DecimalSign.inUse().shown(values.getOrDefault(g.name(), "")));
            }
        }
        if (face == Face.MENISCUS) {
            out.add(number("edges") > 1 ? "filled to 0 ml before: two surfaces are read" : "one surface is read");
        }
        return String.join("; ", out) + ".";
    }

    private double number(String gap) {
        return Written.quantity(values.getOrDefault(gap, ""), gap, gap, gap).value();
    }

    /**
     * Judges an answer.
     *
     * @param value in the unit of the reading
     * @param u standard uncertainty in the same unit; NaN when none was given
     */
    public Judged judge(double value, double u) {
        List<String> says = new ArrayList<>();
        double off = value - right.value();
        boolean good = Math.abs(off) <= WITHIN * right.u() * (1 + 1e-9);
        if (good) {
            says.add("The value is right.");
        } else {
            says.add("It reads " + Notation.plain(right.value(), digits()) + " "
                    + right.unit().pretty() + ", not " + Notation.plain(value, digits()) + ": " + why(off, value));
        }
        boolean uGood = u >= right.u() / NEAR && u <= right.u() * NEAR;
        String by = "u = " + Notation.plain(right.u(), 2) + " " + right.unit().pretty();
        if (uGood) {
            says.add("The uncertainty is right: " + by + ".");
        } else if (Double.isNaN(u)) {
            says.add("An uncertainty belongs to it: " + by + ", " + cause() + ".");
        } else {
            says.add(
                    "The uncertainty is too " + (u < right.u() ? "small" : "large") + ": " + by + ", " + cause() + ".");
        }
        return new Judged(good, uGood, says);
    }

    private int digits() {
        return (int) Math.max(3, Math.ceil(Math.log10(Math.abs(right.value()) / Math.max(1e-300, right.u()))) + 2);
    }

    private String cause() {
        return switch (face) {
            case VERNIER -> "half a step of the vernier as a limit, divided by √3";
            case DIAL_AND_VERNIER -> "half a step of the vernier as a limit, divided by √3";
            case METER -> "its class as a share of the range, beside what the eye can judge";
            case BALANCE -> "the tolerances of its weights and what moves the beam";
            default ->
                "half of what the eye can judge as a limit, divided by √3"
                        + (number("edges", 1) > 1 ? ", for each of two edges" : "");
        };
    }

    private double number(String gap, double otherwise) {
        return values.containsKey(gap) ? number(gap) : otherwise;
    }

    /** What such a difference comes of. */
    private String why(double off, double value) {
        double size = Math.abs(off);
        for (Map.Entry<String, Double> s : slips().entrySet()) {
            if (Math.abs(size - s.getValue()) <= WITHIN * right.u()) {
                return s.getKey();
            }
        }
        for (int k = -3; k <= 3; k++) {
            if (k != 0 && Math.abs(value * Math.pow(10, k) - right.value()) <= WITHIN * right.u()) {
                return "the digits are right, the power of ten is not.";
            }
        }
        return size <= 6 * right.u() ? "near, but it can be judged more finely." : "look at it again, mark by mark.";
    }

    /** Steps by which one easily errs, and how they are called. */
    private Map<String, Double> slips() {
        Map<String, Double> out = new LinkedHashMap<>();
        LabUnit unit = right.unit().difference();
        switch (face) {
            case MICROMETER ->
                out.put(
                        "a turn of the thimble is missing: look whether one more mark of the sleeve shows.",
                        in("pitch", unit));
            case VERNIER -> {
                out.put("one division of the main scale too many or too few.", in("division", unit));
                out.put("another mark of the vernier meets better.", in("division", unit) / number("marks"));
                out.put("the vernier was not read.", number("mark") / number("marks") * in("division", unit));
            }
            case DIAL -> {
                out.put("a whole turn too many or too few.", in("turn", unit));
                out.put("ten divisions too many or too few.", 10 * in("turn", unit) / number("divisions"));
            }
            case DIAL_AND_VERNIER -> {
                out.put("a whole turn too many or too few.", in("turn", unit));
                out.put("one division of the dial too many or too few.", in("turn", unit) / number("divisions"));
            }
            case RULE, ANGLE, MENISCUS, METER -> {
                double division = in("division", unit);
                out.put("one division too many or too few.", division);
                out.put("ten divisions too many or too few.", 10 * division);
                out.put("five divisions too many or too few.", 5 * division);
            }
            default -> {}
        }
        return out;
    }

    private double in(String gap, LabUnit unit) {
        return Written.quantity(values.getOrDefault(gap, ""), gap, gap, gap).in(unit);
    }
}
