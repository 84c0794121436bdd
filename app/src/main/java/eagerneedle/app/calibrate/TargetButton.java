package eagerneedle.app.calibrate;

import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Theme;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** One thing to calibrate: its mark, its name, how it is calibrated. */
final class TargetButton extends ToggleButton {
    private static final double WIDE = 128;
    private final Label sign = new Label();
    private final Label label = new Label();
    private final Label kind = Labels.quiet("");

    TargetButton(String key) {
        setId("calibrate-" + key.replace(' ', '-'));
        sign.setMinWidth(Region.USE_PREF_SIZE);
        for (Label l : new Label[] {label, kind}) {
            l.setMinWidth(0);
            l.setPrefWidth(Theme.px(WIDE));
        }
        setGraphic(new HBox(7, sign, new VBox(0, label, kind)));
        setMaxWidth(Double.MAX_VALUE);
        setAlignment(Pos.CENTER_LEFT);
        getStyleClass().add("quiet-button");
    }

    void show(TargetsModel.Target target) {
        label.setText(target.label());
        kind.setText(target.kind());
        sign.setText(target.standing().mark());
        for (TargetsModel.Standing s : TargetsModel.Standing.values()) {
            Labels.styled(sign, s.style(), s == target.standing());
        }
        setAccessibleText(target.label() + ", " + target.state());
        Labels.explained(this, target.state());
    }
}
