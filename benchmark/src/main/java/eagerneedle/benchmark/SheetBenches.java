package eagerneedle.benchmark;

import eagerneedle.core.edit.Completion;
import eagerneedle.core.edit.SheetText;
import eagerneedle.core.function.Functions;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.sheet.SheetReader;
import java.io.StringReader;
import java.util.List;
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
import org.yaml.snakeyaml.Yaml;

/** What happens behind the writing of a sheet of 1 500 lines, against reading its YAML and nothing else. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.SampleTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Fork(1)
@Warmup(iterations = 2, time = 1)
@Measurement(iterations = 3, time = 1)
public class SheetBenches {
    private static final int LINES = 1500;
    private String text;
    private int inside;
    private Completion completion;

    /** A shipped sheet with so many more inputs that it has 1 500 lines. */
    @Setup
    public void write() {
        StringBuilder more = new StringBuilder();
        String shipped = SheetReader.shippedText("cooling-alloys");
        for (int i = (int) shipped.lines().count(); i < LINES; i++) {
            more.append("  more_").append(i).append(": {label: more, value: \"1.0(1) mm\"}\n");
        }
        text = shipped.replaceFirst("(?m)^inputs:\n", "inputs:\n" + more);
        inside = text.indexOf("formula:", text.length() / 2) + 12;
        completion = new Completion(new Functions().functions(), List.of());
    }

    @Benchmark
    public Object proposalsInALongSheet() {
        return completion.at(text, inside);
    }

    @Benchmark
    public Object entryPutIntoALongSheet() {
        return SheetText.of(text).with("/inputs/last", java.util.Map.of("label", "last", "value", "1 mm"));
    }

    @Benchmark
    public Object longSheetLookedThrough() {
        return SheetTrial.look(text, "long");
    }

    @Benchmark
    public Object longSheetComposed() {
        return new Yaml().compose(new StringReader(text));
    }
}
