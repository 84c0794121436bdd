package eagerneedle.app.day;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import eagerneedle.app.widget.Cell;
import eagerneedle.app.widget.Sentence;
import eagerneedle.app.workbench.Draft;
import eagerneedle.core.day.ReadyCheck;
import eagerneedle.store.stockroom.ReadyBook;
import eagerneedle.store.stockroom.StockroomException;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What follows from an afternoon as it is written, word by word, without a window. */
class DayModelTest {
    private static final String TWO = "day: Friday\ndate: 2026-11-27\nbegins: \"13:30\"\nslots: 2\nminutes: 45\n"
            + "groups: [Oak, Elm]\nmethods: [letter-scale, signpost-arm]\nkits: 4\n";

    @TempDir
    private Path folder;

    private DayModel model;

    @BeforeEach
    void begin() {
        model = again();
    }

    private DayModel again() {
        return new DayModel(
                folder.resolve("none.db"),
                () -> new ReadyBook(folder).all(),
                new Draft(folder.resolve("a.yaml")),
                new Draft(folder.resolve("b.yaml")));
    }

    private void write(String text) {
        DayModel.Asked asked = model.ask(text);
        assertThat(model.answer(asked, asked.plan(), null)).isTrue();
    }

    @Test
    void theRotaHasARoundInEachColumnAndAGroupInEachRow() {
        write(TWO);
        assertThat(model.state()).isEqualTo("Friday 27 November 2026");
        assertThat(model.mayPrint()).isTrue();
        assertThat(model.before()).isEmpty();
        List<List<String>> rota = model.rota().stream()
                .map(r -> r.stream().map(Cell::text).toList())
                .toList();
        assertThat(rota.get(0)).containsExactly("", "13:30 to 14:15", "14:25 to 15:10");
        assertThat(rota.stream().skip(1).map(r -> r.get(0))).containsExactly("Oak", "Elm");
        assertThat(rota.get(1).get(1)).isNotEqualTo(rota.get(1).get(2)).endsWith(", bench 1");
        assertThat(model.after()).contains(Sentence.section("From the stockroom"));
    }

    @Test
    void whatCannotBePlannedIsSaidInOneSentenceAndPrintsNothing() {
        write(TWO);
        DayModel.Asked asked = model.ask("slots: [");
        assertThat(model.state()).isEqualTo("planning...");
        assertThatThrownBy(asked::plan).satisfies(e -> model.answer(asked, null, e));
        assertThat(model.before()).singleElement().satisfies(s -> {
            assertThat(s.kind()).isEqualTo(Sentence.Kind.ATTENTION);
            assertThat(s.read()).startsWith("▲ The afternoon, line 1");
        });
        assertThat(model.mayPrint()).isFalse();
        assertThat(model.rota()).isEmpty();
        assertThat(model.after()).isEmpty();
        model.print(folder.resolve("day.pdf"), false);
        assertThat(folder.resolve("day.pdf")).doesNotExist();
    }

    @Test
    void anAnswerThatCameTooLateIsNotShown() {
        DayModel.Asked first = model.ask("day: slow\n" + TWO);
        DayModel.Asked second = model.ask(TWO);
        assertThat(model.answer(second, second.plan(), null)).isTrue();
        assertThat(model.answer(first, null, new IllegalArgumentException("too late")))
                .isFalse();
        assertThat(model.state()).isEqualTo("Friday 27 November 2026");
        assertThat(model.before()).isEmpty();
    }

    @Test
    void benchesThatWereLookedAtAreSaidAndABookThatCannotBeReadIsSaidToo() throws IOException {
        new ReadyBook(folder)
                .add(new ReadyCheck(
                        LocalDateTime.of(2026, 11, 27, 9, 0)
                                .atZone(ZoneId.systemDefault())
                                .toInstant(),
                        "bench 7",
                        "letter-scale",
                        "J. Birch",
                        List.of(new ReadyCheck.Row("Zero", false, "drifts")),
                        List.of()));
        write(TWO);
        assertThat(model.after().stream().map(Sentence::words))
                .anyMatch(w -> w.contains("bench 7 is not ready (zero; J. Birch)"));
        Files.writeString(folder.resolve(ReadyBook.FILE), "{ half a line");
        write(TWO);
        assertThat(model.after().get(0).read()).startsWith("▲ Line 1 of the checks in ready.jsonl cannot be read");
        assertThat(model.after()).contains(Sentence.section("From the stockroom"));
        assertThatThrownBy(() -> model.print(folder.resolve("day.html"), false))
                .isInstanceOf(StockroomException.class)
                .hasMessageContaining("ready.jsonl");
    }

    @Test
    void whatWasWrittenIsThereAgainWithTheFileThatItIsOf() {
        assertThat(model.begin()).isEqualTo(DayFile.example());
        model.file(folder.resolve("friday.yaml"));
        model.keep(TWO);
        DayModel next = again();
        assertThat(next.file()).isEmpty();
        assertThat(next.begin()).isEqualTo(TWO);
        assertThat(next.file()).contains(folder.resolve("friday.yaml").toAbsolutePath());
    }
}
