package eagerneedle.core.sheet;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import eagerneedle.core.formula.NearName;
import eagerneedle.core.formula.Pieces;
import eagerneedle.core.sheet.Families.At;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/** The physics of a sheet, and the mistakes made in it, with everything for each member of a set written out. */
final class RigWrittenOut {
    private static final JsonNodeFactory NODES = JsonNodeFactory.instance;
    private static final Set<String> BY_NAME = Set.of(
            "nature", "hidden", "state", "rates", "signals", "stuck", "circles", "truth", "readings", "edges", "set");

    private final Sets sets;
    private final Families families;
    private final Places places;

    RigWrittenOut(Sets sets, Families families, Places places) {
        this.sets = sets;
        this.families = families;
        this.places = places;
    }

    /** In place. */
    void of(ObjectNode sheet) {
        Map<String, List<String>> own = new LinkedHashMap<>();
        if (sheet.path("rig") instanceof ObjectNode rig) {
            own.putAll(own(rig, "/rig", Map.of()));
            sheet.set("rig", part(rig, "/rig", new At("", Map.of(), own), sheet));
        }
        if (sheet.path("mistakes") instanceof ArrayNode mistakes) {
            for (int i = 0; i < mistakes.size(); i++) {
                if (mistakes.path(i).path("change") instanceof ObjectNode change) {
                    ((ObjectNode) mistakes.path(i))
                            .set("change", changes(change, "/mistakes/" + i + "/change", own, sheet.path("rig")));
                }
            }
        }
    }

    /** What a part of the rig has for each member: values that are hidden, and states. */
    private Map<String, List<String>> own(JsonNode part, String p, Map<String, List<String>> outer) {
        Map<String, List<String>> own = new LinkedHashMap<>(outer);
        for (String section : List.of("nature", "hidden", "state")) {
            part.path(section).properties().forEach(e -> {
                if (e.getValue().has("each")) {
                    List<String> of = new ArrayList<>();
                    JsonNode each = e.getValue().get("each");
                    (each.isArray() ? each : List.of(each)).forEach(n -> {
                        if (sets.has(n.asText())) {
                            of.add(n.asText());
                        } else {
                            places.problem(
                                    p + "/" + section + "/" + e.getKey() + "/each",
                                    "there is no set " + n.asText()
                                            + NearName.hint(
                                                    n.asText(), sets.all().keySet()));
                        }
                    });
                    own.put(e.getKey(), of);
                }
            });
        }
        return own;
    }

    private ObjectNode part(ObjectNode part, String p, At at, ObjectNode sheet) {
        ObjectNode out = NODES.objectNode();
        part.properties().forEach(e -> {
            String name = e.getKey();
            String here = p + "/" + name;
            if (BY_NAME.contains(name) && e.getValue() instanceof ObjectNode entries) {
                out.set(name, entries(entries, here, at));
            } else if (name.equals("when") && e.getValue() instanceof ObjectNode events) {
                ObjectNode all = out.putObject(name);
                events.properties().forEach(w -> all.set(w.getKey(), event(w.getValue(), here + "/" + w.getKey(), at)));
            } else if (!RigPlan.WORDS.contains(name) && e.getValue() instanceof ObjectNode inner) {
                boolean ofCapture = p.equals("/rig") && sheet.path("captures").has(name);
                At within = new At(ofCapture ? name : at.capture(), at.bound(), own(inner, here, at.own()));
                ObjectNode written = part(inner, here, within, sheet);
                if (ofCapture || !at.capture().isEmpty() && !member(name, at.capture())) {
                    out.set(name, written);
                } else if (at.capture().isEmpty()) {
                    out.set(name, written);
                } else {
                    levels(name, at.capture()).forEach(l -> {
                        places.copy(here, p + "/" + l);
                        out.set(l, written.deepCopy());
                    });
                }
            } else {
                out.set(name, formula(e.getValue(), here, at));
            }
        });
        return out;
    }

    private boolean member(String name, String capture) {
        return families.levels(capture).size() > 1
                && families.levels(capture).stream()
                        .anyMatch(s -> sets.of(s).names().contains(name));
    }

    private List<String> levels(String member, String capture) {
        return sets.choices(families.levels(capture)).stream()
                .filter(c -> c.containsValue(member))
                .map(c -> String.join(".", c.values()))
                .toList();
    }

    private JsonNode event(JsonNode event, String p, At at) {
        if (!(event instanceof ObjectNode o)) {
            return event;
        }
        ObjectNode out = NODES.objectNode();
        o.properties().forEach(e -> {
            String here = p + "/" + e.getKey();
            out.set(
                    e.getKey(),
                    e.getKey().equals("set") && e.getValue() instanceof ObjectNode set
                            ? entries(set, here, at)
                            : formula(e.getValue(), here, at));
        });
        return out;
    }

    /** Formulas by name, of which some are for each member. */
    private ObjectNode entries(ObjectNode entries, String p, At at) {
        ObjectNode out = NODES.objectNode();
        entries.properties().forEach(e -> {
            String name = e.getKey();
            List<String> of = at.own().containsKey(name) ? at.own().get(name) : families.over(name);
            if (of.isEmpty()) {
                out.set(name, value(e.getValue(), p + "/" + name, at));
                return;
            }
            sets.choices(of).forEach(chosen -> {
                StringBuilder one = new StringBuilder(name);
                chosen.values().forEach(m -> one.append('.').append(m));
                places.copy(p + "/" + name, p + "/" + one);
                out.set(one.toString(), value(e.getValue(), p + "/" + one, at.with(chosen)));
            });
        });
        // What is said of one member alone comes after, and holds.
        entries.properties().stream()
                .filter(e -> e.getKey().contains("."))
                .forEach(e -> out.set(e.getKey(), value(e.getValue(), p + "/" + e.getKey(), at)));
        return out;
    }

    private JsonNode value(JsonNode v, String p, At at) {
        if (!(v instanceof ObjectNode o)) {
            return formula(v, p, at);
        }
        if (o.has("each")) {
            String key = o.has("start") ? "start" : "formula";
            if (!o.has(key) || o.size() != 2) {
                places.problem(p, "this is written {each: SET, formula: ...}.");
                return NODES.textNode("0");
            }
            places.copy(p + "/" + key, p + "/formula");
            return formula(o.get(key), p, at);
        }
        ObjectNode out = NODES.objectNode();
        o.properties().forEach(e -> out.set(e.getKey(), formula(e.getValue(), p + "/" + e.getKey(), at)));
        return out;
    }

    private JsonNode formula(JsonNode v, String p, At at) {
        if (!v.isTextual()) {
            return v;
        }
        families.asking(v.asText(), at)
                .ifPresent(set -> places.problem(
                        p,
                        "this asks which " + set + " it is, but stands for all of them; write {each: " + set
                                + ", formula: ...}."));
        Pieces.Rewritten r = families.written(v.asText(), at);
        if (!r.text().equals(v.asText())) {
            places.origin(p, r.origin());
        }
        return NODES.textNode(r.text());
    }

    /** What a mistake changes; that of a family for each of its members. */
    private ObjectNode changes(ObjectNode change, String p, Map<String, List<String>> own, JsonNode rig) {
        ObjectNode out = NODES.objectNode();
        change.properties().forEach(e -> {
            String key = e.getKey();
            boolean atBench = key.startsWith("rig.");
            String path = atBench ? key.substring(4) : key;
            int dot = path.indexOf('.');
            String first = dot < 0 ? path : path.substring(0, dot);
            String capture = families.isCapture(first) ? first : "";
            Map<String, List<String>> known =
                    atBench ? own(rig.path(capture.isEmpty() ? "none" : capture), "", own) : Map.of();
            String name = capture.isEmpty() ? path : path.substring(dot + 1);
            List<String> of = known.containsKey(name)
                    ? known.get(name)
                    : families.over(
                            capture.isEmpty() || atBench && families.over(path).isEmpty() ? name : path);
            At at = new At(capture, Map.of(), known);
            for (Map<String, String> chosen : sets.choices(of)) {
                StringBuilder one = new StringBuilder(key);
                chosen.values().forEach(m -> one.append('.').append(m));
                places.copy(p + "/" + key, p + "/" + one);
                out.set(one.toString(), formula(e.getValue(), p + "/" + one, at.with(chosen)));
            }
        });
        return out;
    }
}
