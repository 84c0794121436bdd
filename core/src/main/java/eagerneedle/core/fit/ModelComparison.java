package eagerneedle.core.fit;

import eagerneedle.core.quantity.Notation;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.hipparchus.distribution.continuous.FDistribution;

/**
 * Several models of the same response beside each other: residuals first, then the corrected Akaike criterion (Hurvich
 * and Tsai 1989), and words.
 *
 * <p>AICc compares likelihoods of the same numbers, so fits of a transformed response (the logarithm, say) are refused.
 * r and R² do not appear, because they say nothing about which model is right.
 *
 * @param entries one a model, in the order given
 */
public record ModelComparison(List<Entry> entries) {
    /**
     * One model.
     *
     * @param fit its fit
     * @param aicc corrected Akaike criterion; infinite when there are too few points for it
     * @param share Akaike weight among the models given, 0 to 1
     * @param runs runs-test score of the residuals in order of x; strongly negative when they bend
     * @param lackOfFit chance of the lack of fit seen, from repeats at equal abscissae; empty without repeats
     */
    public record Entry(Fit fit, double aicc, double share, double runs, Optional<Double> lackOfFit) {
        boolean bends() {
            return runs < -3;
        }
    }

    /** @throws FitException when the fits are not of the same response at the same points */
    public static ModelComparison of(List<Fit> fits) {
        if (fits.size() < 2) {
            throw new FitException("A comparison needs at least two fits.");
        }
        for (Fit f : fits) {
            if (!f.yUnit().equals(fits.get(0).yUnit())
                    || !Arrays.equals(f.y(), fits.get(0).y())) {
                throw new FitException("Models can be compared only on the same response: the "
                        + fits.get(0).model() + " and the " + f.model()
                        + " were fitted to different ordinates, perhaps a transformed one.");
            }
        }
        double[] aicc = fits.stream().mapToDouble(ModelComparison::aicc).toArray();
        double least = Arrays.stream(aicc).min().orElseThrow();
        double total = Arrays.stream(aicc).map(a -> Math.exp(-(a - least) / 2)).sum();
        List<Entry> entries = new ArrayList<>();
        for (int i = 0; i < aicc.length; i++) {
            Fit f = fits.get(i);
            entries.add(new Entry(
                    f,
                    aicc[i],
                    Math.exp(-(aicc[i] - least) / 2) / total,
                    Residuals.runsScore(inOrder(f)),
                    lackOfFit(f)));
        }
        return new ModelComparison(List.copyOf(entries));
    }

    private static double aicc(Fit f) {
        int n = f.y().length;
        int p = f.parameters().size();
        boolean known = !Double.isNaN(f.chiSquared());
        int k = known ? p : p + 1;
        double ss = Arrays.stream(f.residuals()).map(r -> r * r).sum();
        double fit = known ? f.chiSquared() : n * Math.log(Math.max(ss, 1e-300) / n);
        return n - k - 1 > 0 ? fit + 2 * k + 2.0 * k * (k + 1) / (n - k - 1) : Double.POSITIVE_INFINITY;
    }

    private static double[] inOrder(Fit f) {
        Integer[] order = new Integer[f.x().length];
        Arrays.setAll(order, i -> i);
        Arrays.sort(order, java.util.Comparator.comparingDouble(i -> f.x()[i]));
        double[] r = f.residuals();
        return Arrays.stream(order).mapToDouble(i -> r[i]).toArray();
    }

    /** Chance of the lack-of-fit F ratio or a larger one (pure error from repeats at exactly equal abscissae). */
    static Optional<Double> lackOfFit(Fit f) {
        Map<Double, List<Double>> groups = new TreeMap<>();
        for (int i = 0; i < f.x().length; i++) {
            groups.computeIfAbsent(f.x()[i], x -> new ArrayList<>()).add(f.y()[i]);
        }
        int n = f.y().length;
        int m = groups.size();
        int p = f.parameters().size();
        if (n - m < 1 || m - p < 1) {
            return Optional.empty();
        }
        double pure = 0;
        for (List<Double> g : groups.values()) {
            double mean = g.stream().mapToDouble(Double::doubleValue).average().orElseThrow();
            pure += g.stream().mapToDouble(y -> (y - mean) * (y - mean)).sum();
        }
        double all = Arrays.stream(f.residuals()).map(r -> r * r).sum();
        if (!(pure > 0)) {
            return Optional.empty();
        }
        double ratio = Math.max(0, all - pure) / (m - p) / (pure / (n - m));
        return Optional.of(1 - new FDistribution(m - p, n - m).cumulativeProbability(ratio));
    }

    /** The likeliest model. */
    public Entry best() {
        return entries.stream()
                .max(java.util.Comparator.comparingDouble(Entry::share))
                .orElseThrow();
    }

    /** The advice in words. */
    public String advice() {
        Entry best = best();
        StringBuilder b = new StringBuilder();
        for (Entry e : entries) {
            if (e.bends()) {
                b.append("The residuals of the %s bend. ".formatted(e.fit().model()));
            } else if (e.lackOfFit().isPresent() && e.lackOfFit().get() < 0.01) {
                b.append("The %s misses the means of the repeats by more than their scatter. "
                        .formatted(e.fit().model()));
            }
        }
        for (Entry e : entries) {
            if (e != best) {
                double ratio = best.share() / e.share();
                b.append(
                        Double.isInfinite(ratio) || ratio > 1e6
                                ? "Beside the %2$s the %1$s is ruled out. "
                                        .formatted(e.fit().model(), best.fit().model())
                                : ratio < 3
                                        ? "The %s and the %s cannot be told apart by these data. "
                                                .formatted(
                                                        best.fit().model(),
                                                        e.fit().model())
                                        : "The %s is %s times less likely than the %s. "
                                                .formatted(
                                                        e.fit().model(),
                                                        Notation.plain(ratio, 2),
                                                        best.fit().model()));
            }
        }
        if (entries.stream().allMatch(Entry::bends)) {
            b.append("None of them describes the data.");
        }
        return b.toString().strip();
    }
}
