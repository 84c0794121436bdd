package eagerneedle.app.window;

import static eagerneedle.app.OnScreen.act;
import static eagerneedle.app.OnScreen.settle;
import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.app.station.Station;
import eagerneedle.app.workbench.ProgramLog;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import javafx.application.Platform;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.stage.Stage;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/** An error of the program itself: said, kept, sent without data, and survived. */
class TroubleTest extends BenchWindow {
    @Start
    void start(Stage newStage) throws Exception {
        prepare(newStage);
    }

    @TempDir
    Path home;

    private final Thread.UncaughtExceptionHandler before = Thread.getDefaultUncaughtExceptionHandler();

    @BeforeEach
    void watch(FxRobot robot) throws Exception {
        System.setProperty("needle.home", home.toString());
        ProgramLog.begin();
        openRehearsed(robot, "baggage-chute");
        act(window.trouble()::watch);
    }

    @AfterEach
    void leave(FxRobot robot) {
        System.clearProperty("needle.home");
        Thread.setDefaultUncaughtExceptionHandler(before);
        act(() -> Thread.currentThread().setUncaughtExceptionHandler(before));
    }

    private static Map<String, String> entries(Path zip) throws IOException {
        Map<String, String> out = new LinkedHashMap<>();
        try (ZipFile z = new ZipFile(zip.toFile())) {
            for (ZipEntry e : (Iterable<ZipEntry>) z.stream().map(ZipEntry.class::cast)::iterator) {
                out.put(e.getName(), new String(z.getInputStream(e).readAllBytes(), StandardCharsets.ISO_8859_1));
            }
        }
        return out;
    }

    @Test
    void anErrorIsSaidKeptAndSurvived(FxRobot robot) throws Exception {
        Platform.runLater(() -> {
            throw new IllegalStateException("broken on purpose\nwith a second line");
        });
        settle();
        Label says = robot.lookup("#trouble-says").queryAs(Label.class);
        assertThat(says.getText())
                .contains("(broken on purpose)")
                .contains("kept in " + window.bench().file().path().getFileName())
                .doesNotContain("second line")
                .doesNotContain("IllegalStateException");
        assertThat(window.trouble().isVisible()).isTrue();
        Thread other = new Thread(() -> {
            throw new IllegalArgumentException("again");
        });
        other.start();
        other.join();
        settle();
        assertThat(says.getText()).contains("(broken on purpose)").contains("first of 2");

        Path plain = home.resolve("plain.zip");
        act(() -> window.trouble().save(plain));
        Map<String, String> without = entries(plain);
        assertThat(without).containsOnlyKeys("error.txt", "log.txt");
        assertThat(without.get("error.txt")).contains("IllegalStateException").contains("TroubleTest");
        assertThat(without.get("log.txt")).contains("Uncaught in").contains("broken on purpose");
        String title = window.bench().sheet().title();
        assertThat(String.join("", without.values())).doesNotContain(title);

        Path whole = home.resolve("whole.zip");
        act(() -> robot.lookup("#trouble-data").queryAs(CheckBox.class).setSelected(true));
        act(() -> window.trouble().save(whole));
        Path session = home.resolve("sent.needle");
        Files.write(session, entries(whole).get("session.needle").getBytes(StandardCharsets.ISO_8859_1));
        try (eagerneedle.store.bench.BenchFile sent = eagerneedle.store.bench.BenchFile.open(session)) {
            assertThat(sent.session()).isEqualTo(window.bench().session());
        }

        act(() -> window.go(Station.JUDGE));
        act(() -> robot.lookup("#trouble-close").queryButton().fire());
        assertThat(window.trouble().isVisible()).isFalse();
    }
}
