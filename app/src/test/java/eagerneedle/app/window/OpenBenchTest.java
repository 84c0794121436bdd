package eagerneedle.app.window;

import static eagerneedle.app.OnScreen.act;
import static eagerneedle.app.OnScreen.settle;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import eagerneedle.app.station.Station;
import eagerneedle.app.workbench.ColumnMapping;
import eagerneedle.core.judge.Comparison;
import eagerneedle.core.judge.School;
import eagerneedle.core.quantity.Budget;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Key;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.rig.simulated.RehearsalTrial;
import eagerneedle.store.bench.Recent;
import eagerneedle.store.delimited.Table;
import eagerneedle.store.foreign.ForeignFile;
import eagerneedle.store.stockroom.Stockroom;
import java.io.BufferedReader;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import javafx.scene.control.ChoiceBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Labeled;
import javafx.scene.input.KeyCode;
import javafx.stage.Stage;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/** From nothing to a report and to a method: a file, an instrument, a question, in an empty folder. */
class OpenBenchTest extends BenchWindow {
    @Start
    void start(Stage newStage) throws Exception {
        prepare(newStage);
        System.setProperty("needle.home", folder.resolve("home").toString());
        StartScene.show(stage, Recent.forNow(), bench -> {
            window = new MainWindow(stage, bench, Clock.systemUTC(), 8, Stockroom.demonstration());
            return window;
        });
        stage.setX(0);
        stage.setY(0);
        stage.show();
    }

    @BeforeEach
    void settled() {
        settle();
    }

    @AfterEach
    void home() {
        System.clearProperty("needle.home");
    }

    /** Two runs below each other: a cup that cools with 30 s, and a voltage that rises. */
    private Path two(String name, double warmer, long seed) throws Exception {
        Random noise = new Random(seed);
        StringBuilder b = new StringBuilder();
        for (int run = 0; run < 2; run++) {
            b.append("time (s),temperature (degC),voltage (V)\n");
            for (int i = 0; i < 160; i++) {
                double t = i * 0.5;
                b.append(String.format(
                        Locale.ROOT,
                        "%.1f,%.2f,%.3f%n",
                        t,
                        20 + (warmer - 10 * run) * Math.exp(-t / 30) + 0.05 * noise.nextGaussian(),
                        2 + 0.02 * t + 0.004 * noise.nextGaussian()));
            }
        }
        return Files.writeString(folder.resolve(name), b);
    }

    private static void choose(FxRobot robot, String id, int index) {
        act(() -> robot.lookup("#" + id)
                .queryAs(ChoiceBox.class)
                .getSelectionModel()
                .select(index));
        settle();
    }

    private static void write(FxRobot robot, String id, String words) {
        act(() -> robot.lookup("#" + id).queryAs(ComboBox.class).getEditor().setText(words));
        settle();
    }

    private Quantity result(String name) {
        return window.bench().reduction().quantity(new Key.Global(name)).orElseThrow();
    }

    private void drop(Path... files) throws Exception {
        int before = window == null ? 0 : session().keptRuns().size();
        act(() -> {
            if (window == null) {
                ((StartPage) stage.getScene().lookup("#start-page")).drop(List.of(files));
            } else {
                window.door().drop(List.of(files));
            }
        });
        await(() -> window != null && session().keptRuns().size() > before);
    }

    /** The fits and the result that stand for the analysis; five acts. */
    private void analysed(FxRobot robot) {
        pick(robot, "windows", "Put a window");
        pick(robot, "fit", "Exponential decay");
        choose(robot, "which-channel", 1);
        pick(robot, "windows", "Put a window");
        pick(robot, "fit", "Straight line");
        fire(robot, "sight-table");
        choose(robot, "own-where", 1);
        type(robot, "own-name", "tau");
        type(robot, "own-formula", "mean(record.temperature_tau)");
        fire(robot, "own-add");
    }

    @Test
    void aDroppedFileIsAnalysedJudgedReportedAndKeptAsAMethod(FxRobot robot) throws Exception {
        drop(two("cooling.csv", 60, 1)); // 1
        assertThat(window.dial().current()).isEqualTo(Station.REDUCE);
        assertThat(session().keptRuns()).hasSize(2);
        String begun = session().sheetText();
        analysed(robot); // 2 to 7
        assertThat(window.bench().sheet().captures().get("record").windows())
                .containsOnlyKeys("span_temperature", "span_voltage");
        robot.push(KeyCode.DIGIT1);
        type(robot, "add-input-name", "tau_said");
        type(robot, "add-input-label", "time constant on the leaflet");
        type(robot, "add-input-value", "30.00(5) s");
        fire(robot, "add-input"); // 8
        robot.push(KeyCode.DIGIT6);
        write(robot, "compare-result", "tau");
        write(robot, "compare-reference", "tau_said");
        fire(robot, "compare"); // 9
        Comparison c = window.bench().reduction().comparisons().get(0);
        assertThat(c.agrees(School.STANDARD)).isTrue();
        assertThat(result("tau").value()).isCloseTo(30, within(0.1));
        assertThat(window.bench().reduction().fitsOfRun(session().keptRuns().get(0)))
                .as("a fit through each trace, with its residuals")
                .hasSize(2)
                .allSatisfy(f -> assertThat(f.residuals()).hasSize(160));
        assertThat(Budget.of(result("tau")).lines()).isNotEmpty();
        assertThat(robot.lookup("#compare-result").tryQuery()).isPresent();
        String report = new String(window.bench().report(false), StandardCharsets.UTF_8); // 10
        assertThat(report).contains("tau of temperature", "time constant on the leaflet");
        Quantity found = result("tau");
        String whole = session().sheetText();

        int steps = 0;
        while (window.bench().canUndo()) {
            robot.push(KeyCode.CONTROL, KeyCode.Z);
            settle();
            steps++;
        }
        assertThat(steps).isEqualTo(10);
        assertThat(session().runs()).isEmpty();
        assertThat(window.bench().sheet().channels()).isEmpty();
        for (; steps > 0; steps--) {
            robot.push(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.Z);
            settle();
        }
        assertThat(session().sheetText()).isEqualTo(whole).startsWith(begun.substring(0, 60));
        assertThat(result("tau").sameAs(found)).isTrue();

        Path kept = folder.resolve("tea-cooling.yaml");
        act(() -> window.door().keepAsMethod(kept));
        assertThat(text(robot, "watch-line")).contains("a good sheet");
        SheetReader.Located method = SheetTrial.read(Files.readString(kept), "tea-cooling.yaml");
        assertThat(method.sheet().id()).isEqualTo("tea-cooling");
        assertThat(RehearsalTrial.look(method, 20, () -> false).problems()).isEmpty();

        // The same numbers as by hand, on the same file and on another.
        Path other = two("second.csv", 55, 2);
        drop(other);
        assertThat(session().keptRuns()).hasSize(4);
        Quantity all = result("tau");
        act(() -> window.door().begin(method, null));
        await(() -> window.bench().sheet().id().equals("tea-cooling"));
        bring(folder.resolve("cooling.csv"));
        assertThat(result("tau").value()).isEqualTo(found.value());
        assertThat(result("tau").u()).isEqualTo(found.u());
        bring(other);
        assertThat(result("tau").value()).isEqualTo(all.value());
        assertThat(window.bench().reduction().comparisons()).hasSize(1);
    }

    private void bring(Path file) {
        act(() -> {
            for (Table t : ForeignFile.runs(file)) {
                ColumnMapping.guess(t, window.bench().sheet(), "record")
                        .bring(window.bench(), t, file.getFileName().toString(), "record", "run");
            }
        });
    }

    @Test
    void whatCannotBeReadBeginsNothing(FxRobot robot) throws Exception {
        Path none = Files.writeString(folder.resolve("none.csv"), "a,b\n1,2\n1,3\n");
        act(() -> ((StartPage) robot.lookup("#start-page").query()).drop(List.of(none)));
        await(() -> text(robot, "start-says").contains("no column that tells the time"));
        fire(robot, "begin-ask");
        assertThat(text(robot, "start-says")).contains("Write what is to be found");
        type(robot, "begin-address", "127.0.0.1:1");
        fire(robot, "begin-listen");
        await(() -> text(robot, "start-says").contains("127.0.0.1"));
        assertThat(window).isNull();
        assertThat(folder.resolve("home"))
                .satisfiesAnyOf(
                        h -> assertThat(h).doesNotExist(), h -> assertThat(h).isEmptyDirectory());
    }

    @Test
    void aQuestionBecomesAPlanAndThenRuns(FxRobot robot) throws Exception {
        type(robot, "begin-question", "How large is the resistance?");
        fire(robot, "begin-ask");
        await(() -> window != null);
        assertThat(window.dial().current()).isEqualTo(Station.PLAN);
        for (String[] i : new String[][] {{"U", "voltage", "12.00(5) V"}, {"I", "current", "2.000(10) A"}}) {
            type(robot, "add-input-name", i[0]);
            type(robot, "add-input-label", i[1]);
            type(robot, "add-input-value", i[2]);
            fire(robot, "add-input");
        }
        type(robot, "add-result-name", "R");
        type(robot, "add-result-formula", "U / I");
        type(robot, "add-result-unit", "ohm");
        fire(robot, "add-result");
        assertThat(result("R").value()).isCloseTo(6, within(1e-12));
        assertThat(result("R").u()).isCloseTo(6 * Math.hypot(0.05 / 12, 0.01 / 2), within(1e-9));
        type(robot, "add-result-name", "P");
        type(robot, "add-result-formula", "U * nobody");
        fire(robot, "add-result");
        assertThat(text(robot, "watch-line")).contains("nobody");
        assertThat(window.bench().sheet().results()).containsOnlyKeys("R");
        for (KeyCode k : List.of(KeyCode.DIGIT2, KeyCode.DIGIT4, KeyCode.DIGIT5)) {
            act(() -> window.dial().requestFocus());
            robot.push(k);
            settle();
            assertThat(robot.lookup("#begin-files").tryQuery()).isPresent();
        }
        act(() -> window.go(Station.JUDGE));
        write(robot, "compare-result", "R");
        write(robot, "compare-reference", "6.05(5) ohm");
        fire(robot, "compare");
        assertThat(window.bench().reduction().comparisons().get(0).agrees(School.STANDARD))
                .isTrue();
        assertThat(new String(window.bench().report(false), StandardCharsets.UTF_8))
                .contains("How large is the resistance?");
        act(() -> window.go(Station.PLAN));
        type(robot, "question", "How large is it really?");
        act(() -> robot.lookup("#question")
                .queryAs(javafx.scene.control.TextField.class)
                .fireEvent(new javafx.event.ActionEvent()));
        assertThat(window.bench().sheet().question()).isEqualTo("How large is it really?");
        Path folderOf = Files.createDirectory(folder.resolve("records"));
        Files.move(two("later.csv", 60, 3), folderOf.resolve("later.csv"));
        Files.writeString(
                folderOf.resolve("more.json"),
                "{\"columns\": {\"time\": [0, 1, 2, 3], \"load\": [1.5, 2.5, 3.5, 4.5]}, \"units\": {\"time\": \"s\", \"load\": \"N\"}}");
        Files.writeString(folderOf.resolve("notes.txt"), "Nothing but words.");
        drop(folderOf);
        assertThat(text(robot, "watch-line")).contains("notes.txt");
        assertThat(session().keptRuns()).hasSize(3);
        assertThat(window.bench().sheet().captures()).hasSize(2);
        assertThat(robot.lookup("#trace").tryQuery())
                .as("a trace stands there now")
                .isPresent();
        assertThat(result("R").value()).isCloseTo(6, within(1e-12));
    }

    @Test
    void anInstrumentOnTheTableIsListenedToCalibratedAndCaptured(FxRobot robot) throws Exception {
        assumeTrue(Files.isExecutable(Path.of("/usr/bin/cc")), "a compiler makes the instrument");
        Path firmware = Path.of("..", "docs", "firmware").toAbsolutePath().normalize();
        Path built = folder.resolve("logger");
        Process cc = new ProcessBuilder(
                        "cc",
                        "-O1",
                        "-o",
                        built.toString(),
                        firmware + "/needle.c",
                        firmware + "/logger.c",
                        firmware + "/host.c")
                .inheritIO()
                .start();
        assertThat(cc.waitFor()).isZero();
        Process logger = new ProcessBuilder(built.toString()).start();
        try (BufferedReader said =
                new BufferedReader(new InputStreamReader(logger.getInputStream(), StandardCharsets.UTF_8))) {
            type(robot, "begin-address", said.readLine());
            fire(robot, "begin-listen");
            await(() -> window != null && window.rig().isPresent());
            assertThat(window.dial().current()).isEqualTo(Station.CAPTURE);
            assertThat(window.bench().sheet().channels()).containsOnlyKeys("a", "b");
            act(() -> window.go(Station.CALIBRATE));
            write(robot, "offer-channel", "a");
            type(robot, "offer-unit", "degC");
            write(robot, "offer-relation", "offset");
            type(robot, "offer-points", "1000 degC");
            fire(robot, "offer");
            assertThat(window.bench().sheet().channels().get("a").unit()).isEqualTo("degC");
            if (window.rig().isEmpty()) {
                act(() -> window.go(Station.RIG));
                fire(robot, "connect-there");
                await(() -> window.rig().isPresent());
            }
            act(() -> window.go(Station.CALIBRATE));
            await(() -> text(robot, "steadiness").startsWith("steady"));
            fire(robot, "take-point");
            fire(robot, "keep-calibration");
            await(() -> session().latestCalibrationOf("a").isPresent());
            act(() -> window.go(Station.CAPTURE));
            fire(robot, "start-stop");
            await(() -> window.rig().get().all("a").size() >= 20);
            fire(robot, "start-stop");
            fire(robot, "keep-run");
            assertThat(session().keptRuns()).hasSize(1);
            double mean = java.util.Arrays.stream(window.bench()
                            .reduction()
                            .trace(session().keptRuns().get(0), "a")
                            .orElseThrow()
                            .value())
                    .average()
                    .orElseThrow();
            assertThat(mean).as("1050 counts and their offset").isCloseTo(1000, within(30.0));
            act(() -> window.go(Station.REDUCE));
            choose(robot, "which-channel", 1);
            pick(robot, "fit", "Straight line");
            assertThat(window.bench().sheet().captures().get("record").quantities())
                    .containsKeys("fit_b", "b_slope");
            assertThat(robot.lookup(n -> n instanceof Labeled l && l.getText().contains("points ·"))
                            .tryQuery())
                    .isPresent();
            fire(robot, "sight-table");
            choose(robot, "own-where", 1);
            type(robot, "own-name", "steady");
            type(robot, "own-formula", "mean(record.b_slope)");
            fire(robot, "own-add");
            act(() -> window.go(Station.JUDGE));
            write(robot, "compare-result", "steady");
            write(robot, "compare-reference", "0(100) 1/s");
            fire(robot, "compare");
            assertThat(window.bench().reduction().comparisons().get(0).agrees(School.STANDARD))
                    .isTrue();
            assertThat(new String(window.bench().report(false), StandardCharsets.UTF_8))
                    .contains("slope of b", "calibrated");
            Path kept = folder.resolve("listened.yaml");
            act(() -> window.door().keepAsMethod(kept));
            assertThat(SheetTrial.look(Files.readString(kept), "kept").problems())
                    .isEmpty();
        } finally {
            logger.destroyForcibly().waitFor();
        }
    }
}
