package eagerneedle.app.benches;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import eagerneedle.app.workbench.Demonstration;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.store.bench.BenchFile;
import eagerneedle.store.export.Beside;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Set;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicReference;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A folder of benches is read while they publish, and whatever else lies in it. */
class BenchFolderTest {
    private static final int TRIES = 100;

    @TempDir
    private Path folder;

    private static void simulate(String method, long seed, Path to) throws IOException {
        Demonstration.simulate(SheetTrial.read(SheetReader.shippedText(method), method), seed, Set.of(), to);
    }

    @Test
    void aBenchThatPublishesMeanwhileBreaksNothing() throws Exception {
        Path[] sources = {folder.resolve("one.needle"), folder.resolve("other.needle")};
        simulate("signpost-arm", 1, sources[0]);
        simulate("signpost-arm", 2, sources[1]);
        Path shared = Files.createDirectories(folder.resolve("shared"));
        publish(sources[0], shared.resolve("bench 1.needle"));
        publish(sources[1], shared.resolve("bench 2.needle"));
        AtomicBoolean over = new AtomicBoolean();
        AtomicReference<Exception> failed = new AtomicReference<>();
        Thread bench = new Thread(() -> {
            for (int i = 0; !over.get(); i++) {
                try {
                    publish(sources[i % 2], shared.resolve("bench 1.needle"));
                } catch (IOException | RuntimeException e) {
                    failed.set(e);
                }
            }
        });
        bench.start();
        int seen = 0;
        try (BenchFolder read = new BenchFolder()) {
            String before = "";
            for (int i = 0; i < TRIES; i++) {
                read.read(shared, (n, of) -> true);
                assertThat(read.problems()).isEmpty();
                assertThat(read.benches()).hasSize(2);
                String now = read.benches()
                        .get(0)
                        .reduction()
                        .quantity("P")
                        .orElseThrow()
                        .toString();
                seen += now.equals(before) ? 0 : 1;
                before = now;
            }
        } finally {
            over.set(true);
            bench.join();
        }
        assertThat(failed.get()).isNull();
        assertThat(seen).as("what was published anew was read anew").isGreaterThan(1);
    }

    private static void publish(Path source, Path to) throws IOException {
        try (BenchFile file = BenchFile.open(source)) {
            Beside.write(to, file::copyTo);
        }
    }

    @Test
    void whatDoesNotBelongIsToldAndTheRestIsHeldTogether() throws Exception {
        simulate("signpost-arm", 1, folder.resolve("bench 2.needle"));
        simulate("signpost-arm", 2, folder.resolve("bench 10.needle"));
        simulate("drying-cabinet", 3, folder.resolve("bench 3.needle"));
        Files.writeString(folder.resolve("bench 4.needle"), "this is no bench file");
        Files.writeString(folder.resolve(".half.needle"), "being written");
        Files.writeString(folder.resolve("list.csv"), "id");
        try (BenchFolder read = new BenchFolder();
                BenchFile inUse = BenchFile.open(folder.resolve("bench 10.needle"))) {
            assertThat(inUse.session().runs()).isNotEmpty();
            read.read(folder, (n, of) -> true);
            assertThat(read.benches()).hasSize(1);
            assertThat(read.problems())
                    .hasSize(3)
                    .anyMatch(p -> p.startsWith("bench 10.needle") && p.contains("in use"))
                    .anyMatch(p -> p.startsWith("bench 3.needle follows the method drying-cabinet"))
                    .anyMatch(p -> p.startsWith("bench 4.needle"));
        }
        try (BenchesModel model = new BenchesModel()) {
            model.read(folder, (n, of) -> true);
            assertThat(model.names()).containsExactly("bench 2", "bench 10");
            assertThat(model.together("P").all().rows()).hasSize(2);
            model.count("bench 2", false);
            assertThatThrownBy(() -> model.together("P")).hasMessageStartingWith("Fewer than two benches have");
        }
    }

    @Test
    void anEmptyFolderAndNoneSaySo() throws Exception {
        try (BenchFolder read = new BenchFolder()) {
            assertThatThrownBy(() -> read.read(folder, (n, of) -> true)).hasMessageContaining("publish a closed copy");
            assertThatThrownBy(() -> read.read(folder.resolve("none"), (n, of) -> true))
                    .hasMessageContaining("is no folder that can be read");
            Files.writeString(folder.resolve("a.needle"), "x");
            assertThatThrownBy(() -> read.read(folder, (n, of) -> true)).hasMessageContaining("can be held together");
        }
    }
}
