package eagerneedle.core.edit;

import eagerneedle.core.fit.Fit;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * A fitted curve as the rig of a sheet writes it: a formula of the time {@code t}, its parameters in angle brackets.
 */
final class RigCurve {
    private static final Map<String, String> NAMED = Map.of(
            "exponential decay to a level", "<level> + <amplitude> * exp(-t / <tau>)",
            "saturating growth", "<level> * (1 - exp(-t / <tau>))",
            "growth to saturation with a half-way point", "<level> * t / (<half> + t)",
            "power law", "<scale> * (t / (1 s))^<exponent>",
            "logarithm", "<offset> + <factor> * ln(if(t < 1 ms, 1 ms, t) / (1 s))",
            "logistic growth", "<level> / (1 + exp(-(t - <middle>) / <width>))",
            "damped cosine", "<level> + <amplitude> * exp(-t / <tau>) * cos(2 * pi * t / <period> + <phase>)",
            "two lines with a break", "<value> + if(t < <break>, <before>, <after>) * (t - <break>)",
            "two exponentials", "<first> * exp(-t / <tau1>) + <second> * exp(-t / <tau2>)");

    private static final Set<String> ABSOLUTE = Set.of("level", "value", "offset", "c0");

    private RigCurve() {}

    static Optional<String> of(Fit fit) {
        if (!fit.isPolynomial()) {
            return Optional.ofNullable(NAMED.get(fit.model()));
        }
        StringBuilder b = new StringBuilder("<c0>");
        for (int k = 1; k < fit.parameters().size(); k++) {
            b.append(" + <c").append(k).append("> * t").append(k == 1 ? "" : "^" + k);
        }
        return Optional.of(b.toString());
    }

    /** What parameter k of a fit is called here. */
    static String name(Fit fit, int k) {
        return fit.isPolynomial() ? "c" + k : fit.names().get(k);
    }

    /** True for a parameter that is a value of the trace itself, not a difference of two. */
    static boolean isAbsolute(String parameter) {
        return ABSOLUTE.contains(parameter);
    }

    /** True for a formula that takes a parameter out of a fit. */
    static boolean takes(String formula, String fit, String parameter) {
        String f = formula.replace(" ", "");
        return f.equals("parameter(" + fit + ",\"" + parameter + "\")")
                || parameter.equals("c1") && f.equals("slope(" + fit + ")")
                || parameter.equals("c0") && f.equals("intercept(" + fit + ")")
                || f.equals("coefficient(" + fit + "," + parameter.replaceFirst("^c", "") + ")");
    }
}
