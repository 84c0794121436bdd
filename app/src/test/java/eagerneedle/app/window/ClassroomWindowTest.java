package eagerneedle.app.window;

import static eagerneedle.app.OnScreen.act;
import static eagerneedle.app.OnScreen.settle;
import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.app.marking.ClassroomView;
import eagerneedle.core.quantity.Reading;
import eagerneedle.store.classroom.ClassFolder;
import eagerneedle.store.classroom.ClassKey;
import java.math.BigDecimal;
import java.math.MathContext;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ChoiceBox;
import javafx.scene.control.Label;
import javafx.scene.control.Labeled;
import javafx.scene.control.TextField;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/** A class of thirty in the real window: given out, handed in, marked on its matrix, and written down. */
class ClassroomWindowTest extends BenchWindow {
    private static final String WORDS = "words of the class";

    @TempDir
    Path classes;

    @Start
    void start(Stage newStage) throws Exception {
        prepare(newStage);
    }

    private static void write(FxRobot robot, String id, String text) {
        act(() -> robot.lookup("#" + id).queryAs(TextInputControl.class).setText(text));
    }

    private static String told(FxRobot robot, String id) {
        return robot.lookup("#" + id).queryAs(Labeled.class).getText();
    }

    @Test
    void aClassOfThirtyIsGivenDataMarkedOverruledUndoneAndWrittenDown(FxRobot robot) throws Exception {
        openRehearsed(robot, "dividing-tables");
        StringBuilder list = new StringBuilder("id,name\n");
        for (int i = 1; i <= 30; i++) {
            list.append("s" + i + ",Student " + i + "\n");
        }
        Path students = Files.writeString(classes.resolve("list.csv"), list);
        Path set = classes.resolve("set");
        ClassroomView[] view = new ClassroomView[1];
        act(() -> view[0] = window.aside().classroom());
        fire(robot, "class-make");
        assertThat(robot.lookup("#class-state").queryAs(Label.class).getText()).isEmpty();
        write(robot, "class-list", students.toString());
        write(robot, "class-folder", set.toString());
        write(robot, "class-passphrase", WORDS);
        write(robot, "class-faults", "3");
        fire(robot, "class-make");
        await(() -> told(robot, "class-state").startsWith("30 data sets"));

        ClassKey key = ClassKey.read(set.resolve(ClassFolder.KEY), WORDS.toCharArray());
        Path in = Files.writeString(classes.resolve("in.csv"), handIns(key));
        write(robot, "marking-folder", set.toString());
        write(robot, "marking-hand-ins", in.toString());
        write(robot, "marking-passphrase", "not the words");
        fire(robot, "marking-begin");
        await(() -> told(robot, "marking-state").contains("passphrase does not open"));
        write(robot, "marking-passphrase", WORDS);
        fire(robot, "marking-begin");
        await(() -> robot.lookup("#mark-29-0").tryQuery().isPresent());
        settle();

        int columns = ClassFolder.read(set).asked().size();
        assertThat(columns).isBetween(5, 6);
        assertThat(robot.lookup(n -> n instanceof Button b
                                && String.valueOf(b.getId()).matches("mark-\\d+-\\d+"))
                        .queryAll())
                .hasSize(30 * columns);
        assertThat(told(robot, "mark-0-0")).isEqualTo("power of ten");
        assertThat(told(robot, "mark-1-0")).isEqualTo("Twice as large");
        assertThat(told(robot, "mark-2-0")).isEqualTo("–");
        assertThat(told(robot, "mark-3-0")).isIn("right", "digits");

        fire(robot, "mark-1-0");
        String before = told(robot, "together-1");
        write(robot, "mark-credit", "0.45");
        act(() -> robot.lookup("#mark-credit")
                .queryAs(javafx.scene.control.TextField.class)
                .fireEvent(new javafx.event.ActionEvent()));
        assertThat(told(robot, "together-1")).isNotEqualTo(before);
        assertThat(robot.lookup("#mark-detail").query().lookupAll(".label"))
                .anyMatch(n -> n instanceof Labeled l && l.getText().startsWith("Twice as large. A factor of two"));
        choose(robot, 0);
        // Something else is decided meanwhile: what was chosen and half-written here stays.
        act(() -> {
            TextField worth = robot.lookup("#points-1").queryAs(TextField.class);
            worth.requestFocus();
            worth.setText("2.");
            CheckBox hide = robot.lookup("#marking-hide").queryAs(CheckBox.class);
            hide.fire();
            hide.fire();
            assertThat(worth.getText()).isEqualTo("2.");
            worth.setText("1");
        });
        assertThat(chosen(robot)).isZero();
        fire(robot, "mark-overrule");
        assertThat(told(robot, "mark-1-0")).isEqualTo("Twice as large");
        write(robot, "overrule-reason", "there and back was asked for");
        fire(robot, "mark-overrule");
        assertThat(told(robot, "mark-1-0")).isEqualTo("right *");
        act(() -> robot.lookup("#mark-1-0").query().requestFocus());
        robot.push(KeyCode.CONTROL, KeyCode.Z);
        settle();
        assertThat(told(robot, "mark-1-0")).isEqualTo("Twice as large");
        fire(robot, "marking-redo");
        assertThat(told(robot, "mark-1-0")).isEqualTo("right *");
        write(robot, "points-0", "2");
        act(() -> robot.lookup("#points-0")
                .queryAs(javafx.scene.control.TextField.class)
                .fireEvent(new javafx.event.ActionEvent()));

        act(() -> robot.lookup("#marking-hide").queryAs(CheckBox.class).fire());
        assertThat(robot.lookup(n -> n instanceof Labeled l && l.getText().contains("Student 12 "))
                        .queryAll())
                .isEmpty();
        assertThat(robot.lookup("#class-wide").query().lookupAll(".label"))
                .anyMatch(n -> n instanceof Labeled l && l.getText().contains("of 30 not right"));

        Path table = classes.resolve("table.csv");
        Path book = classes.resolve("table.xlsx");
        act(() -> view[0].writeTable(table));
        act(() -> view[0].writeTable(book));
        assertThat(Files.readAllLines(table)).hasSize(31).anyMatch(l -> l.startsWith("s2,Student 2,,right,2.0"));
        assertThat(book).isNotEmptyFile();
        Path pages = classes.resolve("pages");
        CompletableFuture<?>[] written = new CompletableFuture<?>[1];
        act(() -> written[0] = view[0].writePages(pages, false));
        written[0].get();
        assertThat(pages.resolve("feedback-s30.pdf")).isNotEmptyFile();
        assertThat(Files.readString(pages.resolve("feedback-s2.html"))).contains("there and back was asked for");
        fire(robot, "classroom-back");
        assertThat(window.shows(eagerneedle.app.station.Station.PLAN)).isTrue();
    }

    private static int chosen(FxRobot robot) {
        return robot.lookup("#overrule-verdict")
                .queryAs(ChoiceBox.class)
                .getSelectionModel()
                .getSelectedIndex();
    }

    @SuppressWarnings("unchecked")
    private static void choose(FxRobot robot, int verdict) {
        act(() -> robot.lookup("#overrule-verdict")
                .queryAs(ChoiceBox.class)
                .getSelectionModel()
                .select(verdict));
    }

    /** Everything right but the first quantity of the first three. */
    private static String handIns(ClassKey key) {
        StringBuilder out = new StringBuilder("student,quantity,value,u,unit\n");
        int student = 0;
        for (Map.Entry<String, ClassKey.Unit> unit : key.units().entrySet()) {
            int quantity = 0;
            for (Map.Entry<String, String> e : unit.getValue().expected().entrySet()) {
                Reading r = Reading.parse(e.getValue());
                double factor = quantity > 0 || student > 2 ? 1 : student == 0 ? 10 : 2;
                String value = quantity == 0 && student == 2
                        ? ""
                        : new BigDecimal(r.value() * factor)
                                .round(new MathContext(4))
                                .toString();
                out.append(unit.getKey() + "," + e.getKey() + "," + value + "," + r.u() + ","
                        + r.unit().symbol() + "\n");
                quantity++;
            }
            student++;
        }
        return out.toString();
    }
}
