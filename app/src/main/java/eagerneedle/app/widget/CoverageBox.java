package eagerneedle.app.widget;

import eagerneedle.core.quantity.Coverage;
import java.util.List;
import javafx.scene.control.ChoiceBox;

/** A box of the coverage probabilities that are in use. */
public final class CoverageBox {
    /** One standard uncertainty of a normal distribution and two of it among them. */
    private static final List<Double> COMMON = List.of(0.6827, 0.9, 0.95, 0.9545, 0.99);

    private CoverageBox() {}

    public static ChoiceBox<Double> of(String id) {
        ChoiceBox<Double> box = OneOf.of(id, "Coverage probability", COMMON, p -> new Coverage(p).percent());
        show(box, Coverage.DEFAULT.probability());
        return box;
    }

    /** Shows what is chosen, another than the common ones too. */
    public static void show(ChoiceBox<Double> box, double probability) {
        if (!box.getItems().contains(probability)) {
            box.getItems().add(probability);
        }
        box.setValue(probability);
    }
}
