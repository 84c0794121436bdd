package eagerneedle.rig.simulated;

import java.io.BufferedReader;
import java.io.BufferedWriter;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.OutputStreamWriter;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.concurrent.locks.LockSupport;

/**
 * A stand-in instrument: serves a rig model over the line protocol on loopback, in real time or faster, and misbehaves on
 * request the way instruments do.
 */
public final class LineStandIn implements AutoCloseable {
    /** What can go wrong on the wire. */
    public enum Misbehaviour { NONE, SILENCE, GARBAGE, HALF_LINES, CLOCK_BACK }

    private final RigModel rig;
    private final String id;
    private final String label;
    private final double pace;
    private final ServerSocket server;
    private volatile Misbehaviour misbehaviour = Misbehaviour.NONE;
    private final Thread accepting;
    private volatile boolean closed;
    private volatile Socket client;
    private volatile boolean running;
    private volatile double rate = 50;
    private double clock;

    /**
     * Starts listening on a free loopback port.
     *
     * @param pace 1 for real time, 10 for ten times as fast
     */
    public LineStandIn(RigModel rig, String id, String label, double pace) throws IOException {
        this.rig = rig;
        this.id = id;
        this.label = label;
        this.pace = pace;
        this.server = new ServerSocket(0, 1, InetAddress.getLoopbackAddress());
        accepting = thread("accept", this::accept);
        thread("samples", this::pump);
    }

    private Thread thread(String what, Runnable body) {
        Thread t = new Thread(body, "stand-in " + id + " " + what);
        t.setDaemon(true);
        t.start();
        return t;
    }

    public int port() {
        return server.getLocalPort();
    }

    public void misbehave(Misbehaviour how) {
        misbehaviour = how;
    }

    /** Drops the connection, as a pulled lead does; it can be made again. */
    public void disconnect() throws IOException {
        Socket c = client;
        if (c != null) {
            c.close();
        }
    }

    private void accept() {
        while (!closed) {
            try {
                Socket c = server.accept();
                c.setTcpNoDelay(true);
                client = c;
                if (closed) {
                    c.close();
                    return;
                }
                serve(c);
            } catch (IOException e) {
                client = null;
            }
        }
    }

    private void serve(Socket c) throws IOException {
        BufferedReader in = new BufferedReader(new InputStreamReader(c.getInputStream(), StandardCharsets.UTF_8));
        for (String line = in.readLine(); line != null; line = in.readLine()) {
            String[] words = line.strip().split("\\s+");
            synchronized (this) {
                switch (words[0]) {
                    case "describe" -> send("= " + id + ";" + label + ";" + String.join(",", rig.channels()) + ";simulated");
                    case "rate" -> rate = Math.max(0.1, Double.parseDouble(words[1]));
                    case "start" -> {
                        clock = 0;
                        rig.begin();
                        running = true;
                    }
                    case "resume" -> running = true;
                    case "stop" -> running = false;
                    case "rig" -> rig.arrange(state(words));
                    default -> send("# not understood: " + words[0]);
                }
            }
        }
    }

    private static Map<String, String> state(String[] words) {
        Map<String, String> state = new LinkedHashMap<>();
        for (int i = 1; i < words.length; i++) {
            int eq = words[i].indexOf('=');
            if (eq > 0) {
                state.put(words[i].substring(0, eq), words[i].substring(eq + 1));
            }
        }
        return state;
    }

    private void pump() {
        long next = System.nanoTime();
        while (!closed) {
            long period = (long) (1e9 / rate / pace);
            next = Math.max(next + period, System.nanoTime() - 20 * period);
            LockSupport.parkNanos(Math.max(0, next - System.nanoTime()));
            if (running) {
                synchronized (this) {
                    sample();
                }
            }
        }
    }

    private void sample() {
        double[] counts = rig.read();
        StringBuilder line = new StringBuilder(":").append(Math.round(clock * 1e6));
        for (double c : counts) {
            line.append(',').append((long) c);
        }
        rig.advance(1 / rate);
        clock += 1 / rate;
        try {
            switch (misbehaviour) {
                case SILENCE -> { }
                case GARBAGE -> send("~" + Long.toHexString(Double.doubleToLongBits(clock)) + "\u0007,,x");
                case HALF_LINES -> send(line.substring(0, line.length() / 2) + "\n" + line.substring(line.length() / 2));
                case CLOCK_BACK -> {
                    clock -= 5;
                    misbehaviour = Misbehaviour.NONE;
                    send(line.toString());
                }
                default -> send(line.toString());
            }
        } catch (IOException e) {
            client = null;
        }
    }

    private void send(String line) throws IOException {
        Socket c = client;
        if (c == null || c.isClosed()) {
            return;
        }
        BufferedWriter out = new BufferedWriter(new OutputStreamWriter(c.getOutputStream(), StandardCharsets.UTF_8));
        out.write(line + "\n");
        out.flush();
    }

    /**
     * Stops listening and drops the connection. A thread blocked in accept keeps the port open until it wakes, and could
     * still take a caller; so this waits for it, and afterwards nobody answers at the port.
     */
    @Override
    public void close() throws IOException {
        closed = true;
        running = false;
        server.close();
        disconnect();
        try {
            accepting.join(2000);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
