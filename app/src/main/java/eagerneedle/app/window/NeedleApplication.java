package eagerneedle.app.window;

import eagerneedle.app.workbench.Home;
import eagerneedle.app.workbench.ProgramLog;
import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.quantity.DecimalSign;
import eagerneedle.store.bench.Recent;
import eagerneedle.store.stockroom.Stockroom;
import java.time.Clock;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.Consumer;
import java.util.function.Supplier;
import javafx.application.Application;
import javafx.application.Platform;
import javafx.stage.Stage;
import org.jspecify.annotations.Nullable;

/** The JavaFX side of the program. What it opens is set before it is launched. */
public final class NeedleApplication extends Application {
    private static @Nullable CompletableFuture<Workbench> opening;
    /** Why the workbench could not be opened; null where it could. */
    private static final AtomicReference<@Nullable RuntimeException> FAILED = new AtomicReference<>();

    private static Supplier<Stockroom> stockroom = Stockroom::demonstration;
    private static Supplier<Recent> recent = Recent::forNow;
    private static Consumer<MainWindow> then = w -> {};

    /** The stockroom that the window works with; the demonstration one unless this is called. */
    public static void with(Supplier<Stockroom> instruments) {
        stockroom = instruments;
    }

    /** Where the program remembers the sessions of lately; only as long as it runs unless this is called. */
    public static void remembering(Supplier<Recent> sessions) {
        recent = sessions;
    }

    /**
     * Starts the toolkit, opens a workbench in the window (the start page when it is null) and waits until the window
     * is closed. The session is worked out while the toolkit starts.
     *
     * @throws RuntimeException with one sentence where the workbench cannot be opened; then no window was shown
     */
    public static void launchOn(@Nullable Supplier<Workbench> workbench, Consumer<MainWindow> afterShowing) {
        DecimalSign.use(Home.decimal());
        FAILED.set(null);
        opening = workbench == null ? null : CompletableFuture.supplyAsync(workbench);
        then = afterShowing;
        launch(NeedleApplication.class);
        RuntimeException failed = FAILED.get();
        if (failed != null) {
            throw failed;
        }
    }

    @Override
    public void start(Stage stage) {
        ProgramLog.begin();
        Recent sessions = recent.get();
        if (opening == null) {
            StartScene.show(stage, sessions, bench -> window(stage, bench, sessions));
            stage.show();
        } else {
            Workbench bench;
            try {
                bench = opening.join();
            } catch (CompletionException e) {
                FAILED.set(e.getCause() instanceof RuntimeException r ? r : e);
                Platform.exit();
                return;
            }
            then.accept(window(stage, bench, sessions));
        }
        Started.tell(stage);
    }

    private static MainWindow window(Stage stage, Workbench bench, Recent sessions) {
        MainWindow window = new MainWindow(stage, bench, Clock.systemUTC(), 1, stockroom.get());
        window.rememberIn(sessions);
        window.kept().in(Home.folder().resolve("settings.json"));
        window.trouble().watch();
        stage.show();
        return window;
    }
}
