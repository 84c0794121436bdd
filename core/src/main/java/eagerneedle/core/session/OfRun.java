package eagerneedle.core.session;

/** An act on one run of the session, whose words call it "run" and its number. */
interface OfRun {
    /** The number of the run. */
    int id();
}
