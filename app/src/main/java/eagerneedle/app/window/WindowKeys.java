package eagerneedle.app.window;

import eagerneedle.app.station.Station;
import java.util.List;
import java.util.Optional;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;

/** What the keys do that belong to the whole window. */
final class WindowKeys {
    private final MainWindow window;
    private final List<MenuAct> acts;

    WindowKeys(MainWindow window, List<MenuAct> acts) {
        this.window = window;
        this.acts = acts;
    }

    void pressed(KeyEvent e) {
        if (window.isFinding()) {
            return;
        }
        boolean typing = e.getTarget() instanceof TextInputControl;
        Optional<MenuAct> act = acts.stream().filter(a -> a.answers(e, typing)).findFirst();
        int digit = !typing
                        && !e.isShortcutDown()
                        && e.getCode().isDigitKey()
                        && !e.getText().isEmpty()
                ? "1234567".indexOf(e.getText())
                : -1;
        if (act.isPresent()) {
            act.get().run().run();
        } else if (e.isShortcutDown() && e.getCode() == KeyCode.Z) {
            window.step(!e.isShiftDown());
        } else if (e.isShortcutDown() && e.getCode() == KeyCode.Y) {
            window.step(false);
        } else if (e.isShortcutDown() && e.getCode() == KeyCode.F) {
            window.find();
        } else if (digit >= 0) {
            Station to = Station.values()[digit];
            // A key that is held comes again and again: a station that is shown already is not entered anew each time.
            if (!window.shows(to)) {
                window.go(to);
            }
        } else if (!typing && e.getCode() == KeyCode.F && window.projector().isVisible()) {
            window.projector().freeze();
        } else if (e.getCode() == KeyCode.ESCAPE && window.projector().isVisible()) {
            window.projector().toggle();
        } else {
            return;
        }
        e.consume();
    }
}
