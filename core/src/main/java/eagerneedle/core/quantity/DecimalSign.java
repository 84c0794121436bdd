package eagerneedle.core.quantity;

import java.util.regex.Pattern;

/**
 * The sign between whole and tenths in what people read and type (ISO 80000-1, 7.3.2, allows both). Files, formulas and
 * sheets always have a point: what the same session writes does not depend on who opened it.
 *
 * <p>It belongs to the program as a whole, as a locale does, and is set once when a window opens or a document is made;
 * a locale of the platform is not used, because that would also change words of dates and what other libraries write.
 */
public enum DecimalSign {
    POINT,
    COMMA;

    private static final Pattern IN_FILES = Pattern.compile("(?<=[0-9])\\.(?=[0-9])");
    private static final Pattern TYPED = Pattern.compile("(?<=[0-9]),(?=[0-9])");
    private static final ThreadLocal<Boolean> WRITING = ThreadLocal.withInitial(() -> false);
    private static volatile DecimalSign inUse = POINT;

    public static DecimalSign inUse() {
        return WRITING.get() ? POINT : inUse;
    }

    /** Carries out what writes a file of data: its numbers, and those in its sentences, have a point. */
    public static void inFiles(Runnable writing) {
        boolean before = WRITING.get();
        WRITING.set(true);
        try {
            writing.run();
        } finally {
            WRITING.set(before);
        }
    }

    /** From now on numbers are written for people with this sign. */
    public static void use(DecimalSign sign) {
        inUse = sign;
    }

    /** A number, or a reading such as {@code 20.02 limit 0.05 mm}, as it stands in a file, for people. */
    public String shown(String inFile) {
        return this == POINT ? inFile : IN_FILES.matcher(inFile).replaceAll(",");
    }

    /** What a person typed as a number or a reading, as files have it; a point is understood as well. */
    public String typed(String byHand) {
        return this == POINT ? byHand : TYPED.matcher(byHand).replaceAll(".");
    }

    /** The sign itself. */
    public char sign() {
        return this == POINT ? '.' : ',';
    }
}
