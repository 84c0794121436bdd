package eagerneedle.app.window;

import static eagerneedle.app.OnScreen.act;
import static eagerneedle.app.OnScreen.settle;
import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.app.PlainDesk;
import eagerneedle.app.command.NeedleCommand;
import eagerneedle.app.station.Station;
import eagerneedle.app.widget.Theme;
import eagerneedle.app.widget.Tone;
import eagerneedle.app.workbench.Home;
import eagerneedle.app.workbench.Settings;
import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.judge.School;
import eagerneedle.core.quantity.DecimalSign;
import eagerneedle.core.session.PlanningCommand;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.store.bench.BenchFile;
import eagerneedle.store.export.SessionExport;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.EnumMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javafx.scene.Parent;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ChoiceBox;
import javafx.scene.control.TextField;
import javafx.stage.Stage;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/**
 * Where people read and type numbers the decimal sign is the one that is set; in files and formulas it is a point. Also
 * what else is set about numbers, sound and motion.
 */
class DecimalCommaTest extends BenchWindow {
    @Start
    void start(Stage newStage) throws Exception {
        prepare(newStage);
    }

    @AfterEach
    void asUsual() {
        act(() -> {
            DecimalSign.use(DecimalSign.POINT);
            Tone.want(false);
            Theme.still(false);
        });
        System.clearProperty("needle.home");
        System.clearProperty("needle.site");
    }

    @ParameterizedTest
    @ValueSource(strings = {"potters-wheel", "drying-cabinet"})
    void noNumberAtTheStationsHasAPoint(String method, FxRobot robot) {
        openRehearsed(robot, method);
        act(() -> {
            DecimalSign.use(DecimalSign.COMMA);
            window.restyling().numbers();
        });
        String sheet = window.bench().session().sheetText();
        Set<String> wrong = new LinkedHashSet<>();
        int[] commas = {0};
        for (Station s : Station.values()) {
            act(() -> window.go(s));
            settle();
            // The notebook is part of the file, and shown as it was written there.
            String notebook = window.bench().file().acts().toString();
            act(() -> {
                Parent root = stage.getScene().getRoot();
                // What the author of a sheet wrote, formulas among it, stands as it was written.
                Onlooker.pointed(root, sheet, notebook).forEach(t -> wrong.add(s.title() + ": " + t));
                commas[0] += (int) Onlooker.texts(root).stream()
                        .filter(t -> t.matches("(?s).*[0-9],[0-9].*"))
                        .count();
            });
        }
        String report = new String(window.bench().report(false), StandardCharsets.UTF_8)
                .replaceAll("(?s)<style.*?</style>|<[^>]*>", " ");
        String notebook = window.bench().file().acts().toString();
        Onlooker.pointed(Set.of(report), sheet, notebook).forEach(t -> wrong.add("Report: " + t));
        assertThat(wrong).isEmpty();
        assertThat(commas[0]).as("texts with a comma").isGreaterThan(50);
    }

    /** A rehearsal, acts by hand and every export. */
    @ParameterizedTest
    @ValueSource(strings = {"trolley-two-gates", "potters-wheel"})
    void whatASessionWritesIsTheSameWithEitherSign(String method) throws Exception {
        Map<DecimalSign, String> written = new EnumMap<>(DecimalSign.class);
        for (DecimalSign sign : DecimalSign.values()) {
            DecimalSign.use(sign);
            Path file = Files.createDirectories(folder.resolve(sign.name())).resolve("one.needle");
            int failed = NeedleCommand.run(
                    new String[] {"simulate", method, "--seed", "7", "-o", file.toString()},
                    new PrintStream(PrintStream.nullOutputStream()),
                    System.err);
            assertThat(failed).isZero();
            try (PlainDesk desk = PlainDesk.at(file)) {
                Workbench bench = desk.bench();
                bench.sheet().inputs().forEach((key, input) -> {
                    if (input.value() != null && input.value().matches("[-0-9.]+[( ].*")) {
                        bench.apply(new PlanningCommand.SetMeasured(key, input.label(), input.value()));
                    }
                });
                StringBuilder all = new StringBuilder(bench.session().toString());
                for (String ending : List.of("csv", "json")) {
                    Path to = folder.resolve("out." + ending);
                    SessionExport.write(bench.reduction(), List.of(), to);
                    all.append(Files.readString(to)).append('\n');
                }
                written.put(
                        sign,
                        all.toString()
                                .replaceAll(
                                        "\"remarks\":\\[(?:\"(?:[^\"\\\\]|\\\\.)*\",?)*]",
                                        "what was found while it was open")
                                .replaceAll("20[0-9-]+T[0-9:.]+Z", "then")
                                .replace("},", "},\n")
                                .replace("), ", "),\n"));
            }
        }
        Set<String> apart =
                new LinkedHashSet<>(written.get(DecimalSign.COMMA).lines().toList());
        apart.removeAll(written.get(DecimalSign.POINT).lines().toList());
        assertThat(apart).isEmpty();
        assertThat(written.get(DecimalSign.COMMA)).hasSameSizeAs(written.get(DecimalSign.POINT));
    }

    @Test
    @SuppressWarnings("unchecked")
    void whatIsSetOnceHoldsOnScreenWhereOneTypesAndInSessionsThatBegin(FxRobot robot) throws Exception {
        System.setProperty("needle.home", folder.resolve("home").toString());
        System.setProperty("needle.site", folder.resolve("site").toString());
        Files.createDirectories(folder.resolve("site"));
        Files.writeString(folder.resolve("site").resolve("site.yaml"), "decimal: comma\n");
        assertThat(Home.decimal()).as("as the laboratory").isEqualTo(DecimalSign.COMMA);
        openRehearsed(robot, "trolley-two-gates");
        Path file = folder.resolve("home").resolve(Settings.FILE);
        act(() -> window.kept().in(file));
        assertThat(DecimalSign.inUse()).isEqualTo(DecimalSign.COMMA);
        act(() -> window.aside().settings());
        settle();
        act(() -> robot.lookup("#set-decimal").queryAs(ChoiceBox.class).setValue("point"));
        assertThat(DecimalSign.inUse()).isEqualTo(DecimalSign.POINT);
        act(() -> robot.lookup("#set-decimal").queryAs(ChoiceBox.class).setValue("comma"));
        assertThat(DecimalSign.inUse()).isEqualTo(DecimalSign.COMMA);
        act(() -> robot.lookup("#set-coverage").queryAs(ChoiceBox.class).setValue(0.99));
        act(() -> robot.lookup("#set-school").queryAs(ChoiceBox.class).setValue(School.LIMITS.label()));
        act(() -> robot.lookup("#set-sound").queryAs(CheckBox.class).fire());
        act(() -> robot.lookup("#set-still").queryAs(CheckBox.class).fire());
        assertThat(Tone.isWanted()).isTrue();
        assertThat(Theme.isStill()).isTrue();
        assertThat(Settings.read(file).numbers())
                .isEqualTo(new Settings.Numbers(DecimalSign.COMMA, 0.99, School.LIMITS));
        assertThat(Settings.read(file).manner()).isEqualTo(new Settings.Manner(true, true));

        try (BenchFile begun = Home.begin(
                SheetReader.read(SheetReader.shippedText("trolley-two-gates"), "trolley-two-gates"), Instant.now())) {
            assertThat(begun.session().coverage().probability()).isEqualTo(0.99);
            assertThat(begun.session().school()).isEqualTo(School.LIMITS);
        }
        assertThat(window.bench().session().coverageChosen())
                .as("this one began before")
                .isNull();

        act(() -> window.go(Station.PLAN));
        settle();
        String key = window.bench().sheet().inputs().keySet().iterator().next();
        String unit = window.bench().sheet().inputs().get(key).value().replaceAll("^[^a-zA-Z]*", "");
        act(() -> {
            TextField f = robot.lookup("#plan-" + key).queryAs(TextField.class);
            f.setText("1,25(3) " + unit);
            f.fireEvent(new javafx.event.ActionEvent());
        });
        settle();
        assertThat(window.bench().session().planned()).containsEntry(key, "1.25(3) " + unit);
        assertThat(robot.lookup("#plan-" + key).queryAs(TextField.class).getText())
                .isEqualTo("1,25(3) " + unit);
    }

    @Test
    @SuppressWarnings("unchecked")
    void aCoverageIsChosenAtJudgeKeptAndUndone(FxRobot robot) {
        openRehearsed(robot, "trolley-two-gates");
        act(() -> window.go(Station.JUDGE));
        settle();
        double k = window.bench().reduction().comparisons().get(0).factor();
        ChoiceBox<Double> box = robot.lookup("#coverage").queryAs(ChoiceBox.class);
        act(() -> box.setValue(0.99));
        settle();
        assertThat(window.bench().reduction().comparisons().get(0).factor()).isGreaterThan(1.2 * k);
        assertThat(text(robot, "verdict")).contains("limit of agreement");
        act(() -> window.step(true));
        settle();
        assertThat(window.bench().reduction().comparisons().get(0).factor()).isEqualTo(k);
        assertThat(box.getValue()).isEqualTo(0.95);
    }
}
