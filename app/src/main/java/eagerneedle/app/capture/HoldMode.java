package eagerneedle.app.capture;

import eagerneedle.app.station.Desk;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.workbench.LiveRig;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.Capture;
import java.io.IOException;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;

/** Waits until every channel is steady, then keeps so many samples as one row. */
final class HoldMode extends CaptureMode {
    private final Label state = Labels.quiet("");
    private final Button anyway = new Button("Take it as it is");
    private final HBox panel;
    private final HoldModel model;
    private Run waiting;

    HoldMode(Desk desk, Capture plan) {
        super(desk, plan);
        model = new HoldModel(desk, plan);
        state.setId("hold-state");
        state.setWrapText(true);
        state.setText("Set the level; then the program waits until it is steady and averages "
                + plan.hold().samples() + " samples.");
        anyway.setId("hold-anyway");
        anyway.setOnAction(e -> model.takeAnyway());
        anyway.setVisible(false);
        Labels.explained(anyway, "Keeps the row though it is not steady; the watches will say so");
        panel = new HBox(12, state, anyway);
        panel.setAlignment(Pos.CENTER_LEFT);
    }

    @Override
    String begins() {
        return "Take when steady";
    }

    @Override
    public void begin(LiveRig rig, Run run) {
        waiting = run;
        model.begin(rig.clock(first()));
        anyway.setVisible(false);
    }

    @Override
    boolean lasts(LiveRig rig) {
        return waiting != null || rig.isRecording();
    }

    @Override
    String clock(LiveRig rig) {
        return waiting != null ? "waiting" : rig.isRecording() ? "taking" : "";
    }

    @Override
    String tick(LiveRig rig) {
        if (waiting == null) {
            return rig.isRecording() && rig.count(first()) >= plan.hold().samples() ? "" : null;
        }
        boolean taking = model.look(rig, rig.clock(first()));
        state.setText(model.says());
        anyway.setVisible(model.isImpatient());
        if (taking) {
            Run run = waiting;
            stop();
            try {
                rig.record(run, desk.bench().file());
            } catch (IOException e) {
                return e.getMessage();
            }
        }
        return null;
    }

    private void stop() {
        waiting = null;
        model.stop();
    }

    @Override
    public Run ended(Run run) {
        stop();
        state.setText("Taken. Enter what was read by eye, then keep the row.");
        anyway.setVisible(false);
        return run;
    }

    /** Gives up waiting. */
    void cancel() {
        stop();
        state.setText("Not taken.");
        anyway.setVisible(false);
    }

    @Override
    Node panel() {
        return panel;
    }
}
