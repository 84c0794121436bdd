package eagerneedle.core.fit;

/**
 * A vector of numbers of about 32 digits, each the sum of two doubles (Dekker 1971; Knuth's two-sum, products by fused
 * multiply-add). Single numbers are pairs {@code {high, low}}.
 */
final class TwoDoubles {
    final double[] high;
    final double[] low;

    TwoDoubles(int n) {
        high = new double[n];
        low = new double[n];
    }

    double[] dot(TwoDoubles other) {
        double sum = 0;
        double rest = 0;
        for (int i = 0; i < high.length; i++) {
            double p = high[i] * other.high[i];
            double pe = Math.fma(high[i], other.high[i], -p) + high[i] * other.low[i] + low[i] * other.high[i];
            double s = sum + p;
            double b = s - sum;
            rest += sum - (s - b) + (p - b) + pe;
            sum = s;
        }
        return normal(sum, rest);
    }

    /** Takes factor times another vector from this one. */
    void subtract(double[] factor, TwoDoubles other) {
        for (int i = 0; i < high.length; i++) {
            double p = factor[0] * other.high[i];
            double pe = Math.fma(factor[0], other.high[i], -p) + factor[0] * other.low[i] + factor[1] * other.high[i];
            double s = high[i] - p;
            double b = s - high[i];
            double e = high[i] - (s - b) - (p + b) + low[i] - pe;
            high[i] = s + e;
            low[i] = e - (high[i] - s);
        }
    }

    void divide(double[] divisor) {
        for (int i = 0; i < high.length; i++) {
            double[] q = over(new double[] {high[i], low[i]}, divisor);
            high[i] = q[0];
            low[i] = q[1];
        }
    }

    private static double[] normal(double high, double low) {
        double s = high + low;
        return new double[] {s, low - (s - high)};
    }

    static double[] times(double[] a, double[] b) {
        double p = a[0] * b[0];
        return normal(p, Math.fma(a[0], b[0], -p) + a[0] * b[1] + a[1] * b[0]);
    }

    static double[] minus(double[] a, double[] b) {
        double s = a[0] - b[0];
        double bb = s - a[0];
        return normal(s, a[0] - (s - bb) - (b[0] + bb) + a[1] - b[1]);
    }

    static double[] over(double[] a, double[] b) {
        double q = a[0] / b[0];
        double[] r = minus(a, times(new double[] {q, 0}, b));
        return normal(q, r[0] / b[0]);
    }

    static double[] sqrt(double[] a) {
        double s = Math.sqrt(a[0]);
        double[] r = minus(a, times(new double[] {s, 0}, new double[] {s, 0}));
        return s == 0 ? new double[] {0, 0} : normal(s, r[0] / (2 * s));
    }
}
