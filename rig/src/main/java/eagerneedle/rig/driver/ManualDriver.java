package eagerneedle.rig.driver;

import java.io.IOException;
import java.util.List;
import java.util.function.LongSupplier;

/** Readings that a person types: each entry is one sample of all channels, at the moment it is entered. */
public final class ManualDriver extends Sampler {
    private final String label;
    private final List<String> channels;
    private final List<String> units;
    private final LongSupplier nanos;
    private final BlockBuilder batch = new BlockBuilder();
    private long start;

    /** @param nanos a clock that only rises, in ns */
    public ManualDriver(String label, List<String> channels, List<String> units, LongSupplier nanos) {
        this.label = label;
        this.channels = channels;
        this.units = units;
        this.nanos = nanos;
    }

    @Override
    public double longestWay() {
        return 1e-3;
    }

    @Override
    public Description open() {
        state = State.READY;
        return new Description("manual", label, channels, units, false);
    }

    @Override
    public void configure(double rate) {
        // A person decides.
    }

    @Override
    public void start(Sink newSink) {
        batch.restart(0);
        start = nanos.getAsLong();
        sink = newSink;
        state = State.RUNNING;
    }

    /**
     * Takes one reading of every channel, in the units of the description.
     *
     * @throws IOException with one sentence when readings are not taken now or their number is wrong
     */
    public void enter(double... values) throws IOException {
        Sink to = sink;
        if (to == null) {
            throw new IOException("No run is open; start one, then enter the reading.");
        }
        if (values.length != channels.size()) {
            throw new IOException("One reading of each is wanted: " + String.join(", ", channels) + ".");
        }
        double[] row = new double[values.length + 1];
        row[0] = (nanos.getAsLong() - start) / 1e9;
        for (int i = 0; i < values.length; i++) {
            if (!Double.isFinite(values[i])) {
                throw new IOException("The reading of " + channels.get(i) + " is not a number.");
            }
            row[i + 1] = values[i];
        }
        if (batch.add(row)) {
            to.block(batch.take());
        }
    }

    @Override
    public void stop() {
        sink = null;
        state = state == State.RUNNING ? State.READY : state;
    }
}
