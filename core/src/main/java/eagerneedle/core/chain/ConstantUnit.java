package eagerneedle.core.chain;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import org.jspecify.annotations.Nullable;

/**
 * The unit in which a constant of a link is a plain number: of a gain what goes out by what comes in, as both are
 * written, of a converter's gain one.
 *
 * @param name for messages
 * @param coherent the coherent unit of its dimension
 * @param factor how many of these one of it is
 */
public record ConstantUnit(String name, LabUnit coherent, double factor) {
    /**
     * Of a link from one unit to another.
     *
     * @param to null for a converter
     */
    public static ConstantUnit of(String from, @Nullable String to, @Nullable String law, String constant) {
        LabUnit in = LabUnit.parse(from).difference();
        LabUnit out = to == null ? in : LabUnit.parse(to).difference();
        if (constant.equals("gain")) {
            return to == null
                    ? of(LabUnit.ONE)
                    : new ConstantUnit(
                            out.named() + " per " + in.named(),
                            out.coherent().per(in.coherent()),
                            out.factor() / in.factor());
        }
        return of(constant.equals("offset") ? out : LabUnit.parse(Laws.unitOf(law, constant)));
    }

    /** False for a constant that is a word: {@code pair: K} names no input that is called K. */
    public static boolean isNumber(@Nullable String law, String constant) {
        return !Laws.isWord(law, constant);
    }

    private static ConstantUnit of(LabUnit unit) {
        return new ConstantUnit(unit.named(), unit.coherent(), unit.factor());
    }

    /**
     * A quantity as a plain number of this unit; a pure number where the unit is none is taken as it is.
     *
     * @throws IllegalArgumentException with one sentence where its unit does not fit
     */
    public Quantity number(Quantity q, String what) {
        if (q.unit().isDimensionless() && !coherent.isDimensionless()) {
            return q.to(LabUnit.ONE);
        }
        if (!q.unit().fits(coherent)) {
            throw new IllegalArgumentException(what + ", which is in " + name + ".");
        }
        Quantity c = q.to(coherent);
        return c.mapped(c.value() / factor, LabUnit.ONE, 1 / factor);
    }
}
