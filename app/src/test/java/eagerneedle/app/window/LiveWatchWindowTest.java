package eagerneedle.app.window;

import static eagerneedle.app.OnScreen.act;
import static eagerneedle.app.OnScreen.seen;
import static eagerneedle.app.OnScreen.settle;
import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.core.watch.Rule;
import eagerneedle.rig.simulated.LineStandIn;
import eagerneedle.rig.simulated.Misbehaviour;
import java.time.Clock;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import javafx.scene.control.ChoiceBox;
import javafx.scene.control.Label;
import javafx.scene.control.Labeled;
import javafx.scene.input.KeyCode;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/** What is wrong at a bench of three instruments is said in the window while it can still be put right. */
class LiveWatchWindowTest extends BenchWindow {
    private static final String LINE = "live-watch";
    private static final String VERDICT = "run-watched";
    private static final String SWAPPED = "Cold oven and warm oven show what is expected of each other";
    private static final String REFUSAL = "refusal";

    private static final long PATIENCE = 20_000_000_000L;

    /** Those that are seen before anything is captured at all; the test of preparing has them. */
    private static final Set<Rule> ELSEWHERE = EnumSet.of(Rule.WARMING_UP);

    /** What goes wrong in a capture of the bench on which everything does, and where it is said. */
    private enum Trouble {
        VOLTS(Rule.SATURATED, LINE, "Bridge voltage is saturated"),
        PEARL(Rule.OPEN, LINE, "Pearl shows what its sensor cannot"),
        BEAD(Rule.SHORTED, LINE, "Bead shows what its sensor cannot"),
        RANGER(Rule.OUT_OF_RANGE, LINE, "Ranger is out of range"),
        ASLEEP(Rule.DEAD, LINE, "Buffered voltage has not changed by a single step"),
        COARSE(Rule.CONVERTER_LIMITED, LINE, "Coarse voltage stays within one step of its converter"),
        LOAD(Rule.LIMIT_NEAR, LINE, "Load is close to the limit of 100 N"),
        OVER(Rule.LIMIT_PASSED, LINE, "Overload passed the limit of 100 N"),
        WEIGHT(Rule.REVERSED, LINE, "Weight falls where it should rise"),
        OVEN(Rule.OUTSIDE_ITS_BAND, LINE, "Warm oven shows 40, outside what its tag expects"),
        FAST(Rule.UNDERSAMPLED, LINE, "Motor voltage changes from sample to sample"),
        BATH(Rule.REFERENCE_LOST, LINE, "Ice bath moved by"),
        HANG(Rule.MAINS_HUM, LINE, "Hanging load carries a hum of 50 Hz"),
        HOOK(Rule.CONTACT, LINE, "Hook load jumps within a span that should be steady"),
        WHEEL(Rule.MISSED_EDGE, LINE, "spokes: "),
        CREEP(Rule.NOT_STEADY, VERDICT, "creeping load was not steady when the row was taken"),
        BENT(Rule.RESIDUALS, VERDICT, "the residuals of the fit follow a pattern"),
        FULL(Rule.NO_VALUE, VERDICT, "every sample of bridge voltage is out of range"),
        LIGHT(Rule.ROW_LEFT_OUT, REFUSAL, "Counts nowhere: So light a weight says nothing."),
        HEAVY(Rule.ROW, REFUSAL, "Not to be kept: This weight is not one of the set.");

        private final Rule rule;
        private final String where;
        private final String words;

        Trouble(Rule rule, String where, String words) {
            this.rule = rule;
            this.where = where;
            this.words = words;
        }

        String capture() {
            return switch (this) {
                case FULL -> "volts";
                case LIGHT -> "weight";
                case HEAVY -> "over";
                default -> name().toLowerCase(Locale.ROOT);
            };
        }
    }

    @Start
    void start(Stage newStage) throws Exception {
        prepare(newStage);
    }

    private static String says(FxRobot robot, String where) {
        String[] text = new String[1];
        act(() -> {
            Label l = robot.lookup("#" + where).queryAs(Label.class);
            text[0] = l.isManaged() ? l.getText() : "";
        });
        return text[0];
    }

    private void connect(FxRobot robot, String mistake) throws Exception {
        robot.push(KeyCode.DIGIT2);
        settle();
        if (window.rig().isPresent()) {
            fire(robot, "connect");
            await(() -> window.rig().isEmpty());
        }
        act(() -> {
            @SuppressWarnings("unchecked")
            ChoiceBox<String> box = robot.lookup("#mistake").queryAs(ChoiceBox.class);
            box.setValue(mistake);
        });
        fire(robot, "connect");
        await(() -> window.rig().isPresent());
        assertThat(window.rig().orElseThrow().devices()).containsExactly("one", "other", "timer");
        robot.push(KeyCode.DIGIT4);
        settle();
    }

    private void begin(FxRobot robot, String capture) throws Exception {
        fire(robot, "level-" + capture + "-run");
        robot.push(KeyCode.SPACE);
        await(() -> startStop(robot).equals("Stop"));
    }

    /** Whether a run that has ended waits to be kept or discarded. */
    private static boolean isPending(FxRobot robot) {
        return seen(
                () -> robot.lookup("#keep-run").query().getParent().getParent().isVisible());
    }

    private static String startStop(FxRobot robot) {
        String[] text = new String[1];
        act(() -> text[0] = robot.lookup("#start-stop").queryAs(Labeled.class).getText());
        return text[0];
    }

    private void end(FxRobot robot) throws Exception {
        if (startStop(robot).equals("Stop")) {
            robot.push(KeyCode.SPACE);
            await(() -> !startStop(robot).equals("Stop"));
        }
        // A row that was not begun leaves nothing to discard.
        if (isPending(robot)) {
            robot.push(KeyCode.D);
            await(() -> !isPending(robot));
        }
    }

    /** Waits for words; what stands there when they do not come. */
    private static String awaited(FxRobot robot, String where, String words) throws InterruptedException {
        long until = System.nanoTime() + PATIENCE;
        String said = says(robot, where);
        while (!said.contains(words) && System.nanoTime() < until) {
            Thread.sleep(10);
            said = says(robot, where);
        }
        return said;
    }

    private void lasted(String capture, double seconds) throws Exception {
        String channel =
                window.bench().sheet().captures().get(capture).channels().get(0);
        await(() -> window.rig().orElseThrow().clock(channel) > seconds);
    }

    @Test
    void everyLiveWatchFiresAndNoneCriesWolf(FxRobot robot) throws Exception {
        openText(testSheet("watched"), Clock.systemUTC(), 6);
        connect(robot, "everything");
        Set<Rule> fired = EnumSet.noneOf(Rule.class);
        for (Trouble t : Trouble.values()) {
            begin(robot, t.capture());
            if (t == Trouble.CREEP) {
                lasted(t.capture(), 3);
                fire(robot, "hold-anyway");
            } else if (!t.where.equals(LINE)) {
                lasted(t.capture(), 3);
                robot.push(KeyCode.SPACE);
            }
            assertThat(awaited(robot, t.where, t.words)).as(t.name()).contains(t.words);
            fired.add(t.rule);
            end(robot);
        }
        connect(robot, "exchanged");
        begin(robot, "ovens");
        assertThat(awaited(robot, LINE, SWAPPED)).contains(SWAPPED);
        fired.add(Rule.SWAPPED);
        end(robot);

        connect(robot, "no mistake");
        nothingIsSaidWhereAllIsWell(robot);
        begin(robot, "ovens");
        misbehaves(robot, "other", Misbehaviour.DROPS, "samples of cold oven did not arrive");
        fired.add(Rule.DROPPED_SAMPLES);
        misbehaves(robot, "one", Misbehaviour.JITTER, "Samples of warm oven come unevenly");
        fired.add(Rule.CLOCK_JITTER);
        misbehaves(robot, "one", Misbehaviour.GARBAGE, "Logger one: ");
        misbehaves(robot, "other", Misbehaviour.SILENCE, "Logger two: ");
        end(robot);
        begin(robot, "wheel");
        misbehaves(robot, "timer", Misbehaviour.REFLECTIONS, "spokes: ");
        fired.add(Rule.DOUBLE_EDGE);
        end(robot);

        assertThat(fired)
                .as("every rule that is said to be live")
                .containsExactlyInAnyOrderElementsOf(Arrays.stream(Rule.values())
                        .filter(r -> r.looks() != Rule.Looks.STORED && !ELSEWHERE.contains(r))
                        .toList());
    }

    private void nothingIsSaidWhereAllIsWell(FxRobot robot) throws Exception {
        for (String capture : List.of("ovens", "weight", "hang", "wheel")) {
            begin(robot, capture);
            long until = System.nanoTime() + 500_000_000L;
            while (System.nanoTime() < until) {
                // A busy machine may lose samples of its own.
                assertThat(says(robot, LINE))
                        .as(capture)
                        .satisfiesAnyOf(
                                s -> assertThat(s).isEmpty(), s -> assertThat(s).contains("did not arrive"));
                Thread.sleep(20);
            }
            end(robot);
        }
    }

    private void misbehaves(FxRobot robot, String device, Misbehaviour how, String words) throws Exception {
        LineStandIn other = window.rig().orElseThrow().standIn(device);
        other.misbehave(how);
        assertThat(awaited(robot, LINE, words)).as(how.name()).contains(words);
        other.misbehave(Misbehaviour.NONE);
    }
}
