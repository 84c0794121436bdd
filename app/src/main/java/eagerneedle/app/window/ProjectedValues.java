package eagerneedle.app.window;

import eagerneedle.app.workbench.LiveReadings;
import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.reduce.Key;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.core.trace.Trace;
import java.util.Arrays;
import java.util.List;
import java.util.function.BiFunction;

/** The few values that a class reads from the back row, without a window. */
final class ProjectedValues {
    private static final int MOST = 4;
    private static final int FIGURES = 5;
    private static final double SECONDS = 1;
    private static final double SAMPLES = 2000;
    private static final String NOTHING = "—";

    private ProjectedValues() {}

    /** A value as it is read, and what it is of. */
    record Value(String label, String text) {}

    /**
     * What the instruments in use read now, a second of each channel together.
     *
     * @param last the last samples of a channel, within so many seconds
     * @param rate samples a second
     */
    static List<Value> live(Workbench bench, BiFunction<String, Double, RawSamples> last, double rate) {
        return bench.sheet().channels().keySet().stream()
                .limit(MOST)
                .map(name -> reading(bench, name, last.apply(name, Math.min(SECONDS, SAMPLES / rate))))
                .toList();
    }

    /** A channel's mean, corrected by its calibration; nothing while it reads beyond its reach, or not at all. */
    private static Value reading(Workbench bench, String name, RawSamples raw) {
        Channel channel = bench.session().channel(bench.sheet(), name);
        Trace trace = LiveReadings.trace(channel, raw);
        if (trace.size() == 0) {
            return new Value(channel.label(), NOTHING);
        }
        double mean = Arrays.stream(trace.value()).average().orElse(Double.NaN);
        double value = bench.session()
                .calibrationOf(name, bench.sheet())
                .filter(c -> c.closure() == null)
                .map(c -> c.at(mean).value())
                .orElse(mean);
        return new Value(
                channel.label(),
                (Notation.plain(value, FIGURES) + " " + channel.labUnit().pretty()).strip());
    }

    /** The main result and its reference; without a comparison the first two results. */
    static List<Value> results(Workbench bench) {
        Sheet.Comparison main = bench.sheet().mainComparison();
        List<String> names = main == null
                ? bench.sheet().results().keySet().stream().limit(2).toList()
                : List.of(main.result(), main.reference());
        return names.stream().map(n -> result(bench, new Key.Global(n))).toList();
    }

    private static Value result(Workbench bench, Key key) {
        String label = bench.reduction().ledger().entries().stream()
                .filter(x -> x.key().equals(key))
                .map(x -> x.label())
                .findFirst()
                .orElse(key.toString());
        return new Value(
                label, bench.reduction().quantity(key).map(Notation::bracket).orElse(NOTHING));
    }
}
