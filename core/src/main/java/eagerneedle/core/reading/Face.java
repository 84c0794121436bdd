package eagerneedle.core.reading;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/**
 * What stands before the eye when something is read: the one list of faces, from which readings are built and on which
 * reading is trained.
 *
 * <p>A face is a template of the formula language with a gap for each thing that is seen or known, so that the text it
 * writes says everything: it is worked out like any formula, kept as it is, and taken apart again by the same template.
 */
public enum Face {
    RULE(
            "rule, tape, scale",
            "reading({mark}, division: {division}, judged: {judged}, edges: {edges}, start: {start})",
            "mark = 84.2 cm : the mark at the end",
            "start = 0 cm : the mark at the start",
            "division = 1 mm : one division",
            "judged = 0.5 : the fraction of a division that you can judge",
            "edges = 2 : edges lined up: 1 at a hard stop, else 2"),
    VERNIER(
            "vernier",
            "vernier({main}, {mark}, division: {division}, marks: {marks})",
            "main = 23 mm : main scale before the vernier's zero",
            "mark = 7 : the vernier's mark that meets one above",
            "division = 1 mm : one division of the main scale",
            "marks = 20 : parts into which the vernier splits it"),
    MICROMETER(
            "micrometer",
            "micrometer({sleeve}, {thimble}, pitch: {pitch}, divisions: {divisions}, judged: {judged})",
            "sleeve = 7.5 mm : the last mark of the sleeve that shows",
            "thimble = 23.4 : the thimble at the line, in its divisions",
            "pitch = 0.5 mm : one turn",
            "divisions = 50 : divisions of the thimble",
            "judged = 0.2 : the fraction of a division that you can judge"),
    DIAL(
            "dial",
            "dial({main}, {hand}, turn: {turn}, divisions: {divisions}, judged: {judged})",
            "main = 12 mm : whole turns",
            "hand = 34.5 : the hand, in divisions",
            "turn = 1 mm : one turn of the hand",
            "divisions = 100 : divisions of a turn",
            "judged = 0.5 : the fraction of a division that you can judge"),
    DIAL_AND_VERNIER(
            "dial and vernier",
            "dial({main}, {hand}, turn: {turn}, divisions: {divisions}, judged: {judged}, mark: {mark}, marks: {marks})",
            "main = 12 deg : whole turns",
            "hand = 34 : the last whole division before the vernier's zero",
            "turn = 1 deg : one turn of the dial",
            "divisions = 60 : divisions of a turn",
            "mark = 4 : the vernier's mark that meets one beside it",
            "marks = 10 : parts into which the vernier splits a division",
            "judged = 1 : the fraction of a vernier step that you can judge"),
    ANGLE(
            "angle scale",
            "reading({mark}, division: {division}, judged: {judged}, edges: {edges}, start: {start})",
            "mark = 23.5 deg : the mark on the scale",
            "start = 0 deg : the mark at the start",
            "division = 1 deg : one division",
            "judged = 0.5 : the fraction of a division that you can judge",
            "edges = 2 : lines lined up: 1 at a stop, else 2"),
    MENISCUS(
            "meniscus",
            "reading({mark}, division: {division}, judged: {judged}, edges: {edges}, start: {start})",
            "mark = 23.42 ml : the lowest point of the surface",
            "start = 0 ml : where it stood before",
            "division = 0.1 ml : one division",
            "judged = 0.2 : the fraction of a division that you can judge",
            "edges = 2 : surfaces read: 2 for a burette, 1 for a cylinder"),
    METER(
            "analogue meter",
            "accuracy(reading({mark}, division: {division}, judged: {judged}, edges: 1), instrument: \"{instrument}\", "
                    + "of_range: {share}, range: {range})",
            "mark = 3.42 V : where the pointer stands",
            "range = 5 V : the end of the scale",
            "division = 0.1 V : one division",
            "judged = 0.25 : the fraction of a division that you can judge",
            "share = 1.5 % : its class: largest error as a share of the range",
            "instrument = meter : its serial, so that its readings share its error"),
    BALANCE(
            "balance with weights",
            "balance({weights}, tolerance: {tolerance}, sensitivity: {sensitivity}, set: \"{set}\")",
            "weights = 100 g, 20 g : weights that keep it level, with commas between",
            "tolerance = 1 mg : largest error of one weight",
            "sensitivity = 2 mg : the smallest mass that moves the beam",
            "set = weights : name of the set, so that weighings share its weights"),
    STOPWATCH(
            "stopwatch",
            "stopwatch({time}, reaction: {reaction}, resolution: {resolution})",
            "time = 12.42 s : what it shows",
            "reaction = 0.1 s : how much your reaction scatters",
            "resolution = 0.01 s : its smallest step"),
    DISPLAY(
            "display that wanders",
            "wander({low}, {high})",
            "low = 4.8 V : the lowest you saw",
            "high = 5.2 V : the highest you saw"),
    SEVERAL("read several times", "{readings}", "readings = 9.79; 9.83; 9.81 s : with semicolons between; unit last");

    private static final Pattern GAP = Pattern.compile("\\{(\\w+)}");

    /**
     * A gap of the template.
     *
     * @param usual what stands in it until somebody says otherwise
     * @param says what belongs there
     */
    public record Gap(String name, String usual, String says) {}

    private final String label;
    private final String template;
    private final List<Gap> gaps;
    private final Pattern form;
    private final List<String> order = new ArrayList<>();

    Face(String label, String template, String... gaps) {
        this.label = label;
        this.template = template;
        this.gaps = Arrays.stream(gaps)
                .map(g -> new Gap(
                        g.substring(0, g.indexOf(" = ")),
                        g.substring(g.indexOf(" = ") + 3, g.indexOf(" : ")),
                        g.substring(g.indexOf(" : ") + 3)))
                .collect(Collectors.toUnmodifiableList());
        // A constant of an enum is made before the enum's own constants are.
        Matcher m = Pattern.compile("\\{(\\w+)}").matcher(template);
        StringBuilder regex = new StringBuilder();
        int from = 0;
        while (m.find()) {
            regex.append(literal(template.substring(from, m.start()))).append("(.+?)");
            order.add(m.group(1));
            from = m.end();
        }
        form = Pattern.compile(regex.append(literal(template.substring(from))).toString());
    }

    private static String literal(String text) {
        return Arrays.stream(text.split(" ", -1)).map(Pattern::quote).collect(Collectors.joining("\\s*"));
    }

    /** What people call it. */
    public String label() {
        return label;
    }

    /** What is seen or known, that which changes from reading to reading first. */
    public List<Gap> gaps() {
        return gaps;
    }

    /** What stands in the gaps until somebody says otherwise, by name. */
    public Map<String, String> usual() {
        Map<String, String> out = new LinkedHashMap<>();
        gaps.forEach(g -> out.put(g.name(), g.usual()));
        return out;
    }

    /**
     * The reading as a formula.
     *
     * @param values what stands in the gaps, by name
     * @throws IllegalArgumentException when a gap is left open
     */
    public String written(Map<String, String> values) {
        return GAP.matcher(template).replaceAll(m -> {
            String v = values.getOrDefault(m.group(1), "").strip().replace("\"", "");
            if (v.isEmpty()) {
                throw new IllegalArgumentException("Say what stands for "
                        + gaps.stream()
                                .filter(g -> g.name().equals(m.group(1)))
                                .map(Gap::says)
                                .findFirst()
                                .orElse(m.group(1))
                        + ".");
            }
            return Matcher.quoteReplacement(v);
        });
    }

    /** What stands in the gaps of a text that this face wrote; absent for any other. */
    public Optional<Map<String, String>> taken(String text) {
        Matcher m = form.matcher(text.strip());
        if (!m.matches() || this == SEVERAL && text.indexOf(';') < 0) {
            return Optional.empty();
        }
        Map<String, String> out = new LinkedHashMap<>(usual());
        for (int i = 0; i < order.size(); i++) {
            out.put(order.get(i), m.group(i + 1).strip());
        }
        return Optional.of(out);
    }
}
