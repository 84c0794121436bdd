package eagerneedle.core.sheet;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import eagerneedle.core.chain.Link;
import eagerneedle.core.stockroom.Instrument;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import org.yaml.snakeyaml.error.YAMLException;
import org.yaml.snakeyaml.nodes.Node;
import org.yaml.snakeyaml.nodes.ScalarNode;
import org.yaml.snakeyaml.nodes.SequenceNode;

/**
 * Links that a chain takes from the stockroom by serial. What they are is written to the end of the sheet, under
 * {@code stocked}, when the sheet is taken from its file: a session holds its sheet whole and can be read where there
 * is no such instrument, and an instrument that is changed later does not change sessions that are past. Lines stay
 * where they are.
 */
public final class StockedLinks {
    private static final String BLOCK = "stocked";

    private StockedLinks() {}

    /**
     * A sheet with the instruments that its chains name by serial; the same text where there are none, and where it
     * cannot be read as YAML, which is told elsewhere.
     *
     * @param find the stockroom
     */
    public static String written(String text, Function<String, Optional<Instrument>> find) {
        Map<String, Link> found = new LinkedHashMap<>();
        for (String name : named(text)) {
            find.apply(name).ifPresent(i -> {
                Link link = i.link();
                if (link != null) {
                    found.put(name, link.named(i.id(), link.label()));
                }
            });
        }
        if (found.isEmpty()) {
            return text;
        }
        StringBuilder b = new StringBuilder(text);
        b.append(text.endsWith("\n") ? "" : "\n").append(BLOCK).append(":\n");
        found.forEach((name, link) ->
                b.append("  ").append(name).append(": ").append(json(link)).append('\n'));
        return b.toString();
    }

    private static String json(Link link) {
        try {
            return new ObjectMapper().writeValueAsString(link);
        } catch (JsonProcessingException e) {
            throw new IllegalStateException(e);
        }
    }

    /** Names in chains that the sheet does not declare itself. */
    private static Set<String> named(String text) {
        Set<String> names = new LinkedHashSet<>();
        if (text.length() > SheetReader.LARGEST || !text.contains("chain")) {
            return names;
        }
        try {
            Node root = Peek.at(text);
            Peek.entry(root, "channels")
                    .ifPresent(channels -> Peek.entries(channels)
                            .forEach((c, channel) -> Peek.entry(channel, "chain")
                                    .filter(SequenceNode.class::isInstance)
                                    .ifPresent(chain -> ((SequenceNode) chain)
                                            .getValue().stream()
                                                    .filter(ScalarNode.class::isInstance)
                                                    .forEach(n -> names.add(((ScalarNode) n).getValue())))));
            for (String block : List.of("links", BLOCK)) {
                Peek.entry(root, block)
                        .ifPresent(l -> names.removeAll(Peek.entries(l).keySet()));
            }
            return Peek.entry(root, BLOCK).isPresent() ? Set.of() : names;
        } catch (YAMLException told) {
            return Set.of();
        }
    }
}
