package eagerneedle.core.sheet;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;

/** What mistakes change, one entry each. */
final class MistakesWritten {
    private MistakesWritten() {}

    /** In what a mistake changes {@code at: {from: ..., to: ...}} means {@code at.from: ..., at.to: ...}. */
    static void of(ObjectNode sheet, Places places) {
        JsonNode mistakes = sheet.path("mistakes");
        for (int i = 0; i < mistakes.size(); i++) {
            if (mistakes.path(i).path("change") instanceof ObjectNode change) {
                ObjectNode out = JsonNodeFactory.instance.objectNode();
                String p = "/mistakes/" + i + "/change/";
                change.properties().forEach(e -> {
                    if (e.getValue() instanceof ObjectNode parts) {
                        parts.properties().forEach(part -> {
                            String key = e.getKey() + "." + part.getKey();
                            places.copy(p + e.getKey() + "/" + part.getKey(), p + key);
                            out.set(key, part.getValue());
                        });
                    } else {
                        out.set(e.getKey(), e.getValue());
                    }
                });
                ((ObjectNode) mistakes.path(i)).set("change", out);
            }
        }
    }
}
