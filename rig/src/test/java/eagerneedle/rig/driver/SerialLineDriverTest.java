package eagerneedle.rig.driver;

import eagerneedle.rig.simulated.LineStandIn;
import eagerneedle.rig.simulated.Rigs;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Set;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledOnOs;
import org.junit.jupiter.api.condition.OS;

/**
 * The same driver and the same faults over a serial port, here a pseudo-terminal. Pulling the plug makes the port
 * vanish.
 */
@EnabledOnOs({OS.LINUX, OS.MAC})
class SerialLineDriverTest extends LineDriverTest {
    private Path plug;
    private Path folder;

    @Override
    @BeforeEach
    void open() throws IOException {
        folder = Files.createTempDirectory("plug");
        plug = folder.resolve("ttyBench");
        plugIn();
        wire = new ListenedWire(new SerialWire(plug.toString(), 115200));
        driver = new LineDriver(wire);
    }

    private void plugIn() throws IOException {
        standIn = LineStandIn.serial(
                Rigs.shipped("baggage-chute", 3, Set.of()), "TH-UR-07", "Ultrasonic ranger TH-UR-07", 4);
        Files.deleteIfExists(plug);
        Files.createSymbolicLink(plug, Path.of(standIn.serialPort()));
    }

    /** The instrument loses its power with its plug, comes back at the same name, and goes on with its work. */
    @Override
    protected void pull() throws IOException {
        LineStandIn before = standIn;
        before.close();
        plugIn();
    }

    @Override
    @AfterEach
    void close() throws IOException {
        super.close();
        Files.deleteIfExists(plug);
        Files.deleteIfExists(folder);
    }

    @Override
    @Test
    void nobodyThereIsOneSentence() throws IOException {
        standIn.close();
        Files.deleteIfExists(plug);
        LineDriver nobody = new LineDriver(new SerialWire(plug.toString(), 9600));
        org.assertj.core.api.Assertions.assertThatThrownBy(nobody::open)
                .isInstanceOf(IOException.class)
                .hasMessageContaining("There is no serial port");
        nobody.close();
    }
}
