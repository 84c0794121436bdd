package eagerneedle.rig.driver;

import eagerneedle.core.sheet.Device;
import java.io.IOException;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/** The driver for a device of a sheet at an address. */
public final class Drivers {
    private static final int BAUD = 115200;

    private Drivers() {}

    /**
     * A driver, not yet open.
     *
     * @param device as the sheet describes it
     * @param address host:port; or a serial port such as /dev/ttyUSB0 or COM3, with ",9600" for another speed; or a
     *     file; or part of the name of a sound input, nothing for the usual one, or a recorded sound
     * @param units unit of each channel by the instrument's name for it
     * @throws IOException with one sentence when the address makes no sense
     */
    public static Driver of(Device device, String address, Map<String, String> units) throws IOException {
        return switch (device.driver()) {
            case "scpi" -> {
                Map<String, String> commands = new LinkedHashMap<>();
                Map<String, Double> safe = new LinkedHashMap<>();
                device.outputs().forEach((name, o) -> {
                    commands.put(name, o.command() == null ? name + " %s" : o.command());
                    safe.put(name, o.safe());
                });
                yield new ScpiDriver(wire(address), device.queries(), units, commands, safe);
            }
            case "gate" -> LineDriver.gates(wire(address));
            case "file" -> new FileDriver(Path.of(address.strip()));
            case "sound" -> new SoundDriver(sound(address), List.copyOf(units.keySet()));
            case "manual" ->
                new ManualDriver(
                        device.label(), List.copyOf(units.keySet()), List.copyOf(units.values()), System::nanoTime);
            default -> new LineDriver(wire(address));
        };
    }

    private static SoundInput sound(String address) {
        boolean recorded = address.strip().toLowerCase(Locale.ROOT).endsWith(".wav");
        return recorded ? new SoundFile(Path.of(address.strip())) : new SoundCard(address);
    }

    /** A wire to an address. */
    public static Wire wire(String address) throws IOException {
        String a = address.strip();
        boolean serial = a.startsWith("/dev/") || a.toUpperCase(Locale.ROOT).matches("COM\\d+(,.*)?");
        int comma = a.indexOf(',');
        int colon = a.lastIndexOf(':');
        try {
            if (serial) {
                return new SerialWire(
                        comma < 0 ? a : a.substring(0, comma),
                        comma < 0
                                ? BAUD
                                : Integer.parseInt(a.substring(comma + 1).strip()));
            }
            int port = Integer.parseInt(a.substring(colon + 1));
            if (colon > 0 && port > 0 && port < 65536) {
                return new TcpWire(a.substring(0, colon), port);
            }
        } catch (NumberFormatException e) {
            // Said below.
        }
        throw new IOException("'" + a
                + "' is not an address; write host:port, for instance 192.168.0.12:5020, or a serial "
                + "port, for instance /dev/ttyUSB0.");
    }
}
