package eagerneedle.app.window;

import eagerneedle.app.station.Station;
import eagerneedle.app.widget.Labels;
import java.util.List;
import javafx.application.Platform;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;

/**
 * A walk round in two minutes: one sentence a station, of the session that is shown. It changes nothing, can be left at
 * any time, and whoever goes somewhere else meanwhile is not called back.
 */
final class GuideBanner extends HBox {
    /** A place, and what is to be seen there. */
    record Stop(Station station, String says) {}

    static final List<Stop> WALK = List.of(
            new Stop(
                    Station.PLAN,
                    "Plan: what the result will be uncertain by, before anything is measured, and what to make better first."),
            new Stop(
                    Station.RIG,
                    "Rig: the apparatus with its channels. Connect, simulated, gives a bench to try everything on."),
            new Stop(
                    Station.CALIBRATE,
                    "Calibrate: references against indications; the relation, what it leaves, and when it runs out."),
            new Stop(
                    Station.CAPTURE,
                    "Capture: the next act is the large button; watches look on and say below what they see."),
            new Stop(
                    Station.REDUCE,
                    "Reduce: traces with their windows, proposed and to be moved; every number follows at once."),
            new Stop(
                    Station.JUDGE,
                    "Judge: the needle stands where the result lies; below it what that means, and what the result is uncertain by."),
            new Stop(
                    Station.RECORD,
                    "Record: the report as it will print, and beside it the notebook, which keeps every act."),
            new Stop(
                    Station.JUDGE,
                    "On the right stands the ledger: every number with its uncertainty. / finds anything, W tries choices, Ctrl+Z undoes."));

    private final MainWindow window;
    private final Label says = Labels.wrapped("");
    private final Button next = new Button("Next");
    private final Button before = new Button("Back");
    private int at = -1;

    GuideBanner(MainWindow window) {
        super(10);
        this.window = window;
        setId("guide");
        getStyleClass().add("trial");
        setAlignment(Pos.CENTER_LEFT);
        says.setId("guide-says");
        says.setMinWidth(0);
        says.setMaxWidth(Double.MAX_VALUE);
        HBox.setHgrow(says, Priority.ALWAYS);
        next.setId("guide-next");
        next.setOnAction(e -> go(at + 1));
        before.setId("guide-before");
        before.getStyleClass().add("quiet-button");
        before.setOnAction(e -> go(at - 1));
        Button leave = new Button("Leave the walk");
        leave.setId("guide-leave");
        leave.getStyleClass().add("quiet-button");
        leave.setOnAction(e -> go(-1));
        for (Button b : List.of(next, before, leave)) {
            b.setMinWidth(Region.USE_PREF_SIZE);
        }
        getChildren().addAll(says, before, next, leave);
        go(-1);
    }

    /** Begins, or begins again. */
    void begin() {
        go(0);
    }

    private void go(int stop) {
        at = stop >= WALK.size() ? -1 : stop;
        setVisible(at >= 0);
        setManaged(at >= 0);
        if (at >= 0) {
            Stop s = WALK.get(at);
            window.go(s.station());
            says.setText(at + 1 + " of " + WALK.size() + "   " + s.says());
            before.setDisable(at == 0);
            next.setText(at == WALK.size() - 1 ? "Done" : "Next");
            // A station takes the keys when it is shown; here the next step has them, so that one key is enough.
            Platform.runLater(next::requestFocus);
        }
    }
}
