package eagerneedle.app.workbench;

import eagerneedle.core.session.Run;
import eagerneedle.core.session.Setup;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.sheet.ShotPlan;
import eagerneedle.core.trace.DeviceClock;
import eagerneedle.core.trace.Pyramid;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.rig.driver.Driver;
import eagerneedle.rig.driver.ManualDriver;
import eagerneedle.rig.driver.OutputGuard;
import eagerneedle.rig.simulated.LineStandIn;
import eagerneedle.store.bench.BenchFile;
import java.io.IOException;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/**
 * The connected instruments: live samples, and the run that they record together.
 *
 * <p>Blocks come on the drivers' threads and are only appended in memory there; a {@link RunRecorder} for each
 * instrument writes them to the bench file, so that neither a slow disk nor a slow view holds a driver up, and one that
 * falls silent holds up none of the others. Where several record, each stamps by its own clock; how these stand to each
 * other is kept with the run.
 */
public final class LiveRig implements AutoCloseable {
    /** The simulated rig of this bench: the same hidden truth in every session at it. */
    public static final long BENCH_SEED = 7;

    private final Sheet sheet;
    private final List<Connection> connections;
    private final Map<String, OutputGuard> outputs = new LinkedHashMap<>();
    private volatile Map<String, Setup> setups = Map.of();
    private volatile Recording recording = Recording.NONE;

    private LiveRig(Sheet sheet, List<Connection> connections) throws IOException {
        this.sheet = sheet;
        this.connections = List.copyOf(connections);
        connections.forEach(c -> outputs.putAll(c.outputs()));
        try {
            monitor();
        } catch (IOException e) {
            connections.forEach(Connection::close);
            throw e;
        }
    }

    /**
     * Connects to instruments, one after the other; all of them or none.
     *
     * @param ways by device of the sheet, in order; the clock of a run is counted from the first
     * @param rates samples a second, by device
     * @throws IOException with one sentence if one of them does not answer
     */
    public static LiveRig to(Sheet sheet, Map<String, Way> ways, Map<String, Double> rates) throws IOException {
        return new LiveRig(sheet, Connecting.all(sheet, ways, rates));
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
        return to(sheet, Map.of(device, new Way.Simulated(pace, faults)), Map.of(device, rate));
    }

    /** Connects to a device at an address, see {@link Way.At}. */
    public static LiveRig at(Sheet sheet, String device, String address, double rate) throws IOException {
        return to(sheet, Map.of(device, new Way.At(address)), Map.of(device, rate));
    }

    /** True when another sheet asks of the instruments what this one did. */
    public boolean fits(Sheet other) {
        return Connecting.asked(other).equals(Connecting.asked(sheet));
    }

    /** What the channels are set up as: which input each is wired to. */
    public void setUp(Map<String, Setup> how) {
        setups = how;
    }

    /** The instrument that reads a channel of the sheet; the first where none does. */
    private Connection reading(String channel) {
        return connections.stream()
                .filter(c -> c.wiring(setups).reads(channel))
                .findFirst()
                .orElse(connections.get(0));
    }

    private Wiring wiring(String channel) {
        return reading(channel).wiring(setups);
    }

    private Optional<GrowingSamples> sent(String channel) {
        Wiring w = wiring(channel);
        return w.reads(channel) ? reading(channel).samples(w.input(channel)) : Optional.empty();
    }

    /** What the samples of a channel are in: counts, or the unit the instrument measures in. */
    public String rawUnit(String channel) {
        return wiring(channel).rawUnit(channel);
    }

    /** A new run at these instruments, not yet begun. */
    public Run run(int id, String capture, String level, java.time.Instant now) {
        Map<String, String> units = new HashMap<>();
        sheet.capture(capture).channels().stream()
                .filter(c -> !rawUnit(c).equals(Run.COUNTS))
                .forEach(c -> units.put(c, rawUnit(c)));
        return Run.captured(id, capture, level, now, label(), Run.COUNTS)
                .measuredIn(units)
                .setUp(setups);
    }

    /** The channels whose readings a person types, in order, with their units; empty for instruments that send them. */
    public Map<String, String> typed() {
        Map<String, String> wanted = new LinkedHashMap<>();
        connections.stream()
                .filter(Connection::isByHand)
                .map(Connection::description)
                .forEach(d -> {
                    for (int c = 0; c < d.channels().size(); c++) {
                        wanted.put(d.channels().get(c), d.units().get(c));
                    }
                });
        return wanted;
    }

    /** Takes typed readings, one of each channel. @throws IOException with one sentence when they cannot be taken */
    public void enter(double... readings) throws IOException {
        Optional<Connection> hand =
                connections.stream().filter(Connection::isByHand).findFirst();
        if (hand.isEmpty() || !(hand.get().driver() instanceof ManualDriver manual)) {
            throw new IOException("This instrument sends its readings itself.");
        }
        manual.enter(readings);
    }

    /** Guards over the instruments' outputs, by name. */
    public Map<String, OutputGuard> outputs() {
        return outputs;
    }

    /** The devices of the sheet that are connected, in order. */
    public List<String> devices() {
        return connections.stream().map(Connection::device).toList();
    }

    public String label() {
        return connections.stream()
                .map(Connection::label)
                .reduce((a, b) -> a + ", " + b)
                .orElse("");
    }

    /** Of all instruments, in order. */
    public List<Standing> standings() {
        return connections.stream().map(Connection::standing).toList();
    }

    /** Inputs of all instruments. */
    public List<String> channels() {
        return new Inputs(connections).names();
    }

    public boolean isSimulated() {
        return connections.stream().allMatch(c -> c.description().simulated());
    }

    /** The stand-in behind the first instrument, for tests that let it misbehave; null for a real one. */
    public @Nullable LineStandIn standIn() {
        return connections.get(0).standIn().orElse(null);
    }

    /** The stand-in behind an instrument; null for a real one. */
    public @Nullable LineStandIn standIn(String device) {
        return connections.stream()
                .filter(c -> c.device().equals(device))
                .findFirst()
                .flatMap(Connection::standIn)
                .orElse(null);
    }

    /** How it stands with the worst of the instruments. */
    public Driver.State state() {
        return connections.stream()
                .map(c -> c.driver().state())
                .max(Comparator.comparingInt(Enum::ordinal))
                .orElse(Driver.State.CLOSED);
    }

    /** The latest that the drivers said, the worst first; empty if all is well. */
    public String news() {
        String trouble = recording.trouble();
        return !trouble.isEmpty()
                ? trouble
                : connections.stream()
                        .filter(c -> !c.news().isEmpty())
                        .sorted(Comparator.comparing(
                                        (Connection c) -> c.driver().state())
                                .reversed())
                        .map(c -> connections.size() < 2 ? c.news() : c.label() + ": " + c.news())
                        .collect(Collectors.joining(" "));
    }

    /** Samples from now on; one of several instruments that cannot is told and holds up none of the others. */
    private void monitor() throws IOException {
        int running = 0;
        for (Connection c : connections) {
            try {
                c.sample(block -> recording.take(c, block));
                running++;
            } catch (IOException e) {
                if (connections.size() == 1) {
                    throw e;
                }
                c.news(String.valueOf(e.getMessage()));
            }
        }
        if (running == 0) {
            throw new IOException("None of the instruments can be started; connect them again.");
        }
    }

    /** Samples of the last seconds of a channel of the sheet, as counts. */
    public RawSamples last(String channel, double seconds) {
        return sent(channel)
                .map(g -> wiring(channel).counted(channel, g.last(seconds)))
                .orElse(RawSamples.NONE);
    }

    /** Samples of the last seconds of one of {@link #channels}, as they came. */
    public RawSamples lastOfInput(String own, double seconds) {
        return new Inputs(connections).last(own, seconds);
    }

    /** Counts since sampling was last started, of the run while one is recorded, as far as still in memory. */
    public RawSamples all(String channel) {
        return sent(channel).map(g -> wiring(channel).counted(channel, g.all())).orElse(RawSamples.NONE);
    }

    /** So many of {@link #all}, evenly chosen; all of them where they are fewer. */
    public RawSamples thinned(String channel, int most) {
        return sent(channel)
                .map(g -> wiring(channel).counted(channel, g.thinned(most)))
                .orElse(RawSamples.NONE);
    }

    /** True when {@link #all} holds everything since sampling was last started. */
    public boolean whole(String channel) {
        return sent(channel).map(GrowingSamples::whole).orElse(true);
    }

    /**
     * The outline of everything since sampling was last started, in the instrument's own numbers; empty when the
     * channel sends nothing.
     */
    public Optional<Pyramid> outline(String channel) {
        return sent(channel).map(GrowingSamples::outline);
    }

    /** Moment of the newest sample, s since sampling was last started. */
    public double end(String channel) {
        return sent(channel).map(GrowingSamples::end).orElse(0.0);
    }

    /** Seconds since sampling was last started: by the instrument's clock, or by ours where a person types. */
    public double clock(String channel) {
        return reading(channel).isByHand() ? reading(channel).passed() : end(channel);
    }

    /** How many samples of a channel came since sampling was last started. */
    public long count(String channel) {
        return sent(channel).map(GrowingSamples::count).orElse(0L);
    }

    /** Samples of each channel that came and could not be kept. */
    public long lost() {
        return recording.lost();
    }

    /** Tells simulated instruments what the hands do; real ones are told nothing. */
    public synchronized void arrange(Map<String, String> bench) throws IOException {
        for (Connection c : connections) {
            try {
                if (c.description().simulated()) {
                    c.driver().arrange(bench);
                }
            } catch (IOException gone) {
                if (connections.size() == 1) {
                    throw gone;
                }
                c.news(String.valueOf(gone.getMessage()));
            }
        }
    }

    /** Starts recording a run into a bench file; the clock starts at 0. */
    public synchronized void record(Run run, BenchFile file) throws IOException {
        record(run, file, 0);
    }

    /** Starts recording at a moment of the run at which it goes on, s: 0 for a new run. */
    public synchronized void record(Run run, BenchFile file, double from) throws IOException {
        if (from > 0 && connections.size() > 1) {
            throw new IOException("A run of several instruments cannot be gone on with; take a new one.");
        }
        begin(Recording.of(run, file, from, connections, setups));
    }

    /**
     * Arms a shot: the run is recorded from a little before its trigger to a little after; time 0 is the trigger.
     *
     * @throws IllegalArgumentException with one sentence when the trigger makes no sense for its channel
     */
    public synchronized void arm(Run run, BenchFile file, ShotPlan plan) throws IOException {
        String on = plan.on() == null ? sheet.capture(run.capture()).channels().get(0) : plan.on();
        if (connections.size() > 1) {
            throw new IOException("A shot is taken with one instrument; disconnect the others.");
        }
        Channel channel = setups.getOrDefault(on, Setup.AS_SHEET).of(sheet.channel(on));
        int column = reading(on).description().channels().indexOf(wiring(on).input(on));
        if (column < 0) {
            throw new IOException(label() + " has no input for " + channel.label() + ".");
        }
        Shot shot = new Shot(
                Shot.trigger(plan, channel), column, Shot.measurand(channel, rawUnit(on)), plan.before(), plan.after());
        begin(Recording.of(run, file, 0, connections, setups).when(shot));
    }

    private void begin(Recording next) throws IOException {
        connections.forEach(c -> c.driver().stop());
        recording = next;
        monitor();
    }

    /** True while a shot waits for its trigger. */
    public boolean isArmed() {
        return recording.isArmed();
    }

    /** True once a shot is complete. */
    public boolean isShotDone() {
        return recording.isShotDone();
    }

    /** True while a run is recorded. */
    public boolean isRecording() {
        return recording.isOpen();
    }

    /** Ends the run; all its samples are on disk when this returns. How many there are of each channel is returned. */
    public synchronized long finish() {
        connections.forEach(c -> c.driver().stop());
        recording = recording.ended();
        try {
            if (state() != Driver.State.LOST || connections.size() > 1) {
                monitor();
            }
        } catch (IOException e) {
            connections.get(0).news(String.valueOf(e.getMessage()));
        }
        return recording.kept();
    }

    /** How the clocks of the instruments stood in the run that was recorded last; empty for one instrument. */
    public Map<String, DeviceClock> clocks() {
        return recording.clocks();
    }

    /** How the clock of a channel's instrument stands now to that of the run; empty for one instrument. */
    public Optional<DeviceClock> clockNow(String channel) {
        var all = recording.isOpen() ? recording.recorders().keySet() : connections;
        return Optional.ofNullable(Connection.together(all).get(reading(channel).device()));
    }

    /** Of the fastest instrument, samples a second. */
    public double rate() {
        return connections.stream().mapToDouble(Connection::rate).max().orElse(1);
    }

    @Override
    public void close() {
        connections.forEach(Connection::close);
        recording = recording.ended();
    }
}
