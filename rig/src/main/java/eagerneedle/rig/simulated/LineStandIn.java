package eagerneedle.rig.simulated;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Objects;
import java.util.Queue;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.locks.LockSupport;
import org.jspecify.annotations.Nullable;

/**
 * A stand-in instrument: serves a rig model over the line protocol, on loopback or on a pseudo-terminal, in real time
 * or faster, and misbehaves on request the way instruments do. Its outputs have a limit of their own and a watchdog:
 * they go to 0 when the connection drops or nothing is heard for {@value #WATCHDOG_MS} ms.
 */
public final class LineStandIn implements AutoCloseable {
    private static final int WATCHDOG_MS = 1500;
    private static final double FINE = 1000;
    /** How long it sleeps while nobody wants samples, ns. */
    private static final long IDLE = 100_000_000L;

    private static final int REFLECTED = 11;
    /** How long a beam that is dark flashes, s. */
    private static final double REFLECTION = 5e-4;
    /** Samples that may be late before they are missing. */
    private static final double HELD_UP = 10;

    private final SimulatedRig rig;
    private final String id;
    private final String label;
    private final double pace;
    private final Map<String, Double> outputs = new ConcurrentHashMap<>();
    private final Map<String, Double> limits = new ConcurrentHashMap<>();
    private volatile @Nullable ServerSocket server;
    private volatile @Nullable PseudoTerminal terminal;
    private volatile Misbehaviour misbehaviour = Misbehaviour.NONE;
    private final Thread accepting;
    private final Thread pumping;
    private volatile boolean closed;
    private volatile @Nullable Socket client;
    private volatile @Nullable OutputStream out;
    private volatile boolean running;
    private volatile double rate = 50;
    private volatile long heard;
    private volatile int identified;
    private final Queue<Map<String, String>> felt = new ConcurrentLinkedQueue<>();
    private final OneWorld world;
    private volatile double drift;
    private double clock;
    private boolean fresh;
    private double jumped;
    private int sent;
    private long begun;

    /**
     * Starts listening on a free loopback port.
     *
     * @param pace 1 for real time, 10 for ten times as fast
     */
    public LineStandIn(SimulatedRig rig, String id, String label, double pace) throws IOException {
        this(rig, id, label, pace, new OneWorld());
    }

    /**
     * The same beside others.
     *
     * @param world shared by the stand-ins of one bench
     */
    public LineStandIn(SimulatedRig rig, String id, String label, double pace, OneWorld world) throws IOException {
        this(rig, id, label, pace, world, new ServerSocket(0, 1, InetAddress.getLoopbackAddress()), null);
    }

    private LineStandIn(
            SimulatedRig rig,
            String id,
            String label,
            double pace,
            OneWorld world,
            @Nullable ServerSocket server,
            @Nullable PseudoTerminal terminal) {
        this.rig = rig;
        this.id = id;
        this.label = label;
        this.pace = pace;
        this.world = world;
        world.joined(felt::add);
        this.server = server;
        this.terminal = terminal;
        accepting = thread("accept", terminal == null ? this::accept : () -> serve(terminal.in(), terminal.out()));
        pumping = thread("samples", this::pump);
    }

    /** Plugs in at a pseudo-terminal: {@link #serialPort()} is where a driver finds it. */
    public static LineStandIn serial(SimulatedRig rig, String id, String label, double pace) throws IOException {
        return serial(rig, id, label, pace, new OneWorld());
    }

    /** The same beside others. */
    public static LineStandIn serial(SimulatedRig rig, String id, String label, double pace, OneWorld world)
            throws IOException {
        return new LineStandIn(rig, id, label, pace, world, null, new PseudoTerminal());
    }

    private Thread thread(String what, Runnable body) {
        Thread t = new Thread(body, "stand-in " + id + " " + what);
        t.setDaemon(true);
        t.start();
        return t;
    }

    public int port() {
        return Objects.requireNonNull(server).getLocalPort();
    }

    public String serialPort() {
        return Objects.requireNonNull(terminal).port();
    }

    public void misbehave(Misbehaviour how) {
        misbehaviour = how;
        if (how == Misbehaviour.WRONG_UNITS) {
            try {
                describe();
            } catch (IOException e) {
                client = null;
            }
        }
    }

    /** What an output is at; 0 when it was never set. */
    public double output(String name) {
        return outputs.getOrDefault(name, 0.0);
    }

    /** Refuses an output above a limit, as an instrument's own protection does. */
    public void limit(String name, double highest) {
        limits.put(name, highest);
    }

    /** Lets its clock run too fast: 50e-6 for 50 ppm. */
    public void drift(double rate) {
        drift = rate;
    }

    /** How often it was asked to show itself. */
    public int identified() {
        return identified;
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
                Socket c = Objects.requireNonNull(server).accept();
                c.setTcpNoDelay(true);
                client = c;
                if (closed) {
                    c.close();
                    return;
                }
                serve(c.getInputStream(), c.getOutputStream());
            } catch (IOException e) {
                client = null;
            }
        }
    }

    private void serve(InputStream from, OutputStream to) {
        out = to;
        try (BufferedReader in = new BufferedReader(new InputStreamReader(from, StandardCharsets.UTF_8))) {
            for (String line = in.readLine(); line != null && !closed; line = in.readLine()) {
                heard = System.nanoTime();
                if (misbehaviour != Misbehaviour.DEAF) {
                    obey(line.strip().split("\\s+"));
                }
            }
        } catch (IOException e) {
            client = null;
        } finally {
            outputs.clear();
        }
    }

    private synchronized void obey(String[] words) throws IOException {
        switch (words[0]) {
            case "describe" -> describe();
            case "rate" -> rate = Math.max(0.1, Double.parseDouble(words[1]));
            case "start" -> {
                clock = 0;
                rig.begin();
                fresh = true;
                jumped = 0;
                running = true;
                LockSupport.unpark(pumping);
            }
            case "resume" -> {
                running = true;
                LockSupport.unpark(pumping);
            }
            case "stop" -> running = false;
            case "rig" -> rig.arrange(state(words));
            case "set" -> set(words[1], Double.parseDouble(words[2]));
            case "safe" -> outputs.clear();
            case "alive" -> {}
            case "test" -> send("! ok");
            case "identify" -> identified++;
            default -> send("# not understood: " + words[0]);
        }
    }

    private void describe() throws IOException {
        StringBuilder channels = new StringBuilder();
        for (String c : rig.channels()) {
            channels.append(channels.isEmpty() ? "" : ",")
                    .append(c)
                    .append(misbehaviour == Misbehaviour.WRONG_UNITS ? "[mV]" : "");
        }
        send("= " + id + ";" + label + ";" + channels + ";simulated");
    }

    private void set(String output, double value) throws IOException {
        if (value > limits.getOrDefault(output, Double.POSITIVE_INFINITY)) {
            send("! refused above its own limit of " + limits.get(output));
            return;
        }
        outputs.put(output, value);
        world.tell(Map.of("output_" + output, Double.toString(value)));
        send("! " + output + " " + value);
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
            long period = (long) (1e9 / tick() / pace);
            next = Math.max(next + period, System.nanoTime() - 20 * period);
            LockSupport.parkNanos(running ? Math.min(200_000_000L, Math.max(0, next - System.nanoTime())) : IDLE);
            if (!outputs.isEmpty() && System.nanoTime() - heard > WATCHDOG_MS * 1_000_000L) {
                outputs.clear();
            }
            if (running && System.nanoTime() >= next) {
                synchronized (this) {
                    sample();
                }
            } else {
                next = running ? next - period : System.nanoTime();
            }
        }
    }

    /**
     * Beside others it keeps the time of this computer, as they do: where it was held up for long, samples are missing.
     * Alone it would rather be late than lose any.
     */
    private void keepUp() {
        double behind = pace * (System.nanoTime() - begun) / 1e9 - clock;
        if (world.isShared() && behind * rate > HELD_UP) {
            double missed = Math.floor(behind * rate) / rate;
            rig.advance(missed);
            clock += missed;
        }
    }

    /** How often it looks, Hz: a timer looks more often than anybody asks it to. */
    private double tick() {
        return rig.isGate() ? Math.max(rate, FINE / pace) : rate;
    }

    private void sample() {
        boolean first = fresh;
        if (first) {
            // Its first sample is taken now, and the bench has been going on since the first of all.
            rig.advance(pace * world.late(id));
            fresh = false;
        }
        for (Map<String, String> f = felt.poll(); f != null; f = felt.poll()) {
            rig.arrange(f);
        }
        if (rig.isGate()) {
            // What happened since it was looked last, however long ago that was: an edge is told when it was.
            begun = first ? System.nanoTime() : begun;
            double now = pace * (System.nanoTime() - begun) / 1e9;
            rig.advance(now - clock);
            clock = now;
            rig.edges().forEach(this::edge);
            return;
        }
        begun = first ? System.nanoTime() : begun;
        keepUp();
        double now = clock;
        double[] counts = rig.read();
        rig.advance(1 / rate);
        clock += 1 / rate;
        send(now, counts);
    }

    /** An edge: its moment, then the states of the gates after it. */
    private void edge(double[] edge) {
        double[] states = java.util.Arrays.copyOfRange(edge, 1, edge.length);
        send(edge[0], states);
        if (misbehaviour == Misbehaviour.REFLECTIONS && states[0] > 0 && sent % REFLECTED == 0) {
            double[] free = states.clone();
            free[0] = 0;
            send(edge[0] + REFLECTION, free);
            send(edge[0] + 2 * REFLECTION, states);
        }
    }

    private void send(double moment, double[] counts) {
        sent++;
        double shaken = misbehaviour == Misbehaviour.JITTER ? 0.4 * (sent % 3 - 1) / rate : 0;
        StringBuilder line = new StringBuilder(":").append(Math.round((moment * (1 + drift) + jumped + shaken) * 1e6));
        for (double c : counts) {
            line.append(',').append((long) c);
        }
        Socket was = client;
        try {
            switch (misbehaviour) {
                case SILENCE -> {}
                case DROPS -> {
                    if (sent % 10 != 0) {
                        send(line.toString());
                    }
                }
                case GARBAGE -> send("~" + Long.toHexString(Double.doubleToLongBits(clock)) + "\u0007,,x");
                case HALF_LINES ->
                    send(line.substring(0, line.length() / 2) + "\n" + line.substring(line.length() / 2));
                case CLOCK_BACK -> {
                    jumped -= 5;
                    misbehaviour = Misbehaviour.NONE;
                    send(line.toString());
                }
                default -> send(line.toString());
            }
        } catch (IOException e) {
            // Whoever has called again meanwhile is another.
            client = client == was ? null : client;
        }
    }

    private void send(String line) throws IOException {
        OutputStream to = out;
        if (to == null || terminal == null && (client == null || client.isClosed())) {
            return;
        }
        to.write((line + "\n").getBytes(StandardCharsets.UTF_8));
        to.flush();
    }

    /**
     * Stops listening and drops the connection. A thread blocked in accept keeps the port open until it wakes, and
     * could still take a caller; so this waits for it, and afterwards nobody answers at the port.
     */
    @Override
    public void close() throws IOException {
        closed = true;
        running = false;
        LockSupport.unpark(pumping);
        if (terminal != null) {
            terminal.close();
        }
        if (server != null) {
            server.close();
            disconnect();
        }
        try {
            accepting.join(2000);
            pumping.join(2000);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
