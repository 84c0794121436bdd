package eagerneedle.app.workbench;

import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.session.Session;
import eagerneedle.rig.simulated.RehearsedPlan;
import eagerneedle.rig.simulated.Rigs;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.Executor;
import java.util.concurrent.atomic.AtomicInteger;

/**
 * The plan told by rehearsals, in the background: results that the sheet itself plans nothing for get their value and
 * their budget from carrying the plan out. The next edit of the plan cancels it.
 */
public final class PlanRehearsal {
    private final Workbench bench;
    private final AtomicInteger generation = new AtomicInteger();
    private volatile boolean running;
    private Object rehearsedFor = List.of();
    private Object runningFor = List.of();
    private Map<String, Quantity> found = Map.of();
    private String trouble = "";
    private Reduction over;
    private Reduction with;
    private SheetVerdict verdict;

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

    /** The plan with what rehearsals found, as far as they are of this plan. */
    Reduction over(Reduction plan) {
        if (found.isEmpty() || !key(plan.session()).equals(rehearsedFor)) {
            return plan;
        }
        if (over != plan) {
            over = plan;
            with = plan.rehearsed(found);
        }
        return with;
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
        verdict().begin(here, bench::tell);
        Session session = bench.session();
        Object key = key(session);
        boolean wanted = Rigs.canRehearse(bench.sheet())
                && bench.sheet().hasPhysics()
                && bench.sheet().results().keySet().stream()
                        .anyMatch(n -> bench.plan().outcome(n).problem() != null);
        if (!wanted || key.equals(rehearsedFor) || running && key.equals(runningFor)) {
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
                    trouble = failed == null ? "" : said(failed);
                    bench.tell();
                }));
    }

    /** Nobody waits for it any longer. */
    void cancel() {
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
