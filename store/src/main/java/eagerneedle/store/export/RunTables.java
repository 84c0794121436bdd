package eagerneedle.store.export;

import eagerneedle.core.capture.Prompts;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.session.Entries;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.trace.Trace;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * What belongs to runs beside their samples, as tables that every format takes: the windows that stand (set by hand or
 * proposed), the readings (prompted, and by eye), and the spans that do not count.
 */
final class RunTables {
    private RunTables() {}

    /** A window of a run, in s of its clock. */
    record WindowRow(int run, String name, String channel, double from, double to, boolean byHand, String reason) {
        static final List<String> FIELDS = List.of("run", "window", "channel", "from", "to", "by_hand", "reason");

        List<Object> cells() {
            return List.of(run, name, channel, from, to, byHand, reason);
        }
    }

    /**
     * A reading.
     *
     * @param name its channel, or what was read by eye
     * @param due when it was wanted, s of the run's clock; null by eye
     * @param taken when it was taken, s; null when it was skipped, and by eye
     * @param value in {@code unit}; null when there is none, and for a reading by eye, which is as written
     * @param written as entered by hand; empty when the instrument took it
     */
    record ReadingRow(
            int run,
            String name,
            @Nullable Double due,
            @Nullable Double taken,
            @Nullable Double value,
            String unit,
            String written) {
        static final List<String> FIELDS = List.of("run", "reading", "due", "taken", "value", "unit", "written");

        List<Object> cells() {
            return Arrays.asList(run, name, due, taken, value, unit, written);
        }
    }

    /** Samples that do not count, in s of the run's clock. */
    record VoidedRow(int run, double from, double to, String reason) {
        static final List<String> FIELDS = List.of("run", "from", "to", "reason");

        List<Object> cells() {
            return List.of(run, from, to, reason);
        }
    }

    static List<WindowRow> windows(Reduction reduction, Run run) {
        List<WindowRow> rows = new ArrayList<>();
        reduction
                .sheet()
                .capture(run.capture())
                .windows()
                .forEach((name, plan) -> reduction
                        .window(run, name)
                        .ifPresent(w -> rows.add(new WindowRow(
                                run.id(),
                                name,
                                Objects.requireNonNull(plan.on()),
                                w.from(),
                                w.to(),
                                run.windows().containsKey(name),
                                w.reason() == null ? "" : w.reason()))));
        return rows;
    }

    static List<ReadingRow> readings(Reduction reduction, Run run) {
        List<ReadingRow> rows = new ArrayList<>();
        Capture capture = reduction.sheet().capture(run.capture());
        double before = capture.prompt() == null ? 0 : capture.prompt().seconds();
        for (String channel : capture.channels()) {
            Optional<Trace> trace = reduction.trace(run, channel);
            String unit = reduction.sheet().channel(channel).unit();
            for (Prompts.Mark m : run.entries().marks()) {
                Double taken = m.taken();
                rows.add(new ReadingRow(
                        run.id(),
                        channel,
                        m.due(),
                        taken,
                        taken == null
                                ? null
                                : trace.map(t -> read(t, taken - before, taken)).orElse(null),
                        unit,
                        m.value() == null ? "" : m.value()));
            }
        }
        run.entries()
                .byEye()
                .forEach((name, text) -> rows.add(new ReadingRow(run.id(), name, null, null, null, "", text)));
        return rows;
    }

    /** The reading of a prompted trace between two moments; null where none was kept. */
    private static @Nullable Double read(Trace trace, double from, double to) {
        for (int i = 0; i < trace.size(); i++) {
            if (trace.time()[i] >= from && trace.time()[i] <= to) {
                return trace.value()[i];
            }
        }
        return null;
    }

    static List<VoidedRow> voided(Run run) {
        return run.entries().voided().stream()
                .map((Entries.Voided v) -> new VoidedRow(run.id(), v.from(), v.to(), v.reason()))
                .toList();
    }
}
