package eagerneedle.rig.simulated;

import eagerneedle.core.physics.Draws;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.trace.DeviceClock;
import eagerneedle.core.trace.RawSamples;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * The clocks of several instruments at one bench: each begins when it was told to, runs as fast as its crystal, and is
 * known as well as the arrival of its samples allows.
 */
final class Clocks {
    /** Standard deviation of a crystal's rate. */
    private static final double CRYSTAL = 50e-6;
    /** By how much one instrument begins later than another, at most, s. */
    private static final double LATEST = 0.05;
    /** The longest that the quickest sample is on its way, s. */
    private static final double WAY = 0.002;
    /** Standard uncertainty of an offset that a run tells, s. */
    private static final double OFFSET = 1e-4;
    /** What least lags scatter by, s. */
    private static final double LAG = 4e-4;

    private static final double ANY_CRYSTAL = 200e-6;

    private final Sheet sheet;
    private final Draws draws;

    Clocks(Sheet sheet, Draws draws) {
        this.sheet = sheet;
        this.draws = draws;
    }

    /** The instruments that record a capture; one or none where their clocks do not matter. */
    static List<String> devices(Sheet sheet, Capture capture) {
        Set<String> out = new LinkedHashSet<>();
        capture.channels().stream()
                .map(c -> sheet.channel(c).device())
                .filter(d -> d != null && sheet.devices().containsKey(d))
                .forEach(out::add);
        return List.copyOf(out);
    }

    /** How fast the clock of an instrument runs: 50e-6 for 50 ppm too fast. */
    double rate(String device) {
        return CRYSTAL * draws.normal("clock/" + device + "/rate");
    }

    private double begins(String device, int run) {
        return LATEST * (1 + draws.even("clock/" + device + "/begins/" + run)) / 2;
    }

    /** Samples of a run with the stamps that their instruments gave them. */
    Map<String, RawSamples> stamped(Map<String, RawSamples> samples, int run) {
        Map<String, RawSamples> out = new LinkedHashMap<>();
        samples.forEach((channel, raw) -> {
            String device = sheet.channel(channel).device();
            out.put(channel, device == null ? raw : stamped(raw, begins(device, run), 1 + rate(device)));
        });
        return out;
    }

    private static RawSamples stamped(RawSamples raw, double begins, double rate) {
        double[] t = new double[raw.size()];
        for (int i = 0; i < t.length; i++) {
            t[i] = (raw.time()[i] - begins) * rate;
        }
        return new RawSamples(t, raw.values());
    }

    /**
     * What following the clocks of a run says of them.
     *
     * @param seconds how long the run lasted
     */
    Map<String, DeviceClock> known(List<String> devices, int run, double seconds) {
        Map<String, DeviceClock> out = new LinkedHashMap<>();
        double uRate = 1 / Math.sqrt(1 / (ANY_CRYSTAL * ANY_CRYSTAL) + seconds * seconds * seconds / (3 * LAG * LAG));
        for (String d : devices) {
            double middle = (seconds / 2 - begins(d, run)) * (1 + rate(d));
            double offset = seconds / 2 - middle;
            double wrong = WAY / 2 * draws.even("clock/" + d + "/way")
                    + OFFSET * draws.normal("clock/" + d + "/offset/" + run);
            double rate = 1 / (1 + rate(d)) - 1 + uRate * draws.normal("clock/" + d + "/drift/" + run);
            out.put(
                    d,
                    new DeviceClock(
                            List.of(new DeviceClock.Piece(0, middle, offset + wrong, rate, OFFSET, uRate)),
                            WAY / Math.sqrt(12)));
        }
        return out;
    }
}
