package eagerneedle.app.widget;

import eagerneedle.app.workbench.Fault;
import java.util.Optional;
import javafx.scene.Node;
import javafx.scene.Scene;

/** One sentence to the person at the window, shown on the board of the window that a node is in. */
public final class Notices {
    /** Id of the node in a window that is its {@link Board}. */
    public static final String BOARD = "watch-strip";

    /** Where a window shows sentences. */
    public interface Board {
        /** Says something for a few seconds. */
        void say(String sentence, boolean warning);

        /** What a live watch sees now; empty when all is well. */
        void live(String sentence);
    }

    private Notices() {}

    public static void tell(Node node, String sentence) {
        send(node, sentence, false);
    }

    public static void warn(Node node, String sentence) {
        send(node, sentence, true);
    }

    /** Runs an act; whatever it complains of is shown as one sentence. True when it went well. */
    public static boolean attempt(Node node, Runnable act) {
        try {
            act.run();
            return true;
        } catch (RuntimeException e) {
            warn(node, Fault.said(e));
            return false;
        }
    }

    /** What a live watch sees now; empty when all is well. */
    public static void live(Node node, String sentence) {
        board(node).ifPresent(b -> b.live(sentence));
    }

    /** Looked for once in each window: what watches see is said with every few frames. */
    private static Optional<Board> board(Node node) {
        Scene scene = node.getScene();
        if (scene == null) {
            return Optional.empty();
        }
        if (!(scene.getProperties().get(BOARD) instanceof Node known && known.getScene() == scene)) {
            scene.getProperties().put(BOARD, scene.lookup("#" + BOARD));
        }
        return scene.getProperties().get(BOARD) instanceof Board board ? Optional.of(board) : Optional.empty();
    }

    private static void send(Node node, String sentence, boolean warning) {
        board(node).ifPresent(b -> b.say(sentence, warning));
    }
}
