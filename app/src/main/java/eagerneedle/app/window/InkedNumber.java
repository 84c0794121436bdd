package eagerneedle.app.window;

import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Printed;
import eagerneedle.core.quantity.Quantity;

/**
 * A number in the parts that stand in different inks.
 *
 * @param number with its point under the others; a dash where there is none
 */
record InkedNumber(String number, String uncertainty, String times, String unit) {
    /** Longest broken number that is shown whole of an exact quantity; its hover shows more. */
    private static final int MOST_FIGURES = 9;

    private static final int MOST_ALIGNED = 6;

    static InkedNumber none(int left) {
        return new InkedNumber(" ".repeat(Math.max(0, Math.min(MOST_ALIGNED, left) - 1)) + "—", "", "", "");
    }

    /** Points stand under each other where {@code left} is the most digits before one. */
    static InkedNumber of(Quantity q, int left) {
        Printed w = Printed.of(q);
        String number = w.uncertainty().isEmpty()
                        && w.number().contains(".")
                        && w.number().length() > MOST_FIGURES
                ? Notation.plain(q.to(w.unit()).value(), 6)
                : w.number();
        return new InkedNumber(
                " ".repeat(Math.max(0, Math.min(MOST_ALIGNED, left) - w.beforePoint())) + number,
                w.uncertainty(),
                w.times(),
                w.unit().pretty());
    }
}
