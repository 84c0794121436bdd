package eagerneedle.app.widget;

import eagerneedle.app.workbench.LiveRig;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Reading;
import eagerneedle.core.sheet.Sheet;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Supplier;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.TextField;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import org.jspecify.annotations.Nullable;

/**
 * Fields for readings by eye: one for each channel of an instrument without an output. Enter goes to the next field,
 * and from the last one takes all of them as one sample at this moment.
 */
public final class TypedPanel extends FlowPane {
    private final Sheet sheet;
    private final Supplier<Optional<LiveRig>> rig;
    private final List<TextField> fields = new ArrayList<>();
    private final List<String> units = new ArrayList<>();
    private final Button enter = new Button("Enter reading");
    private @Nullable LiveRig shownOf;

    /**
     * Fields for the instrument in use.
     *
     * @param sheet names its channels
     * @param rig the instrument, when one is connected
     */
    public TypedPanel(Sheet sheet, Supplier<Optional<LiveRig>> rig) {
        super(10, 6);
        this.sheet = sheet;
        this.rig = rig;
        setAlignment(Pos.CENTER_LEFT);
        enter.setId("enter-typed");
        enter.setOnAction(e -> enter());
        Labels.explained(
                enter, "Takes what is typed as one reading of each channel, at this moment (Enter in the last field)");
        refresh();
    }

    /** Shows the fields of the connected instrument; nothing while there is none, or one that sends by itself. */
    public void refresh() {
        LiveRig now = rig.get().orElse(null);
        if (now == shownOf && now != null) {
            return;
        }
        shownOf = now;
        fields.clear();
        units.clear();
        getChildren().clear();
        if (now != null) {
            now.typed().forEach(this::field);
        }
        if (!fields.isEmpty()) {
            getChildren().add(enter);
        }
        setVisible(!fields.isEmpty());
        setManaged(!fields.isEmpty());
    }

    private void field(String own, String unit) {
        TextField f = new TextField();
        String label = sheet.channels().entrySet().stream()
                .filter(c -> c.getValue().inputOr(c.getKey()).equals(own))
                .map(c -> c.getValue().label())
                .findFirst()
                .orElse(own);
        f.setId("typed-" + own);
        f.setPrefWidth(Theme.px(90));
        f.setAccessibleText(label + ", typed reading");
        Labels.explained(
                f,
                "What stands on the display of " + label + "; another unit that fits may be written behind the number");
        int at = fields.size();
        f.setOnAction(e -> {
            if (at + 1 < fields.size()) {
                fields.get(at + 1).requestFocus();
            } else {
                enter();
            }
        });
        fields.add(f);
        units.add(unit);
        HBox row = new HBox(
                6, Labels.quiet(label), f, Labels.quiet(LabUnit.parse(unit).pretty()));
        row.setAlignment(Pos.CENTER_LEFT);
        getChildren().add(row);
    }

    /** The number typed in a field, in the unit the instrument shows; a number alone is in that unit. */
    private double reading(int i) {
        String text = Typing.in(fields.get(i)).strip().replace('−', '-');
        if (text.isEmpty()) {
            throw new IllegalArgumentException("Type the reading of "
                    + fields.get(i).getAccessibleText().replace(", typed reading", "") + " first.");
        }
        LabUnit wanted = LabUnit.parse(units.get(i));
        if (text.matches("[-+]?[0-9.]+([eE][-+]?[0-9]+)?")) {
            return Double.parseDouble(text);
        }
        Reading r = Reading.parse(text);
        return r.unit().convert(r.value(), wanted);
    }

    private void enter() {
        Notices.attempt(this, () -> {
            double[] values = new double[fields.size()];
            for (int i = 0; i < values.length; i++) {
                try {
                    values[i] = reading(i);
                } catch (IllegalArgumentException e) {
                    fields.get(i).requestFocus();
                    throw e instanceof NumberFormatException
                            ? new IllegalArgumentException("'" + fields.get(i).getText() + "' is not a number.")
                            : e;
                }
            }
            try {
                Objects.requireNonNull(shownOf).enter(values);
            } catch (IOException e) {
                throw new IllegalArgumentException(String.valueOf(e.getMessage()), e);
            }
            fields.forEach(TextField::clear);
            fields.get(0).requestFocus();
        });
    }
}
