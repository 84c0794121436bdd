package eagerneedle.rig.simulated;

import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.quantity.Reading;
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

/** What simulated benches owe to their own hidden values: one truth for one thing, limits that hold, no bias. */
class HiddenValuesTest {
    private static final int SESSIONS = Integer.getInteger("sessions", 24);

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
     * The main verdict of a clean session agrees at least as often as its coverage of 95 % says, to three deviations of
     * so many sessions; more often where a reference is only known within wide limits.
     */
    @ParameterizedTest
    @CsvSource({"calibration-day, resistor", "logging-day, hand"})
    void mainVerdictsOfCleanSessionsAgree(String method, String comparison) {
        SheetReader.Located sheet = sheet(method);
        long agreed = IntStream.range(0, SESSIONS)
                .parallel()
                .filter(seed -> {
                    Reduction r = hold(sheet, seed).reduction();
                    return r.comparisons().stream()
                            .filter(c -> c.id().equals(comparison))
                            .allMatch(c -> c.agrees(r.speaks(c.id())));
                })
                .count();
        assertThat(agreed / (double) SESSIONS).isGreaterThan(0.95 - 3 * Math.sqrt(0.95 * 0.05 / SESSIONS));
    }

    /** What is read with a largest believable error lies within it. */
    @ParameterizedTest
    @CsvSource({"D_disc", "D_out", "D_in"})
    void aStatedLimitHoldsTheHiddenValue(String diameter) {
        SheetReader.Located sheet = sheet("potters-wheel");
        long beyond = IntStream.range(0, 400)
                .filter(seed -> {
                    SimulatedRig rig = Rigs.of(sheet.sheet(), seed, Set.of());
                    Reading read = Reading.parse(rig.readings().get(diameter));
                    double truth = rig.truth().get(diameter).in(read.unit());
                    return Math.abs(read.value() - truth) > read.u() * Math.sqrt(3) * (1 + 1e-9);
                })
                .count();
        assertThat(beyond).isZero();
    }

    /**
     * Errors scatter about zero: their mean, in standard uncertainties, is that of so many draws, within four
     * deviations.
     */
    @ParameterizedTest
    @CsvSource({"fading-dye, E_a", "drying-cabinet, T_air"})
    void resultsHaveNoBias(String method, String result) {
        SheetReader.Located sheet = sheet(method);
        int sessions = 4 * SESSIONS;
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
