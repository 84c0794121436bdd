package eagerneedle.core.quantity;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
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
 * @param sorted the defined draws, rising, in the quantity's unit
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
        double[] sorted) {
    private static final int ROW = 2000;
    private static final int BLOCK = 10_000;
    private static final int BATCH = 10;
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
        List<double[]> figures = new ArrayList<>();
        while (!stable && blocks.size() < mostBlocks) {
            int from = blocks.size();
            int to = Math.min(mostBlocks, from == 0 ? Math.max(leastBlocks, 2) : from + BATCH);
            double[][] fresh = new double[to - from][];
            double[][] fourth = new double[to - from][];
            IntStream.range(from, to).parallel().forEach(b -> {
                fresh[b - from] = block(program, source, b);
                fourth[b - from] = figures(fresh[b - from], coverage);
            });
            blocks.addAll(Arrays.asList(fresh));
            figures.addAll(Arrays.asList(fourth));
            double[] last = blocks.get(0);
            tolerance = Math.max(tolerance(spread(figures, coverage), settings.digits()), ROUNDING * program.largest());
            stable = last.length > 0 && stabilised(figures, tolerance);
        }
        return assemble(q, coverage, blocks, stable, tolerance);
    }

    private static MonteCarlo assemble(
            Quantity q, Coverage coverage, List<double[]> blocks, boolean stable, double tolerance) {
        int defined = blocks.stream().mapToInt(b -> b.length).sum();
        int drawn = blocks.size() * BLOCK;
        if (defined < 2) {
            throw new ArithmeticException("The formula has no value for any draw of its inputs.");
        }
        double[] all = new double[defined];
        int at = 0;
        double mean = 0;
        for (double[] b : blocks) {
            System.arraycopy(b, 0, all, at, b.length);
            at += b.length;
            mean += sum(b, 0) / defined;
        }
        double squares = 0;
        for (double[] b : blocks) {
            double m = mean;
            double s = 0;
            for (double x : b) {
                s += (x - m) * (x - m);
            }
            squares += s;
        }
        Arrays.parallelSort(all);
        double u = coverage.expanded(q);
        return new MonteCarlo(
                q,
                drawn,
                stable,
                mean,
                Math.sqrt(squares / (defined - 1)),
                symmetric(all, coverage),
                shortest(all, coverage),
                new Interval(q.value() - u, q.value() + u),
                tolerance,
                1 - defined / (double) drawn,
                coverage,
                all);
    }

    private static double sum(double[] values, double from) {
        double s = from;
        for (double v : values) {
            s += v;
        }
        return s;
    }

    /** One block, draws without a value left out, sorted. */
    private static double[] block(DrawProgram program, LeafDraws source, int number) {
        double[][] registers = program.registers(ROW);
        double[][] rows = new double[program.leaves().size()][ROW];
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
        double[] kept = n == BLOCK ? out : Arrays.copyOf(out, n);
        Arrays.sort(kept);
        return kept;
    }

    /** Mean, standard deviation and the two ends of the symmetric interval of one sorted block. */
    private static double[] figures(double[] sorted, Coverage coverage) {
        if (sorted.length < 2) {
            return new double[] {Double.NaN, Double.NaN, Double.NaN, Double.NaN};
        }
        double mean = sum(sorted, 0) / sorted.length;
        double squares = 0;
        for (double v : sorted) {
            squares += (v - mean) * (v - mean);
        }
        Interval i = symmetric(sorted, coverage);
        return new double[] {mean, Math.sqrt(squares / (sorted.length - 1)), i.low(), i.high()};
    }

    private static boolean stabilised(List<double[]> figures, double tolerance) {
        int h = figures.size();
        for (int k = 0; k < 4; k++) {
            double mean = 0;
            for (double[] f : figures) {
                mean += f[k] / h;
            }
            double squares = 0;
            for (double[] f : figures) {
                squares += (f[k] - mean) * (f[k] - mean);
            }
            if (!(2 * Math.sqrt(squares / (h * (h - 1.0))) <= tolerance)) {
                return false;
            }
        }
        return true;
    }

    /** The standard uncertainty that the interval of the draws has, were they normal; the middle one of the blocks. */
    private static double spread(List<double[]> figures, Coverage coverage) {
        double[] widths = figures.stream()
                .mapToDouble(f -> (f[3] - f[2]) / 2 / coverage.factor(Double.POSITIVE_INFINITY))
                .sorted()
                .toArray();
        return widths[widths.length / 2];
    }

    static double tolerance(double u, int digits) {
        return u > 0 && !Double.isInfinite(u) ? u * (digits == 1 ? 0.05 : digits == 2 ? 0.01 : 0.003) : 0;
    }

    private static Interval symmetric(double[] sorted, Coverage coverage) {
        double tail = (1 - coverage.probability()) / 2;
        return new Interval(quantile(sorted, tail), quantile(sorted, 1 - tail));
    }

    /** Linear between order statistics (JCGM 101, annex D.6). */
    private static double quantile(double[] sorted, double p) {
        double at = p * sorted.length - 0.5;
        int k = (int) Math.floor(at);
        if (k < 0) {
            return sorted[0];
        }
        return k + 1 >= sorted.length ? sorted[sorted.length - 1] : sorted[k] + (at - k) * (sorted[k + 1] - sorted[k]);
    }

    private static Interval shortest(double[] sorted, Coverage coverage) {
        int q = (int) Math.round(coverage.probability() * sorted.length);
        int best = 0;
        for (int r = 1; r + q < sorted.length; r++) {
            if (sorted[r + q] - sorted[r] < sorted[best + q] - sorted[best]) {
                best = r;
            }
        }
        return new Interval(sorted[best], sorted[Math.min(sorted.length - 1, best + q)]);
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
        int at = Arrays.binarySearch(sorted, value);
        return (at >= 0 ? at + 1 : -at - 1) / (double) sorted.length;
    }

    /**
     * Counts of the draws in bins of equal width over the middle 99.8 %.
     *
     * @return {@code bins + 1} edges and below them, in the second row, {@code bins} densities per unit of the quantity
     */
    public double[][] histogram(int bins) {
        double low = quantile(sorted, 0.001);
        double high = quantile(sorted, 0.999);
        double width = high > low ? (high - low) / bins : 1;
        double[] edges = new double[bins + 1];
        double[] density = new double[bins];
        for (int i = 0; i <= bins; i++) {
            edges[i] = low + i * width;
        }
        for (double v : sorted) {
            int b = (int) Math.floor((v - low) / width);
            if (b >= 0 && b < bins) {
                density[b] += 1 / (width * sorted.length);
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
            return ("In %.2g %% of the draws the formula has no value; the inputs' uncertainties reach outside "
                            + "its domain, and no interval can be trusted.")
                    .formatted(100 * undefined);
        }
        String interval = Notation.interval(symmetric.low(), symmetric.high()) + unit;
        if (firstOrderIsGoodEnough()) {
            return "Monte Carlo (%,d draws) confirms the first-order result: %s.".formatted(draws, interval);
        }
        String coverageInWords = Notation.plain(100 * coverage.probability(), 4) + " %";
        if (!stable) {
            return ("First order is not good enough here (Monte Carlo, %,d draws): the draws do not come to rest, "
                            + "because a few of them lie very far out; only their %s interval can be quoted, %s.")
                    .formatted(draws, coverageInWords, interval);
        }
        if (of.isLinear()) {
            return "The %s interval of the draws is %s where k u gives %s%s (Monte Carlo, %,d draws)%s."
                    .formatted(
                            coverageInWords,
                            interval,
                            Notation.interval(firstOrder.low(), firstOrder.high()),
                            unit,
                            draws,
                            cause());
        }
        return ("First order is not good enough here (Monte Carlo, %,d draws): the %s interval is %s, the "
                        + "standard deviation %s%s, the mean %s%s.")
                .formatted(
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
        return ": " + top.label() + ", %.0f %% of the variance, ".formatted(100 * top.share())
                + (few
                        ? "is known from only %s degrees of freedom".formatted(Notation.plain(top.dof(), 2))
                        : "has a " + leaf.distribution().label()
                                + " distribution, which ends where a normal one does not");
    }
}
