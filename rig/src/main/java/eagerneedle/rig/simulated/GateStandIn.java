package eagerneedle.rig.simulated;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;

/**
 * A stand-in for a gate timer on loopback: a wheel of ten spokes turns before two gates, and each edge is one line with its
 * time in microseconds (32 bits, going round) and the state of both gates after it.
 */
public final class GateStandIn implements AutoCloseable {
    /** What can go wrong. */
    public enum Misbehaviour { NONE, SILENCE, GARBAGE, HALF_LINES, CLOCK_BACK, WRONG_UNITS }

    private static final long WRAP = 1L << 32;
    private static final int EDGE_MS = 8;

    private final ServerSocket server;
    private final Thread serving;
    private final Thread turning;
    private volatile Misbehaviour misbehaviour = Misbehaviour.NONE;
    private volatile Socket client;
    private volatile OutputStream out;
    private volatile boolean running;
    private volatile boolean closed;
    private long micros;

    /** @param micros what its clock shows at first */
    public GateStandIn(long micros) throws IOException {
        this.micros = micros;
        server = new ServerSocket(0, 1, InetAddress.getLoopbackAddress());
        serving = start("gate stand-in", this::serve);
        turning = start("gate stand-in wheel", this::turn);
    }

    private static Thread start(String name, Runnable body) {
        Thread t = new Thread(body, name);
        t.setDaemon(true);
        t.start();
        return t;
    }

    public int port() {
        return server.getLocalPort();
    }

    public void misbehave(Misbehaviour how) throws IOException {
        misbehaviour = how;
        if (how == Misbehaviour.WRONG_UNITS) {
            describe();
        }
    }

    public void disconnect() throws IOException {
        Socket c = client;
        if (c != null) {
            c.close();
        }
    }

    private void serve() {
        while (!closed) {
            try (Socket c = server.accept()) {
                client = c;
                out = c.getOutputStream();
                BufferedReader in = new BufferedReader(new InputStreamReader(c.getInputStream(), StandardCharsets.UTF_8));
                for (String line = closed ? null : in.readLine(); line != null; line = in.readLine()) {
                    switch (line.strip().split(" ")[0]) {
                        case "describe" -> describe();
                        case "start", "resume" -> running = true;
                        case "stop" -> running = false;
                        default -> { }
                    }
                }
            } catch (IOException e) {
                client = null;
            }
        }
    }

    private void describe() throws IOException {
        send("= TH-GT-01;Gate timer TH-GT-01;" + (misbehaviour == Misbehaviour.WRONG_UNITS ? "first[ms],second[ms]" : "first,second") + ";simulated");
    }

    private void turn() {
        for (int edge = 0; !closed; edge++) {
            try {
                Thread.sleep(EDGE_MS);
                micros = (micros + EDGE_MS * 1000L) % WRAP;
                if (running) {
                    String line = ":" + micros + "," + edge % 2 + "," + edge / 2 % 2;
                    switch (misbehaviour) {
                        case SILENCE -> { }
                        case GARBAGE -> send("?" + edge);
                        case HALF_LINES -> send(line.substring(0, 4) + "\n" + line.substring(4));
                        case CLOCK_BACK -> {
                            micros = Math.max(0, micros - 300_000);
                            misbehaviour = Misbehaviour.NONE;
                        }
                        default -> send(line);
                    }
                }
            } catch (IOException e) {
                client = null;
            } catch (InterruptedException e) {
                return;
            }
        }
    }

    private synchronized void send(String line) throws IOException {
        OutputStream to = out;
        Socket c = client;
        if (to != null && c != null && !c.isClosed()) {
            to.write((line + "\n").getBytes(StandardCharsets.UTF_8));
        }
    }

    @Override
    public void close() throws IOException {
        closed = true;
        server.close();
        disconnect();
        try {
            serving.join(2000);
            turning.join(2000);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
