package eagerneedle.app.window;

import eagerneedle.app.plot.PictureView;
import eagerneedle.app.widget.Hints;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Theme;
import eagerneedle.app.widget.Typefaces;
import eagerneedle.app.window.LedgerModel.Line;
import eagerneedle.app.window.LedgerModel.Role;
import eagerneedle.picture.Lettering;
import eagerneedle.picture.NeedlePicture;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.scene.text.Text;

/**
 * One quantity of the ledger: name, number with its uncertainty in a lighter ink, unit; below them what it was while
 * choices are tried. What the session is about stands large, with its small needle.
 */
final class LedgerRow extends VBox {
    private static final double NEEDLE = 58;
    private static final double LEAST_NEEDLE = 30;
    private final HBox line = new HBox();
    private final Label name = Labels.styled("", "ledger-name");
    private final Label number = Labels.figure("");
    private final Label uncertainty = Labels.styled("", "figure", "uncertainty");
    private final Label times = Labels.quiet("");
    private final HBox value = new HBox(number, uncertainty, times);
    private final Label unit = Labels.quiet("");
    private final PictureView needle = new PictureView("Agreement needle", null);
    private final Label was = Labels.quiet("");
    private final boolean large;

    /** @param large with a line of its own for the name, and a needle */
    LedgerRow(boolean large, Runnable select) {
        this.large = large;
        name.setMinWidth(0);
        name.setMaxWidth(Double.MAX_VALUE);
        HBox.setHgrow(name, Priority.ALWAYS);
        number.setMinWidth(USE_PREF_SIZE);
        uncertainty.setMinWidth(USE_PREF_SIZE);
        times.setMinWidth(USE_PREF_SIZE);
        unit.setMinWidth(USE_PREF_SIZE);
        value.setMinWidth(USE_PREF_SIZE);
        value.setAlignment(Pos.BASELINE_LEFT);
        // A long unit goes before it: the needle stands at Judge as well.
        needle.setMinSize(0, Theme.px(NEEDLE / 2));
        needle.setPrefSize(Theme.px(NEEDLE), Theme.px(NEEDLE / 2));
        needle.setMaxHeight(Theme.px(NEEDLE / 2));
        if (large) {
            value.getStyleClass().add("large");
            value.getChildren().add(unit);
            HBox.setHgrow(value, Priority.ALWAYS);
            HBox under = new HBox(6, value, needle);
            under.setAlignment(Pos.CENTER_LEFT);
            VBox both = new VBox(0, name, under);
            HBox.setHgrow(both, Priority.ALWAYS);
            line.getChildren().add(both);
        } else {
            line.setSpacing(Theme.px(6));
            line.getChildren().addAll(name, value, unit);
        }
        line.setAlignment(Pos.BASELINE_LEFT);
        line.getStyleClass().add("ledger-row");
        line.setFocusTraversable(true);
        line.setOnMouseClicked(m -> select.run());
        line.setOnKeyPressed(k -> {
            if (k.getCode() == KeyCode.ENTER || k.getCode() == KeyCode.SPACE) {
                select.run();
                k.consume();
            }
        });
        was.getStyleClass().add("ledger-was");
        getChildren().addAll(line, was);
    }

    boolean isSelected() {
        return line.getStyleClass().contains("selected");
    }

    void show(Line.Item i) {
        line.setId(i.id());
        name.setText(i.name());
        Labels.styled(name, "fresh", i.fresh());
        Labels.styled(name, "as-planned", i.planned());
        number.setText(large ? i.figures().number().strip() : i.figures().number());
        uncertainty.setText(i.figures().uncertainty());
        Labels.says(times, i.figures().times());
        unit.setText(i.figures().unit());
        line.setAccessibleText(i.said());
        Labels.styled(line, "selected", i.role() == Role.SELECTED);
        Labels.styled(line, "comes-from", i.role() == Role.COMES_FROM);
        Labels.styled(line, "feeds", i.role() == Role.FEEDS);
        Hints.give(line, i.hint());
        Labels.says(was, i.was().isEmpty() ? "" : "was " + i.was());
        Labels.shown(needle, i.verdict().isPresent());
        i.verdict()
                .ifPresent(v -> needle.show((s, w, h) -> {
                    if (w >= Theme.px(LEAST_NEEDLE)) {
                        NeedlePicture.paint(s, v.comparison(), v.school(), 0, 0, w, h, true);
                    }
                }));
    }

    /** Width that a number of a small row wants. */
    static double wanted(Line.Item i) {
        return width(i.figures().number() + i.figures().uncertainty(), Lettering.figures(13))
                + (i.figures().times().isEmpty() ? 0 : width(i.figures().times(), Lettering.text(12.5)));
    }

    /** Width that the unit of a small row wants. */
    static double wantedForUnit(Line.Item i) {
        return width(i.figures().unit(), Lettering.text(12.5));
    }

    private static double width(String text, Lettering l) {
        Text t = new Text(text);
        t.setFont(Typefaces.of(new Lettering(l.face(), Theme.px(l.size()), l.bold())));
        return Math.ceil(t.getLayoutBounds().getWidth()) + 1;
    }

    /** Stands in columns of these widths. */
    void columns(double numbers, double units) {
        if (!large) {
            value.setPrefWidth(numbers);
            unit.setPrefWidth(units);
        }
    }

    /** True where it stands in the columns of the list. */
    boolean isSmall() {
        return !large;
    }

    /** The label of its number, for those who look where its point stands. */
    Label number() {
        return number;
    }
}
