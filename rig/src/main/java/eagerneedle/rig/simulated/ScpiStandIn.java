package eagerneedle.rig.simulated;

import java.io.IOException;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;

/** A stand-in for a meter with a supply that speaks SCPI on loopback: MEAS:VOLT? reads what VOLT sets, with noise. */
public final class ScpiStandIn implements AutoCloseable {
    /** What can go wrong. */
    public enum Misbehaviour {
        NONE,
        SILENCE,
        GARBAGE,
        HALF_LINES,
        WRONG_UNITS,
        MILLI,
        OVERLOAD
    }

    private static final double HIGHEST = 5;

    private final Loopback port;
    private final Random random;
    private final Map<String, Double> set = new ConcurrentHashMap<>();
    private volatile Misbehaviour misbehaviour = Misbehaviour.NONE;
    private String error = "0,\"No error\"";

    public ScpiStandIn(long seed) throws IOException {
        random = new Random(seed);
        port = new Loopback("scpi stand-in", line -> answer(line.toUpperCase(Locale.ROOT)));
    }

    public int port() {
        return port.port();
    }

    public void misbehave(Misbehaviour how) {
        misbehaviour = how;
    }

    public double volts() {
        return set.getOrDefault("VOLT", 0.0);
    }

    public void disconnect() throws IOException {
        port.disconnect();
    }

    private void answer(String command) throws IOException {
        boolean complete = command.endsWith(";*OPC?");
        String reply = reply(complete ? command.substring(0, command.length() - 6) : command);
        if (reply == null || misbehaviour == Misbehaviour.SILENCE) {
            return;
        }
        boolean measured = command.startsWith("MEAS");
        String unit = command.startsWith("MEAS:VOLT") ? " mV" : " mA";
        String text = !measured
                ? reply
                : switch (misbehaviour) {
                    case GARBAGE -> "%%??";
                    case HALF_LINES -> reply.substring(0, 3) + "\n" + reply.substring(3);
                    case WRONG_UNITS -> reply + " Hz";
                    case MILLI -> String.format(Locale.ROOT, "%.6f", Double.parseDouble(reply) * 1e3) + unit;
                    case OVERLOAD -> "9.9E37";
                    default -> reply;
                };
        port.say(text + (complete ? ";1" : ""));
    }

    private @Nullable String reply(String command) {
        if (command.startsWith("VOLT ")) {
            double v = Double.parseDouble(command.substring(5).strip());
            if (v > HIGHEST) {
                error = "-222,\"Data out of range\"";
            } else {
                set.put("VOLT", v);
            }
            return null;
        }
        return switch (command) {
            case "*IDN?" -> "Tarn Hollow College,Bench meter with supply,TH-DM-05,simulated";
            case "*TST?" -> "0";
            case "*CLS" -> {
                error = "0,\"No error\"";
                yield null;
            }
            case "SYST:ERR?" -> error;
            case "MEAS:VOLT?" -> String.format(Locale.ROOT, "%+.6E", volts() + 2e-4 * random.nextGaussian());
            case "MEAS:CURR?" -> String.format(Locale.ROOT, "%+.6E", volts() / 99.83 + 1e-6 * random.nextGaussian());
            default -> {
                error = "-113,\"Undefined header\"";
                yield null;
            }
        };
    }

    @Override
    public void close() throws IOException {
        port.close();
    }
}
