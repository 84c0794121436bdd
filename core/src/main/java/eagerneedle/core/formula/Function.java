package eagerneedle.core.formula;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * A function of the formula language as a value: what documents, checks, completion and the printed law of propagation
 * know of it.
 *
 * @param name how it is called
 * @param parameters its arguments, in the order in which they may be given without their names
 * @param repeated how many of them, counted from {@code from}, may be given again and again; 0 for a fixed number
 * @param from index of the first one that repeats
 * @param takes its arguments in words, with their units
 * @param gives its result in words, with its unit
 * @param example a formula that runs on its own
 * @param prints what the example prints
 * @param derivative derivative by its only argument, as a formula in x; null where it is not elementary
 */
public record Function(
        String name,
        List<Parameter> parameters,
        int repeated,
        int from,
        String takes,
        String gives,
        String example,
        String prints,
        @Nullable String derivative) {
    public Function {
        parameters = List.copyOf(parameters);
    }

    /** A function before it is described. */
    public static Function of(String name, Parameter... parameters) {
        return new Function(name, List.of(parameters), 0, 0, "", "", "", "", null);
    }

    /**
     * The parameters from one index up to, and without, another may be given any number of times; later ones only by
     * name.
     */
    public Function repeating(int start, int end) {
        return new Function(name, parameters, end - start, start, takes, gives, example, prints, derivative);
    }

    public Function described(String argumentsInWords, String resultInWords, String run, String printed) {
        return new Function(
                name, parameters, repeated, from, argumentsInWords, resultInWords, run, printed, derivative);
    }

    public Function withDerivative(String formula) {
        return new Function(name, parameters, repeated, from, takes, gives, example, prints, formula);
    }

    /** How it is written, such as {@code limit(x, a, shape: "rectangular", reason: "")}. */
    public String signature() {
        List<String> parts = new ArrayList<>();
        for (int i = 0; i < parameters.size(); i++) {
            parts.add(parameters.get(i).written());
            if (repeated > 0 && i == from + repeated - 1) {
                parts.add("...");
            }
        }
        return name + "(" + String.join(", ", parts) + ")";
    }

    /** The parameter of that name. */
    public Optional<Parameter> parameter(String named) {
        return parameters.stream().filter(p -> p.name().equals(named)).findFirst();
    }

    /** Index of the parameter that an argument without a name stands for; -1 when there are too many. */
    public int position(int at) {
        if (repeated > 0 && at >= from) {
            return from + (at - from) % repeated;
        }
        return at < parameters.size() ? at : -1;
    }

    /**
     * What is wrong with the arguments of a call as they are written, whatever their values.
     *
     * @throws FormulaException for an argument that is unknown, too much, given twice, or missing
     */
    public void check(Expr.Call call) {
        List<Integer> given = new ArrayList<>();
        int without = 0;
        for (Expr.Argument a : call.arguments()) {
            int at = a.name() == null ? position(without++) : index(a.name());
            if (at < 0 && a.name() == null) {
                throw new FormulaException(
                        a.value().column(),
                        name + " takes at most " + parameters.size()
                                + (parameters.size() == 1 ? " argument" : " arguments") + "; it is written "
                                + signature() + ".");
            }
            if (at < 0) {
                throw new FormulaException(
                        call.column(),
                        name + " has no argument called " + a.name() + "; it is written " + signature() + ".");
            }
            boolean again = repeated > 0 && at >= from && at < from + repeated && a.name() == null;
            if (!again && given.contains(at)) {
                throw new FormulaException(
                        a.value().column(),
                        "The argument " + parameters.get(at).name() + " of " + name + " is given twice.");
            }
            given.add(at);
        }
        for (int i = 0; i < parameters.size(); i++) {
            if (!parameters.get(i).optional() && !given.contains(i)) {
                throw new FormulaException(
                        call.column(), name + " is written " + signature() + "; argument " + (i + 1) + " is missing.");
            }
        }
    }

    /** Index of the parameter of that name; -1 for none. */
    int index(String named) {
        for (int i = 0; i < parameters.size(); i++) {
            if (parameters.get(i).name().equals(named)) {
                return i;
            }
        }
        return -1;
    }
}
