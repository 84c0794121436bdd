package eagerneedle.app.window;

import static eagerneedle.app.OnScreen.act;
import static eagerneedle.app.OnScreen.settle;
import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import eagerneedle.app.writing.WritingView;
import eagerneedle.core.edit.Completion;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.store.bench.BenchFile;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javafx.scene.control.ChoiceBox;
import javafx.scene.control.Labeled;
import javafx.scene.control.ListView;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Region;
import javafx.stage.Stage;
import org.fxmisc.richtext.CodeArea;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/** The method desk in the real window: written from nothing, mended, renamed, taken over, and never lost. */
class DeskWindowTest extends BenchWindow {
    private static final Pattern KEY = Pattern.compile("(?<=^|[ {])([a-z_]+):(?= |$)");

    @Start
    void start(Stage newStage) throws Exception {
        prepare(newStage);
        System.setProperty("needle.home", folder.resolve("home").toString());
    }

    @AfterEach
    void home() {
        System.clearProperty("needle.home");
    }

    /** So many names are taken from the list; that the others would be there, WritingTest says of every sheet. */
    private static final int MOST = Integer.getInteger("completions", 40);

    private WritingView desk;

    private CodeArea open(FxRobot robot, String text) {
        openText(robot, text, Clock.systemUTC());
        act(() -> desk = window.aside().desk());
        settle();
        return text(robot);
    }

    private static CodeArea text(FxRobot robot) {
        return robot.lookup("#sheet-text").queryAs(CodeArea.class);
    }

    private static void write(CodeArea area, String text) {
        act(() -> area.replaceText(text));
        settle();
    }

    private static int told(FxRobot robot) {
        return robot.lookup("#problems").queryAs(Pane.class).getChildren().size();
    }

    private static String state(FxRobot robot) {
        return text(robot, "desk-state");
    }

    private static String pendulum() throws Exception {
        String page = Files.readString(Path.of("..", "docs", "adding-a-method.md"));
        int from = page.indexOf("```yaml") + 8;
        return page.substring(from, page.indexOf("```", from));
    }

    /** From an empty page: every name of an entry that the program knows is taken from what it proposes. */
    @Test
    void thePendulumOfTheTutorialIsWrittenByCompletion(FxRobot robot) throws Exception {
        CodeArea area = open(robot, SheetReader.shippedText("logging-day"));
        pick(robot, "desk-sheet", "An empty page");
        assertThat(area.getText()).isEmpty();
        String wanted = pendulum();
        Matcher m = KEY.matcher(wanted);
        int done = 0;
        int proposed = 0;
        int own = 0;
        while (m.find() && proposed < MOST) {
            String before = wanted.substring(done, m.start(1));
            act(() -> area.appendText(before + m.group(1).charAt(0)));
            act(() -> {
                area.moveTo(area.getLength());
                area.requestFocus();
            });
            robot.push(KeyCode.CONTROL, KeyCode.SPACE);
            boolean there = robot.lookup("#proposals").tryQuery().isPresent() && choose(robot, m.group(1));
            if (there) {
                robot.push(KeyCode.ENTER);
                proposed++;
                assertThat(area.getText()).endsWith(m.group(1) + ": ");
                act(() -> area.deleteText(area.getLength() - 1, area.getLength()));
            } else {
                robot.push(KeyCode.ESCAPE);
                act(() -> area.appendText(m.group(1).substring(1) + ":"));
                own++;
            }
            done = m.end(1) + 1;
        }
        String rest = wanted.substring(done);
        act(() -> area.appendText(rest));
        assertThat(area.getText()).isEqualTo(wanted);
        assertThat(proposed).as("names that the program proposed").isGreaterThanOrEqualTo(Math.min(MOST, 90));
        assertThat(own)
                .as("names of the author's own, which nobody can propose")
                .isLessThan(60);
        await(() -> state(robot).startsWith("good"));
        Path to = folder.resolve("pendulum.yaml");
        act(() -> desk.save(to));
        assertThat(SheetTrial.read(Files.readString(to), "pendulum.yaml")
                        .sheet()
                        .id())
                .isEqualTo("pendulum");
        fire(robot, "side-budget");
        await(() -> robot.lookup(n -> n instanceof Labeled l && l.getText().startsWith("local g"))
                .tryQuery()
                .isPresent());
        fire(robot, "side-quantities");
        await(() -> robot.lookup("#descent").tryQuery().isPresent());
        Region descent = robot.lookup("#descent").queryAs(Region.class);
        assertThat(descent.getAccessibleText()).contains("g: ", "from");
        int caret = area.getCaretPosition();
        act(descent::requestFocus);
        robot.push(KeyCode.DOWN).push(KeyCode.ENTER);
        await(() -> area.getCaretPosition() != caret);
        assertThat(area.getText().substring(area.getCaretPosition())).matches("(?s)[a-zA-Z_]+:.*");
        fire(robot, "side-rehearsal");
        act(() -> robot.lookup("#rehearse-fault")
                .queryAs(ChoiceBox.class)
                .getSelectionModel()
                .select(1));
        fire(robot, "rehearse");
        await(() -> robot.lookup(n -> n instanceof Labeled l && l.getText().contains("with a mistake made"))
                .tryQuery()
                .isPresent());
        assertThat(robot.lookup("#rehearsed").queryAs(Pane.class).getChildren()).isNotEmpty();
    }

    @SuppressWarnings("unchecked")
    private static boolean choose(FxRobot robot, String name) {
        ListView<Completion.Proposal> list = robot.lookup("#proposals").queryListView();
        for (Completion.Proposal p : list.getItems()) {
            if (p.words().equals(name)) {
                act(() -> list.getSelectionModel().select(p));
                return true;
            }
        }
        return false;
    }

    @Test
    void whatIsWrongIsToldMendedRenamedAndUndone(FxRobot robot) throws Exception {
        String good = pendulum();
        CodeArea area = open(robot, good);
        await(() -> state(robot).startsWith("good"));
        String bad = good.replace("4 * pi^2 / slope(law)", "4 * pi^2 / slope(lw)");
        write(area, bad);
        await(() -> told(robot) == 1);
        assertThat(state(robot)).startsWith("1 problem");
        fire(robot, "mend");
        await(() -> told(robot) == 0);
        assertThat(area.getText()).isEqualTo(good);

        act(() -> area.moveTo(good.indexOf("  swings:") + 4));
        type(robot, "new-name", "timed");
        fire(robot, "rename");
        String renamed = area.getText();
        assertThat(renamed).doesNotContain("(swings)").contains("label: time of 20 swings");
        assertThat(renamed.split("timed", -1)).as("in five places").hasSize(6);
        await(() -> state(robot).startsWith("good"));
        act(() -> area.moveTo(renamed.indexOf("values(timed)") + 9));
        act(area::requestFocus);
        robot.push(KeyCode.F12);
        settle();
        assertThat(area.getSelection().getStart()).isEqualTo(renamed.indexOf("  timed:") + 2);

        // Undo goes on across saving.
        Path to = folder.resolve("saved.yaml");
        act(() -> desk.save(to));
        act(area::undo);
        assertThat(area.getText()).isEqualTo(good);
        act(area::undo);
        assertThat(area.getText()).isEqualTo(bad);
        act(area::redo);
        act(area::redo);
        assertThat(area.getText()).isEqualTo(renamed);
        assertThat(Files.readString(to)).isEqualTo(renamed);

        // A part is inserted, and nothing else is touched.
        pick(robot, "desk-insert", "A check");
        String more = area.getText();
        assertThat(more).contains("What must hold");
        assertThat(more.replaceFirst("\n  - [^\n]*What must hold[^\n]*", "")).isEqualTo(renamed);
        pick(robot, "desk-insert", "A channel with");
        await(() -> state(robot).startsWith("good"));
        robot.push(KeyCode.CONTROL, KeyCode.F);
        type(robot, "find-text", "bench 2");
        fire(robot, "find-next");
        assertThat(area.getSelectedText()).isEqualTo("bench 2");
    }

    @Test
    void aSheetIsTakenOverOnceWhatMovesWasSeenAndABrokenOneIsNotLost(FxRobot robot) throws Exception {
        openRehearsed(robot, "trolley-two-gates");
        String first = session().sheetText();
        act(() -> desk = window.aside().desk());
        CodeArea area = text(robot);
        await(() -> state(robot).startsWith("good"));
        String changed =
                first.replace("W = (", "W = (").replaceFirst("formula: \"hangs \\* g\"", "formula: \"2 * hangs * g\"");
        assertThat(changed).isNotEqualTo(first);
        write(area, changed);
        await(() -> state(robot).equals("good · not taken over"));
        fire(robot, "take-over");
        List<String> moved = robot.lookup("#moved").queryAs(Pane.class).getChildren().stream()
                .map(n -> ((Labeled) n).getText())
                .toList();
        assertThat(moved.get(0)).startsWith("In the ledger");
        assertThat(moved.subList(1, moved.size())).anyMatch(l -> l.contains(" → "));
        assertThat(session().sheetText()).as("not yet").isEqualTo(first);
        fire(robot, "take-over");
        assertThat(session().sheetText()).isEqualTo(changed);
        try (BenchFile kept = window.bench().file()) {
            assertThat(kept.firstSheet()).as("the old sheet is still there").isEqualTo(first);
        }
    }

    @Test
    void whatIsBrokenIsThereAgainLater(FxRobot robot) throws Exception {
        String good = pendulum();
        CodeArea area = open(robot, good);
        String broken = good.replace("captures:", "captures: [ {");
        write(area, broken);
        await(() -> told(robot) > 0 && Files.exists(folder.resolve("home").resolve("drafts")));
        fire(robot, "desk-back");
        assertThat(session().sheetText()).isEqualTo(good);
        act(() -> desk = window.aside().desk());
        settle();
        assertThat(text(robot).getText()).isEqualTo(broken);
        pick(robot, "desk-sheet", "The session's sheet");
        await(() -> state(robot).startsWith("good · the session's"));
        act(() -> text(robot).undo());
        assertThat(text(robot).getText()).isEqualTo(broken);
    }

    /** How long a key takes in 1 500 lines is measured, and nothing is asked of it; what is typed must be there. */
    @Test
    void keysInALongSheetAreMeasured(FxRobot robot) throws Exception {
        assumeTrue(Boolean.getBoolean("everyMethod"), "in the long profile");
        StringBuilder more = new StringBuilder();
        for (int i = 0; i < 1450; i++) {
            more.append("  more_").append(i).append(": {label: more, value: \"1.0(1) mm\", group: More}\n");
        }
        CodeArea area = open(robot, pendulum().replace("inputs:\n", "inputs:\n" + more));
        assertThat(area.getParagraphs().size()).isGreaterThan(1500);
        act(() -> {
            area.moveTo(800, 8);
            area.requestFollowCaret();
        });
        double[] took = new double[60];
        act(() -> {
            for (int i = 0; i < took.length; i++) {
                long from = System.nanoTime();
                area.fireEvent(new javafx.scene.input.KeyEvent(
                        javafx.scene.input.KeyEvent.KEY_TYPED, "x", "", KeyCode.UNDEFINED, false, false, false, false));
                area.getScene().getRoot().applyCss();
                area.getScene().getRoot().layout();
                took[i] = (System.nanoTime() - from) / 1e6;
            }
        });
        java.util.Arrays.sort(took);
        System.out.printf(
                "a key in %d lines: median %.1f ms, slowest of 60 %.1f ms%n",
                area.getParagraphs().size(), took[30], took[59]);
        assertThat(area.getText(800)).contains("xxxxx");
        for (int i = 0; i < 4; i++) {
            act(() -> area.replaceText(area.getText().replace("slope(lw)", "slope(law)")));
            await(() -> told(robot) == 0);
            int at = area.getText().indexOf("slope(law)") + "slope(l".length();
            long from = System.nanoTime();
            act(() -> area.deleteText(at, at + 1));
            await(() -> told(robot) > 0);
            System.out.printf("a problem in them is told after %.0f ms%n", (System.nanoTime() - from) / 1e6);
        }
        String tutorial = pendulum();
        write(area, tutorial);
        await(() -> told(robot) == 0);
        long short1 = System.nanoTime();
        act(() -> area.replaceText(tutorial.replace("slope(law)", "slope(lw)")));
        await(() -> told(robot) > 0);
        System.out.printf("a problem in the tutorial's is told after %.0f ms%n", (System.nanoTime() - short1) / 1e6);
    }
}
