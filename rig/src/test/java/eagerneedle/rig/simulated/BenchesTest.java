package eagerneedle.rig.simulated;

import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.core.benches.Bench;
import eagerneedle.core.benches.Benches;
import eagerneedle.core.benches.Cause;
import eagerneedle.core.physics.Once;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.RawSamples;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Twelve benches of a method, one of them with a fault: it is named, and what it measured otherwise. */
class BenchesTest {
    private static final int BENCHES = 12;

    static Bench bench(SheetReader.Located sheet, int n, String... faults) {
        Rehearsal r = Rehearsal.of(
                sheet, Rigs.of(sheet.sheet(), 100 + n, Once.of(7), Set.of(faults)), Instant.EPOCH.plusSeconds(n));
        return new Bench(
                "bench " + n,
                sheet,
                r.session(),
                (run, channel) -> r.samples().getOrDefault(run, Map.of()).getOrDefault(channel, RawSamples.NONE));
    }

    @ParameterizedTest
    @CsvSource({
        "signpost-arm, b-for-c, P, shear strain",
        "trolley-two-gates, gates-exchanged, slope, acceleration (Part one: moving mass constant)",
        "letter-scale, wrong-place, sensitivity, strain shown (Loads up and down)"
    })
    void theOddOneIsNamedWithTheInputByWhichItDiffers(String method, String fault, String result, String input) {
        SheetReader.Located sheet = SheetTrial.read(SheetReader.shippedText(method), method);
        List<Bench> good = new ArrayList<>();
        for (int n = 1; n < BENCHES; n++) {
            good.add(bench(sheet, n));
        }
        Bench odd = bench(sheet, BENCHES, fault);
        List<Benches.Row> rows = new ArrayList<>();
        good.forEach(b -> b.row(result).ifPresent(rows::add));
        assertThat(Benches.of(rows).namesApart()).isEmpty();
        odd.row(result).ifPresent(rows::add);
        Benches all = Benches.of(rows);
        assertThat(all.namesApart()).containsExactly("bench 12");
        double mean = Benches.of(all.without(all.namesApart())).mean().value();
        List<Cause> causes = Cause.of(odd, good, result, mean);
        assertThat(causes).extracting(Cause::label).first().isEqualTo(input);
        assertThat(Math.abs(causes.get(0).result().value() - mean))
                .as("with what the others have, it gives what they give")
                .isLessThan(0.1
                        * Math.abs(
                                odd.reduction().quantity(result).orElseThrow().value() - mean));
    }
}
