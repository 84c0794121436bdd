package eagerneedle.core.reduce;

import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.calibration.Conversion;
import eagerneedle.core.chain.Chain;
import eagerneedle.core.chain.TiedChain;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.core.trace.Trace;
import eagerneedle.core.watch.SampleWatch;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/**
 * Raw samples turned into the measurand: chain backwards, then the calibration in force; samples beyond reach are left
 * out. Calibrations met before are not worked out again.
 */
final class Measurand {
    private final Map<Calibration, Conversion> conversions = Collections.synchronizedMap(new IdentityHashMap<>());

    /** The calibration that samples of a run go through: none when they came in the measurand's own unit. */
    static Optional<Calibration> calibrationOf(Session session, Run run, String name, Channel channel) {
        String rawUnit = run.rawUnit(name);
        return rawUnit.equals(Run.COUNTS) || !LabUnit.parse(rawUnit).fits(channel.labUnit())
                ? session.calibrationOf(name, channel)
                : Optional.empty();
    }

    /**
     * The measurand at every sample, whether it counts in the results or not.
     *
     * @throws IllegalArgumentException with one sentence when no sample has one
     */
    static Trace everywhere(
            Session session, Run run, String name, Channel channel, RawSamples raw, Function<String, Quantity> input) {
        return new Measurand()
                .toTrace(
                        name,
                        channel,
                        TiedChain.of(channel.chain(), input),
                        run,
                        run.rawUnit(name),
                        raw,
                        calibrationOf(session, run, name, channel).orElse(null));
    }

    /** @param tied the links of the channel with what inputs give */
    Trace toTrace(
            String name,
            Channel untied,
            TiedChain tied,
            Run run,
            String rawUnit,
            RawSamples raw,
            @Nullable Calibration calibration) {
        Channel channel = untied.with(tied.links());
        LabUnit unit = channel.labUnit();
        LabUnit imported = rawUnit.equals(Run.COUNTS) ? null : LabUnit.parse(rawUnit);
        // Samples in the unit that arrives at the converter come from a meter in its place, unless they are the
        // measurand's already.
        boolean signal = imported != null
                && !imported.fits(unit)
                && imported.fits(channel.toChain().converter().input());
        Chain chain = imported == null || signal ? channel.toChain() : null;
        SampleWatch watch = chain != null ? new SampleWatch(channel.label(), chain, 0) : null;
        Map<Double, Double> known = new HashMap<>();
        double[] t = new double[raw.size()];
        double[] v = new double[raw.size()];
        int n = 0;
        for (int i = 0; i < raw.size(); i++) {
            double x = raw.values()[i];
            if (chain != null && watch != null) {
                double count = imported == null
                        ? x
                        : chain.converter()
                                .exactCount(
                                        imported.convert(x, chain.converter().input()));
                if (watch.beyondReach(count)) {
                    continue;
                }
                v[n] = known.computeIfAbsent(count, chain::indication);
            } else {
                v[n] = Objects.requireNonNull(imported).convert(x, unit);
            }
            t[n++] = raw.time()[i];
        }
        if (n == 0) {
            throw new IllegalArgumentException("every sample of " + channel.label() + " is out of range.");
        }
        v = java.util.Arrays.copyOf(v, n);
        double step = chain != null ? chain.stepAt(median(v)) : 0;
        List<Trace.Shared> shared = new ArrayList<>();
        if (chain != null && calibration == null) {
            shared.addAll(chain.shared(name));
            shared.addAll(tied.shared());
        }
        Trace trace = new Trace(channel.label(), java.util.Arrays.copyOf(t, n), v, unit, step, shared);
        return calibration == null
                ? trace
                : conversions
                        .computeIfAbsent(calibration, c -> new Conversion(c.called(channel.label())))
                        .apply(trace, chain, run.started());
    }

    private static double median(double[] v) {
        double[] sorted = v.clone();
        java.util.Arrays.sort(sorted);
        return sorted[sorted.length / 2];
    }
}
