package eagerneedle.rig.simulated;

import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.physics.Draws;
import eagerneedle.core.quantity.Distribution;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Reducer;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.RawSamples;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.function.BooleanSupplier;
import java.util.stream.IntStream;

/**
 * What results a plan will give, told by carrying it out: what is found where everything is what it is written to be
 * and every instrument shows it, and for every influence the root mean square of what it does in rehearsals (with few
 * repeats a typical uncertainty is too small). Everything that happens at the bench is in it, calibrations, converter
 * steps and scatter included, and nothing of it is typed twice.
 */
public final class RehearsedPlan {
    private static final int AT_ONCE = 4;
    private static final int FEWEST = 8;
    private static final int MOST = 32;
    private static final double STEADY = 0.05;
    private static final Answers<Sheet, Map<String, Quantity>> TOLD = new Answers<>(32);

    private final SheetReader.Located located;
    private final Map<String, List<Quantity>> found = new LinkedHashMap<>();
    private final Map<String, Quantity> nominal;

    private RehearsedPlan(SheetReader.Located located) {
        this(located, nominal(located));
    }

    private RehearsedPlan(SheetReader.Located located, Map<String, Quantity> nominal) {
        this.located = located;
        this.nominal = nominal;
    }

    private static Map<String, Quantity> nominal(SheetReader.Located located) {
        try {
            // The sessions of a pool are several, and differ by what is drawn.
            return located.sheet().pool().isThere() ? Map.of() : IdealSession.of(located, Draws.NOTHING);
        } catch (FormulaException needsAnAccident) {
            return Map.of();
        }
    }

    /**
     * The results of a session as it is planned; those that have a value in every rehearsal.
     *
     * @param cancelled asked between rehearsals
     * @return empty where it was cancelled
     */
    public static Map<String, Quantity> of(SheetReader.Located located, Session session, BooleanSupplier cancelled) {
        SheetReader.Located asked = planned(located, session);
        Optional<Map<String, Quantity>> known = TOLD.to(asked.sheet());
        if (known.isPresent()) {
            return known.get();
        }
        RehearsedPlan plan = new RehearsedPlan(asked);
        Map<String, Quantity> last = Map.of();
        for (int from = 0; from < MOST; from += AT_ONCE) {
            if (cancelled.getAsBoolean()) {
                return Map.of();
            }
            plan.carryOut(from);
            Map<String, Quantity> now = plan.quantities();
            if (from + AT_ONCE >= FEWEST && isSteady(last, now)) {
                return TOLD.remember(asked.sheet(), Collections.unmodifiableMap(now));
            }
            last = now;
        }
        return TOLD.remember(asked.sheet(), Collections.unmodifiableMap(last));
    }

    private static SheetReader.Located planned(SheetReader.Located located, Session session) {
        return located.with(located.sheet()
                .picking(session.picked())
                .planned(
                        session.planned(),
                        c -> session.repeats(located.sheet(), c),
                        (n, channel) -> session.setup(n).of(channel)));
    }

    /**
     * Mean squares of what each influence, by its label, does to a result in the first few rehearsals: not what it will
     * do, but comparable with the same of another plan, since what is drawn is the same.
     *
     * @return in the square of the result's unit; empty where it has no value
     */
    static Map<String, Double> variances(SheetReader.Located located, Session session, String result) {
        RehearsedPlan plan = new RehearsedPlan(planned(located, session), Map.of());
        plan.carryOut(0);
        List<Quantity> all = plan.found.getOrDefault(result, List.of());
        Map<String, Double> out = new LinkedHashMap<>();
        double squares = 0;
        for (Quantity given : all) {
            Quantity q = given.to(all.get(0).unit());
            squares += q.u() * q.u() / all.size();
            q.contributions().forEach((leaf, c) -> out.merge(leaf.label(), c * c / all.size(), Double::sum));
        }
        double sum = out.values().stream().mapToDouble(v -> v).sum();
        double scale = sum > 0 ? squares / sum : 0;
        out.replaceAll((label, v) -> v * scale);
        return out;
    }

    private void carryOut(int from) {
        List<Reduction> all = IntStream.range(from, from + AT_ONCE)
                .parallel()
                .mapToObj(this::reduced)
                .toList();
        for (Reduction r : all) {
            for (String name : located.sheet().results().keySet()) {
                r.quantity(name)
                        .ifPresent(q -> found.computeIfAbsent(name, n -> new ArrayList<>())
                                .add(q));
            }
        }
    }

    private Reduction reduced(long seed) {
        Rehearsal r = Rehearsal.of(located, Rigs.of(located.sheet(), seed, Set.of()), Instant.EPOCH);
        return new Reducer(
                        located,
                        (run, channel) ->
                                r.samples().getOrDefault(run, Map.of()).getOrDefault(channel, RawSamples.NONE))
                .reduce(r.session());
    }

    private Map<String, Quantity> quantities() {
        int sessions = found.values().stream().mapToInt(List::size).max().orElse(0);
        Map<String, Quantity> out = new LinkedHashMap<>();
        found.forEach((name, all) -> {
            if (all.size() == sessions) {
                out.put(name, typical(name, all));
            }
        });
        return out;
    }

    /**
     * What is found where nothing is drawn, with every influence as large as it is in the mean square; the mean of
     * rehearsals where nothing can be found so.
     */
    private Quantity typical(String name, List<Quantity> all) {
        double mean = 0;
        double squares = 0;
        Map<String, Double> variances = new LinkedHashMap<>();
        Map<String, Leaf> first = new LinkedHashMap<>();
        for (Quantity given : all) {
            Quantity q = given.to(all.get(0).unit());
            mean += q.value() / all.size();
            squares += q.u() * q.u() / all.size();
            q.contributions().forEach((leaf, c) -> {
                variances.merge(leaf.label(), c * c / all.size(), Double::sum);
                first.putIfAbsent(leaf.label(), leaf);
            });
        }
        double sum = variances.values().stream().mapToDouble(v -> v).sum();
        // Influences that are correlated do not add up in squares; together they are what is stated.
        double scale = sum > 0 ? Math.sqrt(squares / sum) : 0;
        Quantity still = nominal.get(name);
        double value = still != null && Double.isFinite(still.value())
                ? still.in(all.get(0).unit())
                : mean;
        Quantity out = Quantity.exact(value, all.get(0).unit());
        for (Map.Entry<String, Double> e : variances.entrySet()) {
            Leaf like = Objects.requireNonNull(first.get(e.getKey()));
            String id = "rehearsed:" + name + "/" + e.getKey();
            Leaf leaf = like.type() == Leaf.Type.A
                    ? Leaf.typeA(id, e.getKey(), like.source(), like.dof())
                    : Leaf.typeB(id, e.getKey(), like.source(), Distribution.NORMAL);
            double c = scale * Math.sqrt(e.getValue());
            out = c > 0 ? out.with(leaf, c) : out;
        }
        return out;
    }

    private static boolean isSteady(Map<String, Quantity> before, Map<String, Quantity> now) {
        return before.keySet().equals(now.keySet())
                && now.entrySet().stream()
                        .allMatch(e -> Math.abs(e.getValue().u()
                                        - Objects.requireNonNull(before.get(e.getKey()))
                                                .u())
                                <= STEADY * e.getValue().u());
    }
}
