package eagerneedle.app.capture;

import eagerneedle.core.capture.Prompts;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Reading;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.PromptPlan;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/**
 * Readings at set moments: which is due and when, which were taken, how late, which were skipped and entered
 * afterwards. The moment now comes in as an argument, in s on the clock of the run.
 */
final class PromptModel {
    private static final double NOTICEABLY_LATE = 0.05;
    private static final double FLASH = 0.3;

    private final PromptPlan plan;
    private Prompts prompts;
    private boolean running;
    private boolean byHand;
    private long samplesSeen;
    private int sounded;

    PromptModel(PromptPlan plan) {
        this.plan = plan;
        prompts = fresh();
    }

    private Prompts fresh() {
        return Prompts.of(plan.first(), plan.every(), plan.count());
    }

    /** Begins anew. @param typed true when the readings are typed, so that none can be taken by itself */
    void begin(boolean typed) {
        prompts = fresh();
        running = true;
        byHand = typed;
        samplesSeen = 0;
        sounded = -1;
    }

    void end() {
        running = false;
    }

    boolean isOver() {
        return prompts.over();
    }

    boolean canTake() {
        return running && !prompts.over();
    }

    /**
     * Takes the reading that is due.
     *
     * @param moment of the newest sample: what the instrument had seen when the key was pressed
     * @param samples how many samples there are by now
     * @throws IllegalArgumentException with one sentence when a reading is to be typed first
     */
    void take(double moment, long samples) {
        if (byHand && samples == samplesSeen) {
            throw new IllegalArgumentException("Type the reading first; entering it takes it.");
        }
        samplesSeen = samples;
        prompts = prompts.take(moment);
    }

    void skip() {
        prompts = prompts.skip();
    }

    /** Moves on to the moment now. @param byItself true when readings are taken by themselves */
    void look(double now, boolean byItself) {
        prompts = !byHand && byItself ? prompts.punctual(now) : prompts.passed(now);
    }

    /** True when a reading was typed that has not been taken. */
    boolean hasTyped(long samples) {
        return byHand && canTake() && samples > samplesSeen;
    }

    int marks() {
        return prompts.marks().size();
    }

    /**
     * True once for each moment: when its tone is to sound.
     *
     * @param before how many marks there were when it was looked at last
     */
    boolean soundsNow(double now, int before, boolean byItself) {
        int next = marks();
        boolean due = !prompts.over() && prompts.toGo(now) <= 0 && sounded < next;
        boolean taken = byItself && next > before && sounded < before;
        if (due || taken) {
            sounded = taken ? before : next;
            return true;
        }
        return false;
    }

    /** How near the next reading is. */
    enum Nearness {
        FAR,
        NEAR,
        NOW
    }

    Nearness nearness(double now) {
        if (!canTake() || prompts.toGo(now) > plan.countdown()) {
            return Nearness.FAR;
        }
        return prompts.toGo(now) <= FLASH ? Nearness.NOW : Nearness.NEAR;
    }

    /** The countdown. */
    String count(double now) {
        if (prompts.over()) {
            return "done";
        }
        if (!running) {
            return plan.count() + " readings";
        }
        double toGo = prompts.toGo(now);
        return toGo < 0 ? Notation.sentence("%.0f s late", -toGo) : Notation.sentence("%.0f s", Math.ceil(toGo));
    }

    /** Which reading is due when. */
    String says() {
        if (!running) {
            return "Every " + plain(plan.every()) + " s from " + plain(plan.first()) + " s on.";
        }
        if (prompts.over()) {
            return "";
        }
        return "Reading " + (marks() + 1) + " of " + plan.count() + " is due at " + plain(prompts.due(marks())) + " s"
                + (byHand ? "; type it when it is due." : ".");
    }

    private static String plain(double v) {
        return Notation.plain(v, 4);
    }

    /** One reading that was taken or skipped, in words. */
    record Done(String words, boolean skipped) {}

    List<Done> done() {
        List<Done> out = new ArrayList<>();
        for (Prompts.Mark m : prompts.marks()) {
            String due = plain(m.due()) + " s";
            out.add(
                    m.taken() == null
                            ? new Done(due + " skipped", true)
                            : new Done(
                                    "● " + due
                                            + (Math.abs(m.late()) < NOTICEABLY_LATE
                                                    ? ""
                                                    : String.format(Locale.ROOT, " %+.1f s", m.late()))
                                            + (m.value() == null ? "" : ": " + m.value()),
                                    false));
        }
        return out;
    }

    /** When a reading was due, as text. */
    String due(int i) {
        return plain(prompts.due(i));
    }

    /**
     * Enters a skipped reading afterwards.
     *
     * @throws IllegalArgumentException with one sentence when it cannot be read
     */
    void enterLate(int i, String moment, String value) {
        Reading.parse(value);
        double at;
        try {
            at = Double.parseDouble(moment.strip());
        } catch (NumberFormatException e) {
            throw new IllegalArgumentException("'" + moment + "' is not a moment in seconds.", e);
        }
        prompts = prompts.late(i, at, value.strip());
    }

    /** The run with the marks as they are now: late entries come in until it is kept. */
    Run marked(Run run) {
        return run.entered(run.entries().marked(prompts.marks()));
    }
}
