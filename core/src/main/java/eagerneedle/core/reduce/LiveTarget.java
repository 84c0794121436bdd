package eagerneedle.core.reduce;

import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.formula.Value;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.quantity.Reading;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.SeekPlan;
import eagerneedle.core.trace.RawSamples;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Function;

/**
 * What is held at a target before a row is taken, such as {@code v = 2.00 m/s} within 1 %: what is read now, and where
 * it must stand.
 */
public final class LiveTarget {
    private final Formula read;
    private final LiveScope scope;
    private final Quantity target;
    private final double band;

    private LiveTarget(Formula read, LiveScope scope, Quantity target, double band) {
        this.read = read;
        this.scope = scope;
        this.target = target;
        this.band = band;
    }

    /** Both sides of what must stand where. @throws IllegalArgumentException where it is written otherwise */
    public static String[] sides(SeekPlan plan) {
        String[] sides = plan.until().split("=", -1);
        if (sides.length != 2 || sides[0].isBlank() || sides[1].isBlank()) {
            throw new IllegalArgumentException(
                    "What is sought is written with one equals sign, what is read on its left: v = 2.00 m/s.");
        }
        return sides;
    }

    /**
     * The target of a capture at a level; empty where it has none.
     *
     * @throws IllegalArgumentException with one sentence where it has no value, or how close makes no sense
     */
    public static Optional<LiveTarget> of(Reduction r, String captureName, String level) {
        Capture capture = r.sheet().capture(captureName);
        SeekPlan seek = capture.seek();
        if (seek == null) {
            return Optional.empty();
        }
        String[] sides = sides(seek);
        Map<String, Quantity> set = new LinkedHashMap<>();
        Objects.requireNonNull(capture.levels().get(level), level)
                .set()
                .forEach((n, f) -> set.put(n, r.evaluate(Formula.parse(f), set)));
        Formula read = Formula.parse(sides[0].strip());
        Quantity target = r.evaluate(Formula.parse(sides[1].strip()), set);
        Map<String, Value> more = new LinkedHashMap<>();
        read.names().stream()
                .filter(n -> !capture.channels().contains(n) && !n.equals("t"))
                .forEach(n -> {
                    if (set.containsKey(n)) {
                        more.put(n, new Value.Scalar(set.get(n)));
                    } else {
                        r.quantity(n).ifPresent(q -> more.put(n, new Value.Scalar(q)));
                    }
                });
        double band = band(seek.within(), target);
        if (!(band > 0)) {
            throw new IllegalArgumentException(
                    "Within " + seek.within() + " of " + target + " is nothing; write how close as a quantity.");
        }
        return Optional.of(new LiveTarget(read, new LiveScope(r.sheet(), capture, read, more), target, band));
    }

    private static double band(String within, Quantity target) {
        Reading w = Reading.parse(within);
        if (w.unit().isDimensionless() && !target.unit().isDimensionless()
                || within.strip().endsWith("%")) {
            return Math.abs(w.unit().convert(w.value(), LabUnit.ONE) * target.value());
        }
        return Math.abs(w.value() * w.unit().scaleTo(target.unit().difference()));
    }

    /** Where it must stand. */
    public Quantity target() {
        return target;
    }

    /** How close, in the unit of the target. */
    public double band() {
        return band;
    }

    /**
     * What is read now, in the unit of the target; empty while it cannot be told.
     *
     * @param newest the last samples of a channel, one or more
     * @param all everything of a channel so far
     */
    public Optional<Double> now(Function<String, RawSamples> newest, Function<String, RawSamples> all) {
        try {
            return read.evaluate(scope.over(newest, all)) instanceof Value.Scalar s
                            && s.quantity().unit().fits(target.unit())
                    ? Optional.of(s.quantity().in(target.unit()))
                    : Optional.empty();
        } catch (FormulaException | IllegalArgumentException notYet) {
            return Optional.empty();
        }
    }

    /** The unit of what is read, where that does not fit its target; empty where it does, or nothing can be read. */
    Optional<LabUnit> otherUnit(Function<String, RawSamples> samples) {
        try {
            return read.evaluate(scope.over(samples, samples)) instanceof Value.Scalar s
                            && !s.quantity().unit().fits(target.unit())
                    ? Optional.of(s.quantity().unit())
                    : Optional.empty();
        } catch (FormulaException | IllegalArgumentException needsMore) {
            return Optional.empty();
        }
    }

    /** True where a value stands close enough. */
    public boolean isThere(double value) {
        return Math.abs(value - target.value()) <= band;
    }
}
