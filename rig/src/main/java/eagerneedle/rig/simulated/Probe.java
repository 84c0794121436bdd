package eagerneedle.rig.simulated;

import eagerneedle.core.chain.Chain;
import eagerneedle.core.physics.Draws;
import eagerneedle.core.physics.Hands;
import eagerneedle.core.physics.World;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.sheet.RigPlan;

/** One sensor of a simulated bench at its place. */
final class Probe {
    Channel channel;
    Chain hidden;
    double[] needed;
    double value;
    /** The reference at which it stands. */
    double standing;

    double from;
    double to;
    double settling = Double.NaN;
    double touched = Double.NaN;
    double zeroTurns;
    double spanTurns;
    /** True where the sheet does not say what turning the trims does, false also where there are none. */
    boolean turns;
    /** True where the sheet does not say what touching it does. */
    boolean feels;

    double[] trim;
    double noise;
    Draws.Stream stream;
    double last = Double.NaN;
    double noiseKnownAt = Double.NaN;

    /** With hidden errors as large as its links say, and what a hand does to it where the sheet does not say. */
    static Probe of(World world, RigPlan plan, String name, Channel channel) {
        Draws.Stream random = world.draws().stream("bench/" + name);
        Probe p = new Probe();
        p.channel = channel;
        p.turns = Hands.hasTrims(channel) && !Hands.turns(plan, name);
        p.feels = !Hands.touches(plan, name);
        p.stream = world.draws().stream("noise/" + name);
        p.hidden = Nature.chain(world, name, channel);
        p.needed = channel.needed().orElseGet(p.hidden::reach);
        double span = p.needed[1] - p.needed[0];
        p.from = p.needed[0] + 0.2 * span;
        p.to = p.needed[0] + (0.35 + 0.4 * (random.even() + 1) / 2) * span;
        p.value = p.from;
        p.standing = p.from;
        p.trim = new double[] {
            0.08 * span * random.even(),
            0.1 * random.even(),
            (random.even() > 0 ? 1 : -1) * 0.05 * span,
            (random.even() > 0 ? 1 : -1) * 0.08,
            0.4 * random.even() * span,
            0.02 * random.even()
        };
        return p;
    }

    /** True when the physics of the sheet says what hands do to it. */
    boolean isHandled() {
        return !feels || Hands.hasTrims(channel) && !turns;
    }
}
