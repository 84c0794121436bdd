package eagerneedle.core.sheet;

import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * What is said to people, without the keys of a sheet. Messages about a sheet name its keys and the place where they
 * are written, which is what whoever writes the sheet needs; whoever works with it reads labels.
 *
 * <p>Only keys that cannot be taken for a word are replaced: those with a dot, an underscore or a digit in them.
 */
public final class PlainWords {
    private static final Pattern PLACE =
            Pattern.compile("^(?:the sheet in )?[^ ,]+\\.(?:needle|ya?ml), line \\d+, column \\d+: ");
    private static final Pattern KEY =
            Pattern.compile("\\b[A-Za-z][A-Za-z0-9]*(?:[._][A-Za-z0-9_]+)+\\b|\\b[A-Za-z]+\\d+\\b");
    private static final Pattern DOTTED = Pattern.compile("\\b([A-Za-z]\\w*)\\.([A-Za-z]\\w*)\\b");
    private final Map<String, String> labels = new HashMap<>();
    private final Set<String> captures;
    private final Set<String> members = new HashSet<>();

    private PlainWords(Sheet sheet) {
        captures = sheet.captures().keySet();
        sheet.members().values().forEach(m -> members.addAll(m.keySet()));
        sheet.inputs().forEach((name, i) -> label(name, i.label()));
        sheet.results().forEach((name, d) -> label(name, d.label()));
        sheet.channels().forEach((name, c) -> label(name, c.label()));
        sheet.captures()
                .forEach((capture, c) -> c.byEye().forEach((name, i) -> {
                    label(name, i.label());
                    label(capture + "." + name, i.label());
                }));
        sheet.captures()
                .forEach((capture, c) -> c.quantities().forEach((name, d) -> {
                    label(name, d.label());
                    label(capture + "." + name, d.label());
                }));
    }

    /** What is only reckoned with has no label, and keeps its key. */
    private void label(String name, @Nullable String label) {
        if (label != null) {
            labels.putIfAbsent(name, label);
        }
    }

    /**
     * A formula as it is set in print: a member of a family stands as an index of its name, P_e of r10 rather than r10
     * alone. A column of a capture keeps its own name.
     */
    public String formula(String text) {
        return DOTTED.matcher(text)
                .replaceAll(m -> captures.contains(m.group(1)) || !members.contains(m.group(2))
                        ? Matcher.quoteReplacement(m.group())
                        : m.group(1) + "_" + m.group(2));
    }

    public static PlainWords of(Sheet sheet) {
        return new PlainWords(sheet);
    }

    /** A message as it is read at the bench: without its place in the sheet, with labels in place of keys. */
    public String say(String message) {
        if (message == null || message.isEmpty()) {
            return "";
        }
        Matcher place = PLACE.matcher(message);
        boolean placed = place.find();
        String said = KEY.matcher(placed ? message.substring(place.end()) : message)
                .replaceAll(m -> Matcher.quoteReplacement(labels.getOrDefault(m.group(), m.group())));
        return placed ? capital(said) : said;
    }

    private static String capital(String s) {
        return s.isEmpty() ? s : Character.toUpperCase(s.charAt(0)) + s.substring(1);
    }
}
