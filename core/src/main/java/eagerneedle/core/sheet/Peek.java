package eagerneedle.core.sheet;

import java.io.StringReader;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import org.yaml.snakeyaml.LoaderOptions;
import org.yaml.snakeyaml.Yaml;
import org.yaml.snakeyaml.constructor.SafeConstructor;
import org.yaml.snakeyaml.nodes.MappingNode;
import org.yaml.snakeyaml.nodes.Node;
import org.yaml.snakeyaml.nodes.NodeTuple;
import org.yaml.snakeyaml.nodes.ScalarNode;

/** Single entries of a sheet's text, before anything of it is checked. */
final class Peek {
    private Peek() {}

    /**
     * The whole text.
     *
     * @throws org.yaml.snakeyaml.error.YAMLException where it is none
     */
    static Node at(String text) {
        LoaderOptions options = new LoaderOptions();
        options.setMaxAliasesForCollections(20);
        options.setNestingDepthLimit(40);
        return new Yaml(new SafeConstructor(options)).compose(new StringReader(text));
    }

    static Optional<Node> entry(Node of, String name) {
        return Optional.ofNullable(entries(of).get(name));
    }

    /** A text or a number; empty for anything else. */
    static Optional<String> text(Node of, String name) {
        return entry(of, name).filter(ScalarNode.class::isInstance).map(n -> ((ScalarNode) n).getValue());
    }

    static Map<String, Node> entries(Node of) {
        Map<String, Node> out = new LinkedHashMap<>();
        if (of instanceof MappingNode m) {
            for (NodeTuple t : m.getValue()) {
                if (t.getKeyNode() instanceof ScalarNode k) {
                    out.put(k.getValue(), t.getValueNode());
                }
            }
        }
        return out;
    }
}
