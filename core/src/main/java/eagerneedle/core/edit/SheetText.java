package eagerneedle.core.edit;

import java.io.StringReader;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.yaml.snakeyaml.LoaderOptions;
import org.yaml.snakeyaml.Yaml;
import org.yaml.snakeyaml.constructor.SafeConstructor;
import org.yaml.snakeyaml.error.YAMLException;
import org.yaml.snakeyaml.nodes.CollectionNode;
import org.yaml.snakeyaml.nodes.MappingNode;
import org.yaml.snakeyaml.nodes.Node;
import org.yaml.snakeyaml.nodes.NodeTuple;
import org.yaml.snakeyaml.nodes.ScalarNode;
import org.yaml.snakeyaml.nodes.SequenceNode;

/**
 * The text of a sheet with the places of its entries, and changes to single entries that leave every other byte as it
 * is. An entry is named by its JSON pointer, {@code /captures/swing/quantities/T}.
 *
 * <p>The YAML is composed into nodes with marks and never written out again: a writer of YAML would lose comments and
 * the author's line breaks. New entries are written in the flow style, one to a line, as the shipped sheets are.
 */
public final class SheetText {
    private static final List<String> ORDER = List.of(
            "sheet",
            "id",
            "title",
            "subject",
            "place",
            "question",
            "principle",
            "pool",
            "cautions",
            "sets",
            "inputs",
            "planned",
            "correlations",
            "materials",
            "timeline",
            "links",
            "devices",
            "channels",
            "prepare",
            "captures",
            "results",
            "choices",
            "pictures",
            "statements",
            "comparisons",
            "checks",
            "mistakes",
            "rig",
            "finish");

    private final String text;
    private final TextLines lines;
    private final NodeMarks marks;
    private final MappingNode root;

    private SheetText(String text, MappingNode root) {
        this.text = text;
        this.lines = new TextLines(text);
        this.marks = new NodeMarks(text);
        this.root = root;
    }

    /** A stretch of the text, from the first character to the one after the last. */
    public record Span(int from, int to) {}

    /** @throws IllegalArgumentException with one sentence where the text is no YAML, or no sheet */
    public static SheetText of(String text) {
        try {
            LoaderOptions options = new LoaderOptions();
            options.setNestingDepthLimit(40);
            options.setMaxAliasesForCollections(20);
            if (new Yaml(new SafeConstructor(options)).compose(new StringReader(text)) instanceof MappingNode m) {
                return new SheetText(text, m);
            }
        } catch (YAMLException e) {
            throw new IllegalArgumentException(
                    "The sheet cannot be changed while its YAML cannot be read; mend that first.", e);
        }
        throw new IllegalArgumentException("This is no method sheet; nothing was changed.");
    }

    public String text() {
        return text;
    }

    /** True when there is such an entry. */
    public boolean has(String pointer) {
        return find(pointer).isPresent();
    }

    /** True for an entry that has entries of its own. */
    public boolean isMapping(String pointer) {
        return find(pointer).filter(MappingNode.class::isInstance).isPresent();
    }

    /** Where the value of an entry stands; without the blanks and comments after it. */
    public Optional<Span> span(String pointer) {
        return find(pointer).map(n -> new Span(marks.start(n), marks.end(n)));
    }

    /** Where the name of an entry of a mapping stands. */
    public Optional<Span> name(String pointer) {
        return find(above(pointer))
                .filter(MappingNode.class::isInstance)
                .flatMap(m -> tuple((MappingNode) m, last(pointer)))
                .map(t -> new Span(marks.start(t.getKeyNode()), marks.end(t.getKeyNode())));
    }

    /** The names of the entries of a mapping, in the order of the text; none where there is no such mapping. */
    public List<String> names(String pointer) {
        return find(pointer)
                .filter(MappingNode.class::isInstance)
                .map(n -> ((MappingNode) n).getValue().stream().map(t -> key(t)).toList())
                .orElse(List.of());
    }

    /** The text of an entry that is one word or number. */
    public Optional<String> value(String pointer) {
        return find(pointer).filter(ScalarNode.class::isInstance).map(n -> ((ScalarNode) n).getValue());
    }

    /** How many items a list has; 0 where there is none. */
    public int size(String pointer) {
        return find(pointer)
                .filter(SequenceNode.class::isInstance)
                .map(n -> ((SequenceNode) n).getValue().size())
                .orElse(0);
    }

    /** A single word or number of the sheet: what it is called, what it says, where. */
    public record Leaf(String pointer, String value, Span span, boolean name) {}

    /** All words and numbers of the sheet, names of entries among them, in the order of the text. */
    public List<Leaf> leaves() {
        List<Leaf> out = new ArrayList<>();
        leaves(root, "", out);
        return out;
    }

    private void leaves(Node node, String pointer, List<Leaf> out) {
        if (node instanceof ScalarNode s) {
            out.add(new Leaf(pointer, s.getValue(), new Span(marks.start(s), marks.end(s)), false));
        } else if (node instanceof SequenceNode l) {
            for (int i = 0; i < l.getValue().size(); i++) {
                if (marks.start(l.getValue().get(i)) >= marks.start(l)) {
                    leaves(l.getValue().get(i), pointer + "/" + i, out);
                }
            }
        } else if (node instanceof MappingNode m) {
            for (NodeTuple t : m.getValue()) {
                String at = pointer + "/" + key(t);
                out.add(new Leaf(at, key(t), new Span(marks.start(t.getKeyNode()), marks.end(t.getKeyNode())), true));
                // What an alias stands for is met where it is written.
                if (!NodeMarks.isAlias(t)) {
                    leaves(t.getValueNode(), at, out);
                }
            }
        }
    }

    /** The innermost entry whose name or value a character of the text belongs to; empty for none. */
    public String pointerAt(int offset) {
        String best = "";
        int width = Integer.MAX_VALUE;
        for (Leaf l : leaves()) {
            if (l.name()) {
                Span value = span(l.pointer()).orElse(l.span());
                int from = l.span().from();
                int to = Math.max(l.span().to(), value.to());
                if (from <= offset && offset <= to && to - from <= width) {
                    best = l.pointer();
                    width = to - from;
                }
            }
        }
        return best;
    }

    /**
     * The sheet with an entry set: its value exchanged where it is there, written after its neighbours where it is not.
     * Entries above it that are missing are made.
     *
     * @param value text, a number, true or false, a list or a map of these; in a map null stands for what is left out
     * @throws IllegalArgumentException with one sentence where it stands in a part that several entries share
     */
    public SheetText with(String pointer, Object value) {
        Optional<Node> there = find(pointer);
        if (there.isPresent()) {
            Node n = there.get();
            String by = WrittenYaml.flow(value);
            int from = marks.start(n);
            // A block stands below its name.
            Optional<Span> name = name(pointer);
            if (name.isPresent() && n instanceof CollectionNode<?> c && !NodeMarks.isFlow(c)) {
                from = text.indexOf(':', name.get().to()) + 1;
                by = " " + by;
            }
            return changed(from, marks.end(n), by);
        }
        String above = above(pointer);
        String last = last(pointer);
        Optional<Node> parent = find(above);
        if (parent.isEmpty()) {
            return with(above, Map.of(last, value));
        }
        if (parent.get() instanceof MappingNode m) {
            return inserted(m, last, value);
        }
        throw new IllegalArgumentException("The sheet has no room for " + last + " there; write it at the desk.");
    }

    /** The sheet with an item at the end of a list; the list is made where it is missing. */
    public SheetText plus(String pointer, Object item) {
        Optional<Node> there = find(pointer);
        if (there.isEmpty()) {
            return with(pointer, List.of(item));
        }
        if (!(there.get() instanceof SequenceNode l)) {
            throw new IllegalArgumentException(
                    "The sheet has no list " + last(pointer) + " there; write it at the desk.");
        }
        String by = WrittenYaml.flow(item);
        if (l.getValue().isEmpty()) {
            return NodeMarks.isFlow(l)
                    ? changed(marks.end(l) - 1, marks.end(l) - 1, by)
                    : changed(marks.end(l), marks.end(l), " [" + by + "]");
        }
        Node tail = l.getValue().get(l.getValue().size() - 1);
        if (NodeMarks.isFlow(l)) {
            return changed(marks.end(tail), marks.end(tail), ", " + by);
        }
        Node first = l.getValue().get(0);
        int dash = text.lastIndexOf('-', marks.start(first));
        return changed(
                lines.lineEnd(marks.end(tail)),
                lines.lineEnd(marks.end(tail)),
                lines.newline() + " ".repeat(lines.column(dash)) + "- " + by);
    }

    /** The sheet without an entry of a mapping or an item of a list; as it is where there is none. */
    public SheetText without(String pointer) {
        Optional<Node> there = find(pointer);
        if (there.isEmpty()) {
            return this;
        }
        Node parent = find(above(pointer)).orElseThrow();
        CollectionNode<?> all = (CollectionNode<?>) parent;
        if (all.getValue().size() == 1) {
            return with(above(pointer), parent instanceof MappingNode ? Map.of() : List.of());
        }
        int from;
        int index;
        List<Integer> starts = new ArrayList<>();
        List<Integer> ends = new ArrayList<>();
        if (parent instanceof MappingNode m) {
            m.getValue().forEach(t -> {
                starts.add(marks.start(t.getKeyNode()));
                ends.add(marks.end(t));
            });
            index = m.getValue().indexOf(tuple(m, last(pointer)).orElseThrow());
        } else {
            ((SequenceNode) parent).getValue().forEach(n -> {
                starts.add(marks.start(n));
                ends.add(marks.end(n));
            });
            index = Integer.parseInt(last(pointer));
        }
        if (NodeMarks.isFlow(all)) {
            return index + 1 < starts.size()
                    ? changed(starts.get(index), starts.get(index + 1), "")
                    : changed(ends.get(index - 1), ends.get(index), "");
        }
        from = lines.lineStart(starts.get(index));
        int to = lines.lineEnd(ends.get(index));
        if (to < text.length()) {
            to = text.indexOf('\n', to) + 1;
        } else if (from > 0) {
            from = lines.lineEnd(from - (text.startsWith("\r\n", from - 2) ? 2 : 1));
        }
        return changed(from, to, "");
    }

    private SheetText inserted(MappingNode m, String name, Object value) {
        if (m.getValue().isEmpty()) {
            int indent = m == root ? 0 : lines.column(lines.lineIndent(marks.start(m))) + 2;
            boolean line = m == root || (value instanceof Map<?, ?> || value instanceof Block) && isLastOnLine(m);
            String entry = line
                    ? lines.newline() + " ".repeat(indent) + WrittenYaml.named(name, value, indent, lines.newline())
                    : "{" + WrittenYaml.key(name) + ": " + WrittenYaml.flow(value) + "}";
            int from = line && marks.start(m) > 0 && text.charAt(marks.start(m) - 1) == ' '
                    ? marks.start(m) - 1
                    : marks.start(m);
            return changed(from, marks.end(m), entry);
        }
        NodeTuple tail = before(m, name);
        if (NodeMarks.isFlow(m)) {
            return changed(
                    marks.end(tail), marks.end(tail), ", " + WrittenYaml.key(name) + ": " + WrittenYaml.flow(value));
        }
        int indent = lines.column(marks.start(m.getValue().get(0).getKeyNode()));
        int at = lines.lineEnd(marks.end(tail));
        return changed(
                at, at, lines.newline() + " ".repeat(indent) + WrittenYaml.named(name, value, indent, lines.newline()));
    }

    /**
     * The entry after which a new one is written: parts of the sheet in their usual order, anything else at the end.
     */
    private NodeTuple before(MappingNode m, String name) {
        List<NodeTuple> all = m.getValue();
        int place = m == root ? ORDER.indexOf(name) : -1;
        if (place >= 0) {
            for (int i = all.size() - 1; i >= 0; i--) {
                int there = ORDER.indexOf(key(all.get(i)));
                if (there >= 0 && there < place) {
                    return all.get(i);
                }
            }
        }
        return all.get(all.size() - 1);
    }

    private boolean isLastOnLine(Node n) {
        String rest = text.substring(marks.end(n), lines.lineEnd(marks.end(n)));
        return rest.isBlank() || rest.strip().startsWith("#");
    }

    private SheetText changed(int from, int to, String by) {
        try {
            return of(text.substring(0, from) + by + text.substring(to));
        } catch (IllegalArgumentException e) {
            throw new IllegalArgumentException(
                    "Another entry of the sheet shares what stands there; write this change at the desk.", e);
        }
    }

    private Optional<Node> find(String pointer) {
        Node at = root;
        for (String part : pointer.isEmpty()
                ? List.<String>of()
                : Arrays.asList(pointer.substring(1).split("/", -1))) {
            Node next = null;
            if (at instanceof MappingNode m) {
                NodeTuple t = tuple(m, part).orElse(null);
                if (t != null && NodeMarks.isAlias(t)) {
                    throw new IllegalArgumentException("What stands at " + part
                            + " is shared with another entry of the sheet; write this change at the desk.");
                }
                next = t == null ? null : t.getValueNode();
            } else if (at instanceof SequenceNode l && part.matches("\\d{1,6}")) {
                int i = Integer.parseInt(part);
                next = i < l.getValue().size() ? l.getValue().get(i) : null;
            }
            if (next == null) {
                return Optional.empty();
            }
            at = next;
        }
        return Optional.of(at);
    }

    private static Optional<NodeTuple> tuple(MappingNode m, String name) {
        return m.getValue().stream().filter(t -> key(t).equals(name)).findFirst();
    }

    private static String key(NodeTuple t) {
        return t.getKeyNode() instanceof ScalarNode s ? s.getValue() : "";
    }

    private static String above(String pointer) {
        return pointer.substring(0, Math.max(0, pointer.lastIndexOf('/')));
    }

    private static String last(String pointer) {
        return pointer.substring(pointer.lastIndexOf('/') + 1);
    }
}
