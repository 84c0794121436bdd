package eagerneedle.core.edit;

import eagerneedle.core.formula.Function;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;

/**
 * What may be written at a place of a sheet: entries by the schema, words that an entry takes, names in reach,
 * functions, units, serials of the stockroom.
 */
public final class Completion {
    private static final Set<String> UNITS = Set.of("unit", "from", "to", "x_unit", "y_unit");
    private static final List<String> KNOWN_UNITS = List.of(
            "m",
            "mm",
            "cm",
            "um",
            "s",
            "ms",
            "min",
            "h",
            "kg",
            "g",
            "N",
            "mN",
            "V",
            "mV",
            "uV",
            "A",
            "mA",
            "ohm",
            "kohm",
            "degC",
            "K",
            "Pa",
            "kPa",
            "bar",
            "mbar",
            "W",
            "mW",
            "J",
            "Hz",
            "kHz",
            "rad",
            "deg",
            "m/s",
            "m/s^2",
            "N*m",
            "N/m",
            "kg/m^3",
            "L",
            "mL",
            "L/min",
            "mol/L",
            "%",
            "microstrain",
            "C",
            "T",
            "lx",
            "1");

    /**
     * One of them.
     *
     * @param words how it is listed
     * @param insert what stands in the place of the word that was begun
     * @param says what it is, one line
     */
    public record Proposal(String words, String insert, String says) {}

    private final Map<String, Function> functions;
    private final List<String> serials;

    /**
     * @param functions of the formula language, by name
     * @param serials of the stockroom
     */
    public Completion(Map<String, Function> functions, Collection<String> serials) {
        this.functions = Map.copyOf(functions);
        this.serials = List.copyOf(serials);
    }

    /** What may be written before a character of the text, the likeliest first; nothing in words for people. */
    public List<Proposal> at(String text, int offset) {
        Place place = Place.at(text, offset);
        List<Proposal> all = place.inValue() ? values(text, place) : entries(place);
        String begun = place.word().toLowerCase(Locale.ROOT);
        Map<String, Proposal> out = new LinkedHashMap<>();
        for (boolean start : new boolean[] {true, false}) {
            for (Proposal p : all) {
                String word = p.words().toLowerCase(Locale.ROOT);
                if (start ? word.startsWith(begun) : begun.length() > 1 && word.contains(begun)) {
                    out.putIfAbsent(p.words(), p);
                }
            }
        }
        return List.copyOf(out.values());
    }

    private static List<Proposal> entries(Place place) {
        List<Proposal> out = new ArrayList<>();
        SchemaEntries.of(place.path()).forEach(e -> {
            if (e.required()) {
                out.add(new Proposal(e.name(), e.name() + ": ", e.says() + " (must be there)"));
            }
        });
        SchemaEntries.of(place.path()).forEach(e -> {
            if (!e.required()) {
                out.add(new Proposal(e.name(), e.name() + ": ", e.says()));
            }
        });
        return out;
    }

    private List<Proposal> values(String text, Place place) {
        List<String> path = place.path();
        String last = path.isEmpty() ? "" : path.get(path.size() - 1);
        String entry = last.equals("#") && path.size() > 1 ? path.get(path.size() - 2) : last;
        List<String> words = SchemaEntries.words(path);
        if (!words.isEmpty()) {
            return words.stream().map(w -> new Proposal(w, w, "")).toList();
        }
        Outline o = Outline.of(text);
        boolean link = path.contains("chain") || path.contains("links");
        if (UNITS.contains(entry) && (entry.endsWith("unit") || link)) {
            return KNOWN_UNITS.stream()
                    .map(u -> new Proposal(u, quoted(u), "a unit"))
                    .toList();
        }
        switch (entry) {
            case "device":
                return named(o.names("devices"), "an instrument of this sheet");
            case "channels", "on":
                return named(o.names("channels"), "a channel");
            case "instrument":
                return named(serials, "in the stockroom");
            case "result":
                return named(o.names("results"), "a result");
            default:
                return SchemaEntries.isProse(path) ? List.of() : formula(o, path);
        }
    }

    private static String quoted(String unit) {
        return unit.matches("[A-Za-z].*") ? unit : "\"" + unit + "\"";
    }

    private static List<Proposal> named(Collection<String> names, String says) {
        return names.stream().map(n -> new Proposal(n, n, says)).toList();
    }

    private List<Proposal> formula(Outline o, List<String> path) {
        List<Proposal> out = new ArrayList<>();
        boolean inCapture = path.size() > 1 && path.get(0).equals("captures");
        if (inCapture || path.get(0).equals("rig")) {
            String capture = path.size() > 1 ? path.get(1) : "";
            out.addAll(named(o.names("captures", capture, "quantities"), "of this run"));
            out.addAll(named(o.names("captures", capture, "by_eye"), "read by eye with this run"));
            out.addAll(named(o.names("captures", capture, "windows"), "a window of this run"));
            out.addAll(named(set(o, capture), "set by its level"));
        }
        if (path.get(0).equals("rig")) {
            out.addAll(named(o.names("rig", "hidden"), "hidden in the rig"));
            out.add(new Proposal("t", "t", "the time of the run"));
            if (path.size() > 1) {
                out.addAll(named(o.names("rig", path.get(1), "hidden"), "hidden in this run"));
                out.addAll(named(o.names("rig", path.get(1), "state"), "a state"));
            }
        }
        out.addAll(named(o.names("inputs"), "an input"));
        out.addAll(named(o.names("planned"), "planned"));
        if (inCapture) {
            out.addAll(named(o.names("channels"), "a channel"));
        } else {
            out.addAll(named(o.names("results"), "a result"));
            o.names("captures").forEach(c -> {
                o.names("captures", c, "quantities")
                        .forEach(q -> out.add(new Proposal(c + "." + q, c + "." + q, "a column, one row a run")));
                o.names("captures", c, "by_eye")
                        .forEach(q -> out.add(new Proposal(c + "." + q, c + "." + q, "a column, one row a run")));
                set(o, c).forEach(q -> out.add(new Proposal(c + "." + q, c + "." + q, "a column, set by the level")));
            });
        }
        functions.values().stream()
                .sorted(java.util.Comparator.comparing(Function::name))
                .forEach(f -> out.add(new Proposal(f.name(), f.name() + "(", f.signature() + ": " + f.gives())));
        return out;
    }

    /** The names that the levels of a capture set. */
    private static List<String> set(Outline o, String capture) {
        return o.all().stream()
                .filter(g -> g.path().size() >= 5
                        && g.path().get(0).equals("captures")
                        && g.path().get(1).equals(capture)
                        && g.path().get(g.path().size() - 2).equals("set"))
                .map(Outline.Given::name)
                .distinct()
                .toList();
    }

    /** What stands at a place: what its entry is for, or the function whose name is there. */
    public String help(String text, int offset) {
        int end = offset;
        while (end < text.length() && Place.isOfWord(text.charAt(end))) {
            end++;
        }
        Place place = Place.at(text, end);
        Function f = functions.get(place.word());
        if (f != null && place.inValue()) {
            return f.signature() + "\nTakes " + f.takes() + ". Gives " + f.gives() + ".\n" + f.example() + " → "
                    + f.prints();
        }
        List<String> path = new ArrayList<>(place.path());
        if (!place.inValue() && !place.word().isEmpty()) {
            path.add(place.word());
        }
        String says = SchemaEntries.says(path);
        return says.isEmpty() ? "" : path.get(path.size() - 1) + ": " + says;
    }
}
