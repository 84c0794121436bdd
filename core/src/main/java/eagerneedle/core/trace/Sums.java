package eagerneedle.core.trace;

/**
 * Sums over a window about a value near its mean and about its first moment, so that little is lost when they are
 * brought to the true means; all in one pass.
 *
 * @param n samples
 * @param near value that samples are taken against
 * @param values of d = v - near
 * @param squares of d²
 * @param neighbours of d times the sum of the two d before it
 * @param further of d times the sum of the two d before those
 * @param times of dt = t - t[0], s
 * @param timeSquares of dt², s²
 * @param products of dt d
 * @param min least sample
 * @param max greatest sample
 */
record Sums(
        int n,
        double near,
        double values,
        double squares,
        double neighbours,
        double further,
        double times,
        double timeSquares,
        double products,
        double min,
        double max) {
    private static final int LOOKED_AT = 1024;

    static Sums of(double[] t, double[] v) {
        double near = near(v);
        Sums[] parts = Tiles.map(v.length, (from, to) -> block(t, v, near, from, to), Sums[]::new);
        return of(parts);
    }

    /** Those of blocks, added in their order. */
    static Sums of(Sums[] parts) {
        Sums all = parts[0];
        for (int i = 1; i < parts.length; i++) {
            all = all.and(parts[i]);
        }
        return all;
    }

    /** The mean of some samples from all over the window. */
    static double near(double[] v) {
        int stride = Math.max(1, v.length / LOOKED_AT);
        double sum = 0;
        int n = 0;
        for (int i = 0; i < v.length; i += stride) {
            sum += v[i];
            n++;
        }
        return sum / n;
    }

    /** Of one block. */
    static Sums block(double[] t, double[] v, double near, int from, int to) {
        double sum = 0;
        double squares = 0;
        double neighbours = 0;
        double further = 0;
        double st = 0;
        double stt = 0;
        double stv = 0;
        double start = t[0];
        double first = before(v, near, from, 1);
        double second = before(v, near, from, 2);
        double third = before(v, near, from, 3);
        double fourth = before(v, near, from, 4);
        double min = v[from];
        double max = v[from];
        for (int i = from; i < to; i++) {
            double x = v[i];
            // A new extreme is rare, which a processor foretells; what is no number is found in the sums.
            if (x < min) {
                min = x;
            }
            if (x > max) {
                max = x;
            }
            double d = x - near;
            double dt = t[i] - start;
            sum += d;
            squares += d * d;
            neighbours += d * (first + second);
            further += d * (third + fourth);
            st += dt;
            stt += dt * dt;
            stv += dt * d;
            fourth = third;
            third = second;
            second = first;
            first = d;
        }
        boolean isNumber = !Double.isNaN(sum);
        return new Sums(
                to - from,
                near,
                sum,
                squares,
                neighbours,
                further,
                st,
                stt,
                stv,
                isNumber ? min : Double.NaN,
                isNumber ? max : Double.NaN);
    }

    private static double before(double[] v, double near, int from, int lag) {
        return from < lag ? 0 : v[from - lag] - near;
    }

    private Sums and(Sums o) {
        return new Sums(
                n + o.n,
                near,
                values + o.values,
                squares + o.squares,
                neighbours + o.neighbours,
                further + o.further,
                times + o.times,
                timeSquares + o.timeSquares,
                products + o.products,
                Math.min(min, o.min),
                Math.max(max, o.max));
    }

    double mean() {
        return near + values / n;
    }

    /** Of deviations from the mean. */
    double squaresAboutMean() {
        return Math.max(0, squares - values * values / n);
    }

    double timeSquaresAboutMean() {
        return Math.max(0, timeSquares - times * times / n);
    }

    double productsAboutMeans() {
        return products - times * values / n;
    }

    /**
     * The correlations at two lags, added.
     *
     * @param v the samples, for those at the ends
     * @param lag the first of the two: 1 or 3
     */
    double pair(double[] v, int lag) {
        double m = values / n;
        double pair = lag == 1 ? neighbours : further;
        double ends = 0;
        for (int i = 0; i < Math.min(lag + 1, n); i++) {
            ends += v[i] - near + (v[n - 1 - i] - near);
            // Of all samples but so many at either end.
            if (i + 1 >= lag && n > i + 1) {
                pair += -m * (2 * values - ends) + (n - i - 1) * m * m;
            }
        }
        return pair / squaresAboutMean();
    }
}
