package eagerneedle.app.capture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.app.PlainDesk;
import eagerneedle.app.widget.Cell;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.session.Run;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The rows of a capture that holds, without a window. */
class RowsModelTest {
    @TempDir
    Path folder;

    @Test
    void eachRunIsARowWithTheMeanOfEveryChannel() {
        try (PlainDesk desk = PlainDesk.rehearsed(folder, "signpost-arm")) {
            RowsModel.Shown shown = new RowsModel(desk.bench()).of("hung");
            List<Run> runs = desk.bench().session().keptRuns().stream()
                    .filter(r -> r.capture().equals("hung"))
                    .toList();
            assertThat(shown.isAny()).isTrue();
            assertThat(shown.cells()).hasSize(runs.size() + 1);
            assertThat(shown.cells().get(0))
                    .extracting(Cell::text)
                    .startsWith("run", "level")
                    .hasSize(5);
            assertThat(shown.cells().get(1).get(1).text()).isEqualTo("first time");
            List<String> channels = desk.bench().sheet().capture("hung").channels();
            double[] volts = desk.bench()
                    .reduction()
                    .trace(runs.get(0), channels.get(0))
                    .orElseThrow()
                    .value();
            double mean = Arrays.stream(volts).average().orElseThrow();
            List<String> line = shown.figures().get(1);
            assertThat(shown.figures().get(0)).hasSize(8);
            assertThat(Double.parseDouble(line.get(2))).isCloseTo(mean, within(1e-9));
            assertThat(shown.cells().get(1).get(2).text())
                    .isEqualTo(Notation.bracketed(Double.parseDouble(line.get(2)), Double.parseDouble(line.get(3))));
            assertThat(shown.tabbed().lines()).hasSize(runs.size() + 1).allMatch(l -> l.split("\t").length == 8);
        }
    }

    @Test
    void aCaptureWithoutRunsHasNoRows() {
        try (PlainDesk desk = PlainDesk.fresh(folder, "signpost-arm")) {
            assertThat(new RowsModel(desk.bench()).of("hung").isAny()).isFalse();
        }
    }
}
