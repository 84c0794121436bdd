package eagerneedle.app.bench;

import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.rig.driver.Driver;
import eagerneedle.rig.driver.LineDriver;
import eagerneedle.rig.simulated.LineStandIn;
import eagerneedle.rig.simulated.Rigs;
import eagerneedle.store.bench.BenchFile;
import java.io.IOException;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;

/**
 * The connected instrument: live samples, and the run that is being recorded.
 *
 * <p>Blocks come on the driver's thread and are only appended in memory there. A recorder thread of its own writes what is new
 * to the bench file every {@value #COMMIT_MS} ms, so that neither a slow disk nor a slow view holds the driver up.
 */
public final class LiveRig implements AutoCloseable {
    private static final int COMMIT_MS = 300;
    /** The simulated rig of this bench: the same hidden truth in every session at it. */
    public static final long BENCH_SEED = 7;

    private final String label;
    private final Driver driver;
    private final LineStandIn standIn;
    private final Driver.Description description;
    private final double rate;
    private final Map<String, GrowingSamples> live = new HashMap<>();
    private final ScheduledExecutorService recorder = Executors.newSingleThreadScheduledExecutor(r -> {
        Thread t = new Thread(r, "recorder");
        t.setDaemon(true);
        return t;
    });
    private volatile String news = "";
    private volatile String trouble = "";
    private volatile Recording recording;

    /** A run that is being recorded, and how much of it is on disk. */
    private static final class Recording {
        private final Run run;
        private final BenchFile file;
        private final Map<String, Integer> written = new HashMap<>();

        Recording(Run run, BenchFile file) {
            this.run = run;
            this.file = file;
        }
    }

    private LiveRig(String label, Driver driver, LineStandIn standIn, double rate) throws IOException {
        this.label = label;
        this.driver = driver;
        this.standIn = standIn;
        this.rate = rate;
        this.description = driver.open();
        driver.configure(rate);
        monitor();
        recorder.scheduleWithFixedDelay(this::commit, COMMIT_MS, COMMIT_MS, TimeUnit.MILLISECONDS);
    }

    /**
     * Connects to the stand-in of a device, starting it first.
     *
     * @param pace 1 for real time
     * @throws IOException with one sentence if it does not answer
     */
    public static LiveRig simulated(Sheet.Device device, double rate, double pace) throws IOException {
        LineStandIn standIn = new LineStandIn(Rigs.create(device.rig(), BENCH_SEED, Set.of()), device.label().replaceAll(".*\\s", ""), device.label(), pace);
        try {
            return new LiveRig(device.label(), new LineDriver("127.0.0.1", standIn.port()), standIn, rate);
        } catch (IOException e) {
            standIn.close();
            throw e;
        }
    }

    /** Connects to a line-protocol logger at an address such as {@code 192.168.0.12:5020}. */
    public static LiveRig at(String label, String address, double rate) throws IOException {
        int colon = address.lastIndexOf(':');
        try {
            return new LiveRig(label, new LineDriver(address.substring(0, colon), Integer.parseInt(address.substring(colon + 1).strip())), null, rate);
        } catch (NumberFormatException | StringIndexOutOfBoundsException e) {
            throw new IOException("'" + address + "' is not an address; write host:port, for instance 192.168.0.12:5020.");
        }
    }

    public String label() {
        return label;
    }

    public List<String> channels() {
        return description.channels();
    }

    public boolean isSimulated() {
        return description.simulated();
    }

    /** The stand-in behind this rig, for tests that let it misbehave; null for a real instrument. */
    public LineStandIn standIn() {
        return standIn;
    }

    public Driver.State state() {
        return driver.state();
    }

    /** The latest thing the driver said, empty if all is well. */
    public String news() {
        if (!trouble.isEmpty()) {
            return trouble;
        }
        long bad = driver.unreadable();
        return !news.isEmpty() ? news : bad > 0 ? bad + (bad == 1 ? " line" : " lines") + " from the instrument could not be understood and " + (bad == 1 ? "was" : "were") + " passed over. Check its cable and settings." : "";
    }

    /** Free-running samples without recording. */
    private void monitor() throws IOException {
        live.clear();
        description.channels().forEach(c -> live.put(c, new GrowingSamples()));
        Map<String, GrowingSamples> target = Map.copyOf(live);
        news = "";
        driver.start(new Driver.Sink() {
            @Override
            public void block(Driver.Block block) {
                for (int c = 0; c < description.channels().size(); c++) {
                    target.get(description.channels().get(c)).add(block.time(), block.counts()[c]);
                }
            }

            @Override
            public void state(Driver.State state, String sentence) {
                news = state == Driver.State.RUNNING ? "" : sentence;
            }
        });
    }

    /** Samples of the last seconds of a channel. */
    public synchronized RawSamples last(String channel, double seconds) {
        GrowingSamples g = live.get(channel);
        return g == null ? RawSamples.NONE : g.last(seconds);
    }

    /** Everything since sampling was last started: of the run while one is recorded. */
    public synchronized RawSamples all(String channel) {
        GrowingSamples g = live.get(channel);
        return g == null ? RawSamples.NONE : g.all();
    }

    /** Tells a simulated rig what the hands do; does nothing with a real instrument. */
    public synchronized void arrange(Map<String, String> bench) throws IOException {
        if (isSimulated()) {
            driver.arrange(bench);
        }
    }

    /** Starts recording a run into a bench file; the clock starts at 0. */
    public synchronized void record(Run run, BenchFile file) throws IOException {
        file.begin(run);
        driver.stop();
        trouble = "";
        recording = new Recording(run, file);
        monitor();
    }

    /** True while a run is recorded. */
    public boolean isRecording() {
        return recording != null;
    }

    /** Ends the run; all its samples are on disk when this returns. How many there are is returned. */
    public synchronized int finish() {
        driver.stop();
        commit();
        Recording done = recording;
        recording = null;
        int n = done == null ? 0 : done.written.values().stream().mapToInt(i -> i).max().orElse(0);
        try {
            if (driver.state() != Driver.State.LOST) {
                monitor();
            }
        } catch (IOException e) {
            news = e.getMessage();
        }
        return n;
    }

    private synchronized void commit() {
        Recording now = recording;
        if (now == null) {
            return;
        }
        try {
            live.forEach((channel, samples) -> {
                int from = now.written.getOrDefault(channel, 0);
                RawSamples fresh = samples.since(from);
                if (fresh.size() > 0) {
                    now.file.append(now.run.id(), channel, fresh);
                    now.written.put(channel, from + fresh.size());
                }
            });
            trouble = "";
        } catch (RuntimeException e) {
            trouble = e.getMessage();
        }
    }

    public double rate() {
        return rate;
    }

    @Override
    public void close() {
        recorder.shutdown();
        driver.close();
        if (standIn != null) {
            try {
                standIn.close();
            } catch (IOException e) {
                // The stand-in is ours and goes with the program.
            }
        }
    }
}
