package eagerneedle.app.window;

import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.Theme;
import eagerneedle.app.workbench.Beginning;
import eagerneedle.app.workbench.Fault;
import eagerneedle.app.workbench.Home;
import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.store.bench.BenchFile;
import eagerneedle.store.bench.Recent;
import java.nio.file.Path;
import java.time.Clock;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import javafx.scene.Scene;
import javafx.scene.control.Label;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.stage.Stage;
import org.jspecify.annotations.Nullable;

/**
 * The window before any session is open: the start page under the program's name. What is chosen there makes the window
 * of a session.
 */
public final class StartScene {
    private StartScene() {}

    /** @param into makes the window of a session on the same stage */
    public static void show(Stage stage, Recent recent, Function<Workbench, MainWindow> into) {
        Label says = Labels.wrapped("");
        says.setId("start-says");
        says.getStyleClass().add("attention");
        StartPage page = new StartPage(
                new StartPage.Visitor() {
                    @Override
                    public void open(Path benchFile) {
                        attempt(() -> into.apply(new Workbench(BenchFile.open(benchFile), Clock.systemUTC())));
                    }

                    @Override
                    public void walk(Path benchFile) {
                        attempt(() -> into.apply(new Workbench(BenchFile.open(benchFile), Clock.systemUTC()))
                                .guide()
                                .begin());
                    }

                    @Override
                    public void begin(SheetReader.Located sheet, @Nullable Path bring) {
                        attempt(() -> {
                            MainWindow w = into.apply(new Workbench(
                                    Home.begin(sheet, Clock.systemUTC().instant()), Clock.systemUTC()));
                            if (bring != null) {
                                w.door().bring(List.of(bring));
                            }
                        });
                    }

                    @Override
                    public void begin(Beginning beginning) {
                        new Opening(Clock.systemUTC(), into, (sentence, warning) -> say(sentence)).begin(beginning);
                    }

                    @Override
                    public void say(String sentence) {
                        says.setText(sentence);
                    }

                    private void attempt(Runnable act) {
                        try {
                            act.run();
                        } catch (RuntimeException e) {
                            say(Fault.said(e));
                        }
                    }
                },
                recent);
        VBox head = new Head(says);
        head.getStyleClass().add("header");
        head.setPadding(new javafx.geometry.Insets(14, 20, 12, 20));
        VBox.setVgrow(page, Priority.ALWAYS);
        TroubleBanner trouble = new TroubleBanner(Optional::empty, Clock.systemUTC());
        trouble.watch();
        Scene scene = new Scene(new BorderPane(page, new VBox(head, trouble), null, null, null), 1280, 800);
        Theme.dress(scene, Theme.isDark());
        stage.setOnShown(null);
        stage.setOnHidden(null);
        stage.setTitle("Eager Needle");
        stage.setScene(scene);
        stage.setMinWidth(Theme.px(1000));
        stage.setMinHeight(Theme.px(660));
    }

    /** The program's name, and where sentences are said. */
    private static final class Head extends VBox implements Notices.Board {
        private final Label says;

        Head(Label says) {
            super(
                    2,
                    Labels.styled("Eager Needle", "program"),
                    Labels.quiet("From the plan to a defended number."),
                    says);
            this.says = says;
            setId(Notices.BOARD);
        }

        @Override
        public void say(String sentence, boolean warning) {
            says.setText(sentence);
        }

        @Override
        public void live(String sentence) {
            // Nothing is recorded here.
        }
    }
}
