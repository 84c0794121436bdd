package eagerneedle.rig.driver;

import java.io.IOException;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;

/**
 * Driver for a logger that prints one line per sample, over TCP or a serial port; the protocol is in
 * {@code docs/formats/line-protocol.md}. A gate timer speaks the same protocol with one line an edge.
 *
 * <p>A line that does not parse is counted and passed over, so that garbage costs its own samples and no others.
 * Silence for longer than {@value #SILENT_AFTER_MS} ms is told. A lost connection is told and tried again; when it
 * comes back, outputs are made safe first, and sampling goes on; {@link InstrumentClock} follows the instrument's clock
 * over gaps, restarts and jumps. An instrument that comes back with other channels or other units is refused: its
 * numbers would mean something else. Lines carry a checksum where the instrument offers it.
 */
public final class LineDriver extends WireSampler {
    private static final int SILENT_AFTER_MS = 1500;
    private static final int ALIVE_MS = 500;
    private static final int ANSWER_MS = 2000;

    private final boolean edges;
    private final CountDownLatch described = new CountDownLatch(1);
    private final Confirmations confirmations = new Confirmations();
    private final Map<String, Double> outputs = new ConcurrentHashMap<>();
    private final BlockBuilder batch = new BlockBuilder(1e6);
    private volatile @Nullable Description description;
    private volatile double rate = 10;
    private final EarlierSampling before = new EarlierSampling();
    private volatile long lastData;
    private volatile long lastAlive;
    private volatile InstrumentClock clock = new InstrumentClock(true);
    private volatile boolean offersChecksums;
    private volatile boolean checked;
    private double @Nullable [] heldRow;
    private @Nullable Runnable heldFrame;
    private @Nullable Sink announcedTo;

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
                throw new IOException("Something answers at " + wire.name()
                        + " but does not say what it is; check that it is a line-protocol logger"
                        + (edges ? " or gate timer." : "."));
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            close();
            throw new IOException("Opening was interrupted.", e);
        } catch (IOException e) {
            close();
            throw e;
        }
        Description opened = description();
        String unknown = LineWords.unknownUnit(opened);
        if (unknown != null) {
            close();
            throw new IOException(unknown);
        }
        agreeOnChecksums();
        state = State.READY;
        return opened;
    }

    private Description description() {
        return Objects.requireNonNull(description);
    }

    private void agreeOnChecksums() throws IOException {
        if (offersChecksums) {
            checked = true;
            send("checksum on");
        }
    }

    @Override
    public void configure(double newRate) throws IOException {
        rate = newRate;
        send("rate " + newRate);
    }

    @Override
    public void start(Sink newSink) throws IOException {
        synchronized (batch) {
            batch.restart(0);
            clock = new InstrumentClock(description().simulated());
            heldRow = null;
            heldFrame = null;
        }
        unreadable = 0;
        lastData = now();
        before.ended(lastData);
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
        LineWords.accepted(answer, output, value);
        outputs.put(output, value);
    }

    @Override
    public String selfTest() throws IOException {
        return answered("test").replaceFirst("^ok$", "");
    }

    /** Sends a line and waits for the line that starts with an exclamation mark. */
    private synchronized String answered(String line) throws IOException {
        if (state == State.LOST) {
            throw new IOException("The connection to the instrument is lost.");
        }
        confirmations.forget();
        send(line);
        return confirmations.await(line, ANSWER_MS);
    }

    @Override
    public void arrange(Map<String, String> bench) throws IOException {
        send(LineWords.bench(bench));
    }

    @Override
    public void line(String raw) {
        String line = raw;
        if (checked && !raw.isEmpty() && !raw.startsWith("#") && !raw.startsWith("=")) {
            line = Checksum.without(raw);
            if (line == null) {
                unreadable++;
                return;
            }
        }
        if (line.startsWith("=")) {
            describe(Conversation.text(line.substring(1).strip()));
        } else if (line.startsWith("!")) {
            confirmations.add(Conversation.text(line.substring(1).strip()));
        } else if (!line.isEmpty() && !line.startsWith("#") && sink != null && state != State.REFUSED) {
            sample(line);
        }
    }

    /** Also while nobody wants samples: the bytes of a frame that is still on its way are no lines. */
    @Override
    public int following(String line) {
        announcedTo = sink;
        Description d = description;
        if (d == null || !d.units().stream().allMatch(Description.COUNTS::equals)) {
            return 0;
        }
        Frame f = Frame.announced(line, d.channels().size());
        return f == null || !f.suits(rate) ? 0 : f.bytes(d.channels().size());
    }

    @Override
    public void noFrame(String line) {
        unreadable++;
    }

    /** Many samples at once; only counts come like that. */
    @Override
    public void bytes(String line, byte[] raw) {
        int channels = description().channels().size();
        Frame f = Frame.announced(line, channels);
        Sink to = sink;
        if (to == null || to != announcedTo || f == null || state == State.REFUSED) {
            return;
        }
        if (!f.fits(raw)) {
            unreadable += f.n();
            return;
        }
        long now = System.nanoTime();
        if (before.sent(f.first(), f.last(), now)) {
            return;
        }
        synchronized (batch) {
            InstrumentClock by = clock;
            switch (by.take(f.first(), now)) {
                case PLACED, PLACED_ALONE -> {
                    unreadable += heldFrame == null ? 0 : f.n();
                    heldFrame = null;
                }
                case CONFIRMED -> {
                    to.clockSet(by.time(by.held()) / 1e9);
                    if (heldFrame != null) {
                        heldFrame.run();
                        heldFrame = null;
                    }
                }
                case REFUSED -> {
                    unreadable += f.n();
                    return;
                }
                default -> {
                    unreadable += heldFrame == null ? 0 : f.n();
                    heldFrame = () -> to.block(f.block(raw, channels, f.first() - by.time(f.first())));
                    return;
                }
            }
            by.take(f.last(), now + f.last() - f.first());
            hear();
            to.block(f.block(raw, channels, f.first() - by.time(f.first())));
        }
    }

    /** A sample was taken: the instrument is there, and what there is to say of its clock is said. */
    private void hear() {
        lastData = now();
        if (state == State.SILENT || state == State.LOST) {
            state = State.RUNNING;
            tell("The instrument sends again.");
        }
        clock.news().forEach(this::tell);
    }

    private void describe(String text) {
        LineWords.Said words = LineWords.description(text);
        if (words == null) {
            return;
        }
        Description now = words.description();
        offersChecksums = words.checksums();
        Description before = description;
        if (before == null || state == State.CLOSED) {
            description = now;
            described.countDown();
        } else if (!before.channels().equals(now.channels()) || !before.units().equals(now.units())) {
            state = State.REFUSED;
            tell(LineWords.changed(before, now));
        } else if (state == State.REFUSED) {
            state = sink == null ? State.READY : State.RUNNING;
            tell("The instrument sends " + LineWords.said(now) + " again.");
        }
    }

    private void sample(String line) {
        double[] row = LineWords.row(line, description());
        if (row == null) {
            unreadable++;
            return;
        }
        long now = System.nanoTime();
        long stamp = (long) row[0];
        if (before.sent(stamp, stamp, now)) {
            return;
        }
        synchronized (batch) {
            switch (clock.take(stamp, now)) {
                case PLACED -> add(row, stamp);
                case CONFIRMED -> {
                    Optional.ofNullable(sink).ifPresent(to -> to.clockSet(clock.time(clock.held()) / 1e9));
                    if (heldRow != null) {
                        add(heldRow, clock.held());
                    }
                    add(row, stamp);
                }
                case PLACED_ALONE -> {
                    unreadable++;
                    add(row, stamp);
                }
                case REFUSED -> {
                    unreadable++;
                    return;
                }
                default -> {
                    unreadable += heldRow == null ? 0 : 1;
                    heldRow = row;
                    return;
                }
            }
            heldRow = null;
        }
    }

    private void add(double[] row, long stamp) {
        row[0] = clock.time(stamp) / 1e9;
        if (batch.add(row)) {
            lastData = now();
        } else {
            unreadable++;
        }
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
            hear();
            to.block(block);
        }
    }

    @Override
    public void quiet(long ms) {
        if (state == State.RUNNING && now() - lastData > SILENT_AFTER_MS * 1_000_000L && !edges) {
            state = State.SILENT;
            tell("The instrument has gone silent; what came is kept. Check its power and its lead.");
        }
        // An instrument whose outputs are on switches them off when it does not hear this.
        if (!outputs.isEmpty() && now() - lastAlive > ALIVE_MS * 1_000_000L) {
            lastAlive = now();
            try {
                send("alive");
            } catch (IOException e) {
                // The reading side will notice that the line is gone.
            }
        }
    }

    @Override
    public void lost() {
        String more = outputs.isEmpty() ? "" : " Its outputs switch themselves off; go and see that they are.";
        outputs.clear();
        state = State.LOST;
        tell("The connection to the instrument is lost; what came is kept. It is being tried again." + more);
    }

    @Override
    public void back() throws IOException {
        send("safe");
        checked = false;
        send("describe");
        agreeOnChecksums();
        send("rate " + rate);
        if (sink != null) {
            lastData = now();
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
