package eagerneedle.core.reduce;

import eagerneedle.core.judge.Demand;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.quantity.Reading;
import eagerneedle.core.sheet.Sheet;
import java.util.Locale;

/** What a sheet asks of a comparison. */
final class Demands {
    private Demands() {}

    /** @param reference in its own unit; a share of it is one of its value */
    static Demand of(Sheet.Comparison c, Quantity result, Quantity reference) {
        Demand.Side side =
                c.bound() == null ? null : Demand.Side.valueOf(c.bound().toUpperCase(Locale.ROOT));
        return new Demand(c.matters() == null ? Double.NaN : matters(c.matters(), result, reference), side);
    }

    private static double matters(String text, Quantity result, Quantity reference) {
        Reading r = Reading.parse(text);
        if (r.unit().equals(LabUnit.parse("%"))) {
            return r.value() / 100 * Math.abs(reference.to(result.unit()).value());
        }
        return r.value() * r.unit().scaleTo(result.unit().difference());
    }
}
