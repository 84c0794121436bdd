package eagerneedle.app.window;

import static eagerneedle.app.OnScreen.act;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.withinPercentage;

import eagerneedle.core.quantity.Budget;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.session.PlanningCommand;
import java.time.Clock;
import javafx.scene.input.KeyCode;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/** A sheet that plans nothing by hand is planned by carrying it out, in the background; an edit does it again. */
class PlanRehearsalWindowTest extends BenchWindow {
    private static final String SHEET = """
            sheet: 2
            id: stretch
            title: Stretch
            subject: Load
            inputs:
              m_hang: {label: hanger, value: "200.0(4) g", by: balance TH-BA-01}
              g: {label: gravity, value: "9.8113(1) m/s^2", given: true}
            devices:
              board: {label: Board TH-SB-01, driver: line}
            channels:
              F: {label: force, unit: N, device: board, rate: 100, needs: [0 N, 5 N], chain: [{kind: sensor, label: gauge, from: N, to: V, gain: "0.5000(2)"}, {kind: converter, label: c, from: V, range: [0, 5], bits: 16}]}
            captures:
              pull: {label: Pull, channels: [F], repeats: 3, quantities: {F_mean: {label: pull, unit: N, formula: mean(F)}}}
            results:
              ratio: {label: pull over weight, formula: mean(pull.F_mean) / (m_hang * g)}
            comparisons:
              - {id: ratio, label: pull against weight, result: ratio, reference: "1", main: true}
            rig:
              pull:
                lasts: 1 s
                signals: {F: m_hang * g}
            """;

    @Start
    void start(Stage newStage) throws Exception {
        prepare(newStage);
    }

    private Quantity predicted() {
        return window.bench().plan().quantity("ratio").orElse(null);
    }

    @Test
    void thePlanIsCarriedOutInTheBackground(FxRobot robot) throws Exception {
        openText(SHEET, Clock.systemUTC(), 8);
        robot.push(KeyCode.DIGIT1);
        await(() -> predicted() != null);
        Quantity first = predicted();
        assertThat(first.value()).isCloseTo(1, org.assertj.core.api.Assertions.within(0.01));
        assertThat(first.u()).isBetween(2e-4, 5e-3);
        assertThat(Budget.of(first).lines()).extracting(Budget.Line::label).contains("hanger by balance TH-BA-01");
        // A hanger that is known ten times worse moves the prediction, once it has been carried out again.
        act(() -> window.bench().apply(new PlanningCommand.SetPlanned("m_hang", "hanger", "200.0(90) g")));
        Quantity rescaled = predicted();
        assertThat(rescaled.u())
                .as("at once, by as much as the hanger is known worse")
                .isGreaterThan(5 * first.u());
        await(() -> !window.bench().planRehearsal().isRunning());
        assertThat(predicted().u()).as("and again by carrying it out").isCloseTo(rescaled.u(), withinPercentage(15));
        // Another value may mean another result: that of before is not told.
        act(() -> window.bench().apply(new PlanningCommand.SetPlanned("m_hang", "hanger", "150.0(4) g")));
        await(() -> predicted() != null && !window.bench().planRehearsal().isRunning());
        assertThat(predicted().u()).as("known as well as at first").isLessThan(rescaled.u() / 5);
    }
}
