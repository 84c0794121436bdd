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
        JsonNode stocked = sheet.path("stocked");
        Set<String> used = new LinkedHashSet<>();
        sheet.path("channels").properties().forEach(c -> {
            if (c.getValue().path("chain") instanceof ArrayNode chain) {
                for (int i = 0; i < chain.size(); i++) {
                    if (chain.get(i).isTextual()) {
                        used.add(chain.get(i).asText());
                        String at = "/channels/" + c.getKey() + "/chain/" + i;
                        String name = chain.get(i).asText();
                        boolean own = links.has(name) || !stocked.has(name);
                        one(links, stocked, own, chain, i, at, places);
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
        sheet.remove(List.of("links", "stocked"));
    }

    private static void one(
            JsonNode links, JsonNode stocked, boolean own, ArrayNode chain, int i, String at, Places places) {
        String name = chain.get(i).asText();
        if (!((own ? links : stocked).path(name) instanceof ObjectNode link)) {
            List<String> known = new ArrayList<>();
            links.fieldNames().forEachRemaining(known::add);
            stocked.fieldNames().forEachRemaining(known::add);
            String hint = NearName.hint(name, known);
            places.problem(
                    at,
                    "there is no link " + name
                            + (hint.length() > 1
                                    ? hint
                                    : ", nor an instrument of that serial in the stockroom; declare it under 'links', "
                                            + "or write it out."));
            return;
        }
        ObjectNode copy = link.deepCopy();
        copy.put("shared", name);
        chain.set(i, copy);
        places.copyOver((own ? "/links/" : "/stocked/") + name, at);
    }
}
