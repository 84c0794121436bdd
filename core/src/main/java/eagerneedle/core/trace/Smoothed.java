package eagerneedle.core.trace;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/** The mean over some samples about each. Neighbours of what comes out rest on the same samples. */
public final class Smoothed {
    private Smoothed() {}

    /**
     * Smooths; half the points are lost at each end.
     *
     * @param points odd, 3 or more
     * @throws IllegalArgumentException for an even number, or more than there are samples
     */
    public static Trace of(Trace t, int points) {
        if (points % 2 == 0) {
            throw new IllegalArgumentException(
                    "A mean about each sample takes an odd number of points, not " + points + ".");
        }
        if (t.size() < points) {
            throw new IllegalArgumentException(
                    "A mean over " + points + " points needs as many samples; the window holds " + t.size() + ".");
        }
        int half = points / 2;
        double[] time = Arrays.copyOfRange(t.time(), half, t.size() - half);
        List<Trace.Shared> shared = new ArrayList<>();
        for (Trace.Shared s : t.shared()) {
            shared.add(Trace.Shared.oneByOne(s.leaf(), time, means(s.onSamplesOf(t), points)));
        }
        // A step stays what it is for what all samples do together.
        return new Trace("smoothed " + t.name(), time, means(t.value(), points), t.unit(), t.step(), shared);
    }

    private static double[] means(double[] v, int points) {
        double[] out = new double[v.length - points + 1];
        for (int i = 0; i < out.length; i++) {
            double sum = 0;
            for (int k = 0; k < points; k++) {
                sum += v[i + k];
            }
            out[i] = sum / points;
        }
        return out;
    }
}
