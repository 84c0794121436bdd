package eagerneedle.app.judge;

import eagerneedle.app.plot.PictureView;
import eagerneedle.app.station.Desk;
import eagerneedle.app.widget.Labels;
import eagerneedle.core.judge.Comparison;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.picture.NeedlePicture;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/**
 * The mistake lens: a mistake that people make, made on the real data, and what it would have done to the answer.
 * Nothing is kept of it.
 */
final class MistakeLens extends VBox {
    private final Desk desk;
    private final VBox shown = new VBox(4);
    private String looking;

    MistakeLens(Desk desk) {
        super(6);
        this.desk = desk;
        ToggleGroup group = new ToggleGroup();
        getChildren().add(Labels.heading("If a mistake had been made"));
        for (Sheet.Mistake m : desk.bench().sheet().mistakes()) {
            ToggleButton b = new ToggleButton(m.label());
            b.setId("mistake-" + m.id());
            b.getStyleClass().add("quiet-button");
            b.setToggleGroup(group);
            b.setMaxWidth(Double.MAX_VALUE);
            b.setAlignment(Pos.CENTER_LEFT);
            b.setWrapText(true);
            Labels.explained(
                    b,
                    "Reduces the same data with this mistake made, and shows what becomes of the answer; "
                            + "nothing is kept");
            b.setOnAction(e -> look(b.isSelected() ? m : null));
            getChildren().add(b);
        }
        shown.setId("mistake-shown");
        getChildren().add(shown);
        setVisible(!desk.bench().sheet().mistakes().isEmpty());
        setManaged(isVisible());
    }

    /** The session has changed: what is looked at is worked out anew. */
    void refresh() {
        desk.bench().sheet().mistakes().stream()
                .filter(m -> m.id().equals(looking))
                .findFirst()
                .ifPresent(this::look);
    }

    private void look(Sheet.Mistake m) {
        looking = m == null ? null : m.id();
        shown.getChildren().clear();
        if (m == null) {
            return;
        }
        shown.getChildren().add(Labels.wrapped(m.says()));
        Reduction real = desk.bench().reduction();
        Reduction wrong = desk.bench().mistaken(m);
        for (Sheet.Comparison c : desk.bench().sheet().comparisons()) {
            Optional<Quantity> is = real.quantity(c.result());
            Sheet.Derived d = desk.bench().sheet().results().get(c.result());
            String name = d == null || d.label() == null ? c.result() : d.label();
            String problem = wrong.outcome(c.result()).problem();
            String words = wrong.quantity(c.result())
                    .map(q -> name + " would be " + Notation.bracket(q)
                            + is.filter(x -> x.unit().fits(q.unit()) && x.value() != 0)
                                    .map(x -> same(x, q)
                                            ? ", as it is"
                                            : ", off by " + Notation.plain(100 * (q.in(x.unit()) / x.value() - 1), 2)
                                                    + " %")
                                    .orElse(""))
                    .orElse(name + " could not be found: " + problem);
            Optional<Comparison> judged = wrong.comparisons().stream()
                    .filter(x -> x.id().equals(c.id()))
                    .findFirst();
            if (judged.isPresent()) {
                Comparison j = judged.get();
                boolean agrees = j.agrees(wrong.speaks(j.id()));
                words += agrees
                        ? "; it would still agree, so this comparison does not notice."
                        : "; it would not agree.";
                PictureView arc = new PictureView(
                        c.label(),
                        (s, w, h) -> NeedlePicture.paint(
                                s, j, eagerneedle.core.judge.School.STANDARD, 0, 2, w, h - 2, true));
                arc.setMinSize(52, 30);
                arc.setPrefSize(52, 30);
                HBox row = new HBox(10, arc, Labels.wrapped(words));
                row.setAlignment(Pos.CENTER_LEFT);
                HBox.setHgrow(row.getChildren().get(1), Priority.ALWAYS);
                shown.getChildren().add(row);
            } else {
                shown.getChildren().add(Labels.wrapped(words + (words.endsWith(".") ? "" : ".")));
            }
        }
    }

    private static boolean same(Quantity a, Quantity b) {
        return Math.abs(b.in(a.unit()) - a.value()) <= 1e-9 * Math.abs(a.value());
    }
}
