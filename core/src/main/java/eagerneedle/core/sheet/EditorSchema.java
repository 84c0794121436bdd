package eagerneedle.core.sheet;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.List;
import java.util.Map;

/**
 * The schema of sheets as people write them, for editors that complete and explain entries: that of sheets written out,
 * with families ({@code sets}, {@code each}), likeness ({@code like}), shared links, and numbers with units where plain
 * ones are meant. It lets through what the check refuses later; it refuses nothing that the check lets through.
 */
public final class EditorSchema {
    private static final JsonNodeFactory NODES = JsonNodeFactory.instance;
    private static final String MADE = "made from";

    private EditorSchema() {}

    /** As JSON, a line for each entry. */
    public static String json() {
        ObjectNode schema = Misplaced.schema().deepCopy();
        widen(schema);
        ObjectNode top = (ObjectNode) schema.get("properties");
        top.set("sets", said("what there are several of: names or count, label, and attributes of one's own"));
        top.set("links", said("links that channels share, by name"));
        return schema.toPrettyString() + "\n";
    }

    private static ObjectNode said(String what) {
        ObjectNode n = NODES.objectNode();
        n.put("description", what);
        n.put("type", "object");
        return n;
    }

    private static void widen(JsonNode node) {
        if (node instanceof ArrayNode a) {
            a.forEach(EditorSchema::widen);
        }
        if (!(node instanceof ObjectNode o)) {
            return;
        }
        o.properties().forEach(e -> widen(e.getValue()));
        if (o.path("properties").isObject() && o.has("additionalProperties")) {
            entry(o, (ObjectNode) o.get("properties"));
        }
        type(o);
    }

    /** An entry may be one for each member of a set, or like another; then it need not say everything. */
    private static void entry(ObjectNode o, ObjectNode properties) {
        List<String> made = properties.properties().stream()
                .filter(e -> e.getValue().path("description").asText().startsWith(MADE))
                .map(Map.Entry::getKey)
                .toList();
        properties.remove(made);
        properties.set("each", said("one for each member of a set, or of each of a list of sets"));
        ((ObjectNode) properties.get("each")).remove("type");
        properties.set("like", said("another entry beside this one; only what is different need be said"));
        ((ObjectNode) properties.get("like")).put("type", "string");
        if (o.has("required") && !o.has("if")) {
            JsonNode required = o.remove("required");
            o.putObject("if").putArray("required").add("like");
            o.putObject("else").set("required", required);
        }
        if (properties.has("levels")) {
            properties.set(
                    "levels",
                    said(Misplaced.schema()
                            .at("/$defs/capture/properties/levels/description")
                            .asText()));
            ((ObjectNode) properties.get("levels")).remove("type");
        }
        if (properties.has("chain")) {
            ObjectNode chain = (ObjectNode) properties.get("chain");
            JsonNode link = chain.remove("items");
            ArrayNode either = chain.putObject("items").putArray("anyOf");
            either.addObject().put("type", "string").put("description", "a link declared under links");
            either.add(link);
        }
    }

    /** Where one word or number is meant, a list may give one a member, and a number may have a unit. */
    private static void type(ObjectNode o) {
        String type = o.path("type").isTextual() ? o.get("type").asText() : "";
        if (o.path("type").isArray()) {
            ((ArrayNode) o.get("type")).add("boolean").add("array").add("object");
            return;
        }
        boolean plain = List.of("string", "number", "integer", "boolean").contains(type);
        if (plain && !o.has("enum") && !o.has("pattern")) {
            o.putArray("type").add("string").add("number").add("boolean").add("array");
            o.remove(List.of("minimum", "maximum", "exclusiveMinimum", "exclusiveMaximum"));
        }
    }
}
