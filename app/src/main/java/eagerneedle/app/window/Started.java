package eagerneedle.app.window;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import javafx.application.Platform;
import javafx.stage.Stage;

/**
 * Tells whoever measures it when the window is drawn and answers: the property {@code needle.ready} names a file that
 * comes into being then, and the program ends. Without the property nothing happens.
 */
final class Started {
    private Started() {}

    static void tell(Stage stage) {
        String file = System.getProperty("needle.ready");
        if (file == null) {
            return;
        }
        Runnable[] once = new Runnable[1];
        once[0] = () -> {
            stage.getScene().removePostLayoutPulseListener(once[0]);
            // After the pulse that laid it out comes the one that shows it.
            Platform.runLater(() -> Platform.runLater(() -> {
                try {
                    Files.writeString(Path.of(file), Long.toString(System.currentTimeMillis()));
                } catch (IOException e) {
                    throw new IllegalStateException("It cannot be told that the window is there.", e);
                } finally {
                    Platform.exit();
                }
            }));
        };
        stage.getScene().addPostLayoutPulseListener(once[0]);
        Platform.requestNextPulse();
    }
}
