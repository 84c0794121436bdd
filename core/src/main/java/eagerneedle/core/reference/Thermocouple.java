package eagerneedle.core.reference;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;

/**
 * Thermocouple reference functions on ITS-90 for types B, E, J, K, N, R, S and T (NIST Monograph 175, IEC 60584-1).
 *
 * <p>The voltage is the published polynomial (for type K above 0 °C with its Gaussian term), reference junction at 0
 * °C. The temperature is found by solving that same function, not by the published approximate inverses, so that going
 * there and back returns the same temperature to rounding. A junction at another temperature is handled by adding its
 * own voltage.
 */
public final class Thermocouple {
    private static final LabUnit MILLIVOLT = LabUnit.parse("mV");
    private static final LabUnit CELSIUS = LabUnit.parse("degC");
    /** What the end of a range may be missed by through rounding, in mV. */
    private static final double ROUNDING = 1e-10;

    private static final Map<String, Thermocouple> TYPES = read();

    private record Piece(double from, double to, double[] coefficients, double @Nullable [] exponential) {}

    private final String type;
    private final List<Piece> pieces = new ArrayList<>();
    private double lowest = Double.NaN;

    private Thermocouple(String type) {
        this.type = type;
    }

    /**
     * The thermocouple of a letter.
     *
     * @throws IllegalArgumentException for another letter
     */
    public static Thermocouple ofType(String letter) {
        Thermocouple t = TYPES.get(letter.strip().toUpperCase(Locale.ROOT));
        if (t == null) {
            throw new IllegalArgumentException("There is no thermocouple type " + letter + "; there are "
                    + String.join(", ", TYPES.keySet()) + ".");
        }
        return t;
    }

    private static Map<String, Thermocouple> read() {
        Map<String, Thermocouple> types = new TreeMap<>();
        try (BufferedReader in = new BufferedReader(new InputStreamReader(
                Thermocouple.class.getResourceAsStream("thermocouples.txt"), StandardCharsets.UTF_8))) {
            Thermocouple current = new Thermocouple("");
            double[] range = {};
            for (String line = in.readLine(); line != null; line = in.readLine()) {
                if (line.startsWith("#")) {
                    continue;
                }
                String rest = line.substring(line.indexOf(':') + 1).strip();
                if (line.startsWith("type:")) {
                    current = new Thermocouple(rest);
                    types.put(rest, current);
                } else if (line.startsWith("range:")) {
                    range = numbers(rest);
                } else if (line.startsWith("coefficients:")) {
                    current.pieces.add(new Piece(range[0], range[1], numbers(rest), null));
                } else {
                    Piece p = current.pieces.remove(current.pieces.size() - 1);
                    current.pieces.add(new Piece(p.from(), p.to(), p.coefficients(), numbers(rest)));
                }
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        types.values().forEach(Thermocouple::findLowest);
        return types;
    }

    private static double[] numbers(String text) {
        return Arrays.stream(text.split("\\s+"))
                .mapToDouble(Double::parseDouble)
                .toArray();
    }

    /**
     * Type B has its lowest voltage near 21 °C; below the temperature that gives 0 mV again, a voltage means two
     * temperatures.
     */
    private void findLowest() {
        lowest = from();
        for (double t = from(); t < from() + 60; t += 0.001) {
            if (slope(t) > 0) {
                lowest = t;
                break;
            }
        }
    }

    /** Lowest temperature of the reference function, in degC. */
    public double from() {
        return pieces.get(0).from();
    }

    /** Highest temperature of the reference function, in degC. */
    public double to() {
        return pieces.get(pieces.size() - 1).to();
    }

    private Piece piece(double t) {
        for (Piece p : pieces) {
            if (t <= p.to()) {
                return p;
            }
        }
        return pieces.get(pieces.size() - 1);
    }

    /** Voltage in mV at a temperature in degC, reference junction at 0 degC; NaN outside the range. */
    public double voltage(double t) {
        if (!(t >= from() && t <= to())) {
            return Double.NaN;
        }
        Piece p = piece(t);
        double sum = 0;
        for (int k = p.coefficients().length - 1; k >= 0; k--) {
            sum = sum * t + p.coefficients()[k];
        }
        double[] e = p.exponential();
        return e == null ? sum : sum + e[0] * Math.exp(e[1] * (t - e[2]) * (t - e[2]));
    }

    /** Seebeck coefficient in mV/K at a temperature in degC. */
    public double slope(double t) {
        Piece p = piece(t);
        double sum = 0;
        for (int k = p.coefficients().length - 1; k >= 1; k--) {
            sum = sum * t + k * p.coefficients()[k];
        }
        double[] e = p.exponential();
        return e == null ? sum : sum + 2 * e[0] * e[1] * (t - e[2]) * Math.exp(e[1] * (t - e[2]) * (t - e[2]));
    }

    /**
     * Temperature in degC at a voltage in mV, reference junction at 0 degC; NaN where no or two temperatures give it.
     */
    public double temperature(double mV) {
        double low = lowest;
        double high = to();
        if (!(mV >= voltage(low) - ROUNDING && mV <= voltage(high) + ROUNDING)
                || lowest > from() && mV <= voltage(from())) {
            return Double.NaN;
        }
        double t = low + (high - low) * (mV - voltage(low)) / (voltage(high) - voltage(low));
        for (int step = 0; step < 200 && high - low > 1e-10; step++) {
            double error = voltage(t) - mV;
            if (error > 0) {
                high = t;
            } else {
                low = t;
            }
            double next = t - error / slope(t);
            if (Math.abs(next - t) < 1e-11) {
                return t;
            }
            t = next > low && next < high ? next : (low + high) / 2;
        }
        return t;
    }

    /**
     * Voltage at a temperature.
     *
     * @param temperature of the measuring junction
     * @param reference temperature of the reference junction
     * @return in mV
     * @throws ArithmeticException outside the range of the reference function
     */
    public Quantity voltage(Quantity temperature, Quantity reference) {
        return junction(temperature).minus(junction(reference));
    }

    private Quantity junction(Quantity temperature) {
        Quantity t = temperature.to(CELSIUS);
        if (Double.isNaN(voltage(t.value()))) {
            throw new ArithmeticException("The reference function of type " + type + " runs from "
                    + Notation.plain(from(), 6) + " °C to " + Notation.plain(to(), 6) + " °C; " + t + " lies outside.");
        }
        return t.through(this::voltage, MILLIVOLT, slope(t.value()));
    }

    /**
     * Temperature at a voltage.
     *
     * @param voltage between the copper ends
     * @param reference temperature of the reference junction
     * @return in degC
     * @throws ArithmeticException where no temperature, or more than one, gives that voltage
     */
    public Quantity temperature(Quantity voltage, Quantity reference) {
        Quantity total = voltage.to(MILLIVOLT).plus(junction(reference));
        double t = temperature(total.value());
        if (Double.isNaN(t)) {
            double mV = total.value();
            if (lowest > from() && mV >= voltage(lowest) && mV <= voltage(from())) {
                throw new ArithmeticException("A type " + type + " thermocouple gives " + Notation.plain(mV, 4)
                        + " mV at two temperatures below "
                        + Notation.plain(Math.ceil(temperature(voltage(from()) + 1e-6)), 3)
                        + " °C; it cannot tell them apart.");
            }
            throw new ArithmeticException("No temperature gives " + Notation.plain(mV, 6) + " mV with type " + type
                    + ": its voltages run from " + Notation.plain(voltage(lowest), 5) + " mV to "
                    + Notation.plain(voltage(to()), 5) + " mV. Check the type and the polarity.");
        }
        return total.through(this::temperature, CELSIUS, 1 / slope(t));
    }

    /** The letters known. */
    public static List<String> types() {
        return List.copyOf(TYPES.keySet());
    }
}
