package eagerneedle.core.fit;

import java.util.Arrays;
import java.util.stream.IntStream;

/**
 * In which of its parameters a curve is linear: those whose derivatives stay the same, digit for digit, while all of
 * them are changed. Looked at in forty of the points.
 */
final class Linearity {
    private static final int PROBES = 40;
    private static final double SAME = 1e-11;

    private final NumberedCurve probed;
    private final double[] at;
    private final int p;

    Linearity(NumberedCurve curve, double[] x, int p) {
        int stride = Math.max(1, x.length / PROBES);
        int[] probes = IntStream.iterate(0, i -> i < x.length, i -> i + stride).toArray();
        this.at = Arrays.stream(probes).mapToDouble(i -> x[i]).toArray();
        this.probed = curve.over(probes);
        this.p = p;
    }

    /** True for the parameters in which the curve is linear, all of them together. */
    boolean[] from(double[] start) {
        boolean[] linear = new boolean[p];
        for (int k = 0; k < p; k++) {
            linear[k] = true;
            linear[k] = unchanged(start, linear);
        }
        return linear;
    }

    /** True when every parameter is marked. */
    static boolean all(boolean[] marked) {
        for (boolean m : marked) {
            if (!m) {
                return false;
            }
        }
        return true;
    }

    /** True when the derivatives by the marked parameters stay the same while all of those parameters change. */
    private boolean unchanged(double[] start, boolean[] marked) {
        double[] moved = start.clone();
        for (int k = 0; k < p; k++) {
            if (marked[k]) {
                moved[k] = start[k] == 0 ? 0.37 + 0.1 * k : start[k] * (1.37 + 0.11 * k);
            }
        }
        double[][] here = new double[p][at.length];
        double[][] there = new double[p][at.length];
        double[] value = new double[at.length];
        probed.all(at, start, value, here, null);
        probed.all(at, moved, value, there, null);
        boolean[] acts = new boolean[p];
        for (int k = 0; k < p; k++) {
            for (int i = 0; i < at.length; i++) {
                if (marked[k] && !(Math.abs(here[k][i] - there[k][i]) <= SAME * Math.abs(here[k][i]))) {
                    return false;
                }
                acts[k] |= here[k][i] != 0;
            }
        }
        for (int k = 0; k < p; k++) {
            if (marked[k] && !acts[k]) {
                return false;
            }
        }
        return true;
    }
}
