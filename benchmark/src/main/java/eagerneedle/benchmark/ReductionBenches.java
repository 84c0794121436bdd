package eagerneedle.benchmark;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.reduce.Reducer;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.session.ReducingCommand;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.core.trace.Trace;
import eagerneedle.core.trace.Window;
import eagerneedle.core.trace.WindowStatistics;
import eagerneedle.rig.simulated.Rehearsal;
import eagerneedle.rig.simulated.Rigs;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;

/** One edit against a whole reduction, and window statistics against a plain loop. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.SampleTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Fork(1)
// A reduction is so much code that it is half interpreted for its first seconds, and measured then says nothing.
@Warmup(iterations = 6, time = 2)
@Measurement(iterations = 5, time = 1)
public class ReductionBenches {
    private final SheetReader.Located sheet = SheetTrial.read(SheetReader.shippedText("baggage-chute"), "sheet");
    private Rehearsal rehearsal;
    private Reducer warm;
    private int turn;
    private Trace trace;
    private Trace correlated;

    @Setup
    public void prepare() {
        rehearsal = Rehearsal.of(sheet, Rigs.shipped("baggage-chute", 7, Set.of()), Instant.EPOCH);
        warm = reducer();
        warm.reduce(rehearsal.session());
        Random r = new Random(1);
        double[] t = new double[1_000_000];
        double[] v = new double[t.length];
        double[] red = new double[t.length];
        for (int i = 0; i < t.length; i++) {
            t[i] = i * 1e-5;
            v[i] = r.nextGaussian();
            red[i] = v[i] + (i > 0 ? 0.95 * red[i - 1] : 0);
        }
        trace = new Trace("noise", t, v, LabUnit.parse("V"), 0, List.of());
        correlated = new Trace("correlated noise", t, red, LabUnit.parse("V"), 0, List.of());
    }

    private Reducer reducer() {
        return new Reducer(
                sheet,
                (run, channel) ->
                        rehearsal.samples().getOrDefault(run, Map.of()).getOrDefault(channel, RawSamples.NONE));
    }

    /** Of a program that has worked for a minute: so much code is only compiled well by then. */
    @Benchmark
    @Warmup(iterations = 25, time = 2)
    public Object wholeReduction() {
        return reducer().reduce(rehearsal.session());
    }

    @Benchmark
    @Warmup(iterations = 10, time = 2)
    public Object oneEdit() {
        Window w = new Window(0.6, 1.2 + 0.02 * (turn++ % 5), "bench");
        Session edited = new ReducingCommand.SetWindow(20, "rolling", w).apply(rehearsal.session());
        return warm.reduce(edited);
    }

    @Benchmark
    public Object windowStatisticsOfAMillion() {
        return WindowStatistics.of(trace);
    }

    @Benchmark
    public Object windowStatisticsOfACorrelatedMillion() {
        return WindowStatistics.of(correlated);
    }

    @Benchmark
    public double plainLoopOverAMillion() {
        double sum = 0;
        double squares = 0;
        for (double v : trace.value()) {
            sum += v;
            squares += v * v;
        }
        return squares - sum * sum / trace.size();
    }
}
