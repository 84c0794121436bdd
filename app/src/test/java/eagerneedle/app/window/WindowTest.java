package eagerneedle.app.window;

import static eagerneedle.app.OnScreen.act;
import static eagerneedle.app.OnScreen.await;
import static eagerneedle.app.OnScreen.seen;
import static eagerneedle.app.OnScreen.settle;
import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.app.Rehearsed;
import eagerneedle.app.plot.PlotView;
import eagerneedle.app.station.Station;
import eagerneedle.app.widget.Theme;
import eagerneedle.app.workbench.LiveRig;
import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.judge.School;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Key;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.Window;
import eagerneedle.picture.PlotPainter;
import eagerneedle.rig.simulated.Misbehaviour;
import eagerneedle.store.bench.BenchFile;
import eagerneedle.store.export.ReductionJson;
import eagerneedle.store.stockroom.Stockroom;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.List;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ListView;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import javafx.stage.Stage;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.ApplicationExtension;
import org.testfx.framework.junit5.Start;

/** The real window under a real display, driven by mouse and keyboard. */
@ExtendWith(ApplicationExtension.class)
class WindowTest {
    private Path folder;
    private MainWindow window;
    private Workbench bench;

    @Start
    void start(Stage stage) throws Exception {
        folder = Files.createTempDirectory("needle-window");
        Path file = Rehearsed.in(folder, "baggage-chute");
        bench = new Workbench(BenchFile.open(file), Clock.systemUTC());
        window = new MainWindow(stage, bench, Clock.systemUTC(), 8, Stockroom.demonstration());
        stage.setX(0);
        stage.setY(0);
        stage.show();
    }

    @AfterEach
    void close() {
        act(() -> window.stage().close());
    }

    private static <T extends Node> T find(FxRobot robot, String id, Class<T> type) {
        return robot.lookup("#" + id).queryAs(type);
    }

    private static String text(FxRobot robot, String id) {
        return find(robot, id, Label.class).getText();
    }

    private Quantity g() {
        return window.bench().reduction().quantity("g").orElseThrow();
    }

    private static String ledgerOfRun(FxRobot robot) {
        return robot.lookup("#ledger-slopes-9--a").query().getAccessibleText();
    }

    private void type(FxRobot robot, String id, String words) {
        robot.doubleClickOn("#" + id);
        TextField f = find(robot, id, TextField.class);
        act(f::selectAll);
        robot.write(words);
        robot.push(KeyCode.ENTER);
        settle();
    }

    @Test
    void keysSwingTheDialThroughAllStations(FxRobot robot) {
        assertThat(seen(() -> robot.lookup("#room").lookup(".viewport").query().isCache()))
                .as("a page with live traces is not drawn twice")
                .isFalse();
        KeyCode[] keys = {
            KeyCode.DIGIT1,
            KeyCode.DIGIT2,
            KeyCode.DIGIT3,
            KeyCode.DIGIT4,
            KeyCode.DIGIT5,
            KeyCode.DIGIT6,
            KeyCode.DIGIT7
        };
        for (Station s : Station.values()) {
            robot.push(keys[s.ordinal()]);
            settle();
            assertThat(window.dial().current()).isEqualTo(s);
        }
        robot.clickOn("#station-judge");
        assertThat(window.dial().current()).isEqualTo(Station.JUDGE);
        assertThat(text(robot, "verdict")).contains("agrees with");
        assertThat(text(robot, "largest")).contains("Largest: scatter between runs");
    }

    @Test
    void aPlannedUncertaintyMovesThePredictedBudget(FxRobot robot) throws Exception {
        await(() -> !text(robot, "predicted").equals("—"));
        String before = text(robot, "predicted");
        type(robot, "plan-spacing", "842.3(90) mm");
        assertThat(text(robot, "predicted")).isNotEqualTo(before);
        assertThat(window.bench().session().planned().get("spacing")).isEqualTo("842.3(90) mm");
        robot.clickOn("#undo");
        assertThat(text(robot, "predicted")).isEqualTo(before);
        type(robot, "plan-spacing", "eight hundred");
        assertThat(text(robot, "watch-line")).contains("not a number with a unit");
        assertThat(find(robot, "plan-spacing", TextField.class).getStyleClass()).contains("wrong");
        assertThat(text(robot, "predicted")).isEqualTo(before);
    }

    @Test
    void aReadingCanBeBuiltFromItsCauses(FxRobot robot) throws Exception {
        // What a rehearsal says comes between the rows, and would move the field under the pointer.
        await(() -> !text(robot, "predicted").equals("—"));
        type(robot, "read-spacing", "repeats(842.4 mm, 842.7 mm, 842.6 mm)");
        assertThat(window.bench().session().measured().get("spacing")).startsWith("repeats(");
        Quantity spacing = window.bench().reduction().quantity("spacing").orElseThrow();
        assertThat(spacing.in(eagerneedle.core.quantity.LabUnit.parse("mm")))
                .isCloseTo(842.5667, org.assertj.core.api.Assertions.within(1e-3));
        assertThat(spacing.contributions().keySet())
                .allMatch(l -> l.label().equals("foot spacing by steel tape TH-TP-02: repeats"));
        type(robot, "read-spacing", "repeats(842.4 mm)");
        assertThat(text(robot, "watch-line")).contains("column of values is needed");
        assertThat(window.bench().reduction().quantity("spacing").orElseThrow().value())
                .isEqualTo(spacing.value());
        robot.clickOn("#station-judge");
        robot.clickOn("#ledger-group-Set-up");
        settle();
        assertThat(robot.lookup("#ledger-spacing").query().getAccessibleText()).contains("842.567(88)");
        assertThat(text(robot, "cheapest"))
                .contains("To reach u = ")
                .contains("scatter between runs")
                .contains("times smaller");
    }

    @Test
    void draggingAWindowEdgeMovesTheLedgerAndUndoBringsItBack(FxRobot robot) throws Exception {
        robot.push(KeyCode.DIGIT5);
        robot.clickOn("#run-9");
        settle();
        String before = ledgerOfRun(robot);
        String whole =
                ReductionJson.of(window.bench().reduction(), window.bench().findings());
        PlotView trace = find(robot, "trace", PlotView.class);
        Run run = window.bench().session().run(9).orElseThrow();
        Window w = window.bench().reduction().window(run, "rolling").orElseThrow();
        PlotPainter.Frame f = trace.frame();
        Point2D edge = trace.localToScreen(f.px(w.to()), f.top() + f.height() / 2);
        robot.drag(edge, MouseButton.PRIMARY).dropTo(edge.subtract(120, 0));
        settle();
        Window moved = window.bench().session().run(9).orElseThrow().windows().get("rolling");
        assertThat(moved.to()).isLessThan(w.to() - 0.1);
        assertThat(moved.from()).isEqualTo(w.from());
        assertThat(ledgerOfRun(robot)).isNotEqualTo(before);
        assertThat(window.bench().changed())
                .contains(new Key.Global("g"), new Key.OfRun(9, "a"))
                .doesNotContain(new Key.OfRun(10, "a"));
        robot.push(KeyCode.CONTROL, KeyCode.Z);
        settle();
        assertThat(ledgerOfRun(robot)).isEqualTo(before);
        assertThat(ReductionJson.of(window.bench().reduction(), window.bench().findings()))
                .isEqualTo(whole);
        robot.push(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.Z);
        settle();
        assertThat(ledgerOfRun(robot)).isNotEqualTo(before);
    }

    @Test
    void theTableOfRunsGoesToASpreadsheet(FxRobot robot) {
        robot.push(KeyCode.DIGIT5);
        robot.clickOn("#copy-runs");
        settle();
        String[] copied = new String[1];
        act(() -> copied[0] = javafx.scene.input.Clipboard.getSystemClipboard().getString());
        assertThat(copied[0].lines().count()).isEqualTo(3 * 2 + 28);
        String row = copied[0]
                .lines()
                .filter(l -> l.startsWith("Run 9\t"))
                .findFirst()
                .orElseThrow();
        Quantity a = window.bench()
                .reduction()
                .ofRun(window.bench().session().run(9).orElseThrow(), "a")
                .quantity()
                .orElseThrow();
        assertThat(row).contains("block A\tyes").contains(a.value() + "\t" + a.u());
    }

    @Test
    void arrowKeysMoveAnEdgeByOneSample(FxRobot robot) {
        robot.push(KeyCode.DIGIT5);
        robot.clickOn("#run-10");
        robot.clickOn("#trace");
        settle();
        Run run = window.bench().session().run(10).orElseThrow();
        Window w = window.bench().reduction().window(run, "rolling").orElseThrow();
        robot.push(KeyCode.RIGHT);
        settle();
        Window one = window.bench().session().run(10).orElseThrow().windows().get("rolling");
        assertThat(one.from()).isBetween(w.from() + 0.019, w.from() + 0.021);
        robot.push(KeyCode.DOWN).push(KeyCode.SHIFT, KeyCode.LEFT);
        settle();
        Window ten = window.bench().session().run(10).orElseThrow().windows().get("rolling");
        assertThat(ten.to()).isBetween(w.to() - 0.201, w.to() - 0.199);
        robot.clickOn("#proposal");
        settle();
        assertThat(window.bench().session().run(10).orElseThrow().windows()).isEmpty();
    }

    @Test
    void aRunIsLeftOutWithAReasonAndTakenInAgain(FxRobot robot) throws Exception {
        robot.push(KeyCode.DIGIT5);
        robot.clickOn("#run-10");
        double before = g().value();
        robot.clickOn("#leave-out");
        robot.write("hand in the beam").push(KeyCode.ENTER);
        await(() -> window.bench().session().run(10).orElseThrow().leftOut() != null);
        assertThat(window.bench().session().run(10).orElseThrow().leftOut()).isEqualTo("hand in the beam");
        assertThat(g().value()).isNotEqualTo(before);
        robot.clickOn("#leave-out");
        settle();
        assertThat(g().value()).isEqualTo(before);
    }

    private LiveRig connected(FxRobot robot) throws Exception {
        robot.push(KeyCode.CONTROL, KeyCode.K);
        robot.push(KeyCode.DIGIT2);
        robot.clickOn("#connect");
        await(() -> window.rig().isPresent());
        LiveRig rig = window.rig().orElseThrow();
        await(() -> rig.last("position", 1).size() > 5);
        return rig;
    }

    @Test
    void connectCalibrateCaptureReduceSaveAndReopen(FxRobot robot) throws Exception {
        connected(robot);
        double before = g().value();
        robot.push(KeyCode.DIGIT3);
        robot.clickOn("#place");
        for (int point = 0; point < 5; point++) {
            await(() -> find(robot, "steadiness", Label.class).getText().startsWith("steady"));
            String reference = find(robot, "reference", TextField.class).getText();
            // A busy machine may lose the moment in which it was steady; then the program says so and it is taken
            // again.
            await(() -> {
                if (find(robot, "reference", TextField.class).getText().equals(reference)
                        && find(robot, "steadiness", Label.class).getText().startsWith("steady")) {
                    robot.clickOn("#take-point");
                }
                return !find(robot, "reference", TextField.class).getText().equals(reference);
            });
        }
        robot.clickOn("#keep-calibration");
        await(() -> window.bench().session().calibrations().size() == 2);
        assertThat(window.bench()
                        .session()
                        .latestCalibrationOf("position")
                        .orElseThrow()
                        .points())
                .hasSize(5);
        assertThat(g().value()).isNotEqualTo(before);
        assertThat(Math.abs(g().value() - before)).isLessThan(0.1);

        robot.push(KeyCode.DIGIT4);
        robot.clickOn("#level-slopes-D");
        settle();
        robot.clickOn("#start-stop");
        await(() -> window.rig().orElseThrow().isRecording());
        await(() -> window.rig().orElseThrow().all("position").size() > 110);
        robot.clickOn("#start-stop");
        await(() -> !window.rig().orElseThrow().isRecording());
        type(robot, "run-name", "Fast one");
        await(() -> window.bench().session().runs().size() == 29);
        Run run = window.bench().session().run(29).orElseThrow();
        assertThat(run.name()).isEqualTo("Fast one");
        assertThat(run.level()).isEqualTo("D");
        Quantity a = window.bench().reduction().ofRun(run, "a").quantity().orElseThrow();
        assertThat(a.value()).isBetween(0.7, 0.95);

        String ledger =
                ReductionJson.of(window.bench().reduction(), window.bench().findings());
        Path copy = folder.resolve("copy.needle");
        act(() -> window.bench().file().copyTo(copy));
        act(() -> window.door().open(copy));
        assertThat(window.bench().file().path()).isEqualTo(copy);
        assertThat(ReductionJson.of(window.bench().reduction(), window.bench().findings()))
                .isEqualTo(ledger);
    }

    @Test
    void aRunIsTakenByKeysAloneAfterALevelWasClicked(FxRobot robot) throws Exception {
        LiveRig rig = connected(robot);
        robot.push(KeyCode.DIGIT4);
        robot.clickOn("#level-slopes-C");
        settle();
        await(() -> robot.lookup("#level-slopes-C")
                .query()
                .getScene()
                .getFocusOwner()
                .getAccessibleText()
                .startsWith("Capture: Space"));
        robot.push(KeyCode.SPACE);
        await(rig::isRecording);
        await(() -> rig.all("position").size() > 110);
        robot.push(KeyCode.SPACE);
        await(() -> !rig.isRecording());
        robot.push(KeyCode.K);
        await(() -> window.bench().session().runs().size() == 29);
        Run run = window.bench().session().run(29).orElseThrow();
        assertThat(run.level()).isEqualTo("C");
        assertThat(run.takesPart()).isTrue();
        robot.push(KeyCode.SPACE);
        await(rig::isRecording);
        await(() -> rig.all("position").size() > 20);
        robot.push(KeyCode.SPACE);
        await(() -> !rig.isRecording());
        robot.push(KeyCode.D);
        await(() -> window.bench().session().runs().size() == 30);
        assertThat(window.bench().session().run(30).orElseThrow().takesPart()).isFalse();
    }

    @Test
    void aRunCanBeDiscardedAndItsSamplesStay(FxRobot robot) throws Exception {
        connected(robot);
        robot.push(KeyCode.DIGIT4);
        robot.clickOn("#start-stop");
        await(() -> window.rig().orElseThrow().all("position").size() > 40);
        robot.clickOn("#start-stop");
        await(() -> robot.lookup("#discard-run").query().isVisible()
                && robot.lookup("#discard-run").query().getParent().isVisible());
        robot.clickOn("#discard-run");
        await(() -> window.bench().session().runs().size() == 29);
        assertThat(window.bench().session().keptRuns()).hasSize(28);
        assertThat(window.bench().file().samples(29, "position").size()).isGreaterThan(30);
    }

    @Test
    void anInstrumentThatFailsInARunIsSaidAndTheWindowLives(FxRobot robot) throws Exception {
        LiveRig rig = connected(robot);
        robot.push(KeyCode.DIGIT4);
        robot.clickOn("#start-stop");
        await(() -> rig.all("position").size() > 30);
        rig.standIn().misbehave(Misbehaviour.SILENCE);
        await(() -> text(robot, "live-watch").contains("silent"));
        assertThat(text(robot, "watch-line")).contains("what came is kept");
        rig.standIn().misbehave(Misbehaviour.GARBAGE);
        await(() -> text(robot, "live-watch").contains("could not be understood")
                || text(robot, "live-watch").contains("silent"));
        rig.standIn().disconnect();
        await(() -> text(robot, "live-watch").contains("lost"));
        robot.push(KeyCode.DIGIT6);
        assertThat(window.dial().current()).isEqualTo(Station.JUDGE);
        robot.push(KeyCode.DIGIT4);
        robot.clickOn("#start-stop");
        await(() -> !rig.isRecording());
        robot.clickOn("#keep-run");
        await(() -> window.bench().session().runs().size() == 29);
        assertThat(window.bench().file().samples(29, "position").size()).isGreaterThan(30);
    }

    @Test
    void aWatchFiresWhenTheTargetIsOutOfRange(FxRobot robot) throws Exception {
        LiveRig rig = connected(robot);
        robot.push(KeyCode.DIGIT4);
        rig.arrange(java.util.Map.of("reference", "5.5 m"));
        await(() -> text(robot, "live-watch").contains("out of range"));
        assertThat(text(robot, "watch-line")).contains("Check that the sensor looks at its target");
        rig.arrange(java.util.Map.of("reference", "0.9 m"));
        await(() -> text(robot, "live-watch").isEmpty());
    }

    @Test
    void aFileIsPreviewedAndImported(FxRobot robot) throws Exception {
        Path csv = folder.resolve("elsewhere.csv");
        StringBuilder b = new StringBuilder("time [s];position [mm]\n");
        for (int i = 0; i < 100; i++) {
            b.append(String.format(
                    java.util.Locale.GERMANY, "%.2f;%.1f%n", 0.02 * i, 300 + 250 * Math.pow(0.02 * i, 2) + (i % 3)));
        }
        Files.writeString(csv, b);
        robot.push(KeyCode.DIGIT4);
        Path other = Files.copy(csv, folder.resolve("second.csv"));
        act(() -> window.door().drop(List.of(csv, other)));
        await(() -> robot.lookup("#import-go").tryQuery().isPresent());
        assertThat(text(robot, "import-guess"))
                .contains("semicolon")
                .contains("decimal comma")
                .contains("1 header line");
        assertThat(find(robot, "import-unit", TextField.class).getText()).isEqualTo("mm");
        @SuppressWarnings("unchecked")
        ComboBox<String> time = robot.lookup("#import-time").queryAs(ComboBox.class);
        assertThat(time.getValue()).isEqualTo("time");
        type(robot, "import-unit", "kg");
        await(() -> text(robot, "import-problem").contains("cannot be expressed"));
        type(robot, "import-unit", "mm");
        await(() -> window.bench().session().runs().size() == 30);
        assertThat(window.bench().session().run(29).orElseThrow().source()).isEqualTo("elsewhere.csv");
        assertThat(window.bench().session().run(30).orElseThrow().source()).isEqualTo("second.csv");
    }

    @Test
    void aFileThatCannotBeReadIsOneSentence(FxRobot robot) throws Exception {
        Path csv = folder.resolve("broken.csv");
        Files.writeString(csv, "time,position\n");
        act(() -> window.door().drop(List.of(csv)));
        assertThat(text(robot, "watch-line")).contains("broken.csv holds no rows of numbers");
        Path text = folder.resolve("letter.needle");
        Files.writeString(text, "Dear laboratory, this is a letter.");
        act(() -> window.door().open(text));
        assertThat(text(robot, "watch-line")).contains("letter.needle is not a bench file");
        assertThat(window.bench()).isSameAs(bench);
    }

    /**
     * Whatever is wrong with the file that is to be opened, the session in the window goes on and its acts are kept.
     */
    @Test
    void aSessionSurvivesWhateverCannotBeOpenedInItsPlace(FxRobot robot) throws Exception {
        java.time.Instant now = java.time.Instant.parse("2026-11-23T09:00:00Z");
        Path letter = Files.writeString(folder.resolve("letter.needle"), "Dear laboratory, this is a letter.");
        Path strange = folder.resolve("strange.needle");
        BenchFile.create(strange, eagerneedle.core.session.Session.start("title: no sheet at all\n", "strange", now))
                .close();
        Path held = folder.resolve("held.needle");
        try (BenchFile elsewhere = BenchFile.create(
                held, eagerneedle.core.session.Session.start(SheetReader.shippedText("drying-cabinet"), "held", now))) {
            for (Path p : java.util.List.of(letter, strange, held, folder.resolve("nowhere.needle"))) {
                act(() -> window.door().open(p));
                settle();
                assertThat(text(robot, "watch-line"))
                        .as(p.toString())
                        .contains(
                                p.getFileName().toString().startsWith("strange")
                                        ? "sheet"
                                        : p.getFileName().toString())
                        .doesNotContain("Exception");
                assertThat(window.bench()).isSameAs(bench);
                int acts = bench.file().acts().size();
                act(() -> bench.apply(new eagerneedle.core.session.RecordCommand.AddNote(
                        now, "still here after " + p.getFileName())));
                assertThat(bench.file().acts()).hasSize(acts + 1);
            }
            assertThat(elsewhere.session().title()).isEqualTo("held");
        }
        Path lost = folder.resolve("lost.needle");
        try (BenchFile file = BenchFile.create(
                lost, eagerneedle.core.session.Session.start(SheetReader.shippedText("drying-cabinet"), "lost", now))) {
            file.save(
                    new eagerneedle.core.session.RunCommand.KeepRun(eagerneedle.core.session.Run.captured(
                                    1, "of no capture", "none", now, "x", "counts"))
                            .apply(file.session()),
                    now,
                    "A run of a capture that the sheet does not have.");
        }
        act(() -> window.door().open(lost));
        settle();
        assertThat(text(robot, "watch-line")).contains("Run 1 is of the capture 'of no capture'");
        int acts = window.bench().file().acts().size();
        act(() -> window.bench().apply(new eagerneedle.core.session.RecordCommand.AddNote(now, "goes on")));
        assertThat(window.bench().file().acts()).hasSize(acts + 1);
    }

    /**
     * A damaged session with a sheet of its own is repaired with that sheet, and what is missing stands there in
     * numbers.
     */
    @Test
    void aDamagedSessionIsRepairedWithASheetOfOnesOwn(FxRobot robot) throws Exception {
        java.time.Instant now = java.time.Instant.parse("2026-11-23T09:00:00Z");
        String own = SheetReader.shippedText("drying-cabinet").replace("id: drying-cabinet", "id: our-cabinet");
        Path damaged = folder.resolve("ours.needle");
        BenchFile.create(damaged, eagerneedle.core.session.Session.start(own, "ours", now))
                .close();
        try (var c = java.sql.DriverManager.getConnection("jdbc:sqlite:" + damaged);
                var s = c.createStatement()) {
            s.executeUpdate("UPDATE sheet SET text = replace(text, '60.0', '66.0')");
        }
        SessionDoor door = new SessionDoor(window);
        act(() -> door.repair(damaged, null));
        assertThat(text(robot, "watch-line")).contains("garbled").contains("another sheet");
        assertThat(window.bench()).isSameAs(bench);
        Path sheet = Files.writeString(folder.resolve("ours.yaml"), own);
        act(() -> door.repair(damaged, sheet));
        settle();
        assertThat(window.bench().session().sheetText()).isEqualTo(own);
        javafx.scene.control.TextArea missing =
                robot.lookup("#repair-missing").queryAs(javafx.scene.control.TextArea.class);
        assertThat(missing.getText()).contains("the one given was put in its place, and is the same");
        act(() -> missing.getScene().getWindow().hide());
    }

    @Test
    void aLedgerEntryShowsItsLineage(FxRobot robot) {
        robot.push(KeyCode.DIGIT6);
        robot.clickOn("#ledger-g");
        settle();
        assertThat(robot.lookup("#ledger-g").query().getStyleClass()).contains("selected");
        assertThat(robot.lookup("#ledger-g_eff").query().getStyleClass()).contains("comes-from");
        assertThat(robot.lookup(".lineage").query().isVisible()).isTrue();
        assertThat(robot.lookup(".lineage > VBox > *").<Node>queryAll())
                .as("the equation, set as print does")
                .anyMatch(n -> "g = g_eff * (1 + k_w * m_w / m_c)".equals(n.getAccessibleText()));
        robot.clickOn("#ledger-g");
        assertThat(robot.lookup(".lineage").query().isVisible()).isFalse();
    }

    @Test
    void anotherSchoolCanSpeak(FxRobot robot) {
        robot.push(KeyCode.DIGIT6);
        robot.clickOn("#speak-limits");
        settle();
        assertThat(window.bench().session().school()).isEqualTo(School.LIMITS);
        assertThat(text(robot, "verdict")).contains("overlap");
        robot.clickOn("#comparison-intercept");
        settle();
        assertThat(robot.lookup("#comparison-intercept").query().getStyleClass())
                .contains("chosen");
    }

    @Test
    void theNotebookKeepsNotesAndSignOffs(FxRobot robot) {
        robot.push(KeyCode.DIGIT7);
        robot.clickOn("#note");
        robot.write("The foam had moved").push(KeyCode.ENTER);
        settle();
        ListView<?> notebook = robot.lookup("#notebook").queryAs(ListView.class);
        assertThat(notebook.getItems().get(notebook.getItems().size() - 1).toString())
                .contains("The foam had moved");
        robot.clickOn("#step-cart");
        settle();
        assertThat(window.bench().session().signOffs()).containsKey("cart");
        assertThat(find(robot, "step-cart", CheckBox.class).isSelected()).isTrue();
    }

    @Test
    void theBackRowSeesTheResultAndItCanBeFrozen(FxRobot robot) throws Exception {
        robot.push(KeyCode.DIGIT6);
        robot.push(KeyCode.P);
        settle();
        assertThat(robot.lookup("#projector").query().isVisible()).isTrue();
        await(() -> robot.lookup("#projector .big").queryAll().stream()
                .anyMatch(n -> ((Label) n).getText().startsWith("9.8")));
        robot.push(KeyCode.F);
        assertThat(robot.lookup("#projector .quiet").queryAll())
                .anyMatch(n -> ((Label) n).getText().startsWith("Frozen"));
        robot.push(KeyCode.ESCAPE);
        assertThat(robot.lookup("#projector").query().isVisible()).isFalse();
    }

    @Test
    void theThemeTurnsDarkAndTheLedgerHides(FxRobot robot) {
        robot.push(KeyCode.CONTROL, KeyCode.D);
        settle();
        assertThat(Theme.isDark()).isTrue();
        robot.push(KeyCode.CONTROL, KeyCode.D);
        settle();
        assertThat(Theme.isDark()).isFalse();
        robot.push(KeyCode.DIGIT6).push(KeyCode.L);
        settle();
        assertThat(robot.lookup("#ledger").query().isVisible()).isFalse();
    }

    @Test
    void everyControlHasANameForAssistiveTechnology(FxRobot robot) {
        for (Station s : Station.values()) {
            act(() -> window.go(s));
            robot.lookup(n -> n instanceof Button || n instanceof TextField)
                    .queryAll()
                    .forEach(n -> {
                        String name = n instanceof Button b
                                ? b.getText()
                                : ((TextField) n).getAccessibleText() != null
                                        ? n.getAccessibleText()
                                        : ((TextField) n).getPromptText();
                        assertThat(name).as(s + ": " + n).isNotBlank();
                    });
        }
    }
}
