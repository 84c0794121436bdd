package eagerneedle.core.fit;

import eagerneedle.core.trace.Trace;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * How a fit is to be done.
 *
 * @param scatter where the uncertainty of the independent part comes from
 * @param origin identity of the fit within the session, root of its leaves' ids
 * @param label what the scatter of the points is called in budgets
 * @param start starting values by parameter name, in the unit the parameter will have; models that know better ignore
 *     them
 * @param occasions which readings the points are; null when they are told by their values
 * @param series the trace whose samples the points are, in time; null when the points are separate readings
 * @param basis names the directions in which parameters look at the samples: fits of one name and series share them
 */
public record FitOptions(
        Scatter scatter,
        String origin,
        String label,
        Map<String, Double> start,
        @Nullable Occasions occasions,
        @Nullable Trace series,
        @Nullable String basis) {
    public FitOptions(Scatter scatter, String origin, String label) {
        this(scatter, origin, label, Map.of());
    }

    public FitOptions(Scatter scatter, String origin, String label, Map<String, Double> start) {
        this(scatter, origin, label, start, null, null, null);
    }

    public FitOptions {
        start = Map.copyOf(start);
    }

    /** The same for points that are these readings. */
    public FitOptions readOn(@Nullable Occasions readings) {
        return new FitOptions(scatter, origin, label, start, readings, series, basis);
    }

    /** The same for a fit in which some parameters stand at their bounds; its scatter is one of its own. */
    public FitOptions bounded() {
        return new FitOptions(scatter, origin + "#bounded", label, start, occasions, series, basis);
    }

    /** The same for points that are the samples of a trace. */
    public FitOptions samplesOf(Trace trace, String directions) {
        return new FitOptions(scatter, origin, label, start, occasions, trace, directions);
    }
}
