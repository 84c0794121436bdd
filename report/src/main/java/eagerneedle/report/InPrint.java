package eagerneedle.report;

import eagerneedle.core.quantity.Coverage;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Printed;
import eagerneedle.core.quantity.Quantity;
import java.util.LinkedHashMap;
import java.util.Map;

/**
 * Quantities as a page sets them: digits, uncertainty in quiet ink, a power of ten where no prefix spares it, a unit.
 */
final class InPrint {
    private InPrint() {}

    /** The parts of a quantity, for the template. */
    static Map<String, String> of(Quantity q) {
        Printed w = Printed.of(q);
        Map<String, String> m = new LinkedHashMap<>();
        m.put("n", w.number());
        m.put("u", w.uncertainty());
        m.put("power", w.times());
        m.put("unit", w.unit().pretty());
        return m;
    }

    /** Nothing where something might stand. */
    static Map<String, String> none(String instead) {
        return Map.of("n", instead, "u", "", "power", "", "unit", "");
    }

    /** The expanded uncertainty in the unit in which the quantity is set, with its coverage factor. */
    static String expanded(Quantity q, Coverage coverage) {
        if (q.isExact()) {
            return "taken as exact";
        }
        LabUnit unit = Printed.of(q).unit();
        Quantity shown = unit.isAffine() ? q : q.to(unit);
        return Notation.plusMinus(shown.value(), coverage.expanded(shown)) + " (k = "
                + Notation.plain(coverage.factor(q.dof()), 3) + ")";
    }
}
