package eagerneedle.app.capture;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** Many traces share the frames: all of them in turn, fewer at once where frames come late, none left out. */
class TraceTurnsTest {
    private static final long IN_TIME = 16;
    private static final long LATE = 25;
    private static final List<String> SIXTEEN = List.of("abcdefghijklmnop".split(""));

    private long now = 1000;
    private final TraceTurns turns = new TraceTurns(6, LATE, () -> now);

    private List<String> frame(List<String> all, long after) {
        now += after;
        List<String> shown = new ArrayList<>();
        turns.take(all, shown::add);
        return shown;
    }

    @Test
    void nothingToShow() {
        assertThat(frame(List.of(), IN_TIME)).isEmpty();
    }

    @Test
    void fewAreAllShownInEveryFrame() {
        for (int i = 0; i < 5; i++) {
            assertThat(frame(List.of("a", "b", "c"), IN_TIME)).containsExactlyInAnyOrder("a", "b", "c");
        }
    }

    @Test
    void manyTakeTurnsEachAsOftenAsTheOthers() {
        Map<String, Integer> shown = new HashMap<>();
        for (int i = 0; i < 8; i++) {
            List<String> these = frame(SIXTEEN, IN_TIME);
            assertThat(these).hasSize(6).doesNotHaveDuplicates();
            these.forEach(c -> shown.merge(c, 1, Integer::sum));
        }
        assertThat(shown.values()).hasSize(16).allMatch(n -> n == 3);
    }

    @Test
    void halfAsManyAfterALateFrameAndOneMoreAfterEachInTime() {
        frame(SIXTEEN, IN_TIME);
        assertThat(frame(SIXTEEN, LATE)).as("just in time").hasSize(6);
        assertThat(frame(SIXTEEN, LATE + 1)).hasSize(3);
        assertThat(frame(SIXTEEN, 400)).hasSize(1);
        assertThat(frame(SIXTEEN, 400)).as("one at least").hasSize(1);
        for (int n = 2; n <= 6; n++) {
            assertThat(frame(SIXTEEN, IN_TIME)).hasSize(n);
        }
        assertThat(frame(SIXTEEN, IN_TIME)).as("no more than are wanted").hasSize(6);
    }

    @Test
    void nobodyIsLeftOutWhereEveryFrameIsLate() {
        Map<String, Integer> shown = new HashMap<>();
        for (int i = 0; i < 40; i++) {
            frame(SIXTEEN, 2 * LATE).forEach(c -> shown.merge(c, 1, Integer::sum));
        }
        assertThat(shown.keySet()).hasSize(16);
    }
}
