package eagerneedle.core.fit;

import java.util.Map;

/**
 * How a fit is to be done.
 *
 * @param scatter where the uncertainty of the independent part comes from
 * @param origin  identity of the fit within the session, root of its leaves' ids
 * @param label   what the scatter of the points is called in budgets
 * @param start   starting values by parameter name, in the unit the parameter will have; models that know better ignore them
 */
public record Choices(Scatter scatter, String origin, String label, Map<String, Double> start) {
    public Choices(Scatter scatter, String origin, String label) {
        this(scatter, origin, label, Map.of());
    }

    public Choices {
        start = Map.copyOf(start);
    }
}
