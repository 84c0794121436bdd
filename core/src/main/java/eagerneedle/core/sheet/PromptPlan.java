package eagerneedle.core.sheet;

/**
 * Readings at set moments.
 *
 * @param first s from the start of the run; {@code every} when not said
 * @param every s from one to the next
 * @param count how many
 * @param countdown s of counting down before each
 * @param seconds s of samples averaged into a reading
 * @param by key or itself: whether a person takes it or the program
 */
public record PromptPlan(Double first, double every, int count, double countdown, double seconds, String by) {
    public PromptPlan {
        first = first == null ? Double.valueOf(every) : first;
        countdown = countdown <= 0 ? Math.min(5, every / 2) : countdown;
        seconds = seconds <= 0 ? Math.min(1, every / 4) : seconds;
        by = by == null ? "itself" : by;
    }
}
