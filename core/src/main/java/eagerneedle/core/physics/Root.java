package eagerneedle.core.physics;

/**
 * Where a formula is zero between two values: by inverse quadratic interpolation where that can be trusted, within
 * bisection (Chandrupatla 1997, Advances in Engineering Software 28, 145), to the last digits.
 */
final class Root {
    private static final int MOST = 200;

    private Root() {}

    /** @return not a number where the formula has the same sign at both ends */
    static double of(Code f, Moment m, int level, double from, double to) {
        double a = from;
        double b = to;
        double fa = at(f, m, level, a);
        double fb = at(f, m, level, b);
        if (fa == 0 || fb == 0) {
            return fa == 0 ? a : b;
        }
        if (!(fa * fb < 0)) {
            return Double.NaN;
        }
        double share = 0.5;
        double best = a;
        for (int i = 0; i < MOST; i++) {
            double x = a + share * (b - a);
            double fx = at(f, m, level, x);
            double c = fx * fa > 0 ? a : b;
            double fc = fx * fa > 0 ? fa : fb;
            if (!(fx * fa > 0)) {
                b = a;
                fb = fa;
            }
            a = x;
            fa = fx;
            best = Math.abs(fa) < Math.abs(fb) ? a : b;
            double least = 2 * Math.ulp(best) / Math.abs(b - a);
            if (fa == 0 || least > 0.5 || Double.isNaN(fx)) {
                return fa == 0 ? a : best;
            }
            share = share(a, fa, b, fb, c, fc);
            share = Math.min(1 - least, Math.max(least, share));
        }
        return best;
    }

    /** How far to go from a to b: where the parabola through three values has its zero, or half way. */
    private static double share(double a, double fa, double b, double fb, double c, double fc) {
        double xi = (a - b) / (c - b);
        double phi = (fa - fb) / (fc - fb);
        return phi * phi < xi && (1 - phi) * (1 - phi) < 1 - xi
                ? fa / (fb - fa) * fc / (fb - fc) + (c - a) / (b - a) * fa / (fc - fa) * fb / (fc - fb)
                : 0.5;
    }

    private static double at(Code f, Moment m, int level, double x) {
        m.sought[level] = x;
        return f.at(m);
    }
}
