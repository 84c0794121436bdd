package eagerneedle.rig.driver;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import eagerneedle.core.sheet.Device;
import eagerneedle.core.sheet.Output;
import java.io.IOException;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class DriversTest {
    private static Device device(String driver) {
        return new Device(
                "device",
                driver,
                null,
                Map.of("voltage", "MEAS:VOLT?"),
                Map.of("supply", new Output(null, "V", 0, 5, 1, null, 0, 0, 0, "VOLT %s")),
                null);
    }

    @ParameterizedTest
    @CsvSource({
        "line, 127.0.0.1:5020, LineDriver",
        "gate, 127.0.0.1:5020, LineDriver",
        "line, /dev/ttyUSB7, LineDriver",
        "scpi, 10.0.0.2:5025, ScpiDriver",
        "file, log.csv, FileDriver",
        "manual, '', ManualDriver"
    })
    void aDeviceGetsTheDriverItsSheetNames(String driver, String address, String type) throws IOException {
        try (Driver d = Drivers.of(device(driver), address, Map.of("voltage", "V"))) {
            assertThat(d.getClass().getSimpleName()).isEqualTo(type);
            assertThat(d.state()).isEqualTo(Driver.State.CLOSED);
        }
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "somewhere",
                "",
                "host:",
                ":5020",
                "host:0",
                "host:99999",
                "host:port",
                "/dev/ttyUSB0,fast",
                "COM"
            })
    void whatIsNoAddressIsOneSentence(String address) {
        assertThatThrownBy(() -> Drivers.wire(address))
                .isInstanceOf(IOException.class)
                .hasMessageContaining("is not an address")
                .hasMessageContaining("for instance");
    }

    @Test
    void wiresSayTheirNames() throws IOException {
        assertThat(Drivers.wire(" lab-7:5020 ").name()).isEqualTo("lab-7:5020");
        assertThat(Drivers.wire("/dev/ttyACM0,9600").name()).isEqualTo("/dev/ttyACM0");
        assertThat(Drivers.wire("COM3").name()).isEqualTo("COM3");
        Wire closed = Drivers.wire("COM3");
        assertThatThrownBy(closed::in).isInstanceOf(IOException.class).hasMessageContaining("not connected");
        assertThatThrownBy(() -> Drivers.wire("/dev/no-such-port").open())
                .isInstanceOf(IOException.class)
                .hasMessageContaining("There is no serial port /dev/no-such-port");
    }

    @Test
    void aDriverThatIsNotOpenHasNothingToSet() throws IOException {
        try (Driver d = Drivers.of(device("line"), "127.0.0.1:1", Map.of())) {
            assertThatThrownBy(() -> d.setOutput("supply", 1))
                    .isInstanceOf(IOException.class)
                    .hasMessageContaining("not connected");
            assertThatThrownBy(d::open).isInstanceOf(IOException.class).hasMessageContaining("Nothing answers");
        }
        try (Driver d = Drivers.of(device("manual"), "", Map.of("mass", "g"))) {
            assertThatThrownBy(() -> d.setOutput("supply", 1)).hasMessageContaining("no output called supply");
            assertThatThrownBy(d::identify).hasMessageContaining("cannot show itself");
            assertThat(d.open().units()).containsExactly("g");
        }
    }
}
