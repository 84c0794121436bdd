package eagerneedle.core.reduce;

import eagerneedle.core.plan.PlanChange;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.session.Command;
import eagerneedle.core.session.PlanningCommand;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.stockroom.Instrument;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * What it would take: every single change that the stockroom and the bench allow, tried out on the plan.
 *
 * <p>Nothing is guessed from shares of variance: each change is carried out on a copy of the session and the plan is
 * computed again, so that shared influences and curved formulas count as they do. Where a plan has to be rehearsed, a
 * few rehearsals say which change to choose, and the one that is chosen is then rehearsed as any plan is.
 */
public final class Improvements {
    private static final int MOST_STEPS = 4;
    private static final double WORTH = 0.995;
    /** How many of the best are looked at exactly before it is given up. */
    private static final int MOST_TRIES = 4;

    private final Reducer reducer;
    private final Foresight foresight;
    private final Session session;
    private final List<Instrument> stock;
    private final String result;

    /**
     * @param stock the instruments that may be used
     * @param result key of the result in question
     */
    public Improvements(Reducer reducer, Session session, List<Instrument> stock, String result) {
        this(reducer, Foresight.ofPlan(reducer), session, stock, result);
    }

    /** @param foresight what the result will be under a change */
    public Improvements(Reducer reducer, Foresight foresight, Session session, List<Instrument> stock, String result) {
        this.reducer = reducer;
        this.foresight = foresight;
        this.session = session;
        this.stock = stock.stream().filter(i -> !i.isOut()).toList();
        this.result = result;
    }

    /** A change with the act that would carry it out. */
    public record Possible(PlanChange change, Command act) {}

    /**
     * Instruments that can read an input, the one that helps the result most first; each with the reading's and the
     * result's uncertainty.
     */
    public List<Choice> instrumentsFor(String input) {
        Quantity nominal = reducer.planIf(session).quantity(input).orElse(null);
        List<Choice> choices = new ArrayList<>();
        if (nominal == null) {
            return choices;
        }
        Sheet.Input plan = reducer.located().sheet().input(input);
        for (Instrument i : stock) {
            if (i.reads(nominal)) {
                Session tried = new PlanningCommand.TieInput(input, plan.label(), i).apply(withoutPlanned(input));
                choices.add(new Choice(
                        i,
                        reducer.planIf(tried).quantity(input).orElseThrow(),
                        foresight.of(tried, result).orElse(null)));
            }
        }
        choices.sort(Comparator.comparingDouble((Choice c) -> c.reading().u())
                .thenComparing(c -> c.instrument().id()));
        return choices;
    }

    /** An instrument for an input: the reading it would give, and the result with it (null where there is none yet). */
    public record Choice(
            Instrument instrument,
            Quantity reading,
            @Nullable Quantity result) {}

    private Session withoutPlanned(String input) {
        return session.planned().containsKey(input)
                ? new PlanningCommand.SetPlanned(input, input, null).apply(session)
                : session;
    }

    /** The result as it will be without any change; empty where nobody can tell. */
    public Optional<Quantity> now() {
        return foresight.of(session, result);
    }

    /** Every single change, the one that brings most first; changes that bring nothing are left out. */
    public List<Possible> all() {
        return from(session);
    }

    private List<Possible> from(Session now) {
        Sheet sheet = reducer.located().sheet();
        Reduction plan = reducer.planIf(now);
        Quantity before = foresight.of(now, result).orElse(null);
        List<Possible> out = new ArrayList<>();
        if (before == null) {
            return out;
        }
        sheet.inputs().forEach((name, input) -> {
            Quantity reading = plan.quantity(name).orElse(null);
            if (reading == null) {
                return;
            }
            double minutesNow =
                    now.tied().containsKey(name) && now.tied().get(name).minutes() != null
                            ? now.tied().get(name).minutes()
                            : 1;
            for (Instrument i : stock) {
                if (i.reads(reading)
                        && !i.equals(now.tied().get(name))
                        && i.reading(Quantity.exact(reading.value(), reading.unit()), "x", "x")
                                        .u()
                                < reading.u()) {
                    Command act = new PlanningCommand.TieInput(name, input.label(), i);
                    add(
                            out,
                            before,
                            foresight.of(act.apply(now), result),
                            "read " + input.label() + " with " + i.name() + " " + i.id(),
                            Math.max(0, (i.minutes() == null ? 1 : i.minutes()) - minutesNow),
                            act);
                }
            }
        });
        sheet.captures().forEach((name, capture) -> {
            int runs = now.repeats(sheet, name);
            MoreRuns more = new MoreRuns(foresight, now, before, result, name, runs);
            for (int n : new int[] {runs + 1, 2 * runs, 4 * runs, 8 * runs}) {
                if (n <= 64 && (n > runs + 1 || runs > 1)) {
                    add(
                            out,
                            before,
                            more.at(n),
                            "take " + n + " runs of " + capture.label().toLowerCase(Locale.ROOT)
                                    + (capture.levels().size() > 1 ? " at each level" : ""),
                            (n - runs) * capture.levels().size() * capture.minutes(),
                            new PlanningCommand.SetRepeats(name, n));
                }
            }
        });
        for (BenchChanges.Possible p : BenchChanges.of(sheet, now)) {
            Optional<Quantity> with = foresight.roughly(now, p.act().apply(now), result);
            add(out, before, with, p.says(), p.minutes(), p.act());
        }
        out.sort(Comparator.comparingDouble(p -> p.change().result().u()));
        return out;
    }

    private static void add(
            List<Possible> out, Quantity before, Optional<Quantity> with, String says, double minutes, Command act) {
        with.filter(q -> q.u() < WORTH * before.u())
                .ifPresent(q -> out.add(new Possible(new PlanChange(says, minutes, q), act)));
    }

    /**
     * The way to a target standard uncertainty: the cheapest single change where one reaches it; otherwise changes one
     * after another, each time the one that takes most variance for its minutes. Ends early when nothing helps any
     * more.
     *
     * @param target in the unit of the result
     */
    public List<Possible> way(double target) {
        List<Possible> steps = new ArrayList<>();
        Session now = session;
        Quantity u = foresight.of(now, result).orElse(null);
        while (u != null && u.u() > target && steps.size() < MOST_STEPS) {
            List<Possible> possible = from(now);
            Optional<Possible> found = best(possible, now, u, target);
            if (found.isEmpty()) {
                break;
            }
            Possible next = found.get();
            steps.add(next);
            now = next.act().apply(now);
            u = next.change().result();
        }
        return steps;
    }

    /** The best of what is possible; where it was told roughly, it is told exactly before it is taken. */
    private Optional<Possible> best(List<Possible> possible, Session now, Quantity u, double target) {
        List<Possible> left = new ArrayList<>(possible);
        boolean rough = foresight.takesLong(now, result);
        double var = u.u() * u.u();
        for (int tries = 0; tries < MOST_TRIES && !left.isEmpty(); tries++) {
            Map<PlanChange, Possible> byChange = new LinkedHashMap<>();
            left.forEach(p -> byChange.put(p.change(), p));
            Possible next = PlanChange.cheapest(List.copyOf(byChange.keySet()), target)
                    .map(byChange::get)
                    .orElseGet(() -> left.stream()
                            .max(Comparator.comparingDouble(p -> (var
                                            - p.change().result().u()
                                                    * p.change().result().u())
                                    / (1 + p.change().minutes())))
                            .orElseThrow());
            if (!rough) {
                return Optional.of(next);
            }
            Optional<Quantity> exact = foresight.of(next.act().apply(now), result);
            left.remove(next);
            if (exact.isPresent() && exact.get().u() < WORTH * u.u()) {
                PlanChange c = next.change();
                return Optional.of(new Possible(new PlanChange(c.says(), c.minutes(), exact.get()), next.act()));
            }
        }
        return Optional.empty();
    }

    /**
     * A target written as a share ("0.5 %") or as a value in a unit that fits, as standard uncertainty in the unit of
     * the result.
     */
    public static double target(String text, Quantity now) {
        var r = eagerneedle.core.quantity.Reading.parse(text);
        double v = r.unit().isDimensionless() && !now.unit().isDimensionless()
                ? Math.abs(now.value()) * r.unit().convert(r.value(), LabUnit.ONE)
                : text.strip().endsWith("%")
                        ? Math.abs(now.value()) * r.unit().convert(r.value(), LabUnit.ONE)
                        : r.value() * r.unit().scaleTo(now.unit());
        if (!(v > 0)) {
            throw new IllegalArgumentException("A target uncertainty is above zero.");
        }
        return v;
    }
}
