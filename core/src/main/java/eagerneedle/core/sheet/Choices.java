package eagerneedle.core.sheet;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import eagerneedle.core.formula.NearName;
import java.util.ArrayList;
import java.util.List;

/**
 * Quantities whose formula is {@code choice}: they get the ways of the choice of their own name, and the formula of the
 * usual one.
 */
final class Choices {
    private static final String WORD = "choice";

    private final Places places;

    private Choices(Places places) {
        this.places = places;
    }

    /** In place. */
    static void of(ObjectNode sheet, Places places) {
        Choices c = new Choices(places);
        c.all(sheet.path("choices"), "/choices", sheet.path("results"), "/results", "");
        sheet.path("captures").properties().forEach(e -> {
            String at = "/captures/" + e.getKey();
            c.all(
                    e.getValue().path("choices"),
                    at + "/choices",
                    e.getValue().path("quantities"),
                    at + "/quantities",
                    e.getKey() + ".");
        });
    }

    private void all(JsonNode choices, String at, JsonNode quantities, String there, String prefix) {
        List<String> used = new ArrayList<>();
        quantities.properties().forEach(q -> {
            if (q.getValue() instanceof ObjectNode o
                    && o.path("formula").asText().equals(WORD)) {
                used.add(q.getKey());
                one(choices, at, q.getKey(), o, there + "/" + q.getKey(), prefix);
            }
        });
        choices.properties().forEach(c -> {
            if (!used.contains(c.getKey())) {
                places.problem(
                        at + "/" + c.getKey(),
                        "nothing is reckoned by this choice; write 'formula: choice' in the quantity " + c.getKey()
                                + ".");
            }
        });
    }

    private void one(JsonNode choices, String at, String name, ObjectNode quantity, String there, String prefix) {
        JsonNode choice = choices.path(name);
        JsonNode ways = choice.path("ways");
        if (!ways.isObject() || ways.isEmpty()) {
            List<String> known = new ArrayList<>();
            choices.fieldNames().forEachRemaining(known::add);
            places.problem(
                    there + "/formula", "there is no choice " + name + " with its 'ways'" + NearName.hint(name, known));
            return;
        }
        String usual = choice.path("default").isTextual()
                ? choice.get("default").asText()
                : ways.fieldNames().next();
        if (!ways.has(usual)) {
            List<String> known = new ArrayList<>();
            ways.fieldNames().forEachRemaining(known::add);
            places.problem(at + "/" + name + "/default", "there is no way " + usual + NearName.hint(usual, known));
            return;
        }
        quantity.set("formula", ways.get(usual));
        quantity.put("choice", prefix + name);
        quantity.set("ways", ways.deepCopy());
        places.replace(at + "/" + name + "/ways/" + usual, there + "/formula");
        places.copy(at + "/" + name + "/ways", there + "/ways");
    }
}
