package eagerneedle.core.trace;

import java.util.function.ToDoubleFunction;

/**
 * How much an answer depends on where exactly its window lies: both edges move, apart and together, and the answer is
 * computed each time.
 *
 * @param nominal the answer for the window as it is
 * @param low least answer
 * @param high greatest answer
 */
public record WindowSensitivity(double nominal, double low, double high) {
    private static final int STEPS = 2;

    /**
     * Moves both edges by up to a share of the window's length, in {@value #STEPS} steps each way.
     *
     * @param trace the whole run
     * @param share 0 to 0.5
     * @param answer from the windowed trace, any number
     */
    public static WindowSensitivity of(Trace trace, Window window, double share, ToDoubleFunction<Trace> answer) {
        if (!(share >= 0 && share <= 0.5)) {
            throw new IllegalArgumentException(
                    "An edge may move by a share between 0 and 50 % of its window, not by " + 100 * share + " %.");
        }
        double nominal = answer.applyAsDouble(trace.within(window));
        double low = nominal;
        double high = nominal;
        double first = trace.time()[0];
        double last = trace.time()[trace.size() - 1];
        for (int a = -STEPS; a <= STEPS; a++) {
            for (int b = -STEPS; b <= STEPS; b++) {
                double from = Math.max(first, window.from() + a * share * window.length() / STEPS);
                double to = Math.min(last, window.to() + b * share * window.length() / STEPS);
                double v = answer.applyAsDouble(trace.within(new Window(from, to, window.reason())));
                low = Math.min(low, v);
                high = Math.max(high, v);
            }
        }
        return new WindowSensitivity(nominal, low, high);
    }

    /** Half of the whole spread: a largest believable error from the choice of window. */
    public double halfRange() {
        return (high - low) / 2;
    }
}
