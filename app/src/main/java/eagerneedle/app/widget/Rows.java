package eagerneedle.app.widget;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.BiConsumer;
import java.util.function.Function;
import javafx.scene.Node;
import javafx.scene.layout.Pane;
import org.jspecify.annotations.Nullable;

/**
 * Shows a list of things, one node each, and keeps the node of a thing that is shown already, with the focus, the
 * half-written words and the place in a scroll that it has; only what is new is made, only what is different changed.
 *
 * @param <T> what a row shows: a value, compared by equals
 */
public final class Rows<T> {
    /** One of several things with the same key. */
    private record Which(Object key, int count) {}

    private interface Maker<T> {
        Node node(T thing, @Nullable Node before);
    }

    private final Pane pane;
    private final Function<? super T, ?> key;
    private final Maker<T> maker;
    private Map<Which, Node> shown = Map.of();

    private Rows(Pane pane, Function<? super T, ?> key, Maker<T> maker) {
        this.pane = pane;
        this.key = key;
        this.maker = maker;
    }

    /**
     * Rows that are made anew when what they show is different.
     *
     * @param pane is filled by this alone
     */
    public Rows(Pane pane, Function<? super T, ? extends Node> make) {
        this(pane, Function.identity(), (thing, before) -> before == null ? make.apply(thing) : before);
    }

    /**
     * Rows that change with what they show; {@code show} is called each time, since a hand may have changed a row too.
     *
     * @param pane is filled by this alone
     * @param key what makes a thing the same thing, however much it changes
     * @param make a row for a key; it is then given its thing by {@code show}
     */
    public static <T, N extends Node> Rows<T> changing(
            Pane pane, Function<? super T, ?> key, Function<? super T, N> make, BiConsumer<? super N, ? super T> show) {
        return new Rows<>(pane, key, (thing, before) -> {
            @SuppressWarnings("unchecked")
            N node = before == null ? make.apply(thing) : (N) before;
            show.accept(node, thing);
            return node;
        });
    }

    /** Shows these, in this order. */
    public void show(List<? extends T> things) {
        Map<Which, Node> next = new HashMap<>();
        List<Node> nodes = new ArrayList<>();
        for (T thing : things) {
            int count = 0;
            while (next.containsKey(new Which(key.apply(thing), count))) {
                count++;
            }
            Which which = new Which(key.apply(thing), count);
            Node node = maker.node(thing, shown.get(which));
            next.put(which, node);
            nodes.add(node);
        }
        shown = next;
        pane.getChildren().removeIf(n -> !nodes.contains(n));
        for (int i = 0; i < nodes.size(); i++) {
            List<Node> children = pane.getChildren();
            if (i >= children.size() || children.get(i) != nodes.get(i)) {
                children.remove(nodes.get(i));
                children.add(i, nodes.get(i));
            }
        }
    }

    /** As {@link #show}, and takes the pane out of the window while there is nothing. */
    public void showOrHide(List<? extends T> things) {
        show(things);
        Labels.shown(pane, !things.isEmpty());
    }
}
