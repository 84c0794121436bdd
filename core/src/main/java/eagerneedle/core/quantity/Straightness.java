package eagerneedle.core.quantity;

import java.util.List;

/**
 * Whether a quantity is as good as linear in its influences as far as they reach.
 *
 * <p>A check of first order by a hundred thousand draws (JCGM 101:2008, clause 8) finds nothing where the model is a
 * straight line, and most comparisons of a laboratory are one: a per cent of uncertainty bends nothing. So
 * {@value #DRAWS} draws of all influences together are held against the line first, each with its mirror image. Where
 * none of them departs from it by {@value #DEPARTURE} of a standard uncertainty, the ends of a 95 % interval cannot
 * either, and the check would allow them twice that; where one does, the check has to be made.
 */
public final class Straightness {
    private static final int DRAWS = 256;
    private static final double DEPARTURE = 0.1;
    private static final long SEED = 1;

    private Straightness() {}

    /** True when first order is good enough without a check. */
    public static boolean of(Quantity q) {
        if (q.isLinear()) {
            return true;
        }
        DrawProgram program = new DrawProgram(List.of(q));
        List<Leaf> leaves = program.leaves();
        double[][] rows = new double[leaves.size()][2 * DRAWS];
        new LeafDraws(leaves, SEED).fill(0, rows, DRAWS);
        double[] line = new double[2 * DRAWS];
        for (int k = 0; k < leaves.size(); k++) {
            double slope = q.contribution(leaves.get(k));
            for (int i = 0; i < DRAWS; i++) {
                rows[k][DRAWS + i] = -rows[k][i];
                line[i] += slope * rows[k][i];
                line[DRAWS + i] -= slope * rows[k][i];
            }
        }
        double[] values = program.run(rows, program.registers(2 * DRAWS), 2 * DRAWS)[0];
        double most = DEPARTURE * q.u();
        for (int i = 0; i < values.length && i < 2 * DRAWS; i++) {
            if (!(Math.abs(values[i] - q.value() - line[i]) <= most)) {
                return false;
            }
        }
        return true;
    }
}
