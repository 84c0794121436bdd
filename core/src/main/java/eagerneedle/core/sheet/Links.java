package eagerneedle.core.sheet;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import eagerneedle.core.formula.NearName;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;

/**
 * Links that are declared once, under {@code links}, and named in the chains of channels: one physical thing each,
 * whose constants all these channels share.
 */
final class Links {
    private Links() {}

    /** Writes them into the chains, in place. */
    static void of(ObjectNode sheet, Places places) {
        JsonNode links = sheet.path("links");
        Set<String> used = new LinkedHashSet<>();
        sheet.path("channels").properties().forEach(c -> {
            if (c.getValue().path("chain") instanceof ArrayNode chain) {
                for (int i = 0; i < chain.size(); i++) {
                    if (chain.get(i).isTextual()) {
                        used.add(chain.get(i).asText());
                        String at = "/channels/" + c.getKey() + "/chain/" + i;
                        one(links, chain, i, at, places);
                    }
                }
            }
        });
        links.fieldNames().forEachRemaining(n -> {
            if (!used.contains(n)) {
                places.problem(
                        "/links/" + n,
                        "no chain of a channel names " + n + "; write its name in one, or leave it out.");
            }
        });
        sheet.remove("links");
    }

    private static void one(JsonNode links, ArrayNode chain, int i, String at, Places places) {
        String name = chain.get(i).asText();
        if (!(links.path(name) instanceof ObjectNode link)) {
            List<String> known = new ArrayList<>();
            links.fieldNames().forEachRemaining(known::add);
            places.problem(
                    at,
                    "there is no link " + name
                            + (known.isEmpty()
                                    ? "; declare it under 'links', or write it out."
                                    : NearName.hint(name, known)));
            return;
        }
        ObjectNode copy = link.deepCopy();
        copy.put("shared", name);
        chain.set(i, copy);
        places.copyOver("/links/" + name, at);
    }
}
