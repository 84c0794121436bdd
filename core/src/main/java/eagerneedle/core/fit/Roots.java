package eagerneedle.core.fit;

import java.util.ArrayList;
import java.util.List;
import java.util.function.DoubleUnaryOperator;
import org.hipparchus.analysis.solvers.BracketingNthOrderBrentSolver;

/** All places in a range where a smooth function crosses zero, as far as a fine grid shows them. */
final class Roots {
    private static final int GRID = 400;

    private Roots() {}

    static double[] of(DoubleUnaryOperator f, double low, double high) {
        List<Double> roots = new ArrayList<>();
        double a = low;
        double fa = f.applyAsDouble(a);
        for (int i = 1; i <= GRID; i++) {
            double b = low + (high - low) * i / GRID;
            double fb = f.applyAsDouble(b);
            if (fb == 0) {
                roots.add(b);
            } else if (fa * fb < 0) {
                roots.add(new BracketingNthOrderBrentSolver(1e-15 * Math.max(Math.abs(a), Math.abs(b)), 1e-300, 5)
                        .solve(500, f::applyAsDouble, a, b));
            } else if (i == 1 && fa == 0) {
                roots.add(a);
            }
            a = b;
            fa = fb;
        }
        return roots.stream().mapToDouble(Double::doubleValue).toArray();
    }
}
