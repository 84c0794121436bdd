package eagerneedle.core.sheet;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import eagerneedle.core.formula.NearName;
import java.util.ArrayList;
import java.util.List;

/** Which entries of a sheet are families, and which captures are made at members of sets. */
final class Gathered {
    private final ObjectNode sheet;
    private final Sets sets;
    private final Families families;
    private final Places places;

    /** @param families gains what is found */
    Gathered(ObjectNode sheet, Sets sets, Families families, Places places) {
        this.sheet = sheet;
        this.sets = sets;
        this.families = families;
        this.places = places;
    }

    void all() {
        for (String section : List.of("inputs", "planned", "results")) {
            gather(section, "/" + section, "", false);
        }
        gather("channels", "/channels", "", true);
        sheet.path("captures").properties().forEach(c -> {
            String at = "/captures/" + c.getKey();
            for (String section : List.of("quantities", "by_eye")) {
                gather(c.getValue().path(section), at + "/" + section, c.getKey() + ".", false);
            }
            gather(c.getValue().path("windows"), at + "/windows", c.getKey() + ".", true);
            JsonNode product = c.getValue().path("levels").path("product");
            boolean made = product.isArray() || product.isTextual();
            families.levels(c.getKey(), made ? setsOf(sets, product, at + "/levels/product", places) : List.of());
        });
        if (sheet.path(Pool.NAME).isObject()) {
            families.levels(Pool.NAME, List.copyOf(sets.all().keySet()));
        }
        sets.all().forEach((set, members) -> {
            taken(set, "/sets/" + set);
            members.attributes().keySet().forEach(a -> taken(a, "/sets/" + set + "/" + a));
        });
    }

    private void taken(String name, String at) {
        for (String section : List.of("inputs", "channels", "captures", "results")) {
            if (sheet.path(section).has(name)) {
                places.problem(at, name + " is one of the " + section + " too; give one of them another name.");
            }
        }
    }

    private void gather(String section, String at, String prefix, boolean alone) {
        gather(sheet.path(section), at, prefix, alone);
    }

    private void gather(JsonNode section, String at, String prefix, boolean alone) {
        section.properties().forEach(e -> {
            if (e.getValue().has("each")) {
                List<String> of = setsOf(sets, e.getValue().get("each"), at + "/" + e.getKey() + "/each", places);
                if (alone) {
                    families.addAlone(prefix + e.getKey(), of);
                } else {
                    families.add(prefix + e.getKey(), of);
                }
            }
        });
    }

    private static boolean share(Sets sets, String a, String b) {
        return sets.of(a).names().stream().anyMatch(sets.of(b).names()::contains);
    }

    /** The sets that an {@code each} names. */
    static List<String> setsOf(Sets sets, JsonNode each, String at, Places places) {
        List<String> out = new ArrayList<>();
        for (JsonNode n : each.isArray() ? each : List.of(each)) {
            if (!sets.has(n.asText())) {
                places.problem(
                        at,
                        "there is no set " + n.asText()
                                + NearName.hint(n.asText(), sets.all().keySet()));
            } else if (out.contains(n.asText())) {
                places.problem(at, n.asText() + " is named twice.");
            } else if (out.stream().anyMatch(other -> share(sets, other, n.asText()))) {
                places.problem(
                        at,
                        "two of these sets have a member of the same name, so that nobody could tell which is meant; "
                                + "rename it in " + n.asText() + ".");
            } else {
                out.add(n.asText());
            }
        }
        return out;
    }
}
