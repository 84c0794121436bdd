package eagerneedle.core.physics;

import eagerneedle.core.formula.FormulaException;

/** Something wrong with a formula of a rig, and where it stands. */
public final class RigException extends FormulaException {
    private static final long serialVersionUID = 1;

    private final String capture;
    private final String level;
    private final String entry;

    RigException(String capture, String level, String entry, FormulaException e) {
        super(e.column(), e.getMessage(), e);
        this.capture = capture;
        this.level = level;
        this.entry = entry;
    }

    /** The capture, or nothing for what goes on between runs. */
    public String capture() {
        return capture;
    }

    public String level() {
        return level;
    }

    /** The entry within the part of the capture, such as {@code rates/v}. */
    public String entry() {
        return entry;
    }
}
