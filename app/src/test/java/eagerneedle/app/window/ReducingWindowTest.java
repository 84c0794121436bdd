package eagerneedle.app.window;

import static eagerneedle.app.OnScreen.act;
import static eagerneedle.app.OnScreen.settle;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.app.plot.PlotView;
import eagerneedle.app.record.RecordStation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.session.Run;
import eagerneedle.picture.Plot;
import java.nio.file.Path;
import javafx.geometry.Point2D;
import javafx.scene.control.Labeled;
import javafx.scene.control.ListView;
import javafx.scene.control.TableView;
import javafx.scene.control.TextField;
import javafx.scene.input.Clipboard;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.Pane;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/**
 * Reduce, Judge and Record by mouse and keys in the real window: choices made, tried, taken back, and worked without
 * seeing the reference.
 */
class ReducingWindowTest extends BenchWindow {
    @Start
    void start(Stage newStage) throws Exception {
        prepare(newStage);
    }

    private void open(FxRobot robot, String method) {
        openRehearsed(robot, method);
        robot.push(KeyCode.DIGIT5);
        settle();
    }

    private Quantity result(String key) {
        return window.bench().reduction().quantity(key).orElseThrow();
    }

    private Run run(int id) {
        return session().run(id).orElseThrow();
    }

    private static PlotView plot(FxRobot robot, String id) {
        return robot.lookup("#" + id).queryAs(PlotView.class);
    }

    private static Point2D at(PlotView view, double x) {
        return view.localToScreen(
                view.frame().px(x), view.frame().top() + view.frame().height() * 0.3);
    }

    private static void submit(FxRobot robot, String id, String words) {
        act(() -> {
            TextField f = robot.lookup("#" + id).queryAs(TextField.class);
            f.setText(words);
            f.getOnAction().handle(new javafx.event.ActionEvent());
        });
        settle();
    }

    @Test
    void choicesAreTriedAndEverythingFollowsAndNothingIsKept(FxRobot robot) {
        open(robot, "baggage-chute");
        Quantity before = result("g");
        int acts = window.bench().file().acts().size();
        robot.push(KeyCode.W);
        settle();
        assertThat(robot.lookup("#trial").query().isVisible()).isTrue();
        robot.push(KeyCode.DIGIT1);
        submit(robot, "read-spacing", "860.0(6) mm");
        robot.push(KeyCode.DIGIT5);
        act(() -> window.choose(run(28)));
        fire(robot, "leave-out");
        submit(robot, "reason", "tried");
        assertThat(result("g").value()).isNotCloseTo(before.value(), within(0.05));
        assertThat(text(robot, "trial-says")).contains("Left run 28 out").contains("1 more");
        assertThat(robot.lookup("#ledger .ledger-was").queryAll())
                .as("what it was stands under what it would be")
                .anyMatch(n -> ((Labeled) n).getText().startsWith("was 9.7"));
        assertThat(window.bench().file().acts()).as("nothing is written").hasSize(acts);
        assertThat(window.bench().file().session().runs().get(27).leftOut()).isNull();
        fire(robot, "undo");
        assertThat(run(28).leftOut()).isNull();
        assertThat(session().measured().get("spacing")).isEqualTo("860.0(6) mm");
        fire(robot, "trial-forget");
        assertThat(result("g").sameAs(before)).isTrue();
        assertThat(robot.lookup("#trial").query().isVisible()).isFalse();

        robot.push(KeyCode.W);
        robot.push(KeyCode.DIGIT1);
        submit(robot, "read-spacing", "850.0(6) mm");
        fire(robot, "trial-keep");
        assertThat(window.bench().isTrying()).isFalse();
        assertThat(window.bench().file().session().measured().get("spacing")).isEqualTo("850.0(6) mm");
        assertThat(window.bench().file().acts()).hasSize(acts + 1);
        fire(robot, "undo");
        assertThat(result("g").sameAs(before)).isTrue();
    }

    @Test
    void runsLieOverEachOtherAndThoseOfALevelAreTakenTogether(FxRobot robot) {
        open(robot, "potters-wheel");
        act(() -> window.choose(run(8)));
        fire(robot, "sight-all");
        assertThat(plot(robot, "overlay").frame()).isNotNull();
        assertThat(plot(robot, "overlay").getAccessibleText()).isEqualTo("Disc on the wheel, all runs");
        robot.clickOn("#sight-run");
        assertThat(plot(robot, "trace").frame()).isNotNull();
    }

    @Test
    void theModelsOfARunStandSideBySide(FxRobot robot) {
        open(robot, "fading-dye");
        fire(robot, "sight-models");
        assertThat(robot.lookup("#models").queryAs(Pane.class).getChildren()).hasSize(3);
        assertThat(text(robot, "models-say"))
                .contains("The residuals of the order zero bend")
                .contains("Beside the first order the ");
        assertThat(robot.lookup("#views").queryAs(Pane.class).getChildren()).hasSize(3);
        assertThat(robot.lookup("#models .good").queryAs(Labeled.class).getText())
                .contains("over 99.9 %: the likeliest");
    }

    @Test
    void aColumnIsAddedByFormulaAndTheTableGoesToASpreadsheet(FxRobot robot) {
        open(robot, "baggage-chute");
        act(() -> window.choose(run(9)));
        fire(robot, "sight-table");
        TableView<?> table = robot.lookup("#run-table").queryAs(TableView.class);
        int columns = table.getColumns().size();
        assertThat(table.getItems()).hasSize(20);
        type(robot, "own-name", "ratio");
        submit(robot, "own-formula", "a / sin_theta +");
        assertThat(text(robot, "watch-line")).contains("In the formula, column");
        assertThat(session().sheetText()).doesNotContain("ratio:");
        submit(robot, "own-formula", "a / sin_theta");
        assertThat(table.getColumns()).hasSize(columns + 1);
        Quantity ratio =
                window.bench().reduction().ofRun(run(9), "ratio").quantity().orElseThrow();
        assertThat(ratio.value())
                .isCloseTo(
                        window.bench()
                                        .reduction()
                                        .ofRun(run(9), "a")
                                        .quantity()
                                        .orElseThrow()
                                        .value()
                                / window.bench()
                                        .reduction()
                                        .ofRun(run(9), "sin_theta")
                                        .quantity()
                                        .orElseThrow()
                                        .value(),
                        within(1e-9));
        type(robot, "own-name", "ratio");
        submit(robot, "own-formula", "a");
        assertThat(text(robot, "watch-line")).contains("There is a quantity ratio already");
        fire(robot, "copy-table");
        String[] copied = {""};
        act(() -> copied[0] = Clipboard.getSystemClipboard().getString());
        String[] lines = copied[0].split("\n");
        assertThat(lines).hasSize(21);
        assertThat(lines[0])
                .startsWith("run\tlevel\ttakes part\tsin θ\tu\tacceleration / m/s^2\tu")
                .contains("ratio");
        assertThat(lines[1].split("\t")).hasSameSizeAs(lines[0].split("\t"));
        fire(robot, "own-away-ratio");
        assertThat(session().sheetText()).isEqualTo(window.bench().file().firstSheet());
        fire(robot, "undo");
        assertThat(session().sheetText()).contains("ratio:");
    }

    @Test
    void cursorsReadTheTraceAndTheSamplesBetweenThemAreLeftOutAndTakenInAgain(FxRobot robot) throws Exception {
        open(robot, "baggage-chute");
        act(() -> window.choose(run(20)));
        settle();
        PlotView trace = plot(robot, "trace");
        int all = window.bench()
                .reduction()
                .trace(run(20), "position")
                .orElseThrow()
                .size();
        assertThat(text(robot, "run-figures")).contains("window: n ").contains("drifting");
        robot.clickOn(at(trace, 1.2));
        await(() -> text(robot, "run-figures").startsWith("a: 1."));
        robot.clickOn(at(trace, 1.4));
        await(() -> text(robot, "run-figures").contains("b − a: 0."));
        assertThat(text(robot, "run-figures")).contains("m/s");
        fire(robot, "void-span");
        submit(robot, "void-span-reason", "hand in the beam");
        assertThat(run(20).entries().voided()).hasSize(1);
        int fewer = window.bench()
                .reduction()
                .trace(run(20), "position")
                .orElseThrow()
                .size();
        assertThat(all - fewer).isBetween(8, 13);
        pick(robot, "windows", "Take ");
        assertThat(window.bench()
                        .reduction()
                        .trace(run(20), "position")
                        .orElseThrow()
                        .size())
                .isEqualTo(all);
    }

    @Test
    void windowsOfAllRunsAreMovedAsInOneAndProposedAgain(FxRobot robot) {
        open(robot, "baggage-chute");
        act(() -> window.choose(run(20)));
        settle();
        var proposed = window.bench().reduction().window(run(12), "rolling").orElseThrow();
        var here = window.bench().reduction().window(run(20), "rolling").orElseThrow();
        robot.clickOn(at(plot(robot, "trace"), (here.from() + here.to()) / 2));
        robot.push(KeyCode.DOWN).push(KeyCode.SHIFT, KeyCode.LEFT);
        settle();
        double moved = here.to()
                - window.bench()
                        .reduction()
                        .window(run(20), "rolling")
                        .orElseThrow()
                        .to();
        assertThat(moved).isGreaterThan(0.1);
        pick(robot, "windows", "All runs of this kind: edges moved");
        var after = window.bench().reduction().window(run(12), "rolling").orElseThrow();
        assertThat(after.to()).isCloseTo(proposed.to() - moved, within(1e-9));
        assertThat(after.from()).isCloseTo(proposed.from(), within(1e-9));
        assertThat(session().runs().stream().filter(r -> !r.windows().isEmpty()))
                .hasSize(20);
        pick(robot, "windows", "All runs of this kind: proposed");
        assertThat(session().runs().stream().filter(r -> !r.windows().isEmpty()))
                .isEmpty();
        fire(robot, "undo");
        assertThat(session().runs().stream().filter(r -> !r.windows().isEmpty()))
                .hasSize(20);
    }

    @Test
    void aPointOfThePictureIsLeftOutWithAReasonAndItsEffectIsShown(FxRobot robot) throws Exception {
        open(robot, "potters-wheel");
        PlotView columns = plot(robot, "columns");
        Run run5 = run(5);
        double x = window.bench()
                .reduction()
                .ofRun(run5, "alpha")
                .quantity()
                .orElseThrow()
                .value();
        double y = window.bench()
                .reduction()
                .ofRun(run5, "torque")
                .quantity()
                .orElseThrow()
                .value();
        robot.clickOn(
                columns.localToScreen(columns.frame().px(x), columns.frame().py(y)));
        await(() -> robot.lookup("#reason").query().isVisible());
        assertThat(window.run().orElseThrow().id()).isEqualTo(5);
        assertThat(robot.lookup(n -> n instanceof Labeled l
                                && l.getText() != null
                                && l.getText().startsWith("Without it inertia of the disc would be"))
                        .tryQuery())
                .isPresent();
        submit(robot, "reason", "thread slipped");
        assertThat(run(5).leftOut()).isEqualTo("thread slipped");
        robot.clickOn(
                columns.localToScreen(columns.frame().px(x), columns.frame().py(y)));
        await(() -> run(5).leftOut() == null);
    }

    @Test
    void blindWorkShowsNoReferenceUntilTheResultIsLocked(FxRobot robot) {
        open(robot, "baggage-chute");
        robot.push(KeyCode.DIGIT6);
        String reference = result("g_reference").toString();
        assertThat(shown(robot)).contains(reference);
        fire(robot, "hide-references");
        assertThat(robot.lookup("#needle").tryQuery()).isEmpty();
        assertThat(shown(robot))
                .doesNotContain(reference)
                .doesNotContain("9.8126")
                .contains("The references are hidden");
        assertThat(text(robot, "blind-local-g")).isEqualTo(result("g").toString());
        robot.push(KeyCode.DIGIT1);
        assertThat(robot.lookup("#read-g_reference").queryAs(TextField.class).getText())
                .isEqualTo("hidden");
        assertThat(shown(robot)).doesNotContain("9.8126");
        robot.push(KeyCode.DIGIT5);
        robot.push(KeyCode.DIGIT6);
        String locked = result("g").toString();
        fire(robot, "lock-results");
        assertThat(text(robot, "locked")).contains(locked).contains("before the reference was seen");
        assertThat(text(robot, "verdict")).contains("agrees with");
        robot.push(KeyCode.DIGIT1);
        submit(robot, "read-spacing", "850.0(6) mm");
        robot.push(KeyCode.DIGIT6);
        assertThat(text(robot, "locked")).contains("It has been changed since");
    }

    /** Every text that the window shows. */
    private static String shown(FxRobot robot) {
        StringBuilder b = new StringBuilder();
        robot.lookup(n -> n instanceof Labeled || n instanceof TextField)
                .queryAll()
                .forEach(n -> b.append(n instanceof Labeled l ? l.getText() : ((TextField) n).getText())
                        .append('\n')
                        .append(n.getAccessibleText())
                        .append('\n'));
        robot.lookup(".ledger-row")
                .queryAll()
                .forEach(n -> b.append(n.getAccessibleText()).append('\n'));
        return b.toString();
    }

    @Test
    void aWantedUncertaintyIsAnsweredWithTheCheapestWay(FxRobot robot) {
        open(robot, "weather-vane-reed");
        robot.push(KeyCode.DIGIT6);
        assertThat(text(robot, "cheapest")).startsWith("To reach u = ");
        submit(robot, "judge-target", "1 N/m");
        assertThat(text(robot, "cheapest")).startsWith("To reach u = 1");
        submit(robot, "judge-target", "3 s");
        assertThat(text(robot, "cheapest")).contains("a unit that fits");
        assertThat(text(robot, "statement-2")).contains("routes agree");
    }

    @Test
    void aNoteKeepsItsPictureAndTheReportShowsIt(FxRobot robot) throws Exception {
        open(robot, "drying-cabinet");
        robot.push(KeyCode.DIGIT7);
        Path picture = folder.resolve("bench.png");
        javax.imageio.ImageIO.write(
                new java.awt.image.BufferedImage(30, 20, java.awt.image.BufferedImage.TYPE_INT_RGB),
                "png",
                picture.toFile());
        act(() -> ((RecordStation) window.view(eagerneedle.app.station.Station.RECORD)).attach(picture));
        submit(robot, "note", "the door was ajar");
        assertThat(session().notes().get(0).pictures()).hasSize(1);
        assertThat(robot.lookup("#note-shelf").queryAs(Pane.class).getChildren())
                .hasSize(1);
        await(() -> ((ListView<?>) robot.lookup("#notebook").query())
                .getItems().stream().anyMatch(a -> a.toString().contains("the door was ajar (with bench.png)")));
        String html = new String(window.bench().report(false), java.nio.charset.StandardCharsets.UTF_8);
        assertThat(html).contains("data:image/png;base64,").contains("the door was ajar");
        assertThat(new String(window.bench().report(true), 0, 5, java.nio.charset.StandardCharsets.ISO_8859_1))
                .isEqualTo("%PDF-");
        act(() -> ((RecordStation) window.view(eagerneedle.app.station.Station.RECORD))
                .attach(folder.resolve("none.png")));
        assertThat(text(robot, "watch-line")).contains("none.png cannot be read");
    }

    @Test
    void anythingIsFoundByAWordAndGoneTo(FxRobot robot) throws Exception {
        open(robot, "potters-wheel");
        robot.push(KeyCode.SLASH);
        await(() -> robot.lookup("#finder").query().isVisible());
        robot.write("friction torque with");
        await(() -> robot.lookup("#hit-0").tryQuery().isPresent());
        robot.push(KeyCode.ENTER);
        settle();
        assertThat(robot.lookup("#ledger .selected").query().getAccessibleText())
                .startsWith("friction torque with the disc");
        robot.push(KeyCode.CONTROL, KeyCode.F);
        await(() -> robot.lookup("#finder").query().isVisible());
        robot.write("run 7");
        robot.push(KeyCode.ENTER);
        settle();
        assertThat(window.run().orElseThrow().id()).isEqualTo(7);
        assertThat(window.dial().current()).isEqualTo(eagerneedle.app.station.Station.REDUCE);
        fire(robot, "find");
        robot.write("zzz");
        await(() -> robot.lookup(n -> n instanceof Labeled l
                        && l.getText() != null
                        && l.getText().startsWith("Nothing has all of these words"))
                .tryQuery()
                .isPresent());
        robot.push(KeyCode.ESCAPE);
        assertThat(robot.lookup("#finder").query().isVisible()).isFalse();
    }

    @Test
    void aZoomIsTakenBackByAKey(FxRobot robot) {
        open(robot, "baggage-chute");
        PlotView trace = plot(robot, "trace");
        Plot.View whole = trace.frame().view();
        robot.moveTo(at(trace, 1.2));
        robot.scroll(2, javafx.geometry.VerticalDirection.UP);
        settle();
        Plot.View once = trace.frame().view();
        assertThat(once.x1() - once.x0()).isLessThan(whole.x1() - whole.x0());
        act(trace::requestFocus);
        robot.push(KeyCode.BACK_SPACE);
        settle();
        assertThat(trace.frame().view()).isEqualTo(whole);
    }
}
