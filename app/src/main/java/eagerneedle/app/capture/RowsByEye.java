package eagerneedle.app.capture;

import eagerneedle.core.session.Run;

/**
 * Rows that somebody reads, where nothing is recorded: the next one waits with its fields open; kept, it makes room for
 * the one after it.
 */
final class RowsByEye {
    private final CaptureModel model;
    private final RunVerdict verdict;
    private String open = "";
    private String refused = "";

    /** @param verdict asks for what is read */
    RowsByEye(CaptureModel model, RunVerdict verdict) {
        this.model = model;
        this.verdict = verdict;
    }

    /** Opens the fields of what is read next; those that are open stay, with what stands in them. */
    void show() {
        Run blank = model.blank();
        String of = blank.id() + " " + blank.capture() + " " + blank.level();
        if (!of.equals(open)) {
            open = of;
            verdict.show(blank, model.plan().orElseThrow());
        }
    }

    /** Something else is captured now. */
    void leave() {
        open = "";
    }

    /** Keeps a row; what a rule of the sheet would not keep is asked about once. True when it was kept. */
    boolean keep(Run decided) {
        String why = model.refusal(decided);
        if (!why.isEmpty() && !refused.equals(why)) {
            refused = why;
            verdict.refuse(why);
            return false;
        }
        refused = "";
        open = "";
        model.keep(decided);
        return true;
    }
}
