package eagerneedle.core.quantity;

/**
 * The shape of what is known about an influence, standardised to mean 0 and standard deviation 1 (JCGM 101:2008, table
 * 1).
 *
 * @param kind the family
 * @param parameter what the family needs beside its width: for {@link Distribution#TRAPEZOIDAL} the flat share of the
 *     width (0 to 1), for {@link Distribution#INEXACT_LIMITS} the half-width's own largest error as a share of it, for
 *     {@link Distribution#POISSON} the count; otherwise NaN
 * @param limitFactor largest believable error divided by the standard uncertainty, for the limits school; dimensionless
 */
public record Shape(Distribution kind, double parameter, double limitFactor) {
    public static Shape of(Distribution kind) {
        return new Shape(kind, Double.NaN, kind.limitFactor());
    }

    /** A trapezoid whose flat top takes the share {@code flat} of its base, 0 (triangle) to 1 (rectangle). */
    public static Shape trapezoidal(double flat) {
        if (!(flat >= 0 && flat <= 1)) {
            throw new IllegalArgumentException(
                    "The flat share of a trapezoid lies between 0 and 1, not at " + flat + ".");
        }
        return new Shape(Distribution.TRAPEZOIDAL, flat, Math.sqrt(6 / (1 + flat * flat)));
    }

    /** A rectangle of half-width a whose ends are themselves uncertain by ± {@code share} times a (JCGM 101, 6.4.3). */
    public static Shape inexactLimits(double share) {
        if (!(share >= 0 && share <= 1)) {
            throw new IllegalArgumentException(
                    "Limits can be inexact by a share between 0 and 1 of themselves, not by " + share + ".");
        }
        return new Shape(Distribution.INEXACT_LIMITS, share, (1 + share) / Math.sqrt(1.0 / 3 + share * share / 9));
    }

    /** A Poisson count of n events; a count of 0 is as uncertain as a count of 1. */
    public static Shape count(double n) {
        if (!(n >= 0)) {
            throw new IllegalArgumentException("A count cannot be " + n + ".");
        }
        return new Shape(Distribution.POISSON, n, Distribution.POISSON.limitFactor());
    }

    /** The same shape with another convention for its largest believable error. */
    public Shape withLimitFactor(double factor) {
        return new Shape(kind, parameter, factor);
    }
}
