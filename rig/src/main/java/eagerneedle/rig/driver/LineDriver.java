package eagerneedle.rig.driver;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;

/**
 * Driver for a logger that prints one line per sample, over TCP or a serial port; the protocol is in {@code
 * docs/formats/line-protocol.md}. A gate timer speaks the same protocol with one line an edge.
 *
 * <p>A line that does not parse is counted and passed over, so that garbage costs its own samples and no others. Silence for
 * longer than {@value #SILENT_AFTER_MS} ms is told. A lost connection is told and tried again; when it comes back, outputs are
 * made safe first, and sampling goes on; the instrument's clock shows the gap. An instrument that comes back with other
 * channels or other units is refused: its numbers would mean something else.
 */
public final class LineDriver extends WireSampler {
    private static final int SILENT_AFTER_MS = 1500;
    private static final int ALIVE_MS = 500;
    private static final int ANSWER_MS = 2000;
    private static final double CLOCK_WRAP = 4294.967296;

    private final boolean edges;
    private final CountDownLatch described = new CountDownLatch(1);
    private final BlockingQueue<String> confirmations = new LinkedBlockingQueue<>();
    private final Map<String, Double> outputs = new ConcurrentHashMap<>();
    private final Batch batch = new Batch(1e6);
    private volatile Description description;
    private volatile double rate = 10;
    private volatile double lastRaw = Double.NaN;
    private volatile boolean awaitingRestart;
    private volatile long startedAt;
    private volatile long lastData;
    private volatile long lastAlive;
    private volatile long firstTick = -1;
    private volatile long lastTick;
    private double wraps;

    /** A logger over a wire. */
    public LineDriver(Wire wire) {
        this(wire, false);
    }

    private LineDriver(Wire wire, boolean edges) {
        super(wire);
        this.edges = edges;
    }

    public LineDriver(String host, int port) {
        this(new TcpWire(host, port));
    }

    /** A gate timer: a row for each edge with the state of every gate after it; silence is nothing to worry about. */
    public static LineDriver gates(Wire wire) {
        return new LineDriver(wire, true);
    }

    @Override
    public Description open() throws IOException {
        connect("line driver");
        try {
            send("describe");
            if (!described.await(ANSWER_MS, TimeUnit.MILLISECONDS)) {
                throw new IOException("Something answers at " + wire.name() + " but does not say what it is; check that it is a line-protocol logger" + (edges ? " or gate timer." : "."));
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            close();
            throw new IOException("Opening was interrupted.");
        } catch (IOException e) {
            close();
            throw e;
        }
        state = State.READY;
        return description;
    }

    @Override
    public void configure(double newRate) throws IOException {
        rate = newRate;
        send("rate " + newRate);
    }

    @Override
    public void start(Sink newSink) throws IOException {
        synchronized (batch) {
            batch.restart();
            wraps = 0;
            firstTick = -1;
        }
        unreadable = 0;
        awaitingRestart = !Double.isNaN(lastRaw);
        startedAt = System.nanoTime();
        lastData = startedAt;
        sink = newSink;
        send("start");
        state = State.RUNNING;
    }

    @Override
    public void stop() {
        if (state == State.RUNNING || state == State.SILENT || state == State.LOST) {
            state = state == State.LOST ? State.LOST : State.READY;
            sink = null;
            try {
                send("stop");
            } catch (IOException e) {
                state = State.LOST;
            }
        }
    }

    @Override
    public void identify() throws IOException {
        send("identify");
    }

    @Override
    public void setOutput(String output, double value) throws IOException {
        String answer = answered("set " + output + " " + value);
        if (answer.startsWith("refused")) {
            throw new IOException("The instrument refused " + output + " = " + value + ": " + answer.substring(7).strip() + ".");
        }
        outputs.put(output, value);
    }

    @Override
    public String selfTest() throws IOException {
        String answer = answered("test");
        return answer.equals("ok") ? "" : answer;
    }

    /** Sends a line and waits for the line that starts with an exclamation mark. */
    private synchronized String answered(String line) throws IOException {
        if (state == State.LOST) {
            throw new IOException("The connection to the instrument is lost.");
        }
        confirmations.clear();
        send(line);
        try {
            String answer = confirmations.poll(ANSWER_MS, TimeUnit.MILLISECONDS);
            if (answer == null) {
                throw new IOException("The instrument did not confirm '" + line + "' within " + ANSWER_MS / 1000 + " s; take it as not done.");
            }
            return answer;
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IOException("Waiting for the instrument was interrupted.");
        }
    }

    @Override
    public void arrange(Map<String, String> bench) throws IOException {
        StringBuilder line = new StringBuilder("rig");
        bench.forEach((k, v) -> line.append(' ').append(k).append('=').append(v.replace(' ', '_')));
        send(line.toString());
    }

    @Override
    public void line(String line) {
        if (line.startsWith("=")) {
            describe(Conversation.text(line.substring(1).strip()));
        } else if (line.startsWith("!")) {
            confirmations.offer(Conversation.text(line.substring(1).strip()));
        } else if (!line.isEmpty() && !line.startsWith("#") && sink != null && state != State.REFUSED) {
            sample(line);
        }
    }

    @Override
    public int following(String line) {
        Description d = description;
        Frame f = d == null ? null : Frame.announced(line, d.channels().size());
        return f == null ? 0 : f.bytes(d.channels().size());
    }

    /** Many samples at once; only counts come like that. */
    @Override
    public void bytes(String line, byte[] raw) {
        int channels = description.channels().size();
        Frame f = Frame.announced(line, channels);
        Sink to = sink;
        if (to == null || state == State.REFUSED) {
            return;
        }
        lastData = System.nanoTime();
        double seconds = f.first() / 1e9;
        if (awaitingRestart && seconds >= lastRaw && System.nanoTime() - startedAt < 1_000_000_000L) {
            return;
        }
        if (!description.units().stream().allMatch(Description.COUNTS::equals) || firstTick >= 0 && f.first() <= lastTick) {
            unreadable += f.n();
            return;
        }
        awaitingRestart = false;
        firstTick = firstTick < 0 ? f.first() : firstTick;
        lastTick = f.last();
        lastRaw = lastTick / 1e9;
        if (state == State.SILENT || state == State.LOST) {
            state = State.RUNNING;
            tell("The instrument sends again.");
        }
        to.block(f.block(raw, channels, firstTick));
    }

    private void describe(String text) {
        String[] parts = text.split(";");
        if (parts.length < 3) {
            return;
        }
        List<String> names = new ArrayList<>();
        List<String> units = new ArrayList<>();
        for (String c : parts[2].split(",")) {
            int at = c.indexOf('[');
            names.add(at < 0 ? c : c.substring(0, at));
            units.add(at < 0 ? Description.COUNTS : c.substring(at + 1).replace("]", ""));
        }
        Description now = new Description(parts[0], parts[1], names, units, parts.length > 3 && parts[3].equals("simulated"));
        Description before = description;
        if (before == null || state == State.CLOSED) {
            description = now;
            described.countDown();
        } else if (!before.channels().equals(now.channels()) || !before.units().equals(now.units())) {
            state = State.REFUSED;
            tell("The instrument now says it sends " + said(now) + " where it sent " + said(before) + "; nothing of that is kept. Set it back, then connect again.");
        } else if (state == State.REFUSED) {
            state = sink == null ? State.READY : State.RUNNING;
            tell("The instrument sends " + said(now) + " again.");
        }
    }

    private static String said(Description d) {
        List<String> parts = new ArrayList<>();
        for (int i = 0; i < d.channels().size(); i++) {
            parts.add(d.channels().get(i) + " in " + d.units().get(i));
        }
        return String.join(", ", parts);
    }

    private void sample(String line) {
        String[] fields = line.startsWith(":") ? line.substring(1).split(",") : new String[0];
        double[] row = new double[fields.length];
        try {
            if (fields.length != description.channels().size() + 1) {
                throw new NumberFormatException();
            }
            row[0] = Long.parseLong(fields[0].strip()) / 1e6;
            for (int i = 1; i < fields.length; i++) {
                row[i] = description.units().get(i - 1).equals(Description.COUNTS) ? Long.parseLong(fields[i].strip()) : finite(Double.parseDouble(fields[i].strip()));
            }
        } catch (NumberFormatException e) {
            unreadable++;
            return;
        }
        lastData = System.nanoTime();
        // Lines of the sampling before may still be under way: their clock has not started anew.
        if (awaitingRestart && row[0] >= lastRaw && System.nanoTime() - startedAt < 1_000_000_000L) {
            return;
        }
        // A gate timer's clock is 32 bits of microseconds and goes round.
        if (edges && !awaitingRestart && lastRaw - row[0] > CLOCK_WRAP / 2) {
            wraps += CLOCK_WRAP;
        }
        awaitingRestart = false;
        lastRaw = row[0];
        row[0] += wraps;
        synchronized (batch) {
            if (!batch.add(row)) {
                unreadable++;
            }
        }
    }

    private static double finite(double v) {
        if (!Double.isFinite(v)) {
            throw new NumberFormatException();
        }
        return v;
    }

    @Override
    public void drained() {
        Block block;
        synchronized (batch) {
            Sink to = sink;
            if (to == null || batch.isEmpty()) {
                return;
            }
            block = batch.take();
            if (state == State.SILENT || state == State.LOST) {
                state = State.RUNNING;
                tell("The instrument sends again.");
            }
            to.block(block);
        }
    }

    @Override
    public void quiet(long ms) {
        if (!edges && state == State.RUNNING && System.nanoTime() - lastData > SILENT_AFTER_MS * 1_000_000L) {
            state = State.SILENT;
            tell("The instrument has gone silent; what came is kept. Check its power and its lead.");
        }
        // An instrument whose outputs are on switches them off when it does not hear this.
        if (!outputs.isEmpty() && System.nanoTime() - lastAlive > ALIVE_MS * 1_000_000L) {
            lastAlive = System.nanoTime();
            try {
                send("alive");
            } catch (IOException e) {
                // The reading side will notice that the line is gone.
            }
        }
    }

    @Override
    public void lost() {
        boolean had = !outputs.isEmpty();
        outputs.clear();
        state = State.LOST;
        tell("The connection to the instrument is lost; what came is kept. It is being tried again." + (had ? " Its outputs switch themselves off; go and see that they are." : ""));
    }

    @Override
    public void back() throws IOException {
        send("safe");
        send("describe");
        send("rate " + rate);
        if (sink != null) {
            lastData = System.nanoTime();
            send("resume");
            if (edges) {
                state = State.RUNNING;
                tell("The gate timer is back.");
            }
        } else {
            state = State.READY;
        }
    }

    @Override
    public void close() {
        hangUp(() -> {
            if (!outputs.isEmpty()) {
                send("safe");
            }
            if (state == State.RUNNING) {
                send("stop");
            }
        });
    }
}
