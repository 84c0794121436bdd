package eagerneedle.core.physics;

import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.sheet.RigPlan;
import java.util.stream.Stream;

/**
 * What hands do to a channel, as names of its physics: {@code CHANNEL.touched}, the time since it was touched, and
 * {@code CHANNEL.zero_turns} and {@code CHANNEL.span_turns}, how far its trims were turned clockwise from where they
 * stood. Where the physics of a sheet uses them, nothing else is made of a hand.
 */
public final class Hands {
    public static final String TOUCHED = ".touched";
    public static final String ZERO_TURNS = ".zero_turns";
    public static final String SPAN_TURNS = ".span_turns";

    /** How long ago something was touched that was not. */
    public static final Quantity NEVER = Quantity.exact(1e9, LabUnit.SECOND);

    private Hands() {}

    /** True for a channel whose zero and span are set by trims. */
    public static boolean hasTrims(Channel channel) {
        return channel.calibration() != null
                && "adjusted".equals(channel.calibration().relation());
    }

    /** True when physics says itself what turning the trims of a channel does. */
    public static boolean turns(RigPlan plan, String channel) {
        return uses(plan, channel + ZERO_TURNS) || uses(plan, channel + SPAN_TURNS);
    }

    /** True when physics says itself what touching a channel does. */
    public static boolean touches(RigPlan plan, String channel) {
        return uses(plan, channel + TOUCHED);
    }

    private static boolean uses(RigPlan plan, String name) {
        return Stream.of(plan.hidden(), plan.signals(), plan.rates())
                        .flatMap(m -> m.values().stream())
                        .anyMatch(f -> uses(f, name))
                || plan.parts().values().stream().anyMatch(p -> uses(p, name));
    }

    private static boolean uses(String formula, String name) {
        try {
            return Formula.parse(formula).names().contains(name);
        } catch (FormulaException saidElsewhere) {
            return false;
        }
    }
}
