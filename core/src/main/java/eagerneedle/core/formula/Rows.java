package eagerneedle.core.formula;

import java.util.ArrayList;
import java.util.List;

/**
 * Which rows of two columns belong together: those of one run, where both say of which runs they are; those with the
 * same number otherwise. A row without a partner has none, and takes no part.
 *
 * @param left numbers of rows of the first
 * @param right numbers of rows of the second, as many
 * @param labels what the pairs are called; null where nobody knows
 */
record Rows(int[] left, int[] right, RowLabels labels) {
    /**
     * @param n rows of the first, labelled a
     * @param m rows of the second, labelled b
     * @throws FormulaException where they are to be paired by number and there are not as many
     */
    static Rows of(int n, RowLabels a, int m, RowLabels b, int column) {
        if (a != null && b != null && a.capture().equals(b.capture())) {
            return byRun(a, b);
        }
        if (n != m) {
            throw new FormulaException(column, "A column of " + n + " values does not go with one of " + m + ".");
        }
        int[] same = new int[n];
        for (int i = 0; i < n; i++) {
            same[i] = i;
        }
        return new Rows(same, same, a == null ? b : b == null || b.equals(a) ? a : null);
    }

    private static Rows byRun(RowLabels a, RowLabels b) {
        List<Integer> left = new ArrayList<>();
        List<Integer> right = new ArrayList<>();
        List<RowLabels.Row> rows = new ArrayList<>();
        for (int i = 0; i < a.rows().size(); i++) {
            int k = b.rows().indexOf(a.rows().get(i));
            if (k >= 0) {
                left.add(i);
                right.add(k);
                rows.add(a.rows().get(i));
            }
        }
        return new Rows(
                left.stream().mapToInt(i -> i).toArray(),
                right.stream().mapToInt(i -> i).toArray(),
                new RowLabels(a.capture(), rows, a.levels()));
    }
}
