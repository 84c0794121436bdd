package eagerneedle.core.sheet;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import eagerneedle.core.quantity.Notation;
import java.io.IOException;
import java.io.InputStream;
import java.io.StringReader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.NavigableMap;
import java.util.Optional;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.yaml.snakeyaml.LoaderOptions;
import org.yaml.snakeyaml.Yaml;
import org.yaml.snakeyaml.constructor.SafeConstructor;
import org.yaml.snakeyaml.error.Mark;
import org.yaml.snakeyaml.error.MarkedYAMLException;
import org.yaml.snakeyaml.error.YAMLException;
import org.yaml.snakeyaml.nodes.MappingNode;
import org.yaml.snakeyaml.nodes.Node;
import org.yaml.snakeyaml.nodes.NodeTuple;
import org.yaml.snakeyaml.nodes.ScalarNode;
import org.yaml.snakeyaml.nodes.SequenceNode;
import org.yaml.snakeyaml.nodes.Tag;

/**
 * Reads a method sheet and keeps where everything stands, so that mistakes found later can be shown in place.
 *
 * <p>The YAML is composed into nodes with marks (SnakeYAML), copied into a JSON tree beside a map of positions, checked
 * against the JSON Schema that ships, and bound to {@link Sheet}. Formulas, names, units and circles are checked
 * afterwards by {@link SheetCheck}.
 */
public final class SheetReader {
    static final int LARGEST = 1_000_000;
    private static final int MOST_ENTRIES = 100_000;
    private static final ObjectMapper JSON = new ObjectMapper();
    /** The build looks which sheets lie in the folder. */
    private static final List<String> SHIPPED =
            List.copyOf(resource("shipped/index.txt").lines().toList());

    private SheetReader() {}

    /**
     * A sheet with its text and the places of its entries.
     *
     * @param file name used in messages
     * @param text the YAML
     * @param sheet what it says
     * @param places line and column, both 1-based, by JSON pointer
     * @param origins of formulas that were written out: which of the characters written each one stands for
     */
    public record Located(
            String file, String text, Sheet sheet, Map<String, int[]> places, Map<String, int[]> origins) {
        /** The same places of another sheet that was made from it. */
        public Located with(Sheet other) {
            return new Located(file, text, other, places, origins);
        }

        /** A problem at an entry, {@code column} characters into it. */
        public SheetException problem(String pointer, int column, String message) {
            String p = pointer;
            while (!places.containsKey(p) && !p.isEmpty()) {
                p = p.substring(0, p.lastIndexOf('/'));
            }
            int[] at = places.getOrDefault(p, new int[] {0, 0});
            int into = Math.max(0, column - 1);
            int[] origin = origins.get(pointer);
            int there = origin == null ? into : origin[Math.min(into, origin.length - 1)];
            return new SheetException(file, at[0], at[1] + there, message);
        }
    }

    /** The ids of the sheets that ship with the program. */
    public static List<String> shipped() {
        return SHIPPED;
    }

    /** The text of a shipped sheet. */
    public static String shippedText(String id) {
        if (!SHIPPED.contains(id)) {
            throw new SheetException(
                    id, 0, 0, "no method of that name ships; there are: " + String.join(", ", SHIPPED) + ".");
        }
        return resource("shipped/" + id + ".yaml");
    }

    /** The drawing of a shipped method's apparatus, as SVG; empty for a sheet of one's own. */
    public static Optional<String> shippedDrawing(String id) {
        return SHIPPED.contains(id) ? Optional.of(resource("shipped/" + id + ".svg")) : Optional.empty();
    }

    /**
     * A sheet as far as it could be read.
     *
     * @param located the sheet; empty when something of its form is wrong
     * @param problems all that was found, by line and column; empty for a good sheet
     */
    public record Looked(Optional<Located> located, List<SheetException> problems) {
        static Looked of(@Nullable Located located, List<SheetException> problems) {
            return new Looked(Optional.ofNullable(located), sorted(problems));
        }

        /** By line and column, each once. */
        public static List<SheetException> sorted(List<SheetException> problems) {
            Map<String, SheetException> once = new LinkedHashMap<>();
            problems.stream()
                    .sorted(Comparator.comparingInt(SheetException::line).thenComparingInt(SheetException::column))
                    .forEach(p -> once.putIfAbsent(p.getMessage(), p));
            return List.copyOf(once.values());
        }
    }

    /**
     * The text of a sheet to be filled in, with comments; it is good as it stands.
     *
     * @param id small letters, digits and hyphens
     * @throws SheetException for another name
     */
    public static String skeleton(String id) {
        if (!id.matches("[a-z][a-z0-9-]*")) {
            throw new SheetException(
                    id,
                    0,
                    0,
                    "the name of a method starts with a small letter and holds small letters, digits and "
                            + "hyphens, for instance cooling-curve.");
        }
        String title = id.replace('-', ' ');
        return resource("skeleton.yaml")
                .replace("@id@", id)
                .replace("@title@", Character.toUpperCase(title.charAt(0)) + title.substring(1));
    }

    /**
     * Reads and checks a sheet.
     *
     * @param text the YAML
     * @param file name used in messages
     * @throws SheetException for the first thing that is wrong
     */
    public static Located read(String text, String file) {
        return read(text, file, Map.of());
    }

    /**
     * The same, with results that somebody else asks of it, by name.
     *
     * @throws SheetException for the first thing that is wrong
     */
    static Located read(String text, String file, Map<String, String> asked) {
        Looked looked = look(text, file, asked);
        if (!looked.problems().isEmpty()) {
            throw looked.problems().get(0);
        }
        return looked.located().orElseThrow();
    }

    /**
     * Reads a sheet and keeps everything that is wrong with it. What hides the rest is told alone: text that is no
     * YAML, then entries that do not belong where they stand, then what the entries say.
     *
     * @param text the YAML
     * @param file name used in messages
     */
    public static Looked look(String text, String file) {
        return look(text, file, Map.of());
    }

    /** The same, with results that somebody else asks of it, by name. */
    static Looked look(String text, String file, Map<String, String> asked) {
        try {
            return looked(text, file, asked);
        } catch (SheetException alone) {
            return Looked.of(null, List.of(alone));
        }
    }

    private static Looked looked(String text, String file, Map<String, String> asked) {
        if (text.length() > LARGEST) {
            throw new SheetException(
                    file,
                    0,
                    0,
                    Notation.sentence(
                            "this is %,d characters long; a method sheet has at most %,d.", text.length(), LARGEST));
        }
        Node root;
        try {
            LoaderOptions options = new LoaderOptions();
            options.setAllowDuplicateKeys(false);
            options.setMaxAliasesForCollections(20);
            options.setNestingDepthLimit(40);
            root = new Yaml(new SafeConstructor(options)).compose(new StringReader(text));
        } catch (MarkedYAMLException e) {
            Mark m = e.getProblemMark();
            throw new SheetException(
                    file,
                    m == null ? 0 : m.getLine() + 1,
                    m == null ? 0 : m.getColumn() + 1,
                    "the YAML cannot be read here (" + e.getProblem().replaceAll("\\s+", " ")
                            + "); look at indentation, quotes and colons.",
                    e);
        } catch (YAMLException e) {
            throw new SheetException(file, 0, 0, "this is not a text file that YAML can be read from.", e);
        }
        if (!(root instanceof MappingNode)) {
            throw new SheetException(file, 1, 1, "this is not a method sheet; a sheet starts with 'sheet: 1'.");
        }
        NavigableMap<String, int[]> places = new TreeMap<>();
        JsonNode tree = copy(root, "", places, file, 0);
        if (tree.path("results") instanceof ObjectNode results) {
            asked.forEach((name, formula) -> results.putObject(name).put("formula", formula));
        }
        Places written = new Places(places, file);
        WrittenOut.of((ObjectNode) tree, written);
        List<SheetException> misplaced =
                written.problems().isEmpty() ? Misplaced.in(tree, places, file) : written.problems();
        if (!misplaced.isEmpty()) {
            return Looked.of(null, misplaced);
        }
        try {
            Sheet sheet = JSON.treeToValue(tree, Sheet.class);
            Located located = new Located(file, text, sheet, places, written.origins());
            return Looked.of(located, SheetCheck.check(located));
        } catch (JsonProcessingException e) {
            throw new SheetException(
                    file,
                    0,
                    0,
                    "an entry has the wrong form: " + e.getOriginalMessage().replaceAll("\\s*\\(.*", "") + ".",
                    e);
        }
    }

    static JsonNode copy(Node node, String pointer, Map<String, int[]> places, String file, int depth) {
        Mark mark = node.getStartMark();
        boolean quoted = node instanceof ScalarNode s
                && s.getScalarStyle() != org.yaml.snakeyaml.DumperOptions.ScalarStyle.PLAIN;
        places.put(pointer, new int[] {mark.getLine() + 1, mark.getColumn() + (quoted ? 2 : 1)});
        if (depth > 40) {
            throw new SheetException(file, mark.getLine() + 1, mark.getColumn() + 1, "the sheet is nested too deeply.");
        }
        if (places.size() > MOST_ENTRIES) {
            throw new SheetException(
                    file,
                    mark.getLine() + 1,
                    mark.getColumn() + 1,
                    Notation.sentence(
                            "the sheet has more than %,d entries once its aliases are followed; write out what is meant.",
                            MOST_ENTRIES));
        }
        if (node instanceof ScalarNode s
                && s.getValue().chars().anyMatch(c -> c < 32 && c != '\n' && c != '\t' || c == 127)) {
            throw new SheetException(
                    file,
                    mark.getLine() + 1,
                    mark.getColumn() + 1,
                    "there is a control character in this text; type it anew.");
        }
        if (node instanceof MappingNode map) {
            ObjectNode out = JsonNodeFactory.instance.objectNode();
            for (NodeTuple t : map.getValue()) {
                if (!(t.getKeyNode() instanceof ScalarNode key)) {
                    throw new SheetException(
                            file, t.getKeyNode().getStartMark().getLine() + 1, 0, "a key must be a single word.");
                }
                String name = key.getValue();
                if (name.equals("<<")) {
                    Mark m = key.getStartMark();
                    throw new SheetException(
                            file,
                            m.getLine() + 1,
                            m.getColumn() + 1,
                            "sheets have no merge keys; write 'like: NAME' to take what NAME says and change some of it.");
                }
                if (out.has(name)) {
                    Mark m = key.getStartMark();
                    throw new SheetException(
                            file, m.getLine() + 1, m.getColumn() + 1, name + " is given twice; keep one.");
                }
                out.set(name, copy(t.getValueNode(), pointer + "/" + name, places, file, depth + 1));
            }
            return out;
        }
        if (node instanceof SequenceNode list) {
            ArrayNode out = JsonNodeFactory.instance.arrayNode();
            int i = 0;
            for (Node n : list.getValue()) {
                out.add(copy(n, pointer + "/" + i++, places, file, depth + 1));
            }
            return out;
        }
        ScalarNode scalar = (ScalarNode) node;
        return scalar(scalar);
    }

    private static JsonNode scalar(ScalarNode scalar) {
        JsonNodeFactory f = JsonNodeFactory.instance;
        String v = scalar.getValue();
        try {
            if (scalar.getTag().equals(Tag.INT)) {
                return f.numberNode(Long.parseLong(v.replace("_", "")));
            } else if (scalar.getTag().equals(Tag.FLOAT)) {
                double number = Double.parseDouble(v.replace("_", ""));
                return Double.isFinite(number) ? f.numberNode(number) : f.textNode(v);
            } else if (scalar.getTag().equals(Tag.BOOL)) {
                // "on", "no" and "y" are words that a sheet may want; only true and false are truths.
                boolean truth = v.equalsIgnoreCase("true") || v.equalsIgnoreCase("false");
                return truth ? f.booleanNode(v.equalsIgnoreCase("true")) : f.textNode(v);
            } else if (scalar.getTag().equals(Tag.NULL)) {
                return f.nullNode();
            }
        } catch (NumberFormatException e) {
            return f.textNode(v);
        }
        return f.textNode(v);
    }

    static String resource(String name) {
        try (InputStream in = SheetReader.class.getResourceAsStream(name)) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
