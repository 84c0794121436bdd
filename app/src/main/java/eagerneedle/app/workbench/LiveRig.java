package eagerneedle.app.workbench;

import eagerneedle.core.capture.Trigger;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.Setup;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.trace.Pyramid;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.rig.driver.Driver;
import eagerneedle.rig.driver.Drivers;
import eagerneedle.rig.driver.LineDriver;
import eagerneedle.rig.driver.ManualDriver;
import eagerneedle.rig.driver.OutputGuard;
import eagerneedle.rig.driver.TcpWire;
import eagerneedle.rig.simulated.LineStandIn;
import eagerneedle.rig.simulated.Rigs;
import eagerneedle.store.bench.BenchFile;
import java.io.IOException;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * The connected instrument: live samples, and the run that is being recorded.
 *
 * <p>Blocks come on the driver's thread and are only appended in memory there; a {@link RunRecorder} writes them to the
 * bench file, so that neither a slow disk nor a slow view holds the driver up.
 */
public final class LiveRig implements AutoCloseable {
    private static final int ROOM = 4_000_000;
    private static final long MOST_WAITING = 24_000_000;
    /** The simulated rig of this bench: the same hidden truth in every session at it. */
    public static final long BENCH_SEED = 7;

    private final String label;
    private final Sheet sheet;
    private final Driver driver;
    private final LineStandIn standIn;
    private final Driver.Description description;
    private final double rate;
    private final Map<String, GrowingSamples> live = new HashMap<>();
    private final Map<String, OutputGuard> outputs = new LinkedHashMap<>();
    private volatile Map<String, Setup> setups = Map.of();
    private volatile String news = "";
    private volatile RunRecorder recorder;
    private volatile String afterwards = "";
    private volatile Shot shot;
    private volatile long startedAt;

    private LiveRig(Sheet sheet, Sheet.Device device, Driver driver, LineStandIn standIn, double rate)
            throws IOException {
        this.sheet = sheet;
        this.driver = driver;
        this.standIn = standIn;
        this.rate = rate;
        try {
            this.description = driver.open();
            this.label = standIn != null || description.label().isBlank() ? device.label() : description.label();
            device.outputs()
                    .forEach((name, limits) ->
                            outputs.put(name, new OutputGuard(driver, name, limits, sentence -> news = sentence)));
            driver.configure(rate);
            monitor();
        } catch (IOException e) {
            driver.close();
            throw e;
        }
    }

    /**
     * Connects to the stand-in of a device, starting it first.
     *
     * @param pace 1 for real time
     * @param faults mistakes made at the bench, such as leads exchanged
     * @throws IOException with one sentence if it does not answer
     */
    public static LiveRig simulated(Sheet sheet, String device, double rate, double pace, Set<String> faults)
            throws IOException {
        Sheet.Device d = sheet.devices().get(device);
        LineStandIn standIn =
                new LineStandIn(Rigs.of(sheet, BENCH_SEED, faults), d.label().replaceAll(".*\\s", ""), d.label(), pace);
        try {
            TcpWire wire = new TcpWire("127.0.0.1", standIn.port());
            return new LiveRig(
                    sheet, d, d.driver().equals("gate") ? LineDriver.gates(wire) : new LineDriver(wire), standIn, rate);
        } catch (IOException e) {
            standIn.close();
            throw e;
        }
    }

    /**
     * Connects to a device at an address such as {@code 192.168.0.12:5020}, a serial port or a file, by the driver its
     * sheet names.
     */
    public static LiveRig at(Sheet sheet, String device, String address, double rate) throws IOException {
        Sheet.Device d = sheet.devices().get(device);
        Map<String, String> units = new LinkedHashMap<>();
        sheet.channels().forEach((name, c) -> {
            if (device.equals(c.device())) {
                units.put(c.inputOr(name), c.toChain().converter().input().symbol());
            }
        });
        return new LiveRig(sheet, d, Drivers.of(d, address, units), null, rate);
    }

    /** What the channels are set up as: which input each is wired to. */
    public void setUp(Map<String, Setup> how) {
        setups = how;
    }

    /** What the samples of a channel of the sheet are in: counts, or the unit the instrument measures in. */
    public String rawUnit(String channel) {
        return wiring().rawUnit(channel);
    }

    private Wiring wiring() {
        return new Wiring(sheet, description, setups);
    }

    private String input(String channel) {
        return wiring().input(channel);
    }

    /** A new run at this instrument, not yet begun. */
    public Run run(int id, String capture, String level, java.time.Instant now) {
        Map<String, String> units = new HashMap<>();
        sheet.captures().get(capture).channels().stream()
                .filter(c -> !rawUnit(c).equals(Run.COUNTS))
                .forEach(c -> units.put(c, rawUnit(c)));
        return Run.captured(id, capture, level, now, label, Run.COUNTS)
                .measuredIn(units)
                .setUp(setups);
    }

    /**
     * The channels whose readings a person types, in order, with their units; empty for an instrument with an output.
     */
    public Map<String, String> typed() {
        Map<String, String> wanted = new LinkedHashMap<>();
        if (driver instanceof ManualDriver) {
            for (int c = 0; c < description.channels().size(); c++) {
                wanted.put(description.channels().get(c), description.units().get(c));
            }
        }
        return wanted;
    }

    /** Takes typed readings, one of each channel. @throws IOException with one sentence when they cannot be taken */
    public void enter(double... readings) throws IOException {
        if (!(driver instanceof ManualDriver manual)) {
            throw new IOException("This instrument sends its readings itself.");
        }
        manual.enter(readings);
    }

    /** Guards over the instrument's outputs, by name. */
    public Map<String, OutputGuard> outputs() {
        return outputs;
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
        RunRecorder now = recorder;
        String trouble = now == null ? afterwards : now.trouble();
        return !trouble.isEmpty() ? trouble : news.isEmpty() ? passedOver(driver.unreadable()) : news;
    }

    private static String passedOver(long n) {
        String lines = n + (n == 1 ? " line" : " lines");
        String were = n == 1 ? "was" : "were";
        return n == 0
                ? ""
                : lines + " from the instrument could not be understood and " + were
                        + " passed over. Check its cable and settings.";
    }

    /** Free-running samples without recording. */
    private void monitor() throws IOException {
        live.clear();
        description
                .channels()
                .forEach(c -> live.put(
                        c, new GrowingSamples(ROOM / description.channels().size())));
        Map<String, GrowingSamples> target = Map.copyOf(live);
        news = "";
        startedAt = System.nanoTime();
        driver.start(new Driver.Sink() {
            @Override
            public void block(Driver.Block block) {
                RunRecorder keeps = recorder;
                Shot armed = shot;
                if (keeps != null && armed != null) {
                    armed.take(block, keeps::take);
                } else if (keeps != null) {
                    keeps.take(block);
                }
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

    private Optional<GrowingSamples> sent(String channel) {
        return Optional.ofNullable(live.get(input(channel)));
    }

    /** Samples of the last seconds of a channel of the sheet, as counts. */
    public synchronized RawSamples last(String channel, double seconds) {
        return sent(channel)
                .map(g -> wiring().counted(channel, g.last(seconds)))
                .orElse(RawSamples.NONE);
    }

    /** Samples of the last seconds of one of the instrument's own channels, as they came. */
    public synchronized RawSamples lastOfInput(String own, double seconds) {
        GrowingSamples g = live.get(own);
        return g == null ? RawSamples.NONE : g.last(seconds);
    }

    /**
     * Everything since sampling was last started, of the run while one is recorded, as far as it is still in memory. As
     * counts.
     */
    public synchronized RawSamples all(String channel) {
        return sent(channel).map(g -> wiring().counted(channel, g.all())).orElse(RawSamples.NONE);
    }

    /** True when {@link #all} holds everything since sampling was last started. */
    public synchronized boolean whole(String channel) {
        return sent(channel).map(GrowingSamples::whole).orElse(true);
    }

    /**
     * The outline of everything since sampling was last started, in the instrument's own numbers; empty when the
     * channel sends nothing.
     */
    public synchronized Optional<Pyramid> outline(String channel) {
        return sent(channel).map(GrowingSamples::outline);
    }

    /** Moment of the newest sample, s since sampling was last started. */
    public synchronized double end(String channel) {
        return sent(channel).map(GrowingSamples::end).orElse(0.0);
    }

    /** Seconds since sampling was last started: by the instrument's clock, or by ours where a person types. */
    public double clock(String channel) {
        return typed().isEmpty() ? end(channel) : (System.nanoTime() - startedAt) / 1e9;
    }

    /** How many samples of a channel came since sampling was last started. */
    public synchronized long count(String channel) {
        return sent(channel).map(GrowingSamples::count).orElse(0L);
    }

    /** Samples of each channel that came and could not be kept. */
    public long lost() {
        RunRecorder now = recorder;
        return now == null ? 0 : now.lost();
    }

    /** Tells a simulated rig what the hands do; does nothing with a real instrument. */
    public synchronized void arrange(Map<String, String> bench) throws IOException {
        if (isSimulated()) {
            driver.arrange(bench);
        }
    }

    /** Starts recording a run into a bench file; the clock starts at 0. */
    public synchronized void record(Run run, BenchFile file) throws IOException {
        record(run, file, 0);
    }

    /** Starts recording at a moment of the run at which it goes on, s: 0 for a new run. */
    public synchronized void record(Run run, BenchFile file, double from) throws IOException {
        prepare(run, file, from);
        monitor();
    }

    /**
     * Arms a shot: the run is recorded from a little before its trigger to a little after; time 0 is the trigger.
     *
     * @throws IllegalArgumentException with one sentence when the trigger makes no sense for its channel
     */
    public synchronized void arm(Run run, BenchFile file, Capture.ShotPlan plan) throws IOException {
        String on = plan.on() == null
                ? sheet.captures().get(run.capture()).channels().get(0)
                : plan.on();
        Channel channel =
                setups.getOrDefault(on, Setup.AS_SHEET).of(sheet.channels().get(on));
        Trigger trigger = Shot.trigger(plan, channel);
        int column = description.channels().indexOf(input(on));
        if (column < 0) {
            throw new IOException(label + " has no input for " + channel.label() + ".");
        }
        prepare(run, file, 0);
        shot = new Shot(trigger, column, Shot.measurand(channel, rawUnit(on)), plan.before(), plan.after());
        monitor();
    }

    /** True while a shot waits for its trigger. */
    public boolean isArmed() {
        return Optional.ofNullable(shot).map(s -> !s.fired()).orElse(false);
    }

    /** True once a shot is complete. */
    public boolean isShotDone() {
        return Optional.ofNullable(shot).map(Shot::done).orElse(false);
    }

    private void prepare(Run run, BenchFile file, double from) {
        if (from == 0) {
            file.begin(run);
        }
        driver.stop();
        shot = null;
        afterwards = "";
        recorder = new RunRecorder(run.id(), file::append, wiring().columns(run.capture()), from, MOST_WAITING);
    }

    /** True while a run is recorded. */
    public boolean isRecording() {
        return recorder != null;
    }

    /** Ends the run; all its samples are on disk when this returns. How many there are of each channel is returned. */
    public synchronized long finish() {
        driver.stop();
        RunRecorder done = recorder;
        if (done != null) {
            done.close();
            afterwards = done.trouble();
        }
        recorder = null;
        shot = null;
        try {
            if (driver.state() != Driver.State.LOST) {
                monitor();
            }
        } catch (IOException e) {
            news = e.getMessage();
        }
        return done == null ? 0 : done.kept();
    }

    public double rate() {
        return rate;
    }

    @Override
    public void close() {
        outputs.values().forEach(OutputGuard::close);
        driver.close();
        RunRecorder keeps = recorder;
        if (keeps != null) {
            keeps.close();
        }
        if (standIn != null) {
            try {
                standIn.close();
            } catch (IOException goesWithTheProgram) {
                // It is ours.
            }
        }
    }
}
