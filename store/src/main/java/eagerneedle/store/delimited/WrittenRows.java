package eagerneedle.store.delimited;

import eagerneedle.core.quantity.LabUnit;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;

/**
 * A delimited text whose cells are kept as they are written, below one line of headings: for readings, where
 * {@code 2.1(1)} or {@code reading(84 mm)} says more than a number does.
 *
 * @param heads one for each column
 * @param rows as many cells each as there are columns; empty text where nothing stands
 * @param lines the line of the file that each row stands on, from 1
 * @param remarks what was decided while reading, one sentence each
 */
public record WrittenRows(List<Heading> heads, List<List<String>> rows, List<Integer> lines, List<String> remarks) {
    private static final char[] SEPARATORS = {'\t', ';', '|', ','};
    private static final Pattern COMMA = Pattern.compile("([+-]?\\d+),(\\d+)(.*)", Pattern.DOTALL);

    public WrittenRows {
        heads = List.copyOf(heads);
        rows = List.copyOf(rows);
        lines = List.copyOf(lines);
        remarks = List.copyOf(remarks);
    }

    /**
     * Reads a text.
     *
     * @param file name used in messages
     * @throws DelimitedException with one sentence when it has no headings or a row has another number of cells
     */
    public static WrittenRows of(String file, String text) {
        List<String> all = text.replace("\uFEFF", "").lines().toList();
        int head = 0;
        while (head < all.size() && (all.get(head).isBlank() || all.get(head).startsWith("#"))) {
            head++;
        }
        if (head >= all.size()) {
            throw new DelimitedException(file + " holds no rows.");
        }
        char separator = separator(all.get(head));
        List<String> names = Cells.of(all.get(head), separator);
        if (names.stream().anyMatch(n -> Cells.isValue(n, false))) {
            throw new DelimitedException(
                    "%s, line %d: readings stand below a line of headings; there is none.".formatted(file, head + 1));
        }
        List<Heading> heads = names.stream().map(Heading::of).toList();
        Set<String> seen = new HashSet<>();
        heads.forEach(h -> {
            if (!seen.add(h.name())) {
                throw new DelimitedException(file + " has two columns that are called '" + h.name() + "'.");
            }
        });
        List<List<String>> rows = new ArrayList<>();
        List<Integer> lines = new ArrayList<>();
        List<String> remarks = new ArrayList<>();
        boolean commas = false;
        for (int i = head + 1; i < all.size(); i++) {
            String line = all.get(i);
            if (line.isBlank() || line.startsWith("#")) {
                continue;
            }
            List<String> cells = new ArrayList<>(Cells.of(line, separator));
            if (cells.size() == heads.size() + 1 && cells.get(heads.size()).isBlank()) {
                cells.remove(heads.size());
            }
            if (cells.size() != heads.size()) {
                throw new DelimitedException("%s, line %d: %d cells below %d headings; put the missing one in."
                        .formatted(file, i + 1, cells.size(), heads.size()));
            }
            for (int c = 0; c < cells.size(); c++) {
                String cell = cells.get(c).strip();
                Optional<String> point = separator == ',' ? Optional.empty() : withPoint(cell);
                commas |= point.isPresent();
                cells.set(c, point.orElse(cell));
            }
            rows.add(List.copyOf(cells));
            lines.add(i + 1);
        }
        if (rows.isEmpty()) {
            throw new DelimitedException(file + " holds headings, but no rows below them.");
        }
        if (commas) {
            remarks.add("Decimal commas were read as decimal points.");
        }
        return new WrittenRows(heads, rows, lines, remarks);
    }

    /** A number with one comma in it, with a point in its place; absent for anything else. */
    private static Optional<String> withPoint(String cell) {
        var m = COMMA.matcher(cell);
        if (!m.matches() || m.group(3).contains(",") || !isBehindNumber(m.group(3))) {
            return Optional.empty();
        }
        return Optional.of(m.group(1) + "." + m.group(2) + m.group(3));
    }

    private static boolean isBehindNumber(String rest) {
        String unit = rest.replaceFirst("^\\(\\d+\\)", "").strip();
        return unit.isEmpty() || unit.startsWith("±") || unit.startsWith("limit") || isUnit(unit);
    }

    private static boolean isUnit(String s) {
        try {
            LabUnit.parse(s);
            return true;
        } catch (IllegalArgumentException e) {
            return false;
        }
    }

    private static char separator(String head) {
        for (char c : SEPARATORS) {
            if (head.indexOf(c) >= 0) {
                return c;
            }
        }
        return ';';
    }
}
