package eagerneedle.app.workbench;

import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Foresight;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.reduce.RescaledPlan;
import eagerneedle.core.session.Session;
import eagerneedle.rig.simulated.RehearsedForesight;
import eagerneedle.rig.simulated.RehearsedPlan;
import eagerneedle.rig.simulated.Rigs;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.Executor;
import java.util.concurrent.atomic.AtomicInteger;
import org.jspecify.annotations.Nullable;

/**
 * The plan told by rehearsals, in the background: results that the sheet itself plans nothing for get their value and
 * their budget from carrying the plan out. The next edit of the plan cancels it.
 */
public final class PlanRehearsal {
    private final Workbench bench;
    private final AtomicInteger generation = new AtomicInteger();
    private volatile boolean running;
    private volatile boolean closed;
    private Object rehearsedFor = List.of();
    private Object runningFor = List.of();
    private Map<String, Quantity> found = Map.of();
    private String trouble = "";
    /** The session that was rehearsed, its inputs read as the sheet and the plan say. */
    private @Nullable Session rehearsedSession;

    /** The plan without rehearsals. */
    private @Nullable Reduction alone;

    private @Nullable Reduction over;
    private @Nullable Reduction with;
    private @Nullable SheetVerdict verdict;

    PlanRehearsal(Workbench bench) {
        this.bench = bench;
    }

    /** What carrying the sheet out says of it. */
    public SheetVerdict verdict() {
        if (verdict == null) {
            verdict =
                    new SheetVerdict(bench.reducer().located(), bench.session().sheetText());
        }
        return verdict;
    }

    /** What a rehearsal depends on. */
    private static Object key(Session s) {
        return List.of(s.planned(), s.repeats(), s.setups(), s.picked());
    }

    /**
     * What results will be, under any change of the plan. As long as these runs were not rehearsed nothing is told of
     * results that only rehearsals can tell: whoever asks must not have to wait for them.
     */
    Foresight foresight() {
        return found.isEmpty() || rehearsedSession == null || !isOfTheseRuns(bench.session())
                ? Foresight.ofPlan(bench.reducer())
                : new RehearsedForesight(bench.reducer()).knowing(rehearsedSession, found);
    }

    /** The same for somebody who can wait: what has not been rehearsed is, when it is asked for. */
    Foresight patientForesight() {
        RehearsedForesight all = new RehearsedForesight(bench.reducer());
        return found.isEmpty() || rehearsedSession == null ? all : all.knowing(rehearsedSession, found);
    }

    /**
     * The plan with what rehearsals found. Where inputs are known otherwise since then it is rescaled, until it has
     * been rehearsed again; where they have other values, or other runs are planned, nothing is told before.
     */
    Reduction over(Reduction plan) {
        alone = plan;
        if (found.isEmpty() || rehearsedSession == null || !isOfTheseRuns(plan.session())) {
            return plan;
        }
        if (over != plan || with == null) {
            Reduction before = bench.reducer().planIf(rehearsedSession);
            Map<String, Quantity> now = new LinkedHashMap<>();
            found.forEach((name, q) -> RescaledPlan.of(q, before, plan).ifPresent(r -> now.put(name, r)));
            Reduction told = plan.rehearsed(now);
            with = told;
            over = plan;
            return told;
        }
        return with;
    }

    private Reduction alone() {
        bench.plan();
        return Objects.requireNonNull(alone);
    }

    private boolean isOfTheseRuns(Session s) {
        Session of = rehearsedSession;
        return of != null
                && s.repeats().equals(of.repeats())
                && s.setups().equals(of.setups())
                && s.picked().equals(of.picked());
    }

    /** True where something in the plan is told by rehearsals only, and they have not been made. */
    public boolean isDue() {
        return !key(bench.session()).equals(rehearsedFor)
                && Rigs.canRehearse(bench.sheet())
                && bench.sheet().hasPhysics()
                && bench.sheet().results().keySet().stream()
                        .anyMatch(n -> alone().outcome(n).problem() != null);
    }

    /** True while rehearsals go on. */
    public boolean isRunning() {
        return running;
    }

    /** Why it could not be rehearsed; empty when it could. */
    public String trouble() {
        return trouble;
    }

    /**
     * Begins to rehearse the plan where something in it is not planned and no rehearsal of it has been made.
     *
     * @param here where the bench is told when it is done
     */
    public void begin(Executor here) {
        if (!closed) {
            verdict().begin(here, bench::tell);
        }
        Session session = bench.session();
        Object key = key(session);
        if (closed || !isDue() || running && key.equals(runningFor)) {
            return;
        }
        int mine = generation.incrementAndGet();
        running = true;
        runningFor = key;
        CompletableFuture.<Map<String, Quantity>>supplyAsync(
                        () -> RehearsedPlan.of(bench.reducer().located(), session, () -> generation.get() != mine),
                        task -> {
                            Thread t = new Thread(task, "plan rehearsal");
                            t.setDaemon(true);
                            t.setPriority(Thread.MIN_PRIORITY);
                            t.start();
                        })
                .whenComplete((q, failed) -> here.execute(() -> {
                    if (generation.get() != mine) {
                        return;
                    }
                    running = false;
                    rehearsedFor = key;
                    found = q == null ? Map.of() : q;
                    rehearsedSession = RehearsedForesight.untied(session);
                    over = null;
                    trouble = failed == null ? "" : said(failed);
                    bench.tell();
                }));
    }

    /** The sheet is another: what was found of the one before is of no use, and whoever works on it stops. */
    void forget() {
        generation.incrementAndGet();
        running = false;
        if (verdict != null) {
            verdict.cancel();
            verdict = null;
        }
        found = Map.of();
        rehearsedSession = null;
        rehearsedFor = List.of();
        runningFor = List.of();
        over = null;
        trouble = "";
    }

    /** Nobody waits for it any longer, and nothing is begun any more. */
    void cancel() {
        closed = true;
        generation.incrementAndGet();
        running = false;
        if (verdict != null) {
            verdict.cancel();
        }
    }

    private static String said(Throwable failed) {
        Throwable cause = failed.getCause() == null ? failed : failed.getCause();
        return cause instanceof FormulaException || cause instanceof IllegalArgumentException
                ? "The plan cannot be rehearsed: " + cause.getMessage()
                : "The plan cannot be rehearsed.";
    }
}
