package eagerneedle.app.window;

import static eagerneedle.app.OnScreen.act;
import static eagerneedle.app.OnScreen.settle;
import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.app.PlainDesk;
import eagerneedle.app.command.NeedleCommand;
import eagerneedle.app.plot.PictureView;
import eagerneedle.app.station.Station;
import eagerneedle.app.widget.Theme;
import eagerneedle.app.widget.Tone;
import eagerneedle.app.workbench.Home;
import eagerneedle.app.workbench.Settings;
import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.judge.School;
import eagerneedle.core.quantity.DecimalSign;
import eagerneedle.core.session.PlanCommand;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.picture.SvgSurface;
import eagerneedle.store.bench.BenchFile;
import eagerneedle.store.export.SessionExport;
import java.io.PrintStream;
import java.lang.reflect.Field;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ChoiceBox;
import javafx.scene.control.Labeled;
import javafx.scene.control.TextField;
import javafx.scene.control.TextInputControl;
import javafx.scene.text.Text;
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
    private static final Pattern POINTED = Pattern.compile("[0-9]+[.][0-9]+");

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
    void noNumberOnScreenHasAPoint(String method, FxRobot robot) {
        openRehearsed(robot, method);
        act(() -> {
            DecimalSign.use(DecimalSign.COMMA);
            window.restyled();
        });
        String sheet = window.bench().session().sheetText();
        Set<String> wrong = new LinkedHashSet<>();
        int[] commas = {0};
        for (Station s : Station.values()) {
            act(() -> window.go(s));
            settle();
            // The notebook is part of the file, and shown as it was written there.
            String notebook = window.bench().file().acts().toString();
            act(() -> texts(stage.getScene().getRoot()).forEach(t -> {
                Matcher m = POINTED.matcher(t);
                while (m.find()) {
                    // What the author of a sheet wrote, formulas among it, stands as it was written.
                    if (!sheet.contains(m.group()) && !notebook.contains(m.group())) {
                        wrong.add(s.title() + ": " + t);
                    }
                }
                commas[0] += t.matches("(?s).*[0-9],[0-9].*") ? 1 : 0;
            }));
        }
        String report = new String(window.bench().report(false), StandardCharsets.UTF_8)
                .replaceAll("(?s)<style.*?</style>|<[^>]*>", " ");
        String notebook = window.bench().file().acts().toString();
        Matcher m = POINTED.matcher(report);
        while (m.find()) {
            if (!sheet.contains(m.group()) && !notebook.contains(m.group())) {
                wrong.add("Report: "
                        + report.substring(Math.max(0, m.start() - 40), m.end()).strip());
            }
        }
        assertThat(wrong).isEmpty();
        assertThat(commas[0]).as("texts with a comma").isGreaterThan(50);
    }

    /** The words of a picture, which stand on a canvas and are painted once more as a drawing to be read. */
    private static List<String> painted(PictureView picture) {
        try {
            Field of = PictureView.class.getDeclaredField("painter");
            of.setAccessible(true);
            SvgSurface again = new SvgSurface(picture.getWidth(), picture.getHeight(), false, "p");
            if (of.get(picture) instanceof PictureView.Painter painter && picture.getWidth() > 10) {
                painter.paint(again, picture.getWidth(), picture.getHeight());
            }
            List<String> out = new ArrayList<>();
            Matcher words = Pattern.compile("<text[^>]*>([^<]*)</text>").matcher(again.document("p"));
            while (words.find()) {
                out.add(words.group(1));
            }
            return out;
        } catch (ReflectiveOperationException e) {
            throw new IllegalStateException(e);
        }
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
                        bench.apply(new PlanCommand.SetMeasured(key, input.label(), input.value()));
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

    private static Set<String> texts(Parent p) {
        Set<String> out = new LinkedHashSet<>();
        for (Node n : p.getChildrenUnmodifiable()) {
            if (!n.isVisible()) {
                continue;
            }
            if (n instanceof Labeled l && l.getText() != null) {
                out.add(l.getText());
            } else if (n instanceof Text t) {
                out.add(t.getText());
            } else if (n instanceof TextInputControl f) {
                out.add(f.getText() + " " + f.getPromptText());
            } else if (n instanceof PictureView picture) {
                out.addAll(painted(picture));
            }
            if (n instanceof Parent q) {
                out.addAll(texts(q));
            }
        }
        return out;
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
        act(() -> window.settingsIn(file));
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
