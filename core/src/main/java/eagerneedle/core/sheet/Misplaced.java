package eagerneedle.core.sheet;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.networknt.schema.JsonSchema;
import com.networknt.schema.JsonSchemaFactory;
import com.networknt.schema.PathType;
import com.networknt.schema.SchemaValidatorsConfig;
import com.networknt.schema.SpecVersion;
import com.networknt.schema.ValidationMessage;
import eagerneedle.core.formula.NearName;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import java.util.stream.StreamSupport;

/** What the schema of sheets does not allow, said in the words of somebody who writes a sheet. */
final class Misplaced {
    private static final JsonNode TREE = tree();
    private static final JsonSchema SCHEMA = JsonSchemaFactory.getInstance(SpecVersion.VersionFlag.V202012)
            .getSchema(
                    TREE,
                    SchemaValidatorsConfig.builder()
                            .pathType(PathType.JSON_POINTER)
                            .build());

    private Misplaced() {}

    /** The schema that sheets are checked against. */
    static JsonNode schema() {
        return TREE;
    }

    private static JsonNode tree() {
        try {
            return new ObjectMapper().readTree(SheetReader.resource("sheet.schema.json"));
        } catch (JsonProcessingException e) {
            throw new IllegalStateException(e);
        }
    }

    /**
     * Everything of a sheet that has the wrong name, form or place. Beside an entry that does not belong, what is
     * missing there is not told as well.
     *
     * @param places line and column by JSON pointer
     */
    static List<SheetException> in(JsonNode sheet, Map<String, int[]> places, String file) {
        Set<ValidationMessage> messages = SCHEMA.validate(sheet);
        Set<String> misspelt = messages.stream()
                .filter(Misplaced::isStrange)
                .map(Misplaced::where)
                .collect(Collectors.toSet());
        return messages.stream()
                .filter(m -> isStrange(m) || !misspelt.contains(where(m)))
                .map(m -> {
                    int[] at = place(m, places);
                    return new SheetException(file, at[0], at[1], said(m));
                })
                .toList();
    }

    private static boolean isStrange(ValidationMessage m) {
        return m.getType().equals("additionalProperties") && m.getProperty() != null;
    }

    private static String where(ValidationMessage m) {
        return m.getInstanceLocation().toString();
    }

    private static int[] place(ValidationMessage m, Map<String, int[]> places) {
        int[] ofProperty = m.getProperty() == null ? null : places.get(where(m) + "/" + m.getProperty());
        return ofProperty != null ? ofProperty : places.getOrDefault(where(m), new int[] {1, 1});
    }

    private static String said(ValidationMessage m) {
        if (isStrange(m)) {
            return m.getProperty() + " is not an entry that belongs here"
                    + NearName.hint(m.getProperty(), belonging(m));
        }
        String pointer = where(m);
        String name = pointer.isEmpty() ? "the sheet" : pointer.substring(pointer.lastIndexOf('/') + 1);
        String entry = name.chars().allMatch(Character::isDigit) ? "this entry" : name;
        return switch (m.getType()) {
            case "required" -> entry + " needs its '" + m.getProperty() + "'.";
            case "type" -> "%s takes %s, not %s.".formatted(entry, kinds(m), kind(m.getInstanceNode()));
            case "enum" -> oneOf(entry, m);
            case "oneOf" -> entry + " needs one of " + choices(m) + ", and no more than one.";
            case "pattern", "propertyNames" ->
                "'%s' is no name that can be used here: it starts with a letter and holds %s."
                        .formatted(
                                m.getProperty() != null
                                        ? m.getProperty()
                                        : m.getInstanceNode().asText(),
                                pointer.equals("/id")
                                        ? "small letters, digits and hyphens"
                                        : "letters, digits and underscores");
            default -> entry + " " + plain(m) + ".";
        };
    }

    static String noName(String text) {
        return "'%s' is no name that can be used here: it starts with a letter and holds letters, digits and underscores."
                .formatted(text);
    }

    private static List<String> belonging(ValidationMessage m) {
        String keyword = m.getSchemaLocation().getFragment().toString();
        List<String> belong = new ArrayList<>();
        TREE.at(keyword.substring(0, keyword.lastIndexOf('/')) + "/properties")
                .fieldNames()
                .forEachRemaining(belong::add);
        return belong;
    }

    private static String choices(ValidationMessage m) {
        List<String> words = new ArrayList<>();
        m.getSchemaNode().forEach(c -> c.path("required").forEach(r -> words.add("'" + r.asText() + "'")));
        return String.join(" and ", words);
    }

    private static String oneOf(String entry, ValidationMessage m) {
        List<String> words = new ArrayList<>();
        m.getSchemaNode().forEach(w -> words.add(w.asText()));
        JsonNode found = m.getInstanceNode();
        return found.isTextual()
                ? "%s: %s is not one of %s%s"
                        .formatted(
                                entry, found.asText(), String.join(", ", words), NearName.hint(found.asText(), words))
                : "%s takes one of %s, not %s.".formatted(entry, String.join(", ", words), kind(found));
    }

    private static String kinds(ValidationMessage m) {
        JsonNode type = m.getSchemaNode();
        Stream<String> kinds = type.isArray()
                ? StreamSupport.stream(type.spliterator(), false).map(JsonNode::asText)
                : Stream.of(type.asText());
        return kinds.map(Misplaced::kind).collect(Collectors.joining(" or "));
    }

    private static String kind(JsonNode found) {
        return kind(found.getNodeType().name().toLowerCase(Locale.ROOT));
    }

    private static String kind(String type) {
        return switch (type) {
            case "string" -> "a text";
            case "number" -> "a number";
            case "integer" -> "a whole number";
            case "boolean" -> "true or false";
            case "array" -> "a list";
            case "object" -> "entries of its own";
            default -> "nothing";
        };
    }

    /** What the validator says, without the place that it puts before it. */
    private static String plain(ValidationMessage m) {
        String said = m.getMessage();
        String before = where(m) + ":";
        return (said.startsWith(before) ? said.substring(before.length()) : said).replaceFirst("^\\$?:?\\s*", "");
    }
}
