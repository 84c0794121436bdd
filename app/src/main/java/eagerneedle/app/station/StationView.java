package eagerneedle.app.station;

import java.util.Optional;
import javafx.scene.Node;

/** The work surface of one station. */
public interface StationView {
    Node node();

    /** The session changed, or its preview did. */
    void refresh();

    /** What takes the keyboard when the station is entered; empty for the dial. */
    default Optional<Node> focus() {
        return Optional.empty();
    }

    /** Takes an act of its own back, or does it again; false leaves that to the session. */
    default boolean step(boolean back) {
        return false;
    }

    /** Called about thirty times a second while the station is shown. */
    default void tick() {}

    /** Something else took its place and it is not shown again. */
    default void left() {}
}
