package eagerneedle.app.capture;

import eagerneedle.app.workbench.ColumnMapping;
import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.Channel;
import eagerneedle.store.FileName;
import eagerneedle.store.delimited.DelimitedText;
import eagerneedle.store.delimited.Dialect;
import eagerneedle.store.delimited.SeveralRuns;
import eagerneedle.store.delimited.Table;
import eagerneedle.store.foreign.ForeignFile;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * Files on their way into a session: what was guessed of the first of them, put right by hand, and brought in as a run
 * each. Every failure is one sentence in an {@link IllegalArgumentException}.
 */
final class ImportModel {
    private static final Map<String, Character> SEPARATORS = new LinkedHashMap<>();

    static {
        SEPARATORS.put("comma", ',');
        SEPARATORS.put("semicolon", ';');
        SEPARATORS.put("tab", '\t');
        SEPARATORS.put("bar", '|');
        SEPARATORS.put("blank", ' ');
    }

    private final Workbench bench;
    private final List<Path> files;
    private final @Nullable DelimitedText text;
    private @Nullable Dialect dialect;
    private List<Table> runs;
    private String capture = "";
    private String level = "";
    private boolean assumesUnits;

    private ImportModel(Workbench bench, List<Path> files, @Nullable DelimitedText text, @Nullable Table table) {
        this.bench = bench;
        this.files = files;
        this.text = text;
        this.dialect = text == null ? null : text.guess();
        runs = SeveralRuns.of(
                text == null ? Objects.requireNonNull(table) : text.read(Objects.requireNonNull(dialect)));
    }

    /** What is mapped: the first of the runs of what was read. */
    private Table table() {
        return runs.get(0);
    }

    private Dialect dialect() {
        return Objects.requireNonNull(dialect);
    }

    /** Of a table copied from a spreadsheet. */
    static ImportModel ofClipboard(Workbench bench, String copied) {
        if (copied == null || copied.isBlank()) {
            throw new IllegalArgumentException(
                    "There is no table on the clipboard; copy its cells first, with their header.");
        }
        return new ImportModel(
                bench,
                List.of(Path.of("table from the clipboard")),
                new DelimitedText("The table on the clipboard", copied),
                null);
    }

    /** Of files, and of all files of a folder. */
    static ImportModel ofFiles(Workbench bench, List<Path> chosen) {
        List<Path> files = new ArrayList<>();
        for (Path p : chosen) {
            files.addAll(within(p));
        }
        if (files.isEmpty()) {
            throw new IllegalArgumentException(FileName.of(chosen.get(0)) + " holds no files.");
        }
        Path first = files.get(0);
        boolean delimited = ForeignFile.isText(first);
        return new ImportModel(
                bench,
                files,
                delimited ? new DelimitedText(FileName.of(first), ForeignFile.text(first)) : null,
                delimited ? null : ForeignFile.table(first));
    }

    private static List<Path> within(Path p) {
        if (!Files.isDirectory(p)) {
            return List.of(p);
        }
        try (Stream<Path> list = Files.list(p)) {
            return list.filter(f -> Files.isRegularFile(f) && !FileName.of(f).startsWith("."))
                    .sorted()
                    .toList();
        } catch (IOException e) {
            throw new IllegalArgumentException("The folder " + FileName.of(p) + " cannot be read.", e);
        }
    }

    /** The capture and level that the runs belong to. */
    void belongsTo(String toCapture, String atLevel) {
        capture = toCapture;
        level = atLevel;
    }

    int size() {
        return files.size();
    }

    /** What is imported, in a few words. */
    String name() {
        return FileName.of(files.get(0)) + (files.size() > 1 ? " and " + (files.size() - 1) + " more" : "");
    }

    /** True for a text whose dialect may be put right. */
    boolean isText() {
        return text != null;
    }

    static List<String> separators() {
        return List.copyOf(SEPARATORS.keySet());
    }

    String separator() {
        return dialect().separatorName();
    }

    boolean hasDecimalComma() {
        return dialect().decimalComma();
    }

    /** Reads the text again as it is put right; true when that made a difference. */
    boolean putRight(String separator, boolean decimalComma) {
        DelimitedText read = Objects.requireNonNull(text);
        char sign = Objects.requireNonNull(SEPARATORS.get(separator));
        if (sign == dialect().separator() && decimalComma == dialect().decimalComma()) {
            return false;
        }
        Dialect other = read.as(sign, decimalComma);
        runs = SeveralRuns.of(read.read(other));
        dialect = other;
        return true;
    }

    /** The first rows as cells under their headings, at most so many of each. */
    List<List<String>> preview(int rows, int columns) {
        int width = Math.min(columns, table().names().size());
        List<List<String>> out = new ArrayList<>();
        List<String> head = new ArrayList<>();
        for (int c = 0; c < width; c++) {
            String unit = table().units().get(c);
            head.add(table().names().get(c) + (unit.isEmpty() ? "" : " / " + unit));
        }
        out.add(head);
        if (text != null) {
            text.preview(dialect(), rows).forEach(r -> out.add(r.subList(0, Math.min(width, r.size()))));
            return out;
        }
        for (int r = 0; r < Math.min(rows, table().rows()); r++) {
            List<String> cells = new ArrayList<>();
            for (int c = 0; c < width; c++) {
                cells.add(Double.toString(table().columns()[c][r]));
            }
            out.add(cells);
        }
        return out;
    }

    /** The columns by names that tell them apart. */
    List<String> columns() {
        List<String> names = new ArrayList<>();
        for (int c = 0; c < table().names().size(); c++) {
            String name = table().names().get(c);
            names.add(table().names().subList(0, c).contains(name) ? name + " (" + (c + 1) + ")" : name);
        }
        return names;
    }

    /** The channels of the capture, which want a column each. */
    Map<String, Channel> channels() {
        Map<String, Channel> out = new LinkedHashMap<>();
        bench.sheet()
                .capture(capture)
                .channels()
                .forEach(c -> out.put(c, bench.sheet().channel(c)));
        return out;
    }

    /** Which column most likely is what. */
    ColumnMapping guess() {
        ColumnMapping guess = ColumnMapping.guess(table(), bench.sheet(), capture);
        assumesUnits = guess.values().values().stream()
                .anyMatch(c -> table().units().get(c).isEmpty());
        return guess;
    }

    /** True when the file says when it began, so that its clock may be held against the session's. */
    boolean hasClock() {
        return table().start() != null;
    }

    /** What was guessed, in words. */
    String says() {
        int columns = text == null ? table().names().size() : dialect().names().size();
        String written = text == null
                ? ""
                : ", separated by " + dialect().separatorName() + ", decimal "
                        + (dialect().decimalComma() ? "comma" : "point") + ", "
                        + header(dialect().headerLines());
        return "Read as " + columns + " columns" + written
                + (assumesUnits ? "; where no unit is stated, the channel's is assumed" : "") + "; " + table().rows()
                + " rows."
                + (table().remarks().isEmpty() ? "" : " " + String.join(" ", table().remarks()));
    }

    private static String header(int lines) {
        return lines == 0 ? "no header" : lines + " header " + (lines == 1 ? "line" : "lines");
    }

    /**
     * Brings every file in as a run.
     *
     * @param how which column is what
     * @param ahead seconds by which the files' clock ran ahead, as typed
     * @param inSchedule true for levels in the order of the schedule, false for the one level chosen
     * @return the last of the runs
     */
    Run bring(ColumnMapping how, String ahead, boolean inSchedule) {
        ColumnMapping with = new ColumnMapping(how.time(), how.timeUnit(), how.values(), how.units(), seconds(ahead));
        Run last = null;
        for (int i = 0; i < files.size(); i++) {
            for (Table t : i == 0 ? runs : ForeignFile.runs(files.get(i))) {
                if (t.names().size() != table().names().size()) {
                    throw new IllegalArgumentException(FileName.of(files.get(i)) + " has "
                            + t.names().size() + " columns where the first file has "
                            + table().names().size() + "; " + i + " of " + files.size() + " files were brought in.");
                }
                Optional<String[]> next =
                        inSchedule ? bench.schedule().next().filter(n -> n[0].equals(capture)) : Optional.empty();
                last = with.bring(
                        bench,
                        t,
                        FileName.of(files.get(i)),
                        capture,
                        next.map(n -> n[1]).orElse(level));
            }
        }
        return Objects.requireNonNull(last);
    }

    /** What was taken for granted in the first of them, and what was not taken. */
    String remarks(ColumnMapping how) {
        return String.join(" ", how.remarks(bench.sheet(), table()));
    }

    private static double seconds(String text) {
        try {
            return Double.parseDouble(text.strip());
        } catch (NumberFormatException e) {
            throw new IllegalArgumentException("'" + text + "' is not a number of seconds.", e);
        }
    }
}
