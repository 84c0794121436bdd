package eagerneedle.core.judge;

import eagerneedle.core.quantity.Coverage;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;

/**
 * Which of several results of one thing do not belong with the others. Each is held against the mean of the others,
 * weighted by their uncertainties; what they share cancels in the difference. The furthest is set aside first, since it
 * pulls the others with it, and the rest is looked at again. Because the furthest of n is looked for, a deviation
 * counts when it is n times less likely than one in twenty (Bonferroni).
 *
 * @param rows how many were held against each other
 * @param apart those that stand out, the furthest first
 */
public record StandingOut(int rows, List<Apart> apart) {
    private static final double RARE = 0.05;
    private static final int FEWEST = 3;

    /** One that stands out, by so many standard uncertainties of its difference from the others. */
    public record Apart(String name, double by) {}

    /**
     * Of results.
     *
     * @param names n names
     * @param values n values of one kind, with their lineage
     * @throws IllegalArgumentException for fewer than three: of two nobody can say which one it is
     */
    public static StandingOut of(List<String> names, List<Quantity> values) {
        if (values.size() < FEWEST) {
            throw new IllegalArgumentException("Of fewer than three nobody can say which one stands out.");
        }
        List<Integer> left =
                new ArrayList<>(IntStream.range(0, values.size()).boxed().toList());
        List<Apart> apart = new ArrayList<>();
        while (left.size() >= FEWEST && apart.size() < values.size() / 2) {
            Comparator<Integer> far = Comparator.comparingDouble(i -> distance(difference(i, left, values)));
            int furthest = left.stream()
                    .max(far.thenComparingDouble(
                            i -> Math.abs(difference(i, left, values).value())))
                    .orElseThrow();
            Quantity most = difference(furthest, left, values);
            double z = distance(most);
            if (z == 0 || Coverage.tails(z, most.dof()) * left.size() >= RARE) {
                break;
            }
            apart.add(new Apart(names.get(furthest), z));
            left.remove(Integer.valueOf(furthest));
        }
        return new StandingOut(values.size(), List.copyOf(apart));
    }

    /** Standard uncertainties from nothing. */
    private static double distance(Quantity d) {
        return d.value() == 0 ? 0 : Math.abs(d.value()) / d.u();
    }

    private static Quantity difference(int one, List<Integer> all, List<Quantity> values) {
        Quantity own = values.get(one);
        boolean exact = all.stream().anyMatch(j -> values.get(j).u() == 0);
        double sum = 0;
        Quantity out = own.minus(own);
        for (int j : all) {
            if (j != one) {
                Quantity d = own.minus(values.get(j));
                double u = values.get(j).to(own.unit()).u();
                double w = exact ? 1 : 1 / (u * u);
                sum += w;
                out = out.plus(d.scaled(w));
            }
        }
        return out.scaled(1 / sum);
    }

    /** {@code bench-07 stands out, by 5.2 standard uncertainties; the other 11 agree.} */
    public String sentence() {
        if (apart.isEmpty()) {
            return "All " + rows + " agree with each other.";
        }
        List<String> said = apart.stream()
                .map(a -> a.name() + " stands out"
                        + (Double.isInfinite(a.by())
                                ? ""
                                : ", by " + Notation.figures(a.by(), 2) + " standard uncertainties"))
                .toList();
        int others = rows - apart.size();
        return String.join("; ", said) + "; the other " + others + (others == 1 ? " is left." : " agree.");
    }
}
