package eagerneedle.app.capture;

import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Typing;
import eagerneedle.core.quantity.Notation;
import java.util.function.DoubleConsumer;
import javafx.animation.AnimationTimer;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;

/** A stopwatch for what runs beside the capture. */
final class StopwatchPanel extends HBox {
    private final Label time = Labels.styled(Typing.as("0.00 s"), "figure");
    private final Button go = new Button("Stopwatch");
    private long since;
    private long before;
    private boolean running;
    private final DoubleConsumer stopped;

    /** @param stopped is given each time that was taken, s */
    StopwatchPanel(DoubleConsumer stopped) {
        super(8);
        this.stopped = stopped;
        setAlignment(Pos.CENTER_LEFT);
        go.setId("stopwatch");
        go.getStyleClass().add("quiet-button");
        go.setOnAction(e -> press());
        Labels.explained(
                go,
                "Starts and stops a stopwatch (F8, in a field too); a press after stopping begins anew. The time goes into "
                        + "the reading that waits for one");
        time.setId("stopwatch-time");
        getChildren().addAll(go, time);
        AnimationTimer frames = new AnimationTimer() {
            @Override
            public void handle(long now) {
                if (running) {
                    show();
                }
            }
        };
        sceneProperty().addListener((o, was, is) -> {
            if (is == null) {
                frames.stop();
            } else {
                frames.start();
            }
        });
    }

    /** Starts it; stops it when it runs. */
    void press() {
        if (running) {
            before = System.nanoTime() - since;
            running = false;
            go.setText("Stopwatch");
            stopped.accept(before / 1e9);
        } else {
            since = System.nanoTime();
            running = true;
            go.setText("Stop the watch");
        }
        show();
    }

    private void show() {
        double s = (running ? System.nanoTime() - since : before) / 1e9;
        time.setText(s < 60 ? Notation.sentence("%.2f s", s) : Notation.sentence("%d:%05.2f", (int) (s / 60), s % 60));
    }
}
