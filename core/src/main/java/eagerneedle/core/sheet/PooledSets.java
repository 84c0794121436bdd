package eagerneedle.core.sheet;

import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.HashMap;
import org.yaml.snakeyaml.error.YAMLException;

/**
 * The sets of the sheet that a pool takes from, which are known in the pool as well: its rows carry their members. A
 * set of the same name that the pool declares itself goes before.
 */
final class PooledSets {
    private PooledSets() {}

    /** In place; what cannot be read is told where the pool is checked. */
    static void of(ObjectNode sheet, Places places) {
        if (!sheet.path(Pool.NAME).isObject()) {
            return;
        }
        PooledSheet.textOf(
                        sheet.path("pooled").asText(""),
                        sheet.path(Pool.NAME).path("from").asText(""))
                .ifPresent(text -> {
                    try {
                        Peek.entry(Peek.at(text), "sets")
                                .map(n -> SheetReader.copy(n, "", new HashMap<>(), "", 0))
                                .filter(ObjectNode.class::isInstance)
                                .ifPresent(sets -> into(sheet, (ObjectNode) sets, places));
                    } catch (YAMLException | SheetException told) {
                        return;
                    }
                });
    }

    private static void into(ObjectNode sheet, ObjectNode sets, Places places) {
        ObjectNode own = sheet.path("sets").isObject() ? (ObjectNode) sheet.get("sets") : sheet.putObject("sets");
        sets.properties().forEach(e -> {
            if (!own.has(e.getKey())) {
                own.set(e.getKey(), e.getValue());
                places.copy("/pool/from", "/sets/" + e.getKey());
            }
        });
    }
}
