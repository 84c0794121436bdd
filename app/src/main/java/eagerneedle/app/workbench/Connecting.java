package eagerneedle.app.workbench;

import eagerneedle.core.sheet.Device;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.rig.driver.Drivers;
import eagerneedle.rig.driver.LineDriver;
import eagerneedle.rig.driver.TcpWire;
import eagerneedle.rig.simulated.LineStandIn;
import eagerneedle.rig.simulated.OneWorld;
import eagerneedle.rig.simulated.Rigs;
import java.io.IOException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;

/** Opens the instruments of a sheet: all that were asked for, or none. */
final class Connecting {
    private Connecting() {}

    /**
     * Opens instruments one after the other.
     *
     * @throws IOException with one sentence if one of them does not answer; those before it are let go
     */
    static List<Connection> all(Sheet sheet, Map<String, Way> ways, Map<String, Double> rates) throws IOException {
        OneWorld world = new OneWorld();
        List<Connection> all = new ArrayList<>();
        try {
            for (Map.Entry<String, Way> e : ways.entrySet()) {
                all.add(connection(
                        sheet, e.getKey(), e.getValue(), Objects.requireNonNull(rates.get(e.getKey())), world));
            }
        } catch (IOException | RuntimeException e) {
            all.forEach(Connection::close);
            throw e;
        }
        return all;
    }

    private static Connection connection(Sheet sheet, String device, Way way, double rate, OneWorld world)
            throws IOException {
        Device d = Objects.requireNonNull(sheet.devices().get(device));
        if (way instanceof Way.At at) {
            Map<String, String> units = new LinkedHashMap<>();
            sheet.channels().forEach((name, c) -> {
                if (device.equals(c.device())) {
                    units.put(c.inputOr(name), c.toChain().converter().input().symbol());
                }
            });
            return new Connection(sheet, device, Drivers.of(d, at.address(), units), null, rate, 1);
        }
        Way.Simulated s = (Way.Simulated) way;
        LineStandIn standIn = new LineStandIn(
                Rigs.of(sheet, device, LiveRig.BENCH_SEED, s.faults()),
                d.label().replaceAll(".*\\s", ""),
                d.label(),
                s.pace(),
                world);
        standIn.drift(Rigs.clock(sheet, device, LiveRig.BENCH_SEED));
        try {
            TcpWire wire = new TcpWire("127.0.0.1", standIn.port());
            return new Connection(
                    sheet,
                    device,
                    d.driver().equals("gate") ? LineDriver.gates(wire) : new LineDriver(wire),
                    standIn,
                    rate,
                    s.pace());
        } catch (IOException e) {
            standIn.close();
            throw e;
        }
    }

    /** What a sheet asks of its instruments; another sheet that asks the same can go on with them. */
    static Object asked(Sheet sheet) {
        Map<String, Object> channels = new LinkedHashMap<>();
        sheet.channels()
                .forEach((n, c) -> channels.put(
                        n, List.of(String.valueOf(c.device()), c.inputOr(n), c.rate(), c.unit(), c.chain())));
        Map<String, Object> captures = new LinkedHashMap<>();
        sheet.captures().forEach((n, c) -> captures.put(n, c.channels()));
        return List.of(sheet.devices(), channels, captures);
    }
}
