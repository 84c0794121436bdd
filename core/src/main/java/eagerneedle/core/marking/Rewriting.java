package eagerneedle.core.marking;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Calls of functions in the text of a formula, put otherwise; what stands in quotes is left as it is. */
final class Rewriting {
    private Rewriting() {}

    /**
     * The formula with the arguments of every call of a function put otherwise.
     *
     * @param names the functions, as a regular expression
     * @return nothing where there is no such call
     */
    static Optional<String> changed(String formula, String names, UnaryOperator<List<String>> arguments) {
        Matcher m = Pattern.compile("(?<![\\p{L}\\p{N}_.])(?:" + names + ")\\(").matcher(formula);
        StringBuilder out = new StringBuilder();
        int done = 0;
        boolean any = false;
        while (m.find(done)) {
            int close = close(formula, m.end());
            if (close < 0 || isQuoted(formula, m.start())) {
                out.append(formula, done, m.end());
                done = m.end();
                continue;
            }
            List<String> now = arguments.apply(split(formula.substring(m.end(), close)));
            String inside = String.join(", ", now);
            out.append(formula, done, m.end())
                    .append(changed(inside, names, arguments).orElse(inside));
            done = close;
            any = true;
        }
        return any ? Optional.of(out.append(formula.substring(done)).toString()) : Optional.empty();
    }

    /** The formula with one function for another. */
    static Optional<String> renamed(String formula, String from, String to) {
        Matcher m = Pattern.compile("(?<![\\p{L}\\p{N}_.])" + from + "\\(").matcher(formula);
        StringBuilder out = new StringBuilder();
        boolean any = false;
        while (m.find()) {
            boolean quoted = isQuoted(formula, m.start());
            any |= !quoted;
            m.appendReplacement(out, Matcher.quoteReplacement(quoted ? m.group() : to + "("));
        }
        return any ? Optional.of(m.appendTail(out).toString()) : Optional.empty();
    }

    private static boolean isQuoted(String formula, int at) {
        char open = 0;
        for (int i = 0; i < at; i++) {
            char c = formula.charAt(i);
            if (open == 0 && (c == '"' || c == '\'')) {
                open = c;
            } else if (c == open) {
                open = 0;
            }
        }
        return open != 0;
    }

    private static int close(String formula, int from) {
        int depth = 1;
        for (int i = from; i < formula.length(); i++) {
            char c = formula.charAt(i);
            if (isQuoted(formula, i)) {
                continue;
            }
            depth += c == '(' ? 1 : c == ')' ? -1 : 0;
            if (depth == 0) {
                return i;
            }
        }
        return -1;
    }

    private static List<String> split(String arguments) {
        List<String> out = new ArrayList<>();
        int depth = 0;
        int from = 0;
        for (int i = 0; i < arguments.length(); i++) {
            char c = arguments.charAt(i);
            if (isQuoted(arguments, i)) {
                continue;
            }
            depth += c == '(' ? 1 : c == ')' ? -1 : 0;
            if (c == ',' && depth == 0) {
                out.add(arguments.substring(from, i).strip());
                from = i + 1;
            }
        }
        out.add(arguments.substring(from).strip());
        return out;
    }
}
