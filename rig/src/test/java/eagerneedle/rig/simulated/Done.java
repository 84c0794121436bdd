package eagerneedle.rig.simulated;

import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.reduce.Reducer;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.core.trace.Window;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.IntStream;

/** A method carried out once, and what came of it: for tests that reckon it once more. */
record Done(Rehearsal rehearsal, Reduction reduction) {
    double of(String name) {
        return reduction
                .quantity(name)
                .orElseThrow(() -> new AssertionError(reduction.outcome(name).problem()))
                .value();
    }

    /** Standard uncertainty of a result from what it shares with none of some others. */
    double ownU(String name, List<String> others) {
        return Math.sqrt(reduction.quantity(name).orElseThrow().contributions().entrySet().stream()
                .filter(e -> others.stream()
                        .filter(o -> !o.equals(name))
                        .noneMatch(o -> reduction
                                .quantity(o)
                                .orElseThrow()
                                .contributions()
                                .containsKey(e.getKey())))
                .mapToDouble(e -> e.getValue() * e.getValue())
                .sum());
    }

    double of(Run run, String name) {
        return reduction.ofRun(run, name).quantity().orElseThrow().value();
    }

    RawSamples raw(Run run, String channel) {
        return rehearsal.samples().get(run.id()).get(channel);
    }

    List<Run> runs(String capture) {
        return rehearsal.session().keptRuns().stream()
                .filter(r -> r.capture().equals(capture))
                .toList();
    }

    /** Samples of a channel as measurand by {@code law}, within a window of the run. */
    double[][] within(Run run, String channel, String window, java.util.function.DoubleUnaryOperator law) {
        RawSamples raw = raw(run, channel);
        Window w = window == null
                ? new Window(Double.NEGATIVE_INFINITY, Double.POSITIVE_INFINITY, "all")
                : reduction.window(run, window).orElseThrow();
        int[] in = IntStream.range(0, raw.size())
                .filter(i -> raw.time()[i] >= w.from() && raw.time()[i] <= w.to())
                .toArray();
        return new double[][] {
            Arrays.stream(in).mapToDouble(i -> raw.time()[i]).toArray(),
            Arrays.stream(in)
                    .mapToDouble(i -> law.applyAsDouble(raw.values()[i]))
                    .toArray()
        };
    }

    Calibration calibration(String channel) {
        return rehearsal.session().latestCalibrationOf(channel).orElseThrow();
    }

    /** A method that ships. */
    static Done done(String method) {
        return of(SheetTrial.read(SheetReader.shippedText(method), method));
    }

    /** A sheet of the examples. */
    static Done example(String name) {
        try {
            return of(SheetTrial.read(Files.readString(Path.of("..", "docs", "examples", name + ".yaml")), name));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static Done of(SheetReader.Located located) {
        Rehearsal r = Rehearsal.of(located, Rigs.of(located.sheet(), 11, Set.of()), Instant.EPOCH);
        return new Done(
                r,
                new Reducer(
                                located,
                                (run, channel) ->
                                        r.samples().getOrDefault(run, Map.of()).getOrDefault(channel, RawSamples.NONE))
                        .reduce(r.session()));
    }
}
