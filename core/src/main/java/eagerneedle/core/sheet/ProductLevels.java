package eagerneedle.core.sheet;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Levels that are written as {@code {product: [set, ...]}}: one for every choice of a member of each set.
 * {@code expected} beside it names, for a reading by eye, the attribute of one of the sets that says what is expected
 * there.
 */
final class ProductLevels {
    private ProductLevels() {}

    /**
     * @param of the sets
     * @param written what stands under {@code levels}
     * @param p its place in the sheet
     */
    static ObjectNode of(List<String> of, JsonNode written, Sets sets, Places places, String p) {
        ObjectNode out = JsonNodeFactory.instance.objectNode();
        for (Map<String, String> chosen : sets.choices(of)) {
            String level = String.join(".", chosen.values());
            ObjectNode l = out.putObject(level);
            l.put("label", sets.label(chosen));
            ObjectNode at = l.putObject("at");
            chosen.forEach(at::put);
            written.path("expected").properties().forEach(e -> {
                if (!l.has("expected")) {
                    l.putObject("expected");
                }
                ((ObjectNode) l.get("expected"))
                        .put(e.getKey(), expected(e.getValue().asText(), chosen, sets));
                places.copy(p + "/expected/" + e.getKey(), p + "/" + level + "/expected/" + e.getKey());
            });
            places.copy(p, p + "/" + level);
        }
        return out;
    }

    /** What is written, with the attributes of the members at hand in place of their names. */
    private static String expected(String written, Map<String, String> chosen, Sets sets) {
        String out = written;
        for (Map.Entry<String, String> c : chosen.entrySet()) {
            Sets.Members members = sets.of(c.getKey());
            int at = members.names().indexOf(c.getValue());
            for (Map.Entry<String, List<String>> a : members.attributes().entrySet()) {
                out = out.replaceAll(
                        "\\b" + Pattern.quote(a.getKey()) + "\\b",
                        Matcher.quoteReplacement(a.getValue().get(at)));
            }
        }
        return out;
    }
}
