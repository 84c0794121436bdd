package eagerneedle.app.capture;

import eagerneedle.app.station.Desk;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.workbench.LiveReadings;
import eagerneedle.app.workbench.LiveRig;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.trace.Trace;
import eagerneedle.core.trace.WindowStatistics;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;

/** Waits until every channel is steady, then keeps so many samples as one row. */
final class HoldMode extends CaptureMode {
    private static final double STEADY = 3;
    private final Label state = Labels.quiet("");
    private final Button anyway = new Button("Take it as it is");
    private final HBox panel;
    private Run waiting;
    private double since;
    private boolean forced;

    HoldMode(Desk desk, Capture plan) {
        super(desk, plan);
        state.setId("hold-state");
        state.setWrapText(true);
        state.setText("Set the level; then the program waits until it is steady and averages "
                + plan.hold().samples() + " samples.");
        anyway.setId("hold-anyway");
        anyway.setOnAction(e -> forced = true);
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
    void begin(LiveRig rig, Run run) {
        waiting = run;
        forced = false;
        since = rig.clock(first());
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
        double waited = rig.clock(first()) - since;
        List<String> not = restless(rig, waited);
        boolean patient = waited < plan.hold().patience();
        state.setText(not.isEmpty() ? "Steady." : "Waiting: " + String.join(", ", not) + ".");
        anyway.setVisible(!patient);
        if (not.isEmpty() || forced) {
            Run run = waiting;
            waiting = null;
            try {
                rig.record(run, desk.bench().file());
            } catch (IOException e) {
                return e.getMessage();
            }
        }
        return null;
    }

    /** What is not steady yet, in words. */
    private List<String> restless(LiveRig rig, double waited) {
        List<String> not = new ArrayList<>();
        if (!rig.typed().isEmpty()) {
            return not;
        }
        for (String name : plan.channels()) {
            Channel c = desk.bench().session().channel(desk.bench().sheet(), name);
            Trace t = LiveReadings.trace(
                    c, LiveReadings.since(rig.last(name, plan.hold().seconds()), since));
            int wanted = (int) (0.8 * plan.hold().seconds() * c.rate());
            if (waited < 0.9 * plan.hold().seconds() || t.size() < Math.max(4, wanted)) {
                not.add(c.label() + " is being looked at");
                continue;
            }
            WindowStatistics w = WindowStatistics.of(t);
            if (LiveReadings.disturbed(t)) {
                not.add(c.label() + " was disturbed");
            } else if (!w.steady(STEADY)) {
                not.add(c.label() + " drifts by " + Notation.plain(w.slope(), 2) + " "
                        + c.labUnit().difference().pretty() + "/s");
            }
        }
        return not;
    }

    @Override
    Run ended(Run run) {
        waiting = null;
        state.setText("Taken. Enter what was read by eye, then keep the row.");
        anyway.setVisible(false);
        return run;
    }

    /** Gives up waiting. */
    void cancel() {
        waiting = null;
        state.setText("Not taken.");
        anyway.setVisible(false);
    }

    @Override
    Node panel() {
        return panel;
    }
}
