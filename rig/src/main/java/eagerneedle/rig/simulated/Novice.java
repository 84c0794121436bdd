package eagerneedle.rig.simulated;

import eagerneedle.core.calibration.TrimAdvisor;
import eagerneedle.core.calibration.TrimHint;
import java.util.List;
import java.util.function.DoubleSupplier;
import java.util.function.ObjDoubleConsumer;

/** Somebody who adjusts zero and span by doing what the program says and nothing else. */
public final class Novice {
    private static final int PATIENCE = 600;

    private Novice() {}

    /**
     * Adjusts until both hold or patience ends.
     *
     * @param goal what must hold
     * @param trims names of the zero trim and of the span trim
     * @param load puts a load on
     * @param turn turns a trim by so many turns, clockwise counted positive
     * @param read a steadied reading
     */
    public static TrimAdvisor adjust(
            TrimAdvisor.Goal goal,
            List<String> trims,
            java.util.function.Consumer<TrimAdvisor.Load> load,
            ObjDoubleConsumer<TrimAdvisor.Trim> turn,
            DoubleSupplier read) {
        TrimHint[] hints = {new TrimHint(trims.get(0), goal.noise()), new TrimHint(trims.get(1), goal.noise())};
        TrimAdvisor advisor = TrimAdvisor.start(goal);
        for (int acts = 0; !advisor.done() && !advisor.givenUp() && acts < PATIENCE; ) {
            TrimAdvisor.Instruction now = advisor.next();
            load.accept(now.load());
            double before = read.getAsDouble();
            double reading = before;
            while (now.trim() != TrimAdvisor.Trim.NEITHER && acts++ < PATIENCE) {
                TrimHint.Turn said = hints[now.trim() == TrimAdvisor.Trim.ZERO ? 0 : 1].at(reading, now);
                if (said.far() == TrimHint.Far.STOP) {
                    break;
                }
                turn.accept(now.trim(), (said.clockwise() ? 1 : -1) * said.share() * turns(said.far()));
                reading = read.getAsDouble();
            }
            advisor = advisor.taken(before, reading);
        }
        return advisor;
    }

    /** How far a hand turns. */
    public static double turns(TrimHint.Far far) {
        return switch (far) {
            case STOP -> 0;
            case HAIR -> 0.003;
            case LITTLE -> 0.03;
            case FURTHER -> 0.2;
        };
    }
}
