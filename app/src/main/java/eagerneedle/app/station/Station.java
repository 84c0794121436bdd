package eagerneedle.app.station;

/** The seven stations, in the order in which people work. */
public enum Station {
    PLAN("Plan", "What is to be found, by which equation, with which uncertainty"),
    RIG("Rig", "Chains, instruments, preparation"),
    CALIBRATE("Calibrate", "Find the relation between indication and measurand"),
    CAPTURE("Capture", "Take runs and import files"),
    REDUCE("Reduce", "Windows, fits, tables of runs"),
    JUDGE("Judge", "Results against references, under the schools"),
    RECORD("Record", "Notebook, report, export");

    /** How far a station has come. */
    public enum State {
        NOT_YET,
        ATTENTION,
        DONE
    }

    private final String title;
    private final String purpose;

    Station(String title, String purpose) {
        this.title = title;
        this.purpose = purpose;
    }

    public String title() {
        return title;
    }

    public String purpose() {
        return purpose;
    }
}
