package eagerneedle.app.workbench;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import eagerneedle.core.edit.SheetText;
import eagerneedle.core.reduce.Key;
import eagerneedle.core.session.PlanningCommand;
import eagerneedle.core.session.Session;
import eagerneedle.core.session.SheetCommand;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.store.bench.BenchFile;
import eagerneedle.store.bench.NotebookLine;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Instant;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * The sheet of an open session is changed like anything else: undone, kept in the file, refused where it does not fit.
 */
class ChangedSheetTest {
    @TempDir
    private Path dir;

    private static SheetCommand.Write with(String text, String name, String formula) {
        return new SheetCommand.Write(
                SheetText.of(text)
                        .with("/results/" + name, Map.of("label", name, "formula", formula, "unit", "kg"))
                        .text(),
                "Added " + name + ".");
    }

    @Test
    void aChangeIsUndoneDoneAgainAndStaysInTheFile() {
        Path file = dir.resolve("a.needle");
        String first = SheetReader.shippedText("trolley-two-gates");
        BenchFile.create(file, Session.start(first, "T", Instant.EPOCH)).close();
        String changed;
        try (Workbench b = new Workbench(BenchFile.open(file), Clock.systemUTC())) {
            b.apply(with(first, "twice", "2 * m_all"));
            changed = b.session().sheetText();
            assertThat(b.reduction().outcome("twice").problem()).isNull();
            assertThat(b.plan().quantity(new Key.Global("twice"))).isPresent();
            b.undo();
            assertThat(b.sheet().results()).doesNotContainKey("twice");
            b.redo();
            assertThat(b.sheet().results()).containsKey("twice");
            b.apply(new PlanningCommand.SetRepeats("hang", 2));
            assertThat(b.file().firstSheet()).isEqualTo(first);
        }
        try (Workbench b = new Workbench(BenchFile.open(file), Clock.systemUTC())) {
            assertThat(b.session().sheetText()).isEqualTo(changed);
            assertThat(b.sheet().results()).containsKey("twice");
            assertThat(b.file().acts()).extracting(NotebookLine::text).contains("Added twice.");
            assertThat(BenchFile.glance(file).sheetText()).isEqualTo(changed);
        }
        Path repaired = dir.resolve("repaired.needle");
        BenchFile.repair(file, repaired, null);
        try (BenchFile f = BenchFile.open(repaired)) {
            assertThat(f.session().sheetText()).isEqualTo(changed);
            assertThat(f.firstSheet()).isEqualTo(first);
        }
        Path copy = dir.resolve("copy.needle");
        try (BenchFile f = BenchFile.open(file)) {
            f.copyTo(copy);
        }
        assertThat(BenchFile.glance(copy).sheetText()).isEqualTo(changed);
    }

    @Test
    void whatIsNotGoodOrHasNoRoomForTheRunsChangesNothing() {
        Path file = dir.resolve("a.needle");
        String first = SheetReader.shippedText("trolley-two-gates");
        BenchFile.create(file, Session.start(first, "T", Instant.EPOCH)).close();
        try (Workbench b = new Workbench(BenchFile.open(file), Clock.systemUTC())) {
            assertThatThrownBy(() -> b.apply(with(first, "wrong", "2 * nobody")))
                    .hasMessageContaining("nobody");
            assertThatThrownBy(() -> b.apply(new SheetCommand.Write("sheet: [", "x")))
                    .hasMessageContaining("YAML");
            assertThat(b.session().sheetText()).isEqualTo(first);
            assertThat(b.file().acts()).hasSize(1);
            assertThatThrownBy(() -> b.whatIf(with(first, "wrong", "2 *")))
                    .hasMessageContaining("something is missing");
        }
    }
}
