package eagerneedle.rig.simulated;

import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Reducer;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.RawSamples;
import java.time.Instant;
import java.util.Map;
import java.util.Set;
import java.util.stream.IntStream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/**
 * What simulated benches owe to their own hidden values. These fail today, each for the reason that it is disabled
 * with, and are to be enabled as they stand when rigs become sheets.
 */
class RigsToMendTest {
    private record Held(Rehearsal rehearsal, Reduction reduction) {}

    private static Held hold(SheetReader.Located sheet, int seed) {
        Rehearsal r = Rehearsal.of(sheet, Rigs.of(sheet.sheet(), seed, Set.of()), Instant.EPOCH);
        return new Held(
                r,
                new Reducer(
                                sheet,
                                (run, channel) ->
                                        r.samples().getOrDefault(run, Map.of()).getOrDefault(channel, RawSamples.NONE))
                        .reduce(r.session()));
    }

    private static SheetReader.Located sheet(String method) {
        return SheetTrial.read(SheetReader.shippedText(method), method);
    }

    /**
     * The main verdict of a clean session agrees in at least 92 of 100, as its coverage of 95 % says (three deviations
     * of 400 sessions).
     */
    @ParameterizedTest
    @CsvSource({"calibration-day, resistor", "logging-day, hand"})
    void mainVerdictsOfCleanSessionsAgree(String method, String comparison) {
        SheetReader.Located sheet = sheet(method);
        long agreed = IntStream.range(0, 400)
                .parallel()
                .filter(seed -> {
                    Reduction r = hold(sheet, seed).reduction();
                    return r.comparisons().stream()
                            .filter(c -> c.id().equals(comparison))
                            .allMatch(c -> c.agrees(r.speaks(c.id())));
                })
                .count();
        assertThat(agreed / 400.0).isBetween(0.92, 0.98);
    }

    /** What is read with a largest believable error lies within it. */
    @ParameterizedTest
    @CsvSource({"D_disc", "D_out", "D_in"})
    void aStatedLimitHoldsTheHiddenValue(String diameter) {
        SheetReader.Located sheet = sheet("potters-wheel");
        long beyond = IntStream.range(0, 400)
                .parallel()
                .filter(seed -> {
                    Held h = hold(sheet, seed);
                    Quantity hidden = h.rehearsal().truth().get(diameter);
                    Quantity read = h.reduction().quantity(diameter).orElseThrow();
                    return Math.abs(read.in(hidden.unit()) - hidden.value()) > read.limit() * (1 + 1e-9);
                })
                .count();
        assertThat(beyond).isZero();
    }

    /**
     * Errors scatter about zero: their mean, in standard uncertainties, is that of 1600 draws, within four deviations.
     */
    @ParameterizedTest
    @CsvSource({"fading-dye, E_a", "drying-cabinet, T_air"})
    void resultsHaveNoBias(String method, String result) {
        SheetReader.Located sheet = sheet(method);
        int sessions = 1600;
        double mean = IntStream.range(0, sessions)
                        .parallel()
                        .mapToDouble(seed -> {
                            Held h = hold(sheet, seed);
                            Quantity q = h.reduction().quantity(result).orElseThrow();
                            return (q.value()
                                            - h.rehearsal().truth().get(result).in(q.unit()))
                                    / q.u();
                        })
                        .sum()
                / sessions;
        assertThat(Math.abs(mean)).isLessThan(4 / Math.sqrt(sessions));
    }
}
