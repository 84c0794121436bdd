package eagerneedle.store.export;

import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.session.Run;
import io.jhdf.HdfFile;
import io.jhdf.WritableHdfFile;
import io.jhdf.api.WritableDataset;
import io.jhdf.api.WritableGroup;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;

/** The samples of a session as HDF5: one group a run, one group a channel in it, with time, raw and measurand. */
final class HdfExport {
    private HdfExport() {}

    static void write(Reduction reduction, Path to) throws IOException {
        Files.deleteIfExists(to);
        try (WritableHdfFile file = HdfFile.write(to)) {
            file.putAttribute("method", reduction.sheet().id());
            file.putAttribute("title", reduction.session().title());
            for (Run run : SessionExport.runs(reduction)) {
                WritableGroup group = file.putGroup("run_" + run.id());
                group.putAttribute("name", run.name());
                group.putAttribute("capture", run.capture());
                group.putAttribute("level", run.level());
                group.putAttribute("start", run.started().toString());
                for (RunTables.WindowRow w : RunTables.windows(reduction, run)) {
                    group.putAttribute("window " + w.name(), new double[] {w.from(), w.to()});
                }
                for (RunTables.VoidedRow v : RunTables.voided(run)) {
                    group.putAttribute("voided " + v.from(), new double[] {v.from(), v.to()});
                }
                run.entries().byEye().forEach((n, text) -> group.putAttribute("by eye " + n, text));
                for (Channels.One one : Channels.of(reduction, run).channels()) {
                    if (one.time().length == 0) {
                        continue;
                    }
                    WritableGroup ch = group.putGroup(Channels.plain(one.name()));
                    dataset(ch, "time", one.time(), "s");
                    dataset(ch, "raw", one.raw(), one.rawUnit());
                    dataset(ch, "value", one.value(), one.unit());
                    List<RunTables.ReadingRow> readings = RunTables.readings(reduction, run).stream()
                            .filter(r -> r.due() != null && r.name().equals(one.name()))
                            .toList();
                    if (!readings.isEmpty()) {
                        dataset(
                                ch,
                                "reading_due",
                                readings.stream()
                                        .mapToDouble(RunTables.ReadingRow::due)
                                        .toArray(),
                                "s");
                        dataset(
                                ch,
                                "reading_taken",
                                readings.stream()
                                        .mapToDouble(r -> r.taken() == null ? Double.NaN : r.taken())
                                        .toArray(),
                                "s");
                        dataset(
                                ch,
                                "reading_value",
                                readings.stream()
                                        .mapToDouble(r -> r.value() == null ? Double.NaN : r.value())
                                        .toArray(),
                                one.unit());
                    }
                }
            }
        }
    }

    private static void dataset(WritableGroup group, String name, double[] data, String unit) {
        WritableDataset d = group.putDataset(name, data);
        d.putAttribute("unit", unit.isEmpty() ? "1" : unit);
    }
}
