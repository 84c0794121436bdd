package eagerneedle.core.judge;

import eagerneedle.core.quantity.Corners;
import eagerneedle.core.quantity.Coverage;
import eagerneedle.core.quantity.Interval;
import eagerneedle.core.quantity.MonteCarlo;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.quantity.Straightness;
import eagerneedle.core.quantity.UnitException;
import java.util.Locale;
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
 * @param drawn the Monte Carlo draws of the difference where first order is not good enough for it, otherwise null
 */
public record Comparison(
        String id,
        String label,
        Quantity result,
        Quantity reference,
        Coverage coverage,
        double threshold,
        @Nullable MonteCarlo drawn) {
    /** @throws UnitException when the two are of different kinds */
    public static Comparison of(
            String id, String label, Quantity result, Quantity reference, Coverage coverage, double threshold) {
        Quantity fitting = reference.to(result.unit());
        return new Comparison(id, label, result, fitting, coverage, threshold, drawn(result.minus(fitting), coverage));
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
            return "No verdict: " + Character.toLowerCase(drawn.remark().charAt(0))
                    + drawn.remark().substring(1);
        }
        return ("%s %s %s: the %s %% interval of the difference by Monte Carlo runs from %s%s (first order is not "
                        + "good enough here).")
                .formatted(
                        Notation.bracket(result),
                        agrees(School.STANDARD) ? "agrees with" : "does not agree with",
                        Notation.bracket(reference),
                        Notation.plain(100 * coverage.probability(), 4),
                        Notation.interval(
                                drawn.symmetric().low(), drawn.symmetric().high()),
                        unit);
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

    public boolean agrees(School school) {
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
        return switch (school) {
            case STANDARD ->
                drawn != null
                        ? byDraws(drawn, unit)
                        : ("%s %s %s: the difference %s%s is %.2f combined standard uncertainties (limit of "
                                        + "agreement %.2f).")
                                .formatted(
                                        Notation.bracket(result),
                                        agrees(school) ? "agrees with" : "does not agree with",
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
                        : String.format(
                                Locale.ROOT,
                                "The percent error is %.2g %%%s; it says nothing of how well it was measured.",
                                percent(),
                                Double.isNaN(threshold)
                                        ? ""
                                        : (agrees(school) ? ", within" : ", beyond") + " the "
                                                + Notation.plain(threshold, 3) + " % the method allows");
        };
    }
}
