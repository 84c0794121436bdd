package eagerneedle.app.station;

import eagerneedle.app.workbench.Home;
import eagerneedle.app.workbench.LiveRig;
import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.session.Run;
import eagerneedle.core.stockroom.Site;
import eagerneedle.core.training.Hunt;
import eagerneedle.store.stockroom.Stockroom;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;

/** What a station may ask of the window around it. */
public interface Desk {
    Workbench bench();

    Optional<LiveRig> rig();

    void connect(LiveRig rig);

    void disconnect();

    void go(Station station);

    /** The instruments of the laboratory. */
    Stockroom stockroom();

    /** What the laboratory says once for all; nothing where that cannot be read. */
    default Site site() {
        try {
            return Home.site();
        } catch (IllegalArgumentException unreadable) {
            return Site.UNSAID;
        }
    }

    /** The bench files that the program knows of, the one in hand first. */
    List<Path> sessions();

    /** Shows what puts a standard right that was wrong, in place of the station; nothing where that is not offered. */
    default void showPutRight(String serial) {}

    /** Shows the check before a class in place of the station; leaving it goes back. */
    void showReady();

    /** Shows the stockroom in place of the station; leaving it goes back. */
    void showStockroom();

    /** The run in hand: its quantities stand in the ledger. */
    Optional<Run> run();

    void choose(Run run);

    /** What is hidden at the simulated bench; empty where nothing is hunted. */
    default Optional<Hunt> hunt() {
        return Optional.empty();
    }

    /** How fast simulated rigs run; 1 for real time. */
    double pace();
}
