package eagerneedle.core.judge;

import eagerneedle.core.quantity.Corners;
import eagerneedle.core.quantity.Coverage;
import eagerneedle.core.quantity.Interval;
import eagerneedle.core.quantity.MonteCarlo;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.quantity.Straightness;
import eagerneedle.core.quantity.UnitException;
import org.jspecify.annotations.Nullable;

/**
 * A result against a reference, under all three schools at once. What both share cancels in the difference.
 *
 * @param id identity in the sheet
 * @param label what is compared, in words
 * @param result the measured quantity
 * @param reference what it is compared with, in the unit of the result
 * @param coverage coverage probability of the standard-uncertainty school
 * @param threshold largest percent error that the method calls good, in percent; NaN if it states none
 * @param demand what is asked of it
 * @param drawn the Monte Carlo draws of the difference where first order is not good enough for it, otherwise null
 */
public record Comparison(
        String id,
        String label,
        Quantity result,
        Quantity reference,
        Coverage coverage,
        double threshold,
        Demand demand,
        @Nullable MonteCarlo drawn) {
    private static final double CERTAIN = 0.9999;

    /** @throws UnitException when the two are of different kinds */
    public static Comparison of(
            String id, String label, Quantity result, Quantity reference, Coverage coverage, double threshold) {
        return of(id, label, result, reference, coverage, threshold, Demand.AGREEMENT);
    }

    /** @throws UnitException when the two are of different kinds */
    public static Comparison of(
            String id,
            String label,
            Quantity result,
            Quantity reference,
            Coverage coverage,
            double threshold,
            Demand demand) {
        Quantity fitting = reference.to(result.unit());
        return new Comparison(
                id, label, result, fitting, coverage, threshold, demand, drawn(result.minus(fitting), coverage));
    }

    private static @Nullable MonteCarlo drawn(Quantity difference, Coverage coverage) {
        if (Straightness.of(difference)) {
            return null;
        }
        MonteCarlo m = MonteCarlo.of(difference, coverage, MonteCarlo.Settings.QUICK);
        return m.firstOrderIsGoodEnough() ? null : m;
    }

    /** Result minus reference, in the unit of the result. */
    public Quantity difference() {
        return result.minus(reference);
    }

    /** Difference in combined standard uncertainties; infinite when nothing is uncertain and they differ. */
    public double normalised() {
        Quantity d = difference();
        return d.value() == 0 ? 0 : d.value() / d.u();
    }

    /** Half-width of the agreement band in combined standard uncertainties: the coverage factor. */
    public double factor() {
        return difference().u() == 0
                ? coverage.factor(Double.POSITIVE_INFINITY)
                : coverage.factor(difference().dof());
    }

    /** Chance of a difference this large or larger, were there none; between 0 and 1. */
    public double chance() {
        return difference().u() == 0
                ? (difference().value() == 0 ? 1 : 0)
                : Coverage.tails(normalised(), difference().dof());
    }

    /**
     * How far the two intervals of the limits school overlap; negative is the gap between them. In the unit of the
     * result.
     */
    public double overlap() {
        return limits(result).overlap(limits(reference));
    }

    private String byDraws(MonteCarlo drawn, String unit) {
        if (drawn.undefined() > 0) {
            return noVerdict(drawn);
        }
        return ("%s %s %s: the %s %% interval of the difference by Monte Carlo runs from %s%s (first order is not "
                        + "good enough here).")
                .formatted(
                        Notation.bracket(result),
                        isInside(School.STANDARD) ? "agrees with" : "does not agree with",
                        Notation.bracket(reference),
                        Notation.plain(100 * coverage.probability(), 4),
                        Notation.interval(
                                drawn.symmetric().low(), drawn.symmetric().high()),
                        unit);
    }

    private static String noVerdict(MonteCarlo drawn) {
        return "No verdict: " + Character.toLowerCase(drawn.remark().charAt(0))
                + drawn.remark().substring(1);
    }

    private String byBound() {
        if (drawn != null && drawn.undefined() > 0) {
            return noVerdict(drawn);
        }
        double p = chanceOfKeeping();
        String side = demand.bound() == Demand.Side.BELOW ? "below" : "above";
        String chance = p > CERTAIN
                ? "more than " + Notation.fixed(99.99, 2)
                : p < 1 - CERTAIN ? "less than " + Notation.fixed(0.01, 2) : Notation.plain(100 * p, 3);
        return switch (conclusion(School.STANDARD)) {
            case KEEPS ->
                "%s lies %s %s, with a probability of %s %%."
                        .formatted(Notation.bracket(result), side, Notation.bracket(reference), chance);
            case BREAKS ->
                "%s does not lie %s %s: the probability that it does is %s %%."
                        .formatted(Notation.bracket(result), side, Notation.bracket(reference), chance);
            default ->
                "Nobody can tell whether %s lies %s %s: the probability is %s %%."
                        .formatted(Notation.bracket(result), side, Notation.bracket(reference), chance);
        };
    }

    private static Interval limits(Quantity q) {
        return Corners.of(q).interval();
    }

    /** {@code 9.81 ± 0.05}, or both ends where the limits do not lie evenly about the value. */
    private static String stated(Quantity q) {
        return q.isLinear()
                ? Notation.plusMinus(q.value(), q.limit())
                : "%s to %s"
                        .formatted(
                                Notation.plain(limits(q).low(), 5),
                                Notation.plain(limits(q).high(), 5));
    }

    /** Error against the reference in percent, signed; NaN for temperatures in degC, whose zero is arbitrary. */
    public double percent() {
        if (reference.unit().isAffine()) {
            return Double.NaN;
        }
        return 100 * difference().value() / Math.abs(reference.value());
    }

    /**
     * The smallest difference that matters, in the unit of the result: as the sheet says, or else the size of the
     * reference itself; NaN where the reference cannot be told from nothing.
     */
    public double matters() {
        return !Double.isNaN(demand.matters())
                        || drawn != null
                        || reference.unit().isAffine()
                        || isNothing(reference)
                ? demand.matters()
                : Math.abs(reference.value());
    }

    private boolean isNothing(Quantity q) {
        return Math.abs(q.value()) <= coverage.expanded(q);
    }

    /**
     * The chance that the result lies on the side of the bound where it should, 0 to 1; by the draws where first order
     * is not good enough. NaN where there is no bound, or draws without a value leave it open.
     */
    public double chanceOfKeeping() {
        if (demand.bound() == null) {
            return Double.NaN;
        }
        if (drawn != null) {
            double below = drawn.undefined() > 0 ? Double.NaN : drawn.shareBelow(0);
            return demand.bound() == Demand.Side.BELOW ? below : 1 - below;
        }
        Quantity d = difference();
        double sign = demand.bound() == Demand.Side.BELOW ? -1 : 1;
        if (d.u() == 0) {
            return sign * d.value() >= 0 ? 1 : 0;
        }
        double z = sign * d.value() / d.u();
        double tail = Coverage.tails(z, d.dof()) / 2;
        return z > 0 ? 1 - tail : tail;
    }

    /** True where the interval of the difference is wider than what matters, so that it shows nothing either way. */
    private boolean isTooUncertain() {
        double half = drawn == null
                ? coverage.expanded(difference())
                : (drawn.symmetric().high() - drawn.symmetric().low()) / 2;
        return half > matters();
    }

    /** What it comes to under a school. A bound is kept or broken with the coverage probability, or nobody can tell. */
    public Conclusion conclusion(School school) {
        if (demand.bound() != null) {
            double p = chanceOfKeeping();
            return p >= coverage.probability()
                    ? Conclusion.KEEPS
                    : p <= 1 - coverage.probability() ? Conclusion.BREAKS : Conclusion.CANNOT_TELL;
        }
        if (school == School.STANDARD && isInside(school) && isTooUncertain()) {
            return Conclusion.CANNOT_TELL;
        }
        return isInside(school) ? Conclusion.AGREES : Conclusion.DIFFERS;
    }

    /** True where the result is not as it should be, and this is certain enough to look for the cause. */
    public boolean isAmiss(School school) {
        Conclusion c = conclusion(school);
        return c == Conclusion.DIFFERS || c == Conclusion.BREAKS;
    }

    /** True where the result is as it should be: not where nobody can tell. */
    public boolean agrees(School school) {
        return conclusion(school).isGood();
    }

    private boolean isInside(School school) {
        return switch (school) {
            case STANDARD ->
                drawn != null
                        ? drawn.undefined() == 0 && drawn.symmetric().contains(0)
                        : Math.abs(normalised()) <= factor();
            case LIMITS -> overlap() >= 0;
            case PERCENT -> Double.isNaN(threshold) || Double.isNaN(percent()) || Math.abs(percent()) <= threshold;
        };
    }

    /** The verdict in one sentence fit for a report. */
    public String verdict(School school) {
        String unit =
                result.unit().pretty().isEmpty() ? "" : " " + result.unit().pretty();
        if (demand.bound() != null) {
            return byBound();
        }
        if (conclusion(school) == Conclusion.CANNOT_TELL) {
            return "Nobody can tell whether %s and %s agree: the difference %s%s is known no better than what matters, %s%s."
                    .formatted(
                            Notation.bracket(result),
                            Notation.bracket(reference),
                            Notation.plusMinus(difference().value(), coverage.expanded(difference())),
                            unit,
                            Notation.plain(matters(), 3),
                            unit);
        }
        return switch (school) {
            case STANDARD ->
                drawn != null
                        ? byDraws(drawn, unit)
                        : Notation.sentence(
                                "%s %s %s: the difference %s%s is %.2f combined standard uncertainties (limit of "
                                        + "agreement %.2f).",
                                Notation.bracket(result),
                                isInside(school) ? "agrees with" : "does not agree with",
                                Notation.bracket(reference),
                                Notation.plusMinus(difference().value(), coverage.expanded(difference())),
                                unit,
                                Math.abs(normalised()),
                                factor());
            case LIMITS ->
                agrees(school)
                        ? "%s%s and %s%s agree: the limits overlap by %s%s."
                                .formatted(
                                        stated(result),
                                        unit,
                                        stated(reference),
                                        unit,
                                        Notation.plain(overlap(), 2),
                                        unit)
                        : "%s%s and %s%s do not agree: a gap of %s%s lies between the limits."
                                .formatted(
                                        stated(result),
                                        unit,
                                        stated(reference),
                                        unit,
                                        Notation.plain(-overlap(), 2),
                                        unit);
            case PERCENT ->
                Double.isNaN(percent())
                        ? "A percentage of a temperature in " + reference.unit().pretty()
                                + " says nothing, since its zero is arbitrary; the difference is "
                                + Notation.bracket(difference()) + "."
                        : Notation.sentence(
                                "The percent error is %.2g %%%s; it says nothing of how well it was measured.",
                                percent(),
                                Double.isNaN(threshold)
                                        ? ""
                                        : (agrees(school) ? ", within" : ", beyond") + " the "
                                                + Notation.plain(threshold, 3) + " % the method allows");
        };
    }
}
