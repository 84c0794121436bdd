package eagerneedle.core.edit;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** The names that a sheet gives, and where; found line by line, so that it is known while the text is no YAML yet. */
public final class Outline {
    private static final Pattern KEY = Pattern.compile("^(\\s*(?:- +)*)([\\p{L}_][\\p{L}\\p{N}_.-]*):(\\s|$)");
    private static final Pattern INNER = Pattern.compile("[{,]\\s*([\\p{L}_][\\p{L}\\p{N}_]*):(?=\\s)");

    private static final Pattern SET = Pattern.compile("\\bset: *\\{([^}]*)\\}");
    private static final Pattern NAME = Pattern.compile("([\\p{L}_][\\p{L}\\p{N}_]*):(?=\\s)");

    /**
     * A name that is given.
     *
     * @param path of the entry, itself last
     * @param offset of its first letter
     */
    public record Given(List<String> path, int offset) {
        public String name() {
            return path.get(path.size() - 1);
        }
    }

    private final List<Given> all = new ArrayList<>();

    private Outline() {}

    public static Outline of(String text) {
        Outline o = new Outline();
        List<String> path = new ArrayList<>();
        List<Integer> indents = new ArrayList<>();
        int from = 0;
        for (String line : text.split("\n", -1)) {
            Matcher m = KEY.matcher(line);
            if (m.find() && !line.strip().startsWith("#")) {
                int indent = m.start(2);
                while (!indents.isEmpty() && indents.get(indents.size() - 1) >= indent) {
                    indents.remove(indents.size() - 1);
                    path.remove(path.size() - 1);
                }
                indents.add(indent);
                path.add(m.group(2));
                o.all.add(new Given(List.copyOf(path), from + m.start(2)));
                o.inner(line, from, m.end(), path);
                o.set(line, from, path);
            }
            from += line.length() + 1;
        }
        return o;
    }

    /** Names given within the braces of a line: {@code hidden: {k: ..., off: ...}}. */
    private void inner(String line, int from, int start, List<String> path) {
        if (!SchemaEntries.areNamed(path)) {
            return;
        }
        Matcher m = INNER.matcher(line);
        int at = start - 1;
        while (m.find(Math.min(line.length(), Math.max(0, at)))) {
            if (depth(line, start, m.start(1)) == 1) {
                List<String> of = new ArrayList<>(path);
                of.add(m.group(1));
                all.add(new Given(List.copyOf(of), from + m.start(1)));
            }
            at = m.end() - 1;
        }
    }

    /** What the levels of a capture set, in braces. */
    private void set(String line, int from, List<String> path) {
        if (!path.get(0).equals("captures") || !path.contains("levels") && !line.contains("levels")) {
            return;
        }
        Matcher braces = SET.matcher(line);
        while (braces.find()) {
            Matcher m = NAME.matcher(braces.group(1));
            while (m.find()) {
                List<String> of = new ArrayList<>(path.subList(0, Math.min(2, path.size())));
                of.addAll(List.of("levels", "set", m.group(1)));
                all.add(new Given(List.copyOf(of), from + braces.start(1) + m.start(1)));
            }
        }
    }

    private static int depth(String line, int from, int to) {
        int depth = 0;
        boolean quoted = false;
        for (int i = from; i < to; i++) {
            char c = line.charAt(i);
            if (c == '"' && line.charAt(i - 1) != '\\') {
                quoted = !quoted;
            } else if (!quoted && (c == '{' || c == '[')) {
                depth++;
            } else if (!quoted && (c == '}' || c == ']')) {
                depth--;
            }
        }
        return quoted ? -1 : depth;
    }

    /** All names, in the order of the text. */
    public List<Given> all() {
        return List.copyOf(all);
    }

    /** The names given directly below a path, in the order of the text. */
    public List<String> names(String... path) {
        List<String> above = List.of(path);
        return all.stream()
                .filter(g -> g.path().size() == above.size() + 1
                        && g.path().subList(0, above.size()).equals(above))
                .map(Given::name)
                .toList();
    }

    /** Where a name that is used at a place is given: the nearest around it. */
    public Optional<Given> definition(String name, List<String> around) {
        String first = name.contains(".") ? name.substring(0, name.indexOf('.')) : name;
        String rest = name.contains(".") ? name.substring(name.indexOf('.') + 1) : "";
        String capture = around.size() > 1
                        && (around.get(0).equals("captures") || around.get(0).equals("rig"))
                ? around.get(1)
                : "";
        List<List<String>> wheres = new ArrayList<>();
        if (!rest.isEmpty()) {
            for (String part : List.of("quantities", "by_eye", "windows")) {
                wheres.add(List.of("captures", first, part, rest));
            }
        }
        for (String part : List.of("quantities", "by_eye", "windows")) {
            wheres.add(List.of("captures", capture, part, first));
        }
        wheres.add(List.of("rig", capture, "hidden", first));
        wheres.add(List.of("rig", capture, "state", first));
        for (String part : List.of("inputs", "planned", "results", "channels", "devices", "captures", "choices")) {
            wheres.add(List.of(part, first));
        }
        wheres.add(List.of("rig", "hidden", first));
        wheres.add(List.of("rig", "nature", first));
        return wheres.stream()
                .flatMap(w -> all.stream().filter(g -> g.path().equals(w)))
                .findFirst();
    }
}
