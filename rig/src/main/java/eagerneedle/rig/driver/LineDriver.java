package eagerneedle.rig.driver;

import java.io.BufferedReader;
import java.io.BufferedWriter;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.OutputStreamWriter;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.net.SocketTimeoutException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;

/**
 * Driver for a logger that prints one line per sample over TCP; the protocol is in {@code docs/formats/line-protocol.md}.
 *
 * <p>One thread reads. A line that does not parse is counted and passed over, so that garbage costs its own samples and no
 * others. Silence for longer than {@value #SILENT_AFTER_MS} ms is told. A lost connection is told and tried again every
 * {@value #RETRY_MS} ms; when it comes back, sampling goes on, and the instrument's clock shows the gap.
 */
public final class LineDriver implements Driver {
    private static final int TICK_MS = 200;
    private static final int SILENT_AFTER_MS = 1500;
    private static final int RETRY_MS = 500;
    private static final int ANSWER_MS = 2000;
    private static final int LONGEST_LINE = 4096;

    private final String host;
    private final int port;
    private final Object writing = new Object();
    private volatile Socket socket;
    private volatile BufferedWriter out;
    private volatile State state = State.CLOSED;
    private volatile Sink sink;
    private volatile Description description;
    private volatile double rate = 10;
    private volatile long unreadable;
    private volatile boolean closing;
    private final CountDownLatch described = new CountDownLatch(1);
    private Thread reader;
    private double firstTime = Double.NaN;
    private double lastTime = Double.NaN;
    private volatile double lastRaw = Double.NaN;
    private volatile boolean awaitingRestart;
    private volatile long startedAt;

    public LineDriver(String host, int port) {
        this.host = host;
        this.port = port;
    }

    @Override
    public Description open() throws IOException {
        connect();
        reader = new Thread(this::read, "line driver " + host + ":" + port);
        reader.setDaemon(true);
        reader.start();
        send("describe");
        try {
            if (!described.await(ANSWER_MS, TimeUnit.MILLISECONDS)) {
                close();
                throw new IOException("Something answers at " + host + ":" + port + " but does not say what it is; check that it is a line-protocol logger.");
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IOException("Opening was interrupted.");
        }
        state = State.READY;
        return description;
    }

    private void connect() throws IOException {
        Socket s = new Socket();
        try {
            s.connect(new InetSocketAddress(host, port), 1000);
            s.setSoTimeout(TICK_MS);
            s.setTcpNoDelay(true);
        } catch (IOException e) {
            s.close();
            throw new IOException("Nothing answers at " + host + ":" + port + "; check that the instrument is on and its address is right.");
        }
        out = new BufferedWriter(new OutputStreamWriter(s.getOutputStream(), StandardCharsets.UTF_8));
        socket = s;
    }

    @Override
    public void configure(double newRate) throws IOException {
        rate = newRate;
        send("rate " + newRate);
    }

    @Override
    public void start(Sink newSink) throws IOException {
        sink = newSink;
        unreadable = 0;
        firstTime = Double.NaN;
        lastTime = Double.NaN;
        awaitingRestart = !Double.isNaN(lastRaw);
        startedAt = System.nanoTime();
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
    public State state() {
        return state;
    }

    @Override
    public long unreadable() {
        return unreadable;
    }

    @Override
    public void arrange(Map<String, String> bench) throws IOException {
        StringBuilder line = new StringBuilder("rig");
        bench.forEach((k, v) -> line.append(' ').append(k).append('=').append(v.replace(' ', '_')));
        send(line.toString());
    }

    private void send(String line) throws IOException {
        synchronized (writing) {
            if (out == null) {
                throw new IOException("The instrument is not connected.");
            }
            out.write(line);
            out.write('\n');
            out.flush();
        }
    }

    private void read() {
        long lastHeard = System.nanoTime();
        while (!closing) {
            try {
                BufferedReader in = new BufferedReader(new InputStreamReader(socket.getInputStream(), StandardCharsets.UTF_8));
                StringBuilder line = new StringBuilder();
                while (!closing) {
                    try {
                        int c = in.read();
                        if (c < 0) {
                            throw new IOException("end of stream");
                        }
                        lastHeard = heard(lastHeard, c, line, in);
                    } catch (SocketTimeoutException quiet) {
                        silence(lastHeard);
                    }
                }
            } catch (IOException e) {
                lost();
                lastHeard = System.nanoTime();
            }
        }
    }

    private long heard(long lastHeard, int c, StringBuilder line, BufferedReader in) throws IOException {
        if (c != '\n') {
            if (line.length() < LONGEST_LINE) {
                line.append((char) c);
            }
            return lastHeard;
        }
        List<double[]> samples = new ArrayList<>();
        boolean data = take(line.toString().strip(), samples);
        line.setLength(0);
        while (in.ready() && samples.size() < 1024) {
            int next = in.read();
            if (next == '\n') {
                data |= take(line.toString().strip(), samples);
                line.setLength(0);
            } else if (line.length() < LONGEST_LINE) {
                line.append((char) next);
            }
        }
        deliver(samples);
        return data ? System.nanoTime() : lastHeard;
    }

    /** True when the line was a sample; it is then added to {@code samples} as time and counts. */
    private boolean take(String line, List<double[]> samples) {
        if (line.startsWith("=")) {
            String[] parts = line.substring(1).strip().split(";");
            if (parts.length >= 3) {
                description = new Description(parts[0], parts[1], List.of(parts[2].split(",")), parts.length > 3 && parts[3].equals("simulated"));
                described.countDown();
            }
            return false;
        }
        if (line.isEmpty() || line.startsWith("#")) {
            return false;
        }
        if (sink == null) {
            return false;
        }
        String[] fields = line.startsWith(":") ? line.substring(1).split(",") : new String[0];
        int channels = description == null ? 1 : description.channels().size();
        double[] sample = new double[fields.length];
        try {
            if (fields.length != channels + 1) {
                throw new NumberFormatException();
            }
            for (int i = 0; i < fields.length; i++) {
                sample[i] = Long.parseLong(fields[i].strip());
            }
        } catch (NumberFormatException e) {
            unreadable++;
            return false;
        }
        double t = sample[0] / 1e6;
        // Lines of the sampling before may still be under way: their clock has not started anew.
        if (awaitingRestart && t >= lastRaw && System.nanoTime() - startedAt < 1_000_000_000L) {
            return false;
        }
        awaitingRestart = false;
        lastRaw = t;
        if (Double.isNaN(firstTime)) {
            firstTime = t;
        }
        sample[0] = t - firstTime;
        if (sample[0] <= lastTime) {
            unreadable++;
            return true;
        }
        lastTime = sample[0];
        samples.add(sample);
        return true;
    }

    private void deliver(List<double[]> samples) {
        Sink to = sink;
        if (samples.isEmpty() || to == null) {
            return;
        }
        if (state == State.SILENT || state == State.LOST) {
            state = State.RUNNING;
            to.state(State.RUNNING, "The instrument sends again.");
        }
        int channels = samples.get(0).length - 1;
        double[] time = new double[samples.size()];
        double[][] counts = new double[channels][samples.size()];
        for (int i = 0; i < time.length; i++) {
            time[i] = samples.get(i)[0];
            for (int c = 0; c < channels; c++) {
                counts[c][i] = samples.get(i)[c + 1];
            }
        }
        to.block(new Block(time, counts));
    }

    private void silence(long lastHeard) {
        Sink to = sink;
        if (state == State.RUNNING && to != null && System.nanoTime() - lastHeard > SILENT_AFTER_MS * 1_000_000L) {
            state = State.SILENT;
            to.state(State.SILENT, "The instrument has gone silent; what came is kept. Check its power and its lead.");
        }
    }

    private void lost() {
        if (closing) {
            return;
        }
        boolean first = state != State.LOST;
        boolean running = sink != null;
        state = State.LOST;
        Sink to = sink;
        if (first && to != null) {
            to.state(State.LOST, "The connection to the instrument is lost; what came is kept. It is being tried again.");
        }
        try {
            Thread.sleep(RETRY_MS);
            socket.close();
            connect();
            send("describe");
            send("rate " + rate);
            if (running) {
                send("resume");
            } else {
                state = State.READY;
            }
        } catch (IOException | InterruptedException again) {
            if (again instanceof InterruptedException) {
                Thread.currentThread().interrupt();
                closing = true;
            }
        }
    }

    @Override
    public void close() {
        closing = true;
        state = State.CLOSED;
        sink = null;
        try {
            if (socket != null) {
                socket.close();
            }
        } catch (IOException e) {
            // Closing a broken connection may fail; there is nothing left to save.
        }
        if (reader != null && reader != Thread.currentThread()) {
            reader.interrupt();
            try {
                reader.join(1000);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            }
        }
    }
}
