package eagerneedle.core.physics;

/** Where a run stands: everything that a formula of it may depend on. Not thread-safe. */
final class Moment {
    /** Time of the run, s. */
    double t;
    /** Time of the session, s. */
    double clock;
    /** The states, in coherent units. */
    double[] y;
    /** When each event happened last, s; not a number before. */
    final double[] happened;
    /** What a {@code root} is looking for, innermost last. */
    final double[] sought = new double[4];

    Moment(int states, int events) {
        y = new double[states];
        happened = new double[events];
        java.util.Arrays.fill(happened, Double.NaN);
    }
}
