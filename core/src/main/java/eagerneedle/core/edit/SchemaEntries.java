package eagerneedle.core.edit;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import eagerneedle.core.sheet.EditorSchema;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/** What the schema says of the entries of a sheet: which belong where, what they take, what is prose. */
final class SchemaEntries {
    private static final JsonNode SCHEMA = read();

    /** Entries that hold words for people; names in them mean nothing. */
    private static final Set<String> PROSE = Set.of(
            "label",
            "symbol",
            "group",
            "text",
            "title",
            "question",
            "subject",
            "place",
            "says",
            "why",
            "hint",
            "remedy",
            "by",
            "kind",
            "unit",
            "wants_step",
            "position",
            "specimen",
            "tag",
            "terminals",
            "colours",
            "address",
            "sheet",
            "id",
            "x_label",
            "y_label",
            "x_unit",
            "y_unit",
            "instrument",
            "driver",
            "cautions",
            "law",
            "coding",
            "needs",
            "queries");

    private SchemaEntries() {}

    private static JsonNode read() {
        try {
            return new ObjectMapper().readTree(EditorSchema.json());
        } catch (JsonProcessingException e) {
            throw new IllegalStateException("the schema cannot be read", e);
        }
    }

    /** One entry that may stand somewhere. */
    record Entry(String name, String says, boolean required) {}

    /** The schema of what stands at a path; missing where the schema knows none. */
    static JsonNode at(List<String> path) {
        JsonNode node = resolved(SCHEMA);
        for (String part : path) {
            node = resolved(
                    part.equals("#")
                            ? node.path("items")
                            : node.path("properties").has(part)
                                    ? node.path("properties").path(part)
                                    : node.path("additionalProperties"));
        }
        return node;
    }

    private static JsonNode resolved(JsonNode node) {
        JsonNode n = node;
        while (n.has("$ref")) {
            n = SCHEMA.at(n.get("$ref").asText().substring(1));
        }
        if (n.has("anyOf") || n.has("oneOf")) {
            for (JsonNode one : n.has("anyOf") ? n.get("anyOf") : n.get("oneOf")) {
                JsonNode of = resolved(one);
                if (of.has("properties") || of.has("items") || of.has("enum")) {
                    return of;
                }
            }
        }
        return n;
    }

    /** The entries that may stand at a path; none where names are free. */
    static List<Entry> of(List<String> path) {
        JsonNode node = at(path);
        List<String> required = new ArrayList<>();
        node.path("required").forEach(r -> required.add(r.asText()));
        List<Entry> out = new ArrayList<>();
        node.path("properties")
                .properties()
                .forEach(e -> out.add(new Entry(
                        e.getKey(), e.getValue().path("description").asText(), required.contains(e.getKey()))));
        return out;
    }

    /** True where entries have names of one's own. */
    static boolean areNamed(List<String> path) {
        return at(path).path("additionalProperties").isObject();
    }

    /** The words that may stand at a path; none where anything may. */
    static List<String> words(List<String> path) {
        List<String> out = new ArrayList<>();
        at(path).path("enum").forEach(w -> out.add(w.asText()));
        return out;
    }

    /** What an entry is for; empty for one that the schema does not know. */
    static String says(List<String> path) {
        if (path.isEmpty()) {
            return "";
        }
        String last = path.get(path.size() - 1);
        return of(path.subList(0, path.size() - 1)).stream()
                .filter(e -> e.name().equals(last))
                .map(Entry::says)
                .findFirst()
                .orElse("");
    }

    /** True for words to people, in which no name is meant. */
    static boolean isProse(List<String> path) {
        for (int i = path.size() - 1; i >= 0; i--) {
            String p = path.get(i);
            if (PROSE.contains(p) && !areNamed(path.subList(0, i))) {
                return true;
            }
            if (p.equals("calibration")
                    && path.size() == i + 2
                    && path.get(i + 1).equals("reference")) {
                return true;
            }
            if (!p.equals("#")) {
                return false;
            }
        }
        return false;
    }

    /** What has to stand in an entry at a path, to be filled in: names with the beginning of a value. */
    static Map<String, String> needed(List<String> path) {
        Map<String, String> out = new LinkedHashMap<>();
        of(path).stream().filter(Entry::required).forEach(e -> out.put(e.name(), ""));
        return out;
    }
}
