package eagerneedle.core.sheet;

/** What is wrong with a sheet, where, and what to do; the message is one sentence that names file, line and column. */
public final class SheetException extends RuntimeException {
    private static final long serialVersionUID = 1;

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

    /** A problem whose message already says where it is. */
    public SheetException(String placedMessage) {
        super(placedMessage);
        this.line = 0;
        this.column = 0;
    }

    /** 1-based; 0 if it concerns the whole file. */
    public int line() {
        return line;
    }

    public int column() {
        return column;
    }
}
