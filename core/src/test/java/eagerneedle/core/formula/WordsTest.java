package eagerneedle.core.formula;

import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.core.judge.Ranking;
import eagerneedle.core.quantity.Quantity;
import java.util.List;
import org.junit.jupiter.api.Test;

/** Sentences keep members of sets apart from their words. */
class WordsTest {
    @Test
    void peopleReadWhatAMemberIsCalledAndFormulasItsName() {
        List<String> names = List.of(Value.Words.member("load", "r7"), Value.Words.member("load", "r10"));
        Value.Words w = new Value.Words(Ranking.of(names, List.of(Quantity.number(1), Quantity.number(2)), true)
                .sentence());
        assertThat(w.text()).isEqualTo("r10 is better than r7.");
        assertThat(w.said((set, member) -> set + " of " + member.substring(1) + " $\\"))
                .isEqualTo("load of 10 $\\ is better than load of 7 $\\.");
        assertThat(new Value.Words("r7 is not touched").said((s, m) -> "x")).isEqualTo("r7 is not touched");
    }

    @Test
    void aRankingByFormulaIsReadLikeThat() {
        Value v = Formula.parse("rank(members('load', 'r7', 1.0(1) ohm, 'r10', 2.0(1) ohm))")
                .evaluate(Scope.empty("test"));
        assertThat(v).isInstanceOf(Value.Words.class);
        assertThat(((Value.Words) v).text()).isEqualTo("r10 is better than r7.");
    }
}
