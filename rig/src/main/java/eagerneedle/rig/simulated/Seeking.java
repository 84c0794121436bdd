package eagerneedle.rig.simulated;

import eagerneedle.core.capture.Seeker;
import eagerneedle.core.quantity.Digits;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.reduce.LevelOutputs;
import eagerneedle.core.reduce.LiveTarget;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.Output;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.trace.RawSamples;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.ToDoubleFunction;

/**
 * Turns an output until what is read stands at its target, as a careful person would: a little, wait, look, and from
 * two looks where it must be (the secant), never beyond the limits and never further at once than a quarter of them.
 */
final class Seeking {
    private static final int LOOKS = 40;
    private static final int AVERAGED = 10;

    private Seeking() {}

    /**
     * Seeks on a bench where a run is arranged.
     *
     * @return what the output stood at, as written, by name; nothing where no output is turned
     */
    static Map<String, String> of(SimulatedRig rig, Sheet sheet, Capture plan, LiveTarget target, double rate) {
        Map<String, String> stood = new LinkedHashMap<>();
        String name = plan.seekPlan().output();
        if (name == null) {
            return stood;
        }
        Output o = LevelOutputs.output(sheet, name);
        double seconds = Math.max(plan.holdPlan().settle(), plan.holdPlan().seconds());
        double at = sought(o.lowest(), o.highest(), o.step(), target, v -> {
            rig.arrange(Turned.words(Map.of(name, v)));
            Map<String, RawSamples> read = Rehearsal.stream(rig, sheet, rate, (int) Math.max(AVERAGED, seconds * rate));
            Map<String, RawSamples> last = new LinkedHashMap<>();
            read.forEach((c, raw) -> last.put(c, mean(raw)));
            return target.now(c -> last.getOrDefault(c, RawSamples.NONE), c -> read.getOrDefault(c, RawSamples.NONE))
                    .orElse(Double.NaN);
        });
        stood.put(name, (Digits.plain(at, 6) + " " + LabUnit.parse(o.unit()).symbol()).strip());
        return stood;
    }

    /** The newest samples as one. */
    private static RawSamples mean(RawSamples raw) {
        int n = Math.min(AVERAGED, raw.size());
        if (n == 0) {
            return raw;
        }
        double sum = 0;
        for (int i = raw.size() - n; i < raw.size(); i++) {
            sum += raw.values()[i] / n;
        }
        return new RawSamples(new double[] {raw.time()[raw.size() - 1]}, new double[] {sum});
    }

    /** What to turn to; the nearest that was reached where it never gets there. */
    static double sought(double lowest, double highest, double step, LiveTarget target, ToDoubleFunction<Double> look) {
        Seeker seeker = new Seeker(lowest, highest, step);
        double at = lowest;
        double best = at;
        double closest = Double.POSITIVE_INFINITY;
        for (int i = 0; i < LOOKS; i++) {
            double missed = look.applyAsDouble(at) - target.target().value();
            if (Math.abs(missed) < closest) {
                best = at;
                closest = Math.abs(missed);
            }
            if (closest <= target.band() / 2) {
                return best;
            }
            at = seeker.next(at, missed);
        }
        look.applyAsDouble(best);
        return best;
    }
}
