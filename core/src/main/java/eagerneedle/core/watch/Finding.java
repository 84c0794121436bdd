package eagerneedle.core.watch;

/**
 * What a watch has to say.
 *
 * @param rule which watch it is
 * @param severity how much it matters
 * @param channel the channel it concerns, empty for none
 * @param run the run it concerns, 0 for none
 * @param subject what else tells it from other findings of its rule: a window, a check, an edge; may be empty
 * @param message what is wrong, one sentence
 * @param cause the likely cause, one sentence
 * @param remedy what to do, one sentence
 * @param from first moment concerned, in seconds of the run; NaN for none
 * @param to last moment concerned
 */
public record Finding(
        Rule rule,
        Severity severity,
        String channel,
        int run,
        String subject,
        String message,
        String cause,
        String remedy,
        double from,
        double to) {
    /** How much it matters, most severe last. */
    public enum Severity {
        NOTE,
        ATTENTION,
        WRONG
    }

    /** What the rule is called. */
    public String watch() {
        return rule.label();
    }

    /** What this finding is known by, however it is worded: its rule, channel, run, and what it is about. */
    public String key() {
        return rule.label() + "/" + channel + "/" + run + "/" + subject;
    }

    /** The same about one of several things the rule looks at. */
    public Finding about(String what) {
        return new Finding(rule, severity, channel, run, what, message, cause, remedy, from, to);
    }

    /** The same with a cause that this time is better known. */
    public Finding because(String likely) {
        return new Finding(rule, severity, channel, run, subject, message, likely, remedy, from, to);
    }

    /** The same with another remedy. */
    public Finding remedied(String how) {
        return new Finding(rule, severity, channel, run, subject, message, cause, how, from, to);
    }

    /** The same about a channel by its name in the sheet, which no other channel has. */
    public Finding onChannel(String name) {
        return new Finding(rule, severity, name, run, subject, message, cause, remedy, from, to);
    }

    /** The same in the samples of a run that has a name. */
    public Finding in(String runName) {
        return new Finding(rule, severity, channel, run, subject, runName + ": " + message, cause, remedy, from, to);
    }

    /** The same, known and explained: it is a note from then on. */
    public Finding explained(String text) {
        return new Finding(
                rule,
                Severity.NOTE,
                channel,
                run,
                subject,
                message + (text.isBlank() ? " (acknowledged)" : " (explained: " + text + ")"),
                cause,
                remedy,
                from,
                to);
    }

    /** The finding in one line. */
    public String line() {
        return message + " " + remedy;
    }
}
