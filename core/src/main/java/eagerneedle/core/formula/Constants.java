package eagerneedle.core.formula;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;

/**
 * Names that stand for a value wherever nothing else has them: numbers, and the constants that define the SI, which are
 * exact since 2019 (SI Brochure, 9th edition, 2.2).
 */
public final class Constants {
    private static final Map<String, Quantity> VALUES = new TreeMap<>(Map.of(
            "pi", Quantity.number(Math.PI),
            "e", Quantity.number(Math.E),
            "boltzmann", exact(1.380649e-23, "J/K"),
            "electron", exact(1.602176634e-19, "C"),
            "avogadro", exact(6.02214076e23, "1/mol"),
            "planck", exact(6.62607015e-34, "J*s"),
            "speed_of_light", exact(299_792_458, "m/s"),
            "gas_constant", exact(8.31446261815324, "J/mol/K")));

    private Constants() {}

    private static Quantity exact(double value, String unit) {
        return Quantity.exact(value, LabUnit.parse(unit));
    }

    public static Set<String> names() {
        return VALUES.keySet();
    }

    public static boolean has(String name) {
        return VALUES.containsKey(name);
    }

    public static Optional<Quantity> of(String name) {
        return Optional.ofNullable(VALUES.get(name));
    }

    /** The value of one that is a pure number; empty for one with a unit, and for any other name. */
    public static Optional<Double> number(String name) {
        return of(name).filter(q -> q.unit().equals(LabUnit.ONE)).map(Quantity::value);
    }
}
