package eagerneedle.core.quantity;

import java.util.List;
import java.util.SplittableRandom;

/**
 * The range of a quantity when every leaf stays within its largest believable error: the limits school.
 *
 * <p>A linear quantity, and any quantity to first order, lies within the sum of its absolute contributions. Where the graph
 * is curved but rises or falls with each leaf throughout the box of limits, the extremes are at two corners of the box and
 * are computed exactly. Monotony is examined along every leaf at {@value #PROBES} places of the box; where it does not hold,
 * the sum of absolute contributions stands, and {@code exact} is false.
 *
 * @param interval the range, in the quantity's unit
 * @param exact    true when both ends are reached exactly
 */
public record Corners(Interval interval, boolean exact) {
    private static final int PROBES = 64;

    public static Corners of(Quantity q) {
        Interval first = new Interval(q.value() - q.limit(), q.value() + q.limit());
        if (q.isLinear()) {
            return new Corners(first, true);
        }
        DrawProgram program = new DrawProgram(List.of(q));
        int leaves = program.leaves().size();
        int[] direction = new int[leaves];
        SplittableRandom random = new SplittableRandom(1);
        double[][] rows = new double[leaves][3 * PROBES];
        double[][] registers = program.registers(3 * PROBES);
        for (int k = 0; k < leaves; k++) {
            for (int j = 0; j < leaves; j++) {
                double limit = program.leaves().get(j).shape().limitFactor();
                for (int p = 0; p < PROBES; p++) {
                    double z = p == 0 ? -limit : p == 1 ? limit : limit * (2 * random.nextDouble() - 1);
                    for (int s = 0; s < 3; s++) {
                        rows[j][3 * p + s] = j == k ? (s - 1) * limit : z;
                    }
                }
            }
            double[] v = program.run(rows, registers, 3 * PROBES)[0];
            for (int p = 0; p < PROBES; p++) {
                for (int s = 0; s < 2; s++) {
                    double step = v[3 * p + s + 1] - v[3 * p + s];
                    int sign = (int) Math.signum(step);
                    if (!Double.isFinite(step) || sign * direction[k] < 0) {
                        return new Corners(first, false);
                    }
                    direction[k] = sign == 0 ? direction[k] : sign;
                }
            }
        }
        for (int j = 0; j < leaves; j++) {
            double limit = program.leaves().get(j).shape().limitFactor() * direction[j];
            rows[j][0] = -limit;
            rows[j][1] = limit;
        }
        double[] ends = program.run(rows, registers, 2)[0];
        return new Corners(new Interval(ends[0], ends[1]), true);
    }
}
