package eagerneedle.core.quantity;

/**
 * The shape of what is known about an influence quantity (JCGM 101:2008, table 1).
 *
 * <p>{@link #limitFactor()} turns a standard uncertainty into the largest believable error that the limits school adds
 * up: for a bounded shape its half-width, for an unbounded one twice the standard uncertainty, a convention that the
 * program prints wherever it uses it. Where degrees of freedom are few, {@link Leaf#limitFactor()} takes more.
 */
public enum Distribution {
    NORMAL("normal", 2.0),
    STUDENT_T("t", 2.0),
    RECTANGULAR("rectangular", Math.sqrt(3)),
    TRIANGULAR("triangular", Math.sqrt(6)),
    TRAPEZOIDAL("trapezoidal", Math.sqrt(6)),
    INEXACT_LIMITS("rectangular with inexact limits", Math.sqrt(3)),
    ARCSINE("arcsine", Math.sqrt(2)),
    POISSON("Poisson count", 2.0);

    private final String label;
    private final double limitFactor;

    Distribution(String label, double limitFactor) {
        this.label = label;
        this.limitFactor = limitFactor;
    }

    public String label() {
        return label;
    }

    /** Largest believable error divided by the standard uncertainty; dimensionless. */
    public double limitFactor() {
        return limitFactor;
    }
}
