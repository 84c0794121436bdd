package eagerneedle.core.fit;

import eagerneedle.core.quantity.Notation;
import java.util.Optional;

/**
 * Looks for a pattern in residuals: the runs test (Wald and Wolfowitz 1940) on their signs in order of the abscissa
 * given.
 */
public final class Residuals {
    private static final int FEWEST = 10;
    private static final double SUSPICIOUS = 3.0;

    private Residuals() {}

    /**
     * One sentence when the residuals keep one sign longer than chance allows; empty otherwise or for fewer than 10
     * points.
     */
    public static Optional<String> remark(double[] residuals) {
        double z = runsScore(residuals);
        return z < -SUSPICIOUS
                ? Optional.of(Notation.sentence(
                        "The residuals follow a pattern (runs test %.1f): the model, or the window, does not "
                                + "describe the data.",
                        z))
                : Optional.empty();
    }

    /**
     * Standardised number of sign runs; strongly negative when residuals bend, about 0 without pattern, 0 for few
     * points.
     */
    public static double runsScore(double[] residuals) {
        int plus = 0;
        int minus = 0;
        int runs = 0;
        int last = 0;
        for (double r : residuals) {
            int sign = r > 0 ? 1 : r < 0 ? -1 : 0;
            if (sign == 0) {
                continue;
            }
            if (sign > 0) {
                plus++;
            } else {
                minus++;
            }
            if (sign != last) {
                runs++;
            }
            last = sign;
        }
        double n = plus + minus;
        if (n < FEWEST || plus == 0 || minus == 0) {
            return 0;
        }
        double expected = 2.0 * plus * minus / n + 1;
        double variance = (expected - 1) * (expected - 2) / (n - 1);
        return (runs - expected) / Math.sqrt(variance);
    }
}
