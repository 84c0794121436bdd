package eagerneedle.app.workbench;

import eagerneedle.core.capture.ClockFollower;
import eagerneedle.core.session.Setup;
import eagerneedle.core.sheet.Device;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.trace.DeviceClock;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.rig.driver.Driver;
import eagerneedle.rig.driver.ManualDriver;
import eagerneedle.rig.driver.OutputGuard;
import eagerneedle.rig.simulated.LineStandIn;
import java.io.IOException;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;

/**
 * One connected instrument: what it says of itself, its newest samples, its outputs, and how its clock stands to this
 * computer's. Blocks come on the driver's own thread.
 */
final class Connection implements AutoCloseable {
    private static final int ROOM = 4_000_000;

    private final String device;
    private final Sheet sheet;
    private final Driver driver;
    private final @Nullable LineStandIn standIn;
    private final Driver.Description description;
    private final String label;
    private final double rate;
    private final double pace;
    private final Map<String, OutputGuard> outputs = new LinkedHashMap<>();
    private final Map<String, GrowingSamples> live = new LinkedHashMap<>();
    private volatile String news = "";
    private volatile long startedAt;
    private ClockFollower clock;
    private double anew = Double.NaN;

    /**
     * Opens an instrument and sets its rate.
     *
     * @param device which of the sheet's
     * @param standIn behind a simulated one, otherwise null
     * @param pace how much faster than this computer's clock its own is meant to run: 1 for real time
     */
    Connection(Sheet sheet, String device, Driver driver, @Nullable LineStandIn standIn, double rate, double pace)
            throws IOException {
        this.sheet = sheet;
        this.device = device;
        this.driver = driver;
        this.standIn = standIn;
        this.rate = rate;
        this.pace = pace;
        this.clock = new ClockFollower(driver.longestWay());
        Device d = Objects.requireNonNull(sheet.devices().get(device));
        try {
            this.description = driver.open();
            this.label = standIn != null || description.label().isBlank() ? d.label() : description.label();
            d.outputs()
                    .forEach((name, limits) ->
                            outputs.put(name, new OutputGuard(driver, name, limits, sentence -> news = sentence)));
            driver.configure(rate);
        } catch (IOException e) {
            driver.close();
            throw e;
        }
    }

    String device() {
        return device;
    }

    Driver driver() {
        return driver;
    }

    Optional<LineStandIn> standIn() {
        return Optional.ofNullable(standIn);
    }

    Driver.Description description() {
        return description;
    }

    String label() {
        return label;
    }

    /** How it stands with it. */
    Standing standing() {
        return new Standing(device, label, driver.state(), description.simulated());
    }

    double rate() {
        return rate;
    }

    Map<String, OutputGuard> outputs() {
        return outputs;
    }

    Wiring wiring(Map<String, Setup> setups) {
        return new Wiring(sheet, device, description, setups);
    }

    boolean isByHand() {
        return driver instanceof ManualDriver;
    }

    /** Samples from now on, from 0; every block is told. */
    void sample(Consumer<Driver.Block> keep) throws IOException {
        Map<String, GrowingSamples> fresh = new LinkedHashMap<>();
        description
                .channels()
                .forEach(c -> fresh.put(
                        c, new GrowingSamples(ROOM / description.channels().size())));
        synchronized (this) {
            live.clear();
            live.putAll(fresh);
            clock = new ClockFollower(driver.longestWay());
            anew = Double.NaN;
        }
        news = "";
        startedAt = System.nanoTime();
        driver.start(new Driver.Sink() {
            @Override
            public void block(Driver.Block block) {
                follow(block);
                keep.accept(block);
                for (int c = 0; c < description.channels().size(); c++) {
                    Objects.requireNonNull(fresh.get(description.channels().get(c)))
                            .add(block.time(), block.counts()[c]);
                }
            }

            @Override
            public void state(Driver.State state, String sentence) {
                news = state == Driver.State.RUNNING ? "" : sentence;
            }

            @Override
            public void clockSet(double from) {
                setAnew(from);
            }
        });
    }

    private synchronized void setAnew(double from) {
        anew = from;
    }

    /** The last sample of a block has just arrived; those before it lay in a buffer for nobody knows how long. */
    private synchronized void follow(Driver.Block block) {
        if (block.size() == 0) {
            return;
        }
        double now = pace * System.nanoTime() / 1e9;
        double last = block.time()[block.size() - 1];
        if (last >= anew) {
            double first = anew;
            for (int i = block.size() - 1; i >= 0 && block.time()[i] >= anew; i--) {
                first = block.time()[i];
            }
            clock.jumped(first, now - (last - first));
            anew = Double.NaN;
        }
        clock.take(last, now);
    }

    /** How its clock stands to this computer's, as far as anything came; s of {@code zero} is where a run begins. */
    synchronized Optional<DeviceClock> clock(double zero) {
        return clock.isEmpty() ? Optional.empty() : Optional.of(clock.clock(zero));
    }

    /** How the clocks of those that recorded stood to each other; the first began at 0. */
    static Map<String, DeviceClock> together(Collection<Connection> recorded) {
        if (recorded.size() < 2) {
            return Map.of();
        }
        double zero = recorded.stream()
                .flatMap(c -> c.clock(0).stream())
                .findFirst()
                .map(c -> c.time(0))
                .orElse(0.0);
        Map<String, DeviceClock> out = new LinkedHashMap<>();
        recorded.forEach(c -> c.clock(zero).ifPresent(clock -> out.put(c.device(), clock)));
        return out;
    }

    /** Newest samples of one of its own channels; none for one that it does not have. */
    synchronized Optional<GrowingSamples> samples(String own) {
        return Optional.ofNullable(live.get(own));
    }

    RawSamples last(String own, double seconds) {
        return samples(own).map(g -> g.last(seconds)).orElse(RawSamples.NONE);
    }

    /** Seconds since it was started, by this computer's clock. */
    double passed() {
        return (System.nanoTime() - startedAt) / 1e9;
    }

    /** The latest that there is to say of it; empty when all is well. */
    String news() {
        return news.isEmpty() ? passedOver(driver.unreadable()) : news;
    }

    void news(String sentence) {
        news = sentence;
    }

    private static String passedOver(long n) {
        String lines = n + (n == 1 ? " line" : " lines");
        String were = n == 1 ? "was" : "were";
        return n == 0
                ? ""
                : lines + " from the instrument could not be understood and " + were
                        + " passed over. Check its cable and settings.";
    }

    @Override
    public void close() {
        outputs.values().forEach(OutputGuard::close);
        driver.close();
        if (standIn != null) {
            try {
                standIn.close();
            } catch (IOException goesWithTheProgram) {
                news = "";
            }
        }
    }
}
