package eagerneedle.app.window;

import static eagerneedle.app.OnScreen.act;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.withinPercentage;

import eagerneedle.core.quantity.Budget;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.session.PlanCommand;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import javafx.scene.input.KeyCode;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/** A sheet that plans nothing by hand is planned by carrying it out, in the background; an edit does it again. */
class PlanRehearsalWindowTest extends BenchWindow {
    @Start
    void start(Stage newStage) throws Exception {
        prepare(newStage);
    }

    private Quantity predicted() {
        return window.bench().plan().quantity("ratio").orElse(null);
    }

    @Test
    void thePlanIsCarriedOutInTheBackground(FxRobot robot) throws Exception {
        openText(Files.readString(Path.of("..", "docs", "examples", "swing-governor.yaml")), Clock.systemUTC(), 8);
        robot.push(KeyCode.DIGIT1);
        await(() -> predicted() != null);
        Quantity first = predicted();
        assertThat(first.value()).isCloseTo(1, org.assertj.core.api.Assertions.within(0.01));
        assertThat(first.u()).isBetween(2e-4, 5e-3);
        assertThat(Budget.of(first).lines()).extracting(Budget.Line::label).contains("hanger by balance TH-BA-01");
        // A hanger that is known ten times worse moves the prediction, once it has been carried out again.
        act(() -> window.bench().apply(new PlanCommand.SetPlanned("m_hang", "hanger", "200.0(40) g")));
        Quantity rescaled = predicted();
        assertThat(rescaled.u())
                .as("at once, by as much as the hanger is known worse")
                .isGreaterThan(5 * first.u());
        assertThat(window.bench().planRehearsal().isRunning()).isTrue();
        await(() -> !window.bench().planRehearsal().isRunning());
        assertThat(predicted().u()).as("and again by carrying it out").isCloseTo(rescaled.u(), withinPercentage(15));
        assertThat(predicted().u()).isNotEqualTo(rescaled.u());
        // Another value may mean another result: nothing is told of it before it was tried.
        act(() -> window.bench().apply(new PlanCommand.SetPlanned("m_hang", "hanger", "150.0(4) g")));
        assertThat(predicted()).isNull();
        await(() -> predicted() != null);
    }
}
