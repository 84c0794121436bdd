package eagerneedle.core.benches;

import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Key;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * Something that two benches of one method have differently.
 *
 * @param label what people call it
 * @param ofRun true for a quantity of runs, false for a result
 * @param own what the bench has; of the level at which it differs most
 * @param other what the other has there, in the same unit
 * @param by standard uncertainties between them
 */
public record Deviation(String label, boolean ofRun, Quantity own, Quantity other, double by) {
    private static final double SEEN = 3;

    /** What a bench has otherwise than another beyond three standard uncertainties, the most striking first. */
    public static List<Deviation> of(Bench one, Bench other, List<String> results) {
        Map<Bench.Place, List<Key>> own = new LinkedHashMap<>();
        Map<Bench.Place, List<Key>> theirs = new LinkedHashMap<>();
        results.forEach(r -> {
            own.putAll(one.withAbove(r));
            theirs.putAll(other.withAbove(r));
        });
        List<Deviation> all = new ArrayList<>();
        own.forEach((place, keys) -> {
            List<Key> there = theirs.get(place);
            boolean reading = place.capture().isEmpty()
                    && one.reduction().sheet().inputs().containsKey(place.name());
            if (there == null || reading) {
                return;
            }
            Quantity a = one.mean(keys);
            Quantity b = other.mean(there);
            if (a.unit().fits(b.unit())) {
                Quantity in = b.to(a.unit());
                double u = Math.hypot(a.u(), in.u());
                double by = Math.abs(a.value() - in.value()) / Math.max(u, 1e-9 * Math.abs(a.value()));
                if (by > SEEN) {
                    all.add(new Deviation(
                            Cause.label(one.reduction().sheet(), place),
                            !place.capture().isEmpty(),
                            a,
                            in,
                            by));
                }
            }
        });
        Set<String> seen = new HashSet<>();
        return all.stream()
                .sorted(Comparator.comparingDouble(Deviation::by).reversed())
                .filter(d -> seen.add(d.label()))
                .toList();
    }
}
