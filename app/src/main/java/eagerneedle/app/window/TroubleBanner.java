package eagerneedle.app.window;

import eagerneedle.app.widget.Files;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.workbench.TroubleReport;
import eagerneedle.store.FileName;
import eagerneedle.store.bench.BenchFile;
import java.nio.file.Path;
import java.time.Clock;
import java.util.Optional;
import java.util.function.Supplier;
import javafx.application.Platform;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import org.jspecify.annotations.Nullable;
import org.slf4j.LoggerFactory;

/**
 * Says that the program itself erred: one sentence, what is kept, and a file to send. The session goes on below it.
 * Errors of every thread come here, those that were caught and told as sentences never do.
 */
final class TroubleBanner extends HBox implements Thread.UncaughtExceptionHandler {
    private final Supplier<Optional<BenchFile>> file;
    private final Clock clock;
    private final Label says = Labels.wrapped("");
    private final CheckBox data = new CheckBox("with the data of this session");
    private @Nullable TroubleReport report;
    private int more;

    /** @param file the bench file of the session; empty while none is open */
    TroubleBanner(Supplier<Optional<BenchFile>> file, Clock clock) {
        super(10);
        this.file = file;
        this.clock = clock;
        setId("trouble");
        getStyleClass().add("trouble");
        setAlignment(Pos.CENTER_LEFT);
        says.setId("trouble-says");
        says.getStyleClass().add("attention");
        HBox.setHgrow(says, Priority.ALWAYS);
        says.setMaxWidth(Double.MAX_VALUE);
        data.setId("trouble-data");
        data.setMinWidth(USE_PREF_SIZE);
        Labels.explained(data, "Without the tick the file holds no reading, no result and no name");
        Button save = new Button("Save a file to send...");
        save.setId("trouble-save");
        save.setMinWidth(USE_PREF_SIZE);
        save.setOnAction(e -> {
            Path to = Files.askFor(this, "eager-needle-error.zip", "*.zip");
            if (to != null) {
                save(to);
            }
        });
        Button close = new Button("Close");
        close.setId("trouble-close");
        close.setMinWidth(USE_PREF_SIZE);
        close.getStyleClass().add("quiet-button");
        close.setOnAction(e -> show(null));
        getChildren().addAll(says, data, save, close);
        show(null);
    }

    /** From now on the errors of all threads are told here. */
    void watch() {
        Thread.setDefaultUncaughtExceptionHandler(this);
        Thread.currentThread().setUncaughtExceptionHandler(this);
    }

    @Override
    public void uncaughtException(Thread thread, Throwable error) {
        LoggerFactory.getLogger(TroubleBanner.class).error("Uncaught in {}", thread.getName(), error);
        TroubleReport now = new TroubleReport(clock.instant(), error);
        Platform.runLater(() -> show(now));
    }

    /** Writes the file to send. */
    void save(Path to) {
        TroubleReport told = report;
        if (told != null
                && Notices.attempt(
                        this,
                        () -> told.write(
                                to, file.get().filter(f -> data.isSelected()).map(f -> f::copyTo)))) {
            Notices.tell(this, "Saved " + FileName.of(to) + ".");
        }
    }

    private void show(@Nullable TroubleReport now) {
        more = now == null ? 0 : more + 1;
        report = now == null || report == null || more == 1 ? now : report;
        if (report != null) {
            String again = more > 1 ? " It is the first of " + more + " such errors." : "";
            String kept = file.get()
                    .map(f -> "Every act and every sample up to now is kept in " + FileName.of(f.path())
                            + ", and the session goes on.")
                    .orElse("No session is open, and those that were kept stay as they are.");
            says.setText("▲ " + report.sentence() + " " + kept + again);
            Labels.shown(data, file.get().isPresent());
        }
        setVisible(report != null);
        setManaged(report != null);
    }
}
