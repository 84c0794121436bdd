package eagerneedle.core.event;

import eagerneedle.core.fit.Fit;
import eagerneedle.core.fit.PolynomialFit;
import eagerneedle.core.fit.Residuals;
import eagerneedle.core.fit.Scatter;
import eagerneedle.core.quantity.Distribution;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/**
 * The period of a train of edges.
 *
 * <p>Where the edges scatter about their moments (timing), the slope of their times against their number is the best
 * estimate, and the scatter about that line its uncertainty. Where the periods themselves wander, the deviations from
 * that line run on from edge to edge; then the mean of the single periods with s/√n is right. The residuals decide
 * which, and the remark says it.
 *
 * @param value in s
 * @param sd standard deviation of a single period, in s
 * @param periods how many periods the train spans
 * @param remarks what was decided and seen, one sentence each
 */
public record Period(Quantity value, double sd, int periods, List<String> remarks) {
    private static final double WANDERS = -2;

    /**
     * The period of a train.
     *
     * @param edges at least 3
     * @param resolution smallest step of the timer in s, 0 if not known
     * @param origin identity of this result, root of its leaves' ids
     * @throws IllegalArgumentException for fewer than 3 edges
     */
    public static Period of(Edges edges, double resolution, String origin) {
        return of(
                edges,
                Arrays.stream(edges.times())
                        .mapToObj(t -> Quantity.exact(t, LabUnit.SECOND))
                        .toList(),
                resolution,
                origin);
    }

    /**
     * The period of a train whose edges are known with uncertainties of their own, such as what sampling leaves open;
     * the scatter is counted beside them.
     *
     * @param moments one an edge, in s
     */
    public static Period of(Edges edges, List<Quantity> moments, double resolution, String origin) {
        Edges train = edges.withoutDoubles();
        int n = train.times().length;
        if (n < 3) {
            throw new IllegalArgumentException("A period with an uncertainty needs at least 3 edges; there "
                    + (n == 1 ? "is 1." : "are " + n + "."));
        }
        List<String> remarks = new ArrayList<>();
        edges.suspects().forEach(s -> remarks.add(s.sentence()));
        double[] number = train.numbers();
        int periods = (int) number[n - 1];
        double[] single = new double[n - 1];
        double mean = 0;
        for (int i = 0; i < single.length; i++) {
            single[i] = (train.times()[i + 1] - train.times()[i]) / (number[i + 1] - number[i]);
            mean += single[i] / single.length;
        }
        double squares = 0;
        for (double p : single) {
            squares += (p - mean) * (p - mean);
        }
        double sd = Math.sqrt(squares / Math.max(1, single.length - 1));
        List<Quantity> x = new ArrayList<>();
        List<Quantity> y = new ArrayList<>();
        for (int i = 0; i < n; i++) {
            x.add(Quantity.number(number[i]));
            double moment = train.times()[i];
            y.add(moments.stream()
                    .filter(m -> m.in(LabUnit.SECOND) == moment)
                    .findFirst()
                    .orElseThrow()
                    .to(LabUnit.SECOND));
        }
        Fit line = PolynomialFit.ofPoints(x, y, 1, Scatter.FROM_RESIDUALS, origin, "scatter of the edges");
        Quantity q;
        if (Residuals.runsScore(line.residuals()) < WANDERS && n > 10) {
            q = y.get(n - 1)
                    .minus(y.get(0))
                    .scaled(1.0 / periods)
                    .with(
                            Leaf.typeA(origin + "#periods", "scatter of the periods", "edges", single.length - 1),
                            sd / Math.sqrt(single.length));
            remarks.add("The period wanders from one to the next, so the mean of the single periods is taken.");
        } else {
            q = line.parameter(1).to(LabUnit.SECOND);
        }
        if (resolution > 0) {
            q = q.with(
                    Leaf.typeB(origin + "#timer", "timer resolution", "timer", Distribution.TRIANGULAR),
                    resolution / Math.sqrt(6) / periods);
        }
        return new Period(q, sd, periods, List.copyOf(remarks));
    }
}
