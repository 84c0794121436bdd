package eagerneedle.benchmark;

import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.store.bench.BenchFile;
import eagerneedle.store.delimited.DelimitedText;
import java.io.BufferedOutputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.Locale;
import java.util.Random;
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
import org.openjdk.jmh.annotations.TearDown;
import org.openjdk.jmh.annotations.Warmup;

/** Bringing in delimited text, and keeping blocks of samples, each against the plainest way to do it. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.SampleTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Fork(1)
@Warmup(iterations = 2, time = 1)
@Measurement(iterations = 3, time = 1)
public class StoreBenches {
    private static final int ROWS = 300_000;
    private static final int SAMPLES = 1_000_000;
    private String text;
    private RawSamples samples;
    private Path folder;
    private BenchFile file;
    private int run;

    @Setup
    public void prepare() throws IOException {
        Random r = new Random(1);
        StringBuilder b = new StringBuilder("time (s),x (V),y (V)\n");
        for (int i = 0; i < ROWS; i++) {
            b.append(String.format(Locale.ROOT, "%.4f,%.5f,%.5f%n", i * 1e-4, r.nextGaussian(), r.nextGaussian()));
        }
        text = b.toString();
        double[] t = new double[SAMPLES];
        double[] v = new double[SAMPLES];
        for (int i = 0; i < SAMPLES; i++) {
            t[i] = i * 10 / 1e6;
            v[i] = Math.rint(9000 * Math.sin(i / 700.0) + 4 * r.nextGaussian());
        }
        samples = new RawSamples(t, v);
        folder = Files.createTempDirectory("needle-bench");
        file = BenchFile.create(
                folder.resolve("blocks.needle"),
                Session.start(SheetReader.shippedText("baggage-chute"), "bench", Instant.EPOCH));
    }

    @TearDown
    public void clean() throws IOException {
        file.close();
        try (var all = Files.list(folder)) {
            for (Path p : all.toList()) {
                Files.deleteIfExists(p);
            }
        }
    }

    /** Megabytes of the text, for turning milliseconds into a rate. */
    public static double megabytes() {
        return ROWS * 26 / 1e6;
    }

    @Benchmark
    public Object delimitedText() {
        DelimitedText t = new DelimitedText("bench.csv", text);
        return t.read(t.guess());
    }

    @Benchmark
    public double plainSplitting() {
        double sum = 0;
        for (String line : text.split("\n")) {
            for (String cell : line.split(",")) {
                try {
                    sum += Double.parseDouble(cell);
                } catch (NumberFormatException header) {
                    sum += 0;
                }
            }
        }
        return sum;
    }

    @Benchmark
    public void aMillionSamplesKept() {
        file.append(++run, "position", samples);
    }

    @Benchmark
    public void aMillionSamplesWrittenPlain() throws IOException {
        try (DataOutputStream out = new DataOutputStream(
                new BufferedOutputStream(Files.newOutputStream(folder.resolve("plain.bin")), 1 << 16))) {
            for (int i = 0; i < SAMPLES; i++) {
                out.writeDouble(samples.time()[i]);
                out.writeDouble(samples.values()[i]);
            }
        }
    }
}
