package eagerneedle.app.capture;

import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Typing;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;

/** What starts and stops a run, with the run's clock: the most visible thing of the station. */
final class StartBar extends HBox {
    /** What the clock shows before a run. */
    static final String NOTHING_YET = "0.0 s";

    private final Label clock = Labels.styled("", "figure-big");
    private final Button start = new Button("Start");
    private final Button goOn = new Button("Continue");

    StartBar(Runnable startOrStop, Runnable continues) {
        super(14);
        start.setId("start-stop");
        start.setOnAction(e -> startOrStop.run());
        start.setMinWidth(USE_PREF_SIZE);
        start.getStyleClass().addAll("default-act", "big-act");
        Labels.explained(start, "Start and stop the run (Space)");
        goOn.setId("continue-run");
        goOn.getStyleClass().add("quiet-button");
        goOn.setOnAction(e -> continues.run());
        Labels.explained(
                goOn,
                "Go on with the run shown: new samples are added behind its own, with the time that passed in between");
        clock.setId("run-clock");
        clock(NOTHING_YET);
        setAlignment(Pos.CENTER_LEFT);
        getChildren().addAll(start, clock, goOn);
    }

    /** Nothing can be started. */
    void off() {
        start.setDisable(true);
    }

    /**
     * @param does what pressing it does
     * @param may whether it may be pressed
     * @param mayGoOn whether the run that is shown may be gone on with
     */
    void show(String does, boolean may, boolean mayGoOn) {
        start.setText(does);
        start.setDisable(!may);
        Labels.shown(goOn, mayGoOn);
    }

    void clock(String says) {
        clock.setText(says.equals(NOTHING_YET) ? Typing.as(says) : says);
    }
}
