package eagerneedle.core.calibration;

/**
 * Says, while a trim is being turned, which way and how far. The way is learned from the first movement: a trim is turned a
 * little clockwise, and the reading shows what that does. One hint serves one trim as long as it keeps its sense.
 */
public final class TrimHint {
    /** How far to turn. */
    public enum Far { STOP, HAIR, LITTLE, FURTHER }

    /**
     * What to do.
     *
     * @param clockwise which way
     * @param far       how far
     * @param says      in words
     */
    public record Turn(boolean clockwise, Far far, String says) {
    }

    private final String trim;
    private final double noise;
    /** Sign of the change of the reading when turned clockwise; 0 while it is not known. */
    private int sense;
    private double from = Double.NaN;
    private boolean told;

    /** @param noise standard uncertainty of a reading: smaller movements tell nothing */
    public TrimHint(String trim, double noise) {
        this.trim = trim;
        this.noise = noise;
    }

    /** What to do at a reading. */
    public Turn at(double reading, TrimAdvisor.Instruction wanted) {
        double error = wanted.aim() - reading;
        if (Math.abs(error) <= wanted.band()) {
            from = Double.NaN;
            told = false;
            return new Turn(true, Far.STOP, "Stop: it holds.");
        }
        if (sense == 0) {
            if (!told || Double.isNaN(from)) {
                from = reading;
                told = true;
                return new Turn(true, Far.LITTLE, "Turn " + trim + " a little clockwise and watch.");
            }
            if (Math.abs(reading - from) <= 6 * noise) {
                return new Turn(true, Far.LITTLE, "Nothing moved: turn " + trim + " a little more clockwise.");
            }
            sense = reading > from ? 1 : -1;
        }
        boolean clockwise = error * sense > 0;
        Far far = Math.abs(error) > 40 * wanted.band() ? Far.FURTHER : Math.abs(error) > 5 * wanted.band() ? Far.LITTLE : Far.HAIR;
        String how = far == Far.FURTHER ? "further " : far == Far.LITTLE ? "a little " : "a hair ";
        return new Turn(clockwise, far, "Turn " + trim + " " + how + (clockwise ? "clockwise." : "anticlockwise."));
    }
}
