package eagerneedle.app.record;

import static eagerneedle.app.OnScreen.act;
import static eagerneedle.app.OnScreen.await;
import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.app.widget.Theme;
import eagerneedle.report.InstrumentLabel;
import eagerneedle.store.stockroom.Stockroom;
import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Supplier;
import javafx.scene.Scene;
import javafx.scene.control.Label;
import javafx.scene.image.ImageView;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.ApplicationExtension;
import org.testfx.framework.junit5.Start;

@ExtendWith(ApplicationExtension.class)
class PagesViewTest {
    private final AtomicInteger set = new AtomicInteger();
    private Supplier<byte[]> report;
    private PagesView view;

    @Start
    void start(Stage stage) {
        view = new PagesView(() -> {
            set.incrementAndGet();
            return report.get();
        });
        Scene scene = new Scene(view, 640, 400);
        Theme.dress(scene, false);
        stage.setScene(scene);
        stage.show();
    }

    private static byte[] page() {
        try (Stockroom stock = Stockroom.demonstration()) {
            return InstrumentLabel.pdf(stock.find("TH-CP-01").orElseThrow(), "");
        }
    }

    private static void awaitWords(FxRobot robot, String start) throws Exception {
        await(() -> robot.lookup("#report-pages").queryAs(Label.class).getText().startsWith(start));
    }

    @Test
    void pagesAreSetOnceForWhatTheyShowAndAFailureIsSaid(FxRobot robot) throws Exception {
        byte[] page = page();
        report = () -> page;
        act(() -> view.refresh(List.of("session", 1)));
        awaitWords(robot, "One page, as it will print.");
        ImageView image = robot.lookup(n -> n instanceof ImageView).queryAs(ImageView.class);
        assertThat(image.getImage().getWidth()).isBetween(540.0, 580.0);
        act(() -> {
            view.refresh(List.of("session", 1));
            view.refresh(List.of("session", 1));
        });
        assertThat(set.get()).as("what is the same is not set anew").isEqualTo(1);
        report = () -> {
            throw new IllegalStateException("the paper is out.");
        };
        act(() -> view.refresh(List.of("session", 2)));
        awaitWords(robot, "The report cannot be set now: the paper is out.");
        assertThat(robot.lookup(n -> n instanceof ImageView).queryAll())
                .as("what stood there stays")
                .hasSize(1);
    }
}
