package eagerneedle.app.record;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import eagerneedle.app.PlainDesk;
import eagerneedle.core.session.Entries;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What Record keeps and lets out, without a window. */
class RecordModelTest {
    @TempDir
    Path folder;

    private PlainDesk desk;
    private RecordModel model;

    @BeforeEach
    void open() {
        desk = PlainDesk.rehearsed(folder, "baggage-chute");
        model = new RecordModel(desk);
    }

    @AfterEach
    void close() {
        desk.close();
    }

    @Test
    void aNoteGoesIntoTheNotebookWithItsPictures() {
        int before = model.notebook().size();
        int number = desk.bench().file().attach("ramp.png", "image/png", new byte[] {1, 2, 3});
        model.attach(new Entries.Picture(number, "ramp.png"));
        model.attach(new Entries.Picture(number, "again.png"));
        assertThat(model.attached()).isEqualTo("with ramp.png, again.png");
        model.write("the ramp was wiped");
        assertThat(model.attached()).as("they belong to that note").isEmpty();
        assertThat(model.notebook()).hasSize(before + 1);
        assertThat(model.shelf())
                .containsExactly(
                        new RecordModel.Shelved(number, "the ramp was wiped"),
                        new RecordModel.Shelved(number, "the ramp was wiped"));
        assertThat(model.bytes(model.shelf().get(0))).containsExactly(1, 2, 3);
        desk.bench().undo();
        assertThat(model.notebook()).as("undone acts stay in the notebook").hasSizeGreaterThan(before + 1);
        assertThat(model.shelf()).isEmpty();
        assertThatThrownBy(() -> model.write("  ")).isInstanceOf(IllegalArgumentException.class);
    }

    @Test
    void whatLeavesTheProgramIsInFilesOfItsOwn() throws IOException {
        assertThat(new String(model.ledger(), StandardCharsets.UTF_8)).startsWith("name,label,group,value,unit,u");
        assertThat(new String(model.results(), StandardCharsets.UTF_8)).startsWith("{");
        assertThat(new String(model.report(folder.resolve("R.HTML")), StandardCharsets.UTF_8))
                .contains("<html");
        assertThat(new String(model.report(folder.resolve("r.pdf")), StandardCharsets.ISO_8859_1))
                .startsWith("%PDF");
        Path runs = Files.createDirectory(folder.resolve("runs"));
        int kept = desk.bench().session().keptRuns().size();
        assertThat(model.runs(runs)).isEqualTo("Saved " + kept + " runs in runs.");
        try (var files = Files.list(runs)) {
            assertThat(files.count()).isEqualTo(kept);
        }
        assertThatThrownBy(() -> model.runs(folder.resolve("nowhere")))
                .hasMessageContaining("cannot be written there; choose another folder");
        Path copy = folder.resolve("copy.needle");
        model.copy(copy);
        assertThat(copy).exists();
        assertThatThrownBy(() -> model.copy(copy)).hasMessageContaining("exists already");
        assertThat(model.exports()).contains("*.xlsx", "*.zip");
        assertThat(model.keptAs()).isEqualTo("Kept as baggage-chute.needle, saved with every act.");
    }
}
