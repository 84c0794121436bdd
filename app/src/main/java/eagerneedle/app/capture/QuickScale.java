package eagerneedle.app.capture;

import eagerneedle.app.workbench.LiveReadings;
import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.chain.Chain;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.core.trace.Trace;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * From raw values of a channel to its measurand, for showing: exactly for a few samples, by a table for the thousands
 * of bins of an outline. The table has {@value #STEPS} straight pieces over the converter's range, finer than a pixel.
 */
final class QuickScale {
    private static final int STEPS = 2048;
    private final Channel channel;
    private final @Nullable Calibration calibration;
    private final String rawUnit;
    private double low;
    private double step;
    private double @Nullable [] table;

    /** @param rawUnit of what {@link #quick} is given: counts, or the unit an instrument measures in */
    QuickScale(Channel channel, String rawUnit, @Nullable Calibration calibration) {
        this.channel = channel;
        this.calibration = calibration;
        this.rawUnit = rawUnit;
    }

    /** Made when it is first wanted. */
    private double[] fill() {
        double[] filled = new double[STEPS + 1];
        Chain chain = channel.toChain();
        double first = chain.converter().lowestCount();
        double last = chain.converter().highestCount();
        LabUnit unit = rawUnit.equals(Run.COUNTS) ? null : LabUnit.parse(rawUnit);
        low = unit == null
                ? first
                : chain.converter().input().convert(chain.converter().input(first), unit);
        double high = unit == null
                ? last
                : chain.converter().input().convert(chain.converter().input(last), unit);
        step = (high - low) / STEPS;
        double[] order = new double[STEPS + 1];
        for (int i = 0; i <= STEPS; i++) {
            order[i] = i;
            filled[i] = chain.indication(first + (last - first) * i / STEPS);
        }
        if (calibration != null) {
            filled = calibration
                    .apply(new Trace(channel.label(), order, filled, channel.labUnit(), 0, List.of()))
                    .value();
        }
        table = filled;
        return filled;
    }

    /** The measurand for a raw value, by the table. */
    double quick(double raw) {
        double[] filled = table == null ? fill() : table;
        double at = Math.max(0, Math.min(STEPS, (raw - low) / step));
        int i = (int) Math.min(STEPS - 1, at);
        return filled[i] + (at - i) * (filled[i + 1] - filled[i]);
    }

    /** Counts as a trace of the measurand, samples out of reach left out. */
    Trace exact(RawSamples counts) {
        Trace t = LiveReadings.trace(channel, counts);
        return calibration == null || t.size() == 0 ? t : calibration.apply(t);
    }
}
