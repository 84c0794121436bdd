package eagerneedle.core.marking;

/**
 * How likely a wrong number comes about without any of the causes that are known, and how likely each of those is made.
 * A cause is named only where it is ten times as likely as coincidence.
 *
 * <p>A number without a known cause lies anywhere within two powers of ten about the right one, or near it: half its
 * probability is spread evenly over the logarithm, half falls off exponentially from the right value over a tenth of
 * it, or over three standard uncertainties where that is more. What is written is such a number rounded, so that its
 * probability is the density times the worth of one in its last digit: with two digits almost anything explains
 * anything, with four hardly.
 */
final class Chance {
    /** How many times likelier than coincidence a cause must be. */
    static final double ENOUGH = 10;

    /** Share of wrong numbers that have no known cause. */
    private static final double UNKNOWN = 0.3;

    private static final double DECADES = 2;
    private static final double NEAR = 0.1;
    private static final double BEYOND = 0.1;

    private final double right;
    private final double scale;

    /** @param u standard uncertainty of the right value */
    Chance(double right, double u) {
        this.right = right;
        scale = Math.max(Math.max(NEAR * Math.abs(right), 3 * (Double.isFinite(u) ? u : 0)), Double.MIN_NORMAL);
    }

    /** How likely it is that a number without a known cause is written so. */
    double coincidence(double value, double step) {
        return UNKNOWN * anywhere(value, step);
    }

    /** How likely a number that nothing is known of falls into one step of the last digit. */
    double anywhere(double value, double step) {
        double near = Math.exp(-Math.abs(value - right) / scale) / (2 * scale);
        return Math.min(1, 0.5 * (near + far(value)) * step);
    }

    /** Evenly over the logarithm within the two powers of ten, and hardly ever beyond; of either sign. */
    private double far(double value) {
        if (value == 0) {
            return 0;
        }
        boolean within = right != 0 && Math.abs(Math.log10(Math.abs(value / right))) <= DECADES / 2;
        return (within ? 1 : BEYOND) / (2 * Math.abs(value) * DECADES * Math.log(10));
    }

    /**
     * How likely a cause is made, among all that are wrong.
     *
     * @param among how many of its kind there are
     */
    static double made(Change.Kind kind, int among) {
        double all = switch (kind) {
            case WAY -> 0.5;
            case MISTAKE -> 0.4;
            case SLIP -> 0.15;
            case PAIR -> 0.1;
            case ROW -> 0.03;
            case OTHERS -> 0.02;
        };
        return all / Math.max(1, among);
    }
}
