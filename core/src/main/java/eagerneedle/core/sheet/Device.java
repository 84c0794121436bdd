package eagerneedle.core.sheet;

import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * An instrument with an output.
 *
 * @param driver line, scpi, gate, file, sound or manual
 * @param address where it usually is: host:port, a serial port, a file
 * @param queries scpi: the query that reads each channel
 * @param outputs what it can set, by name
 * @param rig its simulated stand-in, null if there is none
 */
public record Device(
        String label,
        String driver,
        @Nullable String address,
        Map<String, String> queries,
        Map<String, Output> outputs,
        @Nullable String rig) {
    public Device {
        queries = Sheet.orEmpty(queries);
        outputs = Sheet.orEmpty(outputs);
    }
}
