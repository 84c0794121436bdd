package eagerneedle.core.formula;

import java.util.Objects;
import org.jspecify.annotations.Nullable;

/** What is wrong with a formula, in one sentence, and where. */
public class FormulaException extends RuntimeException {
    private static final long serialVersionUID = 1;

    private final int column;

    /** @param column 1-based column in the formula's text, 0 if it concerns the whole formula */
    public FormulaException(int column, String message) {
        this(column, message, null);
    }

    /** @param cause what went wrong below */
    public FormulaException(int column, String message, @Nullable Throwable cause) {
        super(message, cause);
        this.column = column;
    }

    @Override
    public String getMessage() {
        return Objects.requireNonNull(super.getMessage());
    }

    /** 1-based column in the formula's text; 0 for the whole. */
    public int column() {
        return column;
    }
}
