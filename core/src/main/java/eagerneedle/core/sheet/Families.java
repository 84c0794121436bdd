package eagerneedle.core.sheet;

import eagerneedle.core.formula.Pieces;
import eagerneedle.core.formula.Pieces.Kind;
import eagerneedle.core.formula.Pieces.Piece;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * What there is one of for each member of a set, and what its name means where a formula uses it.
 *
 * <p>A family {@code m} over the set {@code wagon} of a and b is two things, {@code m.a} and {@code m.b}. Inside an
 * {@code each: wagon} its name means the member at hand; in a run whose level is a wagon, that of the run; anywhere
 * else it is a column in the order of the set, its rows labelled. A capture that is made at members of a set gives
 * columns whose rows carry them, and inside {@code each} of that set those of the member at hand.
 */
final class Families {
    private final Sets sets;
    /** By name: sets in their order; of a capture by {@code capture.name}. */
    private final Map<String, List<String>> over = new LinkedHashMap<>();

    private final Set<String> alone = new LinkedHashSet<>();
    /** Sets whose members are the levels of a capture. */
    private final Map<String, List<String>> levels = new HashMap<>();
    /** Names that stand for a column or for what a level chooses, by capture; "" for no capture. */
    private final Map<String, Set<String>> wanted = new LinkedHashMap<>();

    Families(Sets sets) {
        this.sets = sets;
        sets.all().forEach((set, members) -> members.attributes().keySet().forEach(a -> over.put(a, List.of(set))));
    }

    void add(String name, List<String> ofSets) {
        over.put(name, List.copyOf(ofSets));
    }

    /** A family of channels or windows, of which there is no column. */
    void addAlone(String name, List<String> ofSets) {
        add(name, ofSets);
        alone.add(name);
    }

    /** A capture; made at members of sets, or of none. */
    void levels(String capture, List<String> ofSets) {
        levels.put(capture, List.copyOf(ofSets));
    }

    /** Sets that a family is over; empty for what is none. */
    List<String> over(String name) {
        return over.getOrDefault(name, List.of());
    }

    List<String> levels(String capture) {
        return levels.getOrDefault(capture, List.of());
    }

    boolean isCapture(String name) {
        return levels.containsKey(name);
    }

    Map<String, Set<String>> wanted() {
        return wanted;
    }

    /** The name of one of a family, or of a column over what is not chosen. */
    String named(String family, Map<String, String> chosen) {
        StringBuilder name = new StringBuilder(family);
        over(family).stream()
                .filter(chosen::containsKey)
                .forEach(s -> name.append('.').append(chosen.get(s)));
        return name.toString();
    }

    /**
     * Where a formula stands.
     *
     * @param capture the capture it belongs to; empty for none
     * @param bound the members at hand, by set
     * @param own families that only its surroundings know, and the captures it may mean
     */
    record At(String capture, Map<String, String> bound, Map<String, List<String>> own) {
        At with(Map<String, String> more) {
            Map<String, String> all = new LinkedHashMap<>(bound);
            all.putAll(more);
            return new At(capture, all, own);
        }
    }

    /** A formula with every name of a family written out. */
    Pieces.Rewritten written(String formula, At at) {
        List<Piece> pieces = Pieces.of(formula);
        List<Piece> others = new ArrayList<>();
        for (int i = 0; i < pieces.size(); i++) {
            Piece compared = comparison(pieces, i, at);
            if (compared != null) {
                others.add(compared);
                i += 2;
            } else if (isModel(pieces, i)) {
                others.add(model(pieces.get(i), sought(pieces), at));
            } else if (pieces.get(i).kind() == Kind.NAME) {
                Piece p = pieces.get(i);
                others.add(new Piece(p.kind(), p.start(), name(p.text(), at), p.end()));
            }
        }
        return Pieces.replaced(formula, others);
    }

    /** A formula in quotes that is fitted: {@code formula: '...'} or {@code rate: '...'}. */
    private static boolean isModel(List<Piece> pieces, int i) {
        return pieces.get(i).kind() == Kind.TEXT
                && i > 1
                && pieces.get(i - 1).text().equals(":")
                && List.of("formula", "rate").contains(pieces.get(i - 2).text());
    }

    /** What is to be found by fits in a formula, and is no name of the sheet there. */
    private static Set<String> sought(List<Piece> pieces) {
        Set<String> out = new LinkedHashSet<>();
        for (int i = 2; i < pieces.size(); i++) {
            if (pieces.get(i).kind() == Kind.TEXT && pieces.get(i - 2).text().equals("find")) {
                String text = pieces.get(i).text();
                for (String part : text.substring(1, text.length() - 1).split(",")) {
                    out.add(part.replaceFirst("=.*", "").strip());
                }
            }
        }
        return out;
    }

    private Piece model(Piece text, Set<String> sought, At at) {
        String quote = text.text().substring(0, 1);
        String inner = text.text().substring(1, text.text().length() - 1);
        String out =
                Pieces.renamed(inner, n -> sought.contains(n) ? n : name(n, at)).text();
        return new Piece(text.kind(), text.start(), quote + out + quote, text.end());
    }

    /** {@code kind == release}: whether the member at hand, of the level or of the row is that one. */
    private @Nullable Piece comparison(List<Piece> pieces, int i, At at) {
        if (i + 2 >= pieces.size() || !pieces.get(i + 1).text().matches("==|!=")) {
            return null;
        }
        String a = pieces.get(i).text();
        String b = pieces.get(i + 2).text();
        String set = isCompared(a, b) ? a : isCompared(b, a) ? b : null;
        if (set == null) {
            return null;
        }
        String member = set.equals(a) ? b : a;
        String text = name(set + "." + member, at) + " " + pieces.get(i + 1).text() + " 1";
        return new Piece(
                Kind.OTHER, pieces.get(i).start(), text, pieces.get(i + 2).end());
    }

    /** A set of which a formula asks for the member, where nothing says which one is at hand. */
    Optional<String> asking(String formula, At at) {
        List<Piece> pieces = Pieces.of(formula);
        for (int i = 0; i + 2 < pieces.size(); i++) {
            String a = pieces.get(i).text();
            boolean compares = pieces.get(i + 1).text().matches("==|!=");
            if (compares
                    && isCompared(a, pieces.get(i + 2).text())
                    && !at.bound().containsKey(a)
                    && levels.values().stream().noneMatch(of -> of.contains(a))) {
                return Optional.of(a);
            }
        }
        return Optional.empty();
    }

    private boolean isCompared(String set, String member) {
        return sets.has(set) && !over.containsKey(set) && Sets.isName(member) && !sets.has(member);
    }

    private String name(String written, At at) {
        String[] parts = written.split("\\.");
        if (sets.has(parts[0]) && parts.length == 2) {
            return indicator(parts[0], parts[1], at);
        }
        String own = parts[0];
        if (at.own().containsKey(own)) {
            return chosen(own, "", at.own().get(own), parts, 1, at);
        }
        if (!at.capture().isEmpty() && over.containsKey(at.capture() + "." + own)) {
            String name = at.capture() + "." + own;
            return chosen(own, name, over(name), parts, 1, at);
        }
        if (over.containsKey(own)) {
            return chosen(own, own, over(own), parts, 1, at);
        }
        if (parts.length > 1 && levels.containsKey(own)) {
            String column = own + "." + parts[1];
            String name = over.containsKey(column)
                    ? chosen(column, column, over(column), parts, 2, at)
                    : ofLevels(own, parts[1], written);
            return restricted(own, name, at);
        }
        return written;
    }

    /** Whether a member is the one at hand: a number, 1 or 0. */
    private String indicator(String set, String member, At at) {
        if (!sets.of(set).names().contains(member)) {
            return set + "." + member;
        }
        if (at.bound().containsKey(set)) {
            return member.equals(at.bound().get(set)) ? "1" : "0";
        }
        want(levels(at.capture()).contains(set) ? at.capture() : "", set + "." + member);
        if (at.capture().isEmpty()) {
            levels.forEach((capture, of) -> {
                if (of.contains(set)) {
                    want(capture, set + "." + member);
                }
            });
        }
        return set + "." + member;
    }

    private void want(String capture, String name) {
        wanted.computeIfAbsent(capture, c -> new LinkedHashSet<>()).add(name);
    }

    /** @param parts of the name as written, from {@code first} on members and then a part of a fit */
    private String chosen(String head, String family, List<String> of, String[] parts, int first, At at) {
        Map<String, String> chosen = new LinkedHashMap<>();
        int next = first;
        while (next < parts.length) {
            String member = parts[next];
            String set = of.stream()
                    .filter(s -> !chosen.containsKey(s) && sets.of(s).names().contains(member))
                    .findFirst()
                    .orElse(null);
            if (set == null) {
                break;
            }
            chosen.put(set, member);
            next++;
        }
        of.stream()
                .filter(at.bound()::containsKey)
                .forEach(s -> chosen.putIfAbsent(s, at.bound().get(s)));
        StringBuilder name = new StringBuilder(head);
        of.stream().filter(chosen::containsKey).forEach(s -> name.append('.').append(chosen.get(s)));
        List<String> free = of.stream().filter(s -> !chosen.containsKey(s)).toList();
        if (!free.isEmpty() && !family.isEmpty() && !alone.contains(family)) {
            boolean byLevel = family.equals(head) && free.stream().anyMatch(levels(at.capture())::contains);
            String capture = byLevel ? at.capture() : family.startsWith(at.capture() + ".") ? at.capture() : "";
            if (family.contains(".") && capture.isEmpty()) {
                want(family.substring(0, family.indexOf('.')), name.substring(name.indexOf(".") + 1));
            } else {
                want(capture, name.toString());
            }
        }
        for (; next < parts.length; next++) {
            name.append('.').append(parts[next]);
        }
        return name.toString();
    }

    /** A column of what the levels of a capture choose, such as {@code pull.m}. */
    private String ofLevels(String capture, String name, String written) {
        if (over(name).stream().anyMatch(levels(capture)::contains)) {
            want(capture, name);
        }
        return written;
    }

    /** A column over the runs of a capture, of which only those at the member at hand are meant. */
    private String restricted(String capture, String column, At at) {
        List<String> conditions = new ArrayList<>();
        for (String set : levels(capture)) {
            if (at.bound().containsKey(set) && !capture.equals(at.capture())) {
                String member = set + "." + at.bound().get(set);
                want("", member);
                conditions.add(member + " == 1");
            }
        }
        return conditions.isEmpty() ? column : "where(" + column + ", " + String.join(" and ", conditions) + ")";
    }

    /** How a column over the members that are not chosen is written: {@code members('wagon', 'a', m.a, 'b', m.b)}. */
    String column(String name, List<String> of, String head, Map<String, String> bound) {
        Map<String, String> chosen = new LinkedHashMap<>();
        String rest = name.substring(head.length());
        for (String part : rest.isEmpty() ? new String[0] : rest.substring(1).split("\\.")) {
            of.stream()
                    .filter(s -> !chosen.containsKey(s) && sets.of(s).names().contains(part))
                    .findFirst()
                    .ifPresent(s -> chosen.put(s, part));
        }
        bound.forEach(chosen::putIfAbsent);
        return column(head, of, chosen);
    }

    private String column(String head, List<String> of, Map<String, String> chosen) {
        String free =
                of.stream().filter(s -> !chosen.containsKey(s)).findFirst().orElse(null);
        if (free == null) {
            StringBuilder name = new StringBuilder(head);
            of.forEach(s -> name.append('.').append(chosen.get(s)));
            return name.toString();
        }
        StringBuilder b = new StringBuilder("members('" + free + "'");
        for (String member : sets.of(free).names()) {
            Map<String, String> more = new LinkedHashMap<>(chosen);
            more.put(free, member);
            b.append(", '").append(member).append("', ").append(column(head, of, more));
        }
        return b.append(')').toString();
    }
}
