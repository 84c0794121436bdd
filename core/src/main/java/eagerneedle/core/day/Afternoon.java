package eagerneedle.core.day;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.dataformat.yaml.YAMLMapper;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * What is asked of an afternoon.
 *
 * @param title what it is called
 * @param date the day, which decides what is overdue
 * @param begins when the first round begins
 * @param slots rounds, one after another
 * @param minutes of one round
 * @param between minutes from the end of one round to the beginning of the next
 * @param groups names of the groups
 * @param each how many methods every group carries out; in the other rounds it has none
 * @param staff who is there
 * @param methods how each method is offered, by its id or the file of its sheet
 * @param have how many there are of a kind of instrument, where the stockroom does not say
 * @param kits how many there are at least of every kind that the stockroom has or a sheet names
 * @param shared kinds of which one serves all benches
 */
public record Afternoon(
        String title,
        LocalDate date,
        LocalTime begins,
        int slots,
        int minutes,
        int between,
        List<String> groups,
        int each,
        List<String> staff,
        Map<String, Offered> methods,
        Map<String, Integer> have,
        int kits,
        Set<String> shared) {
    private static final int MOST_GROUPS = 200;
    private static final int MOST_SLOTS = 20;
    private static final Set<String> OFFERED = Set.of("benches", "staff", "needs");
    private static final Set<String> KNOWN = Set.of(
            "day", "date", "begins", "slots", "minutes", "between", "groups", "each", "staff", "methods", "have",
            "kits", "shared");

    /**
     * How a method is offered.
     *
     * @param benches at how many benches it is set up; 0 for as many as its instruments allow
     * @param staff whether a member of staff stands by all the time
     * @param needs kinds of instruments beyond those of its sheet
     */
    public record Offered(int benches, boolean staff, List<String> needs) {
        public Offered {
            needs = List.copyOf(needs);
        }
    }

    public Afternoon {
        groups = List.copyOf(groups);
        staff = List.copyOf(staff);
        if (begins.toSecondOfDay() / 60 + slots * minutes + (slots - 1) * between > 24 * 60) {
            throw new IllegalArgumentException(
                    "The afternoon " + title + " goes on beyond midnight; offer fewer slots, or shorter ones.");
        }
        methods = java.util.Collections.unmodifiableMap(new LinkedHashMap<>(methods));
        have = Map.copyOf(have);
        shared = Set.copyOf(shared);
    }

    /** When a round begins. */
    public LocalTime at(int slot) {
        return begins.plusMinutes((long) slot * (minutes + between));
    }

    /**
     * Reads one.
     *
     * @param text in YAML, see docs/formats/day.md
     * @param where what the file is called
     * @throws IllegalArgumentException with one sentence that says what is wrong and where
     */
    public static Afternoon read(String text, String where) {
        JsonNode root;
        try {
            root = new YAMLMapper().readTree(text);
        } catch (JsonProcessingException e) {
            throw new IllegalArgumentException(
                    where + ", line "
                            + (e.getLocation() == null ? 1 : e.getLocation().getLineNr())
                            + ": the YAML cannot be read here; look at indentation, quotes and colons.",
                    e);
        }
        if (root == null || !root.isObject()) {
            throw new IllegalArgumentException(
                    where + " says nothing of an afternoon: write groups, slots and methods.");
        }
        root.fieldNames().forEachRemaining(n -> {
            if (!KNOWN.contains(n)) {
                throw new IllegalArgumentException(
                        where + ": an afternoon has no entry " + n + eagerneedle.core.formula.NearName.hint(n, KNOWN));
            }
        });
        int slots = number(root, "slots", 3, 1, MOST_SLOTS, where);
        Map<String, Offered> methods = methods(root.path("methods"), where);
        int each = number(root, "each", Math.min(slots, methods.size()), 1, slots, where);
        if (each > methods.size()) {
            throw new IllegalArgumentException(where + ": every group is to carry out " + each + " methods, and only "
                    + methods.size() + " are offered.");
        }
        Map<String, Integer> have = new LinkedHashMap<>();
        root.path("have")
                .properties()
                .forEach(e -> have.put(
                        e.getKey().toLowerCase(java.util.Locale.ROOT),
                        whole(e.getValue(), "have " + e.getKey(), 0, 999, where)));
        Set<String> shared = new LinkedHashSet<>();
        names(root.path("shared"), "shared", where).forEach(s -> shared.add(s.toLowerCase(java.util.Locale.ROOT)));
        return new Afternoon(
                root.path("day").asText("Afternoon"),
                date(root.path("date").asText(""), where),
                time(root.path("begins").asText("13:30"), where),
                slots,
                number(root, "minutes", 45, 1, 24 * 60, where),
                number(root, "between", 10, 0, 24 * 60, where),
                groups(root.path("groups"), where),
                each,
                names(root.path("staff"), "staff", where),
                methods,
                have,
                number(root, "kits", 0, 0, 999, where),
                shared);
    }

    private static List<String> groups(JsonNode node, String where) {
        List<String> out = new ArrayList<>();
        if (node.isArray()) {
            out.addAll(names(node, "groups", where));
        } else {
            int n = whole(node, "groups", 1, MOST_GROUPS, where);
            for (int i = 1; i <= n; i++) {
                out.add("Group " + i);
            }
        }
        if (out.isEmpty() || out.size() > MOST_GROUPS) {
            throw new IllegalArgumentException(where + ": write 1 to " + MOST_GROUPS + " groups.");
        }
        if (new LinkedHashSet<>(out).size() < out.size()) {
            throw new IllegalArgumentException(where + ": two groups have the same name.");
        }
        return out;
    }

    private static Map<String, Offered> methods(JsonNode node, String where) {
        Map<String, Offered> out = new LinkedHashMap<>();
        if (node.isArray()) {
            names(node, "methods", where).forEach(m -> out.put(m, new Offered(0, false, List.of())));
        } else {
            node.properties().forEach(e -> out.put(e.getKey(), offered(e.getKey(), e.getValue(), where)));
        }
        if (out.isEmpty()) {
            throw new IllegalArgumentException(where + ": write under methods which are offered.");
        }
        return out;
    }

    private static Offered offered(String method, JsonNode node, String where) {
        if (!node.isObject() && !node.isNull()) {
            throw new IllegalArgumentException(
                    where + ": what is said of " + method + " stands in braces, such as {benches: 3}.");
        }
        node.fieldNames().forEachRemaining(n -> {
            if (!OFFERED.contains(n)) {
                throw new IllegalArgumentException(where + ": " + method + " has no entry " + n
                        + eagerneedle.core.formula.NearName.hint(n, OFFERED));
            }
        });
        return new Offered(
                node.has("benches") ? whole(node.path("benches"), "benches of " + method, 1, 999, where) : 0,
                node.path("staff").asBoolean(false),
                names(node.path("needs"), "needs of " + method, where));
    }

    private static List<String> names(JsonNode node, String what, String where) {
        List<String> out = new ArrayList<>();
        if (node.isMissingNode() || node.isNull()) {
            return out;
        }
        if (!node.isArray()) {
            throw new IllegalArgumentException(where + ": " + what + " is a list, such as [a, b].");
        }
        node.forEach(n -> {
            if (!n.isValueNode() || n.asText().isBlank()) {
                throw new IllegalArgumentException(where + ": " + what + " is a list of names, and " + n
                        + " is none; put quotes around it where it is one.");
            }
            out.add(n.asText().strip());
        });
        return out;
    }

    private static int number(JsonNode root, String name, int usual, int least, int most, String where) {
        return root.has(name) ? whole(root.path(name), name, least, most, where) : usual;
    }

    private static int whole(JsonNode node, String what, int least, int most, String where) {
        if (!node.isInt() || node.asInt() < least || node.asInt() > most) {
            throw new IllegalArgumentException(where + ": " + what + " is a whole number from " + least + " to " + most
                    + (node.isMissingNode() ? "." : ", not " + node.asText() + "."));
        }
        return node.asInt();
    }

    private static LocalDate date(String text, String where) {
        try {
            return LocalDate.parse(text);
        } catch (DateTimeException e) {
            throw new IllegalArgumentException(
                    where + ": write the date as in date: 2026-11-30" + (text.isEmpty() ? "." : ", not " + text + "."),
                    e);
        }
    }

    private static LocalTime time(String text, String where) {
        try {
            return LocalTime.parse(text);
        } catch (DateTimeException e) {
            throw new IllegalArgumentException(
                    where + ": write when it begins as in begins: \"13:30\", with quotes.", e);
        }
    }
}
