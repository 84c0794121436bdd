package eagerneedle.app.capture;

import eagerneedle.app.workbench.LiveRig;
import eagerneedle.core.capture.Seeker;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.reduce.LiveTarget;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.rig.driver.OutputGuard;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * Holding a target before a row is taken: what is read now, and who turns what. The program turns slowly, through the
 * guard, and waits after each turn; a person turns whatever he likes.
 */
final class SeekModel {
    private static final int AVERAGED = 10;
    private static final double LEAST_WAIT = 0.5;

    private final Capture plan;
    private final LiveTarget target;
    private final Optional<OutputGuard> guard;
    private final @Nullable Seeker seeker;
    private double reading = Double.NaN;
    private double turnedAt = Double.NaN;

    /** @throws IllegalArgumentException with one sentence where the program is to turn what is not there */
    SeekModel(Capture plan, LiveTarget target, LiveRig rig) {
        this.plan = plan;
        this.target = target;
        this.guard = Optional.ofNullable(plan.seekPlan().output()).map(rig.outputs()::get);
        if (plan.seekPlan().byProgram() && guard.isEmpty()) {
            throw new IllegalArgumentException(rig.label() + " has no output "
                    + plan.seekPlan().output() + "; connect the instrument that has it.");
        }
        this.seeker = guard.map(OutputGuard::limits)
                .map(o -> new Seeker(o.lowest(), o.highest(), o.step()))
                .orElse(null);
        guard.filter(g -> plan.seekPlan().byProgram() && !g.isOn())
                .ifPresent(g -> g.set(g.limits().lowest()));
    }

    /** What is read now, in the unit of the target; NaN for nothing. */
    double reading() {
        return reading;
    }

    LiveTarget target() {
        return target;
    }

    /**
     * Looks, and turns where the program turns.
     *
     * @param now s on the clock of the instrument
     * @return true while it stands at its target
     */
    boolean look(LiveRig rig, double now) {
        reading = target.now(c -> mean(rig.last(c, AVERAGED / rig.rate())), rig::all)
                .orElse(Double.NaN);
        boolean there = target.isThere(reading);
        if (there
                || !plan.seekPlan().byProgram()
                || guard.isEmpty()
                || !guard.get().isThere()) {
            turnedAt = guard.isPresent() && !guard.get().isThere() ? now : turnedAt;
            return there;
        }
        turnedAt = Double.isNaN(turnedAt) ? now : turnedAt;
        if (now - turnedAt >= Math.max(LEAST_WAIT, plan.holdPlan().settle())) {
            OutputGuard g = guard.get();
            g.set(Objects.requireNonNull(seeker)
                    .next(g.value(), reading - target.target().value()));
            turnedAt = now;
        }
        return false;
    }

    private static RawSamples mean(RawSamples raw) {
        if (raw.size() == 0) {
            return raw;
        }
        double sum = 0;
        for (double v : raw.values()) {
            sum += v / raw.size();
        }
        return new RawSamples(new double[] {raw.time()[raw.size() - 1]}, new double[] {sum});
    }

    /** What stands where, and where it is wanted. */
    String says() {
        String unit = target.target().unit().pretty();
        return "reads " + (Double.isNaN(reading) ? "nothing yet" : Notation.plain(reading, 4) + " " + unit)
                + ", sought "
                + Notation.plain(target.target().value(), 4) + " " + unit + " within "
                + Notation.plain(target.band(), 2) + " "
                + target.target().unit().difference().pretty()
                + (plan.seekPlan().byProgram() ? "" : ": turn until it stands there");
    }
}
