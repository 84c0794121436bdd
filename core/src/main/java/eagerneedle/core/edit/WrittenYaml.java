package eagerneedle.core.edit;

import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/** Values as they are written into a sheet: plain where YAML reads them as they stand, quoted where it would not. */
final class WrittenYaml {
    /** YAML would read these as something else than words. */
    private static final Set<String> NO_WORDS =
            Set.of("true", "false", "null", "yes", "no", "on", "off", "y", "n", "~");

    private static final Pattern PLAIN = Pattern.compile("[\\p{L}(][\\p{L}\\p{N} _./^*()+-]*");
    private static final Pattern NAME = Pattern.compile("[\\p{L}][\\p{L}\\p{N}_.-]*");

    private WrittenYaml() {}

    /** On one line. */
    static String flow(Object value) {
        if (value instanceof Block b) {
            return flow(b.entries());
        }
        if (value instanceof Map<?, ?> m) {
            return m.entrySet().stream()
                    .filter(e -> e.getValue() != null)
                    .map(e -> key(String.valueOf(e.getKey())) + ": " + flow(e.getValue()))
                    .collect(Collectors.joining(", ", "{", "}"));
        }
        if (value instanceof Collection<?> l) {
            return l.stream().map(WrittenYaml::flow).collect(Collectors.joining(", ", "[", "]"));
        }
        if (value instanceof Number || value instanceof Boolean) {
            return value.toString();
        }
        return word(value.toString());
    }

    /** An entry of a block, from its name on. */
    static String named(String name, Object value, int indent, String newline) {
        String entry = entry(value, indent + 2, newline);
        return key(name) + (entry.startsWith(newline) ? ":" : ": ") + entry;
    }

    /** After the name of an entry of a block: entries of entries a line each, anything else on one line. */
    private static String entry(Object value, int indent, String newline) {
        Map<?, ?> lines = value instanceof Block b
                ? b.entries()
                : value instanceof Map<?, ?> m
                                && m.values().stream().anyMatch(v -> v instanceof Map || v instanceof Block)
                        ? m
                        : Map.of();
        if (!lines.isEmpty()) {
            return lines.entrySet().stream()
                    .filter(e -> e.getValue() != null)
                    .map(e -> newline
                            + " ".repeat(indent)
                            + named(String.valueOf(e.getKey()), e.getValue(), indent, newline))
                    .collect(Collectors.joining());
        }
        if (value instanceof List<?> l && !l.isEmpty() && l.get(0) instanceof Map<?, ?>) {
            return l.stream()
                    .map(v -> newline + " ".repeat(indent) + "- " + flow(v))
                    .collect(Collectors.joining());
        }
        return flow(value);
    }

    static String key(String name) {
        // A sheet's reader takes names as they are written: 'on' is the channel a window lies on.
        return NAME.matcher(name).matches() ? name : quoted(name);
    }

    static String word(String s) {
        boolean plain = PLAIN.matcher(s).matches()
                && !s.endsWith(" ")
                && !NO_WORDS.contains(s.toLowerCase(java.util.Locale.ROOT));
        return plain ? s : quoted(s);
    }

    static String quoted(String s) {
        boolean single =
                s.contains("\"") && !s.contains("'") && s.chars().noneMatch(c -> c < 32 || c == '\\' || c == 127);
        if (single) {
            return "'" + s + "'";
        }
        StringBuilder b = new StringBuilder("\"");
        s.codePoints().forEach(c -> {
            switch (c) {
                case '"' -> b.append("\\\"");
                case '\\' -> b.append("\\\\");
                case '\n' -> b.append("\\n");
                case '\t' -> b.append("\\t");
                default -> b.appendCodePoint(c < 32 || c == 127 ? ' ' : c);
            }
        });
        return b.append('"').toString();
    }
}
