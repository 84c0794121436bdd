package eagerneedle.core.quantity;

import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A unit of measurement as people write it, with its exact relation to the coherent SI unit of its dimension.
 *
 * <p>The definitions of single units, their prefixes and conversion factors come from JSR-385 (Indriya), see
 * {@link UnitAtoms}. This class composes them: exponents of the seven base units are kept in twelfths, so that the
 * square root of a metre exists on the way to a discharge in m^3/s, and products are coherent SI, so that mm/m never
 * appears.
 *
 * <p>Only a unit that stands alone may have an offset (the degree Celsius as a temperature). {@code degC} is a
 * temperature, {@code K} both a temperature and a temperature difference; adding two temperatures is refused by
 * {@link Quantity}.
 */
public final class LabUnit {
    private static final String[] BASE = BaseUnits.SYMBOLS;
    static final int TWELFTHS = BaseUnits.TWELFTHS;
    private static final Pattern FACTOR =
            Pattern.compile("([·*/]?)\\s*([\\p{L}°µμΩ%]+|1)(?:\\^?\\(?(-?\\d+(?:\\.5)?)\\)?)?");
    private static final Pattern DEGREES = Pattern.compile("\\bdeg\\b");
    private static final Pattern MICRO = Pattern.compile("(?<![\\p{L}°])u(?=[\\p{L}Ω])");
    private static final Map<String, LabUnit> PARSED = new ConcurrentHashMap<>();

    private static final int SECONDS = 2;

    /** The unit of a pure number. */
    public static final LabUnit ONE = new LabUnit("", 1, 0, new int[BASE.length], 0, false);

    public static final LabUnit RADIAN = parse("rad");
    public static final LabUnit SECOND = parse("s");
    public static final LabUnit KELVIN = parse("K");

    private final String symbol;
    private final double factor;
    private final double offset;
    private final int[] exponents;
    private final int angle;
    private final boolean cycles;

    LabUnit(String symbol, double factor, double offset, int[] exponents, int angle, boolean cycles) {
        this.symbol = symbol;
        this.factor = factor;
        this.offset = offset;
        this.exponents = exponents;
        boolean turning = angle == 1 && exponents[SECONDS] <= 0 && dimensionsBut(exponents, SECONDS) == 0;
        this.angle = turning ? 1 : 0;
        this.cycles = cycles && exponents[SECONDS] < 0 && dimensionsBut(exponents, SECONDS) == 0;
    }

    private static int dimensionsBut(int[] exponents, int index) {
        int n = 0;
        for (int i = 0; i < exponents.length; i++) {
            n += i != index && exponents[i] != 0 ? 1 : 0;
        }
        return n;
    }

    /**
     * Reads a unit such as {@code m/s^2}, {@code mmol/L}, {@code µV}, {@code degC}, {@code %} or the empty text (one).
     *
     * @throws UnitException with one sentence naming the part that is not known
     */
    public static LabUnit parse(String text) {
        LabUnit known = PARSED.get(text);
        if (known == null) {
            known = compose(text.strip());
            PARSED.put(text, known);
        }
        return known;
    }

    private static LabUnit compose(String text) {
        if (text.isEmpty() || text.equals("1")) {
            return ONE;
        }
        String plain = superscriptsToPowers(text);
        Matcher m = FACTOR.matcher(plain);
        double factor = 1;
        int[] exponents = new int[BASE.length];
        double angle = 0;
        boolean cycles = false;
        int at = 0;
        int parts = 0;
        LabUnit only = null;
        while (at < plain.length()) {
            if (!m.find(at) || m.start() != at || (parts == 0) != m.group(1).isEmpty()) {
                throw new UnitException("'" + text + "' is not a unit; write for instance m/s^2 or kg*m^2.");
            }
            LabUnit atom = m.group(2).equals("1") ? ONE : UnitAtoms.find(m.group(2));
            if (atom == null) {
                throw new UnitException(
                        "'" + m.group(2) + "' is not a unit known here" + UnitAtoms.suggestion(m.group(2)) + ".");
            }
            double power = (m.group(3) == null ? 1 : Double.parseDouble(m.group(3)))
                    * (m.group(1).equals("/") ? -1 : 1);
            factor *= power == 1 ? atom.factor : Math.pow(atom.factor, power);
            for (int i = 0; i < exponents.length; i++) {
                exponents[i] += (int) Math.round(atom.exponents[i] * power);
            }
            angle += atom.angle * power;
            cycles |= atom.cycles;
            parts++;
            only = parts == 1 && power == 1 ? atom : null;
            at = m.end();
        }
        return only != null
                ? new LabUnit(canonical(plain), only.factor, only.offset, only.exponents, only.angle, only.cycles)
                : new LabUnit(canonical(plain), factor, 0, exponents, angle == 1 ? 1 : 0, cycles);
    }

    private static String canonical(String plain) {
        String s = plain.replace("·", "*")
                .replace("μ", "µ")
                .replaceAll("\\s+", "")
                .replace("°C", "degC")
                .replace("°F", "degF")
                .replace("°", "deg")
                .replace("Ω", "ohm");
        return s.replaceAll("(\\p{L})(-?\\d)", "$1^$2");
    }

    private static String superscriptsToPowers(String text) {
        StringBuilder b = new StringBuilder();
        boolean inPower = false;
        for (char c : text.toCharArray()) {
            int digit = "⁰¹²³⁴⁵⁶⁷⁸⁹".indexOf(c);
            if (digit >= 0 || c == '⁻') {
                if (!inPower) {
                    b.append('^');
                }
                inPower = true;
                b.append(c == '⁻' ? "-" : Integer.toString(digit));
            } else {
                inPower = false;
                b.append(c);
            }
        }
        return b.toString();
    }

    /** Canonical symbol in plain letters, readable again by {@link #parse}; empty for a pure number. */
    public String symbol() {
        return symbol;
    }

    /** What follows a number in print: a space and the unit, or nothing for the number one. */
    public String afterNumber() {
        return symbol.isEmpty() ? "" : " " + pretty();
    }

    boolean turns() {
        return angle == 1;
    }

    int[] exponents() {
        return exponents;
    }

    /** The symbol as it is set in print: m/s², µV, °C, Ω. */
    public String pretty() {
        StringBuilder b = new StringBuilder();
        boolean power = false;
        String words = symbol.replace("degC", "°C")
                .replace("ohm", "Ω")
                .replace("degF", "°F")
                .replace("degR", "°R")
                .replace("%RH", "% RH")
                .replace("arcsec", "″");
        String signs = MICRO.matcher(DEGREES.matcher(words).replaceAll("°")).replaceAll("µ");
        for (char c : signs.toCharArray()) {
            if (c == '^') {
                power = true;
            } else if (power && (Character.isDigit(c) || c == '-')) {
                b.append(c == '-' ? '⁻' : "⁰¹²³⁴⁵⁶⁷⁸⁹".charAt(c - '0'));
            } else {
                power = false;
                b.append(c == '*' ? '·' : c);
            }
        }
        return b.toString();
    }

    /**
     * True when a value in one unit can be expressed in the other. Angles and pure numbers fit one another, and so do
     * rad/s, 1/s and Hz with 1/s; but what turns (rev/s, rpm, rad/s) and what counts whole cycles (Hz) differ by 2 pi
     * and do not.
     */
    public boolean fits(LabUnit other) {
        return Arrays.equals(exponents, other.exponents) && !turnsAgainst(other);
    }

    /** True when one of the two is a rate of turning and the other counts whole cycles. */
    private boolean turnsAgainst(LabUnit other) {
        return angle == 1 && other.cycles || cycles && other.angle == 1;
    }

    /** The unit of a difference of two values in this one: K for degC; otherwise the same. */
    public LabUnit difference() {
        return !isAffine() ? this : factor == 1 ? KELVIN : UnitAtoms.known("degR");
    }

    /** True for a temperature with its own zero (degree Celsius). */
    public boolean isAffine() {
        return offset != 0;
    }

    public boolean isDimensionless() {
        return Arrays.stream(exponents).allMatch(e -> e == 0);
    }

    /** Value of one unit in the coherent SI unit of the dimension, without any offset. */
    public double factor() {
        return factor;
    }

    /**
     * Converts a value from this unit to another.
     *
     * @throws UnitException when the dimensions differ
     */
    public double convert(double value, LabUnit to) {
        requireFit(to);
        if (factor == to.factor && offset == to.offset) {
            return value;
        }
        return (value * factor + offset - to.offset) / to.factor;
    }

    /** Factor that turns a difference in this unit into a difference in another; offsets play no part. */
    public double scaleTo(LabUnit to) {
        requireFit(to);
        return factor == to.factor ? 1 : factor / to.factor;
    }

    private void requireFit(LabUnit to) {
        if (Arrays.equals(exponents, to.exponents) && turnsAgainst(to)) {
            LabUnit turning = angle == 1 ? this : to;
            LabUnit counting = angle == 1 ? to : this;
            throw new UnitException(
                    "A rate of turning in " + turning.named() + " is no frequency in " + counting.named()
                            + ": they differ by 2 pi. Divide it by 1 rev for the turns in a second, or multiply "
                            + "the frequency by 1 rev.");
        }
        if (!fits(to)) {
            throw new UnitException("A value in " + named() + " cannot be expressed in " + to.named() + ".");
        }
    }

    /**
     * The coherent SI unit of the same dimension; N, Pa, W, V, Ohm, C and F by name, others as products of base units.
     */
    public LabUnit coherent() {
        return factor == 1 && offset == 0 ? this : NamedUnits.of(exponents, angle);
    }

    /** The power to which a second stands in its dimension: -2 for an acceleration. */
    public double exponentOfTime() {
        return exponents[SECONDS] / (double) TWELFTHS;
    }

    public LabUnit times(LabUnit other) {
        return combine(other, 1);
    }

    public LabUnit per(LabUnit other) {
        return combine(other, -1);
    }

    /** A pure number, written without a unit. */
    private boolean isOne() {
        return symbol.isEmpty() && factor == 1;
    }

    private boolean isCoherent() {
        return factor == 1 && !isAffine();
    }

    private LabUnit combine(LabUnit other, int sign) {
        // What is multiplied by a number stays what it is: J stays J, and N*m stays N*m.
        if (other.isOne() && isCoherent()) {
            return this;
        }
        if (isOne() && sign == 1 && other.isCoherent()) {
            return other;
        }
        int[] sum = exponents.clone();
        for (int i = 0; i < sum.length; i++) {
            sum[i] += sign * other.exponents[i];
        }
        return NamedUnits.of(sum, angle + sign * other.angle);
    }

    /** The coherent unit of this dimension raised to a power; powers down to twelfths of a base unit are kept. */
    public LabUnit power(double p) {
        int[] e = exponents.clone();
        for (int i = 0; i < e.length; i++) {
            double exact = e[i] * p;
            e[i] = (int) Math.round(exact);
            if (Math.abs(e[i] - exact) > 1e-9) {
                throw new UnitException("The unit " + named() + " cannot be raised to the power " + p + ".");
            }
        }
        return NamedUnits.of(e, p == 1 ? angle : 0);
    }

    /**
     * This unit with the prefix of its first part replaced by another, every third power of ten from p to T, the
     * nearest first: mm for m, but also ms^2 for us^2. Empty where its first part takes no prefix, such as degC, %,
     * min.
     */
    public List<LabUnit> otherPrefixes() {
        Matcher first = FACTOR.matcher(symbol);
        return first.lookingAt()
                ? UnitAtoms.otherPrefixes(first.group(2)).stream()
                        .map(other -> parse(other + symbol.substring(first.end(2))))
                        .toList()
                : List.of();
    }

    /** For sentences: the pretty symbol, or "a pure number". */
    public String named() {
        return symbol.isEmpty() ? "a pure number" : pretty();
    }

    static LabUnit base(int index) {
        int[] e = new int[BASE.length];
        e[index] = TWELFTHS;
        return new LabUnit(BASE[index], 1, 0, e, 0, false);
    }

    LabUnit scaled(String newSymbol, double newFactor, double newOffset) {
        return new LabUnit(newSymbol, newFactor, newOffset, exponents, angle, cycles);
    }

    @Override
    public boolean equals(Object o) {
        return o instanceof LabUnit u && u.symbol.equals(symbol) && u.factor == factor && u.offset == offset && fits(u);
    }

    @Override
    public int hashCode() {
        return symbol.hashCode();
    }

    @Override
    public String toString() {
        return symbol;
    }
}
