package eagerneedle.core.edit;

import java.util.Objects;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.yaml.snakeyaml.DumperOptions;
import org.yaml.snakeyaml.nodes.CollectionNode;
import org.yaml.snakeyaml.nodes.Node;
import org.yaml.snakeyaml.nodes.NodeTuple;
import org.yaml.snakeyaml.nodes.ScalarNode;

/** Where nodes of a YAML text begin and end in it, as strings count: without the blanks and comments after them. */
final class NodeMarks {
    private static final Pattern ALIAS = Pattern.compile("\\*[^\\s,\\]}]+");

    private final String text;

    NodeMarks(String text) {
        this.text = text;
    }

    static boolean isFlow(CollectionNode<?> n) {
        return n.getFlowStyle() == DumperOptions.FlowStyle.FLOW;
    }

    int start(Node n) {
        return at(n.getStartMark().getIndex());
    }

    /** The end of what is written: the mark of a block goes on to the next entry, over blanks and comments. */
    int end(Node n) {
        if (n instanceof CollectionNode<?> c && !isFlow(c)) {
            if (c.getValue().isEmpty()) {
                return start(n);
            }
            @Nullable Object tail = c.getValue().get(c.getValue().size() - 1);
            if (tail instanceof NodeTuple t) {
                return end(t);
            }
            return end((Node) Objects.requireNonNull(tail));
        }
        int end = at(n.getEndMark().getIndex());
        if (n instanceof ScalarNode s
                && s.getScalarStyle() != DumperOptions.ScalarStyle.DOUBLE_QUOTED
                && s.getScalarStyle() != DumperOptions.ScalarStyle.SINGLE_QUOTED) {
            while (end > start(n) && Character.isWhitespace(text.charAt(end - 1))) {
                end--;
            }
        }
        return end;
    }

    static boolean isAlias(NodeTuple t) {
        return t.getValueNode().getStartMark().getIndex()
                < t.getKeyNode().getStartMark().getIndex();
    }

    /** The end of an entry's value; of a reference to what is written elsewhere, the end of its name. */
    int end(NodeTuple t) {
        if (!isAlias(t)) {
            return Math.max(end(t.getKeyNode()), end(t.getValueNode()));
        }
        Matcher m = ALIAS.matcher(text);
        return m.find(end(t.getKeyNode())) ? m.end() : end(t.getKeyNode());
    }

    /** Marks count characters beyond the basic plane once, strings twice. */
    private int at(int index) {
        return text.offsetByCodePoints(0, Math.min(index, text.codePointCount(0, text.length())));
    }
}
