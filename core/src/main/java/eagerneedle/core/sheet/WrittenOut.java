package eagerneedle.core.sheet;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import eagerneedle.core.formula.Pieces;
import eagerneedle.core.sheet.Families.At;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * A sheet with everything that it says for each member of a set, and by likeness, written out one by one.
 *
 * <p>Nothing behind it knows of families: what is checked, planned, reduced and rehearsed are single channels,
 * quantities and levels, so a family can do all that one of its kind can. Formulas keep where their characters stand in
 * what was written.
 */
final class WrittenOut {
    private static final JsonNodeFactory NODES = JsonNodeFactory.instance;
    /** Entries whose text is a formula, or the name of something that a formula can name. */
    private static final Set<String> FORMULAS = Set.of(
            "formula",
            "planned",
            "must",
            "result",
            "reference",
            "on",
            "x",
            "y",
            "fit",
            "curve",
            "radius",
            "plotted",
            "amount",
            "from",
            "to",
            "until");
    /** Entries that may be given as a list, one for each member. */
    private static final Set<String> BY_MEMBER = Set.of(
            "value",
            "label",
            "gain",
            "offset",
            "instrument",
            "tag",
            "position",
            "input",
            "by",
            "specimen",
            "symbol",
            "formula",
            "from",
            "to",
            "step",
            "noise",
            "lowest",
            "highest",
            "nonlinearity",
            "bits",
            "device",
            "rate",
            "unit",
            "group",
            "reference",
            "matters",
            "remedy");

    private final ObjectNode sheet;
    private final Places places;
    private final Sets sets;
    private final Families families;
    private final ObjectNode more = NODES.objectNode();

    private WrittenOut(ObjectNode sheet, Places places) {
        this.sheet = sheet;
        this.places = places;
        this.sets = Sets.of(sheet, places);
        this.families = new Families(sets);
    }

    /**
     * Writes a sheet out, in place.
     *
     * @param places gains the places of what was written out, and what is wrong
     */
    static void of(ObjectNode sheet, Places places) {
        Likeness.of(sheet, places);
        Choices.of(sheet, places);
        Links.of(sheet, places);
        SpreadLevels.of(sheet, places);
        PlainNumbers.of(sheet, places);
        MistakesWritten.of(sheet, places);
        PooledSets.of(sheet, places);
        names(sheet, places);
        if (sheet.has("members")) {
            places.problem("/members", "sets are written under 'sets'.");
        }
        if (!places.problems().isEmpty()) {
            return;
        }
        if (!sheet.has("sets")) {
            TiedLinks.of(sheet, places);
            return;
        }
        WrittenOut out = new WrittenOut(sheet, places);
        if (places.problems().isEmpty()) {
            new Gathered(out.sheet, out.sets, out.families, out.places).all();
        }
        if (places.problems().isEmpty()) {
            out.all();
            PlainNumbers.of(sheet, places);
            TiedLinks.of(sheet, places);
        }
    }

    /** Names with dots are made here, never written. */
    private static void names(ObjectNode sheet, Places places) {
        for (String section : List.of("inputs", "planned", "channels", "captures", "results")) {
            sheet.path(section).fieldNames().forEachRemaining(n -> name("/" + section + "/", n, places));
        }
        sheet.path("captures").properties().forEach(c -> {
            for (String section : List.of("quantities", "by_eye", "rules", "windows")) {
                c.getValue()
                        .path(section)
                        .fieldNames()
                        .forEachRemaining(n -> name("/captures/" + c.getKey() + "/" + section + "/", n, places));
            }
        });
    }

    private static void name(String section, String name, Places places) {
        if (name.contains(".")) {
            places.problem(section + name, Misplaced.noName(name));
        }
    }

    private void all() {
        At nowhere = new At("", Map.of(), Map.of());
        sets.all()
                .forEach((set, members) -> members.attributes().forEach((a, values) -> {
                    for (int i = 0; i < values.size(); i++) {
                        String name = a + "." + members.names().get(i);
                        more.set(name, NODES.objectNode().put("formula", values.get(i)));
                        places.copy("/sets/" + set + "/" + a + "/" + i, "/results/" + name + "/formula");
                    }
                }));
        for (String section : List.of("inputs", "planned", "channels", "results")) {
            section(sheet, section, "/" + section, "", nowhere);
        }
        for (JsonNode capture : sheet.path("captures")) {
            if (capture.path("channels").isArray()) {
                ((ObjectNode) capture).set("channels", channels((ArrayNode) capture.get("channels")));
            }
        }
        sheet.path("captures").properties().forEach(c -> {
            if (c.getValue() instanceof ObjectNode capture) {
                capture(c.getKey(), capture, new At(c.getKey(), Map.of(), Map.of()));
            }
        });
        for (String section : List.of("comparisons", "checks", "statements", "pictures", "materials")) {
            if (sheet.path(section) instanceof ArrayNode list) {
                sheet.set(section, list(list, "/" + section, nowhere));
            }
        }
        new RigWrittenOut(sets, families, places).of(sheet);
        wanted();
        sheet.remove("sets");
        ObjectNode called = sheet.putObject("members");
        sets.all().forEach((set, m) -> {
            ObjectNode labels = called.putObject(set);
            m.names().forEach(n -> labels.put(n, m.label(n)));
        });
    }

    /** What columns and levels were asked for on the way. */
    private void wanted() {
        ObjectNode results = sheet.path("results") instanceof ObjectNode r ? r : sheet.putObject("results");
        ObjectNode written = results.deepCopy();
        results.removeAll();
        families.wanted()
                .getOrDefault("", Set.of())
                .forEach(n -> more.set(n, NODES.objectNode().put("formula", ofAll(n, "", Map.of()))));
        results.setAll(more);
        results.setAll(written);
        families.wanted().forEach((capture, names) -> {
            if (!capture.isEmpty() && sheet.path("captures").path(capture) instanceof ObjectNode c) {
                names.forEach(n -> wanted(capture, c, n));
            }
        });
    }

    private void wanted(String capture, ObjectNode c, String name) {
        String head = name.contains(".") ? name.substring(0, name.indexOf('.')) : name;
        if (!families.over(capture + "." + head).isEmpty()) {
            ((ObjectNode) c.path("quantities"))
                    .set(name, NODES.objectNode().put("formula", ofAll(name, capture, Map.of())));
            return;
        }
        c.path("levels").properties().forEach(l -> {
            Map<String, String> chosen = new LinkedHashMap<>();
            l.getValue()
                    .path("at")
                    .properties()
                    .forEach(e -> chosen.put(e.getKey(), e.getValue().asText()));
            ObjectNode set =
                    l.getValue().path("set") instanceof ObjectNode s ? s : ((ObjectNode) l.getValue()).putObject("set");
            set.put(name, ofAll(name, "", chosen));
        });
    }

    /** A column over all that is not chosen, or whether a member is the chosen one. */
    private String ofAll(String name, String capture, Map<String, String> chosen) {
        String head = name.contains(".") ? name.substring(0, name.indexOf('.')) : name;
        String prefix = capture.isEmpty() ? "" : capture + ".";
        List<String> of = families.over(prefix + head);
        if (of.isEmpty()) {
            String member = name.substring(name.indexOf('.') + 1);
            if (chosen.containsKey(head)) {
                return chosen.get(head).equals(member) ? "1" : "0";
            }
            StringBuilder b = new StringBuilder("members('" + head + "'");
            sets.of(head)
                    .names()
                    .forEach(m -> b.append(", '").append(m).append("', ").append(m.equals(member) ? 1 : 0));
            return b.append(')').toString();
        }
        return families.column(name, of, head, chosen);
    }

    private ArrayNode channels(ArrayNode written) {
        ArrayNode out = NODES.arrayNode();
        written.forEach(c -> {
            if (families.over(c.asText()).isEmpty()) {
                out.add(c);
            } else {
                sets.choices(families.over(c.asText())).forEach(m -> out.add(families.named(c.asText(), m)));
            }
        });
        return out;
    }

    private void capture(String name, ObjectNode capture, At at) {
        String p = "/captures/" + name;
        levels(name, capture, p + "/levels");
        for (String section : List.of("quantities", "by_eye", "windows", "rules")) {
            section(capture, section, p + "/" + section, name + ".", at);
        }
        for (String part : List.of("spread", "views", "levels", "until")) {
            if (capture.has(part)) {
                capture.set(part, rewritten(part, capture.get(part), p + "/" + part, at));
            }
        }
    }

    private void levels(String name, ObjectNode capture, String p) {
        List<String> of = families.levels(name);
        if (of.isEmpty()) {
            return;
        }
        capture.set("levels", ProductLevels.of(of, capture.path("levels"), sets, places, p));
    }

    private void section(ObjectNode parent, String section, String p, String prefix, At at) {
        if (!(parent.path(section) instanceof ObjectNode entries)) {
            return;
        }
        ObjectNode out = NODES.objectNode();
        entries.properties().forEach(e -> {
            List<String> of = families.over(prefix + e.getKey());
            if (of.isEmpty()) {
                out.set(e.getKey(), rewritten(e.getKey(), e.getValue(), p + "/" + e.getKey(), at));
                return;
            }
            sets.choices(of).forEach(chosen -> {
                String name = families.named(prefix + e.getKey(), chosen).substring(prefix.length());
                places.copy(p + "/" + e.getKey(), p + "/" + name);
                JsonNode one = one((ObjectNode) e.getValue(), p + "/" + name, chosen, at);
                boolean absent = section.equals("inputs")
                        && (one.path("value").isNull()
                                || one.path("value").asText().equals("none"));
                if (absent) {
                    more.set(name, NODES.objectNode().put("formula", "none"));
                } else {
                    out.set(name, one);
                }
            });
        });
        parent.set(section, out);
    }

    private ArrayNode list(ArrayNode written, String p, At at) {
        ArrayNode out = NODES.arrayNode();
        for (int i = 0; i < written.size(); i++) {
            String from = p + "/" + i;
            JsonNode n = written.get(i);
            List<String> of = n.has("each") ? Gathered.setsOf(sets, n.get("each"), from + "/each", places) : List.of();
            for (Map<String, String> chosen : sets.choices(of)) {
                // Places of later entries move down; what was there is kept aside first.
                String to = p + "~" + "/" + out.size();
                places.copy(from, to);
                JsonNode one =
                        n instanceof ObjectNode o && n.has("each") ? one(o, to, chosen, at) : rewritten("", n, to, at);
                if (one instanceof ObjectNode o && n.has("each") && o.has("id")) {
                    o.put("id", o.get("id").asText() + "." + String.join(".", chosen.values()));
                }
                out.add(one);
            }
        }
        places.move(p + "~", p);
        return out;
    }

    /** One member of what is written for each. */
    private JsonNode one(ObjectNode written, String p, Map<String, String> chosen, At at) {
        ObjectNode copy = written.deepCopy();
        copy.remove("each");
        if (chosen.size() == 1) {
            Map.Entry<String, String> only = chosen.entrySet().iterator().next();
            int index = sets.of(only.getKey()).names().indexOf(only.getValue());
            pick(copy, index, sets.of(only.getKey()).names().size(), only.getKey(), p);
        }
        boolean ownLabel = written.path("label").isArray();
        for (String name : List.of("label", "title")) {
            if (copy.path(name).isTextual() && !ownLabel) {
                String own = copy.get(name).asText();
                copy.put(name, own.isEmpty() ? sets.label(chosen) : own + ", " + sets.label(chosen));
            }
        }
        return rewritten("", copy, p, at.with(chosen));
    }

    private void pick(ObjectNode of, int index, int size, String set, String p) {
        for (Map.Entry<String, JsonNode> e : List.copyOf(of.properties())) {
            JsonNode v = e.getValue();
            if (v.isArray() && BY_MEMBER.contains(e.getKey())) {
                if (v.size() == size) {
                    of.set(e.getKey(), v.get(index));
                    places.copy(p + "/" + e.getKey() + "/" + index, p + "/" + e.getKey());
                } else {
                    places.problem(
                            p + "/" + e.getKey(),
                            "this list has %d entries, but %s has %d members.".formatted(v.size(), set, size));
                }
            } else if (v instanceof ObjectNode o) {
                pick(o, index, size, set, p + "/" + e.getKey());
            } else if (v.isArray()) {
                for (int i = 0; i < v.size(); i++) {
                    if (v.get(i) instanceof ObjectNode o) {
                        pick(o, index, size, set, p + "/" + e.getKey() + "/" + i);
                    }
                }
            }
        }
    }

    /** With formulas written out, in everything below. */
    private JsonNode rewritten(String key, JsonNode n, String p, At at) {
        if (n instanceof ObjectNode o) {
            ObjectNode out = NODES.objectNode();
            o.properties().forEach(e -> {
                if (e.getKey().equals("chain")) {
                    new ChainConstants(families, more, places).reckon(e.getValue(), p + "/chain", at);
                    out.set("chain", e.getValue());
                    return;
                }
                boolean formulas = key.equals("set") || key.equals("ways");
                out.set(
                        e.getKey(),
                        rewritten(formulas ? "formula" : e.getKey(), e.getValue(), p + "/" + e.getKey(), at));
            });
            return out;
        }
        if (n instanceof ArrayNode lines && (key.equals("lines") || key.equals("layers"))) {
            return list(lines, p, at);
        }
        if (n instanceof ArrayNode a) {
            ArrayNode out = NODES.arrayNode();
            for (int i = 0; i < a.size(); i++) {
                out.add(rewritten(key, a.get(i), p + "/" + i, at));
            }
            return out;
        }
        return n.isTextual() && FORMULAS.contains(key) ? formula(n.asText(), p, at) : n;
    }

    private JsonNode formula(String text, String p, At at) {
        Pieces.Rewritten r = families.written(text, at);
        if (r.text().equals(text)) {
            return NODES.textNode(text);
        }
        places.origin(p, r.origin());
        return NODES.textNode(r.text());
    }
}
