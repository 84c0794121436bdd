package eagerneedle.core.benches;

import eagerneedle.core.quantity.Coverage;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Key;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.Derived;
import eagerneedle.core.sheet.Sheet;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * By what a bench differs from the others: with what the others have in its place, the result of the bench would be
 * with theirs.
 *
 * <p>Whatever a result comes from is tried: readings, what calibrations give, quantities of runs level by level,
 * results on the way. A thing is named where it differs from the others by more than they do among themselves, and
 * where putting it right takes away most of the difference of the result. Of several on one way the first counts: what
 * follows from it differs as well, and is no cause.
 *
 * @param label what people call it
 * @param own what the bench has; a mean over runs where it is of several
 * @param others what is usual among the others, likewise
 * @param result what the bench would give with it, in the unit of its result
 * @param share of the difference that goes with it, 1 for all
 */
public record Cause(String label, Quantity own, double others, Quantity result, double share) {
    private static final double MOST = 0.6;
    private static final double TOO_MUCH = 1.6;
    private static final double BEYOND = 3.5;
    private static final double RARE = 0.001;

    private record Found(String name, Set<Key> keys, Cause cause) {}

    /**
     * Why a bench gives another result than the others.
     *
     * @param others at least two benches of the same method
     * @param mean what the others give, in the unit of {@code result}
     * @return the likeliest first; empty where nothing that can be seen explains it
     */
    public static List<Cause> of(Bench odd, List<Bench> others, String result, double mean) {
        Optional<Quantity> is = odd.reduction().quantity(result);
        if (is.isEmpty() || others.size() < 2) {
            return List.of();
        }
        double off = is.get().value() - mean;
        Map<Bench.Place, List<Key>> own = odd.above(result);
        List<Map<Bench.Place, List<Key>>> theirs =
                others.stream().map(o -> o.above(result)).toList();
        List<Found> found = new ArrayList<>();
        Set<String> seen = new HashSet<>();
        own.keySet().forEach(first -> {
            if (seen.add(first.capture() + " " + first.name())) {
                Differing d = new Differing(odd, own, others, theirs, first);
                if (d.isDifferent()) {
                    odd.asIf(d.put, result).ifPresent(q -> {
                        Quantity with = q.to(is.get().unit());
                        double share = 1 - (with.value() - mean) / off;
                        if (share >= MOST && share <= TOO_MUCH) {
                            Cause c =
                                    new Cause(label(odd.reduction().sheet(), first), d.own(), d.others(), with, share);
                            found.add(new Found(first.name(), d.put.keySet(), c));
                        }
                    });
                }
            }
        });
        return found.stream()
                .filter(f -> found.stream().noneMatch(o -> o != f && follows(odd, f.keys(), o.keys())))
                .map(Found::cause)
                .sorted(Comparator.comparingDouble(c -> Math.abs(1 - c.share())))
                .toList();
    }

    /** Whether all of some keys come from one of others. */
    private static boolean follows(Bench odd, Set<Key> keys, Set<Key> from) {
        return keys.stream().allMatch(k -> odd.ancestors(k).stream().anyMatch(from::contains));
    }

    /** What people call a place. */
    static String label(Sheet sheet, Bench.Place p) {
        if (!p.capture().isEmpty()) {
            Capture c = java.util.Objects.requireNonNull(sheet.captures().get(p.capture()));
            Derived d = c.quantities().get(p.name());
            Sheet.Input eye = c.byEye().get(p.name());
            String label = d != null ? d.label() : eye != null ? eye.label() : null;
            return (label == null ? p.name() : label) + " (" + c.label() + ")";
        }
        Sheet.Input input = sheet.inputs().get(p.name());
        Derived result = sheet.results().get(p.name());
        if (input != null && input.label() != null) {
            return input.label();
        }
        if (result != null && result.label() != null) {
            return result.label();
        }
        int dot = p.name().lastIndexOf('.');
        String channel = dot < 0 ? p.name() : p.name().substring(0, dot);
        return sheet.channels().containsKey(channel)
                ? "calibration of " + sheet.channel(channel).label() + ", "
                        + p.name().substring(dot + 1)
                : p.name();
    }

    /** One thing at all its levels, on the odd bench and on the others. */
    private static final class Differing {
        private final Map<Key, Quantity> put = new LinkedHashMap<>();
        private final List<Quantity> mine = new ArrayList<>();
        private final List<Double> usual = new ArrayList<>();
        /** Deviations from what is usual, averaged over the levels: of the odd bench, and of the others. */
        private double off;

        private final double[] among;
        private double u;

        Differing(
                Bench odd,
                Map<Bench.Place, List<Key>> own,
                List<Bench> others,
                List<Map<Bench.Place, List<Key>>> theirs,
                Bench.Place first) {
            among = new double[others.size()];
            Set<Integer> without = new LinkedHashSet<>();
            int levels = 0;
            for (Map.Entry<Bench.Place, List<Key>> e : own.entrySet()) {
                if (!e.getKey().isLike(first)) {
                    continue;
                }
                Quantity q = odd.mean(e.getValue());
                double[] there = new double[others.size()];
                for (int i = 0; i < there.length; i++) {
                    List<Key> keys = theirs.get(i).get(e.getKey());
                    there[i] = keys == null ? Double.NaN : in(others.get(i).mean(keys), q.unit());
                    if (Double.isNaN(there[i])) {
                        without.add(i);
                    }
                }
                double typical = median(there);
                if (Double.isNaN(typical)) {
                    continue;
                }
                levels++;
                mine.add(q);
                usual.add(typical);
                off += q.value() - typical;
                u += q.u();
                for (int i = 0; i < there.length; i++) {
                    among[i] += there[i] - typical;
                }
                for (Key k : e.getValue()) {
                    Quantity one = odd.reduction().quantity(k).orElseThrow();
                    put.put(k, one.withValue(q.unit().convert(one.in(q.unit()) - (q.value() - typical), one.unit())));
                }
            }
            int n = Math.max(1, levels);
            off /= n;
            u /= n;
            for (int i = 0; i < among.length; i++) {
                among[i] = without.contains(i) ? Double.NaN : among[i] / n;
            }
        }

        /**
         * By more than the others scatter, as Student's t of one against n; where these are all alike, by more than its
         * own uncertainty. Many things are tried, so that once in a thousand is asked for.
         */
        boolean isDifferent() {
            double[] v = Arrays.stream(among).filter(Double::isFinite).toArray();
            if (put.isEmpty() || off == 0 || v.length < 2) {
                return false;
            }
            double mean = Arrays.stream(v).average().orElseThrow();
            double sd =
                    Math.sqrt(Arrays.stream(v).map(x -> (x - mean) * (x - mean)).sum() / (v.length - 1));
            double far = Math.abs(off - mean);
            return sd > 0
                    ? Coverage.tails(far / (sd * Math.sqrt(1 + 1.0 / v.length)), v.length - 1) < RARE
                    : far > BEYOND * u;
        }

        Quantity own() {
            return mine.size() == 1
                    ? mine.get(0)
                    : Quantity.exact(average(false), mine.get(0).unit());
        }

        double others() {
            return average(true);
        }

        private double average(boolean ofOthers) {
            double sum = 0;
            for (int i = 0; i < mine.size(); i++) {
                sum += ofOthers ? usual.get(i) : mine.get(i).in(mine.get(0).unit());
            }
            return sum / mine.size();
        }

        private static double in(Quantity q, LabUnit unit) {
            return q.unit().fits(unit) ? q.in(unit) : Double.NaN;
        }

        private static double median(double[] of) {
            double[] v = Arrays.stream(of).filter(Double::isFinite).sorted().toArray();
            return v.length == 0 ? Double.NaN : 0.5 * (v[(v.length - 1) / 2] + v[v.length / 2]);
        }
    }
}
