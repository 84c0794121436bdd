package eagerneedle.app.widget;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;

/** What is worked out beside the window is shown by it, once, and only while it is wanted. */
class MeanwhileTest {
    /** Where the window's thread would take what it is given. */
    private final BlockingQueue<Runnable> window = new LinkedBlockingQueue<>();

    private final Meanwhile meanwhile = new Meanwhile(window::add);
    private final List<String> shown = new ArrayList<>();

    private void show() throws InterruptedException {
        Runnable next = window.poll(20, TimeUnit.SECONDS);
        assertThat(next).as("something was worked out").isNotNull();
        next.run();
    }

    @Test
    void isShownByTheWindowAndLeavesItFreeMeanwhile() throws Exception {
        CountDownLatch goesOn = new CountDownLatch(1);
        String[] by = new String[1];
        assertThat(meanwhile.isFree()).isTrue();
        meanwhile.work(
                () -> {
                    by[0] = Thread.currentThread().getName();
                    try {
                        assertThat(goesOn.await(20, TimeUnit.SECONDS)).isTrue();
                    } catch (InterruptedException e) {
                        throw new IllegalStateException(e);
                    }
                    return "12.5";
                },
                shown::add);
        assertThat(meanwhile.isFree()).isFalse();
        goesOn.countDown();
        show();
        assertThat(shown).containsExactly("12.5");
        assertThat(by[0]).isEqualTo("meanwhile");
        assertThat(meanwhile.isFree()).isTrue();
    }

    @Test
    void whatIsForgottenIsNotShown() throws Exception {
        meanwhile.work(() -> "of the run before", shown::add);
        meanwhile.forget();
        assertThat(meanwhile.isFree()).isTrue();
        meanwhile.work(() -> "of this run", shown::add);
        show();
        show();
        assertThat(shown).containsExactly("of this run");
        assertThat(meanwhile.isFree()).isTrue();
    }

    @Test
    void whatGoesWrongGoesWrongInTheWindowAndTheNextIsWorkedOut() throws Exception {
        meanwhile.<String>work(
                () -> {
                    throw new IllegalArgumentException("no such channel");
                },
                shown::add);
        assertThatThrownBy(this::show)
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessage("no such channel");
        meanwhile.work(() -> "well again", shown::add);
        show();
        assertThat(shown).containsExactly("well again");
    }
}
