package eagerneedle.core.session;

import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.Sheet;
import java.util.regex.Matcher;

/** What the notebook says of an act, in the names that people see: of runs, of captures and of levels. */
public final class Notebook {
    private Notebook() {}

    /**
     * The line of an act.
     *
     * @param session in which its runs are found
     * @param sheet which says what captures and levels are called
     */
    public static String line(Command act, Session session, Sheet sheet) {
        if (act instanceof RunCommand.KeepRun kept) {
            Run run = kept.run();
            Capture capture = sheet.captures().get(run.capture());
            return capture == null
                    ? act.says()
                    : act.says()
                            .replace(
                                    " (" + run.capture() + ", " + run.level() + ") ",
                                    " (" + capture.label() + ", " + level(capture, run.level()) + ") ");
        }
        if (act instanceof OfRun one) {
            return session.run(one.id())
                    .map(run ->
                            act.says().replaceFirst("\\brun " + one.id() + "\\b", Matcher.quoteReplacement(run.name())))
                    .orElseGet(act::says);
        }
        return act.says();
    }

    /** What people call a level. */
    public static String level(Capture capture, String level) {
        Capture.Level l = capture.levels().get(level);
        return l == null || l.label() == null ? level : l.label();
    }
}
