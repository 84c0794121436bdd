package eagerneedle.app.window;

import static eagerneedle.app.OnScreen.act;
import static eagerneedle.app.OnScreen.settle;
import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.app.command.NeedleCommand;
import eagerneedle.app.marking.ClassroomView;
import eagerneedle.app.training.TrainingView;
import eagerneedle.app.workbench.Demonstration;
import eagerneedle.core.quantity.DecimalSign;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.quantity.Reading;
import eagerneedle.core.reading.Face;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.stockroom.Instrument;
import eagerneedle.core.training.Drill;
import eagerneedle.store.classroom.ClassFolder;
import eagerneedle.store.classroom.ClassKey;
import java.io.PrintStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashSet;
import java.util.Optional;
import java.util.Set;
import javafx.scene.control.ChoiceBox;
import javafx.scene.control.Labeled;
import javafx.scene.control.TextArea;
import javafx.scene.control.TextInputControl;
import javafx.scene.layout.VBox;
import javafx.stage.Stage;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/** With a decimal comma no number has a point in the views beside the stations either. */
class DecimalCommaBesideTest extends BenchWindow {
    private final Set<String> wrong = new LinkedHashSet<>();

    @Start
    void start(Stage newStage) throws Exception {
        prepare(newStage);
    }

    @BeforeEach
    void comma() {
        System.setProperty("needle.home", folder.resolve("home").toString());
        System.setProperty("needle.site", folder.resolve("site").toString());
        act(() -> DecimalSign.use(DecimalSign.COMMA));
    }

    @AfterEach
    void asUsual() {
        act(() -> DecimalSign.use(DecimalSign.POINT));
        System.clearProperty("needle.home");
        System.clearProperty("needle.site");
    }

    private void look(String where, String... authors) {
        act(() -> Onlooker.pointed(stage.getScene().getRoot(), authors).forEach(t -> wrong.add(where + ": " + t)));
    }

    private static void write(FxRobot robot, String id, String text) {
        act(() -> robot.lookup("#" + id).queryAs(TextInputControl.class).setText(text));
    }

    private static String told(FxRobot robot, String id) {
        return robot.lookup("#" + id).queryAs(Labeled.class).getText();
    }

    @Test
    void inTheStockroomAtTheStartOnTheDayAndAtTheReadyCheck(FxRobot robot) {
        openRehearsed(robot, "warmed-cord");
        act(window::showStart);
        settle();
        look("Start", window.bench().session().sheetText());
        StringBuilder named = new StringBuilder();
        window.stockroom()
                .all()
                .forEach(i -> named.append(i.name()).append(i.limits()).append(i.history()));
        for (int n = 0; n < window.stockroom().all().size(); n += Boolean.getBoolean("everyMethod") ? 1 : 6) {
            Instrument i = window.stockroom().all().get(n);
            act(() -> window.aside().stockroom(i.id()));
            settle();
            look(
                    i.id(),
                    named + robot.lookup("#stock-link").queryAs(TextArea.class).getText());
        }
        act(window::showReady);
        settle();
        look("Ready");
        fire(robot, "ready-look");
        look("Ready, looked at");
        act(() -> window.aside().day());
        settle();
        look("Day");
        act(() -> window.showPutRight("TH-BA-01"));
        settle();
        look("A standard was wrong");
        act(() -> window.aside().settings());
        settle();
        look("Settings");
        assertThat(wrong).isEmpty();
    }

    /** A sheet is a file, and its author's formulas stand as written; what is worked out has the comma. */
    @Test
    void atTheDesk(FxRobot robot) throws Exception {
        openRehearsed(robot, "potters-wheel");
        act(() -> window.aside().desk());
        settle();
        String sheet = window.bench().session().sheetText();
        look("Desk", sheet);
        robot.push(javafx.scene.input.KeyCode.CONTROL, javafx.scene.input.KeyCode.R);
        await(() ->
                !robot.lookup("#rehearsed").queryAs(VBox.class).getChildren().isEmpty());
        settle();
        look("Desk, rehearsed", sheet);
        assertThat(wrong).isEmpty();
    }

    @Test
    @SuppressWarnings("unchecked")
    void inTraining(FxRobot robot) {
        openRehearsed(robot, "baggage-chute");
        TrainingView[] view = new TrainingView[1];
        act(() -> view[0] = window.aside().training());
        ChoiceBox<Optional<Face>> which = robot.lookup("#drill-face").queryAs(ChoiceBox.class);
        for (Face face : Drill.FACES) {
            act(() -> which.setValue(Optional.of(face)));
            look("Drill, " + face.label());
            Quantity right = view[0].drill().asked().right();
            write(robot, "drill-value", DecimalSign.COMMA.shown(Double.toString(right.value() * 1.25)));
            write(robot, "drill-u", DecimalSign.COMMA.shown(Double.toString(right.u() * 9)));
            fire(robot, "drill-answer");
            look("Drill, " + face.label() + ", answered");
        }
        act(() -> which.setValue(Optional.empty()));
        assertThat(wrong).isEmpty();
    }

    @Test
    void amongAllBenches(FxRobot robot) throws Exception {
        SheetReader.Located sheet = SheetTrial.read(SheetReader.shippedText("signpost-arm"), "signpost-arm");
        Path shared = Files.createDirectories(folder.resolve("shared"));
        for (int i = 1; i <= 4; i++) {
            Demonstration.simulate(
                    sheet, i, i == 4 ? Set.of("b-for-c") : Set.of(), shared.resolve("bench " + i + ".needle"));
        }
        openRehearsed(robot, "signpost-arm");
        act(() -> window.aside().benches().read(shared));
        await(() -> told(robot, "benches-state").contains("4 benches"));
        look("All benches");
        ChoiceBox<?> results = robot.lookup("#benches-result").queryAs(ChoiceBox.class);
        for (int i = 0; i < results.getItems().size(); i++) {
            int each = i;
            act(() -> results.getSelectionModel().select(each));
            settle();
            look("All benches, result " + i);
        }
        assertThat(wrong).isEmpty();
    }

    @Test
    void amongMarks(FxRobot robot) throws Exception {
        Path set = folder.resolve("set");
        Path list = Files.writeString(folder.resolve("list.csv"), "id,name\ns1,A. Alder\ns2,B. Beech\ns3,C. Cedar\n");
        Path words = Files.writeString(folder.resolve("words"), "words of the class");
        String[] set3 = {"classset", "potters-wheel", "--students", list.toString(), "-o", set.toString()};
        String[] all = java.util.Arrays.copyOf(set3, set3.length + 2);
        all[set3.length] = "--passphrase-file";
        all[set3.length + 1] = words.toString();
        assertThat(NeedleCommand.run(all, new PrintStream(PrintStream.nullOutputStream()), System.err))
                .isZero();
        ClassKey key = ClassKey.read(set.resolve(ClassFolder.KEY), "words of the class".toCharArray());
        StringBuilder in = new StringBuilder("student,quantity,value,u,unit\n");
        key.units()
                .forEach((student, unit) -> unit.expected().forEach((q, is) -> {
                    Reading r = Reading.parse(is);
                    double factor = student.equals("s1") ? 1 : student.equals("s2") ? 2 : 1.017;
                    in.append(student + "," + q + "," + (float) (r.value() * factor) + "," + (float) r.u() + ","
                            + r.unit().symbol() + "\n");
                }));
        openRehearsed(robot, "potters-wheel");
        ClassroomView[] view = new ClassroomView[1];
        act(() -> view[0] = window.aside().classroom());
        settle();
        look("Classroom");
        Path handed = Files.writeString(folder.resolve("in.csv"), in);
        act(() -> view[0].mark(set, handed, "words of the class"));
        await(() -> robot.lookup("#mark-2-0").tryQuery().isPresent());
        settle();
        look("Marks");
        int quantities = ClassFolder.read(set).asked().size();
        for (int s = 0; s < 3; s++) {
            for (int q = 0; q < quantities; q++) {
                fire(robot, "mark-" + s + "-" + q);
                look("Marks of " + s + ", " + q, in.toString().replace(",", " ± "));
            }
        }
        assertThat(wrong).isEmpty();
    }
}
