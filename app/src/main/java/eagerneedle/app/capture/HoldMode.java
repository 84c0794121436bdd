package eagerneedle.app.capture;

import eagerneedle.app.plot.PictureView;
import eagerneedle.app.station.Desk;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.OutputPanel;
import eagerneedle.app.widget.Theme;
import eagerneedle.app.workbench.LiveRig;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.Capture;
import eagerneedle.picture.TrimNeedle;
import eagerneedle.rig.driver.OutputGuard;
import java.io.IOException;
import javafx.geometry.VPos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;

/** Waits until every channel is steady, then keeps so many samples as one row. */
final class HoldMode extends CaptureMode {
    private final Label state = Labels.quiet("");
    private final Button anyway = new Button("Take it as it is");
    private final CheckBox all = new CheckBox("all levels, one after the other");
    private final PictureView needle = new PictureView("How far from its target", null);
    private final StackPane turned = new StackPane();
    private final VBox panel;
    private final HoldModel model;
    private @Nullable Run waiting;
    private String stopped = "";

    HoldMode(Desk desk, Capture plan) {
        super(desk, plan);
        model = new HoldModel(desk, plan);
        state.setId("hold-state");
        state.setWrapText(true);
        state.setMinHeight(Region.USE_PREF_SIZE);
        state.setText("Set the level; then the program waits until it is steady and averages "
                + plan.holdPlan().samples() + " samples.");
        anyway.setId("hold-anyway");
        anyway.setOnAction(e -> model.takeAnyway());
        anyway.setVisible(false);
        anyway.managedProperty().bind(anyway.visibleProperty());
        Labels.explained(anyway, "Keeps the row though it is not steady; the watches will say so");
        all.setId("all-levels");
        Labels.explained(
                all,
                "Sets each level, waits until it is steady, keeps the row and goes on; stops where a channel is saturated or "
                        + "a rule refuses the row");
        boolean alone = plan.byEye().isEmpty()
                && plan.levels().size() > 1
                && (plan.levels().values().stream().noneMatch(l -> l.outputs().isEmpty())
                        || plan.seek() != null && plan.seek().byProgram());
        show(all, alone);
        needle.setId("seek-needle");
        needle.setPrefSize(340, 150);
        needle.setMaxWidth(Theme.px(420));
        show(needle, plan.seek() != null);
        FlowPane acts = new FlowPane(12, 6, all, anyway);
        acts.setRowValignment(VPos.CENTER);
        panel = new VBox(4, state, acts, needle, turned);
        Labels.shown(turned, false);
    }

    private static void show(Node node, boolean on) {
        Labels.shown(node, on);
    }

    /** True while rows are taken level after level without being asked. */
    boolean isAutomatic() {
        return all.isSelected() && all.isVisible();
    }

    /** No further level is taken by itself; why. */
    void endAutomatic(String why) {
        all.setSelected(false);
        state.setText(why);
    }

    @Override
    String begins() {
        return "Take when steady";
    }

    @Override
    public void begin(LiveRig rig, Run run) {
        model.begin(rig, run.level(), rig.clock(first()));
        waiting = run;
        turnedByHand(rig);
        anyway.setVisible(false);
    }

    /** Where a person turns an output until the target is there, its controls stand below the needle. */
    private void turnedByHand(LiveRig rig) {
        String output = plan.seek() == null || plan.seek().byProgram()
                ? null
                : plan.seek().output();
        OutputGuard g = output == null ? null : rig.outputs().get(output);
        boolean there = output != null && g != null;
        if (output != null && g != null) {
            turned.getChildren().setAll(new OutputPanel(output, g.limits(), g));
        }
        show(turned, there);
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
    @Nullable
    String tick(LiveRig rig) {
        if (waiting == null) {
            return rig.isRecording() && rig.count(first()) >= plan.holdPlan().samples() ? "" : null;
        }
        turned.getChildren().forEach(n -> ((OutputPanel) n).tick());
        boolean taking = model.look(rig, rig.clock(first()));
        state.setText(model.says());
        model.seek()
                .ifPresent(s -> needle.show((p, w, h) -> TrimNeedle.paint(
                        p,
                        s.reading(),
                        s.target().target().value(),
                        s.target().band(),
                        s.target().target().unit().pretty(),
                        w,
                        h)));
        anyway.setVisible(model.isImpatient());
        if (isAutomatic() && !model.beyond().isEmpty()) {
            stopped = "Stopped: " + model.beyond() + " is beyond its range at this level.";
            return stopped;
        }
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
        state.setText(stopped.isEmpty() ? "Not taken." : stopped);
        stopped = "";
        all.setSelected(false);
        anyway.setVisible(false);
    }

    @Override
    Node panel() {
        return panel;
    }
}
