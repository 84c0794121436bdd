package eagerneedle.core.capture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.trace.Crossings;
import eagerneedle.core.trace.DeviceClock;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.core.trace.Trace;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** Clocks that start anywhere, drift and jump, over a wire that delays: common events agree as well as is stated. */
class ClockFollowerTest {
    private static final double WAY = 0.002;
    private static final double RATE = 50;

    /** An instrument with a clock and a wire of its own. */
    private static final class Instrument {
        private final Random random;
        private final double began;
        private final double ppm;
        private final double quickest;
        private final double jump;
        private final ClockFollower follower = new ClockFollower(WAY);

        Instrument(long seed, double ppm, double jump) {
            random = new Random(seed * 0x9E3779B97F4A7C15L);
            began = 0.3 * random.nextDouble();
            quickest = WAY * random.nextDouble();
            this.ppm = ppm;
            this.jump = jump;
        }

        /** What its clock shows at a moment of the world. */
        double stamp(double world) {
            double s = (world - began) * (1 + ppm * 1e-6);
            return world > 11 ? s + jump : s;
        }

        private double way() {
            double d = quickest - 0.001 * Math.log(1 - random.nextDouble());
            return random.nextInt(60) == 0 ? d + 0.03 * random.nextDouble() : d;
        }

        void run(double seconds) {
            boolean before = true;
            double last = 0;
            for (int i = 0; i < seconds * RATE; i++) {
                double world = began + i / RATE;
                double arrived = Math.max(last, world + way());
                last = arrived;
                if (before && jump != 0 && world > 11) {
                    before = false;
                    follower.jumped(stamp(world), arrived);
                } else {
                    follower.take(stamp(world), arrived);
                }
            }
        }
    }

    private static double[] misses(double seconds, double event, double jump) {
        double[] z = new double[400];
        double largest = 0;
        for (int k = 0; k < z.length; k++) {
            Instrument a = new Instrument(2 * k, 50, 0);
            Instrument b = new Instrument(2 * k + 1, -100, jump);
            a.run(seconds);
            b.run(seconds);
            DeviceClock ca = a.follower.clock(0);
            DeviceClock cb = b.follower.clock(0);
            double u = Math.hypot(ca.u(a.stamp(event)), cb.u(b.stamp(event)));
            largest = Math.max(largest, u);
            z[k] = (ca.time(a.stamp(event)) - cb.time(b.stamp(event))) / u;
        }
        assertThat(largest).isLessThan(0.002);
        return z;
    }

    private static double inside(double[] z) {
        double n = 0;
        for (double v : z) {
            n += Math.abs(v) <= 1.96 ? 1 : 0;
        }
        return n / z.length;
    }

    @Test
    void eventsOfTwoInstrumentsAgreeAsStated() {
        assertThat(inside(misses(20, 7, 0))).isBetween(0.92, 0.985);
        assertThat(inside(misses(20, 19, 0))).isBetween(0.92, 0.985);
        assertThat(inside(misses(3, 1.5, 0))).isBetween(0.92, 0.985);
    }

    /** A clock that jumps by minutes is followed on both sides. */
    @Test
    void aClockThatJumpsIsFollowed() {
        assertThat(inside(misses(20, 7, 300))).isBetween(0.92, 0.985);
        assertThat(inside(misses(20, 17, 300))).isBetween(0.92, 0.985);
        assertThat(inside(misses(20, 17, 3.2))).isBetween(0.92, 0.985);
    }

    @Test
    void aDriftIsFoundInAMinuteAndNotClaimedFromASecond() {
        Instrument slow = new Instrument(5, 100, 0);
        slow.run(60);
        DeviceClock.Piece p = slow.follower.clock(0).pieces().get(0);
        assertThat(p.rate()).isCloseTo(-100e-6, within(4 * p.uRate()));
        assertThat(p.uRate()).isLessThan(20e-6);
        Instrument brief = new Instrument(6, 100, 0);
        brief.run(1);
        assertThat(brief.follower.clock(0).pieces().get(0).uRate()).isGreaterThan(150e-6);
    }

    /** One sample alone still has a clock, known no better than the wire allows. */
    @Test
    void oneSampleIsEnoughForAClock() {
        ClockFollower f = new ClockFollower(WAY);
        assertThat(f.isEmpty()).isTrue();
        f.take(0, 12.5);
        DeviceClock c = f.clock(12.5);
        assertThat(c.time(0)).isCloseTo(-WAY / 2, within(1e-12));
        assertThat(c.u(0)).isBetween(WAY / 4, 1.0);
    }

    /** The same event as a level crossing on two traces: their difference is as uncertain as their two clocks. */
    @Test
    void crossingsCarryTheClocksOfTheirTraces() {
        DeviceClock a = new DeviceClock(List.of(new DeviceClock.Piece(0, 0, 0, 0, 3e-4, 0)), 6e-4);
        DeviceClock b = new DeviceClock(List.of(new DeviceClock.Piece(0, 0, 0.25, 0, 4e-4, 0)), 6e-4);
        Quantity ta = crossing(a.on(rising(a), "run 1", "left", "left ranger", false));
        Quantity tb = crossing(b.on(rising(b), "run 1", "right", "right ranger", false));
        assertThat(tb.value() - ta.value()).isCloseTo(0.25, within(1e-9));
        Quantity d = tb.minus(ta);
        double clocks = Math.sqrt(3e-4 * 3e-4 + 4e-4 * 4e-4 + 2 * 6e-4 * 6e-4);
        assertThat(d.u()).isCloseTo(clocks, within(0.01 * clocks));
        // Two events of one instrument share its clock: their difference knows nothing of it.
        Trace t = a.on(rising(a), "run 1", "left", "left ranger", false);
        Quantity second = t.clocked(Quantity.exact(2, LabUnit.SECOND));
        assertThat(second.minus(t.clocked(Quantity.exact(1, LabUnit.SECOND))).u())
                .isLessThan(1e-12);
    }

    private static Trace rising(DeviceClock clock) {
        double[] t = new double[200];
        double[] v = new double[200];
        for (int i = 0; i < t.length; i++) {
            t[i] = i * 0.01;
            v[i] = 3 * t[i];
        }
        RawSamples at = clock.aligned(new RawSamples(t, v));
        return new Trace("x", at.time(), at.values(), LabUnit.parse("m"), 0, List.of());
    }

    private static Quantity crossing(Trace t) {
        Crossings.Crossing c = Crossings.found(t, 3, 0.1, true).get(0);
        Quantity q = Quantity.exact(c.moment(), LabUnit.SECOND);
        for (Trace.Shared s : t.shared()) {
            // By the value at the crossing over the slope there, as for any other error of a trace.
            q = q.with(s.leaf(), -s.at(c.moment(), 3) / c.slope());
        }
        return q;
    }

    @Test
    void timesStillRiseWhereTwoPiecesMeet() {
        DeviceClock c = new DeviceClock(
                List.of(new DeviceClock.Piece(0, 0, 0, 0, 0, 0), new DeviceClock.Piece(1, 1, -0.5, 0, 0, 0)), 0);
        RawSamples r = c.aligned(new RawSamples(new double[] {0, 0.9, 1, 1.2, 1.6}, new double[5]));
        for (int i = 1; i < r.size(); i++) {
            assertThat(r.time()[i]).isGreaterThan(r.time()[i - 1]);
        }
        assertThat(r.time()[4]).isEqualTo(1.1);
    }
}
