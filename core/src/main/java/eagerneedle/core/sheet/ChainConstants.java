package eagerneedle.core.sheet;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.formula.Pieces;
import eagerneedle.core.formula.Scope;
import eagerneedle.core.formula.Value;
import eagerneedle.core.sheet.Families.At;
import java.util.List;

/** Constants of links that rest on attributes of a member. */
final class ChainConstants {
    /** An input, which gives the constant whenever it is read. */
    private static final String NAME = "[A-Za-z_][A-Za-z0-9_]*([.][A-Za-z][A-Za-z0-9_]*)*";

    private final Families families;
    private final ObjectNode attributes;
    private final Places places;

    /** @param attributes what each attribute of a member is, by its name */
    ChainConstants(Families families, ObjectNode attributes, Places places) {
        this.families = families;
        this.attributes = attributes;
        this.places = places;
    }

    /** Links with constants that rest on attributes of the member at hand, reckoned here and now. */
    void reckon(JsonNode chain, String p, At at) {
        for (int i = 0; i < chain.size(); i++) {
            if (chain.path(i) instanceof ObjectNode link) {
                for (String key : List.of("gain", "offset", "noise", "step", "lowest", "highest")) {
                    if (link.path(key).isTextual()) {
                        link.set(key, constant(link.get(key).asText(), p + "/" + i + "/" + key, at));
                    }
                }
            }
        }
    }

    private JsonNode constant(String text, String p, At at) {
        Pieces.Rewritten r = Pieces.renamed(text, n -> {
            String one = families.written(n, at).text();
            JsonNode attribute = attributes.path(one).path("formula");
            return attribute.isTextual() ? "(" + attribute.asText() + ")" : one;
        });
        if (r.text().equals(text) || r.text().matches(NAME)) {
            return JsonNodeFactory.instance.textNode(r.text());
        }
        try {
            if (Formula.parse(r.text()).evaluate(Scope.empty("constant")) instanceof Value.Scalar s) {
                double u = s.quantity().u();
                return u == 0
                        ? JsonNodeFactory.instance.textNode(
                                Double.toString(s.quantity().value()))
                        : JsonNodeFactory.instance.textNode(s.quantity().value() + " ± " + u);
            }
        } catch (FormulaException e) {
            places.problem(p, e.getMessage());
        }
        return JsonNodeFactory.instance.textNode(text);
    }
}
