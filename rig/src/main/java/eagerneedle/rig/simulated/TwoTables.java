package eagerneedle.rig.simulated;

import eagerneedle.core.chain.Chain;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.sheet.Sheet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * Two indexing tables on each other with a mirror before an autocollimator, and a sine bar beside them. The angle seen
 * is the error of the lower table's interval less that of the upper one's; every setting of a table repeats to a
 * fraction of a second of arc. The intervals of a circle add up to a whole turn, so their errors add up to nothing.
 */
final class TwoTables extends HiddenRig {
    /**
     * Mistakes that a signal can show: turned the wrong way in one series, one reading misread, a zero not renewed, air
     * moving in the beam.
     */
    static final List<String> FAULTS = List.of("wrong-way", "misread", "zero-not-renewed", "air-currents");

    private static final double SETTING = 0.15;
    private static final double NOISE = 0.05;
    private static final double ERRORS = 3;
    private static final int FAULTY_SERIES = 3;

    private final Set<String> faults;
    private final Channel channel;
    private final Chain chain;
    private final double[] lower;
    private final double[] upper;
    private final double bar;
    private double angle;

    TwoTables(Sheet sheet, long seed, Set<String> faults) {
        super(seed);
        this.faults = faults;
        this.channel = sheet.channels().get("tables");
        this.chain = hidden.chain(channel);
        int n = channel.calibration().divisions();
        this.lower = circle(n, "lower");
        this.upper = circle(n, "upper");
        double length = hidden.read("bar_length", hidden.about(200.0, 0.0004), 0.0002, "mm", 4);
        double block = hidden.read("block", 200 * Math.sin(Math.PI / n) + hidden.about(0, 0.0004), 0.00025, "mm", 5);
        // The bar is set to half an interval on either side, so that its angle is twice that of the block.
        this.bar = 2 * Math.asin(block / length) - 2 * Math.PI / n;
        hidden.is("worst", java.util.Arrays.stream(lower).map(Math::abs).max().orElseThrow(), "arcsec");
    }

    private double[] circle(int n, String which) {
        double[] e = new double[n];
        double mean = 0;
        for (int i = 0; i < n; i++) {
            e[i] = hidden.about(0, ERRORS);
            mean += e[i] / n;
        }
        double sum = 0;
        for (int i = 0; i < n; i++) {
            e[i] -= mean;
            sum += e[i];
            hidden.is(which + "_" + (i + 1), e[i], "arcsec");
            if (i < n - 1) {
                hidden.is(which + "_mark_" + (i + 2), sum, "arcsec");
            }
        }
        return e;
    }

    @Override
    public List<String> channels() {
        return List.of("tables");
    }

    @Override
    public void arrange(Map<String, String> bench) {
        double setting = SETTING * (faults.contains("air-currents") ? 12 : 1) * hidden.random.nextGaussian();
        int n = lower.length;
        if (bench.containsKey("lower")) {
            int i = Integer.parseInt(bench.get("lower"));
            int k = (Integer.parseInt(bench.get("upper")) - i + n) % n;
            int j = faults.contains("wrong-way") && k == FAULTY_SERIES ? (k - i + n) % n : (i + k) % n;
            angle = lower[i]
                    - upper[j]
                    + setting
                    + (faults.contains("zero-not-renewed") && k == FAULTY_SERIES ? 1.8 : 0)
                    + (faults.contains("misread") && k == FAULTY_SERIES && i == 5 ? 4 : 0);
        } else if (bench.containsKey("capture")) {
            int i = Integer.parseInt(bench.getOrDefault("level", "g1").substring(1)) - 1;
            angle = lower[i] - bar / Math.PI * 180 * 3600 + setting;
        }
    }

    @Override
    public void begin() {}

    @Override
    public void advance(double seconds) {}

    @Override
    public double[] read() {
        return new double[] {
            chain.counts(angle + NOISE * (faults.contains("air-currents") ? 12 : 1) * hidden.random.nextGaussian())
        };
    }

    @Override
    public double duration() {
        return 3;
    }
}
