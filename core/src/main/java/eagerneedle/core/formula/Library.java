package eagerneedle.core.formula;

import java.util.Map;
import java.util.ServiceLoader;

/**
 * The functions that formulas may call.
 *
 * <p>The language itself knows no function by name: grammar, evaluation and messages work with whatever library stands
 * on the class path, and the library is written against the language, never the other way round. That is why it is
 * found ({@link ServiceLoader}) and not imported.
 */
public interface Library {
    /** All functions by name. */
    Map<String, Function> functions();

    /**
     * Calls a function.
     *
     * @param name one of {@link #functions}
     * @throws IllegalArgumentException, ArithmeticException or FormulaException with one sentence when it has no value
     */
    Value call(String name, Arguments arguments);

    /** The library that ships. */
    static Library shipped() {
        return Calls.LIBRARY;
    }
}
