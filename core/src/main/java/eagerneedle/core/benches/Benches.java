package eagerneedle.core.benches;

import eagerneedle.core.judge.StandingOut;
import eagerneedle.core.quantity.Coverage;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Predicate;
import org.hipparchus.analysis.UnivariateFunction;
import org.hipparchus.analysis.solvers.BrentSolver;
import org.hipparchus.distribution.continuous.ChiSquaredDistribution;

/**
 * One result of several benches, held together.
 *
 * <p>Each bench is weighted by what it has of its own; what benches share (an instrument by its serial number, a
 * reference) is no reason to prefer one to another and is not averaged down, see
 * {@link eagerneedle.core.judge.Repeated}. Where they differ by more than each says of itself, a scatter between
 * benches is estimated, the one with which they are as consistent as can be expected (R. C. Mandel and J. Paule, Anal.
 * Chem. 42, 1194, 1970), and added to each: so a single careful bench does not rule the mean, and the mean says what is
 * not understood.
 *
 * @param rows the benches in the order given, all in the unit of the first
 * @param mean with everything that is shared, and the scatter between benches
 * @param between standard deviation between benches beside what each says of itself, in the unit of the mean; 0 where
 *     none is needed
 * @param chi2 sum of squared deviations from the mean in units of what each has of its own, without {@code between};
 *     NaN where one has nothing of its own
 * @param probability of at least that by chance; NaN likewise
 * @param apart those that do not belong with the others, each held against the others with the scatter between these;
 *     the furthest first; empty for fewer than three
 */
public record Benches(
        List<Row> rows, Quantity mean, double between, double chi2, double probability, List<StandingOut.Apart> apart) {
    private static final int FEWEST_APART = 3;
    private static final double RARE = 0.01;
    private static final int MOST_STEPS = 200;

    /** What one bench gives. */
    public record Row(String name, Quantity value) {}

    public Benches {
        rows = List.copyOf(rows);
        apart = List.copyOf(apart);
    }

    /**
     * Holds benches together.
     *
     * @throws IllegalArgumentException for fewer than two, or units of different kinds
     */
    public static Benches of(List<Row> all) {
        if (all.size() < 2) {
            throw new IllegalArgumentException("At least two benches are held together.");
        }
        LabUnit unit = all.get(0).value().unit();
        List<Row> rows =
                all.stream().map(r -> new Row(r.name(), r.value().to(unit))).toList();
        List<Quantity> values = rows.stream().map(Row::value).toList();
        double[] x = values.stream().mapToDouble(Quantity::value).toArray();
        double[] own = own(values);
        int n = x.length;
        double chi2 = chi2(x, own, 0);
        double between = between(x, own);
        double[] share = shares(own, between);
        double mean = weighted(x, share);
        Quantity combined = Quantity.combination(values, share, mean, unit);
        if (between > 0) {
            double squares = Arrays.stream(share).map(s -> s * s).sum();
            combined = combined.with(
                    Leaf.typeA("between benches", "scatter between benches", "between benches", n - 1),
                    between * Math.sqrt(squares));
        }
        return new Benches(
                rows,
                combined,
                between,
                chi2,
                Double.isFinite(chi2) ? 1 - new ChiSquaredDistribution(n - 1).cumulativeProbability(chi2) : Double.NaN,
                apart(rows));
    }

    /**
     * Each is held against the mean of the others, whose own scatter between benches is allowed it as well; the
     * furthest is set aside first and the rest looked at again, as in {@link StandingOut}. Because the furthest of n is
     * looked for, it counts when it is n times less likely than one in a hundred (Bonferroni): a bench is named before
     * others.
     */
    private static List<StandingOut.Apart> apart(List<Row> rows) {
        List<Row> left = new ArrayList<>(rows);
        List<StandingOut.Apart> out = new ArrayList<>();
        while (left.size() >= FEWEST_APART && out.size() < rows.size() / 2) {
            Row furthest = left.get(0);
            double by = -1;
            double dof = Double.POSITIVE_INFINITY;
            for (Row r : left) {
                List<Row> others = left.stream().filter(o -> o != r).toList();
                Far far = far(r.value(), others.stream().map(Row::value).toList());
                if (far.by() > by) {
                    furthest = r;
                    by = far.by();
                    dof = far.dof();
                }
            }
            if (by <= 0 || Coverage.tails(by, dof) * left.size() >= RARE) {
                break;
            }
            out.add(new StandingOut.Apart(furthest.name(), by));
            left.remove(furthest);
        }
        return out;
    }

    private record Far(double by, double dof) {}

    /** How many standard uncertainties one lies from the mean of others; what they share cancels. */
    private static Far far(Quantity one, List<Quantity> others) {
        double[] x = others.stream().mapToDouble(Quantity::value).toArray();
        double[] own = own(others);
        double between = between(x, own);
        double[] share = shares(own, between);
        Quantity mean = Quantity.combination(others, share, weighted(x, share), one.unit());
        Quantity d = one.minus(mean);
        double scatter =
                between * Math.sqrt(1 + Arrays.stream(share).map(s -> s * s).sum());
        double u = Math.hypot(d.u(), scatter);
        return new Far(d.value() == 0 ? 0 : Math.abs(d.value()) / u, between > 0 ? others.size() - 1 : d.dof());
    }

    /** The benches without those of these names. */
    public List<Row> without(List<String> names) {
        return rows.stream().filter(r -> !names.contains(r.name())).toList();
    }

    /** What each has of its own, which no other has. */
    private static double[] own(List<Quantity> values) {
        Map<Leaf, Integer> times = new HashMap<>();
        values.forEach(q -> q.contributions().keySet().forEach(l -> times.merge(l, 1, Integer::sum)));
        Predicate<Leaf> alone = l -> times.getOrDefault(l, 0) == 1;
        return values.stream().mapToDouble(q -> q.keeping(alone).u()).toArray();
    }

    private static double[] shares(double[] own, double between) {
        boolean exact = between == 0 && Arrays.stream(own).anyMatch(u -> u == 0);
        double[] w = Arrays.stream(own)
                .map(u -> exact ? 1 : 1 / (u * u + between * between))
                .toArray();
        double total = Arrays.stream(w).sum();
        return Arrays.stream(w).map(v -> v / total).toArray();
    }

    private static double weighted(double[] x, double[] share) {
        double sum = 0;
        for (int i = 0; i < x.length; i++) {
            sum += share[i] * x[i];
        }
        return sum;
    }

    private static double chi2(double[] x, double[] own, double between) {
        if (between == 0 && Arrays.stream(own).anyMatch(u -> u == 0)) {
            return Double.NaN;
        }
        double mean = weighted(x, shares(own, between));
        double sum = 0;
        for (int i = 0; i < x.length; i++) {
            sum += (x[i] - mean) * (x[i] - mean) / (own[i] * own[i] + between * between);
        }
        return sum;
    }

    /** The scatter with which chi-square is what is expected of it; 0 where it is less without any. */
    private static double between(double[] x, double[] own) {
        double spread =
                Arrays.stream(x).max().orElseThrow() - Arrays.stream(x).min().orElseThrow();
        if (spread == 0) {
            return 0;
        }
        int dof = x.length - 1;
        UnivariateFunction excess = t -> chi2(x, own, t) - dof;
        double least = 1e-9 * spread;
        if (excess.value(least) <= 0) {
            return 0;
        }
        return new BrentSolver(1e-12, least * 1e-3).solve(MOST_STEPS, excess, least, 2 * spread);
    }

    /** The names of those that do not belong with the others. */
    public List<String> namesApart() {
        return new ArrayList<>(apart.stream().map(StandingOut.Apart::name).toList());
    }
}
