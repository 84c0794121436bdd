package eagerneedle.core.formula;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import eagerneedle.core.quantity.Quantity;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Rows that combine by what they are called, are chosen, ordered and absent; comparisons in three values. */
class RowPairsTest {
    private static Value.Column column(String capture, int... runs) {
        List<Quantity> rows =
                IntStream.of(runs).mapToObj(r -> Quantity.number(10.0 * r)).toList();
        return new Value.Column(
                rows,
                new RowLabels(
                        capture,
                        IntStream.of(runs)
                                .mapToObj(r -> new RowLabels.Row("run " + r, "l" + r % 2))
                                .toList(),
                        List.of("l0", "l1")));
    }

    private static Value.Column alone(String capture, int... runs) {
        Value.Column all = column(capture, runs);
        return new Value.Column(all.rows(), new RowLabels(capture, all.labels().rows(), List.of("run")));
    }

    private static Value evaluated(String formula, Map<String, Value> values) {
        return Formula.parse(formula).evaluate(Scope.over("test", values));
    }

    private static String shown(String formula) {
        return evaluated(formula, Map.of()).shown();
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', textBlock = """
            column(1, 2, 3) > 1.5                                    | false, true, true
            column(1, 2, 3) > column(3, 2, 1)                        | false, false, true
            not (column(1, 2) > 1.5)                                 | true, false
            column(1, 2, 3) > 1.5 and column(1, 2, 3) < 2.5          | false, true, false
            column(1, 2, 3) < 1.5 or 2 > 1                           | true, true, true
            where(column(1 V, 2 V, 3 V), column(1, 2, 3) != 2)       | 1 V, 3 V
            if(column(1, 2, 3) > 1.5, column(10, 20, 30), 0)         | 0, 20, 30
            if(column(1, 2, 3) > 1.5, column(10, 20, 30), none)      | 20, 30
            sorted(column(1, 2, 3), by: column(9, 7, 8))             | 2, 3, 1
            difference(column(1, 4, 9, 16))                          | 3, 5, 7
            count(where(column(1, 2, 3), column(1, 2, 3) > 1))       | 2
            all(column(1, 2, 3) > 0)                                 | true
            any(column(1, 2, 3) > 5)                                 | false
            none + 3 mm                                              | none
            -none                                                    | none
            sqrt(none)                                               | none
            mean(none, 2)                                            | none
            none > 3                                                 | cannot tell
            not (none > 3)                                           | cannot tell
            none > 3 and 1 > 2                                       | false
            1 > 2 and none > 3                                       | false
            none > 3 or 1 < 2                                        | true
            none > 3 or 1 > 2                                        | cannot tell
            if(none > 3, 1, 2)                                       | none
            if(1 < 2, 5, none)                                       | 5
            if(1 < 2, 5, 1 / 0)                                      | 5
            known(none)                                              | false
            known(3 V)                                               | true
            1 mm == 1000 um                                          | true
            1 mm != 1 mm                                             | false
            """)
    void rowsAndAbsence(String formula, String expected) {
        assertThat(shown(formula)).isEqualTo(expected);
    }

    /** Leaving a run out shifts nothing: rows of one capture find each other by their run. */
    @Test
    void rowsOfOneCaptureCombineByRun() {
        Map<String, Value> v = Map.of("a", column("c", 1, 2, 3, 4), "b", column("c", 2, 4));
        assertThat(evaluated("a - b", v).shown()).isEqualTo("0, 0");
        assertThat(((Value.Column) evaluated("a - b", v)).labels().rows())
                .extracting(RowLabels.Row::run)
                .containsExactly("run 2", "run 4");
        assertThat(evaluated("where(a, b > 25)", v).shown()).isEqualTo("40");
        assertThat(evaluated("a > b", v).shown()).isEqualTo("false, false");
        assertThat(evaluated("proportional(a, b)", v).shown()).startsWith("1");
        assertThat(evaluated("if(a > 15, b, none)", v).shown()).isEqualTo("20, 40");
    }

    @Test
    void rowsOfTwoCapturesBelongTogetherAtLevelsThatAreCalledAlike() {
        Map<String, Value> v = Map.of("a", column("c", 1, 2), "b", column("d", 5, 6, 7));
        // Runs 1, 5 and 7 are at one level, 2 and 6 at the other.
        assertThat(evaluated("b - a", v).shown()).isEqualTo("40, 40, 60");
        assertThat(evaluated("a + mean(b)", v).shown()).isEqualTo("70.0(58), 80.0(58)");
    }

    @Test
    void rowsThatNobodyNamesAndThatAreNotAsManyAreRefused() {
        Map<String, Value> v = Map.of("a", column("c", 1, 2, 3), "b", alone("d", 7, 8, 9));
        assertThatThrownBy(() -> evaluated("a + b", v))
                .hasMessageContaining("The rows of c and of d have nothing in common");
        assertThatThrownBy(() -> evaluated("line(a, b)", v)).hasMessageContaining("nothing in common");
        assertThatThrownBy(() -> evaluated("if(a > 1, 2, 3) + column(1, 2)", v)).hasMessageContaining("does not go");
        assertThatThrownBy(() -> evaluated("if(1 + 1, 2, 3)", v)).hasMessageContaining("A comparison is needed");
        assertThatThrownBy(() -> evaluated("not (a > 1) and 3", v)).hasMessageContaining("A comparison is needed");
    }

    /** What is chosen and what is left together are all, whatever is asked. */
    @Property
    void whereSplitsAColumn(
            @ForAll @Size(min = 1, max = 12) List<@IntRange(min = 1, max = 40) Integer> runs,
            @ForAll @IntRange(max = 400) int limit) {
        int[] distinct = runs.stream().mapToInt(i -> i).distinct().toArray();
        Map<String, Value> v = Map.of("a", column("c", distinct));
        List<Quantity> above = ((Value.Column) evaluated("where(a, a > " + limit + ")", v)).rows();
        List<Quantity> rest = ((Value.Column) evaluated("where(a, not (a > " + limit + "))", v)).rows();
        assertThat(above.size() + rest.size()).isEqualTo(distinct.length);
        assertThat(above).allMatch(q -> q.value() > limit);
        assertThat(rest).allMatch(q -> q.value() <= limit);
    }
}
