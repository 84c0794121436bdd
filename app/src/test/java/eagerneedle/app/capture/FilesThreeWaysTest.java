package eagerneedle.app.capture;

import static eagerneedle.app.command.Needle.needle;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.dataformat.yaml.YAMLFactory;
import eagerneedle.app.command.Needle;
import eagerneedle.app.workbench.ColumnMapping;
import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.Session;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.store.bench.BenchFile;
import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.List;
import java.util.stream.Stream;
import java.util.stream.StreamSupport;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

/** Files of every kind give the same by three ways: looked at, brought in by a command, dropped on the window. */
class FilesThreeWaysTest {
    private static final Path KINDS =
            Path.of("..", "store", "src", "test", "resources", "eagerneedle", "store", "foreign", "kinds.yaml");

    private static final Path SHEET =
            Path.of("src", "test", "resources", "eagerneedle", "app", "workbench", "warm.yaml");

    @TempDir
    private Path folder;

    static Stream<Arguments> good() throws IOException {
        return kinds("good");
    }

    static Stream<Arguments> bad() throws IOException {
        return kinds("bad");
    }

    private static Stream<Arguments> kinds(String which) throws IOException {
        JsonNode all =
                new ObjectMapper(new YAMLFactory()).readTree(KINDS.toFile()).get(which);
        return StreamSupport.stream(all.spliterator(), false)
                .map(k -> Arguments.of(k.get("name").asText(), k));
    }

    private Path written(JsonNode kind) throws IOException {
        Charset in = Charset.forName(kind.path("charset").asText("UTF-8"));
        return Files.write(folder.resolve("file.txt"), kind.get("text").asText().getBytes(in));
    }

    private Workbench bench(String name) throws IOException {
        Clock clock = Clock.systemUTC();
        return new Workbench(
                BenchFile.create(folder.resolve(name), Session.start(Files.readString(SHEET), "Warm", clock.instant())),
                clock);
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("good")
    void giveTheSame(String name, JsonNode kind) throws IOException {
        Path file = written(kind);
        String guess = kind.path("says").asText("");

        Needle.Said looked = needle("look", file, "--json");
        assertThat(looked.status()).as(looked.err()).isZero();
        JsonNode found = looked.json().get("files").get(0);
        assertThat(found.get("runs")).hasSize(1);
        JsonNode columns = found.get("runs").get(0).get("columns");
        JsonNode last = columns.get(columns.size() - 1);
        assertThat(last.get("n").asInt()).isEqualTo(3);
        assertThat(last.get("first").asDouble()).isCloseTo(20, within(1e-9));
        assertThat(last.get("last").asDouble()).isCloseTo(21, within(1e-9));
        assertThat(found.get("remarks").toString()).contains(guess);

        Path session = folder.resolve("imported.needle");
        Needle.Said imported = needle("import", file, "--into", session, "--method", SHEET);
        assertThat(imported.status()).as(imported.err()).isZero();
        assertThat(imported.out()).contains(guess);
        try (BenchFile kept = BenchFile.open(session)) {
            isThere(kept, kept.session().keptRuns().get(0));
        }

        try (Workbench bench = bench("dropped.needle")) {
            ImportModel model = ImportModel.ofFiles(bench, List.of(file));
            model.belongsTo("look", "run");
            ColumnMapping how = model.guess();
            assertThat(model.says()).contains(guess);
            isThere(bench.file(), model.bring(how, "0", true));
        }
    }

    private static void isThere(BenchFile file, Run run) {
        RawSamples t = file.samples(run.id(), "T");
        assertThat(LabUnit.parse(run.rawUnit("T"))).isEqualTo(LabUnit.parse("degC"));
        assertThat(t.values()).hasSize(3);
        for (int i = 0; i < 3; i++) {
            assertThat(t.time()[i]).isCloseTo(0.5 * i, within(2e-5));
            assertThat(t.values()[i]).isCloseTo(20 + 0.5 * i, within(1e-9));
        }
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("bad")
    void areRefusedAlikeAndNothingIsLeftBehind(String name, JsonNode kind) throws IOException {
        Path file = written(kind);
        String why = kind.get("says").asText();

        Needle.Said looked = needle("look", file);
        assertThat(looked.status()).isEqualTo(2);
        assertThat(looked.err().strip().lines()).hasSize(1);
        assertThat(looked.err()).contains(why);

        Path session = folder.resolve("imported.needle");
        Needle.Said imported = needle("import", file, "--into", session, "--method", SHEET);
        assertThat(imported.status()).isEqualTo(2);
        assertThat(imported.err()).contains(why);
        assertThat(session).doesNotExist();

        try (Workbench bench = bench("dropped.needle")) {
            assertThatThrownBy(() -> {
                        ImportModel model = ImportModel.ofFiles(bench, List.of(file));
                        model.belongsTo("look", "run");
                        model.bring(model.guess(), "0", true);
                    })
                    .isInstanceOf(RuntimeException.class)
                    .hasMessageContaining(why);
            assertThat(bench.session().runs()).isEmpty();
            assertThat(bench.file().nextRunId(bench.session())).isEqualTo(1);
        }
    }

    @Test
    void whatNobodyWantsAndWhatIsTakenByItsPlaceIsSaid() throws IOException {
        Path file = Files.writeString(folder.resolve("two.csv"), "time (s),U (degC),V\n0,20,1\n0.5,20.5,1\n1,21,1\n");
        try (Workbench bench = bench("dropped.needle")) {
            ImportModel model = ImportModel.ofFiles(bench, List.of(file));
            model.belongsTo("look", "run");
            ColumnMapping how = model.guess();
            model.bring(how, "0", true);
            assertThat(model.remarks(how))
                    .isEqualTo("'U' was taken for bath, by its place. Nobody wants 'V'; it was not brought in.");
        }
    }
}
