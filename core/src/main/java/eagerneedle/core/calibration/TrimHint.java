package eagerneedle.core.calibration;

import org.jspecify.annotations.Nullable;

/**
 * Says, while a trim is being turned, which way and how far. The way is learned from the first movement: a trim is
 * turned a little clockwise, and the reading shows what that does. One hint serves one trim as long as it keeps its
 * sense.
 */
public final class TrimHint {
    /** How far to turn. */
    public enum Far {
        STOP,
        HAIR,
        LITTLE,
        FURTHER
    }

    /**
     * What to do.
     *
     * @param clockwise which way
     * @param far how far
     * @param share of that: halved each time the mark was overshot
     * @param says in words
     */
    public record Turn(boolean clockwise, Far far, double share, String says) {}

    private final String trim;
    private final double noise;
    /** Sign of the change of the reading when turned clockwise; 0 while it is not known. */
    private int sense;

    private double from = Double.NaN;
    private boolean told;
    private double share = 1;
    private @Nullable Boolean last;

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
            share = 1;
            last = null;
            return new Turn(true, Far.STOP, 1, "Stop: it holds.");
        }
        if (sense == 0) {
            if (!told || Double.isNaN(from)) {
                from = reading;
                told = true;
                return new Turn(true, Far.LITTLE, 1, "Turn " + trim + " a little clockwise and watch.");
            }
            if (Math.abs(reading - from) <= 6 * noise) {
                return new Turn(true, Far.LITTLE, 1, "Nothing moved: turn " + trim + " a little more clockwise.");
            }
            sense = reading > from ? 1 : -1;
        }
        boolean clockwise = error * sense > 0;
        Far far = Math.abs(error) > 40 * wanted.band()
                ? Far.FURTHER
                : Math.abs(error) > 5 * wanted.band() ? Far.LITTLE : Far.HAIR;
        boolean overshot = last != null && last != clockwise;
        share = overshot ? Math.max(share / 2, 1.0 / 64) : far == Far.FURTHER ? 1 : share;
        last = clockwise;
        String how = overshot && far != Far.FURTHER
                ? "back half as far, "
                : far == Far.FURTHER ? "further " : far == Far.LITTLE ? "a little " : "a hair ";
        return new Turn(
                clockwise, far, share, "Turn " + trim + " " + how + (clockwise ? "clockwise." : "anticlockwise."));
    }
}
