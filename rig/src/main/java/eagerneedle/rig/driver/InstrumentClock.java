package eagerneedle.rig.driver;

import eagerneedle.core.quantity.Notation;
import java.util.ArrayList;
import java.util.List;

/**
 * An instrument's clock, followed and held against our own.
 *
 * <p>Samples are stamped by the instrument, which knows best when it took them; our own clock only knows when they
 * arrived, after whatever the wire and its buffers added. So the instrument's stamps give the times of a run, and
 * arrival only judges them:
 *
 * <ul>
 *   <li>a stamp that goes back by just one round of 32 bits of microseconds went round;
 *   <li>a stamp that goes back otherwise, or runs ahead of what can have passed, is held; when the next one goes on
 *       from it the clock restarted or jumped, and the run goes on from there by our own clock; when the next one goes
 *       on from before, it was garbled;
 *   <li>a clock that runs too fast or too slow by a hundredth is said, once.
 * </ul>
 *
 * <p>All in nanoseconds. Time comes in as an argument. A simulated bench may run faster than real time: its stamps are
 * trusted when they go forward.
 */
final class InstrumentClock {
    static final long WRAP = (1L << 32) * 1000;
    private static final long AHEAD = 500_000_000L;
    private static final long BUCKET = 2_000_000_000L;
    private static final long FRESH = 3_000_000_000L;
    private static final long LONG_ENOUGH = 20_000_000_000L;
    private static final double OFF_RATE = 0.01;

    /**
     * What became of a stamp: it goes on from the last one; the same, and the one held before was garbled; it is held
     * until the next one tells; the same, and the one held before is given up; the one held before and this one go on
     * from each other; it cannot be used.
     */
    enum Verdict {
        PLACED,
        PLACED_ALONE,
        HELD,
        HELD_INSTEAD,
        CONFIRMED,
        REFUSED
    }

    private final boolean trusted;
    private final List<String> news = new ArrayList<>();
    private boolean begun;
    private long offset;
    private long lastRaw;
    private long lastArrival;
    private long usual;
    private long leastLag;
    private long nextLag;
    private long bucketEnds;
    private boolean holding;
    private long heldRaw;
    private long heldArrival;
    private long rateRaw;
    private long rateArrival;
    private boolean rateSaid;

    /** @param trusted true for a clock whose pace is not ours */
    InstrumentClock(boolean trusted) {
        this.trusted = trusted;
    }

    /**
     * Takes a stamp; those placed and CONFIRMED can be asked for their {@link #time}, and CONFIRMED for that of the one
     * held before it.
     */
    Verdict take(long raw, long arrival) {
        if (!begun) {
            begun = true;
            offset = -raw;
            leastLag = nextLag = arrival;
            bucketEnds = arrival + BUCKET;
            rateRaw = raw;
            rateArrival = arrival;
            went(raw, arrival);
            return Verdict.PLACED;
        }
        if (follows(raw, arrival)) {
            boolean garbled = holding;
            holding = false;
            went(raw, arrival);
            return garbled ? Verdict.PLACED_ALONE : Verdict.PLACED;
        }
        long round = wraps(raw, arrival);
        if (round > 0) {
            offset += round * WRAP;
            lastRaw -= round * WRAP;
            rateRaw -= round * WRAP;
            holding = false;
            news.add("The instrument's clock went round; it is followed.");
            went(raw, arrival);
            return Verdict.PLACED;
        }
        if (holding && raw > heldRaw && (trusted || raw - heldRaw <= arrival - heldArrival + AHEAD)) {
            adopt(raw, arrival);
            return Verdict.CONFIRMED;
        }
        boolean before = holding;
        holding = raw != lastRaw;
        heldRaw = raw;
        heldArrival = arrival;
        return !holding ? Verdict.REFUSED : before ? Verdict.HELD_INSTEAD : Verdict.HELD;
    }

    /** The time of the run that a stamp means now, ns. */
    long time(long raw) {
        return raw + offset;
    }

    /** The stamp that was held before a confirmed one. */
    long held() {
        return heldRaw;
    }

    /** What there is to say since it was asked last, one sentence each. */
    List<String> news() {
        List<String> out = List.copyOf(news);
        news.clear();
        return out;
    }

    private boolean follows(long raw, long arrival) {
        long step = raw - lastRaw;
        long ahead = raw + offset - (arrival - Math.min(leastLag, nextLag));
        if (!trusted && arrival - lastArrival - step > WRAP / 2 && raw < WRAP) {
            return false;
        }
        return step > 0 && (trusted || ahead <= Math.max(AHEAD, 5 * usual));
    }

    private long wraps(long raw, long arrival) {
        if (raw >= WRAP || lastRaw >= WRAP) {
            return 0;
        }
        long rounds = Math.max(1, Math.round((lastRaw + (arrival - lastArrival) - raw) / (double) WRAP));
        long step = raw + rounds * WRAP - lastRaw;
        boolean inTime =
                trusted ? lastRaw - raw > WRAP / 2 : step <= arrival - lastArrival + Math.max(AHEAD, 5 * usual);
        return step > 0 && inTime ? rounds : 0;
    }

    private void adopt(long raw, long arrival) {
        long from = lastRaw + offset;
        long gap = Math.max(1000, heldArrival - lastArrival);
        boolean restarted = heldRaw < lastRaw && heldRaw <= gap + FRESH;
        double by = (heldRaw - lastRaw - gap) / 1e9;
        news.add(
                restarted
                        ? "The instrument started anew; its clock is followed from there, and the time it was "
                                + "away is told by this computer's."
                        : "The instrument's clock jumped by " + Notation.plain(by, 3)
                                + " s; it is followed from there by this computer's, and what came is kept.");
        offset = from + gap - heldRaw;
        holding = false;
        leastLag = nextLag = heldArrival - time(heldRaw);
        bucketEnds = arrival + BUCKET;
        rateRaw = heldRaw;
        rateArrival = heldArrival;
        lastRaw = heldRaw;
        lastArrival = heldArrival;
        went(raw, arrival);
    }

    private void went(long raw, long arrival) {
        long step = raw - lastRaw;
        usual = lastRaw == 0 && usual == 0 ? 0 : usual == 0 ? step : usual + (step - usual) / 8;
        lastRaw = raw;
        lastArrival = arrival;
        long lag = arrival - time(raw);
        if (arrival > bucketEnds) {
            leastLag = nextLag;
            nextLag = lag;
            bucketEnds = arrival + BUCKET;
        }
        nextLag = Math.min(nextLag, lag);
        leastLag = Math.min(leastLag, lag);
        if (!trusted && !rateSaid && arrival - rateArrival > LONG_ENOUGH) {
            double rate = (raw - rateRaw) / (double) (arrival - rateArrival);
            if (Math.abs(rate - 1) > OFF_RATE) {
                rateSaid = true;
                news.add("The instrument's clock runs " + Notation.plain(100 * Math.abs(rate - 1), 2) + " % too "
                        + (rate > 1 ? "fast" : "slow") + " beside this computer's; times are the instrument's.");
            }
        }
    }
}
