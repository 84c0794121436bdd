package eagerneedle.rig.driver;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.sheet.Output;
import java.io.IOException;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;
import java.util.function.LongSupplier;

/**
 * Stands between a wish and an instrument's output: refuses what is beyond the limits, moves no faster than the ramp,
 * counts the time near the limit and switches off when it is over, and switches off on stop, on error and when the
 * connection goes.
 *
 * <p>What can be done from here when the line is cut is nothing; so the instrument has a watchdog of its own (line
 * protocol), and whatever comes back after a cut is told to be safe before anything else.
 */
public final class OutputGuard implements AutoCloseable {
    private static final int STEP_MS = 50;

    /** Seconds; a program that was held up goes on from where it stood, it does not leap after the ramp. */
    private static final double LONGEST_STEP = 0.2;

    private final Driver driver;
    private final String name;
    private final Output limits;
    private final Consumer<String> news;
    private final LongSupplier nanos;
    private final ScheduledExecutorService hand;
    private double target;
    private double now;
    private long last;
    private double above;
    private boolean on;

    /**
     * A guard over one output, off to begin with.
     *
     * @param news takes a sentence when the guard acts by itself
     */
    public OutputGuard(Driver driver, String name, Output limits, Consumer<String> news) {
        this(driver, name, limits, news, System::nanoTime);
        hand.scheduleWithFixedDelay(this::step, STEP_MS, STEP_MS, TimeUnit.MILLISECONDS);
    }

    /** For tests: a clock of their own, and nothing moves unless {@link #step()} is called. */
    OutputGuard(Driver driver, String name, Output limits, Consumer<String> news, LongSupplier nanos) {
        this.driver = driver;
        this.name = name;
        this.limits = limits;
        this.news = news;
        this.nanos = nanos;
        this.target = limits.safe();
        this.now = limits.safe();
        this.last = nanos.getAsLong();
        this.hand = Executors.newSingleThreadScheduledExecutor(r -> {
            Thread t = new Thread(r, "output guard " + name);
            t.setDaemon(true);
            return t;
        });
    }

    private String words(double v) {
        return (Notation.plain(v, 5) + " " + LabUnit.parse(limits.unit()).pretty()).strip();
    }

    private String label() {
        return limits.label() == null ? name : limits.label();
    }

    /**
     * Wishes for a value; it is reached by the ramp.
     *
     * @throws IllegalArgumentException with one sentence when it is beyond the limits; nothing changes then
     */
    public synchronized void set(double value) {
        if (!(value >= limits.lowest() && value <= limits.highest())) {
            throw new IllegalArgumentException("The " + label() + " stays between " + words(limits.lowest()) + " and "
                    + words(limits.highest()) + "; " + words(value) + " was not set.");
        }
        if (driver.state() == Driver.State.LOST || driver.state() == Driver.State.CLOSED) {
            throw new IllegalArgumentException("The instrument is not connected; the " + label() + " was not set.");
        }
        target = value;
        on = true;
    }

    /** What is set at this moment, as far as the instrument confirmed it. */
    public synchronized double value() {
        return now;
    }

    /** True while it is on and has come to what was wished for. */
    public synchronized boolean isThere() {
        return on && now == target;
    }

    /** False where it was switched off, by a person, by the time near its limit, or because the line was cut. */
    public synchronized boolean isOn() {
        return on;
    }

    /** What was wished for last, in its own unit. */
    public synchronized double target() {
        return target;
    }

    /** Its limits. */
    public Output limits() {
        return limits;
    }

    /** Seconds left at this value before it is switched off; infinite where time is not limited. */
    public synchronized double secondsLeft() {
        return limits.dwellAbove() == null || now <= limits.dwellAbove()
                ? Double.POSITIVE_INFINITY
                : Math.max(0, limits.dwell() - above);
    }

    /** One step of the ramp and of the clock near the limit. */
    synchronized void step() {
        long t = nanos.getAsLong();
        double seconds = (t - last) / 1e9;
        last = t;
        if (!on) {
            return;
        }
        if (driver.state() == Driver.State.LOST) {
            forget("The connection is lost: the " + label() + " counts as switched off. Go and see that it is.");
            return;
        }
        if (limits.dwellAbove() != null && now > limits.dwellAbove()) {
            above += seconds;
            if (above >= limits.dwell()) {
                off();
                news.accept("The " + label() + " was above " + words(limits.dwellAbove()) + " for "
                        + Notation.plain(limits.dwell(), 3) + " s, the longest time allowed, and was switched off.");
                return;
            }
        } else {
            above = 0;
        }
        double most = limits.ramp() > 0 ? limits.ramp() * Math.min(seconds, LONGEST_STEP) : Double.POSITIVE_INFINITY;
        double next = Math.abs(target - now) <= most ? target : now + Math.copySign(most, target - now);
        if (next != now) {
            try {
                driver.setOutput(name, next);
                now = next;
            } catch (IOException e) {
                try {
                    driver.setOutput(name, limits.safe());
                } catch (IOException gone) {
                    // Its own watchdog is what is left.
                }
                forget(e.getMessage() + " It was switched off.");
            }
        }
    }

    private void forget(String sentence) {
        now = limits.safe();
        target = limits.safe();
        above = 0;
        on = false;
        news.accept(sentence);
    }

    /** Switches off at once, without a ramp. */
    public synchronized void off() {
        boolean was = on;
        target = limits.safe();
        now = limits.safe();
        above = 0;
        on = false;
        if (was) {
            try {
                driver.setOutput(name, limits.safe());
            } catch (IOException e) {
                news.accept("The " + label() + " could not be told to switch off: go and switch it off by hand.");
            }
        }
    }

    /** Switches off and ends. */
    @Override
    public void close() {
        hand.shutdownNow();
        off();
    }
}
