package eagerneedle.core.edit;

import eagerneedle.core.sheet.SheetException;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A way to put a problem right by one act.
 *
 * @param words what it does
 * @param from first character that is exchanged
 * @param to the one after the last
 * @param by what stands there then
 */
public record Mend(String words, int from, int to, String by) {
    private static final Pattern NEAR = Pattern.compile("did you mean ([^?]+)\\?");
    private static final Pattern NEEDS = Pattern.compile("needs its '([a-z_]+)'");
    private static final Pattern NOT_HERE = Pattern.compile("(\\S+) is not an entry that belongs here");

    /** Where a problem stands in the text: its line and column as an offset; the end for one beyond it. */
    public static int offset(String text, int line, int column) {
        int at = 0;
        for (int l = 1; l < line; l++) {
            int next = text.indexOf('\n', at);
            if (next < 0) {
                return text.length();
            }
            at = next + 1;
        }
        int end = text.indexOf('\n', at);
        return Math.min(at + Math.max(0, column - 1), end < 0 ? text.length() : end);
    }

    /** The mend of a problem; empty where only its author knows one. */
    public static Optional<Mend> of(SheetException problem, String text) {
        if (problem.line() < 1) {
            return Optional.empty();
        }
        int at = offset(text, problem.line(), problem.column());
        Matcher entry = NOT_HERE.matcher(problem.getMessage());
        if (entry.find()) {
            int line = text.lastIndexOf('\n', Math.max(0, at - 1)) + 1;
            int named = text.lastIndexOf(entry.group(1) + ":", at);
            at = named >= line ? named : at;
        }
        Matcher near = NEAR.matcher(problem.getMessage());
        if (near.find()) {
            int from = at;
            while (from > 0 && Place.isOfWord(text.charAt(from - 1))) {
                from--;
            }
            int to = at;
            while (to < text.length() && (Place.isOfWord(text.charAt(to)) || text.charAt(to) == '-')) {
                to++;
            }
            String by = near.group(1).strip();
            return to > from
                    ? Optional.of(new Mend("Write " + by + " for " + text.substring(from, to), from, to, by))
                    : Optional.empty();
        }
        Matcher needs = NEEDS.matcher(problem.getMessage());
        if (needs.find()) {
            return needed(
                    text,
                    at,
                    needs.group(1),
                    String.valueOf(problem.getMessage()).contains("the sheet needs"));
        }
        return entry.reset().find() ? without(text, at) : Optional.empty();
    }

    private static Optional<Mend> needed(String text, int at, String entry, boolean whole) {
        try {
            SheetText sheet = SheetText.of(text);
            String pointer = sheet.pointerAt(at);
            String best = whole ? "" : pointer;
            while (!best.isEmpty() && !sheet.isMapping(best)) {
                best = best.substring(0, best.lastIndexOf('/'));
            }
            List<String> path = best.isEmpty()
                    ? List.of(entry)
                    : java.util.stream.Stream.concat(
                                    java.util.Arrays.stream(best.substring(1).split("/"))
                                            .map(p -> p.matches("\\d+") ? "#" : p),
                                    java.util.stream.Stream.of(entry))
                            .toList();
            Object value = SchemaEntries.at(path).has("properties") || SchemaEntries.areNamed(path)
                    ? java.util.Map.of()
                    : SchemaEntries.at(path).has("items") ? List.of() : "...";
            String now = sheet.with(best + "/" + entry, value).text();
            int from = 0;
            while (from < text.length() && text.charAt(from) == now.charAt(from)) {
                from++;
            }
            int end = 0;
            while (end < text.length() - from
                    && text.charAt(text.length() - 1 - end) == now.charAt(now.length() - 1 - end)) {
                end++;
            }
            return Optional.of(new Mend(
                    "Write '" + entry + "' there", from, text.length() - end, now.substring(from, now.length() - end)));
        } catch (IllegalArgumentException unreadable) {
            return Optional.empty();
        }
    }

    private static Optional<Mend> without(String text, int at) {
        try {
            SheetText sheet = SheetText.of(text);
            String now = sheet.without(sheet.pointerAt(at)).text();
            return now.equals(text)
                    ? Optional.empty()
                    : Optional.of(new Mend("Take this entry away", 0, text.length(), now));
        } catch (IllegalArgumentException unreadable) {
            return Optional.empty();
        }
    }
}
