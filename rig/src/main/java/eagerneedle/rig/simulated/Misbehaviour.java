package eagerneedle.rig.simulated;

/** What can go wrong on the wire. */
public enum Misbehaviour {
    NONE,
    SILENCE,
    GARBAGE,
    HALF_LINES,
    CLOCK_BACK,
    WRONG_UNITS,
    DEAF,
    /** Every tenth line is lost. */
    DROPS,
    /** Its stamps come from a clock that is busy with other things. */
    JITTER,
    /** A gate sees some spokes twice. */
    REFLECTIONS
}
