package eagerneedle.core.trace;

import org.hipparchus.complex.Complex;
import org.hipparchus.transform.DftNormalization;
import org.hipparchus.transform.FastFourierTransformer;
import org.hipparchus.transform.TransformType;

/**
 * The amplitude spectrum of an evenly sampled trace, its mean taken out and a Hann window applied.
 *
 * @param frequency m frequencies in Hz, from 0 to half the sampling rate
 * @param amplitude m amplitudes of a sinusoid at each, in the trace's unit
 */
public record Spectrum(double[] frequency, double[] amplitude) {
    private static final int LONGEST = 1 << 20;

    /** @throws IllegalArgumentException for fewer than 8 samples */
    public static Spectrum of(Trace trace) {
        int n = Math.min(trace.size(), LONGEST);
        if (n < 8) {
            throw new IllegalArgumentException(
                    "A spectrum of " + trace.name() + " needs at least 8 samples; the window holds " + n + ".");
        }
        int length = Integer.highestOneBit(2 * n - 1) * 2;
        double mean = 0;
        for (int i = 0; i < n; i++) {
            mean += trace.value()[i] / n;
        }
        double[] padded = new double[length];
        double weight = 0;
        for (int i = 0; i < n; i++) {
            double w = 0.5 - 0.5 * Math.cos(2 * Math.PI * (i + 0.5) / n);
            padded[i] = w * (trace.value()[i] - mean);
            weight += w;
        }
        Complex[] f = new FastFourierTransformer(DftNormalization.STANDARD).transform(padded, TransformType.FORWARD);
        int m = length / 2 + 1;
        double[] frequency = new double[m];
        double[] amplitude = new double[m];
        for (int k = 0; k < m; k++) {
            frequency[k] = k / (length * trace.interval());
            amplitude[k] = 2 * Math.hypot(f[k].getReal(), f[k].getImaginary()) / weight;
        }
        return new Spectrum(frequency, amplitude);
    }

    /**
     * Frequency of the tallest line in Hz, between the bins by a parabola through the logarithms of three amplitudes.
     */
    public double peak() {
        int k = 1;
        for (int i = 1; i < amplitude.length - 1; i++) {
            k = amplitude[i] > amplitude[k] ? i : k;
        }
        if (k + 1 >= amplitude.length || !(amplitude[k - 1] > 0) || !(amplitude[k + 1] > 0)) {
            return frequency[k];
        }
        double a = Math.log(amplitude[k - 1]);
        double b = Math.log(amplitude[k]);
        double c = Math.log(amplitude[k + 1]);
        double shift = a - 2 * b + c == 0 ? 0 : 0.5 * (a - c) / (a - 2 * b + c);
        return frequency[k] + shift * (frequency[1] - frequency[0]);
    }
}
