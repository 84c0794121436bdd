package eagerneedle.app.window;

import static eagerneedle.app.OnScreen.act;
import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.core.watch.Finding;
import eagerneedle.core.watch.Rule;
import java.util.ArrayList;
import java.util.List;
import javafx.scene.Scene;
import javafx.scene.control.Hyperlink;
import javafx.scene.control.TextField;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.ApplicationExtension;
import org.testfx.framework.junit5.Start;

/** What is said to a watch, while the watches look again and again. */
@ExtendWith(ApplicationExtension.class)
class WatchStripTest implements WatchStrip.Answers {
    private final List<String> said = new ArrayList<>();
    private final List<Integer> shown = new ArrayList<>();
    private WatchStrip strip;

    @Start
    void start(Stage stage) {
        strip = new WatchStrip(shown::add);
        strip.answeredBy(this);
        stage.setScene(new Scene(strip, 600, 300));
        stage.show();
    }

    @Override
    public void explain(Finding f, String text) {
        said.add("run " + f.run() + ": " + text);
    }

    @Override
    public void voidSamples(Finding f, String reason) {
        said.add("void " + f.from() + " to " + f.to() + ": " + reason);
    }

    private static Finding finding(int run, String message, double from) {
        return new Finding(
                Rule.values()[0],
                Finding.Severity.ATTENTION,
                "volts",
                run,
                "",
                message,
                "A cause.",
                "A remedy.",
                from,
                from + 1);
    }

    private void now(Finding... findings) {
        act(() -> strip.findings(List.of(findings)));
    }

    @Test
    void halfWrittenWordsStayWithTheirFinding(FxRobot robot) {
        now(finding(3, "It drifts by 1 mV.", 2), finding(4, "It drifts by 2 mV.", Double.NaN));
        TextField why = robot.lookup("#watch-why-1").queryAs(TextField.class);
        act(() -> why.setText("the window was op"));
        now(finding(4, "It drifts by 2.1 mV.", 5));
        assertThat(robot.lookup("#watch-why-0").queryAs(TextField.class)).isSameAs(why);
        assertThat(why.getText()).isEqualTo("the window was op");
        assertThat(robot.lookup("▲ It drifts by 2.1 mV.").tryQuery()).isPresent();
        act(() -> robot.lookup("#watch-void-0").queryAs(Hyperlink.class).fire());
        assertThat(said).containsExactly("void 5.0 to 6.0: the window was op");
        assertThat(why.getText()).as("it is said").isEmpty();
        act(() -> robot.lookup("Show run 4").queryAs(Hyperlink.class).fire());
        assertThat(shown).containsExactly(4);
        act(() -> robot.lookup("#watch-acknowledge-0").queryAs(Hyperlink.class).fire());
        assertThat(said).last().isEqualTo("run 4: ");
    }

    @Test
    void whatCannotBeVoidedIsNotOffered(FxRobot robot) {
        now(finding(0, "The stockroom owes a calibration.", Double.NaN));
        assertThat(robot.lookup("#watch-void-0").query().isVisible()).isFalse();
        assertThat(robot.lookup("#watch-why-0").query().isManaged()).isTrue();
        now();
        assertThat(robot.lookup("#watch-why-0").tryQuery()).isEmpty();
        assertThat(robot.lookup(".quiet").queryAll()).isNotEmpty();
    }
}
