package eagerneedle.app.capture;

import eagerneedle.app.station.Desk;
import eagerneedle.app.workbench.LiveRig;
import eagerneedle.core.sheet.Capture;

/** Free running: everything from start to stop, no longer than the sheet says. */
class StreamMode extends CaptureMode {
    StreamMode(Desk desk, Capture plan) {
        super(desk, plan);
    }

    @Override
    String tick(LiveRig rig) {
        return rig.clock(first()) > plan.longest() ? "The run reached its longest time and was stopped." : null;
    }
}
