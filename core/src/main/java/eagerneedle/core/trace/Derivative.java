package eagerneedle.core.trace;

import eagerneedle.core.quantity.LabUnit;
import java.util.ArrayList;
import java.util.List;
import org.hipparchus.linear.MatrixUtils;
import org.hipparchus.linear.QRDecomposition;
import org.hipparchus.linear.RealMatrix;

/**
 * The rate of change of a trace by sliding polynomial fits (Savitzky and Golay 1964), and how much noise that makes.
 *
 * <p>Neighbouring derivatives rest on the same samples, so their noise is correlated over the width of the slide;
 * statistics of the trace that comes out know that through its autocorrelation.
 *
 * @param trace the derivative at every sample but those half a slide from the ends, in the trace's unit per second
 * @param gain standard deviation of one derivative per standard deviation of one sample, for white noise; in 1/s
 */
public record Derivative(Trace trace, double gain) {
    /**
     * Differentiates.
     *
     * @param points odd number of samples under the slide, above the degree
     * @param degree of the sliding polynomial, 1 or more
     * @throws IllegalArgumentException for a slide that does not fit
     */
    public static Derivative of(Trace in, int points, int degree) {
        if (points % 2 == 0 || points <= degree || degree < 1) {
            throw new IllegalArgumentException("A derivative slides over an odd number of points above the degree, not "
                    + points + " points of degree " + degree + ".");
        }
        if (in.size() < points) {
            throw new IllegalArgumentException("A derivative over " + points
                    + " points needs as many samples; the window holds " + in.size() + ".");
        }
        double dt = in.interval();
        double[] weights = weights(points, degree);
        int half = points / 2;
        int n = in.size() - 2 * half;
        double[] time = new double[n];
        double[] rate = new double[n];
        double perSecond = 1 / dt;
        for (int i = 0; i < n; i++) {
            double sum = 0;
            for (int k = 0; k < points; k++) {
                sum += weights[k] * in.value()[i + k];
            }
            time[i] = in.time()[i + half];
            rate[i] = sum * perSecond * in.unit().factor();
        }
        double squares = 0;
        for (double w : weights) {
            squares += w * w;
        }
        LabUnit unit = in.unit().coherent().per(LabUnit.SECOND);
        List<Trace.Shared> shared = new ArrayList<>();
        for (Trace.Shared s : in.shared()) {
            if (s.moments() != null) {
                shared.add(Trace.Shared.oneByOne(s.leaf(), time, slopes(in, s, weights, perSecond)));
                continue;
            }
            double perUnit =
                    s.contribution().applyAsDouble(1) - s.contribution().applyAsDouble(0);
            if (perUnit != 0) {
                shared.add(new Trace.Shared(s.leaf(), v -> perUnit * v));
            }
        }
        return new Derivative(
                new Trace("rate of " + in.name(), time, rate, unit, 0, shared), Math.sqrt(squares) * perSecond);
    }

    private static double[] slopes(Trace in, Trace.Shared s, double[] weights, double perSecond) {
        double[] out = new double[in.size() - weights.length + 1];
        for (int i = 0; i < out.length; i++) {
            for (int k = 0; k < weights.length; k++) {
                out[i] += weights[k]
                        * s.at(in.time()[i + k], in.value()[i + k])
                        * perSecond
                        * in.unit().factor();
            }
        }
        return out;
    }

    /** Weights of the samples for the slope at the middle, for unit spacing. */
    private static double[] weights(int points, int degree) {
        int half = points / 2;
        double[][] design = new double[points][degree + 1];
        for (int i = 0; i < points; i++) {
            for (int k = 0; k <= degree; k++) {
                design[i][k] = Math.pow((i - half) / (double) half, k);
            }
        }
        RealMatrix pseudo = new QRDecomposition(MatrixUtils.createRealMatrix(design))
                .getSolver()
                .getInverse();
        double[] out = pseudo.getRow(1);
        for (int i = 0; i < points; i++) {
            out[i] /= half;
        }
        return out;
    }
}
