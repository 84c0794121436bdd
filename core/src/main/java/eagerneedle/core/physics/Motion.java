package eagerneedle.core.physics;

import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.quantity.Notation;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * States that move by their rates, with events found to their moment: what the formulas of one run are compiled into.
 *
 * <p>A step is tried, its error held to {@value #RELATIVE} of each state; then whatever changes within it is looked for
 * on the continuous extension, the first such moment is found by halving, and the step ends there. So the equations are
 * smooth within each step, however they jump between. Not thread-safe.
 */
final class Motion {
    private static final double RELATIVE = 1e-10;
    private static final double LEAST = 1e-18;
    private static final double SHORTEST = 1e-13;
    private static final int LOOKS = 2;
    private static final int HALVINGS = 60;
    private static final double SAFETY = 0.9;
    /** Steps shorter than this, s, so many in a row, lead nowhere. */
    private static final double TOGETHER = 1e-9;

    private static final int MOST_FLIPS = 2000;
    /** Changes a second that are followed. */
    private static final int MOST_CHANGES = 3000;

    /**
     * Something that happens.
     *
     * @param index of its moment
     * @param at time, s; not a number where it is found
     * @param passes rises through zero; null for one at a time
     * @param states indices of the states it sets
     * @param values what it sets them to
     * @param once only the first time
     */
    record Happening(int index, double at, @Nullable Code passes, int[] states, Code[] values, boolean once) {}

    /** Looks on while time passes. */
    interface Watcher {
        /** A step was taken; within it, {@code moment} can be moved to any share of it. */
        void step(Motion motion, double from, double to);
    }

    private final Moment m;
    private final @Nullable Code[] rates;
    private final List<Switch> switches;
    private final List<Happening> happenings;
    private final DormandPrince step;
    private final double[] scale;
    private final double[] allowed;
    private final double[] looked;
    private final double longest;
    private double tryNext = 1e-3;
    private int flips;
    private long changes;
    private final double clockAtStart;

    /**
     * @param rates of all states; null for a memory
     * @param longest step while there is something to be found, s
     */
    Motion(Moment m, @Nullable Code[] rates, List<Switch> switches, List<Happening> happenings, double longest) {
        this.longest = switches.isEmpty() && happenings.stream().allMatch(h -> h.passes() == null)
                ? Double.POSITIVE_INFINITY
                : longest;
        this.m = m;
        this.rates = rates;
        this.switches = List.copyOf(switches);
        this.happenings = List.copyOf(happenings);
        this.clockAtStart = m.clock - m.t;
        this.step = new DormandPrince(this::rates, rates.length);
        this.scale = new double[rates.length];
        this.allowed = new double[rates.length];
        this.looked = new double[rates.length];
        settle();
    }

    private void rates(double t, double[] y, double[] out) {
        double[] kept = m.y;
        move(t, y);
        for (int i = 0; i < out.length; i++) {
            out[i] = rates[i] == null ? 0 : rates[i].at(m);
        }
        m.y = kept;
    }

    private void move(double t, double[] y) {
        m.t = t;
        m.clock = clockAtStart + t;
        m.y = y;
    }

    private void settle() {
        switches.forEach(s -> s.settle(m));
    }

    /** Lets time pass until a time, s. */
    void until(double end, Watcher watcher) {
        while (m.t < end) {
            double start = m.t;
            double limit = end;
            for (Happening h : happenings) {
                if (h.passes() == null && h.at() > start && h.at() < limit) {
                    limit = h.at();
                }
            }
            advance(limit, watcher);
            for (Happening h : happenings) {
                if (h.passes() == null && h.at() > start && h.at() <= m.t) {
                    happen(List.of(h));
                }
            }
        }
    }

    /** What happens at the very start. */
    void begin() {
        List<Happening> first = happenings.stream()
                .filter(h -> h.passes() == null && h.at() <= m.t)
                .toList();
        if (!first.isEmpty()) {
            happen(first);
        }
    }

    private void advance(double limit, Watcher watcher) {
        while (m.t < limit) {
            double t = m.t;
            double[] y = m.y;
            double h = Math.min(Math.min(tryNext, longest), limit - t);
            if (limit - t - h < SHORTEST) {
                h = limit - t;
            }
            h = accepted(t, y, h);
            double share = firstChange(t, h);
            countFlips(t, share, h);
            double to = share < 1 ? t + share * h : h == limit - t ? limit : t + h;
            double[] reached = new double[y.length];
            if (share < 1) {
                step.within(share, reached);
            } else {
                System.arraycopy(step.end(), 0, reached, 0, y.length);
            }
            List<Happening> now = new ArrayList<>();
            for (Happening e : happenings) {
                if (e.passes() != null && rises(e, t, y, to, reached)) {
                    now.add(e);
                }
            }
            watcher.step(this, t, to);
            move(to, reached);
            if (share < 1) {
                countChanges();
                settle();
            }
            if (!now.isEmpty()) {
                happen(now);
            }
        }
    }

    /** What flips to and fro without getting on would never end. */
    private void countFlips(double t, double share, double h) {
        flips = share * h > TOGETHER ? 0 : flips + 1;
        if (flips > MOST_FLIPS) {
            throw new FormulaException(
                    0,
                    "At t = " + Notation.plain(t, 4)
                            + " s a comparison in the rates flips to and fro, or they change too "
                            + "fast to be followed; for friction write dry(speed, drive, grip).");
        }
    }

    /** What changes thousands of times a second is pressed against something, and nobody waits for that. */
    private void countChanges() {
        changes++;
        if (changes > MOST_CHANGES * (1 + m.t)) {
            throw new FormulaException(
                    0,
                    "By t = " + Notation.plain(m.t, 4) + " s something happened " + changes
                            + " times; what presses against a stop needs a state that says it is held there.");
        }
    }

    /** Takes shorter steps until the error is small enough; the width of the one that is. */
    private double accepted(double t, double[] y, double first) {
        double h = first;
        while (true) {
            step.tried(t, y, h);
            for (int i = 0; i < y.length; i++) {
                double largest = Math.max(scale[i], Math.max(Math.abs(y[i]), Math.abs(step.end()[i])));
                allowed[i] = Math.max(LEAST, RELATIVE * largest);
            }
            double error = y.length == 0 ? 0 : step.error(allowed);
            move(t, y);
            if (Double.isNaN(error) && h <= SHORTEST) {
                throw new FormulaException(
                        0,
                        "A rate has no value at t = " + Notation.plain(t, 4)
                                + " s; look for a root of something below zero, or a division by zero.");
            }
            if (error <= 1 || h <= SHORTEST) {
                for (int i = 0; i < y.length; i++) {
                    scale[i] = Math.max(scale[i], Math.abs(step.end()[i]));
                }
                double grow = error == 0 ? 5 : Math.min(5, SAFETY * StrictMath.pow(error, -0.2));
                // A step cut short by the clock says little about the next.
                tryNext = h < first || first == tryNext ? h * grow : Math.max(tryNext, h * grow);
                return h;
            }
            h = Math.max(
                    SHORTEST, h * (Double.isNaN(error) ? 0.1 : Math.max(0.2, SAFETY * StrictMath.pow(error, -0.2))));
        }
    }

    /** The share of the step behind which something has changed; 1 where nothing does. */
    private double firstChange(double t, double h) {
        if (longest == Double.POSITIVE_INFINITY) {
            return 1;
        }
        double[] start = m.y;
        double low = 0;
        for (int look = 1; look <= LOOKS; look++) {
            double high = (double) look / LOOKS;
            if (changed(t, h, start, high)) {
                for (int i = 0; i < HALVINGS && (high - low) * h > Math.ulp(t + h); i++) {
                    double middle = (low + high) / 2;
                    if (changed(t, h, start, middle)) {
                        high = middle;
                    } else {
                        low = middle;
                    }
                }
                move(t, start);
                return high;
            }
            low = high;
        }
        move(t, start);
        return 1;
    }

    private boolean changed(double t, double h, double[] start, double share) {
        if (share == 1) {
            System.arraycopy(step.end(), 0, looked, 0, looked.length);
        } else {
            step.within(share, looked);
        }
        boolean any = false;
        for (Happening e : happenings) {
            any |= e.passes() != null && rises(e, t, start, t + share * h, looked);
        }
        move(t + share * h, looked);
        for (Switch s : switches) {
            any |= s.hasChanged(m);
        }
        move(t, start);
        return any;
    }

    private boolean rises(Happening e, double t, double[] before, double to, double[] after) {
        if (e.once() && !Double.isNaN(m.happened[e.index()])) {
            return false;
        }
        Code passes = Objects.requireNonNull(e.passes());
        move(t, before);
        double a = passes.at(m);
        move(to, after);
        double b = passes.at(m);
        move(t, before);
        return a <= 0 && b > 0;
    }

    private void happen(List<Happening> all) {
        double[] next = m.y.clone();
        for (Happening h : all) {
            for (int i = 0; i < h.states().length; i++) {
                next[h.states()[i]] = h.values()[i].at(m);
            }
        }
        for (Happening h : all) {
            m.happened[h.index()] = m.t;
        }
        m.y = next;
        settle();
    }

    /** The moment now. */
    Moment moment() {
        return m;
    }

    /** The value of a formula within the step just taken, at a time. */
    double during(Code code, double time) {
        double t = m.t;
        double[] y = m.y;
        step.within(step.width() == 0 ? 0 : (time - step.from()) / step.width(), looked);
        move(time, looked);
        double v = code.at(m);
        move(t, y);
        return v;
    }

    double[] states() {
        return Arrays.copyOf(m.y, m.y.length);
    }
}
