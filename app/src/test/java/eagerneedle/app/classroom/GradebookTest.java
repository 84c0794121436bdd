package eagerneedle.app.classroom;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import eagerneedle.app.classroom.MarkingBook.Act;
import eagerneedle.core.marking.Change;
import eagerneedle.core.marking.Explanation;
import eagerneedle.core.marking.HandIn;
import eagerneedle.core.marking.Marked;
import eagerneedle.core.marking.Verdict;
import eagerneedle.core.quantity.Reading;
import eagerneedle.report.Feedback;
import eagerneedle.report.Paper;
import eagerneedle.store.classroom.ClassFolder;
import eagerneedle.store.classroom.ClassFolder.Asked;
import eagerneedle.store.classroom.ClassList.Student;
import eagerneedle.store.classroom.GradeTable;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class GradebookTest {
    private static final Clock CLOCK = Clock.fixed(Instant.parse("2026-11-23T09:00:00Z"), ZoneOffset.UTC);

    @TempDir
    Path folder;

    private static Marked marked(String quantity, String value, Verdict v, Explanation... by) {
        return new Marked(
                new HandIn("s1", quantity, value, "", "g"),
                quantity,
                quantity,
                null,
                Reading.parse("183.4567(20) g").toQuantity("x", "x", "x"),
                v,
                List.of(),
                List.of(by),
                List.of());
    }

    private static ClassMarking.Marks marks() {
        Explanation twice =
                new Explanation(Change.Kind.SLIP, "factor-2", "Twice as large", "A factor of two.", 366.9, 500);
        Explanation square =
                new Explanation(Change.Kind.MISTAKE, "square", "Not squared", "It has the square.", 12, 500);
        ClassFolder about = new ClassFolder(
                1,
                "m",
                "A method",
                List.of(new Asked("a", "mass of a", "g"), new Asked("b", "mass of b", "g")),
                List.of());
        return new ClassMarking.Marks(
                about,
                List.of(
                        new StudentMarks(
                                new Student("s1", "Ann", ""),
                                List.of(
                                        marked("a", "366.9", Verdict.EXPLAINED, twice),
                                        marked("b", "12", Verdict.EXPLAINED, square)),
                                List.of()),
                        new StudentMarks(
                                new Student("s2", "=Ben", "G"),
                                List.of(marked("a", "183.46", Verdict.RIGHT), marked("b", "", Verdict.MISSING)),
                                List.of())),
                List.of());
    }

    @Test
    void whatAMarkerDecidesStandsIsUndoneAndIsThereTheNextDay() {
        MarkingBook book = MarkingBook.open(folder, CLOCK);
        Gradebook g = new Gradebook(marks(), book);
        StudentMarks ann = g.students().get(0);
        assertThat(g.total(ann)).isEqualTo(0.6);
        assertThatThrownBy(() -> book.overrule("s1", "a", Verdict.RIGHT, " ", ""))
                .hasMessageContaining("Say why");
        book.overrule("s1", "a", Verdict.RIGHT, "read from the wrong line of the form", "N.");
        book.points("b", "3");
        assertThatThrownBy(() -> book.points("b", "many")).hasMessageContaining("'many' is not");
        book.late("s2", "one day, agreed");
        book.second("s1", "b", Verdict.UNIT, "I read kg there", "M.");
        assertThat(g.verdict(ann, "a")).isEqualTo(Verdict.RIGHT);
        assertThat(g.total(ann)).isEqualTo(1 + 3 * 0.3);
        book.undo();
        book.undo();
        book.undo();
        book.undo();
        assertThat(g.total(ann)).isEqualTo(0.6);
        book.redo();
        MarkingBook again = MarkingBook.open(folder, CLOCK);
        assertThat(again.overruled("s1", "a").orElseThrow().reason()).contains("wrong line");
        assertThat(again.canRedo()).isTrue();
        again.redo();
        assertThat(again.points("b")).isEqualTo(3);
        again.agree("s2", "a", "N.");
        assertThat(again.canRedo()).isFalse();
        assertThat(again.isSettled("s2", "a")).isTrue();
        assertThat(again.counts()).containsEntry(Act.OVERRULE, 1L).containsEntry(Act.AGREE, 1L);
        assertThat(again.says()).hasSize(3);
    }

    @Test
    void theTableGoesOutByStudentAndSaysWhatTheClassGotWrong() throws IOException {
        Gradebook g = new Gradebook(marks(), MarkingBook.open(folder, CLOCK));
        GradeTable.write(g.head(), g.rows(), folder.resolve("t.csv"));
        assertThat(Files.readAllLines(folder.resolve("t.csv")))
                .containsExactly(
                        "id,name,group,a,a points,b,b points,total,of,late",
                        "s1,Ann,,explained,0.3,explained,0.3,0.6,2.0,",
                        "s2,'=Ben,G,right,1.0,missing,0.0,1.0,2.0,");
        GradeTable.write(g.head(), g.rows(), folder.resolve("t.xlsx"));
        assertThat(folder.resolve("t.xlsx")).isNotEmptyFile();
        assertThatThrownBy(() -> GradeTable.write(g.head(), g.rows(), folder.resolve("t.doc")))
                .hasMessageContaining("something.csv");
        assertThat(g.classWide())
                .containsExactly(
                        "mass of a: 1 of 2 not right. 1 × Twice as large.",
                        "mass of b: 2 of 2 not right. 1 × Not squared; 1 not handed in.");
    }

    @Test
    void aPageTellsNoTruthWhileTheWorkIsOpen() throws IOException {
        MarkingBook book = MarkingBook.open(folder, CLOCK);
        Gradebook g = new Gradebook(marks(), book);
        String open = Feedback.html(FeedbackPages.page(g, book, g.students().get(0), false), Paper.A4);
        assertThat(open)
                .contains("Ann", "366.9", "not squared", "Look at factors")
                .doesNotContain("183.4", "wice as");
        String ben = Feedback.html(FeedbackPages.page(g, book, g.students().get(1), false), Paper.A4);
        assertThat(ben).contains("Right.", "Still open").doesNotContain("183.4567");
        String closed = Feedback.html(FeedbackPages.page(g, book, g.students().get(0), true), Paper.A4);
        assertThat(closed).contains("183.4567(20)", "twice as large");
        assertThat(FeedbackPages.write(g, book, folder.resolve("pages"), false, Paper.LETTER, (n, of) -> true))
                .isEqualTo(2);
        assertThat(folder.resolve("pages/feedback-s1.pdf")).isNotEmptyFile();
    }
}
