package eagerneedle.app.window;

import eagerneedle.app.station.Station;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Rows;
import eagerneedle.app.workbench.LiveRig;
import eagerneedle.app.workbench.Workbench;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;

/**
 * A few values huge, for a class to read from the back row: the main result, or while an instrument is in use what it
 * reads. It can be frozen.
 */
final class Projector extends VBox {
    private static final long EVERY = 300_000_000L;
    private final VBox values = new VBox(20);
    private final Rows<ProjectedValues.Value> rows =
            Rows.changing(values, ProjectedValues.Value::label, Projector::row, Projector::show);
    private final Label foot = Labels.quiet("");
    private boolean frozen;
    private long shown;

    Projector() {
        super(20);
        setId("projector");
        setAlignment(Pos.CENTER);
        setVisible(false);
        setStyle("-fx-background-color: -paper;");
        values.setAlignment(Pos.CENTER);
        getChildren().setAll(values, foot);
    }

    private static VBox row(ProjectedValues.Value of) {
        VBox row = new VBox(20, Labels.heading(of.label()), Labels.styled("", "big"));
        row.setAlignment(Pos.CENTER);
        return row;
    }

    private static void show(VBox row, ProjectedValues.Value of) {
        ((Label) row.getChildren().get(1)).setText(of.text());
    }

    void toggle() {
        setVisible(!isVisible());
        frozen = false;
        shown = 0;
    }

    void freeze() {
        frozen = !frozen;
        shown = 0;
        foot.setText(says());
    }

    /** Shows what is now, unless it is frozen or was shown a moment ago. */
    void tick(Workbench bench, @Nullable LiveRig rig, Station station) {
        long now = System.nanoTime();
        if (!isVisible() || frozen || now - shown < EVERY) {
            return;
        }
        shown = now;
        boolean live = station.ordinal() >= Station.RIG.ordinal() && station.ordinal() <= Station.CAPTURE.ordinal();
        rows.show(
                rig != null && live
                        ? ProjectedValues.live(bench, rig::last, rig.rate())
                        : ProjectedValues.results(bench));
        foot.setText(says());
    }

    private String says() {
        return frozen ? "Frozen. F to let it move, P or Escape to go back" : "F freezes, P or Escape goes back";
    }
}
