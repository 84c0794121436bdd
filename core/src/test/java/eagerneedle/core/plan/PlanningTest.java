package eagerneedle.core.plan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.plan.TimeLine.Task;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

class PlanningTest {
    @Test
    void levelsAreEvenInWhatIsPlotted() {
        double[] v = Spread.levels(x -> x * x, 1, 5, 7);
        for (int i = 1; i < v.length; i++) {
            assertThat(v[i] * v[i] - v[i - 1] * v[i - 1]).isCloseTo(4, within(1e-9));
        }
        double[] falling = Spread.levels(x -> 1 / x, 10, 2, 5);
        assertThat(falling[0]).isEqualTo(10);
        assertThat(falling[4]).isEqualTo(2);
        assertThat(1 / falling[2]).isCloseTo(0.3, within(1e-12));
        assertThatThrownBy(() -> Spread.levels(x -> (x - 2) * (x - 2), 0, 5, 4)).hasMessageContaining("turns round");
        assertThatThrownBy(() -> Spread.levels(x -> x, 0, 5, 1)).hasMessageContaining("at least 2");
    }

    @Test
    void whatRunsByItselfRunsBesideTheHands() {
        TimeLine t = TimeLine.of(List.of(
                new Task("level", "level the frame", 5, List.of(), true),
                new Task("warm", "amplifier warms up", 20, List.of(), false),
                new Task("weigh", "weigh", 10, List.of(), true),
                new Task("zero", "zero", 3, List.of("warm", "level"), true),
                new Task("run", "run", 15, List.of("zero", "weigh"), true)));
        assertThat(t.total()).isEqualTo(38);
        assertThat(t.slots())
                .filteredOn(s -> s.task().id().equals("warm"))
                .allMatch(s -> s.start() == 0 && s.critical());
        assertThat(t.slots()).filteredOn(s -> s.task().id().equals("weigh")).noneMatch(TimeLine.Slot::critical);
    }

    @Test
    void noTaskStartsBeforeWhatItWaitsForAndHandsDoOneThingAtATime() {
        Random r = new Random(3);
        for (int trial = 0; trial < 300; trial++) {
            List<Task> tasks = new ArrayList<>();
            for (int i = 0; i < 12; i++) {
                List<String> after = new ArrayList<>();
                for (int j = 0; j < i; j++) {
                    if (r.nextInt(5) == 0) {
                        after.add("t" + j);
                    }
                }
                tasks.add(new Task("t" + i, "task", 1 + r.nextInt(20), after, r.nextBoolean()));
            }
            TimeLine t = TimeLine.of(tasks);
            assertThat(t.slots()).hasSize(12).anyMatch(TimeLine.Slot::critical);
            double hands = tasks.stream()
                    .filter(Task::hands)
                    .mapToDouble(Task::minutes)
                    .sum();
            assertThat(t.total())
                    .isGreaterThanOrEqualTo(hands)
                    .isLessThanOrEqualTo(
                            tasks.stream().mapToDouble(Task::minutes).sum());
            for (TimeLine.Slot a : t.slots()) {
                for (TimeLine.Slot b : t.slots()) {
                    if (b.task().after().contains(a.task().id())) {
                        assertThat(b.start()).isGreaterThanOrEqualTo(a.end());
                    }
                    if (a != b && a.task().hands() && b.task().hands()) {
                        assertThat(b.start() >= a.end() || a.start() >= b.end()).isTrue();
                    }
                }
            }
        }
    }

    @Test
    void circlesAndUnknownTasksAreNamed() {
        assertThatThrownBy(() -> TimeLine.of(
                        List.of(new Task("a", "a", 1, List.of("b"), true), new Task("b", "b", 1, List.of("a"), true))))
                .hasMessageContaining("circle");
        assertThatThrownBy(() -> TimeLine.of(List.of(new Task("a", "a", 1, List.of("c"), true))))
                .hasMessageContaining("waits for c");
        assertThat(TimeLine.of(List.of()).total()).isZero();
    }

    private static Quantity u(double u) {
        return Quantity.of(10, u, LabUnit.parse("N"), Leaf.typeA("x", "x", "x", 9));
    }

    @Test
    void theCheapestChangeThatReachesTheTargetIsNamed() {
        List<PlanChange> changes = List.of(
                new PlanChange("take 12 runs", 40, u(0.05)),
                new PlanChange("read the bar with the caliper", 1, u(0.08)),
                new PlanChange("use the other balance", 2, u(0.02)));
        assertThat(PlanChange.cheapest(changes, 0.1).orElseThrow().says()).isEqualTo("read the bar with the caliper");
        assertThat(PlanChange.cheapest(changes, 0.06).orElseThrow().says()).isEqualTo("use the other balance");
        assertThat(PlanChange.sentence(u(0.2), changes, 0.1))
                .isEqualTo("Cheapest: read the bar with the caliper. It brings u to 0.080 N for about 1 min more.");
        assertThat(PlanChange.sentence(u(0.2), changes, 0.01))
                .startsWith("No single change reaches it. The best is to use the other balance");
        assertThat(PlanChange.sentence(u(0.2), changes, 0.3)).startsWith("The target is met already");
        assertThat(PlanChange.sentence(u(0.2), List.of(), 0.1)).startsWith("Nothing in the stockroom");
    }
}
