package eagerneedle.core.capture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;

class PromptsTest {
    @Test
    void whatTheProgramTakesItselfIsNeverLate() {
        Prompts p = Prompts.of(10, 5, 4).punctual(9.9);
        assertThat(p.marks()).isEmpty();
        p = p.punctual(21);
        assertThat(p.marks())
                .containsExactly(
                        new Prompts.Mark(10, 10.0, null),
                        new Prompts.Mark(15, 15.0, null),
                        new Prompts.Mark(20, 20.0, null));
        assertThat(p.punctual(1e9).marks()).hasSize(4);
    }

    @Test
    void latenessIsRecordedAndTheTrueTimeKept() {
        Prompts p = Prompts.of(20, 30, 3);
        assertThat(p.toGo(5)).isEqualTo(15);
        p = p.take(21.5);
        assertThat(p.marks().get(0)).isEqualTo(new Prompts.Mark(20, 21.5, null));
        assertThat(p.marks().get(0).late()).isCloseTo(1.5, within(1e-12));
        assertThat(p.toGo(60)).as("late already").isEqualTo(-10);
        p = p.take(61);
        p = p.take(79);
        assertThat(p.marks().get(2).late())
                .as("a little early is known as well")
                .isCloseTo(-1, within(1e-12));
        assertThat(p.over()).isTrue();
        assertThat(p.toGo(100)).isNaN();
        assertThat(p.take(200)).isEqualTo(p);
        assertThat(p.skip()).isEqualTo(p);
    }

    @Test
    void aReadingThatWasMissedIsSkippedAndCanBeEnteredAfterwards() {
        Prompts p = Prompts.of(10, 10, 4).take(33);
        assertThat(p.marks()).extracting(Prompts.Mark::taken).containsExactly(null, null, 33.0);
        assertThat(p.marks().get(0).late()).isNaN();
        Prompts q = p.late(1, 20.5, "0.412");
        assertThat(q.marks().get(1)).isEqualTo(new Prompts.Mark(20, 20.5, "0.412"));
        assertThat(p.marks().get(1).taken())
                .as("the earlier schedule is what it was")
                .isNull();
        assertThatThrownBy(() -> p.late(2, 30, "1")).hasMessageContaining("was skipped");
        assertThatThrownBy(() -> p.late(3, 30, "1")).hasMessageContaining("was skipped");
        assertThat(p.passed(34)).isEqualTo(p);
        assertThat(p.passed(1000)).as("the last reading is waited for").isEqualTo(p);
        assertThat(Prompts.of(10, 10, 4).passed(31).marks()).hasSize(2);
    }

    @Test
    void aScheduleThatMakesNoSenseIsRefused() {
        assertThatThrownBy(() -> Prompts.of(0, 0, 3)).hasMessageContaining("interval above 0");
        assertThatThrownBy(() -> Prompts.of(0, 1, 0)).hasMessageContaining("at least one");
    }
}
