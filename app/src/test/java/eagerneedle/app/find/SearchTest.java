package eagerneedle.app.find;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;

class SearchTest {
    private static Hit hit(String kind, String text, String more) {
        return new Hit(kind, text, more, () -> {});
    }

    private final Search search = new Search(List.of(
            hit("quantity", "slope of the line", "9.57(4) m/s²"),
            hit("run", "Run 12", "block A"),
            hit("run", "Run 2", "block B"),
            hit("step", "Foam stop fixed", "before"),
            hit("quantity", "local g", "9.80(4) m/s²"),
            hit("instrument", "sloping rule TH-RL-09", "hand instrument"),
            hit("note", "Größe des Spalts", "")));

    private List<String> found(String words) {
        return search.of(words, 10).stream().map(Hit::text).toList();
    }

    @Test
    void everyWordMustStandSomewhere() {
        assertThat(found("run block a")).containsExactly("Run 12");
        assertThat(found("quantity 9.8")).containsExactly("local g");
        assertThat(found("run foam")).isEmpty();
    }

    @Test
    void whatBeginsWithTheWordsComesFirst() {
        assertThat(found("slop")).containsExactly("slope of the line", "sloping rule TH-RL-09");
        assertThat(found("rule")).containsExactly("sloping rule TH-RL-09");
        assertThat(found("stop")).containsExactly("Foam stop fixed");
        assertThat(found("run 2").get(0)).isEqualTo("Run 2");
    }

    @Test
    void accentsAndCapitalsDoNotMatterAndNothingMeansEverything() {
        assertThat(found("GROSSE")).isEmpty();
        assertThat(found("größe")).containsExactly("Größe des Spalts");
        assertThat(found("spalts")).containsExactly("Größe des Spalts");
        assertThat(found("  ")).hasSize(7);
        assertThat(search.of("", 3)).hasSize(3);
    }
}
