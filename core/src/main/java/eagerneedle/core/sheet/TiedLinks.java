package eagerneedle.core.sheet;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import eagerneedle.core.chain.ConstantUnit;
import eagerneedle.core.chain.TiedChain;
import eagerneedle.core.formula.Written;
import eagerneedle.core.quantity.Quantity;
import java.util.List;

/**
 * Constants of links that name an input, such as {@code gain: G_amp}: the planned value of the input stands there, and
 * the link keeps whose it is.
 */
final class TiedLinks {
    private static final List<String> CONSTANTS = List.of("gain", "offset");

    private final JsonNode inputs;
    private final Places places;

    private TiedLinks(JsonNode inputs, Places places) {
        this.inputs = inputs;
        this.places = places;
    }

    /** Writes the values into the chains, in place. */
    static void of(ObjectNode sheet, Places places) {
        TiedLinks tied = new TiedLinks(sheet.path("inputs"), places);
        sheet.path("channels").properties().forEach(c -> {
            JsonNode chain = c.getValue().path("chain");
            for (int i = 0; i < chain.size(); i++) {
                if (chain.get(i) instanceof ObjectNode link) {
                    tied.link(link, "/channels/" + c.getKey() + "/chain/" + i);
                }
            }
        });
    }

    private void link(ObjectNode link, String at) {
        if (link.has("inputs")) {
            places.problem(at + "/inputs", "name the input where the constant stands, such as gain: G_amp.");
            return;
        }
        CONSTANTS.forEach(c -> constant(link, link, c, at));
        if (link.path("of") instanceof ObjectNode of) {
            List.copyOf(of.properties()).forEach(e -> constant(link, of, e.getKey(), at + "/of"));
        }
    }

    private void constant(ObjectNode link, ObjectNode in, String constant, String at) {
        String name = in.path(constant).asText();
        if (!in.path(constant).isTextual()
                || !inputs.has(name)
                || !ConstantUnit.isNumber(link.path("law").asText(null), constant)) {
            return;
        }
        ObjectNode tied = link.path("inputs") instanceof ObjectNode o ? o : link.putObject("inputs");
        tied.put(constant, name);
        in.put(constant, "1");
        Quantity planned;
        ConstantUnit unit;
        try {
            planned = Written.quantity(inputs.path(name).path("value").asText(), "planned", name, name);
            boolean converter = link.path("kind").asText().equals("converter");
            unit = ConstantUnit.of(
                    link.path("from").asText(),
                    converter ? null : link.path("to").asText(),
                    link.path("law").asText(null),
                    constant);
        } catch (IllegalArgumentException toldElsewhere) {
            // An input that cannot be read, or a unit that is none, is told at its own place.
            return;
        }
        try {
            Quantity q = TiedChain.in(planned, name, link.path("label").asText(), unit, constant);
            in.put(constant, q.value() + " ± " + q.u());
        } catch (IllegalArgumentException e) {
            places.problem(at + "/" + constant, String.valueOf(e.getMessage()));
        }
    }
}
