package eagerneedle.app.workbench;

import eagerneedle.core.capture.Trigger;
import eagerneedle.core.chain.Chain;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Reading;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.sheet.ShotPlan;
import eagerneedle.rig.driver.Driver;
import java.util.ArrayDeque;
import java.util.Arrays;
import java.util.Deque;
import java.util.Locale;
import java.util.function.Consumer;
import java.util.function.DoubleUnaryOperator;

/**
 * One armed shot: holds back the newest blocks until the trigger fires, then lets out what lies from before the trigger
 * to after it, with time 0 at the trigger.
 */
final class Shot {
    private static final int SLOPE_POINTS = 5;
    private final Trigger trigger;
    private final int column;
    private final DoubleUnaryOperator measurand;
    private final double before;
    private final double after;
    private final Deque<Driver.Block> held = new ArrayDeque<>();
    private double fired = Double.NaN;
    private boolean done;

    /**
     * Armed from here on.
     *
     * @param column of a block, that the trigger looks at
     * @param measurand the value of a raw sample, in the unit of the trigger
     * @param before s
     * @param after s
     */
    Shot(Trigger trigger, int column, DoubleUnaryOperator measurand, double before, double after) {
        this.trigger = trigger;
        this.column = column;
        this.measurand = measurand;
        this.before = before;
        this.after = after;
    }

    /**
     * The trigger that a sheet asks for.
     *
     * @throws IllegalArgumentException with one sentence when it makes no sense for the channel
     */
    static Trigger trigger(ShotPlan plan, Channel channel) {
        LabUnit unit = channel.labUnit();
        Trigger.Way way = Trigger.Way.valueOf(plan.way().toUpperCase(Locale.ROOT));
        Reading r = Reading.parse(plan.atOrRate());
        if (plan.at() != null) {
            Chain chain = channel.toChain();
            double level = r.unit().convert(r.value(), unit);
            return Trigger.level(level, way, Math.max(chain.stepAt(level), 2 * chain.noiseAt(level)));
        }
        double slope = Math.abs(r.value()) * r.unit().scaleTo(unit.difference().per(LabUnit.SECOND));
        return Trigger.slope(slope, way, SLOPE_POINTS);
    }

    /** The value of a raw sample in the unit of its channel, by nominal transfer. */
    static DoubleUnaryOperator measurand(Channel channel, String rawUnit) {
        Chain chain = channel.toChain();
        if (rawUnit.equals(Run.COUNTS)) {
            return chain::indication;
        }
        LabUnit raw = LabUnit.parse(rawUnit);
        LabUnit input = chain.converter().input();
        return v -> chain.indication(chain.converter().exactCount(raw.convert(v, input)));
    }

    /** Takes a block as it came; hands on what belongs to the shot. */
    synchronized void take(Driver.Block block, Consumer<Driver.Block> keep) {
        if (done) {
            return;
        }
        if (Double.isNaN(fired)) {
            for (int i = 0; i < block.size() && Double.isNaN(fired); i++) {
                if (trigger.fires(block.time()[i], measurand.applyAsDouble(block.counts()[column][i]))) {
                    fired = block.time()[i];
                }
            }
            held.add(block);
            double oldest = (Double.isNaN(fired) ? block.time()[block.size() - 1] : fired) - before;
            while (held.size() > 1 && held.peekFirst().time()[held.peekFirst().size() - 1] < oldest) {
                held.removeFirst();
            }
            if (!Double.isNaN(fired)) {
                held.forEach(b -> cut(b, keep));
                held.clear();
            }
        } else {
            cut(block, keep);
        }
    }

    private void cut(Driver.Block b, Consumer<Driver.Block> keep) {
        int from = 0;
        while (from < b.size() && b.time()[from] < fired - before) {
            from++;
        }
        int to = from;
        while (to < b.size() && b.time()[to] <= fired + after) {
            to++;
        }
        if (to < b.size()) {
            done = true;
        }
        if (to > from) {
            double[] time = Arrays.copyOfRange(b.time(), from, to);
            for (int i = 0; i < time.length; i++) {
                time[i] -= fired;
            }
            double[][] counts = new double[b.counts().length][];
            for (int c = 0; c < counts.length; c++) {
                counts[c] = Arrays.copyOfRange(b.counts()[c], from, to);
            }
            keep.accept(new Driver.Block(time, counts));
        }
    }

    /** True once the trigger has fired. */
    synchronized boolean fired() {
        return !Double.isNaN(fired);
    }

    /** True once everything that belongs to the shot was handed on. */
    synchronized boolean done() {
        return done;
    }
}
