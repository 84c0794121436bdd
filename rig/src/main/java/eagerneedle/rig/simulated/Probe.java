package eagerneedle.rig.simulated;

import eagerneedle.core.chain.Chain;
import eagerneedle.core.physics.Draws;
import eagerneedle.core.sheet.Channel;

/** One sensor of a simulated bench at its place. */
final class Probe {
    Channel channel;
    Chain hidden;
    double[] needed;
    double value;
    double from;
    double to;
    double settling = Double.NaN;
    double touched = Double.NaN;
    double zeroTurns;
    double spanTurns;
    double[] trim;
    double noise;
    Draws.Stream stream;
    double last = Double.NaN;
    double noiseKnownAt = Double.NaN;
}
