package eagerneedle.core.watch;

import eagerneedle.core.watch.Finding.Severity;

/**
 * The watches: every rule that looks at samples or at a session, with what usually is the matter and what to do. There
 * is no other list; the catalogue in the documents is held against this one.
 *
 * <p>A rule that sees more tells a cause or a remedy of its own with its finding.
 */
public enum Rule {
    SATURATED(
            "saturated",
            Looks.LIVE_AND_STORED,
            Severity.WRONG,
            "Gain, range or offset do not suit the signal.",
            "Choose a wider range or a smaller gain at Rig; these samples are lost."),
    OPEN(
            "open",
            Looks.LIVE_AND_STORED,
            Severity.WRONG,
            "A lead is open: broken, loose or not connected.",
            "Check the lead and its terminals, then capture again."),
    SHORTED(
            "shorted",
            Looks.LIVE_AND_STORED,
            Severity.WRONG,
            "The leads touch each other: the sensor is shorted.",
            "Check the lead and its terminals, then capture again."),
    OUT_OF_RANGE(
            "out of range",
            Looks.LIVE_AND_STORED,
            Severity.WRONG,
            "It shows more than its sensor can give: a lead is open, or touches an earthed part or another conductor.",
            "Look along the leads: connected at both ends, insulated from the can and from each other. Then "
                    + "capture again."),
    DEAD(
            "dead",
            Looks.LIVE_AND_STORED,
            Severity.WRONG,
            "The sensor is asleep, unplugged or held by its own buffer.",
            "Wake it or check its lead, then capture again."),
    CONVERTER_LIMITED(
            "converter-limited",
            Looks.LIVE_AND_STORED,
            Severity.NOTE,
            "The step is larger than the noise, so that averaging does not help.",
            "Choose a narrower range or more gain at Rig if a finer reading is wanted."),
    DROPPED_SAMPLES(
            "dropped samples",
            Looks.LIVE_AND_STORED,
            Severity.ATTENTION,
            "The connection was interrupted or could not keep up.",
            "Times of the others are right; check the lead if it happens again."),
    CLOCK_JITTER(
            "clock jitter",
            Looks.LIVE_AND_STORED,
            Severity.ATTENTION,
            "The instrument is busy, or the computer stamps the samples in its place.",
            "Rates of change from it are doubtful; sample more slowly or let the instrument keep the time."),
    LIMIT_NEAR(
            "limit near",
            Looks.LIVE_AND_STORED,
            Severity.ATTENTION,
            "The load, pressure, speed or drive was set too high.",
            "Go back now; look what it was exposed to before going on."),
    LIMIT_PASSED(
            "limit passed",
            Looks.LIVE_AND_STORED,
            Severity.WRONG,
            "The load, pressure, speed or drive was set too high.",
            "Go back now; look what it was exposed to before going on."),
    REVERSED(
            "reversed",
            Looks.LIVE_AND_STORED,
            Severity.WRONG,
            "Its leads are reversed, or the wire colours are of another standard.",
            "Exchange the two leads and touch it to see."),
    REFERENCE_LOST(
            "reference lost",
            Looks.LIVE_AND_STORED,
            Severity.WRONG,
            "The reference is not what it was: the ice is gone, a door is open, the junction is not in it.",
            "Renew the reference and take the run again."),
    SWAPPED(
            "swapped",
            Looks.LIVE_AND_STORED,
            Severity.WRONG,
            "Their leads or their tags are exchanged.",
            "Touch one to identify it at Rig and exchange the tags."),
    OUTSIDE_ITS_BAND(
            "outside its band",
            Looks.LIVE_AND_STORED,
            Severity.WRONG,
            "Its leads are reversed, it is on another input, or it is not where its tag says.",
            "Touch it to identify it at Rig, and look at its polarity."),
    UNDERSAMPLED(
            "undersampled",
            Looks.LIVE_AND_STORED,
            Severity.ATTENTION,
            "The signal is faster than the sampling rate; what is seen may be an alias.",
            "Sample at least ten times as fast as the fastest thing of interest."),
    MAINS_HUM(
            "mains hum",
            Looks.LIVE_AND_STORED,
            Severity.ATTENTION,
            "The mains reach the leads: their shield is off, or the instrument's rejection of the mains is "
                    + "switched off.",
            "Shield and twist the leads, switch the mains rejection on, and take the run again."),
    CONTACT(
            "contact",
            Looks.LIVE_AND_STORED,
            Severity.ATTENTION,
            "A hanging part touches, a peg slipped, or the bench was knocked.",
            "Free the part and take the row again, or move the window away from the jump."),
    NOT_STEADY(
            "not steady",
            Looks.LIVE_AND_STORED,
            Severity.ATTENTION,
            "It was taken before it had settled.",
            "Leave the row out at Reduce and take another once it is steady."),
    MISSED_EDGE(
            "missed edge",
            Looks.LIVE_AND_STORED,
            Severity.ATTENTION,
            "A spoke or flag passed beside the beam, or the train was not steady.",
            "Set the gate so that every edge crosses the middle of the beam; periods leave such edges out by "
                    + "themselves."),
    DOUBLE_EDGE(
            "double edge",
            Looks.LIVE_AND_STORED,
            Severity.ATTENTION,
            "A reflection, or an edge that is not sharp.",
            "Set the gate so that every edge crosses the middle of the beam; periods leave such edges out by "
                    + "themselves."),
    LONG_RUN(
            "long run",
            Looks.STORED,
            Severity.NOTE,
            "Looking through so many samples would keep the session from opening at once.",
            "Look at the outline at Capture."),
    WINDOW(
            "window",
            Looks.STORED,
            Severity.ATTENTION,
            "The trace changes there: contact with a stop, or a hand.",
            "Draw the edge back before the change at Reduce."),
    RESIDUALS(
            "residuals",
            Looks.LIVE_AND_STORED,
            Severity.ATTENTION,
            "The window holds more than one kind of motion, or the sensor saw something else.",
            "Look at the residuals at Reduce and move the window, or leave the run out."),
    NO_VALUE(
            "no value",
            Looks.LIVE_AND_STORED,
            Severity.WRONG,
            "The run could not be reduced.",
            "Move its window at Reduce, or leave the run out there."),
    NOT_CALIBRATED(
            "not calibrated",
            Looks.STORED,
            Severity.ATTENTION,
            "Values rest on the nominal transfer of the chain.",
            "Calibrate it at Calibrate; stored runs will follow."),
    CALIBRATION_FAILED(
            "calibration failed",
            Looks.STORED,
            Severity.WRONG,
            "The relation does not hold where it was tested.",
            "Look at the points at Calibrate, take the doubtful one again, or choose another relation."),
    CALIBRATION_OVERDUE(
            "calibration overdue",
            Looks.STORED,
            Severity.ATTENTION,
            "It is older than the sheet allows.",
            "Calibrate again before the next run."),
    DRIFT(
            "drift",
            Looks.STORED,
            Severity.NOTE,
            "Temperature, creep or a loose contact.",
            "Choose at Calibrate whether it is taken out or kept as an influence."),
    CLOSURE(
            "closure",
            Looks.STORED,
            Severity.ATTENTION,
            "A reading was misread or written into the wrong cell, or a table was turned the wrong way.",
            "Look at the map of residuals at Calibrate and take that series again."),
    WARMING_UP(
            "still warming up",
            Looks.LIVE,
            Severity.ATTENTION,
            "It was started too short a time ago.",
            "Calibrate and capture once its time at Rig is over."),
    CHECK("check", Looks.STORED, Severity.WRONG, "A check of the method sheet failed.", ""),
    ROW(
            "rule of a row",
            Looks.LIVE_AND_STORED,
            Severity.ATTENTION,
            "A rule of the method sheet does not hold of this run.",
            "Look at the run; leave it out at Reduce or take it again if it is what the rule says."),
    ROW_LEFT_OUT(
            "row left out",
            Looks.LIVE_AND_STORED,
            Severity.NOTE,
            "A rule of the method sheet leaves such runs out.",
            "It stays in the file and counts nowhere; take it in at Reduce if the rule is wrong here."),
    AS_PLANNED(
            "as planned",
            Looks.STORED,
            Severity.NOTE,
            "They were not read yet.",
            "Enter what was read at Plan; results use planned values until then.");

    /** When a rule looks. */
    public enum Looks {
        LIVE,
        STORED,
        LIVE_AND_STORED
    }

    private final String label;
    private final Looks looks;
    private final Severity severity;
    private final String cause;
    private final String remedy;

    Rule(String label, Looks looks, Severity severity, String cause, String remedy) {
        this.label = label;
        this.looks = looks;
        this.severity = severity;
        this.cause = cause;
        this.remedy = remedy;
    }

    /** What it is called, for instance "out of range". */
    public String label() {
        return label;
    }

    public Looks looks() {
        return looks;
    }

    public String cause() {
        return cause;
    }

    public String remedy() {
        return remedy;
    }

    /**
     * A finding in the samples of a channel of a run, from one moment to another in s of the run; NaN where it points
     * at none.
     */
    public Finding of(int run, String channel, double from, double to, String message) {
        return new Finding(this, severity, channel, run, "", message, cause, remedy, from, to);
    }

    /** A finding about a whole run. */
    public Finding ofRun(int run, String channel, String message) {
        return of(run, channel, Double.NaN, Double.NaN, message);
    }

    /** A finding about the session; {@code subject} says which of the many things the rule looks at. */
    public Finding ofSession(String subject, String message) {
        return of(0, "", Double.NaN, Double.NaN, message).about(subject);
    }
}
