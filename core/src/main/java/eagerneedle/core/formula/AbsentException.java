package eagerneedle.core.formula;

/** Something that a formula needs is {@code none}; whoever can say what follows catches it. */
final class AbsentException extends FormulaException {
    private static final long serialVersionUID = 1;

    AbsentException(int column) {
        super(column, "This is none.");
    }
}
