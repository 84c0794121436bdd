package eagerneedle.core.sheet;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * The sets of a sheet: what there are several of, by name, with labels for people and attributes for formulas.
 *
 * @param all by name, in the order of the sheet
 */
record Sets(Map<String, Sets.Members> all) {
    /**
     * One set.
     *
     * @param names of its members, in order
     * @param labels how members are called, in the same order
     * @param attributes formulas by name, one a member
     */
    record Members(List<String> names, List<String> labels, Map<String, List<String>> attributes) {
        String label(String member) {
            return labels.get(names.indexOf(member));
        }
    }

    private static final int MOST = 200;
    /** After a dot these are parts of fits. */
    private static final List<String> OF_FITS = List.of("slope", "intercept");

    /** The sets that a sheet writes under {@code sets}; what is wrong with them is told at its place. */
    static Sets of(ObjectNode sheet, Places places) {
        Map<String, Members> out = new LinkedHashMap<>();
        JsonNode block = sheet.path("sets");
        if (!block.isMissingNode() && !block.isObject()) {
            places.problem("/sets", "sets are written by name, such as gauge: {names: [g0, g45]}.");
        }
        block.properties().forEach(e -> {
            String at = "/sets/" + e.getKey();
            if (!e.getValue().isObject()) {
                places.problem(at, e.getKey() + " needs its 'names' or its 'count'.");
            } else if (!isName(e.getKey())) {
                places.problem(at, Misplaced.noName(e.getKey()));
            } else {
                Members m = members(e.getKey(), (ObjectNode) e.getValue(), at, places);
                if (m != null) {
                    out.put(e.getKey(), m);
                }
            }
        });
        return new Sets(out);
    }

    static boolean isName(String text) {
        return text.matches("[A-Za-z][A-Za-z0-9_]*");
    }

    private static @Nullable Members members(String set, ObjectNode entry, String at, Places places) {
        List<String> names = new ArrayList<>();
        if (entry.path("count").isIntegralNumber()) {
            int count = entry.path("count").intValue();
            if (count < 1 || count > MOST) {
                places.problem(at + "/count", "a set has 1 to " + MOST + " members.");
                return null;
            }
            for (int i = 1; i <= count; i++) {
                names.add(set + i);
            }
        } else if (entry.path("names").isArray() && !entry.path("names").isEmpty()) {
            entry.path("names").forEach(n -> names.add(n.asText()));
        } else {
            places.problem(at, set + " needs its 'names', a list, or its 'count'.");
            return null;
        }
        for (int i = 0; i < names.size(); i++) {
            if (!isName(names.get(i))) {
                places.problem(at + "/names/" + i, Misplaced.noName(names.get(i)));
                return null;
            }
            if (OF_FITS.contains(names.get(i))) {
                places.problem(
                        at + "/names/" + i,
                        "a part of a fit is called " + names.get(i) + "; give this member another name.");
                return null;
            }
            if (names.indexOf(names.get(i)) < i) {
                places.problem(at + "/names/" + i, names.get(i) + " is a member of " + set + " already.");
                return null;
            }
        }
        List<String> labels = names;
        Map<String, List<String>> attributes = new LinkedHashMap<>();
        for (Map.Entry<String, JsonNode> e : entry.properties()) {
            if (e.getKey().equals("names") || e.getKey().equals("count")) {
                continue;
            }
            if (!isName(e.getKey())) {
                places.problem(at + "/" + e.getKey(), Misplaced.noName(e.getKey()));
                return null;
            }
            JsonNode list = e.getValue();
            if (!list.isArray() || list.size() != names.size()) {
                places.problem(
                        at + "/" + e.getKey(),
                        "%s needs a list of %d, one for each member of %s.".formatted(e.getKey(), names.size(), set));
                return null;
            }
            List<String> values = new ArrayList<>();
            list.forEach(v -> values.add(v.asText()));
            if (e.getKey().equals("label")) {
                labels = values;
            } else {
                attributes.put(e.getKey(), values);
            }
        }
        return new Members(List.copyOf(names), List.copyOf(labels), attributes);
    }

    boolean has(String set) {
        return all.containsKey(set);
    }

    Members of(String set) {
        return Objects.requireNonNull(all.get(set), set);
    }

    /** Every way of choosing a member of each of some sets, by set, the last one changing fastest. */
    List<Map<String, String>> choices(List<String> sets) {
        List<Map<String, String>> out = new ArrayList<>(List.of(Map.of()));
        for (String set : sets) {
            List<Map<String, String>> next = new ArrayList<>();
            for (Map<String, String> chosen : out) {
                for (String member : of(set).names()) {
                    Map<String, String> more = new LinkedHashMap<>(chosen);
                    more.put(set, member);
                    next.add(more);
                }
            }
            out = next;
        }
        return out;
    }

    /** How a choice is called by people. */
    String label(Map<String, String> chosen) {
        List<String> labels = new ArrayList<>();
        chosen.forEach((set, member) -> labels.add(of(set).label(member)));
        return String.join(", ", labels);
    }
}
