package eagerneedle.app.window;

import static eagerneedle.app.OnScreen.act;
import static eagerneedle.app.OnScreen.settle;
import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.app.training.TrainingProgress;
import eagerneedle.app.widget.Theme;
import eagerneedle.app.workbench.Home;
import eagerneedle.app.workbench.Settings;
import eagerneedle.core.reduce.Key;
import java.nio.file.Files;
import java.nio.file.Path;
import javafx.scene.control.ChoiceBox;
import javafx.scene.control.Labeled;
import javafx.stage.Stage;
import org.fxmisc.richtext.CodeArea;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/** What was set is there again when the program is started again. */
class KeptSettingsTest extends BenchWindow {
    @Start
    void start(Stage newStage) throws Exception {
        prepare(newStage);
        System.setProperty("needle.home", folder.resolve("home").toString());
    }

    @AfterEach
    void asUsual() {
        System.clearProperty("needle.home");
        act(() -> {
            Theme.textSize(100);
            if (stage.getScene() != null) {
                Theme.dress(stage.getScene(), false);
            }
        });
    }

    @Test
    void textThemeAndPinsAreFoundAgainAndAQuantityLeadsToItsLine(FxRobot robot) throws Exception {
        Path file = folder.resolve("settings.json");
        openRehearsed(robot, "trolley-two-gates");
        act(() -> window.kept().in(file));
        act(() -> window.restyling().textSize(120));
        act(() -> window.kept().otherTheme());
        act(() -> window.leads().toQuantity(new Key.Global("mu")));
        fire(robot, "ledger-pin");
        assertThat(Settings.read(file).pinned()).containsKey("trolley-two-gates");
        act(() -> {
            Theme.textSize(100);
            Theme.dress(stage.getScene(), false);
            stage.close();
        });
        openRehearsed(robot, "trolley-two-gates");
        act(() -> window.kept().in(file));
        assertThat(Theme.textSize()).isEqualTo(120);
        assertThat(Theme.isDark()).isTrue();
        act(() -> window.leads().toQuantity(new Key.Global("mu")));
        assertThat(robot.lookup("#ledger-pin").queryAs(Labeled.class).getText()).isEqualTo("Unpin");
        fire(robot, "ledger-line");
        settle();
        CodeArea text = robot.lookup("#sheet-text").queryAs(CodeArea.class);
        assertThat(text.getText(text.getCurrentParagraph()).strip()).startsWith("mu: {");
    }

    @Test
    void settingsThatCannotBeReadAreTheUsualOnes() throws Exception {
        Path file = Files.writeString(folder.resolve("bad.json"), "{\"textSize\": \"many");
        assertThat(Settings.read(file)).isEqualTo(Settings.USUAL);
        for (String nothing : new String[] {"null", "", "[]", "{\"pinned\": {\"a\": null}}"}) {
            Files.writeString(file, nothing);
            assertThat(Settings.read(file)).as(nothing).isEqualTo(Settings.USUAL);
            assertThat(TrainingProgress.read(file)).as(nothing).isNotNull();
        }
        Files.writeString(file, "{\"textSize\": 130, \"new\": 1}");
        assertThat(Settings.read(file).textSize()).isEqualTo(130);
        assertThat(Settings.read(folder.resolve("none.json"))).isEqualTo(Settings.USUAL);
    }

    @Test
    void aFileThatCannotBeReadIsToldAndNotWrittenOver(FxRobot robot) throws Exception {
        Path file = folder.resolve(Settings.FILE);
        String semicolon = "{\"textSize\": 120, \"numbers\": {\"decimal\": \"SEMICOLON\", \"coverage\": 0.99}}";
        Files.writeString(folder.resolve("settings-unread.json"), "from another time");
        Files.writeString(file, semicolon);
        openRehearsed(robot, "trolley-two-gates");
        act(() -> window.kept().in(file));
        assertThat(text(robot, "watch-line"))
                .startsWith("What was set on this machine cannot be read")
                .contains("kept as settings-unread-2.json");
        act(() -> window.kept().otherTheme());
        assertThat(Settings.read(file).dark()).isTrue();
        assertThat(folder.resolve("settings-unread-2.json")).hasContent(semicolon);
        assertThat(folder.resolve("settings-unread.json")).hasContent("from another time");
        assertThat(Settings.rescued(file)).isEmpty();
        assertThat(Settings.rescued(folder.resolve("none.json"))).isEmpty();
    }

    @Test
    @SuppressWarnings("unchecked")
    void whatIsSetOnThePageOfSettingsIsKeptAndFollowedAtOnce(FxRobot robot) throws Exception {
        Path file = folder.resolve("home").resolve(Settings.FILE);
        System.setProperty("needle.site", folder.resolve("site").toString());
        Files.createDirectories(folder.resolve("site"));
        Files.writeString(folder.resolve("site").resolve("site.yaml"), "kits:\n  bench 7: [TH-CP-07]\n");
        try {
            openRehearsed(robot, "trolley-two-gates");
            act(() -> window.kept().in(file));
            act(() -> window.aside().settings());
            settle();
            act(() -> robot.lookup("#set-look").queryAs(ChoiceBox.class).setValue("dark"));
            act(() -> robot.lookup("#set-bench").queryAs(ChoiceBox.class).setValue("bench 7"));
            Path kept = folder.resolve("my sessions");
            type(robot, "set-folder", kept.toString());
            fire(robot, "set-folder-keep");
            Settings now = Settings.read(file);
            assertThat(Theme.isDark()).isTrue();
            assertThat(now.dark()).isTrue();
            assertThat(now.bench()).isEqualTo("bench 7");
            assertThat(Home.bench()).isEqualTo("bench 7");
            assertThat(Home.sessions()).isEqualTo(kept).isDirectory();
            Path blocked = Files.writeString(folder.resolve("a file"), "");
            type(robot, "set-folder", blocked.resolve("below").toString());
            fire(robot, "set-folder-keep");
            assertThat(text(robot, "watch-line")).contains("Sessions cannot be kept in");
            assertThat(Home.sessions()).isEqualTo(kept);
            act(() -> robot.lookup("#set-size").queryAs(ChoiceBox.class).setValue(120));
            settle();
            assertThat(Settings.read(file).textSize()).isEqualTo(120);
            act(() -> {
                stage.setX(40);
                stage.setWidth(1100);
                stage.hide();
            });
            assertThat(Settings.read(file).window().get(0)).isEqualTo(40.0);
            assertThat(Settings.read(file).window().get(2)).isEqualTo(1100.0);
            assertThat(Settings.read(file).bench()).as("nothing else is lost").isEqualTo("bench 7");
        } finally {
            System.clearProperty("needle.site");
        }
    }
}
