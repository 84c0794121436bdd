package eagerneedle.core.function;

import eagerneedle.core.fit.Curve;

/** What a fitted model says of the known names in it. */
interface Known {
    /**
     * What happens to all n ordinates when known things are a little different.
     *
     * @param parameters p values at which it is asked
     * @param held a difference for each quantity that is held, in its own unit
     * @param columns n differences for each known column, in its own unit
     */
    double[] effect(double[] parameters, double[] held, double[][] columns);

    /** The curve between the points. */
    Curve drawn();
}
