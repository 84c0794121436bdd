package eagerneedle.core.edit;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** Parts that sheets are made of, short and good as they stand, to be written over. */
public enum Template {
    INPUT("An input", "/inputs/", "x", of("label", "what is read", "value", "10.0(1) mm", "by", "caliper")),
    CHANNEL(
            "A channel",
            "/channels/",
            "reading",
            of(
                    "label",
                    "what is read",
                    "unit",
                    "V",
                    "rate",
                    10,
                    "chain",
                    List.of(of(
                            "kind",
                            "converter",
                            "label",
                            "converter",
                            "from",
                            "V",
                            "range",
                            List.of(0, 5),
                            "bits",
                            14)))),
    STREAM("A capture: a stream", "/captures/", "run", capture("stream", "", Map.of())),
    SHOT(
            "A capture: a shot",
            "/captures/",
            "shot",
            capture("shot", "shot", of("on", "@", "at", "1 V", "way", "up", "before", 0.1, "after", 1))),
    GATE("A capture: gates", "/captures/", "pass", capture("gate", "", Map.of())),
    PROMPTED(
            "A capture: readings at set moments",
            "/captures/",
            "series",
            capture("prompted", "prompt", of("first", 0, "every", 30, "count", 10))),
    HOLD(
            "A capture: waiting until steady",
            "/captures/",
            "step",
            capture("hold", "hold", of("seconds", 2, "samples", 20, "patience", 60))),
    EYE(
            "A capture: read by eye",
            "/captures/",
            "reading",
            capture("eye", "by_eye", of("y", of("label", "what is read", "value", "10.0(1) mm")))),
    RESULT("A result", "/results/", "z", of("label", "what is found", "group", "Result", "formula", "1 + 1")),
    COMPARISON(
            "A comparison",
            "/comparisons",
            "",
            of("id", "z", "label", "Found against known", "result", "@result", "reference", "1.00(1)")),
    CHECK(
            "A check",
            "/checks",
            "",
            of("label", "What must hold", "formula", "1 > 0", "remedy", "What to look for when it does not.")),
    MISTAKE(
            "A mistake to be tried",
            "/mistakes",
            "",
            of(
                    "id",
                    "slip",
                    "label",
                    "What a hurried student does",
                    "change",
                    of("@result", "@result / 2"),
                    "says",
                    "Why it is wrong."));

    private final String label;
    private final String place;
    private final String name;
    private final Map<String, Object> value;

    Template(String label, String place, String name, Map<String, Object> value) {
        this.label = label;
        this.place = place;
        this.name = name;
        this.value = value;
    }

    public String label() {
        return label;
    }

    /**
     * The sheet with this part, in its place and under a name of its own.
     *
     * @return the text, and the pointer of what was written
     * @throws IllegalArgumentException with one sentence where the text is no YAML
     */
    public Additions.Added in(String text) {
        SheetText sheet = SheetText.of(text);
        List<String> channels = sheet.names("/channels");
        List<String> results = sheet.names("/results");
        String channel = channels.isEmpty() ? "reading" : channels.get(0);
        String result = results.isEmpty() ? "z" : results.get(results.size() - 1);
        Object filled = filled(value, channel, result);
        if (name.isEmpty()) {
            return new Additions.Added(sheet.plus(place, filled).text(), place + "/" + sheet.size(place));
        }
        String free = name;
        List<String> taken = sheet.names(place.substring(0, place.length() - 1));
        for (int i = 2; taken.contains(free); i++) {
            free = name + "_" + i;
        }
        Object written = place.equals("/captures/") && filled instanceof Map<?, ?> m ? new Block(named(m)) : filled;
        return new Additions.Added(sheet.with(place + free, written).text(), place + free);
    }

    private static Map<String, Object> named(Map<?, ?> m) {
        Map<String, Object> out = new LinkedHashMap<>();
        m.forEach((k, v) -> out.put(String.valueOf(k), v));
        return out;
    }

    private static Object filled(Object v, String channel, String result) {
        if (v instanceof Map<?, ?> m) {
            Map<String, Object> out = new LinkedHashMap<>();
            m.forEach((k, x) -> out.put(String.valueOf(k).replace("@result", result), filled(x, channel, result)));
            return out;
        }
        if (v instanceof List<?> l) {
            return l.stream().map(x -> filled(x, channel, result)).toList();
        }
        return v instanceof String s ? s.replace("@result", result).replaceAll("^@$", channel) : v;
    }

    private static Map<String, Object> capture(String mode, String part, Map<String, Object> of) {
        Map<String, Object> out = new LinkedHashMap<>();
        out.put("label", "What kind of run");
        out.put("mode", mode);
        if (!mode.equals("eye")) {
            out.put("channels", List.of("@"));
        }
        if (!part.isEmpty()) {
            out.put(part, of);
        }
        out.put("levels", of("l1", of("label", "level 1")));
        return out;
    }

    private static Map<String, Object> of(Object... pairs) {
        Map<String, Object> out = new LinkedHashMap<>();
        for (int i = 0; i < pairs.length; i += 2) {
            out.put((String) pairs[i], pairs[i + 1]);
        }
        return out;
    }
}
