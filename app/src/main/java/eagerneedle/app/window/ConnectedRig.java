package eagerneedle.app.window;

import eagerneedle.app.workbench.LiveRig;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.Sheet;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/** The instruments that are connected, if any are. A recording that goes on is finished before they are let go. */
final class ConnectedRig {
    private @Nullable LiveRig rig;

    Optional<LiveRig> get() {
        return Optional.ofNullable(rig);
    }

    @Nullable
    LiveRig orNull() {
        return rig;
    }

    void connect(LiveRig other) {
        disconnect();
        rig = other;
    }

    void disconnect() {
        LiveRig before = laidAside();
        if (before != null) {
            before.close();
        }
    }

    /** Lets go of them without closing them; null where none were there. */
    @Nullable
    LiveRig laidAside() {
        LiveRig before = rig;
        if (before != null && before.isRecording()) {
            before.finish();
        }
        rig = null;
        return before;
    }

    /** Takes those up again that were laid aside; null for none. */
    void takeUp(@Nullable LiveRig before) {
        rig = before;
    }

    /** Set up as the session says. */
    void setUp(Session session) {
        if (rig != null) {
            rig.setUp(session.setups());
        }
    }

    /** False where a sheet has other instruments or channels than are connected. */
    boolean fits(Sheet sheet) {
        return rig == null || rig.fits(sheet);
    }

    /** What they have to say now; empty where nothing. */
    String news() {
        return rig == null ? "" : rig.news();
    }
}
