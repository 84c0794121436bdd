package eagerneedle.core.calibration;

import eagerneedle.core.quantity.Notation;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * Leads the adjustment of an indicator with two trims that disturb each other: zero first, then span, again until both
 * hold.
 *
 * <p>Turning the zero until it is right, then the span, then the zero again, converges as slowly as the trims are
 * coupled. So both readings are taken before anything is turned, and from the first pass on the advisor knows by how
 * much each trim moves the other's reading. From the second pass on it therefore lets the zero be set <em>off</em> its
 * mark by what turning the span will undo: the two linear equations of the coupled readings, solved for both trims at
 * once. Immutable: each reading gives the next advisor.
 *
 * @param goal what must hold
 * @param log readings so far, in order
 * @param passes passes begun
 */
public record TrimAdvisor(Goal goal, List<Entry> log, int passes) {
    private static final int MOST_PASSES = 12;

    /**
     * What must hold.
     *
     * @param zero reading wanted without load
     * @param full reading wanted at full load
     * @param band largest error allowed at either, same unit
     * @param noise standard uncertainty of one steadied reading, same unit
     */
    public record Goal(double zero, double full, double band, double noise) {
        public Goal {
            if (!(band > 0) || zero == full) {
                throw new IllegalArgumentException(
                        "An adjustment needs a band above 0 and two different readings to reach.");
            }
        }
    }

    /** What is loaded. */
    public enum Load {
        NONE,
        FULL
    }

    /** Which trim is turned; none when the reading is only taken. */
    public enum Trim {
        ZERO,
        SPAN,
        NEITHER
    }

    /** One reading taken: under which load, after turning which trim towards which aim. */
    public record Entry(Load load, Trim turned, double aim, double before, double reading, int pass) {}

    /**
     * What to do next.
     *
     * @param load under which load
     * @param trim which trim to turn
     * @param aim reading to turn to
     * @param band how near is near enough for this step
     * @param says the same in words
     */
    public record Instruction(Load load, Trim trim, double aim, double band, String says) {
        /** True when a steadied reading is near enough to be taken. */
        public boolean holds(double reading) {
            return trim == Trim.NEITHER || Math.abs(reading - aim) <= band;
        }
    }

    public TrimAdvisor {
        log = List.copyOf(log);
    }

    public static TrimAdvisor start(Goal goal) {
        return new TrimAdvisor(goal, List.of(), 0);
    }

    /** How near to its aim a trim is turned: so that what both leave adds up to no more than a third of the band. */
    private double near() {
        return Math.max(goal.band() / 3 / (1 + Math.abs(zeroBySpan())), Math.min(goal.band() / 2, 3 * goal.noise()));
    }

    /** True when zero and span both hold. */
    public boolean done() {
        if (log.size() < 2 || log.get(log.size() - 1).turned() != Trim.NEITHER) {
            return false;
        }
        return holds(Load.NONE, goal.zero()) && holds(Load.FULL, goal.full());
    }

    /** True when it does not come nearer any more: a trim at its end, something loose. */
    public boolean givenUp() {
        return passes >= MOST_PASSES && !done();
    }

    private boolean holds(Load load, double aim) {
        Entry e = last(load);
        return e != null && inBand(e.reading(), aim);
    }

    /** The last reading under a load that was taken already. */
    private double reading(Load load) {
        return Objects.requireNonNull(last(load)).reading();
    }

    private @Nullable Entry last(Load load) {
        for (int i = log.size() - 1; i >= 0; i--) {
            if (log.get(i).load() == load) {
                return log.get(i);
            }
        }
        return null;
    }

    /** What to do next; empty words when it is {@link #done()}. */
    public Instruction next() {
        if (done()) {
            return new Instruction(
                    Load.NONE, Trim.NEITHER, goal.zero(), goal.band(), "Zero and span both hold: lock the trims.");
        }
        if (log.isEmpty()) {
            return new Instruction(
                    Load.NONE,
                    Trim.NEITHER,
                    goal.zero(),
                    goal.band(),
                    "Take all load off and read, before anything is turned.");
        }
        Entry latest = log.get(log.size() - 1);
        if (log.size() == 1) {
            return new Instruction(
                    Load.FULL,
                    Trim.NEITHER,
                    goal.full(),
                    goal.band(),
                    "Put full load on and read, before anything is turned.");
        }
        if (latest.load() == Load.NONE && latest.turned() == Trim.ZERO) {
            return new Instruction(Load.FULL, Trim.NEITHER, goal.full(), goal.band(), "Full load on: read.");
        }
        if (latest.load() == Load.FULL && latest.turned() == Trim.NEITHER && passes > 0 && !zeroWouldMiss()) {
            return new Instruction(
                    Load.FULL,
                    Trim.SPAN,
                    goal.full(),
                    near(),
                    "Full load on: turn SPAN until it reads " + Notation.plain(goal.full(), 5) + ".");
        }
        if (latest.load() == Load.FULL && latest.turned() == Trim.SPAN) {
            return new Instruction(Load.NONE, Trim.NEITHER, goal.zero(), goal.band(), "Load off: read the zero again.");
        }
        double aim = aim();
        boolean off = Math.abs(aim - goal.zero()) > near();
        return new Instruction(
                Load.NONE,
                Trim.ZERO,
                aim,
                near(),
                "Load off: turn ZERO until it reads " + Notation.plain(aim, 4)
                        + (off ? ", off its mark on purpose: the span will pull it back." : "."));
    }

    /**
     * True when turning the span now would leave the zero outside half its band, and the zero was set only once in this
     * pass.
     */
    private boolean zeroWouldMiss() {
        double left = reading(Load.NONE) + zeroBySpan() * (goal.full() - reading(Load.FULL)) - goal.zero();
        return passes > 1
                && log.stream()
                                .filter(e -> e.pass() == passes && e.turned() == Trim.ZERO)
                                .count()
                        < 2
                && Math.abs(left) > goal.band() / 2;
    }

    /** The zero reading to aim at, so that turning the span afterwards leaves both right. */
    private double aim() {
        double zs = zeroBySpan();
        double sz = spanByZero();
        double now = reading(Load.FULL);
        double zeroNow = reading(Load.NONE);
        double denominator = 1 - zs * sz;
        return Math.abs(denominator) < 0.05
                ? goal.zero()
                : (goal.zero() - zs * (goal.full() - now + sz * zeroNow)) / denominator;
    }

    /** By how much the zero reading moves when the span trim moves the full reading by one; 0 until it was seen. */
    public double zeroBySpan() {
        for (int i = log.size() - 1; i > 1; i--) {
            Entry span = log.get(i - 1);
            if (span.turned() == Trim.SPAN && log.get(i).load() == Load.NONE) {
                double moved = span.reading() - span.before();
                Entry zero = null;
                for (int j = i - 2; j >= 0 && zero == null; j--) {
                    zero = log.get(j).load() == Load.NONE ? log.get(j) : null;
                }
                if (zero != null && Math.abs(moved) > 10 * goal.noise() + 1e-300) {
                    return (log.get(i).reading() - zero.reading()) / moved;
                }
            }
        }
        return 0;
    }

    /** By how much the full reading moves when the zero trim moves the zero reading by one; 1 until it was seen. */
    public double spanByZero() {
        for (int i = log.size() - 1; i > 0; i--) {
            Entry span = log.get(i);
            Entry zero = log.get(i - 1);
            if (span.load() == Load.FULL && zero.turned() == Trim.ZERO) {
                double moved = zero.reading() - zero.before();
                Entry full = null;
                for (int j = i - 1; j >= 0 && full == null; j--) {
                    full = log.get(j).load() == Load.FULL ? log.get(j) : null;
                }
                if (full != null && Math.abs(moved) > 10 * goal.noise() + 1e-300) {
                    return (span.before() - full.reading()) / moved;
                }
            }
        }
        return 1;
    }

    /**
     * Takes a steadied reading.
     *
     * @param before the steadied reading before the trim was turned; not looked at where nothing is turned
     */
    public TrimAdvisor taken(double before, double reading) {
        Instruction now = next();
        boolean again = !log.isEmpty() && log.get(log.size() - 1).load() == Load.FULL && passes > 0;
        int pass = passes + (now.trim() == Trim.ZERO && !again ? 1 : 0);
        List<Entry> longer = new ArrayList<>(log);
        longer.add(new Entry(
                now.load(), now.trim(), now.aim(), now.trim() == Trim.NEITHER ? reading : before, reading, pass));
        return new TrimAdvisor(goal, longer, pass);
    }

    /**
     * How many passes it will have taken in all when both hold; -1 until the first pass has shown how the trims are
     * coupled.
     */
    public int predictedPasses() {
        if (done()) {
            return passes;
        }
        Entry latest = log.isEmpty() ? null : log.get(log.size() - 1);
        boolean between =
                latest != null && passes > 0 && !(latest.load() == Load.NONE && latest.turned() == Trim.NEITHER);
        if (passes == 0 || between && passes == 1) {
            return -1;
        }
        return between ? passes : passes + 1;
    }

    private boolean inBand(double reading, double wanted) {
        return Math.abs(reading - wanted) <= goal.band();
    }
}
