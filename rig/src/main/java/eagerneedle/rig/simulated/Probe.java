package eagerneedle.rig.simulated;

import eagerneedle.core.chain.Chain;
import eagerneedle.core.physics.Draws;
import eagerneedle.core.physics.Hands;
import eagerneedle.core.physics.World;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.sheet.RigPlan;

/** One sensor of a simulated bench at its place. */
final class Probe {
    /** Time in which it settles towards where it is put, s. */
    static final double SETTLES = 1;

    private static final double TOUCH_SECONDS = 3;

    final Channel channel;
    final Chain hidden;
    final double[] needed;
    double value;
    /** The reference at which it stands. */
    double standing;

    final double from;
    final double to;
    double settling = Double.NaN;
    double touched = Double.NaN;
    double zeroTurns;
    double spanTurns;
    /** True where the sheet does not say what turning the trims does, false also where there are none. */
    final boolean turns;
    /** True where the sheet does not say what touching it does. */
    final boolean feels;

    final double[] trim;
    double noise;
    Draws.Stream stream;
    double last = Double.NaN;
    double noiseKnownAt = Double.NaN;

    /** With hidden errors as large as its links say, and what a hand does to it where the sheet does not say. */
    Probe(World world, RigPlan plan, String name, Channel channel) {
        Draws.Stream random = world.draws().stream("bench/" + name);
        this.channel = channel;
        turns = Hands.hasTrims(channel) && !Hands.turns(plan, name);
        feels = !Hands.touches(plan, name);
        stream = world.draws().stream("noise/" + name);
        hidden = Nature.chain(world, name, channel);
        needed = channel.needed().orElseGet(hidden::reach);
        double span = needed[1] - needed[0];
        from = needed[0] + 0.2 * span;
        to = needed[0] + (0.35 + 0.4 * (random.even() + 1) / 2) * span;
        value = from;
        standing = from;
        trim = new double[] {
            0.08 * span * random.even(),
            0.1 * random.even(),
            (random.even() > 0 ? 1 : -1) * 0.05 * span,
            (random.even() > 0 ? 1 : -1) * 0.08,
            0.4 * random.even() * span,
            0.02 * random.even()
        };
    }

    /** Where it sits; what it is called where nothing is said. */
    String place() {
        return channel.position() == null ? channel.label() : channel.position();
    }

    /** True when the physics of the sheet says what hands do to it. */
    boolean isHandled() {
        return !feels || Hands.hasTrims(channel) && !turns;
    }

    void settles(double seconds) {
        if (!Double.isNaN(settling)) {
            settling += seconds;
            value = to + (from - to) * Math.exp(-settling / SETTLES);
        }
    }

    void touchedSince(double seconds) {
        touched = feels && touched > 4 * TOUCH_SECONDS ? Double.NaN : touched + seconds;
    }

    /** True once it has been read. */
    boolean isRead() {
        return !Double.isNaN(last);
    }

    /** What hands make of a value: a touch that fades, and trims that were turned. */
    double handled(double value) {
        double out = value;
        if (feels && !Double.isNaN(touched)) {
            double t = touched / TOUCH_SECONDS;
            out += 0.3 * span() * t * Math.exp(1 - t);
        }
        if (turns) {
            double gain = 1 + trim[1] + trim[3] * spanTurns + trim[5] * zeroTurns / 10;
            out = gain * out + trim[0] + trim[2] * zeroTurns + trim[4] * trim[3] * spanTurns;
        }
        return out;
    }

    private double span() {
        return needed[1] - needed[0];
    }

    /** The same with the sensor the other way round, about where it stands still. */
    double turnedRound(double value) {
        double still = -needed[0] > needed[1] / 2 ? 0 : needed[0];
        return 2 * still - value;
    }

    /** The counts of an ideal chain, which are not whole, within the reach of its converter. */
    double exactly(double value) {
        double exact = hidden.exactCounts(value);
        return Math.max(
                hidden.converter().lowestCount(), Math.min(hidden.converter().highestCount(), exact));
    }

    /**
     * The counts of the next conversion.
     *
     * @param open a lead is: the converter is driven to its end
     */
    double counts(double value, boolean open) {
        if (!(Math.abs(value - noiseKnownAt) <= 1e-3 * span())) {
            double now = Math.max(hidden.noiseAt(value), 0.2 * hidden.stepAt(value)) / Math.sqrt(channel.average());
            noise = Double.isFinite(now) ? now : 0;
            noiseKnownAt = value;
        }
        double noisy = value + noise * stream.normal();
        double count = open ? hidden.converter().highestCount() : hidden.counts(noisy);
        last = Double.isNaN(count) ? hidden.converter().highestCount() : count;
        return last;
    }
}
