package eagerneedle.core.reduce;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.quantity.Budget;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.session.PlanningCommand;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.RawSamples;
import java.time.Instant;
import java.util.Map;
import org.junit.jupiter.api.Test;

class PlanTest {
    private final String text = PlannedByHand.TEXT;
    private final SheetReader.Located located = SheetTrial.read(text, "baggage-chute.yaml");
    private final Reducer reducer = new Reducer(located, (run, channel) -> RawSamples.NONE);
    private final Session session = Session.start(text, "test", Instant.EPOCH);

    @Test
    void predictsTheResultFromNominalValues() {
        Quantity g = reducer.plan(session).quantity("g").orElseThrow();
        assertThat(g.unit().symbol()).isEqualTo("m/s^2");
        assertThat(g.value()).isCloseTo(9.588 * (1 + 0.5 * 0.0240 / 0.5124), within(1e-9));
        assertThat(g.u()).isBetween(0.01, 0.2);
    }

    @Test
    void thePredictedBudgetAgreesWithAClosedFormCalculation() {
        // By hand: slope of a line through 4 repeats at 5 slopes; common factors scale, spacing, wheel term; blocks
        // through x.
        Quantity g = reducer.plan(session).quantity("g").orElseThrow();
        double wheel = 1 + 0.5 * 0.0240 / 0.5124;
        double byScale = 9.588 * wheel * 8e-4;
        double share = Budget.of(g).lines().stream()
                .filter(l -> l.label().equals("ranger scale"))
                .findFirst()
                .orElseThrow()
                .contribution();
        assertThat(share).isCloseTo(byScale, within(0.01 * byScale));
        double wheelFactor = 9.588 * 0.0240 / 0.5124 * 0.05 / Math.sqrt(3);
        assertThat(Budget.of(g).lines().stream()
                        .filter(l -> l.label().startsWith("wheel shape"))
                        .findFirst()
                        .orElseThrow()
                        .contribution())
                .isCloseTo(wheelFactor, within(1e-3 * wheelFactor));
    }

    @Test
    void oneChangedUncertaintyChangesTheBudget() {
        double before = reducer.plan(session).quantity("g").orElseThrow().u();
        Session worse = new PlanningCommand.SetPlanned("spacing", "foot spacing", "842(9) mm").apply(session);
        Reduction after = reducer.plan(worse);
        assertThat(after.quantity("g").orElseThrow().u()).isGreaterThan(1.5 * before);
        assertThat(Budget.of(after.quantity("g").orElseThrow()).lines().get(0).label())
                .startsWith("foot spacing");
        Map<?, ?> none = session.planned();
        assertThat(none).isEmpty();
    }
}
