package eagerneedle.core.quantity;

import java.util.List;
import java.util.function.ToDoubleFunction;

/**
 * What is averaged over blocks of draws (JCGM 101:2008, 7.9.4).
 *
 * <p>The two ends are order statistics. Few draws of a block lie out where they can be, so those are put apart in one
 * pass, and ranks are looked for among them alone; when too few were put apart, among all. Either way the ends are the
 * same.
 *
 * @param mean of the block, in the unit of the draws
 * @param sd standard deviation
 * @param low lower end of the symmetric interval
 * @param high upper end of the symmetric interval
 */
record BlockFigures(double mean, double sd, double low, double high) {
    static final List<ToDoubleFunction<BlockFigures>> ALL =
            List.of(BlockFigures::mean, BlockFigures::sd, BlockFigures::low, BlockFigures::high);
    private static final BlockFigures NONE = new BlockFigures(Double.NaN, Double.NaN, Double.NaN, Double.NaN);
    /** How far out the draws that are put apart lie, as a share of where the ends of a normal distribution are. */
    private static final double OUT = 0.75;

    /**
     * The figures of one block; not a number for fewer than two draws.
     *
     * @param block finite draws; they stay as they are
     * @param coverage probability of the interval
     * @param room as long as the block or longer; overwritten
     */
    static BlockFigures of(double[] block, Coverage coverage, double[] room) {
        int n = block.length;
        if (n < 2) {
            return NONE;
        }
        double sum = 0;
        for (double x : block) {
            sum += x;
        }
        double mean = sum / n;
        double squares = 0;
        for (double x : block) {
            squares += (x - mean) * (x - mean);
        }
        double sd = Math.sqrt(squares / (n - 1));
        double out = OUT * coverage.factor(Double.POSITIVE_INFINITY) * sd;
        int below = 0;
        int above = 0;
        for (double x : block) {
            room[below] = x;
            room[n - 1 - above] = x;
            below += x < mean - out ? 1 : 0;
            above += x > mean + out ? 1 : 0;
        }
        double tail = (1 - coverage.probability()) / 2;
        int first = rank(tail, n);
        int last = rank(1 - tail, n);
        boolean enough = first + 1 < below && last >= n - above;
        if (!enough) {
            System.arraycopy(block, 0, room, 0, n);
        }
        double low = quantile(tail, room, 0, enough ? below : n, n);
        return new BlockFigures(mean, sd, low, quantile(1 - tail, room, enough ? n - above : first, n, n));
    }

    private static int rank(double p, int n) {
        return Math.max(0, Math.min(n - 1, (int) Math.floor(p * n - 0.5)));
    }

    /** Linear between order statistics (annex D.6); those of these ranks are {@code from} up to {@code to}. */
    private static double quantile(double p, double[] v, int from, int to, int n) {
        double at = p * n - 0.5;
        int k = rank(p, n);
        double here = Ranks.select(v, from, to, k);
        return at < 0 || k + 1 >= n ? here : here + (at - k) * (Ranks.select(v, k + 1, to, k + 1) - here);
    }
}
