package eagerneedle.core.quantity;

import java.util.Arrays;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;

/** From dimensions to the unit that people know them by: N rather than kg*m/s^2, V/s rather than kg*m^2/s^4/A. */
final class NamedUnits {
    /** Found before: products and powers of a session have few dimensions, and every formula asks for them. */
    private static final Map<Dimension, LabUnit> FOUND = new ConcurrentHashMap<>();

    private static final int MOST = 5000;

    /** Twelfths of each base unit, and whether it turns; compared by what they are. */
    private record Dimension(int[] exponents, int angle) {
        @Override
        public boolean equals(Object o) {
            return o instanceof Dimension d && d.angle == angle && Arrays.equals(d.exponents, exponents);
        }

        @Override
        public int hashCode() {
            return 31 * Arrays.hashCode(exponents) + angle;
        }
    }

    private NamedUnits() {}

    /** The coherent unit of so many twelfths of each base unit, turning or not. */
    static LabUnit of(int[] e, int angle) {
        if (FOUND.size() > MOST) {
            FOUND.clear();
        }
        Dimension asked = new Dimension(e.clone(), angle);
        LabUnit known = FOUND.get(asked);
        if (known == null) {
            known = found(asked.exponents, angle);
            FOUND.put(asked, known);
        }
        return known;
    }

    private static LabUnit found(int[] e, int angle) {
        if (angle == 1) {
            LabUnit turning = new LabUnit(
                    BaseUnits.spelled(e).isEmpty()
                            ? "rad"
                            : "rad" + BaseUnits.spelled(e).substring(1),
                    1,
                    0,
                    e.clone(),
                    1,
                    false);
            if (turning.turns()) {
                return turning;
            }
        }
        for (LabUnit named : UnitAtoms.namedCoherent()) {
            if (Arrays.equals(named.exponents(), e)) {
                return named;
            }
        }
        LabUnit readable = withNamedPart(e);
        return readable != null ? readable : new LabUnit(BaseUnits.spelled(e), 1, 0, e.clone(), 0, false);
    }

    /**
     * V/s rather than kg*m^2/s^4/A: a named unit and few base units, where that is shorter and hides no kilogram; or
     * null.
     */
    private static @Nullable LabUnit withNamedPart(int[] e) {
        if (e[0] == 0) {
            return null;
        }
        LabUnit squared = squared(e);
        if (squared != null) {
            return squared;
        }
        LabUnit best = null;
        int fewest = BaseUnits.factors(e);
        for (LabUnit named : UnitAtoms.namedCoherent()) {
            int[] rest = e.clone();
            for (int i = 0; i < rest.length; i++) {
                rest[i] -= named.exponents()[i];
            }
            int count = 1 + BaseUnits.factors(rest);
            boolean simple = count == 2 && Arrays.stream(rest).allMatch(x -> Math.abs(x) <= LabUnit.TWELFTHS);
            if (named.exponents()[0] != 0
                    && rest[0] == 0
                    && (count < fewest || best == null && count == fewest && simple)) {
                fewest = count;
                String spelled = BaseUnits.spelled(rest);
                best = new LabUnit(
                        named.symbol() + (spelled.startsWith("1/") ? spelled.substring(1) : "*" + spelled),
                        1,
                        0,
                        e.clone(),
                        0,
                        false);
            }
        }
        return best;
    }

    /** V^2 rather than kg^2*m^4/s^6/A^2; null where it is no square of a named unit. */
    private static @Nullable LabUnit squared(int[] e) {
        for (LabUnit named : UnitAtoms.namedCoherent()) {
            int[] twice = Arrays.stream(named.exponents()).map(x -> 2 * x).toArray();
            if (named.exponents()[0] != 0 && Arrays.equals(twice, e)) {
                return new LabUnit(named.symbol() + "^2", 1, 0, e.clone(), 0, false);
            }
        }
        return null;
    }
}
