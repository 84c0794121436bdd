package eagerneedle.app.window;

import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Theme;
import eagerneedle.app.workbench.Workbench;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import javafx.geometry.Insets;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/** The top of the window: which session this is, the dial, and what may be done at any station. */
final class Header extends HBox {
    private static final DateTimeFormatter DAY =
            DateTimeFormatter.ofPattern("d MMM uuuu").withLocale(Locale.UK).withZone(ZoneId.systemDefault());
    private static final double WIDEST = 340;
    private static final double NARROWEST = 110;
    private static final double STATIONS = 400;
    private final CourseDial dial;
    private final VBox names;
    private final Label program;
    private final Label title = new Label();
    private final Label place = Labels.quiet("");

    Header(CourseDial dial, Toolbar tools) {
        super(8);
        title.setMinWidth(0);
        place.setMinWidth(0);
        this.dial = dial;
        program = Labels.styled("Eager Needle", "program");
        program.managedProperty().bind(program.visibleProperty());
        names = new VBox(1, program, title, place);
        // Where there is no room for both, the session's title is what tells two windows apart.
        names.widthProperty().addListener((o, was, is) -> program.setVisible(is.doubleValue() >= Theme.px(100)));
        resize();
        names.setPadding(new Insets(14, 0, 0, 20));
        tools.setMinWidth(USE_PREF_SIZE);
        getChildren().addAll(names, dial, tools);
        HBox.setHgrow(dial, Priority.ALWAYS);
        getStyleClass().add("header");
    }

    /** Takes the room that the size of the text asks for. */
    void resize() {
        // The stations are read before the title, which says itself whole on hover.
        names.setPrefWidth(Math.min(Theme.px(330), WIDEST));
        names.setMinWidth(NARROWEST);
        names.setMaxWidth(Math.min(Theme.px(330), WIDEST));
        dial.setMinWidth(Theme.px(STATIONS));
        dial.resize();
    }

    void show(Workbench bench) {
        title.setText(bench.sheet().title());
        String where = bench.sheet().place();
        place.setText((where.isEmpty() ? "" : where + " · ")
                + DAY.format(bench.session().created()));
    }
}
