package eagerneedle.core.judge;

import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import org.hipparchus.distribution.continuous.TDistribution;

/**
 * Which of some candidates (materials, shapes, orders) a result fits: the distance to each reference in combined
 * standard uncertainties, and how the likelihood is shared among them.
 *
 * @param entries nearest first
 */
public record Candidates(Quantity result, List<Entry> entries) {
    private static final double APART = 10;

    /**
     * One candidate.
     *
     * @param name what it is
     * @param reference its value
     * @param normalised difference in combined standard uncertainties, signed
     * @param share share of the likelihood among the candidates, 0 to 1
     */
    public record Entry(String name, Quantity reference, double normalised, double share) {}

    /** @throws IllegalArgumentException without candidates or without any uncertainty */
    public static Candidates of(Quantity result, Map<String, Quantity> references) {
        if (references.isEmpty()) {
            throw new IllegalArgumentException("There are no candidates to choose from.");
        }
        List<Entry> entries = new ArrayList<>();
        double total = 0;
        for (Map.Entry<String, Quantity> e : references.entrySet()) {
            Quantity d = result.minus(e.getValue());
            if (d.u() == 0) {
                throw new IllegalArgumentException(
                        "Without an uncertainty nothing can be said of how well " + e.getKey() + " fits.");
            }
            double z = d.value() / d.u();
            double likelihood = new TDistribution(Math.min(d.dof(), 1e9)).density(z) / d.u();
            total += likelihood;
            entries.add(new Entry(e.getKey(), e.getValue(), z, likelihood));
        }
        double sum = total;
        List<Entry> shared = entries.stream()
                .map(e -> new Entry(
                        e.name(), e.reference(), e.normalised(), sum > 0 ? e.share() / sum : 1.0 / entries.size()))
                .sorted(Comparator.comparingDouble((Entry e) -> -e.share())
                        .thenComparingDouble(e -> Math.abs(e.normalised())))
                .toList();
        return new Candidates(result, shared);
    }

    /** One sentence. */
    public String sentence() {
        Entry best = entries.get(0);
        if (entries.stream().allMatch(e -> Math.abs(e.normalised()) > 3)) {
            Entry nearest = entries.stream()
                    .min(Comparator.comparingDouble(e -> Math.abs(e.normalised())))
                    .orElseThrow();
            return "%s fits none of the candidates; the nearest is %s, %s standard uncertainties away."
                    .formatted(
                            Notation.bracket(result),
                            nearest.name(),
                            Notation.plain(Math.abs(nearest.normalised()), 2));
        }
        List<String> close = entries.stream()
                .filter(e -> e.share() > best.share() / APART)
                .map(Entry::name)
                .toList();
        if (close.size() > 1) {
            return "%s cannot be told apart by %s.".formatted(String.join(" and ", close), Notation.bracket(result));
        }
        return "%s fits %s best (%s %% of the likelihood, %s standard uncertainties away)."
                .formatted(
                        Notation.bracket(result),
                        best.name(),
                        Notation.plain(100 * best.share(), 3),
                        Notation.plain(Math.abs(best.normalised()), 2));
    }
}
