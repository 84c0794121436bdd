package eagerneedle.rig.simulated;

import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.core.quantity.Coverage;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Reducer;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.RawSamples;
import java.time.Instant;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

/** Trueness of the whole computation: hidden truths lie in their stated 95 % intervals as often as they should. */
class CoverageTest {
    private static final int SESSIONS = 400;

    @Test
    void hiddenValuesAreCoveredAsStated() {
        SheetReader.Located sheet = SheetTrial.read(SheetReader.shippedText("baggage-chute"), "baggage-chute.yaml");
        Map<String, Integer> covered = new TreeMap<>();
        Map<String, Double> scaled = new TreeMap<>();
        IntStream.range(0, SESSIONS).parallel().forEach(seed -> {
            Rehearsal r = Rehearsal.of(sheet, Rigs.create("cart-on-slope", seed, Set.of()), Instant.EPOCH);
            Reduction reduction = new Reducer(sheet, (run, channel) -> r.samples().getOrDefault(run, Map.of()).getOrDefault(channel, RawSamples.NONE)).reduce(r.session());
            for (String name : new String[] {"g", "g_eff", "friction", "a_east", "a_west", "tilt"}) {
                String problem = reduction.outcome(name).problem();
                assertThat(problem).as("seed %d, %s", seed, name).isNull();
                Quantity q = reduction.quantity(name).orElseThrow();
                double error = q.value() - r.truth().get(name).in(q.unit());
                synchronized (covered) {
                    covered.merge(name, Math.abs(error) <= Coverage.DEFAULT.expanded(q) ? 1 : 0, Integer::sum);
                    scaled.merge(name, error / q.u() / SESSIONS, Double::sum);
                }
            }
        });
        covered.forEach((name, n) -> System.out.printf("%s covered in %.1f %%, mean error %.2f u%n", name, 100.0 * n / SESSIONS, scaled.get(name)));
        covered.forEach((name, n) -> assertThat(n / (double) SESSIONS).as("coverage of " + name).isBetween(0.93, 0.97));
    }
}
