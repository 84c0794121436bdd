package eagerneedle.core.fit;

import java.util.Arrays;
import java.util.Optional;
import org.hipparchus.linear.RealMatrix;
import org.jspecify.annotations.Nullable;

/**
 * The parameters in which a curve is linear, at their best for given values of the others, by QR (separable least
 * squares, Golub and Pereyra 1973).
 */
final class LinearPart {
    private final NumberedCurve curve;
    private final double[] x;
    private final double[] y;
    private final Regression.Weights weights;
    private final int n;
    private final int p;

    LinearPart(NumberedCurve curve, double[] x, double[] y, Regression.Weights weights, int p) {
        this.curve = curve;
        this.x = x;
        this.y = y;
        this.weights = weights;
        this.n = y.length;
        this.p = p;
    }

    /**
     * The system of a curve that is linear in all its parameters, solved.
     *
     * @param whitener n by n, makes correlated points independent; null where they are
     */
    Decomposition all(@Nullable RealMatrix whitener) {
        double[][] design = new double[p][n];
        double[] target = rest(new double[p], design);
        weigh(target);
        for (double[] column : design) {
            weigh(column);
        }
        if (whitener != null) {
            for (int k = 0; k < p; k++) {
                design[k] = whitener.operate(design[k]);
            }
            target = whitener.operate(target);
        }
        return Decomposition.of(design, target);
    }

    /** The start with the marked parameters at their best; empty where the points do not fix them. */
    Optional<double[]> best(double[] start, boolean[] linear) {
        int m = 0;
        for (boolean l : linear) {
            m += l ? 1 : 0;
        }
        double[] out = start.clone();
        if (m == 0) {
            return Optional.of(out);
        }
        for (int k = 0; k < p; k++) {
            out[k] = linear[k] ? 0 : start[k];
        }
        double[][] all = new double[p][n];
        double[] target = rest(out, all);
        double[][] design = new double[m][];
        int column = 0;
        for (int k = 0; k < p; k++) {
            if (linear[k]) {
                design[column++] = all[k];
            }
        }
        weigh(target);
        for (double[] d : design) {
            weigh(d);
        }
        if (!finite(target) || !Arrays.stream(design).allMatch(LinearPart::finite)) {
            return Optional.empty();
        }
        Decomposition d = Decomposition.of(design, target);
        if (d.dependent >= 0) {
            return Optional.empty();
        }
        int c = 0;
        for (int k = 0; k < p; k++) {
            if (linear[k]) {
                out[k] = d.solution[c++];
            }
        }
        return Optional.of(out);
    }

    /** Fills the derivatives at these parameters; what the curve leaves of the ordinates is returned. */
    private double[] rest(double[] theta, double[][] derivatives) {
        double[] target = new double[n];
        curve.all(x, theta, target, derivatives, null);
        for (int i = 0; i < n; i++) {
            target[i] = y[i] - target[i];
        }
        return target;
    }

    private void weigh(double[] column) {
        for (int i = 0; i < n && weights.uY() != null; i++) {
            column[i] /= weights.uY()[i];
        }
    }

    private static boolean finite(double[] v) {
        for (double d : v) {
            if (!Double.isFinite(d)) {
                return false;
            }
        }
        return true;
    }
}
