package eagerneedle.core.edit;

import eagerneedle.core.reduce.SheetTrial;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A name of a sheet changed wherever it is meant: where it is given, in formulas, in lists and as the name of what
 * somebody sets. Words for people are left alone.
 */
public final class Renaming {
    private static final Pattern NAMES = Pattern.compile("[\\p{L}_][\\p{L}\\p{N}_]*(?:\\.[\\p{L}_][\\p{L}\\p{N}_]*)*");
    private static final Pattern QUOTED_WORD = Pattern.compile("\\\\?[\"']\\s*[\\p{L}\\p{N}_ -]*\\s*\\\\?[\"']");

    /** A unit behind a number: it has no blanks. */
    private static final Pattern UNIT = Pattern.compile("[\\d)%] ([\\p{L}µ°%][^\\s,;)\\]}\"'\\\\]*)");

    /** What a rig calls so, whatever else the sheet does. */
    private static final Set<String> OF_THE_RIG = Set.of("t", "clock", "run");

    private Renaming() {}

    /** A place in which the name is meant. */
    private record Hit(int from, int to) {}

    /**
     * The text with a name changed.
     *
     * @param given where it is given
     * @throws IllegalArgumentException with one sentence where the new name is none, or is taken, or the sheet would
     *     mean something else
     */
    public static String of(String text, Outline.Given given, String to) {
        if (!to.matches("[A-Za-z][A-Za-z0-9_]*")) {
            throw new IllegalArgumentException(
                    "A name begins with a letter and holds letters, digits and _ only; '" + to + "' does not.");
        }
        List<String> path = given.path();
        Outline o = Outline.of(text);
        List<String> beside = new ArrayList<>(path.subList(0, path.size() - 1));
        if (o.names(beside.toArray(String[]::new)).contains(to)
                || path.size() == 2
                        && (o.names("inputs").contains(to) || o.names("results").contains(to))) {
            throw new IllegalArgumentException("There is a " + to + " already; take another name.");
        }
        if (OF_THE_RIG.contains(given.name()) && !o.names("rig").isEmpty()) {
            throw new IllegalArgumentException("In the rig " + given.name()
                    + " may also be the run's own; rename it by hand, so that nothing else is meant.");
        }
        SheetText sheet = SheetText.of(text);
        List<Hit> hits = new ArrayList<>();
        for (SheetText.Leaf leaf : sheet.leaves()) {
            List<String> at = List.of(leaf.pointer().substring(1).split("/"));
            List<String> kinds =
                    at.stream().map(p -> p.matches("\\d+") ? "#" : p).toList();
            if (leaf.name()) {
                if (at.equals(path) || isMeant(kinds, given) && leaf.value().equals(given.name())) {
                    hits.add(new Hit(leaf.span().from(), leaf.span().to()));
                } else if (leaf.value().contains(".")) {
                    within(text, leaf, kinds, given, hits);
                }
            } else if (!SchemaEntries.isProse(kinds)) {
                within(text, leaf, kinds, given, hits);
            }
        }
        String now = text;
        for (Hit h : hits.stream()
                .sorted(Comparator.comparingInt(Hit::from).reversed())
                .distinct()
                .toList()) {
            now = now.substring(0, h.from()) + to + now.substring(h.to());
        }
        long before = SheetTrial.look(text, "sheet").problems().size();
        if (SheetTrial.look(now, "sheet").problems().size() > before) {
            throw new IllegalArgumentException("With " + to + " for " + given.name()
                    + " the sheet would not be good any more: "
                    + SheetTrial.look(now, "sheet").problems().get(0).getMessage());
        }
        return now;
    }

    /** Names of entries that mean something given elsewhere: what is changed, set hidden, shown, expected. */
    private static boolean isMeant(List<String> path, Outline.Given given) {
        String above = path.size() > 1 ? path.get(path.size() - 2) : "";
        boolean reference = List.of("change", "signals", "edges", "truth", "expected", "hidden", "readings", "ways")
                        .contains(above)
                || path.size() == 2 && path.get(0).equals("choices")
                || path.size() == 4
                        && path.get(0).equals("captures")
                        && path.get(2).equals("choices");
        boolean local = given.path().size() > 2;
        boolean inside = path.size() > 1
                && given.path().size() > 1
                && path.get(1).equals(given.path().get(1));
        return reference && (local ? inside : true);
    }

    private static void within(
            String text, SheetText.Leaf leaf, List<String> kinds, Outline.Given given, List<Hit> hits) {
        String raw = text.substring(leaf.span().from(), leaf.span().to());
        List<int[]> words = new ArrayList<>();
        boolean whole = raw.startsWith("\"") || raw.startsWith("'");
        Matcher q = QUOTED_WORD.matcher(raw);
        int from = whole ? 1 : 0;
        while (from < raw.length() && q.find(from)) {
            boolean outer = whole && (q.start() == 0 || q.end() == raw.length() && !raw.startsWith("\\", q.end() - 2));
            if (!outer) {
                words.add(new int[] {q.start(), q.end()});
                from = q.end();
            } else {
                from = q.start() + 1;
            }
        }
        Matcher units = UNIT.matcher(raw);
        while (units.find()) {
            words.add(new int[] {units.start(1), units.end(1)});
        }
        Matcher m = NAMES.matcher(raw);
        while (m.find()) {
            int at = m.start();
            boolean quoted = words.stream().anyMatch(w -> at >= w[0] && at < w[1]);
            boolean rig = m.group().startsWith("rig.");
            if (quoted || m.end() < raw.length() && raw.charAt(m.end()) == '(') {
                continue;
            }
            int[] hit = hit(rig ? m.group().substring(4) : m.group(), kinds, given);
            if (hit.length == 2) {
                int start = leaf.span().from() + at + (rig ? 4 : 0);
                hits.add(new Hit(start + hit[0], start + hit[1]));
            }
        }
    }

    /** Which letters of a name that is used mean the one given; none where it means something else. */
    private static int[] hit(String used, List<String> kinds, Outline.Given given) {
        String name = given.name();
        List<String> path = given.path();
        boolean local = path.size() > 2;
        int dot = used.indexOf('.');
        String first = dot < 0 ? used : used.substring(0, dot);
        if (!local) {
            boolean capture = path.get(0).equals("captures");
            boolean here = first.equals(name)
                    && (dot < 0
                            || capture
                            || path.get(0).equals("results")
                            || path.get(0).equals("inputs")
                            || path.get(0).equals("channels"));
            return here ? new int[] {0, name.length()} : new int[0];
        }
        boolean inside = kinds.size() > 1
                && (kinds.get(0).equals("captures") || kinds.get(0).equals("rig"))
                && kinds.get(1).equals(path.get(1));
        if (inside && first.equals(name)) {
            return new int[] {0, name.length()};
        }
        boolean outside = path.get(0).equals("captures") && dot > 0 && first.equals(path.get(1));
        if (outside) {
            String rest = used.substring(dot + 1);
            String second = rest.contains(".") ? rest.substring(0, rest.indexOf('.')) : rest;
            if (second.equals(name)) {
                return new int[] {dot + 1, dot + 1 + name.length()};
            }
        }
        return new int[0];
    }
}
