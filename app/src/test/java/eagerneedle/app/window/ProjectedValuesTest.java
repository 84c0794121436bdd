package eagerneedle.app.window;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.app.PlainDesk;
import eagerneedle.core.chain.Chain;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.trace.RawSamples;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.function.BiFunction;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What a class reads from the back row is what the bench reads. */
class ProjectedValuesTest {
    @TempDir
    private Path folder;

    private static RawSamples samples(double... counts) {
        double[] t = new double[counts.length];
        Arrays.setAll(t, i -> 0.01 * i);
        return new RawSamples(t, counts);
    }

    private static double number(ProjectedValues.Value v) {
        return Double.parseDouble(v.text().split(" ")[0].replace('−', '-'));
    }

    @Test
    void aSampleBeyondTheReachOfAChannelIsNoPartOfWhatItReads() {
        try (PlainDesk desk = PlainDesk.fresh(folder, "letter-scale")) {
            Sheet sheet = desk.bench().sheet();
            Chain chain = sheet.channels().values().iterator().next().toChain();
            double low = chain.converter().lowestCount();
            double high = chain.converter().highestCount();
            double some = Math.rint(low + 0.5 * (high - low));
            double more = some + 3;
            double beyond = high + 1000;
            BiFunction<String, Double, RawSamples> half = (name, s) -> samples(some, beyond, more, Double.NaN);
            List<ProjectedValues.Value> read = ProjectedValues.live(desk.bench(), half, 100);
            assertThat(read).hasSameSizeAs(sheet.channels().keySet());
            double mean = (chain.indication(some) + chain.indication(more)) / 2;
            assertThat(number(read.get(0))).isCloseTo(mean, within(1e-4 * Math.abs(mean) + 1e-9));
            assertThat(read.get(0).text())
                    .endsWith(" "
                            + sheet.channels()
                                    .values()
                                    .iterator()
                                    .next()
                                    .labUnit()
                                    .pretty());
            assertThat(ProjectedValues.live(desk.bench(), (name, s) -> samples(beyond, beyond), 100))
                    .allMatch(v -> v.text().equals("—"));
            assertThat(ProjectedValues.live(desk.bench(), (name, s) -> RawSamples.NONE, 100))
                    .allMatch(v -> v.text().equals("—"));
        }
    }

    @Test
    void aCalibratedChannelReadsCorrectedAndResultsAreThoseOfTheMainComparison() {
        try (PlainDesk desk = PlainDesk.rehearsed(folder, "warmed-cord");
                PlainDesk fresh = PlainDesk.fresh(folder.resolve("."), "drying-cabinet")) {
            Sheet sheet = desk.bench().sheet();
            List<String> names = List.copyOf(sheet.channels().keySet());
            int n = 0;
            while (desk.bench().session().calibrationOf(names.get(n), sheet).isEmpty()) {
                n++;
            }
            Chain chain = sheet.channel(names.get(n)).toChain();
            double count = Math.rint(
                    (chain.converter().lowestCount() + 3 * chain.converter().highestCount()) / 4);
            double plain = chain.indication(count);
            double corrected = desk.bench()
                    .session()
                    .calibrationOf(names.get(n), sheet)
                    .orElseThrow()
                    .at(plain)
                    .value();
            double read = number(ProjectedValues.live(desk.bench(), (name, s) -> samples(count, count), 1e6)
                    .get(n));
            assertThat(corrected).isNotCloseTo(plain, within(1e-4 * Math.abs(plain)));
            assertThat(read).isCloseTo(corrected, within(1e-4 * Math.abs(corrected)));
            assertThat(ProjectedValues.results(desk.bench()))
                    .allMatch(v -> v.text().contains("("))
                    .hasSize(2);
            assertThat(ProjectedValues.results(fresh.bench()).get(0).text()).isEqualTo("—");
        }
    }
}
