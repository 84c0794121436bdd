package eagerneedle.rig.simulated;

import eagerneedle.core.physics.Once;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.PoolTaking;
import eagerneedle.core.session.PoolSource;
import eagerneedle.core.sheet.Pool;
import eagerneedle.core.sheet.PooledSheet;
import eagerneedle.core.sheet.RigPlan;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.RawSamples;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * The benches of all sessions that a pool expects, in one nature, beside a bench of the pool's own where it has one.
 * What the pool takes to be shared is the same at all of them; all the rest is drawn for each.
 */
final class PoolRig implements SimulatedRig {
    private static final long APART = 100_003;
    private static final String FAULT = "rig." + Pool.NAME + ".";

    private final SimulatedRig own;
    private final Pool pool;
    private final List<Bench> benches;

    /** One session that is expected. */
    private record Bench(String name, SheetReader.Located located, SimulatedRig rig) {}

    /** How the bench of a session is made. */
    private interface Maker {
        SimulatedRig of(Sheet sheet, long seed, Once once, String session);
    }

    private PoolRig(SimulatedRig own, Sheet sheet, RigPlan plan, long seed, Maker maker) {
        this.own = own;
        this.pool = sheet.pool();
        this.benches = new ArrayList<>();
        SheetReader.Located source = PooledSheet.taking(
                pool,
                PooledSheet.textOf(sheet)
                        .orElseThrow(() -> new IllegalArgumentException("There is no sheet " + pool.from()
                                + " beside this one; without it its sessions cannot be rehearsed.")));
        Once once = new Once(seed, Set.copyOf(pool.shared()));
        pool.sessions().forEach((name, readings) -> {
            Sheet planned = source.sheet()
                    .planned(readings, c -> source.sheet().capture(c).repeats(), (n, c) -> c)
                    .inNature(plan.nature());
            long itsSeed = seed * APART + benches.size() + 1;
            benches.add(new Bench(name, source.with(planned), maker.of(planned, itsSeed, once, name)));
        });
    }

    /**
     * With the mistakes that are made.
     *
     * @param plan the physics of the pool
     * @param faults mistakes of the pool; those of its sessions are {@code rig.pool.SESSION}
     */
    static SimulatedRig of(SimulatedRig own, Sheet sheet, RigPlan plan, long seed, Set<String> faults) {
        return new PoolRig(
                own, sheet, plan, seed, (s, n, once, session) -> Rigs.of(s, n, once, of(sheet, session, faults)));
    }

    /** With instruments that show the truth. */
    static SimulatedRig ideal(SimulatedRig own, Sheet sheet, RigPlan plan, long seed) {
        return new PoolRig(own, sheet, plan, seed, (s, n, once, session) -> Rigs.ideal(s, n, once));
    }

    private static Set<String> of(Sheet sheet, String session, Set<String> faults) {
        Set<String> out = new LinkedHashSet<>();
        sheet.mistakes().stream()
                .filter(m -> faults.contains(m.id()) && m.change().containsKey(FAULT + session))
                .forEach(m -> out.add(m.change().get(FAULT + session)));
        return out;
    }

    @Override
    public List<PoolSource> sources(Instant start) {
        return benches.stream().map(b -> taken(b, start)).toList();
    }

    private PoolSource taken(Bench b, Instant start) {
        Rehearsal r = Rehearsal.of(b.located, b.rig, start);
        return PoolTaking.of(
                pool,
                b.located,
                r.session(),
                (run, channel) -> r.samples().getOrDefault(run, Map.of()).getOrDefault(channel, RawSamples.NONE),
                new PoolTaking.Origin(b.name, "a rehearsal of " + b.name, b.name, start));
    }

    @Override
    public List<String> channels() {
        return own.channels();
    }

    @Override
    public void arrange(Map<String, String> bench) {
        own.arrange(bench);
    }

    @Override
    public void begin() {
        own.begin();
    }

    @Override
    public void advance(double seconds) {
        own.advance(seconds);
    }

    @Override
    public double[] read() {
        return own.read();
    }

    @Override
    public boolean isGate() {
        return own.isGate();
    }

    @Override
    public List<double[]> edges() {
        return own.edges();
    }

    @Override
    public Map<String, String> byEye() {
        return own.byEye();
    }

    @Override
    public boolean calibrates(String channel) {
        return own.calibrates(channel);
    }

    @Override
    public double duration() {
        return own.duration();
    }

    @Override
    public Map<String, Quantity> truth() {
        return own.truth();
    }

    @Override
    public Map<String, String> readings() {
        return own.readings();
    }
}
