package eagerneedle.core.formula;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;

/**
 * Which rows of two columns belong together: those that agree in all labels which both have. A column that lacks a
 * label repeats over it; a row without a partner takes no part. Runs of two captures belong together at the same level
 * of a set, or at levels that are called alike; where neither is so they are refused. Columns without labels are paired
 * by number.
 *
 * @param left numbers of rows of the first
 * @param right numbers of rows of the second, as many
 * @param labels what the pairs are called; null where nobody knows
 */
record RowPairs(int[] left, int[] right, @Nullable RowLabels labels) {
    /** In the place of a label; no set has such a name. */
    private static final String LEVEL = "its level";

    /**
     * @param n rows of the first, labelled a
     * @param m rows of the second, labelled b
     * @throws FormulaException where they are to be paired by number and there are not as many
     */
    static RowPairs of(int n, @Nullable RowLabels a, int m, @Nullable RowLabels b, int column) {
        if (a != null && b != null && (a.rows().isEmpty() || b.rows().isEmpty()) && n * m == 0) {
            return joined(a, b, List.of());
        }
        if (a != null && b != null && !a.axes().isEmpty() && !b.axes().isEmpty()) {
            Set<String> shared = new LinkedHashSet<>(a.axes());
            shared.retainAll(b.axes());
            boolean ofMembers = a.capture().isEmpty() || b.capture().isEmpty();
            if (!shared.isEmpty() || ofMembers) {
                return joined(a, b, List.copyOf(shared));
            }
            if (a.levels().size() > 1 && b.levels().stream().anyMatch(a.levels()::contains)) {
                return joined(a, b, List.of(LEVEL));
            }
            throw new FormulaException(
                    column,
                    "The rows of " + a.capture() + " and of " + b.capture()
                            + " have nothing in common by which they belong together; give both captures levels of one "
                            + "set, or take one number of each, such as their mean.");
        }
        if (n != m) {
            throw new FormulaException(column, "A column of " + n + " values does not go with one of " + m + ".");
        }
        int[] same = IntStream.range(0, n).toArray();
        return new RowPairs(same, same, a == null ? b : b == null || b.equals(a) ? a : null);
    }

    private static RowPairs joined(RowLabels a, RowLabels b, List<String> shared) {
        Map<List<String>, List<Integer>> partners = new HashMap<>();
        for (int k = 0; k < b.rows().size(); k++) {
            partners.computeIfAbsent(labels(b, k, shared), key -> new ArrayList<>())
                    .add(k);
        }
        List<Integer> left = new ArrayList<>();
        List<Integer> right = new ArrayList<>();
        List<RowLabels.Row> rows = new ArrayList<>();
        for (int i = 0; i < a.rows().size(); i++) {
            for (int k : partners.getOrDefault(labels(a, i, shared), List.of())) {
                left.add(i);
                right.add(k);
                rows.add(a.rows().get(i).with(b.rows().get(k)));
            }
        }
        boolean first = !a.capture().isEmpty();
        return new RowPairs(
                left.stream().mapToInt(i -> i).toArray(),
                right.stream().mapToInt(i -> i).toArray(),
                new RowLabels(first ? a.capture() : b.capture(), rows, first ? a.levels() : b.levels()));
    }

    private static List<String> labels(RowLabels of, int row, List<String> shared) {
        return shared.stream()
                .map(s -> s.equals(LEVEL)
                        ? of.rows().get(row).level()
                        : of.rows().get(row).labels().getOrDefault(s, ""))
                .toList();
    }
}
