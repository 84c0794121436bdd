package eagerneedle.app;

import eagerneedle.app.bench.Workbench;
import eagerneedle.app.window.MainWindow;
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
    private static Consumer<MainWindow> then = w -> { };

    /** The stockroom that the window works with; the demonstration one unless this is called. */
    public static void with(Supplier<Stockroom> instruments) {
        stockroom = instruments;
    }

    /** Starts the toolkit, opens a workbench in the window and waits until the window is closed. */
    public static void launchOn(Supplier<Workbench> workbench, Consumer<MainWindow> afterShowing) {
        opening = workbench;
        then = afterShowing;
        launch(NeedleApplication.class);
    }

    @Override
    public void start(Stage stage) {
        MainWindow window = new MainWindow(stage, opening.get(), Clock.systemUTC(), 1, stockroom.get());
        stage.show();
        then.accept(window);
    }
}
