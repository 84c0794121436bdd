package eagerneedle.app.window;

import static eagerneedle.app.OnScreen.act;
import static eagerneedle.app.OnScreen.settle;
import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.app.Rehearsed;
import eagerneedle.app.station.Station;
import eagerneedle.core.chain.Link;
import eagerneedle.store.bench.BenchFile;
import eagerneedle.store.stockroom.ReadyBook;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.stream.Collectors;
import javafx.event.ActionEvent;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ChoiceBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.Labeled;
import javafx.scene.control.TextArea;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Pane;
import javafx.stage.Stage;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/** A week of a laboratory in the real window: kits and names, ready checks, quarantine, a wrong standard, the day. */
class WeekWindowTest extends BenchWindow {
    private static final String METHOD = "warmed-cord";
    private Path site;

    @Start
    void start(Stage newStage) throws Exception {
        prepare(newStage);
    }

    @BeforeEach
    void laboratory() throws Exception {
        site = Files.createTempDirectory("needle-site");
        System.setProperty("needle.site", site.toString());
        System.setProperty("needle.home", site.resolve("home").toString());
        Files.writeString(
                site.resolve("site.yaml"),
                "staff: [M. Ash, J. Birch]\nplaces: [drawer 4]\nkits:\n  bench 7: [TH-CP-01]\n  bench 9: [TH-LG-09]\n");
    }

    @AfterEach
    void nowhere() {
        System.clearProperty("needle.site");
        System.clearProperty("needle.home");
    }

    @SuppressWarnings("unchecked")
    private static void choose(FxRobot robot, String id, String what) {
        ChoiceBox<Object> box = robot.lookup("#" + id).queryAs(ChoiceBox.class);
        act(() -> box.setValue(box.getItems().stream()
                .filter(i -> (box.getConverter() == null
                                ? i.toString()
                                : box.getConverter().toString(i))
                        .contains(what))
                .findFirst()
                .orElseThrow()));
        settle();
    }

    @SuppressWarnings("unchecked")
    private static void name(FxRobot robot, String id, String who) {
        act(() -> robot.lookup("#" + id).queryAs(ComboBox.class).setValue(who));
    }

    private static String rows(FxRobot robot) {
        return robot.lookup("#ready-rows").queryAs(Pane.class).getChildren().stream()
                .map(row -> ((HBox) row)
                        .getChildren().stream().map(n -> ((Label) n).getText()).collect(Collectors.joining(" ")))
                .collect(Collectors.joining("\n"));
    }

    private void readyCheck(FxRobot robot) throws Exception {
        act(() -> window.showReady());
        settle();
        choose(robot, "ready-point", "9.813");
        type(robot, "ready-bench", "bench 7");
        fire(robot, "ready-set");
        await(() -> {
            fire(robot, "ready-read");
            return rows(robot).contains("by the calibration in force");
        });
        fire(robot, "ready-look");
    }

    /** Looked for on the thread of the window, which makes its rows anew meanwhile. */
    private static boolean isSaid(FxRobot robot, String words) {
        boolean[] there = new boolean[1];
        act(() -> there[0] = !robot.lookup(
                        n -> n instanceof Label l && l.getText().contains(words))
                .queryAll()
                .isEmpty());
        return there[0];
    }

    @Test
    void aWeek(FxRobot robot) throws Exception {
        open(Rehearsed.in(folder, METHOD));
        act(() -> window.stockroom()
                .put(window.stockroom().find("TH-LG-01").orElseThrow().copyAs("TH-LG-09")));

        // Monday: somebody is at the bench; the session goes to another one, and back by undoing.
        act(() -> window.go(Station.RIG));
        settle();
        type(robot, "who", "A. Alder, B. Beech");
        act(() -> robot.lookup("#who").queryAs(TextField.class).fireEvent(new ActionEvent()));
        assertThat(session().bench().operator()).isEqualTo("A. Alder, B. Beech");
        choose(robot, "bench", "bench 9");
        assertThat(session().bench().bench()).isEqualTo("bench 9");
        assertThat(Link.serials(
                        session().channel(window.bench().sheet(), "force").chain()))
                .contains("TH-LG-09");
        assertThat(session().calibrationOf("force", window.bench().sheet())).isEmpty();
        fire(robot, "undo");
        assertThat(session().bench().bench()).isEmpty();
        assertThat(session().calibrationOf("force", window.bench().sheet())).isPresent();

        // Tuesday: before the class the bench is looked at and signed, twice; the second is held against the first.
        fire(robot, "connect");
        await(() -> window.rig().isPresent() && window.rig().get().end("force") > 2);
        readyCheck(robot);
        assertThat(rows(robot))
                .contains("● Instruments Nothing against")
                .contains("● Self-test")
                .contains("● One run");
        fire(robot, "ready-sign");
        assertThat(text(robot, "watch-line")).contains("Say who signs");
        name(robot, "ready-staff", "M. Ash");
        fire(robot, "ready-sign");
        assertThat(text(robot, "watch-line")).contains("bench 7 is ready, signed by M. Ash");
        assertThat(new ReadyBook(site).last("bench 7", METHOD).orElseThrow().isReady())
                .isTrue();
        readyCheck(robot);
        assertThat(rows(robot)).contains("the same within both uncertainties");
        // It was another bench: what was read there is held against the checks of that one.
        type(robot, "ready-bench", "bench 8");
        assertThat(rows(robot))
                .contains("the first that is kept")
                .contains("by the calibration in force")
                .doesNotContain("the same within both uncertainties");
        type(robot, "ready-bench", "bench 7");
        assertThat(rows(robot)).contains("the same within both uncertainties");
        // A book with a torn line is told, and the view is there.
        String book = Files.readString(site.resolve(ReadyBook.FILE));
        Files.writeString(site.resolve(ReadyBook.FILE), book + "{ half a line");
        act(() -> window.showReady());
        settle();
        assertThat(isSaid(robot, "Line 2 of the checks in ready.jsonl cannot be read"))
                .isTrue();
        Files.writeString(site.resolve(ReadyBook.FILE), book);

        // Wednesday: the micrometer is broken: it is out at once, and the bench is not ready.
        act(() -> window.aside().stockroom("TH-BA-01"));
        settle();
        type(robot, "stock-field-place", "the moon");
        fire(robot, "stock-save");
        assertThat(text(robot, "watch-line")).contains("names no place 'the moon'; it has: drawer 4");
        type(robot, "stock-event-what", "dropped");
        choose(robot, "stock-event-outcome", "broken");
        fire(robot, "stock-event-add");
        readyCheck(robot);
        assertThat(rows(robot))
                .contains("▲ Instruments")
                .contains("was reported broken")
                .contains("dropped");
        name(robot, "ready-staff", "J. Birch");
        fire(robot, "ready-sign");
        assertThat(text(robot, "watch-line")).contains("bench 7 is signed as not ready by J. Birch");
        assertThat(window.bench().file().acts().toString()).contains("Ready check of bench 7, signed by J. Birch");

        // Thursday: a standard was wrong; the afternoon's folder is put right.
        Path afternoon = Files.createDirectories(folder.resolve("afternoon"));
        for (int i = 1; i <= 2; i++) {
            Files.copy(Rehearsed.in(Files.createTempDirectory("needle-one"), METHOD), afternoon.resolve(i + ".needle"));
        }
        act(() -> window.showPutRight("TH-CM-01"));
        settle();
        type(robot, "right-times", "1.004");
        type(robot, "right-folder", afternoon.toString());
        fire(robot, "right-look");
        assertThat(text(robot, "watch-line")).contains("Say why TH-CM-01 is corrected");
        type(robot, "right-why", "its certificate was misread");
        fire(robot, "right-look");
        await(() -> text(robot, "right-state").startsWith("2 sessions would be put right"));
        String list = robot.lookup("#right-list").queryAs(Pane.class).getChildren().stream()
                .map(n -> ((Labeled) n).getText())
                .collect(Collectors.joining("\n"));
        assertThat(list)
                .contains("corrected: the calibration of pull of the cord")
                .contains("becomes");
        fire(robot, "right-write");
        await(() -> text(robot, "right-state").startsWith("Put right: 2 sessions"));
        try (BenchFile one = BenchFile.open(afternoon.resolve("1.needle"))) {
            assertThat(one.session().corrections()).hasSize(1);
        }

        // Friday: the day says who is where, and which bench is ready.
        act(() -> window.aside().day());
        settle();
        act(() -> robot.lookup("#day-text")
                .queryAs(TextArea.class)
                .setText("day: Friday\ndate: " + LocalDate.now() + "\nslots: 1\ngroups: [Oak]\nmethods: [" + METHOD
                        + "]\n"));
        await(() -> isSaid(robot, "bench 7 is not ready"));
        assertThat(isSaid(robot, "Oak")).isTrue();
        act(() -> robot.lookup("#day-text").queryAs(TextArea.class).setText("slots: ["));
        await(() -> isSaid(robot, "The afternoon, line 1"));
        fire(robot, "day-back");
    }

    @Test
    void aStepThatCanHurtSomebodyWantsAMemberOfStaff(FxRobot robot) throws Exception {
        open(Rehearsed.in(folder, "whirling-bob"));
        act(() -> window.go(Station.RIG));
        settle();
        CheckBox guard = robot.lookup("#step-guard").queryAs(CheckBox.class);
        act(() -> {
            if (guard.isSelected()) {
                guard.fire();
            }
        });
        act(guard::fire);
        assertThat(text(robot, "watch-line")).contains("A member of staff has to agree");
        assertThat(guard.isSelected()).isFalse();
        name(robot, "agreed-guard", "J. Birch");
        act(guard::fire);
        assertThat(session().bench().agreed()).containsEntry("guard", "J. Birch");
        assertThat(window.bench().file().acts().toString()).contains("Guard in its place, J. Birch.");
        assertThat(text(robot, "left-guard")).contains("by J. Birch");
    }
}
