package eagerneedle.core.physics;

import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.physics.Code.Part;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.sheet.RigPlan;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * The edges of one gate: moments at which something that moves passes the rim of a spoke. They are roots of a smooth
 * formula within the steps of the motion, not crossings between samples.
 */
final class GateEdges {
    private static final int LOOKS = 2;
    private static final int HALVINGS = 60;
    /** Share of the way from spoke to spoke at which a rim has been left behind. */
    private static final double AWAY = 0.05;

    private final int index;
    private final Code of;
    private final double every;
    private final double blocked;
    private final Code jitter;
    private final double[] uneven;
    private final Code lost;
    private final double[] spoke;
    private final Map<Long, Double> jitters = new HashMap<>();
    private final Set<Long> passed = new HashSet<>();
    private final List<double[]> found = new ArrayList<>();
    private boolean dark;

    private GateEdges(
            int index, Code of, double every, double blocked, Code jitter, double[] uneven, Code lost, double[] spoke) {
        this.index = index;
        this.of = of;
        this.every = every;
        this.blocked = blocked;
        this.jitter = jitter;
        this.uneven = uneven;
        this.lost = lost;
        this.spoke = spoke;
    }

    static GateEdges of(RunNames names, int index, String channel, RigPlan.Edges plan) {
        String entry = "edges/" + channel;
        Part of = names.compiled(entry + "/of", plan.of(), null, null);
        if (of.isTruth()) {
            throw new RigException("", "", entry, new FormulaException(1, "A gate sees a quantity that moves."));
        }
        double every = value(names, entry + "/every", plan.every(), of.unit());
        double blocked = value(names, entry + "/blocked", plan.blocked(), LabUnit.ONE);
        Draws.Stream stream = names.world().draws().stream(names.path(entry + "/jitter"));
        Code jitter = plan.jitter() == null
                ? m -> 0
                : fitting(names.compiled(entry + "/jitter", plan.jitter(), stream, null), of.unit());
        double[] uneven = new double[Math.max(1, plan.round())];
        if (plan.uneven() != null) {
            for (int i = 0; i < uneven.length; i++) {
                Part p = new PhysicsCompiler(
                                names, new Moment(0, 0), names.world().draws(), "", null, null)
                        .compile(names.world().drawn(plan.uneven(), entry + "/uneven/" + i));
                uneven[i] = fitting(p, of.unit()).at(new Moment(0, 0));
            }
        }
        double[] spoke = new double[1];
        return new GateEdges(index, of.code(), every, blocked, jitter, uneven, lost(names, entry, plan, spoke), spoke);
    }

    private static Code lost(RunNames names, String entry, RigPlan.Edges plan, double[] spoke) {
        if (plan.lost() == null) {
            return m -> 0;
        }
        Names ofSpoke = new Names() {
            @Override
            public Optional<Part> of(String name) {
                return name.equals("n") ? Optional.of(new Part(m -> spoke[0], LabUnit.ONE, false)) : names.of(name);
            }

            @Override
            public Collection<String> all() {
                return names.all();
            }
        };
        return new PhysicsCompiler(ofSpoke, new Moment(0, 0), names.world().draws(), entry, null, null)
                .compile(Formula.parse(plan.lost()).expression())
                .code();
    }

    private static double value(RunNames names, String entry, String text, LabUnit unit) {
        Part p = names.drawnOnce(entry, text);
        if (!p.fixed()) {
            throw new RigException("", "", entry, new FormulaException(1, "This must not change while a run lasts."));
        }
        return fitting(p, unit).at(new Moment(0, 0));
    }

    private static Code fitting(Part p, LabUnit unit) {
        if (p.isTruth() || !p.unit().fits(unit)) {
            throw new FormulaException(
                    1, "A gate that sees " + unit.named() + " needs a value in " + unit.named() + " here.");
        }
        return p.code();
    }

    void start(Moment m) {
        double s = of.at(m) / every;
        dark = s - Math.floor(s) < blocked;
    }

    boolean isDark() {
        return dark;
    }

    /** Looks for edges within the step just taken. */
    void look(Motion motion, double from, double to) {
        double t = from;
        double s = motion.during(of, t);
        for (int i = 1; i <= LOOKS; i++) {
            double next = from + (to - from) * i / LOOKS;
            double there = motion.during(of, next);
            passed(motion, t, s, next, there);
            t = next;
            s = there;
        }
        // A rim errs by the same while it is near, and anew when it comes again.
        if (!passed.isEmpty()) {
            double place = s;
            passed.removeIf(n ->
                    Math.abs((Math.floorDiv(n, 2L) + Math.floorMod(n, 2L) * blocked) * every - place) > AWAY * every
                            && jitters.remove(n) != null);
        }
    }

    private void passed(Motion motion, double t, double s, double next, double there) {
        if (there == s) {
            return;
        }
        boolean up = there > s;
        double low = Math.min(s, there);
        double high = Math.max(s, there);
        List<double[]> here = new ArrayList<>();
        for (long k = (long) Math.floor(low / every - 0.5); k <= (long) Math.floor(high / every + 0.5); k++) {
            for (int rim = 0; rim < 2; rim++) {
                double nominal = (k + rim * blocked) * every;
                if (nominal < low - every / 4 || nominal > high + every / 4) {
                    continue;
                }
                double place = place(k, rim, motion);
                if (up ? s < place && place <= there : there <= place && place < s) {
                    double time = crossing(motion, t, next, place, up);
                    here.add(new double[] {time, k, rim});
                }
            }
        }
        here.sort(Comparator.comparingDouble(e -> e[0]));
        for (double[] e : here) {
            boolean enters = up == (e[2] == 0);
            spoke[0] = e[1];
            passed.add(key((long) e[1], (int) e[2]));
            if (lost.at(motion.moment()) != 1) {
                dark = enters;
                found.add(new double[] {e[0], enters ? 1 : 0});
            }
        }
    }

    private static long key(long k, int rim) {
        return 2 * k + rim;
    }

    private double place(long k, int rim, Motion motion) {
        double error = jitters.computeIfAbsent(key(k, rim), n -> jitter.at(motion.moment()));
        return k * every + uneven[Math.floorMod(k, uneven.length)] + (rim == 1 ? blocked * every : 0) + error;
    }

    private double crossing(Motion motion, double from, double to, double place, boolean up) {
        double low = from;
        double high = to;
        for (int i = 0; i < HALVINGS && high - low > Math.ulp(high); i++) {
            double middle = (low + high) / 2;
            if (motion.during(of, middle) >= place == up) {
                high = middle;
            } else {
                low = middle;
            }
        }
        return (low + high) / 2;
    }

    /** The edges of all gates in order of time, each with the state of every gate after it. */
    static List<double[]> together(List<GateEdges> gates) {
        List<double[]> all = new ArrayList<>();
        double[] state = new double[gates.size()];
        for (GateEdges g : gates) {
            state[g.index] = g.found.isEmpty() ? (g.dark ? 1 : 0) : 1 - g.found.get(0)[1];
            g.found.forEach(e -> all.add(new double[] {e[0], g.index, e[1]}));
            g.found.clear();
        }
        all.sort(Comparator.comparingDouble(e -> e[0]));
        List<double[]> rows = new ArrayList<>();
        for (double[] e : all) {
            state[(int) e[1]] = e[2];
            double[] row = new double[state.length + 1];
            row[0] = e[0];
            System.arraycopy(state, 0, row, 1, state.length);
            rows.add(row);
        }
        return rows;
    }
}
