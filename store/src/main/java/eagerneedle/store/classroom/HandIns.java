package eagerneedle.store.classroom;

import eagerneedle.core.marking.HandIn;
import eagerneedle.store.FileName;
import java.io.IOException;
import java.io.InputStream;
import java.io.StringReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVRecord;
import org.dhatim.fastexcel.reader.Cell;
import org.dhatim.fastexcel.reader.ReadableWorkbook;
import org.dhatim.fastexcel.reader.Row;
import org.jspecify.annotations.Nullable;

/**
 * What a class handed in: one table as CSV, or a folder with a workbook, a CSV or a bench file of each student.
 *
 * @param numbers in the order in which they stand
 * @param benches bench files that were handed in instead, by student as far as their names tell
 * @param problems a sentence for each file or line that could not be read; the others are there all the same
 */
public record HandIns(List<HandIn> numbers, Map<String, Path> benches, List<String> problems) {
    private static final int MOST_ROWS = 200_000;

    /**
     * Reads what was handed in.
     *
     * @param students whose hand-ins they may be; names of files are looked for in it
     * @throws IllegalArgumentException with one sentence where nothing can be read
     */
    public static HandIns read(Path place, List<ClassList.Student> students) {
        List<HandIn> numbers = new ArrayList<>();
        Map<String, Path> benches = new LinkedHashMap<>();
        List<String> problems = new ArrayList<>();
        if (Files.isDirectory(place)) {
            try (Stream<Path> all = Files.walk(place, 3)) {
                for (Path f : all.filter(Files::isRegularFile).sorted().toList()) {
                    if (FileName.of(f).startsWith(".") || FileName.of(f).startsWith("~$")) {
                        continue;
                    }
                    try {
                        one(f, students, numbers, benches);
                    } catch (IllegalArgumentException e) {
                        problems.add(e.getMessage());
                    }
                }
            } catch (IOException e) {
                throw new IllegalArgumentException(FileName.of(place) + " cannot be looked through.", e);
            }
        } else if (Files.isRegularFile(place)) {
            one(place, students, numbers, benches);
        } else {
            throw new IllegalArgumentException("There is no file or folder " + FileName.of(place) + ".");
        }
        if (numbers.isEmpty() && benches.isEmpty()) {
            throw new IllegalArgumentException(
                    FileName.of(place) + " holds no hand-in" + (problems.isEmpty() ? "." : ": " + problems.get(0)));
        }
        return new HandIns(List.copyOf(numbers), Map.copyOf(benches), List.copyOf(problems));
    }

    private static void one(
            Path file, List<ClassList.Student> students, List<HandIn> numbers, Map<String, Path> benches) {
        String name = FileName.of(file).toLowerCase(Locale.ROOT);
        if (name.endsWith(".csv") || name.endsWith(".txt")) {
            numbers.addAll(table(file, named(file, students)));
        } else if (name.endsWith(".xlsx")) {
            numbers.addAll(workbook(file, named(file, students)));
        } else if (name.endsWith(".needle")) {
            String who = named(file, students)
                    .orElseThrow(() -> new IllegalArgumentException(
                            FileName.of(file) + " does not say whose it is; put the student's id into its name."));
            benches.put(who, file);
        }
    }

    /**
     * The student whose id stands in the name of a file, or of its folder; the longest where one is part of another.
     */
    private static Optional<String> named(Path file, List<ClassList.Student> students) {
        String name = FileName.of(file);
        Path above = file.toAbsolutePath().getParent();
        String folder = above == null ? "" : FileName.of(above);
        for (String where : List.of(name, folder)) {
            Optional<String> found = students.stream()
                    .map(ClassList.Student::id)
                    .filter(id -> where.matches("(?i)(?:.*[^\\p{L}\\p{N}])?"
                            + java.util.regex.Pattern.quote(ClassList.folder(id)) + "(?:[^\\p{L}\\p{N}].*)?"))
                    .max(java.util.Comparator.comparingInt(String::length));
            if (found.isPresent()) {
                return found;
            }
        }
        return Optional.empty();
    }

    private static List<HandIn> table(Path file, Optional<String> named) {
        String text;
        try {
            text = Files.readString(file, StandardCharsets.UTF_8);
        } catch (IOException e) {
            try {
                text = Files.readString(file, StandardCharsets.ISO_8859_1);
            } catch (IOException again) {
                throw new IllegalArgumentException(FileName.of(file) + " cannot be read.", again);
            }
        }
        String plain = text.startsWith("\ufeff") ? text.substring(1) : text;
        String first = plain.strip().lines().findFirst().orElse("");
        char delimiter = first.contains(";") ? ';' : first.contains("\t") ? '\t' : ',';
        try {
            List<CSVRecord> records = CSVFormat.DEFAULT
                    .builder()
                    .setDelimiter(delimiter)
                    .setTrim(true)
                    .setIgnoreEmptyLines(true)
                    .get()
                    .parse(new StringReader(plain))
                    .getRecords();
            List<List<String>> rows = new ArrayList<>();
            for (CSVRecord r : records.subList(0, Math.min(MOST_ROWS, records.size()))) {
                rows.add(r.toList());
            }
            return rows(file, rows, named);
        } catch (IOException | java.io.UncheckedIOException e) {
            throw new IllegalArgumentException(FileName.of(file) + " cannot be read as CSV: " + e.getMessage(), e);
        }
    }

    private static List<HandIn> workbook(Path file, Optional<String> named) {
        try (InputStream in = Files.newInputStream(file);
                ReadableWorkbook book = new ReadableWorkbook(in)) {
            List<List<String>> rows = new ArrayList<>();
            try (Stream<Row> all = book.getFirstSheet().openStream()) {
                for (Row r : (Iterable<Row>) all.limit(MOST_ROWS)::iterator) {
                    List<String> cells = new ArrayList<>();
                    for (int c = 0; c < r.getCellCount(); c++) {
                        cells.add(words(r.getCell(c)));
                    }
                    rows.add(cells);
                }
            }
            Optional<String> said = rows.stream()
                    .filter(r -> r.size() > 1
                            && r.get(0).equalsIgnoreCase("student")
                            && !r.get(1).isBlank())
                    .map(r -> r.get(1).strip())
                    .findFirst();
            return rows(file, rows, said.or(() -> named));
        } catch (IOException | RuntimeException e) {
            if (e instanceof IllegalArgumentException own) {
                throw own;
            }
            throw new IllegalArgumentException(FileName.of(file) + " cannot be read as a workbook.", e);
        }
    }

    /** A cell as it is written: numbers as the file keeps them, which has no more digits than were typed. */
    private static String words(@Nullable Cell cell) {
        if (cell == null || cell.getValue() == null) {
            return "";
        }
        String raw = cell.getRawValue();
        return switch (cell.getType()) {
            case NUMBER -> raw == null ? cell.getText() : shortest(raw);
            default -> cell.getText();
        };
    }

    /** 0.30000000000000004 is what a spreadsheet keeps of 0.3. */
    private static String shortest(String raw) {
        try {
            return new java.math.BigDecimal(raw)
                    .round(new java.math.MathContext(15))
                    .stripTrailingZeros()
                    .toPlainString();
        } catch (NumberFormatException e) {
            return raw;
        }
    }

    private static List<HandIn> rows(Path file, List<List<String>> rows, Optional<String> named) {
        if (isData(rows)) {
            return List.of();
        }
        for (int head = 0; head < rows.size(); head++) {
            Map<String, Integer> columns = new LinkedHashMap<>();
            List<String> cells = rows.get(head);
            for (int c = 0; c < cells.size(); c++) {
                columns.putIfAbsent(column(cells.get(c)), c);
            }
            Integer quantity = columns.get("quantity");
            Integer value = columns.get("value");
            if (quantity != null && value != null) {
                return below(file, rows, head, columns, named);
            }
        }
        throw new IllegalArgumentException(FileName.of(file)
                + " has no row with 'quantity' and 'value' over its columns; student, u and unit may stand there too.");
    }

    /** The data that were given out lie where the forms do; they are no hand-in, and no mistake. */
    private static boolean isData(List<List<String>> rows) {
        return !rows.isEmpty()
                && (rows.get(0).stream().limit(3).toList().equals(List.of("kind", "run", "capture"))
                        || rows.get(0).stream().limit(3).toList().equals(List.of("name", "what it is", "as read")));
    }

    private static List<HandIn> below(
            Path file, List<List<String>> rows, int head, Map<String, Integer> columns, Optional<String> named) {
        List<HandIn> out = new ArrayList<>();
        for (int i = head + 1; i < rows.size(); i++) {
            List<String> r = rows.get(i);
            String quantity = cell(r, columns.get("quantity"));
            if (quantity.isEmpty()) {
                continue;
            }
            String who = cell(r, columns.get("student"));
            int line = i + 1;
            String student = who.isEmpty()
                    ? named.orElseThrow(() -> new IllegalArgumentException(FileName.of(file) + ", line " + line
                            + ": whose number this is stands neither there nor in the file's name."))
                    : who;
            out.add(new HandIn(
                    student,
                    quantity,
                    cell(r, columns.get("value")),
                    cell(r, columns.get("u")),
                    cell(r, columns.get("unit"))));
        }
        return out;
    }

    private static String column(String head) {
        String low = head.strip().toLowerCase(Locale.ROOT);
        return switch (low) {
            case "student", "id" -> "student";
            case "u", "uncertainty", "standard uncertainty" -> "u";
            default -> low;
        };
    }

    private static String cell(List<String> row, @Nullable Integer column) {
        return column == null || column >= row.size() ? "" : row.get(column).strip();
    }
}
