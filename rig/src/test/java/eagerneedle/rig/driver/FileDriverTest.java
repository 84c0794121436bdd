package eagerneedle.rig.driver;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;

@Timeout(40)
class FileDriverTest {
    @TempDir
    private Path folder;

    private final Recorder heard = new Recorder();
    private Path file;
    private FileDriver driver;

    @BeforeEach
    void open() throws IOException {
        file = folder.resolve("log.csv");
        driver = new FileDriver(file);
        Files.writeString(file, "time (s),air (°C),bath (°C)\n0,21.0,0.1\n");
    }

    @AfterEach
    void close() {
        driver.close();
        Recorder.noThreadIsLeft("file driver");
    }

    private void write(String text) throws IOException {
        Files.writeString(file, text, StandardOpenOption.CREATE, StandardOpenOption.APPEND);
    }

    private void running() throws IOException {
        driver.open();
        driver.start(heard);
        write("1,21.5,0.1\n2,22.0,0.1\n");
        Recorder.await(() -> heard.rows.size() == 2);
    }

    @Test
    void whatIsWrittenAfterTheStartComes() throws IOException {
        Driver.Description d = driver.open();
        assertThat(d.channels()).containsExactly("air", "bath");
        assertThat(d.units()).containsExactly("°C", "°C");
        driver.start(heard);
        write("10,21.5,0.1\n11,22.0,0.2\n");
        Recorder.await(() -> heard.rows.size() == 2);
        assertThat(heard.rows.get(1)).containsExactly(1, 22.0, 0.2);
    }

    @Test
    void halfALineIsWaitedFor() throws Exception {
        running();
        AtomicInteger looks = new AtomicInteger();
        driver.timedBy(() -> {
            looks.incrementAndGet();
            return System.nanoTime();
        });
        Recorder.await(() -> looks.get() > 0);
        write("3,23.");
        int before = looks.get();
        Recorder.await(() -> looks.get() > before + 2);
        assertThat(heard.rows).hasSize(2);
        write("75,0.3\n");
        Recorder.await(() -> heard.rows.size() == 3);
        assertThat(heard.rows.get(2)).containsExactly(2, 23.75, 0.3);
        assertThat(driver.unreadable()).isZero();
    }

    @Test
    void garbageAndAClockThatGoesBackAreCounted() throws IOException {
        running();
        write("%%%%\n4,NaN,1\n4,24.0\n1,20,0\n5,25.0,0.1\n");
        Recorder.await(() -> heard.rows.size() == 3);
        assertThat(driver.unreadable()).isEqualTo(4);
        heard.timesRise();
    }

    @Test
    void otherUnitsAreRefusedUntilTheOldOnesAreBack() throws IOException {
        running();
        write("time (s),air (K),bath (K)\n6,295,273\n");
        Recorder.await(() -> !heard.sentences.isEmpty());
        assertThat(driver.state()).isEqualTo(Driver.State.REFUSED);
        assertThat(heard.sentences.get(0)).contains("nothing of that is kept");
        write("time (s),air (°C),bath (°C)\n7,22,0\n");
        Recorder.await(() -> heard.rows.size() == 3);
        assertThat(heard.rows).noneMatch(r -> r[1] > 200);
    }

    @Test
    void aFileThatGoesAwayIsWaitedForAndReadAnew() throws IOException {
        running();
        Files.delete(file);
        Recorder.await(() -> driver.state() == Driver.State.LOST);
        write("8,23,0\n");
        Recorder.await(() -> heard.rows.size() == 3);
        assertThat(heard.states).containsExactly(Driver.State.LOST, Driver.State.RUNNING);
    }

    @Test
    void aFileThatDoesNotGrowIsSilent() throws IOException {
        running();
        Recorder.await(() -> !heard.sentences.isEmpty());
        assertThat(driver.state()).isEqualTo(Driver.State.SILENT);
        assertThat(heard.sentences.get(0)).contains("does not grow");
        write("9,23,0\n");
        Recorder.await(() -> heard.rows.size() == 3);
        assertThat(driver.state()).isEqualTo(Driver.State.RUNNING);
    }

    @Test
    void semicolonsWithDecimalCommasAndTabsAreRead() throws IOException {
        Files.writeString(file, "Zeit [s];Druck [bar]\n");
        driver.open();
        driver.start(heard);
        write("0,5;1,25\n1,0;1,50\n");
        Recorder.await(() -> heard.rows.size() == 2);
        assertThat(heard.rows.get(1)).containsExactly(0.5, 1.5);
    }

    @Test
    void whatIsNoSuchFileIsOneSentence() throws IOException {
        assertThatThrownBy(() -> new FileDriver(folder.resolve("none.csv")).open())
                .isInstanceOf(IOException.class)
                .hasMessageContaining("There is no file none.csv yet");
        Files.writeString(file, "hello\n");
        assertThatThrownBy(() -> driver.open()).hasMessageContaining("at least one more column");
    }

    @Test
    void readingsByHandComeOneByOne() throws IOException {
        long[] clock = {0};
        Recorder typed = new Recorder();
        try (ManualDriver hand =
                new ManualDriver("display", List.of("mass"), List.of("g"), () -> clock[0] += 1_000_000_000L)) {
            hand.open();
            assertThatThrownBy(() -> hand.enter(1)).hasMessageContaining("No run is open");
            hand.start(typed);
            hand.enter(12.5);
            hand.enter(12.7);
            assertThatThrownBy(() -> hand.enter(1, 2)).hasMessageContaining("One reading of each");
            assertThatThrownBy(() -> hand.enter(Double.NaN)).hasMessageContaining("not a number");
            assertThat(typed.rows).hasSize(2);
            assertThat(typed.rows.get(0)).as("time from the start of the run").containsExactly(1, 12.5);
            assertThat(typed.rows.get(1)).containsExactly(2, 12.7);
        }
    }
}
