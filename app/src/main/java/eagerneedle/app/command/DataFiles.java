package eagerneedle.app.command;

import eagerneedle.app.eye.RowsFile;
import eagerneedle.app.workbench.ColumnMapping;
import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.session.Run;
import eagerneedle.store.FileName;
import eagerneedle.store.delimited.Table;
import eagerneedle.store.foreign.ForeignFile;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Files recorded elsewhere on their way into a session, in the order of its runs.
 *
 * @param files delimited text, JSON, WAV
 * @param capture which capture; null for the first that is not complete
 * @param level which level; null for the next of the schedule
 */
record DataFiles(List<Path> files, String capture, String level) {

    /** Brings all of them in; what is said of each run. */
    List<String> into(Workbench bench) {
        List<String> said = new ArrayList<>();
        for (Path p : files) {
            String to = NamedPlaces.capture(bench, capture);
            if (bench.sheet().capture(to).isByEye()) {
                said.add(RowsFile.bring(bench, to, atLevel(bench, to), FileName.of(p), ForeignFile.text(p))
                        .says(FileName.of(p)));
                continue;
            }
            for (Table table : ForeignFile.runs(p)) {
                said.add(brought(bench, table, FileName.of(p)));
            }
        }
        return said;
    }

    /** The level that was said; null for none. */
    private @Nullable String atLevel(Workbench bench, String to) {
        return level == null ? null : NamedPlaces.level(bench, to, level);
    }

    private String brought(Workbench bench, Table table, String file) {
        String to = NamedPlaces.capture(bench, capture);
        String said = atLevel(bench, to);
        String at = said != null
                ? said
                : bench.schedule()
                        .next()
                        .filter(n -> n[0].equals(to))
                        .map(n -> n[1])
                        .orElseGet(() -> bench.sheet()
                                .capture(to)
                                .levels()
                                .keySet()
                                .iterator()
                                .next());
        ColumnMapping mapping = ColumnMapping.guess(table, bench.sheet(), to);
        Run run = mapping.bring(bench, table, file, to, at);
        List<String> remarks = new ArrayList<>(table.remarks());
        remarks.addAll(mapping.remarks(bench.sheet(), table));
        return (run.name() + " from " + file + ": " + table.rows() + " rows, " + to + " at " + at + ". "
                        + String.join(" ", remarks))
                .strip();
    }
}
