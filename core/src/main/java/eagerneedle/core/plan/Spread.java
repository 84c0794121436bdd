package eagerneedle.core.plan;

import java.util.function.DoubleUnaryOperator;
import org.hipparchus.analysis.solvers.BracketingNthOrderBrentSolver;

/** Levels of a factor spread evenly in the variable that will be plotted. */
public final class Spread {
    private Spread() {}

    /**
     * Settings of the factor, n of them, from one end to the other.
     *
     * @param plotted the plotted variable from the setting; only rises or only falls between the ends
     * @param from first setting
     * @param to last setting
     * @param n how many, at least 2
     * @throws IllegalArgumentException with one sentence when the plotted variable turns round between the ends
     */
    public static double[] levels(DoubleUnaryOperator plotted, double from, double to, int n) {
        if (n < 2) {
            throw new IllegalArgumentException("A spread needs at least 2 levels.");
        }
        double a = plotted.applyAsDouble(from);
        double b = plotted.applyAsDouble(to);
        double last = a;
        for (int i = 1; i <= 64; i++) {
            double v = plotted.applyAsDouble(from + (to - from) * i / 64);
            if (!((v - last) * (b - a) > 0)) {
                throw new IllegalArgumentException(
                        "The plotted variable turns round between the ends of the spread; choose ends on one side.");
            }
            last = v;
        }
        double[] levels = new double[n];
        for (int i = 0; i < n; i++) {
            double wanted = a + (b - a) * i / (n - 1);
            levels[i] = i == 0
                    ? from
                    : i == n - 1
                            ? to
                            : new BracketingNthOrderBrentSolver(
                                            1e-12 * Math.abs(to - from), 1e-12 * Math.abs(to - from), 5)
                                    .solve(
                                            200,
                                            x -> plotted.applyAsDouble(x) - wanted,
                                            Math.min(from, to),
                                            Math.max(from, to));
        }
        return levels;
    }
}
