package eagerneedle.core.quantity;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.SplittableRandom;

/**
 * The range of a quantity when every influence stays within its largest believable error: the limits school.
 *
 * <p>A linear quantity, and any quantity to first order, lies within the sum of its absolute contributions. Where the
 * graph is curved but rises or falls with each influence throughout the box of limits, the extremes are at two corners
 * of the box and are computed exactly. Monotony is examined along every influence at {@value #PROBES} places of the
 * box; where it does not hold, the sum of absolute contributions stands, and {@code exact} is false. The leaves of one
 * pool are one scatter: they move together, in the direction in which they move the quantity most.
 *
 * @param interval the range, in the quantity's unit
 * @param exact true when both ends are reached exactly
 */
public record Corners(Interval interval, boolean exact) {
    private static final int PROBES = 64;

    /** One influence: how far each leaf goes when it goes to its limit. */
    private record Axis(int[] leaves, double[] reach) {}

    public static Corners of(Quantity q) {
        Interval first = new Interval(q.value() - q.limit(), q.value() + q.limit());
        if (q.isLinear()) {
            return new Corners(first, true);
        }
        DrawProgram program = new DrawProgram(List.of(q));
        List<Axis> axes = axes(q, program.leaves());
        int[] direction = new int[axes.size()];
        SplittableRandom random = new SplittableRandom(1);
        double[][] rows = new double[program.leaves().size()][3 * PROBES];
        double[][] registers = program.registers(3 * PROBES);
        for (int k = 0; k < axes.size(); k++) {
            for (int j = 0; j < axes.size(); j++) {
                for (int p = 0; p < PROBES; p++) {
                    double z = p == 0 ? -1 : p == 1 ? 1 : 2 * random.nextDouble() - 1;
                    for (int s = 0; s < 3; s++) {
                        put(rows, axes.get(j), 3 * p + s, j == k ? s - 1 : z);
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
        for (int j = 0; j < axes.size(); j++) {
            put(rows, axes.get(j), 0, -direction[j]);
            put(rows, axes.get(j), 1, direction[j]);
        }
        double[] ends = program.run(rows, registers, 2)[0];
        return new Corners(new Interval(ends[0], ends[1]), true);
    }

    private static void put(double[][] rows, Axis axis, int at, double share) {
        for (int i = 0; i < axis.leaves().length; i++) {
            rows[axis.leaves()[i]][at] = share * axis.reach()[i];
        }
    }

    private static List<Axis> axes(Quantity q, List<Leaf> leaves) {
        Map<String, List<Integer>> pools = new LinkedHashMap<>();
        for (int k = 0; k < leaves.size(); k++) {
            pools.computeIfAbsent(leaves.get(k).pool(), p -> new ArrayList<>()).add(k);
        }
        List<Axis> axes = new ArrayList<>();
        for (List<Integer> pool : pools.values()) {
            int m = pool.size();
            double[] reach = new double[m];
            double size = 0;
            for (int i = 0; i < m; i++) {
                Leaf leaf = leaves.get(pool.get(i));
                for (int j : pool) {
                    reach[i] += leaf.correlation(leaves.get(j)) * q.contribution(leaves.get(j));
                }
                size += reach[i] * q.contribution(leaf);
            }
            for (int i = 0; i < m; i++) {
                double limit = leaves.get(pool.get(i)).limitFactor();
                reach[i] = m == 1 ? limit : size > 0 ? limit * reach[i] / Math.sqrt(size) : 0;
            }
            axes.add(new Axis(pool.stream().mapToInt(Integer::intValue).toArray(), reach));
        }
        return axes;
    }
}
