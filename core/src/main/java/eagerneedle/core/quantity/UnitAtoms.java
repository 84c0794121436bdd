package eagerneedle.core.quantity;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.IntStream;
import javax.measure.Dimension;
import javax.measure.MetricPrefix;
import javax.measure.Unit;
import org.jspecify.annotations.Nullable;
import tech.units.indriya.AbstractUnit;
import tech.units.indriya.unit.UnitDimension;
import tech.units.indriya.unit.Units;

/**
 * The single units people use in a teaching laboratory, each defined through Indriya (JSR-385), with the SI prefixes
 * where prefixes are customary.
 */
final class UnitAtoms {
    private static final Map<Dimension, Integer> BASE_INDEX = Map.of(
            UnitDimension.MASS,
            0,
            UnitDimension.LENGTH,
            1,
            UnitDimension.TIME,
            2,
            UnitDimension.ELECTRIC_CURRENT,
            3,
            UnitDimension.TEMPERATURE,
            4,
            UnitDimension.AMOUNT_OF_SUBSTANCE,
            5,
            UnitDimension.LUMINOUS_INTENSITY,
            6);
    private static final Map<String, LabUnit> KNOWN = new LinkedHashMap<>();

    /** Units that take prefixes. */
    private static final List<String> PREFIXED = new ArrayList<>();

    /** Prefixes of every third power of ten that are common in a laboratory, from small to large. */
    private static final List<String> THOUSANDS = List.of("p", "n", "µ", "m", "", "k", "M", "G", "T");

    /** Other ways in which people and instruments write a unit. */
    private static final Map<String, String> SPELLINGS = new LinkedHashMap<>();

    static {
        SPELLINGS.put("s", "sec secs second seconds");
        SPELLINGS.put("ms", "msec millisecond milliseconds");
        SPELLINGS.put("min", "mins minute minutes");
        SPELLINGS.put("h", "hr hrs hour hours");
        SPELLINGS.put("d", "day days");
        SPELLINGS.put("m", "meter meters metre metres");
        SPELLINGS.put("mm", "millimeter millimeters millimetre millimetres");
        SPELLINGS.put("cm", "centimeter centimeters centimetre centimetres");
        SPELLINGS.put("in", "inch inches");
        SPELLINGS.put("ft", "foot feet");
        SPELLINGS.put("lb", "lbs pound pounds");
        SPELLINGS.put("g", "gram grams");
        SPELLINGS.put("kg", "kilogram kilograms");
        SPELLINGS.put("V", "volt volts");
        SPELLINGS.put("mV", "millivolt millivolts");
        SPELLINGS.put("A", "amp amps ampere amperes");
        SPELLINGS.put("ohm", "ohms Ohm Ohms");
        SPELLINGS.put("N", "newton newtons");
        SPELLINGS.put("Pa", "pascal pascals");
        SPELLINGS.put("Hz", "hertz Hertz");
        SPELLINGS.put("psi", "PSI");
        SPELLINGS.put("Torr", "torr");
        SPELLINGS.put("lx", "lux Lux");
        SPELLINGS.put("degC", "celsius Celsius");
        SPELLINGS.put("degF", "fahrenheit Fahrenheit");
        SPELLINGS.put("K", "kelvin kelvins Kelvin");
        SPELLINGS.put("%", "percent");
        SPELLINGS.put("rad", "radian radians");
        SPELLINGS.put("deg", "degree degrees");
        SPELLINGS.put("rev", "turn turns revolution revolutions");
        SPELLINGS.put("rpm", "RPM");
        prefixed("m", Units.METRE);
        prefixed("g", Units.GRAM);
        prefixed("s", Units.SECOND);
        prefixed("A", Units.AMPERE);
        prefixed("K", Units.KELVIN);
        prefixed("mol", Units.MOLE);
        prefixed("cd", Units.CANDELA);
        prefixed("Hz", Units.HERTZ);
        prefixed("N", Units.NEWTON);
        prefixed("Pa", Units.PASCAL);
        prefixed("J", Units.JOULE);
        prefixed("W", Units.WATT);
        prefixed("C", Units.COULOMB);
        prefixed("V", Units.VOLT);
        prefixed("F", Units.FARAD);
        prefixed("ohm", Units.OHM);
        prefixed("Ω", Units.OHM);
        prefixed("S", Units.SIEMENS);
        prefixed("T", Units.TESLA);
        prefixed("H", Units.HENRY);
        prefixed("Wb", Units.WEBER);
        prefixed("lm", Units.LUMEN);
        prefixed("lx", Units.LUX);
        prefixed("Bq", Units.BECQUEREL);
        prefixed("rad", Units.RADIAN);
        prefixed("L", Units.LITRE);
        prefixed("l", Units.LITRE);
        prefixed("bar", Units.PASCAL.multiply(100_000));
        prefixed("eV", Units.JOULE.multiply(1.602176634e-19));
        plain("min", Units.MINUTE);
        plain("h", Units.HOUR);
        plain("d", Units.DAY);
        plain("%", AbstractUnit.ONE.divide(100));
        plain("ppm", AbstractUnit.ONE.divide(1_000_000));
        plain("strain", AbstractUnit.ONE);
        plain("microstrain", AbstractUnit.ONE.divide(1_000_000));
        plain("µε", AbstractUnit.ONE.divide(1_000_000));
        plain("count", AbstractUnit.ONE);
        plain("counts", AbstractUnit.ONE);
        plain("LSB", AbstractUnit.ONE);
        plain("atm", Units.PASCAL.multiply(101_325));
        put("rev", known("rad").scaled("rev", 2 * Math.PI, 0));
        put("rpm", new LabUnit("rpm", 2 * Math.PI / 60, 0, new int[] {0, 0, -12, 0, 0, 0, 0}, 1, false));
        put("deg", known("rad").scaled("deg", Math.PI / 180, 0));
        put("°", known("deg"));
        put("arcmin", known("rad").scaled("arcmin", Math.PI / 10_800, 0));
        put("arcsec", known("rad").scaled("arcsec", Math.PI / 648_000, 0));
        put("degC", known("K").scaled("degC", 1, 273.15));
        put("°C", known("degC"));
        put("degR", known("K").scaled("degR", 5 / 9.0, 0));
        put("degF", known("K").scaled("degF", 5 / 9.0, 459.67 * 5 / 9));
        put("°F", known("degF"));
        plain("in", Units.METRE.multiply(254).divide(10_000));
        plain("ft", Units.METRE.multiply(3048).divide(10_000));
        plain("yd", Units.METRE.multiply(9144).divide(10_000));
        plain("lb", Units.KILOGRAM.multiply(0.45359237));
        plain("lbf", Units.NEWTON.multiply(4.4482216152605));
        plain("psi", Units.PASCAL.multiply(4.4482216152605 / (0.0254 * 0.0254)));
        plain("Torr", Units.PASCAL.multiply(101_325.0 / 760));
        plain("mmHg", Units.PASCAL.multiply(133.322387415));
        plain("%RH", AbstractUnit.ONE.divide(100));
        SPELLINGS.forEach((symbol, spellings) -> {
            for (String s : spellings.split(" ")) {
                KNOWN.putIfAbsent(s, KNOWN.get(symbol));
            }
        });
    }

    private static final List<LabUnit> NAMED = List.of(
            KNOWN.get("N"),
            KNOWN.get("Pa"),
            KNOWN.get("W"),
            KNOWN.get("V"),
            KNOWN.get("ohm"),
            KNOWN.get("C"),
            KNOWN.get("F"));

    /** Units spelled out, in small letters. */
    private static final Map<String, LabUnit> WORDS = new LinkedHashMap<>();

    static {
        SPELLINGS.values().forEach(line -> {
            for (String s : line.split(" ")) {
                WORDS.put(s.toLowerCase(java.util.Locale.ROOT), KNOWN.get(s));
            }
        });
    }

    private UnitAtoms() {}

    /** A unit that ships with the program. */
    static LabUnit known(String symbol) {
        return Objects.requireNonNull(KNOWN.get(symbol), symbol);
    }

    private static void put(String symbol, LabUnit unit) {
        KNOWN.put(symbol, unit);
    }

    private static void plain(String symbol, Unit<?> unit) {
        put(symbol, from(symbol, unit));
    }

    private static void prefixed(String symbol, Unit<?> unit) {
        LabUnit whole = from(symbol, unit);
        put(symbol, whole);
        PREFIXED.add(symbol);
        BigDecimal factor = new BigDecimal(Double.toString(whole.factor()));
        for (MetricPrefix prefix : MetricPrefix.values()) {
            if (Math.abs(prefix.getExponent()) > 15) {
                continue;
            }
            String full = prefix.getSymbol() + symbol;
            if (!KNOWN.containsKey(full)) {
                // A power of ten of the decimal number, which is the same number and asks the library once a unit.
                double scaled = factor.scaleByPowerOfTen(prefix.getExponent()).doubleValue();
                put(full, whole.scaled(full, scaled, 0));
                if (prefix == MetricPrefix.MICRO) {
                    LabUnit micro = whole.scaled("µ" + symbol, scaled, 0);
                    put("µ" + symbol, micro);
                    put("μ" + symbol, micro);
                    put("u" + symbol, micro);
                }
            }
        }
    }

    private static LabUnit from(String symbol, Unit<?> unit) {
        int[] exponents = new int[7];
        Dimension dimension = unit.getDimension();
        Map<? extends Dimension, Integer> bases = dimension.getBaseDimensions();
        if (bases == null) {
            bases = dimension.equals(UnitDimension.NONE) ? Map.of() : Map.of(dimension, 1);
        }
        bases.forEach((d, power) -> exponents[Objects.requireNonNull(BASE_INDEX.get(d))] = 12 * power);
        return new LabUnit(symbol, toSystem(unit), 0, exponents, symbol.endsWith("rad") ? 1 : 0, symbol.endsWith("Hz"));
    }

    private static double toSystem(Unit<?> unit) {
        try {
            return unit.getConverterToAny(unit.getSystemUnit()).convert(1.0);
        } catch (javax.measure.IncommensurableException e) {
            throw new IllegalStateException("Indriya refused " + unit, e);
        }
    }

    /** The unit of that symbol or spelling, or null. A word may begin with a capital letter or be all capitals. */
    static @Nullable LabUnit find(String symbol) {
        LabUnit known = KNOWN.get(symbol);
        return known != null || symbol.length() < 4 ? known : WORDS.get(symbol.toLowerCase(java.util.Locale.ROOT));
    }

    /** The symbol with each other prefix of {@link #THOUSANDS}, the nearest first; none where it takes no prefix. */
    static List<String> otherPrefixes(String symbol) {
        String plain = symbol.replace('u', 'µ').replace('μ', 'µ');
        for (int at = 0; at < THOUSANDS.size(); at++) {
            String prefix = THOUSANDS.get(at);
            String rest = plain.startsWith(prefix) ? plain.substring(prefix.length()) : "";
            if (PREFIXED.contains(rest) && KNOWN.get(plain) != null) {
                int here = at;
                return IntStream.range(0, THOUSANDS.size())
                        .filter(i -> i != here)
                        .boxed()
                        .sorted(Comparator.comparingInt(i -> Math.abs(i - here)))
                        .map(i -> THOUSANDS.get(i) + rest)
                        .filter(KNOWN::containsKey)
                        .toList();
            }
        }
        return List.of();
    }

    static List<LabUnit> namedCoherent() {
        return NAMED == null ? List.of() : NAMED;
    }

    /** " (did you mean ...?)" for a symbol that differs from a known one by case, or nothing. */
    static String suggestion(String symbol) {
        for (String known : KNOWN.keySet()) {
            if (known.equalsIgnoreCase(symbol)) {
                return "; perhaps " + known + " was meant";
            }
        }
        return "";
    }
}
