package eagerneedle.app.rig;

import eagerneedle.app.station.Desk;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.OneOf;
import eagerneedle.app.workbench.LiveRig;
import javafx.geometry.VPos;
import javafx.scene.control.Button;
import javafx.scene.control.ChoiceBox;
import javafx.scene.control.Label;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.VBox;

/** Touch to identify: choose a place, touch it, and see which input answers. */
final class TouchPanel extends VBox {
    private final TouchModel model;
    private final Button exchange = new Button();
    private final Label says = Labels.wrapped("");

    TouchPanel(Desk desk) {
        super(6);
        model = new TouchModel(desk);
        getStyleClass().add("card");
        setId("touch-panel");
        ChoiceBox<String> place = OneOf.of("touch-place", "Place that is touched", model.places(), model::label);
        Button touch = new Button("I touch it now");
        touch.setId("touch-now");
        touch.setOnAction(e -> {
            Notices.attempt(this, () -> model.begin(place.getValue(), now()));
            show();
        });
        Labels.explained(touch, "Warm the probe or press the gauge at that place: the input that answers is found");
        exchange.setId("touch-accept");
        exchange.setOnAction(e -> {
            Notices.attempt(this, model::accept);
            show();
        });
        says.setId("touch-says");
        FlowPane row = new FlowPane(10, 6, Labels.quiet("place"), place, touch, exchange);
        row.setRowValignment(VPos.CENTER);
        getChildren().addAll(Labels.section("Touch to identify"), row, says);
        show();
    }

    private static double now() {
        return System.nanoTime() / 1e9;
    }

    /** Looks whether an input has answered. */
    void tick(LiveRig rig) {
        model.look(rig, now());
        show();
    }

    private void show() {
        TouchModel.Said s = model.said();
        says.setText(s.words());
        Labels.styled(says, "good", s.mood() == TouchModel.Mood.GOOD);
        Labels.styled(says, "attention", s.mood() == TouchModel.Mood.ATTENTION);
        exchange.setText(s.offer());
        exchange.setVisible(!s.offer().isEmpty());
    }
}
