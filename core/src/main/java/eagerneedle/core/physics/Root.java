package eagerneedle.core.physics;

/** Where a formula is zero between two values: by false position after Illinois, within bisection. */
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
        double x = a;
        for (int i = 0; i < MOST && Math.abs(b - a) > 4 * Math.ulp(Math.max(Math.abs(a), Math.abs(b))); i++) {
            // Every third step halves, so that a flat formula is found too.
            x = i % 3 == 2 ? (a + b) / 2 : (a * fb - b * fa) / (fb - fa);
            double fx = at(f, m, level, x);
            if (fx == 0) {
                return x;
            }
            if (fx * fb < 0) {
                a = b;
                fa = fb;
            } else {
                fa /= 2;
            }
            b = x;
            fb = fx;
        }
        return x;
    }

    private static double at(Code f, Moment m, int level, double x) {
        m.sought[level] = x;
        return f.at(m);
    }
}
