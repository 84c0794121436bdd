package eagerneedle.app.capture;

import eagerneedle.app.workbench.LiveRig;
import eagerneedle.core.session.Run;
import java.io.IOException;

/** How a run is begun and ended, whatever is shown of it meanwhile. */
interface RunTaking {
    /** Begins; what the bench does by itself has been told to it already. */
    void begin(LiveRig rig, Run run) throws IOException;

    /** The run as it is to be kept: what was entered with it is added. */
    Run ended(Run run);

    /** False when only a mark was set in time, so that a run without one sample of its own is still a run. */
    boolean needsSamples();
}
