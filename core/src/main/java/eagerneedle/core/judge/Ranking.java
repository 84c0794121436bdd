package eagerneedle.core.judge;

import eagerneedle.core.quantity.Coverage;
import eagerneedle.core.quantity.Quantity;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;

/**
 * Things in the order of their values, pair by pair better than the next or not to be told apart from it. What two
 * share cancels in their difference.
 *
 * @param names from the best on
 * @param better for each but the last whether it is better than the next
 */
public record Ranking(List<String> names, List<Boolean> better) {
    /**
     * @param names n names
     * @param values n values of one kind
     * @param largestFirst false where the smallest is the best
     */
    public static Ranking of(List<String> names, List<Quantity> values, boolean largestFirst) {
        Comparator<Integer> rising = Comparator.comparingDouble(
                i -> values.get(i).to(values.get(0).unit()).value());
        List<Integer> order = new ArrayList<>(
                IntStream.range(0, values.size()).boxed().sorted(rising).toList());
        if (largestFirst) {
            java.util.Collections.reverse(order);
        }
        List<Boolean> better = new ArrayList<>();
        for (int i = 1; i < order.size(); i++) {
            Quantity d = values.get(order.get(i - 1)).minus(values.get(order.get(i)));
            better.add(Math.abs(d.value()) > Coverage.DEFAULT.expanded(d));
        }
        return new Ranking(order.stream().map(names::get).toList(), better);
    }

    /** {@code A is better than B; B and C cannot be told apart.} */
    public String sentence() {
        if (names.size() < 2) {
            return names.isEmpty() ? "There is nothing to rank." : "There is only " + names.get(0) + ".";
        }
        List<String> parts = new ArrayList<>();
        for (int i = 1; i < names.size(); i++) {
            parts.add(
                    better.get(i - 1)
                            ? names.get(i - 1) + " is better than " + names.get(i)
                            : names.get(i - 1) + " and " + names.get(i) + " cannot be told apart");
        }
        return String.join("; ", parts) + ".";
    }
}
