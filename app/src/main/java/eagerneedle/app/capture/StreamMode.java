package eagerneedle.app.capture;

import eagerneedle.app.station.Desk;
import eagerneedle.app.workbench.LiveRig;
import eagerneedle.core.reduce.LiveCondition;
import eagerneedle.core.sheet.Capture;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/** Free running: everything from start to stop, no longer than the sheet says. */
class StreamMode extends CaptureMode {
    private static final double NEWEST = 1;
    private final Optional<LiveCondition> until;

    StreamMode(Desk desk, Capture plan) {
        super(desk, plan);
        until = LiveCondition.until(desk.bench().sheet(), plan);
    }

    @Override
    @Nullable
    String tick(LiveRig rig) {
        if (until.isPresent() && until.get().holds(c -> rig.last(c, NEWEST), rig::all)) {
            return "The run is over: " + until.get().text() + ".";
        }
        return rig.clock(first()) > plan.longest() ? "The run reached its longest time and was stopped." : null;
    }
}
