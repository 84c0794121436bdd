package eagerneedle.core.chain;

import eagerneedle.core.formula.NearName;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.reference.PlatinumThermometer;
import eagerneedle.core.reference.Thermocouple;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.TreeSet;
import org.hipparchus.analysis.UnivariateFunction;
import org.hipparchus.analysis.polynomials.PolynomialFunction;
import org.hipparchus.analysis.solvers.BracketingNthOrderBrentSolver;
import org.jspecify.annotations.Nullable;

/**
 * The laws that a stage of a chain may follow, by the name a sheet gives.
 *
 * <p>Every sensor the program knows is one of these with its own constants, so that a new sensor needs an entry in a
 * sheet or in the stockroom and no code. Sources: ITS-90 reference functions; IEC 60751; Steinhart and Hart (1968); the
 * Wheatstone bridge written out without linearisation.
 */
final class Laws {
    /**
     * One constant of a law.
     *
     * @param unit its natural unit, in which a bare number is taken; empty for a pure number
     * @param choices the words it can be; null for a number
     */
    private record Constant(String unit, @Nullable List<String> choices) {
        static Constant number(String unit) {
            return new Constant(unit, null);
        }

        static Constant word(String @Nullable ... choices) {
            return new Constant("", List.of(choices));
        }
    }

    /**
     * Every law with every constant it knows: nothing else is taken, so that a slip of the pen never becomes a default.
     */
    private static final Map<String, Map<String, Constant>> LAWS = new TreeMap<>(Map.of(
            "linear", Map.of(),
            "thermocouple",
                    Map.of(
                            "pair",
                            Constant.word("B", "E", "J", "K", "N", "R", "S", "T"),
                            "reference",
                            Constant.number("degC")),
            "platinum", Map.of("at_zero", Constant.number("ohm")),
            "steinhart-hart", Map.of("a", Constant.number(""), "b", Constant.number(""), "c", Constant.number("")),
            "beta",
                    Map.of(
                            "resistance",
                            Constant.number("ohm"),
                            "at",
                            Constant.number("degC"),
                            "beta",
                            Constant.number("K")),
            "bridge",
                    Map.of(
                            "gauge_factor",
                            Constant.number(""),
                            "excitation",
                            Constant.number("V"),
                            "poisson",
                            Constant.number(""),
                            "arms",
                            Constant.word("quarter", "half", "half-poisson", "full", "full-poisson")),
            "divider",
                    Map.of(
                            "supply",
                            Constant.number("V"),
                            "known",
                            Constant.number("ohm"),
                            "balance",
                            Constant.number(""),
                            "sensor",
                            Constant.word("lower", "upper")),
            "power", Map.of("coefficient", Constant.number(""), "exponent", Constant.number("")),
            "absorbance", Map.of("full", Constant.number("")),
            "polynomial",
                    Map.of(
                            "c0",
                            Constant.number(""),
                            "c1",
                            Constant.number(""),
                            "c2",
                            Constant.number(""),
                            "c3",
                            Constant.number(""),
                            "c4",
                            Constant.number(""),
                            "from",
                            Constant.number(""),
                            "to",
                            Constant.number(""))));

    private Laws() {}

    /** Constants of a law: numbers in natural units, and words. */
    record Constants(String law, Map<String, Double> numbers, Map<String, String> words) {
        double number(String name, double otherwise) {
            return numbers.getOrDefault(name, otherwise);
        }

        /** @throws IllegalArgumentException when it is not given */
        double number(String name) {
            Double v = numbers.get(name);
            if (v == null) {
                throw new IllegalArgumentException("the law " + law + " needs '" + name + "' in its 'of'.");
            }
            return v;
        }

        String word(String name, String otherwise) {
            return words.getOrDefault(name, otherwise);
        }
    }

    /** The natural unit of a constant, so that it may be written in any unit that fits; empty for a pure number. */
    static String unitOf(@Nullable String law, String constant) {
        Constant c = law == null ? null : LAWS.getOrDefault(law, Map.of()).get(constant);
        return c == null ? "" : c.unit();
    }

    /** True for a constant that is a word, such as the type of a thermocouple. */
    static boolean isWord(@Nullable String law, String constant) {
        Constant c = law == null ? null : LAWS.getOrDefault(law, Map.of()).get(constant);
        return c != null && c.choices() != null;
    }

    /**
     * The constants of a link, each known to its law and what it should be.
     *
     * @throws IllegalArgumentException with one sentence for a law or a constant that is not known, a word where a
     *     number belongs, a number where a word does, and a unit that does not fit
     */
    static Constants read(String law, Map<String, String> of) {
        Map<String, Constant> known = LAWS.get(law);
        if (known == null) {
            throw new IllegalArgumentException("there is no law " + law + NearName.hint(law, LAWS.keySet()));
        }
        Map<String, Double> numbers = new LinkedHashMap<>();
        Map<String, String> words = new LinkedHashMap<>();
        of.forEach((name, text) -> {
            Constant c = known.get(name);
            if (c == null) {
                String near = NearName.hint(name, known.keySet());
                throw new IllegalArgumentException("the law " + law + " has no constant " + name
                        + (near.equals(".") && !known.isEmpty()
                                ? "; it knows " + String.join(", ", new TreeSet<>(known.keySet())) + "."
                                : near));
            }
            if (c.choices() != null) {
                if (!c.choices().contains(text)) {
                    throw new IllegalArgumentException("'" + name + "' of a " + law + " is "
                            + String.join(", ", c.choices()) + ", not " + text + ".");
                }
                words.put(name, text);
                return;
            }
            if (!ChainReading.isNumber(text)) {
                throw new IllegalArgumentException("'" + name + "' of the law " + law + " is a number"
                        + (c.unit().isEmpty()
                                ? ""
                                : " in " + LabUnit.parse(c.unit()).pretty() + " or the like") + ", not " + text + ".");
            }
            numbers.put(name, ChainReading.of(text, c.unit()).value());
        });
        return new Constants(law, numbers, words);
    }

    /** @throws IllegalArgumentException with one sentence when the law or one of its constants is not known */
    static Law named(Constants c) {
        return switch (c.law()) {
            case "thermocouple" -> thermocouple(c);
            case "platinum" -> platinum(c.number("at_zero", 100.0));
            case "steinhart-hart" -> steinhartHart(c.number("a"), c.number("b"), c.number("c"));
            case "beta" -> beta(c.number("resistance"), c.number("at", 25.0) + 273.15, c.number("beta"));
            case "bridge" -> bridge(c);
            case "divider" -> divider(c);
            case "power" -> power(c.number("coefficient", 1.0), c.number("exponent"));
            case "absorbance" -> absorbance(c.number("full", 1.0));
            case "polynomial" -> polynomial(c);
            default -> throw new IllegalStateException("The law " + c.law() + " is declared and not made.");
        };
    }

    /** Type B gives some voltages at two temperatures below about 43 °C, so that its law begins above. */
    private static Law thermocouple(Constants c) {
        Thermocouple t = Thermocouple.ofType(c.word("pair", "K"));
        double reference = t.voltage(c.number("reference", 0.0));
        return Law.curved(
                "degC",
                "mV",
                x -> t.voltage(x) - reference,
                y -> t.temperature(y + reference),
                Double.isNaN(t.temperature(t.voltage(t.from()))) ? 45 : t.from(),
                t.to());
    }

    private static Law platinum(double atZero) {
        return Law.curved(
                "degC",
                "ohm",
                x -> atZero * PlatinumThermometer.ratio(x),
                y -> PlatinumThermometer.temperature(y / atZero),
                -200,
                850);
    }

    private static Law steinhartHart(double a, double b, double c) {
        return Law.curved(
                "K",
                "ohm",
                t -> {
                    double y = (a - 1 / t) / c;
                    double x = Math.sqrt(Math.pow(b / (3 * c), 3) + y * y / 4);
                    return Math.exp(Math.cbrt(x - y / 2) - Math.cbrt(x + y / 2));
                },
                r -> {
                    double ln = Math.log(r);
                    return 1 / (a + b * ln + c * ln * ln * ln);
                },
                173.15,
                573.15);
    }

    private static Law beta(double resistance, double at, double beta) {
        return Law.curved(
                "K",
                "ohm",
                t -> resistance * Math.exp(beta * (1 / t - 1 / at)),
                r -> 1 / (1 / at + Math.log(r / resistance) / beta),
                173.15,
                573.15);
    }

    /**
     * Strain to voltage: output / excitation = G ε s / (4 + 2 G ε d), twice that for a full bridge, where s and d are
     * sum and difference of what the two arms of a side see: the quarter bridge bends, opposed arms are straight.
     */
    private static Law bridge(Constants c) {
        double g = c.number("gauge_factor", 2.0);
        double excitation = c.number("excitation");
        double nu = c.number("poisson", 0.3);
        double[] arms = switch (c.word("arms", "quarter")) {
            case "quarter" -> new double[] {1, 1, 1};
            case "half" -> new double[] {2, 0, 1};
            case "half-poisson" -> new double[] {1 + nu, 1 - nu, 1};
            case "full" -> new double[] {2, 0, 2};
            case "full-poisson" -> new double[] {1 + nu, 1 - nu, 2};
            default ->
                throw new IllegalArgumentException(
                        "'arms' of a bridge is quarter, half, half-poisson, full or full-poisson, not "
                                + c.word("arms", "") + ".");
        };
        double s = arms[0];
        double d = arms[1];
        double sides = arms[2] * excitation;
        return Law.curved(
                "",
                "V",
                e -> sides * g * e * s / (4 + 2 * g * e * d),
                v -> 4 * (v / sides) / (g * (s - 2 * d * v / sides)),
                -0.05,
                0.05);
    }

    /**
     * Resistance to voltage, sensor towards earth: supply (R / (R + known) - balance); towards the supply: supply
     * (known / (R + known) - balance).
     */
    private static Law divider(Constants c) {
        double supply = c.number("supply");
        double known = c.number("known");
        double balance = c.number("balance", 0.0);
        boolean upper = c.word("sensor", "lower").equals("upper");
        return Law.curved(
                "ohm",
                "V",
                r -> supply * ((upper ? known : r) / (r + known) - balance),
                v -> {
                    double share = v / supply + balance;
                    return share <= 0 || share >= 1
                            ? Double.NaN
                            : upper ? known * (1 - share) / share : known * share / (1 - share);
                },
                0,
                Double.POSITIVE_INFINITY);
    }

    private static Law power(double coefficient, double exponent) {
        if (coefficient == 0 || exponent == 0) {
            throw new IllegalArgumentException("a power law needs a coefficient and an exponent other than 0.");
        }
        return Law.curved(
                null,
                null,
                x -> coefficient * Math.pow(x, exponent),
                y -> Math.pow(y / coefficient, 1 / exponent),
                exponent < 0 ? 1e-12 : 0,
                Double.POSITIVE_INFINITY);
    }

    private static Law absorbance(double full) {
        return Law.curved(
                "", null, a -> full * Math.pow(10, -a), s -> s > 0 ? -Math.log10(s / full) : Double.NaN, -1, 5);
    }

    private static Law polynomial(Constants c) {
        double[] k = {
            c.number("c0", 0.0), c.number("c1", 0.0), c.number("c2", 0.0), c.number("c3", 0.0), c.number("c4", 0.0)
        };
        double low = c.number("from");
        double high = c.number("to");
        PolynomialFunction p = new PolynomialFunction(k);
        UnivariateFunction slope = p.polynomialDerivative();
        for (int i = 0; i <= 200; i++) {
            if (slope.value(low + (high - low) * i / 200) * slope.value((low + high) / 2) <= 0) {
                throw new IllegalArgumentException("the polynomial turns round between " + low + " and " + high
                        + ", so that an output would mean two inputs.");
            }
        }
        double a = Math.min(p.value(low), p.value(high));
        double b = Math.max(p.value(low), p.value(high));
        return Law.curved(
                null,
                null,
                x -> x < low || x > high ? Double.NaN : p.value(x),
                y -> {
                    if (!(y >= a && y <= b)) {
                        return Double.NaN;
                    }
                    if (y == p.value(low) || y == p.value(high)) {
                        return y == p.value(low) ? low : high;
                    }
                    double x = new BracketingNthOrderBrentSolver(1e-15 * (high - low), 1e-14 * (high - low), 5)
                            .solve(200, t -> p.value(t) - y, low, high);
                    return x - (p.value(x) - y) / slope.value(x);
                },
                low,
                high);
    }

    /** Units that a law's two sides must fit, for messages. */
    static void check(Law law, LabUnit from, LabUnit to, String label) {
        if (law.input() != null && !law.input().fits(from)) {
            throw new IllegalArgumentException(label + " takes " + law.input().named() + ", not " + from.named() + ".");
        }
        if (law.output() != null && !law.output().fits(to)) {
            throw new IllegalArgumentException(label + " gives " + law.output().named() + ", not " + to.named() + ".");
        }
    }
}
