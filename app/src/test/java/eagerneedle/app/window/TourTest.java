package eagerneedle.app.window;

import static eagerneedle.app.OnScreen.act;
import static eagerneedle.app.OnScreen.settle;
import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import eagerneedle.app.station.Station;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Key;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.control.ComboBox;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import javafx.stage.Stage;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/** The tour of the README, followed to the letter: what it says happens. In the long profile. */
class TourTest extends BenchWindow {
    @BeforeEach
    void onlyInTheLongProfile() {
        assumeTrue(Boolean.getBoolean("everyMethod"), "in the long profile");
    }

    @Start
    void start(Stage newStage) throws Exception {
        prepare(newStage);
        System.setProperty("needle.home", folder.toString());
    }

    @AfterEach
    void home() {
        System.clearProperty("needle.home");
    }

    private Quantity g() {
        return window.bench().reduction().quantity("g").orElseThrow();
    }

    private static void key(FxRobot robot, KeyCode... keys) {
        robot.push(keys);
        settle();
    }

    private static void keyed(FxRobot robot, String id, String words) {
        TextField f = robot.lookup("#" + id).queryAs(TextField.class);
        act(() -> {
            f.requestFocus();
            f.setText(words);
        });
        key(robot, KeyCode.ENTER);
    }

    @Test
    void whatTheTourSaysHappens(FxRobot robot) throws Exception {
        openRehearsed(robot, "baggage-chute");
        // 1
        assertThat(window.dial().current()).isEqualTo(Station.PLAN);
        assertThat(window.bench().session().runs()).hasSize(28);
        // 2
        await(() -> !text(robot, "predicted").equals("—"));
        double before = window.bench()
                .plan()
                .quantity(new Key.Global("g"))
                .orElseThrow()
                .u();
        keyed(robot, "plan-spacing", "842.3(90) mm");
        Quantity wide = window.bench().plan().quantity(new Key.Global("g")).orElseThrow();
        assertThat(wide.u()).isGreaterThan(2 * before);
        assertThat(eagerneedle.core.quantity.Budget.of(wide).lines().get(0).label())
                .contains("foot spacing");
        act(() -> robot.lookup("#ledger").query().requestFocus());
        key(robot, KeyCode.CONTROL, KeyCode.Z);
        assertThat(window.bench().session().planned()).doesNotContainKey("spacing");
        keyed(robot, "target", "0.4 %");
        await(() -> text(robot, "target-says").contains("run"));
        String rise = window.bench().sheet().inputs().entrySet().stream()
                .filter(i -> i.getValue().label().startsWith("rise, block A"))
                .findFirst()
                .orElseThrow()
                .getKey();
        MenuButton by = robot.lookup("#tie-" + rise).queryAs(MenuButton.class);
        assertThat(by.getText()).contains("caliper TH-CP-01");
        act(by::show);
        settle();
        assertThat(by.getItems().stream().map(MenuItem::getText).toList().get(0))
                .contains("micrometer");
        act(by::hide);
        // 3
        act(() -> robot.lookup("#station-rig").query().requestFocus());
        key(robot, KeyCode.DIGIT2);
        assertThat(robot.lookup("#connect")
                        .queryAs(javafx.scene.control.Button.class)
                        .getText())
                .contains("Connect");
        fire(robot, "connect");
        await(() -> window.rig().isPresent()
                && window.rig().orElseThrow().last("position", 1).size() > 5);
        // 4
        key(robot, KeyCode.DIGIT3);
        fire(robot, "place");
        for (int i = 0; i < 4; i++) {
            String reference =
                    robot.lookup("#reference").queryAs(TextField.class).getText();
            await(() -> {
                if (text(robot, "steadiness").startsWith("steady")) {
                    fire(robot, "take-point");
                }
                return !robot.lookup("#reference")
                        .queryAs(TextField.class)
                        .getText()
                        .equals(reference);
            });
        }
        double was = g().value();
        fire(robot, "keep-calibration");
        await(() -> window.bench().session().calibrations().size() == 2);
        assertThat(g().value()).isNotEqualTo(was);
        // 5
        act(() -> robot.lookup("#station-calibrate").query().requestFocus());
        key(robot, KeyCode.DIGIT4);
        robot.clickOn("#level-slopes-D");
        settle();
        key(robot, KeyCode.SPACE);
        await(() -> window.rig().orElseThrow().isRecording());
        await(() -> window.rig().orElseThrow().all("position").size() > 110);
        key(robot, KeyCode.SPACE);
        await(() -> !window.rig().orElseThrow().isRecording());
        key(robot, KeyCode.K);
        await(() -> window.bench().session().runs().size() == 29);
        // 6
        key(robot, KeyCode.DIGIT5);
        robot.clickOn("#run-9");
        settle();
        eagerneedle.app.plot.PlotView trace = robot.lookup("#trace").queryAs(eagerneedle.app.plot.PlotView.class);
        eagerneedle.core.trace.Window w = window.bench()
                .reduction()
                .window(window.bench().session().run(9).orElseThrow(), "rolling")
                .orElseThrow();
        double a = a(9);
        Point2D edge = trace.localToScreen(
                trace.frame().px(w.to()), trace.frame().top() + trace.frame().height() / 2);
        robot.drag(edge, MouseButton.PRIMARY).dropTo(edge.add(40, 0));
        settle();
        assertThat(a(9)).as("into the bounce").isNotEqualTo(a);
        assertThat(window.bench().findings().stream().map(f -> f.message()).toList())
                .anyMatch(f -> f.contains("window"));
        key(robot, KeyCode.CONTROL, KeyCode.Z);
        assertThat(a(9)).isEqualTo(a);
        // 7
        double all = g().value();
        fire(robot, "leave-out");
        assertThat(text(robot, "leave-effect")).contains("would");
        keyed(robot, "reason", "tried");
        assertThat(g().value()).isNotEqualTo(all);
        fire(robot, "leave-out");
        assertThat(g().value()).isEqualTo(all);
        act(() -> robot.lookup("#station-reduce").query().requestFocus());
        key(robot, KeyCode.W);
        fire(robot, "leave-out");
        keyed(robot, "reason", "tried");
        assertThat(robot.lookup("#trial").query().isVisible()).isTrue();
        fire(robot, "trial-forget");
        assertThat(g().value()).isEqualTo(all);
        fire(robot, "sight-table");
        settle();
        keyed(robot, "own-name", "ratio");
        act(() -> robot.lookup("#own-formula").queryAs(TextField.class).setText("a / sin_theta"));
        act(() -> robot.lookup("#own-unit").queryAs(TextField.class).setText("m/s^2"));
        fire(robot, "own-add");
        settle();
        assertThat(window.bench().session().sheetText()
                        + window.bench().session().own())
                .as(text(robot, "watch-line"))
                .contains("a / sin_theta");
        // 8
        act(() -> robot.lookup("#station-reduce").query().requestFocus());
        key(robot, KeyCode.DIGIT6);
        fire(robot, "speak-limits");
        assertThat(text(robot, "verdict")).contains("limits");
        fire(robot, "speak-standard");
        act(() -> robot.lookup("#station-judge").query().requestFocus());
        key(robot, KeyCode.P);
        assertThat(shown(robot, "#projector")).isTrue();
        key(robot, KeyCode.F);
        key(robot, KeyCode.ESCAPE);
        assertThat(shown(robot, "#projector")).isFalse();
        // 9
        key(robot, KeyCode.DIGIT7);
        Path report = folder.resolve("report.pdf");
        Files.write(report, window.bench().paper());
        assertThat(Files.size(report)).isGreaterThan(50_000);
        assertThat(window.bench().file().acts().toString()).contains("842.3(90) mm", "Undid");
        key(robot, KeyCode.SLASH);
        robot.write("friction");
        settle();
        assertThat(robot.lookup("#hit-0").query().isVisible()).isTrue();
        key(robot, KeyCode.ESCAPE);
        // 11 to 14: every view that a key is named for is there.
        for (KeyCode k :
                List.of(KeyCode.E, KeyCode.G, KeyCode.T, KeyCode.U, KeyCode.L, KeyCode.J, KeyCode.P, KeyCode.COMMA)) {
            Node surface = window.stage().getScene().getRoot();
            String now = surface.lookupAll(".heading").toString();
            key(robot, KeyCode.CONTROL, k);
            assertThat(surface.lookupAll(".heading").toString())
                    .as("Ctrl and " + k)
                    .isNotEqualTo(now);
        }
    }

    /** From a file of one's own to a method, and a class that is given data of it. */
    @Test
    void whatTheTourSaysOfAFileOfOnesOwnAndOfAClassHappens(FxRobot robot) throws Exception {
        openRehearsed(robot, "baggage-chute");
        // 10
        act(() -> robot.lookup("#ledger").query().requestFocus());
        key(robot, KeyCode.CONTROL, KeyCode.H);
        StringBuilder own = new StringBuilder("time (s),level (mm)\n");
        for (int i = 0; i < 120; i++) {
            own.append(String.format(
                    java.util.Locale.ROOT,
                    "%.1f,%.3f%n",
                    0.5 * i,
                    80 * Math.exp(-i / 40.0) + 0.02 * ((i * 7) % 5 - 2)));
        }
        Path file = Files.writeString(folder.resolve("tank.csv"), own);
        act(() -> robot.lookup("#start-page").queryAs(StartPage.class).drop(List.of(file)));
        await(() ->
                window.bench().session().keptRuns().size() == 1 && window.dial().current() == Station.REDUCE);
        pick(robot, "windows", "Put a window on this trace");
        pick(robot, "fit", "Exponential decay");
        fire(robot, "sight-table");
        act(() -> robot.lookup("#own-where")
                .queryAs(javafx.scene.control.ChoiceBox.class)
                .getSelectionModel()
                .select(1));
        String column = "level_tau";
        type(robot, "own-name", "tau");
        type(robot, "own-formula", "mean(record." + column + ")");
        fire(robot, "own-add");
        act(() -> window.dial().requestFocus());
        key(robot, KeyCode.DIGIT6);
        act(() -> {
            robot.lookup("#compare-result").queryAs(ComboBox.class).getEditor().setText("tau");
            robot.lookup("#compare-reference")
                    .queryAs(ComboBox.class)
                    .getEditor()
                    .setText("20.0(1) s");
        });
        fire(robot, "compare");
        assertThat(text(robot, "verdict")).contains("agrees with");
        Path kept = folder.resolve("tank.yaml");
        act(() -> window.door().keepAsMethod(kept));
        assertThat(Files.readString(kept)).contains("mean(record." + column + ")");
        act(() -> window.dial().requestFocus());
        key(robot, KeyCode.CONTROL, KeyCode.E);
        assertThat(robot.lookup("#sheet-text")
                        .queryAs(org.fxmisc.richtext.CodeArea.class)
                        .getText())
                .contains("mean(record." + column + ")");

        // 11
        openRehearsed(robot, "baggage-chute");
        act(() -> window.dial().requestFocus());
        key(robot, KeyCode.CONTROL, KeyCode.G);
        Path students = Files.writeString(folder.resolve("list.csv"), "id,name\ns1,A. Alder\ns2,B. Beech\n");
        type(robot, "class-list", students.toString());
        type(robot, "class-folder", folder.resolve("set").toString());
        type(robot, "class-passphrase", "words of the class");
        fire(robot, "class-make");
        await(() -> text(robot, "class-state").startsWith("2 data sets"));

        // 12
        assertThat(eagerneedle.app.command.NeedleCommand.run(
                        new String[] {
                            "day",
                            "../docs/formats/afternoon.yaml",
                            "-o",
                            folder.resolve("day.pdf").toString()
                        },
                        System.out,
                        System.err))
                .isZero();
        assertThat(folder.resolve("day.pdf")).isNotEmptyFile();
    }

    private double a(int run) {
        return window.bench()
                .reduction()
                .ofRun(window.bench().session().run(run).orElseThrow(), "a")
                .quantity()
                .orElseThrow()
                .value();
    }

    private static boolean shown(FxRobot robot, String id) {
        return robot.lookup(id).tryQuery().filter(Node::isVisible).isPresent();
    }
}
