package eagerneedle.core.physics;

import java.util.ArrayList;
import java.util.List;

/**
 * Noise of standard deviation 1 that is correlated in time, as exp(-|dt| / over): an Ornstein-Uhlenbeck process, exact
 * at a grid and straight in between, so that it is the same whenever it is asked for.
 */
final class Flutter implements Code {
    private static final int STEPS = 20;

    private final Draws.Stream stream;
    private final double step;
    private final double kept;
    private final double fresh;
    private final List<Double> path = new ArrayList<>();

    /** @param over correlation time, s */
    Flutter(Draws.Stream stream, double over) {
        this.stream = stream;
        this.step = over / STEPS;
        this.kept = StrictMath.exp(-1.0 / STEPS);
        this.fresh = StrictMath.sqrt(1 - kept * kept);
        path.add(stream.normal());
    }

    @Override
    public double at(Moment m) {
        double place = Math.max(0, m.t) / step;
        int i = (int) place;
        while (path.size() < i + 2) {
            path.add(kept * path.get(path.size() - 1) + fresh * stream.normal());
        }
        double share = place - i;
        return (1 - share) * path.get(i) + share * path.get(i + 1);
    }
}
