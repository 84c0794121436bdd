package eagerneedle.app.station;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import eagerneedle.app.PlainDesk;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class CautionsTest {
    @TempDir
    Path folder;

    @Test
    void eachIsReadAndMayBeTakenBack() {
        try (PlainDesk desk = PlainDesk.fresh(folder, "drying-cabinet")) {
            Cautions c = new Cautions(desk.bench());
            assertThat(c.arePending()).isTrue();
            assertThatThrownBy(c::require)
                    .isInstanceOf(IllegalArgumentException.class)
                    .hasMessageContaining("Read the cautions first");
            c.all().forEach(one -> c.read(one, true));
            assertThat(c.arePending()).isFalse();
            assertThatCode(c::require).doesNotThrowAnyException();
            c.read(c.all().get(1), false);
            assertThat(c.arePending()).as("one of them is unread again").isTrue();
            assertThat(c.all().get(0).read()).isTrue();
        }
    }

    @Test
    void staffTakesThemOverOnceAndThatIsRecorded() {
        try (PlainDesk desk = PlainDesk.fresh(folder, "drying-cabinet")) {
            Cautions c = new Cautions(desk.bench());
            c.takeOver(java.util.List.of());
            c.takeOver(java.util.List.of());
            assertThat(c.arePending()).isFalse();
            assertThat(desk.bench().file().acts().stream()
                            .filter(n -> n.toString().contains("taken over by the member of staff")))
                    .hasSize(1);
            desk.bench().undo();
            assertThat(c.arePending()).as("undone").isTrue();
        }
    }

    @Test
    void whatIsNotSignedOffIsSaidAndASessionWithRunsAsksNoMore() {
        try (PlainDesk desk = PlainDesk.fresh(folder, "drying-cabinet")) {
            assertThat(new Cautions(desk.bench()).stepsLeft())
                    .matches("\\d+ steps are not signed off at Rig yet: .*; .*\\.");
        }
        try (PlainDesk desk = PlainDesk.rehearsed(folder, "baggage-chute")) {
            Cautions c = new Cautions(desk.bench());
            assertThat(c.all()).noneMatch(Cautions.Caution::read);
            assertThat(c.arePending()).isFalse();
            assertThat(c.stepsLeft()).isEmpty();
        }
    }
}
