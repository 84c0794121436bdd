package eagerneedle.core.sheet;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.formula.Scope;
import eagerneedle.core.formula.Value;
import eagerneedle.core.quantity.Distribution;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.quantity.Reading;
import java.util.List;
import java.util.Map;

/**
 * Entries that are plain numbers in a unit that is understood, such as {@code longest} in s, may be written with any
 * unit that fits: {@code longest: 2 min}. They become the number.
 */
final class PlainNumbers {
    private static final Map<String, String> OF_CAPTURE = Map.ofEntries(
            Map.entry("longest", "s"),
            Map.entry("minutes", "min"),
            Map.entry("seconds", "s"),
            Map.entry("patience", "s"),
            Map.entry("settle", "s"),
            Map.entry("rest", "s"),
            Map.entry("dwell", "s"),
            Map.entry("first", "s"),
            Map.entry("every", "s"),
            Map.entry("countdown", "s"),
            Map.entry("before", "s"),
            Map.entry("after", "s"));
    private static final List<String> OF_OUTPUT = List.of("lowest", "highest", "safe", "dwell_above", "step");

    private final Places places;

    private PlainNumbers(Places places) {
        this.places = places;
    }

    /** In place. */
    static void of(ObjectNode sheet, Places places) {
        PlainNumbers p = new PlainNumbers(places);
        sheet.path("captures").properties().forEach(c -> {
            String at = "/captures/" + c.getKey();
            p.all(c.getValue(), at, OF_CAPTURE);
            for (String part : List.of("hold", "prompt", "shot", "seek")) {
                p.all(c.getValue().path(part), at + "/" + part, OF_CAPTURE);
            }
        });
        sheet.path("channels").properties().forEach(c -> {
            String at = "/channels/" + c.getKey();
            p.one(c.getValue(), "rate", "Hz", at);
            p.one(c.getValue().path("calibration"), "warm_up", "min", at + "/calibration");
            p.one(c.getValue().path("calibration"), "seconds", "s", at + "/calibration");
            JsonNode chain = c.getValue().path("chain");
            for (int i = 0; i < chain.size(); i++) {
                p.link(chain.path(i), at + "/chain/" + i);
            }
        });
        sheet.path("devices")
                .properties()
                .forEach(d -> d.getValue().path("outputs").properties().forEach(o -> {
                    String at = "/devices/" + d.getKey() + "/outputs/" + o.getKey();
                    String unit = o.getValue().path("unit").asText();
                    OF_OUTPUT.forEach(k -> p.one(o.getValue(), k, unit, at));
                    p.one(o.getValue(), "dwell", "s", at);
                }));
        for (String list : List.of("timeline", "prepare", "finish")) {
            for (int i = 0; i < sheet.path(list).size(); i++) {
                p.one(sheet.path(list).path(i), "minutes", "min", "/" + list + "/" + i);
            }
        }
    }

    private void link(JsonNode link, String at) {
        String from = link.path("from").asText();
        boolean converter = link.path("kind").asText().equals("converter");
        for (String key : List.of("lowest", "highest", "step")) {
            one(link, key, from, at);
        }
        one(link, "noise", converter ? from : link.path("to").asText(), at);
        offset(link, converter ? from : link.path("to").asText(), at + "/offset");
        one(link, "warm_up", "min", at);
        if (link.path("range") instanceof ArrayNode range) {
            for (int i = 0; i < range.size(); i++) {
                JsonNode v = number(range.get(i), from, at + "/range/" + i);
                range.set(i, v);
            }
        }
    }

    /** An offset keeps its uncertainty, and loses its unit to that of the link. */
    private void offset(JsonNode link, String unit, String at) {
        if (!(link instanceof ObjectNode o) || !o.path("offset").isTextual()) {
            return;
        }
        try {
            Reading r = Reading.parse(o.get("offset").asText());
            LabUnit wanted = LabUnit.parse(unit);
            if (r.unit().symbol().isEmpty()) {
                return;
            }
            if (!r.unit().fits(wanted)) {
                places.problem(
                        at,
                        "this is given in " + wanted.named() + " or the like, not in "
                                + r.unit().named() + ".");
                return;
            }
            double scale = r.unit().scaleTo(wanted);
            o.put("offset", r.value() * scale + (r.u() == 0 ? "" : " ± " + r.u() * scale));
        } catch (IllegalArgumentException notOne) {
            // Told where chains are checked.
        }
    }

    private void all(JsonNode of, String at, Map<String, String> units) {
        units.forEach((key, unit) -> one(of, key, unit, at));
    }

    private void one(JsonNode of, String key, String unit, String at) {
        if (of instanceof ObjectNode o && o.path(key).isTextual()) {
            o.set(key, number(o.get(key), unit, at + "/" + key));
        }
    }

    /** A quantity, or a formula of plain ones such as {@code 5 * 22 ms}. */
    private static Reading reading(String text) {
        try {
            return Reading.parse(text);
        } catch (IllegalArgumentException notOne) {
            if (Formula.parse(text).evaluate(Scope.empty("number")) instanceof Value.Scalar s) {
                Quantity q = s.quantity();
                return new Reading(q.value(), q.u(), q.unit(), Distribution.NORMAL);
            }
            throw notOne;
        }
    }

    /** The number; what is no quantity stays as it is, for the schema to say. */
    private JsonNode number(JsonNode written, String unit, String at) {
        if (!written.isTextual()) {
            return written;
        }
        Reading r;
        LabUnit wanted;
        try {
            r = reading(written.asText());
            wanted = LabUnit.parse(unit);
        } catch (IllegalArgumentException | FormulaException notOne) {
            return written;
        }
        if (r.u() > 0) {
            places.problem(at, "this is a plain number in " + wanted.named() + " and has no uncertainty.");
            return JsonNodeFactory.instance.numberNode(r.value());
        }
        if (!r.unit().fits(wanted)) {
            places.problem(
                    at,
                    "this is given in " + wanted.named() + " or the like, not in "
                            + r.unit().named() + ".");
            return JsonNodeFactory.instance.numberNode(r.value());
        }
        return JsonNodeFactory.instance.numberNode(r.unit().convert(r.value(), wanted));
    }
}
