package eagerneedle.app.window;

import javafx.scene.Node;

/** One sentence to the person at the window, shown in the watch strip of the window that a node is in. */
public final class Notices {
    private Notices() {
    }

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
            warn(node, e.getMessage() == null ? "That did not work." : e.getMessage());
            return false;
        }
    }

    private static void send(Node node, String sentence, boolean warning) {
        if (node.getScene() != null && node.getScene().lookup("#watch-strip") instanceof WatchStrip strip) {
            strip.say(sentence, warning);
        }
    }
}
