package eagerneedle.app.capture;

import eagerneedle.app.station.Desk;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.workbench.LiveRig;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.Capture;
import java.io.IOException;
import javafx.scene.Node;
import javafx.scene.control.Label;

/** Armed: keeps what lies from a little before the trigger to a little after it, then is over by itself. */
final class ShotMode extends CaptureMode {
    private final Label state;
    private final String waitsFor;

    ShotMode(Desk desk, Capture plan) {
        super(desk, plan);
        Capture.ShotPlan s = plan.shot();
        String on = desk.bench()
                .sheet()
                .channels()
                .get(s.on() == null ? first() : s.on())
                .label();
        String way = s.way().equals("either") ? "" : s.way().equals("up") ? "upwards " : "downwards ";
        waitsFor = s.at() != null
                ? on + " passes " + s.at() + " " + way
                : on + " changes " + way + "faster than " + s.rate() + " ";
        state = Labels.quiet("Fires when " + waitsFor.strip() + "; kept from " + Notation.plain(s.before(), 3)
                + " s before to " + Notation.plain(s.after(), 3) + " s after.");
        state.setId("shot-state");
        state.setWrapText(true);
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
    void begin(LiveRig rig, Run run) throws IOException {
        rig.arm(run, desk.bench().file(), plan.shot());
    }

    @Override
    String clock(LiveRig rig) {
        return rig.isArmed() ? "armed" : "fired";
    }

    @Override
    String tick(LiveRig rig) {
        state.setText(rig.isArmed() ? "Armed: waits until " + waitsFor.strip() + "." : "Fired; it is being kept.");
        if (rig.isShotDone()) {
            state.setText("Fired and kept; time 0 is the trigger.");
            return "";
        }
        return null;
    }

    @Override
    Node panel() {
        return state;
    }
}
