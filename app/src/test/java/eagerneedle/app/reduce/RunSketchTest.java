package eagerneedle.app.reduce;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.app.PlainDesk;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class RunSketchTest {
    @TempDir
    Path folder;

    @Test
    void heightsGoFromTheLeastToTheGreatestValueWhicheverWayCountsRun() {
        assertThat(RunSketch.of(new double[] {10, 22, 30}, false).y())
                .containsExactly(new double[] {0, 0.6, 1}, within(1e-9));
        assertThat(RunSketch.of(new double[] {10, 22, 30}, true).y())
                .containsExactly(new double[] {1, 0.4, 0}, within(1e-9));
        assertThat(RunSketch.of(new double[480], false).y()).hasSize(48).containsOnly(0.5);
    }

    @Test
    void aRollRisesAndAGateHasNone() {
        try (PlainDesk desk = PlainDesk.rehearsed(folder, "baggage-chute")) {
            double[] y = RunSketch.of(
                            desk.bench(), desk.bench().session().run(28).orElseThrow())
                    .orElseThrow()
                    .y();
            assertThat(y[0]).as("at rest near the ranger").isLessThan(0.1);
            assertThat(y[y.length - 1]).as("at the stop, bounced back").isBetween(0.7, 1.0);
        }
        try (PlainDesk desk = PlainDesk.rehearsed(folder, "potters-wheel")) {
            assertThat(RunSketch.of(desk.bench(), desk.bench().session().run(1).orElseThrow()))
                    .isEmpty();
        }
    }
}
