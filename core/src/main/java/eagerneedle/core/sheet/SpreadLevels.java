package eagerneedle.core.sheet;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import eagerneedle.core.quantity.Digits;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Reading;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * Levels that are spread evenly over one quantity, as {@code levels: {spread: {p: {from: 0 bar, to: 10 bar, count: 6}},
 * then: back}}: up, and where it is said so back again.
 */
final class SpreadLevels {
    private static final int MOST = 500;
    private static final int FIGURES = 6;

    private SpreadLevels() {}

    /** Writes them out, in place. */
    static void of(ObjectNode sheet, Places places) {
        sheet.path("captures").properties().forEach(c -> {
            JsonNode levels = c.getValue().path("levels");
            if (levels.path("spread").isObject() && c.getValue() instanceof ObjectNode capture) {
                String at = "/captures/" + c.getKey() + "/levels";
                ObjectNode out = written((ObjectNode) levels, at, sheet, places);
                if (out != null) {
                    capture.set("levels", out);
                }
            }
        });
    }

    private static @Nullable ObjectNode written(ObjectNode levels, String at, ObjectNode sheet, Places places) {
        for (Map.Entry<String, JsonNode> e : levels.properties()) {
            if (!List.of("spread", "then", "outputs").contains(e.getKey())) {
                places.problem(at + "/" + e.getKey(), "beside 'spread' stand 'then' and 'outputs', nothing else.");
                return null;
            }
        }
        if (levels.get("spread").size() != 1) {
            places.problem(
                    at + "/spread", "one quantity is spread here, such as {p: {from: 0 bar, to: 10 bar, count: 6}}.");
            return null;
        }
        if (levels.has("then") && !levels.get("then").asText().equals("back")) {
            places.problem(at + "/then", "after going up there is 'then: back', or nothing.");
            return null;
        }
        Map.Entry<String, JsonNode> one =
                levels.get("spread").properties().iterator().next();
        String name = one.getKey();
        String here = at + "/spread/" + name;
        JsonNode count = one.getValue().path("count");
        if (!Sets.isName(name) || !count.isIntegralNumber() || count.intValue() < 2 || count.intValue() > MOST) {
            places.problem(here, "a spread has a name, and its 'from', its 'to' and its 'count', 2 to " + MOST + ".");
            return null;
        }
        Reading from;
        Reading to;
        try {
            from = Reading.parse(one.getValue().path("from").asText());
            to = Reading.parse(one.getValue().path("to").asText());
            to.unit().convert(0, from.unit());
        } catch (IllegalArgumentException e) {
            places.problem(here, "its ends are quantities of one kind: " + e.getMessage());
            return null;
        }
        ObjectNode out = JsonNodeFactory.instance.objectNode();
        double last = to.unit().convert(to.value(), from.unit());
        int n = count.intValue();
        boolean back = levels.has("then");
        for (int i = 0; i < (back ? 2 * n - 1 : n); i++) {
            int step = i < n ? i : 2 * (n - 1) - i;
            double value = from.value() + step * (last - from.value()) / (n - 1);
            String text = (Digits.plain(value, FIGURES) + " " + from.unit().symbol()).strip();
            String id = name + (i + 1);
            ObjectNode l = out.putObject(id);
            l.put(
                    "label",
                    (Notation.plain(value, FIGURES) + " " + from.unit().pretty() + (i >= n ? ", back" : "")).strip());
            l.putObject("set").put(name, text);
            places.copyOver(here, at + "/" + id);
            outputs(levels, l, id, name, value, from.unit(), at, sheet, places);
        }
        return out;
    }

    /** Outputs that are set to the value of the level, in their own units, or to what follows from it by a formula. */
    private static void outputs(
            ObjectNode levels,
            ObjectNode level,
            String id,
            String name,
            double value,
            LabUnit unit,
            String at,
            ObjectNode sheet,
            Places places) {
        levels.path("outputs").properties().forEach(o -> {
            String here = at + "/outputs/" + o.getKey();
            ObjectNode set = level.path("outputs") instanceof ObjectNode s ? s : level.putObject("outputs");
            if (!o.getValue().asText().equals(name)) {
                set.set(o.getKey(), o.getValue());
                places.copyOver(here, at + "/" + id + "/outputs/" + o.getKey());
                return;
            }
            String own = "";
            for (JsonNode device : sheet.path("devices")) {
                own = device.path("outputs").path(o.getKey()).path("unit").asText(own);
            }
            try {
                set.put(o.getKey(), unit.convert(value, LabUnit.parse(own)));
            } catch (IllegalArgumentException e) {
                places.problem(here, "this output is in " + own + ", which " + name + " does not fit.");
            }
        });
    }
}
