package eagerneedle.core.physics;

/**
 * Compiled sums, products and the like. Each operation is code of its own, and one with a number that never changes
 * holds that number: rates are worked out hundreds of thousands of times in a run, and most of that time went into
 * asking what is to be done and what a constant is.
 */
final class Arithmetic {
    private Arithmetic() {}

    /** A number that is the same at every moment. */
    record Constant(double value) implements Code {
        @Override
        public double at(Moment m) {
            return value;
        }
    }

    static Code sum(Code a, Code b) {
        if (b instanceof Constant c) {
            double y = c.value();
            return m -> a.at(m) + y;
        } else if (a instanceof Constant c) {
            double x = c.value();
            return m -> x + b.at(m);
        }
        return m -> a.at(m) + b.at(m);
    }

    static Code difference(Code a, Code b) {
        if (b instanceof Constant c) {
            double y = c.value();
            return m -> a.at(m) - y;
        } else if (a instanceof Constant c) {
            double x = c.value();
            return m -> x - b.at(m);
        }
        return m -> a.at(m) - b.at(m);
    }

    static Code product(Code a, Code b) {
        if (b instanceof Constant c) {
            double y = c.value();
            return m -> a.at(m) * y;
        } else if (a instanceof Constant c) {
            double x = c.value();
            return m -> x * b.at(m);
        }
        return m -> a.at(m) * b.at(m);
    }

    static Code quotient(Code a, Code b) {
        if (b instanceof Constant c) {
            double y = c.value();
            return m -> a.at(m) / y;
        } else if (a instanceof Constant c) {
            double x = c.value();
            return m -> x / b.at(m);
        }
        return m -> a.at(m) / b.at(m);
    }
}
