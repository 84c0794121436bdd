package eagerneedle.app.window;

import eagerneedle.app.workbench.Home;
import eagerneedle.app.workbench.ProgramLog;
import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.quantity.DecimalSign;
import eagerneedle.store.bench.Recent;
import eagerneedle.store.stockroom.Stockroom;
import java.time.Clock;
import java.util.function.Consumer;
import java.util.function.Supplier;
import javafx.application.Application;
import javafx.stage.Stage;

/** The JavaFX side of the program. What it opens is set before it is launched. */
public final class NeedleApplication extends Application {
    private static Supplier<Workbench> opening;
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
     * is closed.
     */
    public static void launchOn(Supplier<Workbench> workbench, Consumer<MainWindow> afterShowing) {
        opening = workbench;
        then = afterShowing;
        launch(NeedleApplication.class);
    }

    @Override
    public void start(Stage stage) {
        ProgramLog.begin();
        Recent sessions = recent.get();
        DecimalSign.use(Home.decimal());
        if (opening == null) {
            StartScene.show(stage, sessions, bench -> window(stage, bench, sessions));
            stage.show();
        } else {
            then.accept(window(stage, opening.get(), sessions));
        }
        Started.tell(stage);
    }

    private static MainWindow window(Stage stage, Workbench bench, Recent sessions) {
        MainWindow window = new MainWindow(stage, bench, Clock.systemUTC(), 1, stockroom.get());
        window.rememberIn(sessions);
        window.settingsIn(Home.folder().resolve("settings.json"));
        window.watchErrors();
        stage.show();
        return window;
    }
}
