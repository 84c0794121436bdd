package eagerneedle.core.session;

import eagerneedle.core.sheet.Sheet;
import java.util.Set;

/** A change of the session's own sheet; the sheet from before stays in the bench file with the acts that follow it. */
public sealed interface SheetCommand extends Command {
    /**
     * Puts another text in the place of the sheet's. Whether it is a good sheet, and has room for the runs that were
     * taken, is looked at by whoever reads it; see {@link #lacking}.
     *
     * @param text the sheet, whole
     * @param what was changed, one sentence
     */
    record Write(String text, String what) implements SheetCommand {
        @Override
        public Session apply(Session s) {
            return s.withSheetText(text);
        }

        @Override
        public String says() {
            return what;
        }
    }

    /** What a session needs of its sheet and does not find in it, one sentence; empty when it finds everything. */
    static String lacking(Session session, Sheet sheet) {
        for (Run run : session.runs()) {
            var capture = sheet.captures().get(run.capture());
            if (capture == null) {
                return run.name() + " was taken as '" + run.capture() + "', and the sheet would have no such capture.";
            }
            if (!capture.levels().isEmpty() && !capture.levels().containsKey(run.level())) {
                return run.name() + " was taken at '" + run.level() + "', and '" + run.capture()
                        + "' would have no such level.";
            }
        }
        Set<String> channels = sheet.channels().keySet();
        return session.calibrations().stream()
                .map(c -> c.channel())
                .filter(c -> !channels.contains(c))
                .findFirst()
                .map(c -> "The channel '" + c + "' was calibrated, and the sheet would have none of that name.")
                .orElse("");
    }
}
