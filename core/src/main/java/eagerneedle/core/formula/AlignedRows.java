package eagerneedle.core.formula;

import org.jspecify.annotations.Nullable;

/** Which rows of a column belong to which of another: see {@link RowPairs}. */
public final class AlignedRows {
    private final RowPairs rows;

    private AlignedRows(RowPairs rows) {
        this.rows = rows;
    }

    /**
     * Of a column and of something else in rows.
     *
     * @throws FormulaException where they are to be paired by number and there are not as many
     */
    public static AlignedRows of(Value.Column column, int size, @Nullable RowLabels labels, Expr at) {
        return new AlignedRows(RowPairs.of(column.rows().size(), column.labels(), size, labels, at.column()));
    }

    /**
     * Of two columns.
     *
     * @throws FormulaException where they are to be paired by number and there are not as many
     */
    public static AlignedRows of(Value.Column a, Value.Column b) {
        return new AlignedRows(RowPairs.of(a.rows().size(), a.labels(), b.rows().size(), b.labels(), 0));
    }

    /** What the pairs are called; null where nobody knows. */
    public @Nullable RowLabels labels() {
        return rows.labels();
    }

    public int size() {
        return rows.left().length;
    }

    /** Number of the row of the column in a pair. */
    public int left(int pair) {
        return rows.left()[pair];
    }

    /** Number of the row of the other in a pair. */
    public int right(int pair) {
        return rows.right()[pair];
    }
}
