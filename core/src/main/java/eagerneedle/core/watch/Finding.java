package eagerneedle.core.watch;

/**
 * What a watch has to say.
 *
 * @param watch    which rule, for instance "out of range"
 * @param severity how much it matters
 * @param message  what is wrong, one sentence
 * @param cause    the likely cause, one sentence
 * @param remedy   what to do, one sentence
 * @param run      the run it concerns, 0 for none
 * @param from     first moment concerned, in seconds of the run; NaN for none
 * @param to       last moment concerned
 */
public record Finding(String watch, Severity severity, String message, String cause, String remedy, int run, double from, double to) {
    /** How much it matters, most severe last. */
    public enum Severity { NOTE, ATTENTION, WRONG }

    public static Finding ofSession(String watch, Severity severity, String message, String cause, String remedy) {
        return new Finding(watch, severity, message, cause, remedy, 0, Double.NaN, Double.NaN);
    }

    /** What this finding is known by, however it is worded: its rule, its run, about where, and whom it names. */
    public String key() {
        return watch + "/" + run + "/" + (Double.isNaN(from) ? "" : Math.round(10 * from)) + "/" + message.split(" ")[0];
    }

    /** The same, known and explained: it is a note from then on. */
    public Finding explained(String text) {
        return new Finding(watch, Severity.NOTE, message + (text.isBlank() ? " (acknowledged)" : " (explained: " + text + ")"), cause, remedy, run, from, to);
    }

    /** The finding in one line. */
    public String line() {
        return message + " " + remedy;
    }
}
