package eagerneedle.core.reduce;

import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.NearName;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.Output;
import eagerneedle.core.sheet.Sheet;
import java.util.LinkedHashMap;
import java.util.Map;

/** What outputs are set to at a level: numbers in the unit of the output, or formulas over inputs and the level. */
public final class LevelOutputs {
    private LevelOutputs() {}

    /**
     * The value of every output at a level, in the output's own unit.
     *
     * @throws IllegalArgumentException with one sentence where one has no value, does not fit or is beyond its limits
     */
    public static Map<String, Double> of(Reduction r, String capture, String level) {
        Capture.Level l = r.sheet().capture(capture).levels().get(level);
        Map<String, Double> out = new LinkedHashMap<>();
        if (l == null || l.outputs().isEmpty()) {
            return out;
        }
        Map<String, Quantity> set = new LinkedHashMap<>();
        l.set().forEach((name, formula) -> set.put(name, r.evaluate(Formula.parse(formula), set)));
        l.outputs().forEach((name, text) -> out.put(name, value(r, name, text, set)));
        return out;
    }

    private static double value(Reduction r, String name, String text, Map<String, Quantity> set) {
        Output o = output(r.sheet(), name);
        LabUnit unit = LabUnit.parse(o.unit());
        String label = o.label() == null ? name : o.label();
        Quantity q = r.evaluate(Formula.parse(text), set);
        boolean plain = q.unit().isDimensionless() && !unit.isDimensionless() && isNumber(text);
        if (!plain && !q.unit().fits(unit)) {
            throw new IllegalArgumentException("The " + label + " is set in " + unit.named() + "; " + text + " is in "
                    + q.unit().named() + ".");
        }
        double v = plain ? q.value() : q.in(unit);
        if (!(v >= o.lowest() && v <= o.highest())) {
            throw new IllegalArgumentException("The " + label + " stays between " + Notation.plain(o.lowest(), 5)
                    + " and " + Notation.plain(o.highest(), 5) + " " + unit.pretty() + "; " + text + " is "
                    + Notation.plain(v, 5) + " " + unit.pretty() + ".");
        }
        return v;
    }

    private static boolean isNumber(String text) {
        return text.strip().matches("[+-]?[0-9.]+([eE][+-]?[0-9]+)?");
    }

    /**
     * The limits of an output. @throws IllegalArgumentException where no instrument of the sheet has one of that name
     */
    public static Output output(Sheet sheet, String name) {
        Map<String, Output> all = new LinkedHashMap<>();
        sheet.devices().values().forEach(d -> all.putAll(d.outputs()));
        Output o = all.get(name);
        if (o == null) {
            throw new IllegalArgumentException(
                    "No instrument has an output " + name + NearName.hint(name, all.keySet()));
        }
        return o;
    }
}
