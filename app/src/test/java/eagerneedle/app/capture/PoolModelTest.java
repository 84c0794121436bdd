package eagerneedle.app.capture;

import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.app.PlainDesk;
import eagerneedle.app.capture.PoolModel.Line;
import eagerneedle.app.workbench.Demonstration;
import eagerneedle.app.workbench.SheetFile;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.session.Session;
import eagerneedle.store.bench.BenchFile;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.LinkedBlockingQueue;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The sessions of a pool, without a window: this thread stands for the window's. */
class PoolModelTest {
    private static final Path EXAMPLES = Path.of("..", "docs", "examples");

    @TempDir
    Path folder;

    private final BlockingQueue<Runnable> turns = new LinkedBlockingQueue<>();
    private final List<String> refused = new ArrayList<>();
    private int shown;
    private Path benches;
    private PlainDesk desk;
    private PoolModel model;

    @BeforeEach
    void open() throws IOException {
        benches = Files.createDirectories(folder.resolve("benches"));
        Path pool = folder.resolve("pool.needle");
        BenchFile.create(
                        pool,
                        Session.start(
                                SheetFile.text(EXAMPLES.resolve("alloys-together.yaml")),
                                "All alloys",
                                PlainDesk.CLOCK.instant()))
                .close();
        desk = PlainDesk.at(pool);
        model = new PoolModel(desk);
    }

    @AfterEach
    void close() {
        desk.close();
    }

    private Path session(int seed) throws IOException {
        Path file = benches.resolve("bench-" + seed + ".needle");
        Demonstration.simulate(
                SheetTrial.read(Files.readString(EXAMPLES.resolve("alloy-arrest.yaml")), "a.yaml"),
                seed,
                Set.of(),
                file);
        return file;
    }

    private void take(List<Path> paths) throws InterruptedException {
        model.take(paths, turns::add, () -> shown++, refused::addAll);
        while (!model.progress().isEmpty()) {
            turns.take().run();
        }
    }

    @Test
    void sessionsOfAFolderAreTakenAndWhatIsNoneIsSaid() throws Exception {
        session(1);
        session(2);
        Files.writeString(benches.resolve("broken.needle"), "not a bench");
        take(List.of(benches));
        assertThat(model.lines()).hasSize(2).allMatch(Line::counts).noneMatch(Line::changed);
        assertThat(refused).singleElement().asString().contains("broken.needle").endsWith(".");
        assertThat(shown).as("each file is told while it is taken").isGreaterThan(3);
        assertThat(model.summary()).startsWith("2 sessions of '").contains("' count");
        Line first = model.lines().get(0);
        model.leaveOut(first.name(), "the tube was cracked");
        assertThat(model.summary()).startsWith("1 session of '").contains("' counts, 1 left out");
        assertThat(model.lines().get(0).reason()).isEqualTo("the tube was cracked");
        model.takeIn(first.name());
        assertThat(model.lines()).allMatch(Line::counts);
    }

    @Test
    void aFileThatChangedIsSaidAndTakenAgain() throws Exception {
        Path file = session(1);
        take(List.of(file));
        String values = model.lines().get(0).values();
        Files.delete(file);
        Files.move(session(5), file);
        model.look(turns::add, () -> shown++);
        turns.take().run();
        assertThat(model.lines()).singleElement().matches(Line::changed);
        assertThat(model.lines().get(0).about()).endsWith("; its file has changed since.");
        assertThat(model.lines().get(0).values())
                .as("what was taken stays until it is taken again")
                .isEqualTo(values);
        model.again(model.lines().get(0).name(), turns::add, () -> shown++, refused::addAll);
        while (!model.progress().isEmpty()) {
            turns.take().run();
        }
        assertThat(model.lines()).singleElement().matches(l -> !l.changed());
        assertThat(model.lines().get(0).values()).isNotEqualTo(values);
        Files.delete(file);
        model.look(turns::add, () -> shown++);
        turns.take().run();
        assertThat(model.lines().get(0).about()).endsWith("; its file is not there any more.");
        assertThat(refused).isEmpty();
    }

    @Test
    void whatIsStoppedLeavesNothing() throws Exception {
        session(1);
        model.take(List.of(benches), turns::add, () -> shown++, refused::addAll);
        model.cancel();
        while (!model.progress().isEmpty()) {
            turns.take().run();
        }
        assertThat(model.lines()).isEmpty();
        assertThat(refused).isEmpty();
        take(List.of(Files.createDirectories(folder.resolve("empty"))));
        assertThat(refused).containsExactly("There is no bench file in that folder.");
    }
}
