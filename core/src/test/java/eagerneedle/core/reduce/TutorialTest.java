package eagerneedle.core.reduce;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.judge.School;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.RunCommand;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.RawSamples;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.hipparchus.stat.regression.SimpleRegression;
import org.junit.jupiter.api.Test;

/** The sheet that the tutorial writes is good, and reduces swings as a few lines of an independent calculation do. */
class TutorialTest {
    private static final double G = 9.8126;

    @Test
    void thePendulumOfTheTutorialWorks() throws IOException {
        String page = Files.readString(Path.of("..", "docs", "adding-a-method.md"));
        String text = page.substring(page.indexOf("```yaml\n") + 8, page.indexOf("```", page.indexOf("```yaml\n") + 8));
        SheetReader.Located sheet = SheetTrial.read(text, "pendulum.yaml");
        Map<Integer, Double> typed = new HashMap<>();
        Reducer reducer =
                new Reducer(sheet, (run, channel) -> new RawSamples(new double[] {0}, new double[] {typed.get(run)}));
        Session session = Session.start(text, "pendulum", Instant.EPOCH);
        Random random = new Random(3);
        SimpleRegression independent = new SimpleRegression();
        for (int i = 1; i <= 4; i++) {
            for (int k = 0; k < 3; k++) {
                double length = 0.2 + 0.2 * i;
                double shown =
                        Math.rint(100 * (20 * 2 * Math.PI * Math.sqrt(length / G) + 0.1 * random.nextGaussian())) / 100;
                int id = session.nextRunId();
                typed.put(id, shown);
                session = new RunCommand.KeepRun(Run.captured(id, "swing", "l" + i, Instant.EPOCH, "watch", Run.COUNTS)
                                .measuredIn(Map.of("swings", "s")))
                        .apply(session);
                independent.addData(length, Math.pow(shown / 20, 2));
            }
        }
        Reduction r = reducer.reduce(session);
        Quantity g = r.quantity("g").orElseThrow();
        assertThat(g.value()).isCloseTo(4 * Math.PI * Math.PI / independent.getSlope(), within(1e-9 * G));
        assertThat(r.comparisons().get(0).agrees(School.STANDARD)).isTrue();
        assertThat(r.checks()).allMatch(c -> c.met().orElse(false));

        Sheet.Mistake nineteen = sheet.sheet().mistakes().get(0);
        Reduction wrong = reducer.mistaken(session, nineteen);
        assertThat(wrong.quantity("g").orElseThrow().value()).isCloseTo(g.value() * 19 * 19 / 400.0, within(1e-9 * G));
        assertThat(wrong.comparisons().get(0).agrees(School.STANDARD)).isFalse();
        assertThat(reducer.reduce(session).quantity("g").orElseThrow().value())
                .as("nothing of a mistake is kept")
                .isEqualTo(g.value());
        assertThat(List.copyOf(nineteen.change().keySet())).containsExactly("swing.T");
    }
}
