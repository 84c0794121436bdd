package eagerneedle.rig.simulated;

import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.sheet.Sheet;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;

/**
 * What one of several instruments sees of a bench: its own channels. Each instrument has a bench of its own from the
 * same seed; since all that nature does is drawn by what it is for, they are one bench, as long as hands do the same at
 * all of them.
 */
final class OneDevice implements SimulatedRig {
    private final SimulatedRig bench;
    private final List<String> channels = new ArrayList<>();
    private final List<Integer> columns = new ArrayList<>();
    private final boolean gate;

    /** @param device one of the sheet */
    OneDevice(SimulatedRig bench, Sheet sheet, String device) {
        this.bench = bench;
        this.gate = "gate"
                .equals(Objects.requireNonNull(sheet.devices().get(device)).driver());
        List<String> all = List.copyOf(sheet.channels().keySet());
        for (int i = 0; i < all.size(); i++) {
            if (device.equals(sheet.channel(all.get(i)).device())) {
                columns.add(i);
                channels.add(bench.channels().get(i));
            }
        }
    }

    private double[] own(double[] all, int first) {
        double[] out = new double[first + columns.size()];
        System.arraycopy(all, 0, out, 0, first);
        for (int i = 0; i < columns.size(); i++) {
            out[first + i] = all[first + columns.get(i)];
        }
        return out;
    }

    @Override
    public List<String> channels() {
        return List.copyOf(channels);
    }

    @Override
    public void arrange(Map<String, String> hands) {
        bench.arrange(hands);
    }

    @Override
    public void begin() {
        bench.begin();
    }

    @Override
    public void advance(double seconds) {
        bench.advance(seconds);
    }

    @Override
    public double[] read() {
        return own(bench.read(), 0);
    }

    @Override
    public boolean isGate() {
        return gate;
    }

    @Override
    public List<double[]> edges() {
        return gate ? bench.edges().stream().map(e -> own(e, 1)).toList() : List.of();
    }

    @Override
    public Map<String, String> byEye() {
        return bench.byEye();
    }

    @Override
    public boolean calibrates(String channel) {
        return bench.calibrates(channel);
    }

    @Override
    public double duration() {
        return bench.duration();
    }

    @Override
    public Map<String, Quantity> truth() {
        return bench.truth();
    }

    @Override
    public Map<String, String> readings() {
        return bench.readings();
    }
}
