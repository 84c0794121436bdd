package eagerneedle.rig.simulated;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.ConcurrentHashMap;

/** A stand-in for a meter with a supply that speaks SCPI on loopback: MEAS:VOLT? reads what VOLT sets, with noise. */
public final class ScpiStandIn implements AutoCloseable {
    /** What can go wrong. */
    public enum Misbehaviour { NONE, SILENCE, GARBAGE, HALF_LINES, WRONG_UNITS, MILLI, OVERLOAD }

    private static final double HIGHEST = 5;

    private final ServerSocket server;
    private final Thread thread;
    private final Random random;
    private final Map<String, Double> set = new ConcurrentHashMap<>();
    private volatile Misbehaviour misbehaviour = Misbehaviour.NONE;
    private volatile Socket client;
    private volatile boolean closed;
    private String error = "0,\"No error\"";

    public ScpiStandIn(long seed) throws IOException {
        random = new Random(seed);
        server = new ServerSocket(0, 1, InetAddress.getLoopbackAddress());
        thread = new Thread(this::accept, "scpi stand-in");
        thread.setDaemon(true);
        thread.start();
    }

    public int port() {
        return server.getLocalPort();
    }

    public void misbehave(Misbehaviour how) {
        misbehaviour = how;
    }

    public double volts() {
        return set.getOrDefault("VOLT", 0.0);
    }

    public void disconnect() throws IOException {
        Socket c = client;
        if (c != null) {
            c.close();
        }
    }

    private void accept() {
        while (!closed) {
            try (Socket c = server.accept()) {
                client = c;
                if (!closed) {
                    BufferedReader in = new BufferedReader(new InputStreamReader(c.getInputStream(), StandardCharsets.UTF_8));
                    for (String line = in.readLine(); line != null; line = in.readLine()) {
                        answer(line.strip().toUpperCase(Locale.ROOT), c.getOutputStream());
                    }
                }
            } catch (IOException e) {
                client = null;
            }
        }
    }

    private void answer(String command, OutputStream out) throws IOException {
        boolean complete = command.endsWith(";*OPC?");
        String reply = reply(complete ? command.substring(0, command.length() - 6) : command);
        if (reply == null || misbehaviour == Misbehaviour.SILENCE) {
            return;
        }
        boolean measured = command.startsWith("MEAS");
        String unit = command.startsWith("MEAS:VOLT") ? " mV" : " mA";
        String text = !measured ? reply : switch (misbehaviour) {
            case GARBAGE -> "%%??";
            case HALF_LINES -> reply.substring(0, 3) + "\n" + reply.substring(3);
            case WRONG_UNITS -> reply + " Hz";
            case MILLI -> String.format(Locale.ROOT, "%.6f", Double.parseDouble(reply) * 1e3) + unit;
            case OVERLOAD -> "9.9E37";
            default -> reply;
        };
        out.write((text + (complete ? ";1" : "") + "\n").getBytes(StandardCharsets.UTF_8));
        out.flush();
    }

    private String reply(String command) {
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
        closed = true;
        server.close();
        disconnect();
        try {
            thread.join(2000);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
