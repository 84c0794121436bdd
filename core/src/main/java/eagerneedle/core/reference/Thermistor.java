package eagerneedle.core.reference;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;

/** Thermistors by the equation of Steinhart and Hart (1968): 1/T = a + b ln R + c (ln R)³, R in ohm, T in kelvin. */
public final class Thermistor {
    private Thermistor() {}

    /** Temperature in kelvin at a resistance, from the three coefficients (pure numbers, per kelvin). */
    public static Quantity temperature(Quantity resistance, Quantity a, Quantity b, Quantity c) {
        Quantity r = resistance.to(LabUnit.parse("ohm"));
        if (!(r.value() > 0)) {
            throw new ArithmeticException("A thermistor's resistance is above zero, not " + resistance + ".");
        }
        Quantity ln = r.through(Math::log, LabUnit.ONE, 1 / r.value());
        LabUnit perKelvin = LabUnit.parse("1/K");
        Quantity inverse = perKelvin(a, perKelvin)
                .plus(ln.times(perKelvin(b, perKelvin)))
                .plus(ln.power(3).times(perKelvin(c, perKelvin)));
        if (!(inverse.value() > 0)) {
            throw new ArithmeticException("These coefficients give no temperature at " + resistance
                    + "; check their order and the unit of the resistance (ohm).");
        }
        return Quantity.number(1).dividedBy(inverse);
    }

    private static Quantity perKelvin(Quantity q, LabUnit unit) {
        return q.unit().isDimensionless() ? q.to(LabUnit.ONE).mapped(q.in(LabUnit.ONE), unit, 1) : q.to(unit);
    }

    /** Resistance in ohm from the beta equation: R = R0 exp(beta (1/T - 1/T0)). */
    public static Quantity betaTemperature(
            Quantity resistance, Quantity atReference, Quantity reference, Quantity beta) {
        Quantity ratio = resistance.dividedBy(atReference).to(LabUnit.ONE);
        if (!(ratio.value() > 0)) {
            throw new ArithmeticException("A thermistor's resistance is above zero, not " + resistance + ".");
        }
        Quantity ln = ratio.through(Math::log, LabUnit.ONE, 1 / ratio.value());
        return Quantity.number(1)
                .dividedBy(
                        Quantity.number(1).dividedBy(reference.coherent()).plus(ln.dividedBy(beta.to(LabUnit.KELVIN))));
    }
}
