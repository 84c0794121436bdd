package eagerneedle.app.window;

import static eagerneedle.app.OnScreen.act;
import static eagerneedle.app.OnScreen.settle;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.dataformat.yaml.YAMLFactory;
import eagerneedle.core.trace.RawSamples;
import java.nio.charset.Charset;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.List;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/** Every kind of file, good and broken, dropped on the real window. */
class DropWindowTest extends BenchWindow {
    private static final Path KINDS =
            Path.of("..", "store", "src", "test", "resources", "eagerneedle", "store", "foreign", "kinds.yaml");

    @Start
    void start(Stage newStage) throws Exception {
        prepare(newStage);
    }

    private Path written(JsonNode kind) throws Exception {
        Charset in = Charset.forName(kind.path("charset").asText("UTF-8"));
        return Files.write(folder.resolve("file.txt"), kind.get("text").asText().getBytes(in));
    }

    @Test
    void everyKindIsBroughtInOrRefused(FxRobot robot) throws Exception {
        assumeTrue(Boolean.getBoolean("everyMethod"), "in the long profile");
        openText(robot, testSheet("warm"), Clock.systemUTC());
        JsonNode kinds = new ObjectMapper(new YAMLFactory()).readTree(KINDS.toFile());
        int runs = 0;
        for (JsonNode kind : kinds.get("good")) {
            String name = kind.get("name").asText();
            Path file = written(kind);
            act(() -> window.door().drop(List.of(file)));
            await(() -> robot.lookup("#import-go").tryQuery().isPresent());
            assertThat(text(robot, "import-guess"))
                    .as(name)
                    .contains(kind.path("says").asText(""));
            fire(robot, "import-go");
            assertThat(session().runs()).as(name).hasSize(++runs);
            RawSamples t = window.bench().file().samples(runs, "T");
            assertThat(t.values()).as(name).hasSize(3);
            for (int i = 0; i < 3; i++) {
                assertThat(t.time()[i]).as(name).isCloseTo(0.5 * i, within(2e-5));
                assertThat(t.values()[i]).as(name).isCloseTo(20 + 0.5 * i, within(1e-9));
            }
        }
        for (JsonNode kind : kinds.get("bad")) {
            String name = kind.get("name").asText();
            Path file = written(kind);
            act(() -> window.door().drop(List.of(file)));
            settle();
            assertThat(text(robot, "watch-line"))
                    .as(name)
                    .contains(kind.get("says").asText());
            assertThat(session().runs()).as(name).hasSize(runs);
        }
    }
}
