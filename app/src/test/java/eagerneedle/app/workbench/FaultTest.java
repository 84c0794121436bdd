package eagerneedle.app.workbench;

import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.sheet.SheetException;
import eagerneedle.core.sheet.SheetReader;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CompletionException;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** What the program was given is answered; what it did wrong is told to whoever watches. */
class FaultTest {
    private static final List<Throwable> WATCHED = new ArrayList<>();

    private static List<Runnable> careless() {
        return List.of(
                () -> Optional.empty().orElseThrow(),
                () -> List.of(1).get(1),
                () -> ((Object) "a").equals(List.of().iterator().next()),
                () -> List.of().add(null),
                () -> String.valueOf(((Integer) (Object) "a") + 1));
    }

    private static String said(Throwable e) {
        Thread now = Thread.currentThread();
        Thread.UncaughtExceptionHandler before = now.getUncaughtExceptionHandler();
        WATCHED.clear();
        now.setUncaughtExceptionHandler((t, x) -> WATCHED.add(x));
        try {
            return Fault.said(e);
        } finally {
            now.setUncaughtExceptionHandler(before);
        }
    }

    @ParameterizedTest
    @MethodSource("careless")
    void whatNoInputShouldBringAboutIsTold(Runnable act) {
        try {
            act.run();
        } catch (RuntimeException e) {
            assertThat(said(e))
                    .startsWith("Something went wrong in the program itself")
                    .doesNotContain("java");
            assertThat(WATCHED).containsExactly(e);
            assertThat(said(new CompletionException(e))).startsWith("Something went wrong");
            assertThat(WATCHED).containsExactly(e);
            return;
        }
        throw new AssertionError("It was meant to fail.");
    }

    @Test
    void whatWasGivenIsAnswered() {
        assertThat(said(new FormulaException(3, "There is no unit called lichtjahr.")))
                .isEqualTo("There is no unit called lichtjahr.");
        assertThat(said(new CompletionException(new IllegalArgumentException("Write a number."))))
                .isEqualTo("Write a number.");
        assertThat(said(new IllegalStateException())).isEqualTo("That did not work.");
        try {
            SheetReader.read("sheet: [1", "broken.yaml");
        } catch (SheetException e) {
            assertThat(e.getCause()).as("what the YAML reader said is kept").isNotNull();
            assertThat(said(e)).startsWith("broken.yaml, line 1");
        }
        assertThat(WATCHED).isEmpty();
    }
}
