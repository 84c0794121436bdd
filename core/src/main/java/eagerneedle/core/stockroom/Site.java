package eagerneedle.core.stockroom;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.dataformat.yaml.YAMLMapper;
import eagerneedle.core.formula.NearName;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Reading;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * What a laboratory says once for all its sheets and sessions, as docs/formats/site.md describes.
 *
 * @param laboratory what it is called
 * @param said readings by name: g (local acceleration of free fall), mains (its frequency), pressure (of the air at
 *     this height), each with its unit and uncertainty
 * @param letter true for paper of Letter size, false for A4; null where nothing is said of paper
 * @param comma true where numbers are written with a comma, false for a point
 * @param places where things are kept
 * @param staff who may agree to what can hurt somebody
 * @param kits the instruments of each bench, in order
 */
public record Site(
        String laboratory,
        Map<String, String> said,
        @Nullable Boolean letter,
        boolean comma,
        List<String> places,
        List<String> staff,
        List<Kit> kits) {
    /** A laboratory of which nothing was said. */
    public static final Site UNSAID = new Site("", Map.of(), null, false, List.of(), List.of(), List.of());

    /** What can be said once, and in what unit. */
    private static final Map<String, String> READINGS = Map.of("g", "m/s^2", "mains", "Hz", "pressure", "Pa");

    private static final Set<String> KNOWN =
            Set.of("laboratory", "g", "mains", "pressure", "paper", "decimal", "places", "staff", "kits");

    public Site {
        said = java.util.Collections.unmodifiableMap(new LinkedHashMap<>(said));
        places = List.copyOf(places);
        staff = List.copyOf(staff);
        kits = List.copyOf(kits);
    }

    public Optional<Kit> kit(String bench) {
        return kits.stream()
                .filter(k -> k.bench().equalsIgnoreCase(bench.strip()))
                .findFirst();
    }

    /**
     * Reads what a laboratory says.
     *
     * @param text in YAML
     * @param where what the file is called
     * @throws IllegalArgumentException with one sentence that says what is wrong and where
     */
    public static Site read(String text, String where) {
        JsonNode root;
        try {
            root = new YAMLMapper().readTree(text);
        } catch (JsonProcessingException e) {
            throw new IllegalArgumentException(
                    where + ", line "
                            + (e.getLocation() == null ? 1 : e.getLocation().getLineNr())
                            + ": the YAML cannot be read here; look at indentation, quotes and colons.",
                    e);
        }
        if (root == null || root.isNull() || root.isMissingNode()) {
            return UNSAID;
        }
        if (!root.isObject()) {
            throw new IllegalArgumentException(
                    where + " says nothing of a laboratory: write for instance g: " + "9.8126(3) m/s^2.");
        }
        root.fieldNames().forEachRemaining(n -> {
            if (!KNOWN.contains(n)) {
                throw new IllegalArgumentException(
                        where + ": a laboratory has no entry " + n + NearName.hint(n, KNOWN));
            }
        });
        Map<String, String> said = new LinkedHashMap<>();
        for (Map.Entry<String, String> r : READINGS.entrySet()) {
            if (root.has(r.getKey())) {
                said.put(r.getKey(), reading(root.path(r.getKey()), r.getKey(), r.getValue(), where));
            }
        }
        String paper = root.path("paper").asText("A4");
        if (!paper.equalsIgnoreCase("A4") && !paper.equalsIgnoreCase("Letter")) {
            throw new IllegalArgumentException(where + ": paper is A4 or Letter, not " + paper + ".");
        }
        String decimal = root.path("decimal").asText("point");
        if (!decimal.equalsIgnoreCase("point") && !decimal.equalsIgnoreCase("comma")) {
            throw new IllegalArgumentException(where + ": decimal is point or comma, not " + decimal + ".");
        }
        return new Site(
                root.path("laboratory").asText(""),
                said,
                root.hasNonNull("paper") ? paper.equalsIgnoreCase("Letter") : null,
                decimal.equalsIgnoreCase("comma"),
                names(root.path("places"), "places", where),
                names(root.path("staff"), "staff", where),
                kits(root.path("kits"), where));
    }

    private static String reading(JsonNode node, String name, String unit, String where) {
        String text = node.asText("");
        try {
            Reading r = Reading.parse(text);
            if (!r.unit().fits(LabUnit.parse(unit))) {
                throw new IllegalArgumentException(text + " is not in " + unit + " or the like");
            }
            if (!(r.value() > 0)) {
                throw new IllegalArgumentException(text + " is not above 0");
            }
            return text;
        } catch (IllegalArgumentException e) {
            throw new IllegalArgumentException(
                    where + ": " + name + " cannot be used: "
                            + String.valueOf(e.getMessage()).replaceAll("[.]$", "") + ".",
                    e);
        }
    }

    private static List<Kit> kits(JsonNode node, String where) {
        if (node.isMissingNode() || node.isNull()) {
            return List.of();
        }
        if (!node.isObject()) {
            throw new IllegalArgumentException(
                    where + ": kits are written as bench 7: [TH-CP-07, TH-LG-07], one bench a line.");
        }
        List<Kit> out = new ArrayList<>();
        Map<String, String> taken = new LinkedHashMap<>();
        for (Map.Entry<String, JsonNode> e : node.properties()) {
            List<String> serials = names(e.getValue(), "kit of " + e.getKey(), where);
            for (String s : serials) {
                String other = taken.put(s, e.getKey());
                if (other != null) {
                    throw new IllegalArgumentException(where + ": " + s + " stands at " + other + " and at "
                            + e.getKey() + "; an instrument is at one bench.");
                }
            }
            out.add(new Kit(e.getKey(), serials));
        }
        return out;
    }

    private static List<String> names(JsonNode node, String what, String where) {
        if (node.isMissingNode() || node.isNull()) {
            return List.of();
        }
        if (!node.isArray()) {
            throw new IllegalArgumentException(where + ": " + what + " is a list, as [one, another].");
        }
        Set<String> out = new LinkedHashSet<>();
        for (JsonNode n : node) {
            if (!n.isValueNode() || n.asText().isBlank()) {
                throw new IllegalArgumentException(where + ": " + what + " is a list of names.");
            }
            if (!out.add(n.asText().strip())) {
                throw new IllegalArgumentException(where + ": " + n.asText() + " stands twice in " + what + ".");
            }
        }
        return List.copyOf(out);
    }
}
