package eagerneedle.app.capture;

import eagerneedle.app.station.Desk;
import eagerneedle.app.workbench.LiveRig;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.Capture;
import java.io.IOException;
import javafx.scene.Node;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.Region;
import org.jspecify.annotations.Nullable;

/** One of the five ways to capture: how a run begins, what is done while it lasts, and when it is over. */
abstract class CaptureMode implements RunTaking {
    final Desk desk;
    final Capture plan;

    CaptureMode(Desk desk, Capture plan) {
        this.desk = desk;
        this.plan = plan;
    }

    /** The mode that a capture of the sheet names. */
    static CaptureMode of(Desk desk, Capture plan) {
        return switch (plan.mode()) {
            case "shot" -> new ShotMode(desk, plan);
            case "gate" -> new GateMode(desk, plan);
            case "prompted" -> new PromptedMode(desk, plan);
            case "hold" -> new HoldMode(desk, plan);
            default -> new StreamMode(desk, plan);
        };
    }

    /** Words of the button that begins. */
    String begins() {
        return "Start";
    }

    /** Words of the same button while it lasts. */
    String ends() {
        return "Stop";
    }

    @Override
    public void begin(LiveRig rig, Run run) throws IOException {
        rig.record(run, desk.bench().file());
    }

    /** True between begin and end, whether samples are being kept already or not. */
    boolean lasts(LiveRig rig) {
        return rig.isRecording();
    }

    /** The clock of the run. */
    String clock(LiveRig rig) {
        return Notation.sentence("%.1f s", Math.max(0, rig.clock(first())));
    }

    final String first() {
        return plan.channels().get(0);
    }

    /** Looks on, about thirty times a second; the reason when the run is over by itself, null while it goes on. */
    abstract @Nullable String tick(LiveRig rig);

    /** Shows what is to be seen whether a run lasts or not. */
    void look(LiveRig rig) {}

    @Override
    public Run ended(Run run) {
        return run;
    }

    /** Controls and numbers of this mode; an empty region when it has none. */
    Node panel() {
        Region none = new Region();
        none.setManaged(false);
        return none;
    }

    /** A key while the station has the keyboard; true when it was meant for this mode. */
    boolean key(KeyCode key) {
        return false;
    }

    @Override
    public boolean needsSamples() {
        return true;
    }
}
