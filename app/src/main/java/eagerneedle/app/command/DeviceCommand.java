package eagerneedle.app.command;

import eagerneedle.core.quantity.Notation;
import eagerneedle.core.sheet.Device;
import eagerneedle.rig.driver.Driver;
import eagerneedle.rig.driver.Drivers;
import java.io.IOException;
import java.io.PrintWriter;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(
        name = "device",
        description = "Connects to an instrument, says what it hears, and proposes the lines of a sheet for it.")
final class DeviceCommand implements Callable<Integer> {
    @Parameters(
            paramLabel = "ADDRESS",
            description =
                    "host:port, a serial port, a file, or a sound input by part of its name (default for the usual one)")
    private String address;

    @Option(names = "--driver", description = "line (when not said), gate, scpi, file or sound", defaultValue = "line")
    private String driver;

    @Option(names = "--seconds", description = "how long it is listened to (2)", defaultValue = "2")
    private double seconds;

    @Option(names = "--rate", description = "samples a second (10)", defaultValue = "10")
    private double rate;

    @Option(names = "--query", description = "scpi: name=query of a channel; may be given several times")
    private Map<String, String> queries = new LinkedHashMap<>();

    @Spec
    private CommandSpec spec;

    /** What came of each channel. */
    private static final class Heard implements Driver.Sink {
        private final List<double[]> columns = new ArrayList<>();
        private final List<String> said = new ArrayList<>();
        private long n;
        private double last;

        @Override
        public synchronized void block(Driver.Block block) {
            for (int c = 0; c < block.counts().length; c++) {
                if (columns.size() <= c) {
                    columns.add(new double[] {Double.POSITIVE_INFINITY, 0, Double.NEGATIVE_INFINITY});
                }
                for (double v : block.counts()[c]) {
                    double[] s = columns.get(c);
                    s[0] = Math.min(s[0], v);
                    s[1] += v;
                    s[2] = Math.max(s[2], v);
                }
            }
            n += block.size();
            last = block.size() == 0 ? last : block.time()[block.size() - 1];
        }

        /** What came, in words. */
        synchronized List<String> lines(Driver.Description who, double seconds, boolean gate, long unreadable) {
            List<String> out = new ArrayList<>();
            String span = Notation.plain(seconds, 3) + " s";
            if (n == 0) {
                out.add("It sent nothing in " + span + (gate ? "; a gate sends only when something passes." : "."));
            } else {
                out.add(n + " samples in " + span + " by this clock, " + String.format(Locale.ROOT, "%.4g s", last)
                        + " by its own"
                        + (unreadable == 0 ? "." : "; " + unreadable + " lines could not be understood."));
            }
            for (int c = 0; c < columns.size(); c++) {
                double[] s = columns.get(c);
                out.add("  " + who.channels().get(c) + ": " + Notation.plain(s[0], 6) + " to "
                        + Notation.plain(s[2], 6) + ", mean " + Notation.plain(s[1] / n, 6) + " "
                        + who.units().get(c));
            }
            out.addAll(said);
            return out;
        }

        @Override
        public synchronized void state(Driver.State state, String sentence) {
            said.add(sentence);
        }
    }

    @Override
    public Integer call() throws Exception {
        if (!List.of("line", "gate", "scpi", "file", "sound").contains(driver)) {
            throw new IllegalArgumentException(
                    "There is no driver " + driver + " to listen with; there are line, gate, scpi, file and sound.");
        }
        if (!(seconds > 0 && seconds <= 60) || !(rate > 0)) {
            throw new IllegalArgumentException("It is listened to for up to 60 s, at a rate above zero.");
        }
        PrintWriter out = spec.commandLine().getOut();
        Device device = new Device("instrument", driver, address, queries, Map.of(), null);
        Driver d;
        Driver.Description who;
        try {
            d = Drivers.of(device, address, Map.of());
            who = d.open();
        } catch (IOException e) {
            throw new IllegalArgumentException(e.getMessage(), e);
        }
        try (d) {
            Heard heard = new Heard();
            boolean reads = !who.channels().isEmpty();
            if (reads) {
                d.configure(rate);
                d.start(heard);
                Thread.sleep(Math.round(seconds * 1000));
                d.stop();
            }
            say(out, who, heard, d.unreadable());
            sheet(out, who);
            return NeedleCommand.GOOD;
        } catch (IOException e) {
            throw new IllegalArgumentException(e.getMessage(), e);
        }
    }

    private void say(PrintWriter out, Driver.Description who, Heard heard, long unreadable) {
        out.println("# " + who.label() + " " + who.id() + " answers at " + address
                + (who.simulated() ? ", simulated" : "") + ".");
        if (who.channels().isEmpty()) {
            out.println("# It names no channels; say --query name=QUERY for each that it is asked for.");
            return;
        }
        heard.lines(who, seconds, driver.equals("gate"), unreadable).forEach(l -> out.println("# " + l));
    }

    /** The lines of a sheet, as far as the instrument tells what it is. */
    private void sheet(PrintWriter out, Driver.Description who) {
        String key = name(who.id());
        out.println("devices:");
        StringBuilder line = new StringBuilder("  " + key + ": {label: " + quoted(who.label() + " " + who.id())
                + ", driver: " + driver + ", address: " + quoted(address));
        if (!queries.isEmpty()) {
            line.append(", queries: {");
            List<String> all = new ArrayList<>();
            queries.forEach((n, q) -> all.add(n + ": " + quoted(q)));
            line.append(String.join(", ", all)).append('}');
        }
        out.println(line.append('}'));
        if (who.channels().isEmpty()) {
            return;
        }
        out.println("channels:");
        for (int c = 0; c < who.channels().size(); c++) {
            String own = who.channels().get(c);
            boolean counts = who.units().get(c).equals(Driver.Description.COUNTS);
            String unit = counts ? "" : who.units().get(c);
            String link = driver.equals("gate")
                    ? "{kind: converter, label: light gate, from: \"\", bits: 1}"
                    : driver.equals("sound")
                            ? "{kind: converter, label: sound input, from: \"\", bits: 16, coding: signed, range: [-1, 1]}"
                            : counts
                                    ? "{kind: converter, label: converter, from: V, bits: 12, range: [0, 5]}"
                                    : "{kind: converter, label: " + quoted(own) + ", from: " + quoted(unit)
                                            + ", bits: 32, " + "coding: signed, step: 0.001}";
            String measured = counts && !driver.equals("gate") && !driver.equals("sound") ? "V" : unit;
            out.println("  " + name(own) + ": {label: " + quoted(own) + ", unit: " + quoted(measured) + ", device: "
                    + key + ", input: " + quoted(own) + ", rate: " + Notation.plain(rate, 6) + ", chain: [" + link
                    + "]}");
        }
        out.println("# To be put right: "
                + (driver.equals("sound")
                        ? "what full scale is in volts, by a calibration."
                        : "bits and range or step of each converter, and what stands before it in the chain."));
    }

    private static String name(String text) {
        String n = text.strip()
                .toLowerCase(Locale.ROOT)
                .replaceAll("[^a-z0-9]+", "_")
                .replaceAll("^_+|_+$", "");
        return n.isEmpty() || !Character.isLetter(n.charAt(0)) ? "d_" + n : n;
    }

    private static String quoted(String text) {
        return "\"" + text.replace("\\", "\\\\").replace("\"", "\\\"") + "\"";
    }
}
