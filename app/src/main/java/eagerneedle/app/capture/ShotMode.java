package eagerneedle.app.capture;

import eagerneedle.app.station.Desk;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.workbench.LiveRig;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.Capture;
import java.io.IOException;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.layout.Region;
import org.jspecify.annotations.Nullable;

/** Armed: keeps what lies from a little before the trigger to a little after it, then is over by itself. */
final class ShotMode extends CaptureMode {
    private final ShotModel model;
    private final Label state;

    ShotMode(Desk desk, Capture plan) {
        super(desk, plan);
        model = new ShotModel(desk, plan);
        state = Labels.quiet(model.begins());
        state.setId("shot-state");
        state.setWrapText(true);
        state.setMinHeight(Region.USE_PREF_SIZE);
    }

    @Override
    String begins() {
        return "Arm";
    }

    @Override
    String ends() {
        return "Disarm";
    }

    @Override
    public void begin(LiveRig rig, Run run) throws IOException {
        rig.arm(run, desk.bench().file(), plan.shotPlan());
    }

    @Override
    String clock(LiveRig rig) {
        model.look(rig.isArmed(), rig.isShotDone());
        return model.word();
    }

    @Override
    @Nullable
    String tick(LiveRig rig) {
        boolean done = model.look(rig.isArmed(), rig.isShotDone());
        state.setText(model.says());
        return done ? "" : null;
    }

    @Override
    Node panel() {
        return state;
    }
}
