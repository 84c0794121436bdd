package eagerneedle.app.capture;

import java.util.function.BooleanSupplier;
import java.util.function.Predicate;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.Pane;

/**
 * Keys of the station: Space starts and stops, K keeps and D voids what waits, F8 is the stopwatch, and Escape leaves a
 * field. In a field letters are letters.
 */
final class CaptureKeys {
    private final Pane all;
    private final StopwatchPanel stopwatch;
    private final RunVerdict verdict;

    CaptureKeys(Pane all, StopwatchPanel stopwatch, RunVerdict verdict) {
        this.all = all;
        this.stopwatch = stopwatch;
        this.verdict = verdict;
    }

    /**
     * Listens from now on.
     *
     * @param waits true while a run waits to be kept or voided
     * @param more what other keys mean; false for nothing
     */
    void with(Runnable startOrStop, BooleanSupplier waits, Predicate<KeyCode> more) {
        all.addEventFilter(KeyEvent.KEY_PRESSED, this::anywhere);
        all.setOnKeyPressed(e -> {
            if (!(e.getTarget() instanceof TextInputControl) && means(e, startOrStop, waits, more)) {
                e.consume();
            }
        });
    }

    private void anywhere(KeyEvent e) {
        if (e.getCode() == KeyCode.F8) {
            stopwatch.press();
            e.consume();
        } else if (e.getCode() == KeyCode.ESCAPE && e.getTarget() instanceof TextInputControl) {
            all.requestFocus();
            e.consume();
        }
    }

    private boolean means(KeyEvent e, Runnable startOrStop, BooleanSupplier waits, Predicate<KeyCode> more) {
        boolean decides = waits.getAsBoolean();
        if (e.getCode() == KeyCode.SPACE) {
            startOrStop.run();
        } else if (decides && e.getCode() == KeyCode.K) {
            verdict.fireKeep();
        } else if (decides && e.getCode() == KeyCode.D) {
            verdict.fireVoid();
        } else {
            return !e.isShortcutDown() && more.test(e.getCode());
        }
        return true;
    }
}
