package eagerneedle.app.widget;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.sheet.Output;
import eagerneedle.rig.driver.OutputGuard;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;

/** One output of the instrument: what is set, what is wished for, and off. */
public final class OutputPanel extends HBox {
    private final OutputGuard guard;
    private final Label now = Labels.figure("");
    private final String unit;

    /** Of an output by its name, with the limits of the sheet. */
    public OutputPanel(String name, Output limits, OutputGuard guard) {
        super(10);
        this.guard = guard;
        this.unit = LabUnit.parse(limits.unit()).pretty();
        setAlignment(Pos.CENTER_LEFT);
        getStyleClass().add("card");
        TextField wish = new TextField();
        wish.setId("output-" + name);
        wish.setPrefWidth(Theme.px(70));
        wish.setAccessibleText("Value for " + name);
        Button set = new Button("Set");
        set.setId("output-set-" + name);
        Button off = new Button("Off");
        off.setId("output-off-" + name);
        Labels.explained(
                set,
                "Goes there by the ramp of the sheet, between " + Notation.plain(limits.lowest(), 4) + " and "
                        + Notation.plain(limits.highest(), 4) + " " + unit);
        Labels.explained(off, "Switches off at once");
        Runnable act = () -> Notices.attempt(this, () -> {
            try {
                guard.set(Double.parseDouble(Typing.in(wish).strip()));
            } catch (NumberFormatException e) {
                throw new IllegalArgumentException(
                        "'" + wish.getText().strip() + "' is not a number in " + unit + ".", e);
            }
        });
        set.setOnAction(e -> act.run());
        wish.setOnAction(e -> act.run());
        off.setOnAction(e -> guard.off());
        now.setId("output-now-" + name);
        getChildren()
                .addAll(
                        Labels.section(limits.label() == null ? name : limits.label()),
                        now,
                        wish,
                        Labels.quiet(unit),
                        set,
                        off,
                        Labels.quiet("limit " + Notation.plain(limits.highest(), 4) + " " + unit
                                + (limits.dwellAbove() == null
                                        ? ""
                                        : ", above " + Notation.plain(limits.dwellAbove(), 4) + " " + unit + " for "
                                                + StepCard.words(limits.dwell()))));
        tick();
    }

    /** Brings what is shown up to now. */
    public void tick() {
        double left = guard.secondsLeft();
        now.setText(Notation.plain(guard.value(), 4) + " " + unit
                + (Double.isInfinite(left) ? "" : ", " + StepCard.words(left) + " left"));
    }
}
