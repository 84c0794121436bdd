package eagerneedle.rig.simulated;

import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Reducer;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.RawSamples;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;

/**
 * What uncertainty a result will have, as rehearsals of the sheet say it: the root mean square of what they state (with
 * few repeats a typical one is too small), and of what they miss their hidden truth by.
 *
 * @param name the result
 * @param value mean over the rehearsals, in the result's unit
 * @param stated root mean square of the stated standard uncertainties, same unit
 * @param missed root mean square of result less truth, same unit; empty where the rig does not know the truth
 * @param sessions how many rehearsals had a value
 */
public record RehearsedBudget(String name, double value, double stated, Optional<Double> missed, int sessions) {
    /** Of every result that is a quantity, in the order of the sheet. */
    public static List<RehearsedBudget> of(SheetReader.Located located, int sessions) {
        List<Rehearsed> all = IntStream.range(0, sessions)
                .parallel()
                .mapToObj(seed -> rehearsed(located, seed))
                .toList();
        List<RehearsedBudget> out = new ArrayList<>();
        for (String name : located.sheet().results().keySet()) {
            budget(name, all).ifPresent(out::add);
        }
        return out;
    }

    private record Rehearsed(Reduction reduction, Map<String, Quantity> truth) {}

    private static Rehearsed rehearsed(SheetReader.Located located, long seed) {
        Rehearsal r = Rehearsal.of(located, Rigs.of(located.sheet(), seed, Set.of()), Instant.EPOCH);
        return new Rehearsed(
                new Reducer(
                                located,
                                (run, channel) ->
                                        r.samples().getOrDefault(run, Map.of()).getOrDefault(channel, RawSamples.NONE))
                        .reduce(r.session()),
                r.truth());
    }

    private static Optional<RehearsedBudget> budget(String name, List<Rehearsed> all) {
        double value = 0;
        double stated = 0;
        double missed = 0;
        int n = 0;
        int known = 0;
        for (Rehearsed r : all) {
            Optional<Quantity> q = r.reduction().quantity(name);
            if (q.isEmpty()) {
                continue;
            }
            n++;
            value += q.get().value();
            stated += q.get().u() * q.get().u();
            Quantity truth = r.truth().get(name);
            if (truth != null && truth.unit().fits(q.get().unit())) {
                double error = q.get().value() - truth.in(q.get().unit());
                known++;
                missed += error * error;
            }
        }
        if (n == 0) {
            return Optional.empty();
        }
        return Optional.of(new RehearsedBudget(
                name,
                value / n,
                Math.sqrt(stated / n),
                known == n ? Optional.of(Math.sqrt(missed / n)) : Optional.empty(),
                n));
    }
}
