package eagerneedle.core.sheet;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** The page of all entries of a sheet, made from the schema that sheets are checked against. */
public final class SheetReference {
    private static final String MADE = "made from";
    private final StringBuilder page = new StringBuilder();
    private final JsonNode schema = Misplaced.schema();

    private SheetReference() {}

    /** The page docs/sheet-reference.md. */
    public static String markdown() {
        SheetReference r = new SheetReference();
        r.page.append("""
                # Every entry of a method sheet

                Made from the schema by `./needle functions --entries`; [the method sheet](method-sheet.md) explains how they go together. Entries in **bold** must be there. Numbers may
                be written with any unit that fits the one that is named.

                What is said for many is not in the tables, since the program writes it out first: `sets` at the top (`names` or `count`, `label`, and attributes of one's own), `each:`
                in inputs, channels, captures' quantities, windows and readings, results, comparisons, checks, statements and in the rig, `like:` in any entry beside another, and `links`
                at the top for links that channels share.

                """);
        r.table("The sheet", r.schema);
        r.groups();
        return r.page.toString();
    }

    private void groups() {
        Map<String, JsonNode> all = new LinkedHashMap<>();
        schema.path("properties").properties().forEach(e -> entries(e.getKey(), e.getValue(), all));
        all.forEach(this::table);
    }

    /** Tables of an entry and of what stands in it, each where it is met first. */
    private void entries(String name, JsonNode node, Map<String, JsonNode> all) {
        JsonNode n = followed(node);
        JsonNode one = n.has("properties")
                ? n
                : followed(
                        n.path("additionalProperties").isObject() ? n.path("additionalProperties") : n.path("items"));
        if (!one.has("properties") || all.containsValue(one)) {
            return;
        }
        all.put("`" + name + "`", one);
        one.path("properties").properties().forEach(e -> entries(name + "` · `" + e.getKey(), e.getValue(), all));
    }

    private JsonNode followed(JsonNode node) {
        String ref = node.path("$ref").asText();
        return ref.isEmpty() ? node : schema.at(ref.substring(1));
    }

    private void table(String title, JsonNode of) {
        List<String> required = new ArrayList<>();
        of.path("required").forEach(r -> required.add(r.asText()));
        page.append("## ").append(title).append("\n\n| entry | takes | is |\n|---|---|---|\n");
        of.path("properties").properties().forEach(e -> {
            String says = e.getValue().path("description").asText();
            if (!says.startsWith(MADE)) {
                String name = "`" + e.getKey() + "`";
                page.append("| ")
                        .append(required.contains(e.getKey()) ? "**" + name + "**" : name)
                        .append(" | ")
                        .append(takes(e.getValue()))
                        .append(" | ")
                        .append(says)
                        .append(" |\n");
            }
        });
        page.append('\n');
    }

    private String takes(JsonNode node) {
        JsonNode n = followed(node);
        if (n.has("enum")) {
            List<String> words = new ArrayList<>();
            n.path("enum").forEach(w -> words.add(w.asText()));
            return String.join(", ", words);
        }
        String type = n.path("type").isArray()
                ? n.path("type").get(0).asText()
                : n.path("type").asText();
        return switch (type) {
            case "string" -> "text";
            case "number" -> "number";
            case "integer" -> "whole number";
            case "boolean" -> "true or false";
            case "array" -> "list";
            default -> n.has("properties") ? "entries" : "entries by name";
        };
    }
}
