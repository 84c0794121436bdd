package eagerneedle.core.quantity;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.ToDoubleFunction;
import java.util.stream.IntStream;
import org.hipparchus.distribution.continuous.TDistribution;

/**
 * What a quantity's distribution is when every leaf is drawn from its own distribution and the whole graph is computed
 * draw by draw (JCGM 101:2008), and whether the first-order result is good enough beside it (clause 8).
 *
 * <p>Draws come in blocks of {@value #BLOCK}. After each block from the second on, the mean, the standard deviation and
 * the two ends of the interval are averaged over blocks; drawing stops when twice the standard error of each average is
 * within the numerical tolerance (7.9.4), or at the most draws allowed. The tolerance is a share of a standard
 * uncertainty told by the interval of the draws, which a few wild draws do not widen, as they do the standard
 * deviation. Blocks are computed by several threads and put in order, so that a seed gives one result on every machine.
 *
 * <p>First order is good enough when the draws came to rest and both ends of their interval lie within a tenth of U of
 * its ends.
 *
 * @param of the quantity
 * @param draws how many draws were made
 * @param stable true when the results stabilised to the tolerance before the most draws allowed were reached
 * @param mean average of the draws, in the quantity's unit
 * @param sd standard deviation of the draws, in the quantity's unit
 * @param symmetric probabilistically symmetric coverage interval, in the quantity's unit
 * @param shortest shortest coverage interval, in the quantity's unit
 * @param firstOrder the coverage interval from the first-order result, value ± k u, in the quantity's unit
 * @param tolerance numerical tolerance of averages and ends, in the quantity's unit
 * @param undefined share of draws for which the formula has no value, 0 to 1; intervals leave them out
 * @param coverage coverage probability of the intervals
 * @param values the defined draws as they came, in the quantity's unit
 */
public record MonteCarlo(
        Quantity of,
        int draws,
        boolean stable,
        double mean,
        double sd,
        Interval symmetric,
        Interval shortest,
        Interval firstOrder,
        double tolerance,
        double undefined,
        Coverage coverage,
        double[] values) {
    private static final int ROW = 1000;
    private static final int BLOCK = 10_000;
    private static final int BATCH = 10;
    private static final int SHARES = 20;
    private static final double GOOD_ENOUGH = 0.1;
    private static final double ROUNDING = 1e-12;

    /**
     * How to draw.
     *
     * @param seed of the random draws
     * @param least fewest draws
     * @param most most draws
     * @param digits how well the ends are wanted: 1 for a twentieth of u, 2 for a hundredth, 3 for three thousandths
     */
    public record Settings(long seed, int least, int most, int digits) {
        public static final Settings DEFAULT = new Settings(1, 100_000, 2_000_000, 2);
        /** Quick enough to run beside every result. */
        public static final Settings QUICK = new Settings(1, 20_000, 200_000, 1);

        public Settings {
            if (least < 2 * BLOCK || most < least || digits < 1 || digits > 3) {
                throw new IllegalArgumentException("Monte Carlo wants at least " + 2 * BLOCK
                        + " draws, no fewer at most than at least, and 1 to 3 digits.");
            }
        }

        public Settings exactly(int draws) {
            return new Settings(seed, draws, draws, digits);
        }
    }

    /**
     * Draws until stable.
     *
     * @throws ArithmeticException when no draw gives a value
     */
    public static MonteCarlo of(Quantity q, Coverage coverage, Settings settings) {
        DrawProgram program = new DrawProgram(List.of(q), true);
        LeafDraws source = new LeafDraws(program.leaves(), settings.seed());
        List<double[]> blocks = new ArrayList<>();
        int mostBlocks = Math.max(2, (settings.most() + BLOCK - 1) / BLOCK);
        int leastBlocks = Math.max(2, (settings.least() + BLOCK - 1) / BLOCK);
        double tolerance = Double.NaN;
        boolean stable = false;
        List<BlockFigures> figures = new ArrayList<>();
        while (!stable && blocks.size() < mostBlocks) {
            int from = blocks.size();
            int to = Math.min(mostBlocks, from == 0 ? Math.max(leastBlocks, 2) : from + BATCH);
            double[][] fresh = new double[to - from][];
            BlockFigures[] told = new BlockFigures[to - from];
            int shares = Math.min(to - from, SHARES);
            IntStream.range(0, shares).parallel().forEach(s -> {
                double[][] registers = program.registers(ROW);
                double[][] rows = new double[program.leaves().size()][ROW];
                double[] scratch = new double[BLOCK];
                int end = from + (to - from) * (s + 1) / shares;
                for (int b = from + (to - from) * s / shares; b < end; b++) {
                    fresh[b - from] = block(program, source, b, registers, rows);
                    told[b - from] = BlockFigures.of(fresh[b - from], coverage, scratch);
                }
            });
            blocks.addAll(Arrays.asList(fresh));
            figures.addAll(Arrays.asList(told));
            double[] last = blocks.get(0);
            tolerance = Math.max(tolerance(spread(figures, coverage), settings.digits()), ROUNDING * program.largest());
            stable = last.length > 0 && stabilised(figures, tolerance);
        }
        return assemble(q, coverage, blocks, figures, stable, tolerance);
    }

    private static MonteCarlo assemble(
            Quantity q,
            Coverage coverage,
            List<double[]> blocks,
            List<BlockFigures> figures,
            boolean stable,
            double tolerance) {
        int defined = blocks.stream().mapToInt(b -> b.length).sum();
        int drawn = blocks.size() * BLOCK;
        if (defined < 2) {
            throw new ArithmeticException("The formula has no value for any draw of its inputs.");
        }
        double[] all = new double[defined];
        int at = 0;
        double mean = 0;
        for (int b = 0; b < blocks.size(); b++) {
            double[] block = blocks.get(b);
            System.arraycopy(block, 0, all, at, block.length);
            at += block.length;
            mean += meanOf(block, figures.get(b)) * block.length / defined;
        }
        double squares = 0;
        for (int b = 0; b < blocks.size(); b++) {
            int n = blocks.get(b).length;
            double away = meanOf(blocks.get(b), figures.get(b)) - mean;
            squares += (n > 1 ? (n - 1) * figures.get(b).sd() * figures.get(b).sd() : 0) + n * away * away;
        }
        Tails ends = Tails.of(all, coverage.probability());
        double u = coverage.expanded(q);
        return new MonteCarlo(
                q,
                drawn,
                stable,
                mean,
                Math.sqrt(squares / (defined - 1)),
                symmetric(ends, coverage),
                shortest(ends, coverage),
                new Interval(q.value() - u, q.value() + u),
                tolerance,
                1 - defined / (double) drawn,
                coverage,
                all);
    }

    private static double meanOf(double[] block, BlockFigures figures) {
        return block.length > 1 ? figures.mean() : block.length == 1 ? block[0] : 0;
    }

    /** One block, draws without a value left out. */
    private static double[] block(
            DrawProgram program, LeafDraws source, int number, double[][] registers, double[][] rows) {
        double[] out = new double[BLOCK];
        int n = 0;
        for (int r = 0; r < BLOCK / ROW; r++) {
            source.fill((long) number * (BLOCK / ROW) + r, rows, ROW);
            double[] values = program.run(rows, registers, ROW)[0];
            for (int i = 0; i < ROW; i++) {
                if (Double.isFinite(values[i])) {
                    out[n++] = values[i];
                }
            }
        }
        return n == BLOCK ? out : Arrays.copyOf(out, n);
    }

    private static boolean stabilised(List<BlockFigures> figures, double tolerance) {
        int h = figures.size();
        for (ToDoubleFunction<BlockFigures> of : BlockFigures.ALL) {
            double mean = 0;
            for (BlockFigures f : figures) {
                mean += of.applyAsDouble(f) / h;
            }
            double squares = 0;
            for (BlockFigures f : figures) {
                double away = of.applyAsDouble(f) - mean;
                squares += away * away;
            }
            if (!(2 * Math.sqrt(squares / (h * (h - 1.0))) <= tolerance)) {
                return false;
            }
        }
        return true;
    }

    /** The standard uncertainty that the interval of the draws has, were they normal; the middle one of the blocks. */
    private static double spread(List<BlockFigures> figures, Coverage coverage) {
        double[] widths = figures.stream()
                .mapToDouble(f -> (f.high() - f.low()) / 2 / coverage.factor(Double.POSITIVE_INFINITY))
                .sorted()
                .toArray();
        return widths[widths.length / 2];
    }

    static double tolerance(double u, int digits) {
        return u > 0 && !Double.isInfinite(u) ? u * (digits == 1 ? 0.05 : digits == 2 ? 0.01 : 0.003) : 0;
    }

    private static Interval symmetric(Tails ends, Coverage coverage) {
        double tail = (1 - coverage.probability()) / 2;
        return new Interval(quantile(ends, tail), quantile(ends, 1 - tail));
    }

    /** Linear between order statistics (JCGM 101, annex D.6). */
    private static double quantile(Tails ends, double p) {
        double at = p * ends.n() - 0.5;
        int k = Math.max(0, Math.min(ends.n() - 1, (int) Math.floor(at)));
        double here = ends.rank(k);
        return at < 0 || k + 1 >= ends.n() ? here : here + (at - k) * (ends.rank(k + 1) - here);
    }

    private static Interval shortest(Tails ends, Coverage coverage) {
        int n = ends.n();
        int q = (int) Math.round(coverage.probability() * n);
        int best = 0;
        for (int r = 1; r + q < n; r++) {
            if (ends.rank(r + q) - ends.rank(r) < ends.rank(best + q) - ends.rank(best)) {
                best = r;
            }
        }
        return new Interval(ends.rank(best), ends.rank(Math.min(n - 1, best + q)));
    }

    /** The defined draws, rising, in the quantity's unit. */
    public double[] sorted() {
        double[] sorted = values.clone();
        Ranks.sort(sorted);
        return sorted;
    }

    /**
     * True when the draws came to rest, all have a value, and both ends of their interval are within a tenth of U of
     * the first-order ones (clause 8).
     */
    public boolean firstOrderIsGoodEnough() {
        double half = firstOrder.halfWidth();
        double close = Math.max(GOOD_ENOUGH * half, half <= tolerance ? tolerance : 0);
        return undefined == 0
                && stable
                && Math.abs(firstOrder.low() - symmetric.low()) <= close
                && Math.abs(firstOrder.high() - symmetric.high()) <= close;
    }

    /** Share of the draws at or below a value, 0 to 1. */
    public double shareBelow(double value) {
        int below = 0;
        for (double v : values) {
            below += v <= value ? 1 : 0;
        }
        return below / (double) values.length;
    }

    /**
     * Counts of the draws in bins of equal width over the middle 99.8 %.
     *
     * @return {@code bins + 1} edges and below them, in the second row, {@code bins} densities per unit of the quantity
     */
    public double[][] histogram(int bins) {
        Tails ends = Tails.of(values, 0.998);
        double low = quantile(ends, 0.001);
        double high = quantile(ends, 0.999);
        double width = high > low ? (high - low) / bins : 1;
        double[] edges = new double[bins + 1];
        double[] density = new double[bins];
        for (int i = 0; i <= bins; i++) {
            edges[i] = low + i * width;
        }
        for (double v : values) {
            int b = (int) Math.floor((v - low) / width);
            if (b >= 0 && b < bins) {
                density[b] += 1 / (width * values.length);
            }
        }
        return new double[][] {edges, density};
    }

    /** Density of the first-order result, a scaled and shifted Student's t, at a value; per unit of the quantity. */
    public double firstOrderDensity(double value) {
        double u = of.u();
        double dof = of.dof();
        return u == 0 ? 0 : new TDistribution(Math.min(dof, 1e9)).density((value - of.value()) / u) / u;
    }

    /** One sentence: how the two ways compare, and which one to use. */
    public String remark() {
        String unit = of.unit().pretty().isEmpty() ? "" : " " + of.unit().pretty();
        if (undefined > 0) {
            return Notation.sentence(
                    "In %.2g %% of the draws the formula has no value; the inputs' uncertainties reach outside "
                            + "its domain, and no interval can be trusted.",
                    100 * undefined);
        }
        String interval = Notation.interval(symmetric.low(), symmetric.high()) + unit;
        if (firstOrderIsGoodEnough()) {
            return Notation.sentence("Monte Carlo (%,d draws) confirms the first-order result: %s.", draws, interval);
        }
        String coverageInWords = Notation.plain(100 * coverage.probability(), 4) + " %";
        if (!stable) {
            return Notation.sentence(
                    "First order is not good enough here (Monte Carlo, %,d draws): the draws do not come to rest, "
                            + "because a few of them lie very far out; only their %s interval can be quoted, %s.",
                    draws, coverageInWords, interval);
        }
        if (of.isLinear()) {
            return Notation.sentence(
                    "The %s interval of the draws is %s where k u gives %s%s (Monte Carlo, %,d draws)%s.",
                    coverageInWords,
                    interval,
                    Notation.interval(firstOrder.low(), firstOrder.high()),
                    unit,
                    draws,
                    cause());
        }
        return Notation.sentence(
                "First order is not good enough here (Monte Carlo, %,d draws): the %s interval is %s, the "
                        + "standard deviation %s%s, the mean %s%s.",
                draws, coverageInWords, interval, Notation.figures(sd, 2), unit, Notation.plain(mean, 5), unit);
    }

    /**
     * Why the interval of a linear result is not the one of a normal distribution: the influence that is most of it.
     */
    private String cause() {
        List<Budget.Line> lines = Budget.of(of).lines();
        if (lines.isEmpty()) {
            return "";
        }
        Budget.Line top = lines.get(0);
        Leaf leaf = of.contributions().keySet().stream()
                .filter(l -> l.label().equals(top.label()))
                .findFirst()
                .orElseThrow();
        boolean few = top.dof() < 30;
        return ": " + top.label() + Notation.sentence(", %.0f %% of the variance, ", 100 * top.share())
                + (few
                        ? "is known from only %s degrees of freedom".formatted(Notation.plain(top.dof(), 2))
                        : "has a " + leaf.distribution().label()
                                + " distribution, which ends where a normal one does not");
    }
}
