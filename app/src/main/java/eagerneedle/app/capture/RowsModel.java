package eagerneedle.app.capture;

import eagerneedle.app.widget.Cell;
import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.trace.Trace;
import eagerneedle.core.trace.WindowStatistics;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** The rows taken so far of a capture that holds: a level, the mean of each channel, what was read by eye. */
final class RowsModel {
    private static final int LONG = 16;
    private final Workbench bench;

    RowsModel(Workbench bench) {
        this.bench = bench;
    }

    /**
     * A table.
     *
     * @param cells as it is shown, its headings first
     * @param figures the same with all figures and with u in columns of their own, for a spreadsheet
     */
    record Shown(List<List<Cell>> cells, List<List<String>> figures) {
        /** Tabs between the figures of a row. */
        String tabbed() {
            return String.join(
                            "\n",
                            figures.stream().map(r -> String.join("\t", r)).toList())
                    + "\n";
        }

        /** True when there is a row below the headings. */
        boolean isAny() {
            return cells.size() > 1;
        }
    }

    /** The rows of a capture. */
    Shown of(String capture) {
        Reduction reduction = bench.reduction();
        Capture plan = bench.sheet().capture(capture);
        List<Cell> heading = new ArrayList<>(List.of(Cell.quiet("run"), Cell.quiet("level")));
        List<String> head = new ArrayList<>(List.of("run", "level"));
        for (String c : plan.channels()) {
            String unit = bench.sheet().channel(c).labUnit().pretty();
            String words = bench.sheet().channel(c).label() + (unit.isEmpty() ? "" : ", " + unit);
            heading.add(Cell.quiet(words));
            head.addAll(List.of(words, "u"));
        }
        plan.byEye().values().forEach(i -> {
            heading.add(Cell.quiet(i.label()));
            head.add(i.label());
        });
        List<List<Cell>> cells = new ArrayList<>(List.of(heading));
        List<List<String>> figures = new ArrayList<>(List.of(head));
        for (Run run : bench.session().keptRuns()) {
            if (run.capture().equals(capture)) {
                add(plan, run, reduction, cells, figures);
            }
        }
        return new Shown(cells, figures);
    }

    private static void add(
            Capture plan, Run run, Reduction reduction, List<List<Cell>> cells, List<List<String>> figures) {
        String level = label(plan, run);
        List<Cell> row = new ArrayList<>(List.of(Cell.plain(run.name()), Cell.plain(level)));
        List<String> line = new ArrayList<>(List.of(run.name(), level));
        for (String c : plan.channels()) {
            Optional<Trace> trace = reduction.trace(run, c).filter(x -> x.size() > 1);
            WindowStatistics w = trace.map(WindowStatistics::of).orElse(null);
            line.add(w == null ? "" : Double.toString(w.mean()));
            line.add(w == null ? "" : Double.toString(w.uMean()));
            row.add(Cell.right(w == null ? "—" : Notation.bracketed(w.mean(), w.uMean())));
        }
        for (String key : plan.byEye().keySet()) {
            line.add(run.entries().byEye().getOrDefault(key, "—"));
            row.add(Cell.right(read(reduction, run, key)));
        }
        cells.add(row);
        figures.add(line);
    }

    /** A reading as it is written; one that is built as what comes of it. */
    private static String read(Reduction reduction, Run run, String key) {
        String text = run.entries().byEye().getOrDefault(key, "—");
        return text.length() < LONG && text.indexOf(';') < 0
                ? text
                : reduction.ofRun(run, key).quantity().map(Notation::bracket).orElse(text);
    }

    private static String label(Capture plan, Run run) {
        Capture.Level level = plan.levels().get(run.level());
        return level == null || level.label() == null ? run.level() : level.label();
    }
}
