package eagerneedle.archive;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;

/**
 * What came of a question: columns, and rows of numbers and words.
 *
 * @param rows a value each column; null where there is none
 * @param whole false where there was more than was asked for
 */
public record Answer(List<String> columns, List<List<@Nullable Object>> rows, boolean whole) {
    /** As a table in which columns stand below each other, numbers to six figures. */
    public List<String> lines() {
        int n = columns.size();
        int[] wide = new int[n];
        List<List<String>> written = new ArrayList<>();
        written.add(columns);
        rows.forEach(r -> written.add(r.stream().map(Answer::shortly).toList()));
        written.forEach(r -> {
            for (int i = 0; i < n; i++) {
                wide[i] = Math.max(wide[i], r.get(i).length());
            }
        });
        List<String> out = new ArrayList<>();
        for (List<String> r : written) {
            StringBuilder line = new StringBuilder();
            for (int i = 0; i < n; i++) {
                boolean number = !rows.isEmpty() && rows.stream().allMatch(isNumberAt(i));
                String cell = r.get(i);
                String blank = " ".repeat(wide[i] - cell.length());
                line.append(i == 0 ? "" : "  ").append(number ? blank + cell : cell + blank);
            }
            out.add(line.toString().stripTrailing());
        }
        return out;
    }

    private static java.util.function.Predicate<List<@Nullable Object>> isNumberAt(int i) {
        return row -> row.get(i) == null || row.get(i) instanceof Number;
    }

    private static String shortly(@Nullable Object v) {
        if (v == null) {
            return "";
        }
        if (v instanceof Double d) {
            return d == Math.rint(d) && Math.abs(d) < 1e9
                    ? String.format(Locale.ROOT, "%.0f", d)
                    : String.format(Locale.ROOT, "%.6g", d);
        }
        return v.toString();
    }

    /** As CSV by RFC 4180, numbers at full precision. */
    public String csv() {
        StringBuilder out = new StringBuilder();
        out.append(String.join(",", columns.stream().map(Answer::quoted).toList()))
                .append("\r\n");
        for (List<@Nullable Object> r : rows) {
            out.append(String.join(
                            ",",
                            r.stream()
                                    .map(v -> v == null ? "" : quoted(v.toString()))
                                    .toList()))
                    .append("\r\n");
        }
        return out.toString();
    }

    private static String quoted(String v) {
        return v.matches("(?s).*[\",\r\n].*") ? '"' + v.replace("\"", "\"\"") + '"' : v;
    }
}
