package eagerneedle.core.sheet;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import eagerneedle.core.formula.NearName;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;

/**
 * What is said to be {@code like} another entry beside it: all that the other says, but for what this one says
 * otherwise.
 */
final class Likeness {
    private final Places places;

    private Likeness(Places places) {
        this.places = places;
    }

    /** Writes out every likeness of a sheet, in place. */
    static void of(ObjectNode sheet, Places places) {
        new Likeness(places).within(sheet, "");
    }

    private void within(ObjectNode parent, String p) {
        Set<String> done = new LinkedHashSet<>();
        for (String name : names(parent)) {
            resolve(parent, name, p, done, new LinkedHashSet<>());
        }
        for (String name : names(parent)) {
            if (parent.get(name) instanceof ObjectNode o && !(p.isEmpty() && name.equals("rig"))) {
                within(o, p + "/" + name);
            }
        }
    }

    private static List<String> names(ObjectNode of) {
        List<String> out = new ArrayList<>();
        of.fieldNames().forEachRemaining(out::add);
        return out;
    }

    private void resolve(ObjectNode parent, String name, String p, Set<String> done, Set<String> open) {
        if (done.contains(name)
                || !(parent.get(name) instanceof ObjectNode entry)
                || !entry.path("like").isTextual()) {
            return;
        }
        String other = entry.get("like").asText();
        String at = p + "/" + name;
        if (!open.add(name)) {
            places.problem(at + "/like", "these are like each other in a circle; write one of them out.");
            entry.remove("like");
            return;
        }
        if (!(parent.get(other) instanceof ObjectNode)) {
            places.problem(
                    at + "/like",
                    "there is nothing called " + other + " beside " + name + " that it could be like"
                            + NearName.hint(other, names(parent)));
            return;
        }
        resolve(parent, other, p, done, open);
        ObjectNode whole = parent.get(other).deepCopy();
        entry.remove("like");
        places.copy(p + "/" + other, at);
        over(whole, entry);
        parent.set(name, whole);
        done.add(name);
    }

    /** Entries of their own go into each other; anything else is said anew. */
    private static void over(ObjectNode whole, ObjectNode own) {
        own.properties().forEach(e -> {
            JsonNode there = whole.get(e.getKey());
            if (there instanceof ObjectNode a && e.getValue() instanceof ObjectNode b && !b.has("formula")) {
                over(a, b);
            } else if (e.getValue().isTextual()
                    && e.getValue().asText().equals("none")
                    && there != null
                    && !there.isValueNode()) {
                whole.remove(e.getKey());
            } else {
                whole.set(e.getKey(), e.getValue());
            }
        });
    }
}
