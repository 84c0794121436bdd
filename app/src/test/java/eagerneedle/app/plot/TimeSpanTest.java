package eagerneedle.app.plot;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;

class TimeSpanTest {
    private long now = 1_000_000_000L;
    private final TimeSpan span = new TimeSpan(() -> now);

    private void later(double from, double to) {
        now += 360_000_000L;
        span.show(from, to);
    }

    @Test
    void eachStepIsTakenBackByItself() {
        assertThat(span.shown()).as("everything").isNull();
        span.show(1, 9);
        later(2, 8);
        later(3, 7);
        span.back();
        assertThat(span.shown()).containsExactly(2, 8);
        span.back();
        assertThat(span.shown()).containsExactly(1, 9);
        span.back();
        assertThat(span.shown()).isNull();
        span.back();
        assertThat(span.shown()).isNull();
    }

    @Test
    void turnsOfTheWheelInOneGoAreOneStep() {
        span.show(1, 9);
        span.show(2, 8);
        span.show(3, 7);
        assertThat(span.shown()).containsExactly(3, 7);
        span.back();
        assertThat(span.shown()).isNull();
    }

    @Test
    void showingAllCanBeTakenBackAndAnotherRunForgetsEverything() {
        span.show(1, 9);
        span.all();
        assertThat(span.shown()).isNull();
        span.back();
        assertThat(span.shown()).containsExactly(1, 9);
        later(2, 8);
        span.forget();
        assertThat(span.shown()).isNull();
        span.back();
        assertThat(span.shown()).isNull();
    }

    @Test
    void whoSharesItIsToldOfEveryChangeAndOfNothingElse() {
        AtomicInteger told = new AtomicInteger();
        span.onChange(told::incrementAndGet);
        span.all();
        span.back();
        span.forget();
        assertThat(told.get()).as("nothing changed").isZero();
        span.show(1, 2);
        span.all();
        span.back();
        assertThat(told.get()).isEqualTo(3);
    }
}
