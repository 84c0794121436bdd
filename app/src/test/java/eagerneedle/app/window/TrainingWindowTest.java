package eagerneedle.app.window;

import static eagerneedle.app.OnScreen.act;
import static eagerneedle.app.OnScreen.settle;
import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.app.station.Station;
import eagerneedle.app.training.DrillModel;
import eagerneedle.app.training.TrainingProgress;
import eagerneedle.app.training.TrainingView;
import eagerneedle.app.workbench.Home;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reading.Face;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.training.Drill;
import eagerneedle.core.training.Hunt;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import javafx.scene.control.ChoiceBox;
import javafx.scene.control.Label;
import javafx.scene.control.Labeled;
import javafx.scene.control.RadioButton;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.Pane;
import javafx.stage.Stage;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/** Every instrument of the drill is read in the real window, rightly and wrongly; a fault is hidden and named. */
class TrainingWindowTest extends BenchWindow {
    private static final String HOME = "needle.home";

    @TempDir
    Path home;

    private String before;

    @Start
    void start(Stage newStage) throws Exception {
        prepare(newStage);
    }

    @BeforeEach
    void home() {
        before = System.getProperty(HOME);
        System.setProperty(HOME, home.toString());
    }

    @AfterEach
    void back() {
        if (before == null) {
            System.clearProperty(HOME);
        } else {
            System.setProperty(HOME, before);
        }
    }

    private static String said(FxRobot robot, String id) {
        return robot.lookup("#" + id).queryAs(Pane.class).getChildren().stream()
                .map(n -> ((Labeled) n).getText())
                .collect(Collectors.joining("\n"));
    }

    private static void write(FxRobot robot, String id, String text) {
        act(() -> robot.lookup("#" + id).queryAs(TextField.class).setText(text));
    }

    private static TrainingProgress progress() {
        return TrainingProgress.read(Home.folder().resolve("training.json"));
    }

    @Test
    @SuppressWarnings("unchecked")
    void everyInstrumentIsReadAndWhatWasReadIsKept(FxRobot robot) throws Exception {
        openRehearsed(robot, "drying-cabinet");
        TrainingView[] view = new TrainingView[1];
        Path kept = Home.folder().resolve("training.json");
        Files.createDirectories(kept.getParent());
        Files.writeString(kept, "{\"faces\": {\"VERNIER");
        act(() -> view[0] = window.aside().training());
        assertThat(text(robot, "watch-line")).contains("kept as training-unread.json");
        assertThat(kept.resolveSibling("training-unread.json")).hasContent("{\"faces\": {\"VERNIER");
        DrillModel drill = view[0].drill();
        ChoiceBox<Optional<Face>> which = robot.lookup("#drill-face").queryAs(ChoiceBox.class);
        for (Face face : Drill.FACES) {
            act(() -> which.setValue(Optional.of(face)));
            assertThat(drill.asked().face()).isEqualTo(face);
            fire(robot, "drill-answer");
            assertThat(drill.judged()).as("nothing was written").isEmpty();
            write(robot, "drill-value", "abc");
            fire(robot, "drill-answer");
            assertThat(drill.judged()).as("nothing that can be read").isEmpty();
            Quantity right = drill.asked().right();
            write(robot, "drill-value", Double.toString(right.value()).replace('.', ','));
            write(robot, "drill-u", Double.toString(right.u()));
            fire(robot, "drill-answer");
            assertThat(said(robot, "drill-says"))
                    .contains("✓ The value is right.")
                    .contains("✓ The uncertainty is right");
            fire(robot, "drill-answer");
            assertThat(drill.judged()).as("the next one").isEmpty();
            right = drill.asked().right();
            write(robot, "drill-value", right.value() * 1.5 + " " + right.unit().symbol());
            fire(robot, "drill-answer");
            assertThat(said(robot, "drill-says")).contains("▲ It reads ").contains("▲ An uncertainty belongs to it");
            assertThat(progress().faces().get(face.name())).isEqualTo(new TrainingProgress.Read(2, 1, 1));
        }
        act(() -> which.setValue(Optional.empty()));
        fire(robot, "training-back");
        assertThat(robot.lookup("#training").tryQuery()).isEmpty();
    }

    @Test
    void aHiddenFaultIsHuntedWhileTheWatchesAreSilentAndToldAfterwards(FxRobot robot) throws Exception {
        openRehearsed(robot, "baggage-chute");
        robot.push(KeyCode.CONTROL, KeyCode.T);
        settle();
        fire(robot, "hunt-begin");
        await(() -> window.hunt().isPresent());
        Hunt hunt = window.hunt().orElseThrow();
        assertThat(window.bench().session().runs()).as("a session of its own").isEmpty();
        assertThat(window.bench().isSilent()).isTrue();
        assertThat(text(robot, "watch-line")).isNotEqualTo("Nothing to watch.");
        act(() -> window.go(Station.RIG));
        assertThat(robot.lookup("#mistake").queryAs(ChoiceBox.class).isVisible())
                .as("who hunts must not choose what is wrong")
                .isFalse();
        fire(robot, "hunt-known");
        String is = hunt.hidden().map(Sheet.Mistake::id).orElse("");
        assertThat(robot.lookup("#hunt-say").queryButton().isDisabled()).isTrue();
        choose(robot, "hunt-fault", is);
        choose(robot, "hunt-remedy", is);
        fire(robot, "hunt-say");
        assertThat(said(robot, "hunt-says")).startsWith("Right: ").contains("It took 0:");
        if (hunt.hidden().isPresent()) {
            await(() -> said(robot, "hunt-says").contains("Where it could have been seen\n"));
        }
        assertThat(window.bench().isSilent()).isFalse();
        assertThat(window.hunt()).isEmpty();
        assertThat(robot.lookup("#hunt-banner").query().isVisible()).isFalse();
        List<TrainingProgress.Hunted> hunts = progress().hunts();
        assertThat(hunts).hasSize(1);
        assertThat(hunts.get(0).found()).isTrue();
        assertThat(hunts.get(0).fault()).isEqualTo(is);
        fire(robot, "hunt-back");
        assertThat(text(robot, "watch-line")).isNotEqualTo("The watches are silent.");
    }

    private static void choose(FxRobot robot, String id, String key) {
        act(() -> robot.lookup("#" + id).queryAs(Pane.class).getChildren().stream()
                .filter(n -> key.equals(n.getUserData()))
                .forEach(n -> ((RadioButton) n).setSelected(true)));
    }

    @Test
    void whoGivesUpIsToldAndWhoOpensAnotherSessionHuntsNoMore(FxRobot robot) throws Exception {
        openRehearsed(robot, "baggage-chute");
        act(() -> window.aside().training());
        fire(robot, "hunt-begin");
        fire(robot, "hunt-leave");
        assertThat(text(robot, "watch-line")).startsWith("The hunt is over. ");
        assertThat(window.bench().isSilent()).isFalse();
        act(() -> window.aside().training());
        fire(robot, "hunt-begin");
        assertThat(window.hunt()).isPresent();
        openRehearsed(robot, "drying-cabinet");
        assertThat(window.hunt()).isEmpty();
        assertThat(window.bench().isSilent()).isFalse();
        assertThat(progress().hunts()).isEmpty();
        assertThat(robot.lookup("#hunt-lasts").queryAs(Label.class).getScene()).isNotNull();
    }
}
