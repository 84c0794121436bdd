package eagerneedle.app.window;

import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.app.PlainDesk;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.RunCommand;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class RunInHandTest {
    @TempDir
    Path folder;

    @Test
    void afterTheRunInHandWasUndoneTheLastThatTakesPartIs() {
        try (PlainDesk desk = PlainDesk.rehearsed(folder, "baggage-chute")) {
            RunInHand hand = new RunInHand();
            hand.open(desk.bench());
            assertThat(hand.get().map(Run::id)).contains(28);
            Run last = hand.get().orElseThrow();
            Run next = Run.captured(29, last.capture(), last.level(), last.started(), last.source(), Run.COUNTS);
            desk.bench().apply(new RunCommand.KeepRun(next));
            hand.take(next);
            assertThat(hand.follow(desk.bench())).as("it is there").isFalse();
            desk.bench().undo();
            assertThat(hand.follow(desk.bench())).isTrue();
            assertThat(hand.get().map(Run::id)).contains(28);
            desk.bench().apply(new RunCommand.LeaveOut(28, "hand in the beam"));
            assertThat(hand.follow(desk.bench()))
                    .as("what is left out may still be looked at")
                    .isFalse();
        }
    }

    @Test
    void aSessionWithoutRunsHasNone() {
        try (PlainDesk desk = PlainDesk.fresh(folder, "baggage-chute")) {
            RunInHand hand = new RunInHand();
            hand.open(desk.bench());
            assertThat(hand.get()).isEmpty();
            assertThat(hand.follow(desk.bench())).isFalse();
        }
    }
}
