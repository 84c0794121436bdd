package eagerneedle.rig.simulated;

import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Reducer;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.RawSamples;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.IntStream;

/**
 * What a method would find if every instrument and every eye showed the truth: the same nature, perfect chains, no
 * noise. Where that is not the truth, the difference is the method's own bias, and no better instrument takes it away.
 */
public final class IdealSession {
    private static final int SEEDS = 12;
    /** Standard uncertainties of the mean; of 11 degrees of freedom less than one in two hundred are so far off. */
    private static final double SURE = 3.5;

    private IdealSession() {}

    /** The results that a sheet finds in the nature of a seed; those that have a value. */
    public static Map<String, Quantity> of(SheetReader.Located located, long seed) {
        return results(Rehearsal.of(located, Rigs.ideal(located.sheet(), seed), Instant.EPOCH), located);
    }

    /**
     * The truth of results that the rig does not state: what the sheet's own reduction gives in the nature of a seed
     * where every instrument shows it. A property of the instruments themselves, such as a gain, is not among what this
     * can tell; its truth is stated in the sheet.
     *
     * @param stated results whose truth is known from the physics
     */
    public static Map<String, Quantity> beyond(SheetReader.Located located, long seed, Set<String> stated) {
        if (stated.containsAll(located.sheet().results().keySet())) {
            return Map.of();
        }
        try {
            Map<String, Quantity> out = new LinkedHashMap<>(of(located, seed));
            out.keySet().removeAll(stated);
            return out;
        } catch (FormulaException withoutAnAccidentNothingHappens) {
            return Map.of();
        }
    }

    private static Map<String, Quantity> results(Rehearsal r, SheetReader.Located located) {
        Reduction reduction = new Reducer(
                        located,
                        (run, channel) ->
                                r.samples().getOrDefault(run, Map.of()).getOrDefault(channel, RawSamples.NONE))
                .reduce(r.session());
        Map<String, Quantity> out = new LinkedHashMap<>();
        located.sheet().results().keySet().forEach(n -> reduction.quantity(n).ifPresent(q -> out.put(n, q)));
        return out;
    }

    /**
     * What a method adds of its own to a result, as far as ideal sessions tell.
     *
     * @param error mean of what they find minus the truth, with the uncertainty of that mean: nature scatters in them
     *     too, from run to run
     */
    public record Bias(String result, Quantity error) {
        /** True when it is told from nothing. */
        public boolean isThere() {
            return Math.abs(error.value()) > SURE * error.u();
        }
    }

    /** For every result whose truth the rig knows from its physics. */
    public static List<Bias> biases(SheetReader.Located located) {
        Map<String, List<Quantity>> errors = new LinkedHashMap<>();
        IntStream.range(0, SEEDS)
                .parallel()
                .mapToObj(seed -> Rehearsal.of(located, Rigs.ideal(located.sheet(), seed), Instant.EPOCH))
                .toList()
                .forEach(r -> {
                    Map<String, Quantity> found = results(r, located);
                    located.sheet().rig().truth().keySet().forEach(name -> {
                        Quantity q = found.get(name);
                        if (r.truth().containsKey(name) && q != null) {
                            double error = q.value() - r.truth().get(name).in(q.unit());
                            errors.computeIfAbsent(name, n -> new ArrayList<>())
                                    .add(Quantity.exact(error, q.unit().difference()));
                        }
                    });
                });
        List<Bias> out = new ArrayList<>();
        errors.forEach((name, all) -> {
            if (all.size() == SEEDS) {
                out.add(new Bias(name, mean(name, all)));
            }
        });
        return out;
    }

    private static Quantity mean(String name, List<Quantity> all) {
        LabUnit unit = all.get(0).unit();
        double mean = all.stream().mapToDouble(q -> q.in(unit)).average().orElse(0);
        double squares =
                all.stream().mapToDouble(q -> Math.pow(q.in(unit) - mean, 2)).sum();
        double u = Math.sqrt(squares / (SEEDS - 1) / SEEDS);
        Leaf scatter = Leaf.typeA("bias:" + name, "scatter of ideal sessions", name, SEEDS - 1);
        return u > 0 ? Quantity.of(mean, u, unit, scatter) : Quantity.exact(mean, unit);
    }
}
