package eagerneedle.core.physics;

/**
 * One step of the pair of order 5 and 4 by Dormand and Prince (1980), with the continuous extension of order 4 by
 * Hairer, Norsett and Wanner, Solving Ordinary Differential Equations I, 2nd ed., II.6 (contd5). Fixed order of sums.
 */
final class DormandPrince {
    private static final double[] C = {0, 1.0 / 5, 3.0 / 10, 4.0 / 5, 8.0 / 9, 1, 1};
    private static final double[][] A = {
        {},
        {1.0 / 5},
        {3.0 / 40, 9.0 / 40},
        {44.0 / 45, -56.0 / 15, 32.0 / 9},
        {19372.0 / 6561, -25360.0 / 2187, 64448.0 / 6561, -212.0 / 729},
        {9017.0 / 3168, -355.0 / 33, 46732.0 / 5247, 49.0 / 176, -5103.0 / 18656},
        {35.0 / 384, 0, 500.0 / 1113, 125.0 / 192, -2187.0 / 6784, 11.0 / 84}
    };
    private static final double[] E = {
        71.0 / 57600, 0, -71.0 / 16695, 71.0 / 1920, -17253.0 / 339200, 22.0 / 525, -1.0 / 40
    };
    private static final double[] D = {
        -12715105075.0 / 11282082432.0,
        0,
        87487479700.0 / 32700410799.0,
        -10690763975.0 / 1880347072.0,
        701980252875.0 / 199316789632.0,
        -1453857185.0 / 822651844.0,
        69997945.0 / 29380423.0
    };

    /** The right-hand side of the equations. */
    interface Rates {
        /** Fills {@code rate} for a time in s and states. */
        void at(double t, double[] y, double[] rate);
    }

    private final Rates rates;
    private final int n;
    private final double[][] k;
    private final double[] stage;
    private final double[] start;
    private final double[] end;
    private double from;
    private double width;

    DormandPrince(Rates rates, int n) {
        this.rates = rates;
        this.n = n;
        this.k = new double[7][n];
        this.stage = new double[n];
        this.start = new double[n];
        this.end = new double[n];
    }

    /** Tries a step from the states at a time; they are not changed. */
    void tried(double t, double[] y, double h) {
        from = t;
        width = h;
        System.arraycopy(y, 0, start, 0, n);
        rates.at(t, y, k[0]);
        for (int s = 1; s < 7; s++) {
            for (int i = 0; i < n; i++) {
                double sum = 0;
                for (int j = 0; j < s; j++) {
                    sum += A[s][j] * k[j][i];
                }
                stage[i] = y[i] + h * sum;
            }
            rates.at(t + C[s] * h, stage, k[s]);
        }
        System.arraycopy(stage, 0, end, 0, n);
    }

    /** The error of the step tried, in units of what is allowed; root mean square over the states. */
    double error(double[] allowed) {
        double sum = 0;
        for (int i = 0; i < n; i++) {
            double e = 0;
            for (int s = 0; s < 7; s++) {
                e += E[s] * k[s][i];
            }
            double share = width * e / allowed[i];
            sum += share * share;
        }
        return Math.sqrt(sum / n);
    }

    /** The states at the end of the step tried. */
    double[] end() {
        return end;
    }

    /** Fills in the states within the step tried, at a share of it from 0 to 1. */
    void within(double share, double[] out) {
        double rest = 1 - share;
        for (int i = 0; i < n; i++) {
            double whole = end[i] - start[i];
            double bend = width * k[0][i] - whole;
            double far = whole - width * k[6][i] - bend;
            double last = 0;
            for (int s = 0; s < 7; s++) {
                last += D[s] * k[s][i];
            }
            out[i] = start[i] + share * (whole + rest * (bend + share * (far + rest * width * last)));
        }
    }

    double from() {
        return from;
    }

    double width() {
        return width;
    }
}
