package eagerneedle.core.arithmetic;

/** What one step of a {@link Program} does with one or two operands. */
enum Op {
    ADD,
    SUBTRACT,
    MULTIPLY,
    DIVIDE,
    POWER,
    /** A derivative times a slope: 0 where the derivative is, however steep the slope. */
    CHAIN,
    NEGATE,
    SQRT,
    /** An elementary function of one operand. */
    FUNCTION,
    /** The slope of an elementary function at its operand. */
    SLOPE;

    /** The same for single numbers. */
    double of(double a, double b) {
        return switch (this) {
            case ADD -> a + b;
            case SUBTRACT -> a - b;
            case MULTIPLY -> a * b;
            case DIVIDE -> a / b;
            case POWER -> Math.pow(a, b);
            case CHAIN -> a == 0 ? 0 : a * b;
            case NEGATE -> -a;
            case SQRT -> Math.sqrt(a);
            case FUNCTION, SLOPE -> throw new IllegalStateException("an elementary function knows itself");
        };
    }
}
