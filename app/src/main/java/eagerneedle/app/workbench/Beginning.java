package eagerneedle.app.workbench;

import eagerneedle.core.sheet.Device;
import eagerneedle.rig.driver.Driver;
import eagerneedle.rig.driver.Drivers;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;

/** What a session without a method begins with. */
public sealed interface Beginning {
    /** Files, or folders of files. */
    record Files(List<Path> paths) implements Beginning {}

    /**
     * An instrument that is on the table.
     *
     * @param driver how it is spoken to, as in a sheet
     * @param address where it is
     * @param query what it is asked for a reading, where it has to be asked
     */
    record Instrument(String driver, String address, String query) implements Beginning {
        Map<String, String> queries() {
            return driver.equals("scpi") ? Map.of("reading", query) : Map.of();
        }

        /**
         * Asks it who it is and what it sends; at most a few seconds.
         *
         * @throws IOException with one sentence when it does not answer
         */
        public Driver.Description who() throws IOException {
            if (address.isBlank()) {
                throw new IOException("Write where the instrument is: host:port, a serial port, or a file.");
            }
            if (driver.equals("scpi") && query.isBlank()) {
                throw new IOException("Write what the instrument is asked for a reading, for instance READ?");
            }
            Device d = new Device("instrument", driver, address, queries(), Map.of(), null);
            try (Driver heard = Drivers.of(d, address, driver.equals("scpi") ? Map.of("reading", "") : Map.of())) {
                return heard.open();
            }
        }

        /** The sheet with this instrument in it. */
        public String in(String text, Driver.Description who) {
            return OpenSheet.with(text, who, driver, address, queries()).text();
        }
    }

    /** Only a question. */
    record Question(String text) implements Beginning {}
}
