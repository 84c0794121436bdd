package eagerneedle.app.eye;

import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.session.Notebook;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.store.delimited.Heading;
import eagerneedle.store.delimited.WrittenRows;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/** A table in which each row is one row of a capture: what was read stands in its columns, the level perhaps too. */
public final class RowsFile {
    private static final String LEVEL = "level";

    private RowsFile() {}

    /** What came of it. */
    public record Brought(List<Run> runs, List<String> remarks) {
        /** In one line. */
        public String says(String file) {
            return (runs.size() + (runs.size() == 1 ? " row from " : " rows from ") + file + ". "
                            + String.join(" ", remarks))
                    .strip();
        }
    }

    /**
     * Brings the rows of a text in, all or none.
     *
     * @param level where all belong; null where a column says it, or for the levels that come next
     * @param file name used in messages and in the notebook
     * @throws IllegalArgumentException with one sentence when something does not fit; then none is kept
     */
    public static Brought bring(Workbench bench, String capture, @Nullable String level, String file, String text) {
        WrittenRows rows = WrittenRows.of(file, text);
        Capture plan = EyeReadings.plan(bench, capture);
        Map<Integer, String> columns = new LinkedHashMap<>();
        List<String> left = new ArrayList<>();
        List<String> remarks = new ArrayList<>(rows.remarks());
        int levels = -1;
        for (int c = 0; c < rows.heads().size(); c++) {
            Heading h = rows.heads().get(c);
            Optional<String> name = named(plan, h.name());
            if (name.isPresent()) {
                columns.put(c, name.get());
            } else if (h.name().equalsIgnoreCase(LEVEL)) {
                levels = c;
            } else {
                left.add("'" + h.name() + "'");
            }
        }
        if (columns.isEmpty()) {
            throw new IllegalArgumentException("No heading of " + file + " is anything that is read here: "
                    + String.join(
                            ", ",
                            plan.byEye().values().stream()
                                    .map(Sheet.Input::label)
                                    .toList())
                    + ".");
        }
        if (!left.isEmpty()) {
            remarks.add("Nobody wants " + String.join(", ", left) + "; " + (left.size() == 1 ? "it was" : "they were")
                    + " not brought in.");
        }
        columns.forEach((c, name) -> {
            if (rows.heads().get(c).unit().isEmpty()) {
                remarks.add("'" + rows.heads().get(c).name() + "' states no unit; bare numbers are taken as "
                        + plan.expected("", name) + " is written.");
            }
        });
        List<EyeReadings.Row> out = new ArrayList<>();
        for (int r = 0; r < rows.rows().size(); r++) {
            List<String> cells = rows.rows().get(r);
            String place = file + ", line " + rows.lines().get(r);
            String at = level != null ? level : levels < 0 ? null : level(plan, cells.get(levels), place);
            Map<String, String> read = new LinkedHashMap<>();
            columns.forEach((c, name) -> {
                if (!cells.get(c).isBlank()) {
                    read.put(
                            name,
                            EyeReadings.asExpected(
                                    plan.expected(at == null ? "" : at, name),
                                    cells.get(c),
                                    rows.heads().get(c).unit()));
                }
            });
            out.add(new EyeReadings.Row(at, read, place));
        }
        return new Brought(EyeReadings.keep(bench, capture, out, file), remarks);
    }

    private static Optional<String> named(Capture plan, String heading) {
        String h = heading.strip().toLowerCase(Locale.ROOT);
        return plan.byEye().entrySet().stream()
                .filter(e -> e.getKey().toLowerCase(Locale.ROOT).equals(h)
                        || e.getValue().label().toLowerCase(Locale.ROOT).equals(h))
                .map(Map.Entry::getKey)
                .findFirst();
    }

    private static String level(Capture plan, String cell, String place) {
        return plan.levels().keySet().stream()
                .filter(l -> l.equals(cell) || Notebook.level(plan, l).equalsIgnoreCase(cell))
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException(place + ": there is no level '" + cell + "'; there are "
                        + String.join(
                                ", ",
                                plan.levels().keySet().stream()
                                        .map(l -> Notebook.level(plan, l))
                                        .toList())
                        + ". Nothing was taken."));
    }
}
