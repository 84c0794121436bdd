package eagerneedle.core.sheet;

import java.util.Objects;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** What is wrong with a sheet, where, and what to do; the message is one sentence that names file, line and column. */
public final class SheetException extends RuntimeException {
    private static final long serialVersionUID = 1;
    private static final Pattern PLACE = Pattern.compile("^[^:]*?, line (\\d+)(?:, column (\\d+))?: ");

    private final int line;
    private final int column;

    public SheetException(String file, int line, int column, String message) {
        super(file + (line > 0 ? ", line " + line + (column > 0 ? ", column " + column : "") : "") + ": " + message);
        this.line = line;
        this.column = column;
    }

    /** The same for a problem that was found by another. */
    public SheetException(String file, int line, int column, String message, Throwable cause) {
        this(file, line, column, message);
        initCause(cause);
    }

    private SheetException(String placedMessage, int line, int column) {
        super(placedMessage);
        this.line = line;
        this.column = column;
    }

    /** A problem whose message already says where it is. */
    public static SheetException placed(String message) {
        Matcher at = PLACE.matcher(message);
        return at.find()
                ? new SheetException(
                        message, Integer.parseInt(at.group(1)), at.group(2) == null ? 0 : Integer.parseInt(at.group(2)))
                : new SheetException(message, 0, 0);
    }

    @Override
    public String getMessage() {
        return Objects.requireNonNull(super.getMessage());
    }

    /** 1-based; 0 if it concerns the whole file. */
    public int line() {
        return line;
    }

    public int column() {
        return column;
    }
}
