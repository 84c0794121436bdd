package eagerneedle.rig.simulated;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.sheet.Sheet;
import java.util.LinkedHashMap;
import java.util.Map;

/** What outputs are set to, as it is told to a bench: {@code output_motor} with a number in the unit of the output. */
final class Turned {
    private static final String OUTPUT = "output_";

    private Turned() {}

    /** The words for it. */
    static Map<String, String> words(Map<String, Double> outputs) {
        Map<String, String> out = new LinkedHashMap<>();
        outputs.forEach((name, value) -> out.put(OUTPUT + name, Double.toString(value)));
        return out;
    }

    /** What was told of outputs that the sheet knows. */
    static Map<String, Quantity> of(Sheet sheet, Map<String, String> bench) {
        Map<String, Quantity> out = new LinkedHashMap<>();
        sheet.devices()
                .values()
                .forEach(d -> d.outputs().forEach((name, o) -> {
                    String value = bench.get(OUTPUT + name);
                    if (value != null) {
                        out.put(name, Quantity.exact(Double.parseDouble(value), LabUnit.parse(o.unit())));
                    }
                }));
        return out;
    }
}
