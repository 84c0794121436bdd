package eagerneedle.rig.simulated;

import eagerneedle.core.chain.Chain;
import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.formula.Scope;
import eagerneedle.core.formula.Value;
import eagerneedle.core.formula.Written;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.quantity.Reading;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.sheet.Sheet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;

/**
 * A bench of sensors made from a sheet alone: every channel is its chain with hidden errors drawn from what its links
 * are uncertain of, and hidden true inputs drawn from theirs. It can be calibrated in every way, touched, and adjusted
 * by its trims; in a run each channel settles towards a hidden value. So any sheet can be rehearsed before it has
 * physics of its own.
 */
final class ChainRig implements RigModel {
    /** Mistakes that a signal can show: two leads exchanged, the second channel turned round, the first one open. */
    static final List<String> FAULTS = List.of("swapped", "reversed", "open");

    private static final double TOUCH_SECONDS = 3;
    private static final double SETTLES = 1;

    private final Sheet sheet;
    private final Hidden hidden;
    private final Random random;
    private final Set<String> faults;
    private final List<String> names;
    private final Map<String, Probe> probes = new LinkedHashMap<>();
    private double[][] circles;
    private Felt felt = (channel, value) -> value;

    /** What a sensor makes of the value at its place during a run. */
    interface Felt {
        double at(String channel, double value);
    }

    /** One sensor at its place. */
    private static final class Probe {
        private Channel channel;
        private Chain hidden;
        private double[] needed;
        private double value;
        private double from;
        private double to;
        private double settles = SETTLES;
        private double settling = Double.NaN;
        private double touched = Double.NaN;
        private double zeroTurns;
        private double spanTurns;
        private double[] trim;
        private double noise;
        private double noiseKnownAt = Double.NaN;
    }

    ChainRig(Sheet sheet, long seed, Set<String> faults) {
        this.sheet = sheet;
        this.hidden = new Hidden(seed);
        this.random = hidden.random;
        this.faults = faults;
        this.names = List.copyOf(sheet.channels().keySet());
        sheet.inputs().forEach((name, input) -> {
            Quantity q = Written.quantity(input.value(), name, name, name);
            double u = q.u();
            double is = q.value() + 2 * u * random.nextGaussian();
            hidden.is(name, Quantity.exact(is, q.unit()));
            hidden.readsAs(
                    name,
                    u == 0
                            ? input.value()
                            : (Notation.bracketed(is + u * random.nextGaussian(), u) + " "
                                            + q.unit().symbol())
                                    .strip());
        });
        sheet.channels().forEach((name, channel) -> probes.put(name, probe(channel)));
        calibrations();
        results();
    }

    private Probe probe(Channel channel) {
        Probe p = new Probe();
        p.channel = channel;
        p.hidden = hidden.chain(channel);
        p.needed = channel.needed().orElseGet(p.hidden::reach);
        double[] needed = p.needed;
        p.from = needed[0] + 0.2 * (needed[1] - needed[0]);
        p.to = needed[0] + (0.35 + 0.4 * random.nextDouble()) * (needed[1] - needed[0]);
        p.value = p.from;
        double span = needed[1] - needed[0];
        p.trim = new double[] {
            0.08 * span * (2 * random.nextDouble() - 1),
            0.1 * (2 * random.nextDouble() - 1),
            (random.nextBoolean() ? 1 : -1) * 0.05 * span,
            (random.nextBoolean() ? 1 : -1) * 0.08,
            0.4 * (2 * random.nextDouble() - 1) * span,
            0.02 * (2 * random.nextDouble() - 1)
        };
        if (channel.calibration() != null && channel.calibration().divisions() != null) {
            circles = new double[][] {
                circle(channel.calibration().divisions(), span),
                circle(channel.calibration().divisions(), span)
            };
        }
        return p;
    }

    private double[] circle(int n, double span) {
        double[] e = new double[n];
        double mean = 0;
        for (int i = 0; i < n; i++) {
            e[i] = 0.08 * span * random.nextGaussian();
            mean += e[i] / n;
        }
        for (int i = 0; i < n; i++) {
            e[i] -= mean;
        }
        return e;
    }

    /** What a perfect calibration would find: for straight chains the line through two points of the hidden one. */
    private void calibrations() {
        probes.forEach((name, p) -> {
            if (p.channel.calibration() == null
                    || circles != null && p.channel.calibration().divisions() != null) {
                return;
            }
            double[] needed = p.needed;
            Chain nominal = p.channel.toChain();
            double a = nominal.indication(p.hidden.exactCounts(needed[0]));
            double b = nominal.indication(p.hidden.exactCounts(needed[1]));
            double slope = (needed[1] - needed[0]) / (b - a);
            hidden.is(name + ".slope", Quantity.number(slope));
            LabUnit unit = p.channel.labUnit().difference();
            hidden.is(name + ".intercept", Quantity.exact(needed[0] - slope * a, unit));
        });
    }

    /** The results that follow from hidden inputs and calibrations alone. */
    private void results() {
        sheet.results().forEach((name, d) -> {
            try {
                Value v = Formula.parse(d.formula())
                        .evaluate(Scope.over(
                                "truth",
                                hidden.truth().keySet(),
                                n -> Optional.ofNullable(hidden.truth().get(n)).map(Value.Scalar::new)));
                if (v instanceof Value.Scalar s) {
                    hidden.is(
                            name, d.unit() == null ? s.quantity() : s.quantity().to(LabUnit.parse(d.unit())));
                }
            } catch (FormulaException e) {
                // It needs captures; a rig of its own would know.
            }
        });
    }

    @Override
    public List<String> channels() {
        return sheet.channels().entrySet().stream()
                .map(e -> e.getValue().inputOr(e.getKey()))
                .toList();
    }

    @Override
    public void arrange(Map<String, String> bench) {
        Probe p = probes.get(bench.getOrDefault("channel", ""));
        if (bench.containsKey("touch")) {
            probes.values().stream()
                    .filter(q -> bench.get("touch").equals(place(q).replace(' ', '_'))
                            || bench.get("touch").equals(place(q)))
                    .forEach(q -> q.touched = 0);
        } else if (p != null && bench.containsKey("turn")) {
            double turns = Double.parseDouble(bench.get("turn"));
            if (bench.get("trim").equals("0")) {
                p.zeroTurns += turns;
            } else {
                p.spanTurns += turns;
            }
        } else if (p != null && bench.containsKey("lower")) {
            p.settling = Double.NaN;
            p.value =
                    circles[0][Integer.parseInt(bench.get("lower"))] - circles[1][Integer.parseInt(bench.get("upper"))];
        } else if (p != null && bench.containsKey("point")) {
            p.settling = Double.NaN;
            p.value = hidden.reference(p.channel, bench);
        } else if (bench.containsKey("reference")) {
            String only = bench.get("channel");
            probes.forEach((name, q) -> {
                if (only == null || only.equals(name)) {
                    Reading r = Reading.parse(bench.get("reference").replace('_', ' '));
                    if (r.unit().fits(q.channel.labUnit())) {
                        q.settling = Double.NaN;
                        q.value = r.unit().convert(r.value(), q.channel.labUnit())
                                + r.u() * r.unit().scaleTo(q.channel.labUnit()) * random.nextGaussian();
                    }
                }
            });
        } else if (bench.containsKey("capture")) {
            probes.values().forEach(q -> q.settling = 0);
        }
    }

    /** How a channel moves in a run: from a value to another one, both in its unit, with a time constant in s. */
    void settles(String channel, double from, double to, double seconds) {
        Probe p = probes.get(channel);
        p.from = from;
        p.to = to;
        p.settles = seconds;
    }

    /** Lets what sensors feel in a run differ from what is there. */
    void felt(Felt how) {
        felt = how;
    }

    /** The true value at a channel's place now. */
    double value(String channel) {
        return probes.get(channel).value;
    }

    Hidden hidden() {
        return hidden;
    }

    private static String place(Probe p) {
        return p.channel.position() == null ? p.channel.label() : p.channel.position();
    }

    @Override
    public void begin() {}

    @Override
    public void advance(double seconds) {
        probes.values().forEach(p -> {
            if (!Double.isNaN(p.settling)) {
                p.settling += seconds;
                p.value = p.to + (p.from - p.to) * Math.exp(-p.settling / p.settles);
            }
            p.touched = p.touched > 4 * TOUCH_SECONDS ? Double.NaN : p.touched + seconds;
        });
    }

    @Override
    public double[] read() {
        double[] counts = new double[names.size()];
        for (int i = 0; i < counts.length; i++) {
            counts[i] = counts(names.get(wired(i)), i);
        }
        return counts;
    }

    /** Which sensor is on an input: with leads exchanged, the first two channels of one unit change places. */
    private int wired(int input) {
        if (!faults.contains("swapped")) {
            return input;
        }
        int[] pair = pair();
        return input == pair[0] ? pair[1] : input == pair[1] ? pair[0] : input;
    }

    private int[] pair() {
        for (int i = 0; i < names.size(); i++) {
            for (int j = i + 1; j < names.size(); j++) {
                if (probes.get(names.get(i))
                        .channel
                        .unit()
                        .equals(probes.get(names.get(j)).channel.unit())) {
                    return new int[] {i, j};
                }
            }
        }
        return new int[] {0, 0};
    }

    private double counts(String name, int input) {
        Probe p = probes.get(name);
        double[] needed = p.needed;
        double span = needed[1] - needed[0];
        double value = Double.isNaN(p.settling) ? p.value : felt.at(name, p.value);
        if (!Double.isNaN(p.touched)) {
            double t = p.touched / TOUCH_SECONDS;
            value += 0.3 * span * t * Math.exp(1 - t);
        }
        if (p.channel.calibration() != null
                && "adjusted".equals(p.channel.calibration().relation())) {
            double[] k = p.trim;
            double gain = 1 + k[1] + k[3] * p.spanTurns + k[5] * p.zeroTurns / 10;
            value = gain * value + k[0] + k[2] * p.zeroTurns + k[4] * k[3] * p.spanTurns;
        }
        if (faults.contains("reversed") && input == Math.min(1, names.size() - 1)) {
            value = needed[0] - (value - needed[0]);
        }
        if (!(Math.abs(value - p.noiseKnownAt) <= 1e-3 * span)) {
            double noise =
                    Math.max(p.hidden.noiseAt(value), 0.2 * p.hidden.stepAt(value)) / Math.sqrt(p.channel.average());
            p.noise = Double.isFinite(noise) ? noise : 0;
            p.noiseKnownAt = value;
        }
        double noisy = value + p.noise * random.nextGaussian();
        double count =
                faults.contains("open") && input == 0 ? p.hidden.converter().highestCount() : p.hidden.counts(noisy);
        return Double.isNaN(count) ? p.hidden.converter().highestCount() : count;
    }

    @Override
    public double duration() {
        return 14 * SETTLES;
    }

    @Override
    public Map<String, Quantity> truth() {
        return hidden.truth();
    }

    /** Interval errors of the lower and of the upper circle, in the channel's unit; null without circles. */
    double[][] circles() {
        return circles;
    }

    @Override
    public Map<String, String> readings() {
        return hidden.readings();
    }
}
