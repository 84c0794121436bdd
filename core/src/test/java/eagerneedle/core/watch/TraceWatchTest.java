package eagerneedle.core.watch;

import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.core.chain.Chain;
import eagerneedle.core.chain.Link;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.trace.Trace;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.function.DoubleUnaryOperator;
import org.junit.jupiter.api.Test;

class TraceWatchTest {
    private static final double NOISE = 0.02;

    private static Trace trace(long seed, int n, DoubleUnaryOperator truth) {
        Random r = new Random(seed * 6364136223846793005L + 1442695040888963407L);
        double[] t = new double[n];
        double[] v = new double[n];
        for (int i = 0; i < n; i++) {
            t[i] = i / 50.0;
            v[i] = truth.applyAsDouble(t[i]) + NOISE * r.nextGaussian();
        }
        return new Trace("x", t, v, LabUnit.parse("degC"), 0, List.of());
    }

    private static List<Finding> look(Expectation e, Trace t) {
        return new TraceWatch("probe", e, NOISE).look(4, t);
    }

    /** Clean signals of several kinds against every expectation they meet: fewer than one false alarm in 200. */
    @Test
    void cleanSignalsRaiseFewerThanOneAlarmInTwoHundred() {
        int alarms = 0;
        int sessions = 0;
        for (int seed = 0; seed < 400; seed++) {
            double rate = 0.2 + 0.01 * (seed % 50);
            Trace still = trace(seed, 200, t -> 20);
            Trace rising = trace(seed, 300, t -> 20 + rate * t);
            Trace swinging = trace(seed, 400, t -> 20 + 3 * Math.sin(2 * Math.PI * rate * t));
            alarms += look(new Expectation(0, 10, 30, 0.5, 40), still).size();
            alarms += look(new Expectation(1, 10, 30, Double.NaN, 40), rising).size();
            alarms += look(Expectation.NONE, swinging).size();
            alarms += new TraceWatch("probe", Expectation.NONE, NOISE)
                            .contact(4, still)
                            .isPresent()
                    ? 1
                    : 0;
            sessions += 4;
        }
        assertThat(alarms / (double) sessions)
                .as(alarms + " alarms in " + sessions)
                .isLessThan(1 / 200.0);
    }

    @Test
    void everyMistakeIsFoundAndNamed() {
        int missed = 0;
        for (int seed = 0; seed < 100; seed++) {
            missed += named(
                    look(
                            new Expectation(1, Double.NaN, Double.NaN, Double.NaN, Double.NaN),
                            trace(seed, 300, t -> 20 - 0.5 * t)),
                    "reversed");
            missed += named(
                    look(
                            new Expectation(0, Double.NaN, Double.NaN, 0.5, Double.NaN),
                            trace(seed, 300, t -> t < 3 ? 0 : 0.6 * (t - 3))),
                    "reference lost");
            missed += named(
                    look(new Expectation(0, Double.NaN, Double.NaN, Double.NaN, 25), trace(seed, 300, t -> 20 + t)),
                    "limit passed");
            missed += named(
                    look(new Expectation(0, Double.NaN, Double.NaN, Double.NaN, 26.8), trace(seed, 300, t -> 20 + t)),
                    "limit near");
            missed += named(
                    look(Expectation.NONE, trace(seed, 300, t -> 20 + 3 * Math.sin(2 * Math.PI * 21 * t))),
                    "undersampled");
            int at = 60 + seed;
            missed += new TraceWatch("probe", Expectation.NONE, NOISE)
                            .contact(4, trace(seed, 240, t -> t * 50 < at ? 20 : 20.1))
                            .filter(f -> f.watch().equals("contact") && Math.abs(f.from() * 50 - at) < 25)
                            .isPresent()
                    ? 0
                    : 1;
        }
        assertThat(missed).as("of 600").isZero();
        Finding f = look(new Expectation(0, Double.NaN, Double.NaN, Double.NaN, 25), trace(1, 300, t -> 20 + t))
                .get(0);
        assertThat(f.from()).as("points at the sample").isCloseTo(5.98, org.assertj.core.api.Assertions.within(0.1));
        assertThat(f.line()).contains("Go back now");
    }

    /** What ripples and wanders all the time is no knock. */
    @Test
    void aRippleIsNoContact() {
        int alarms = 0;
        for (int seed = 0; seed < 100; seed++) {
            int s = seed;
            alarms += new TraceWatch("force", Expectation.NONE, NOISE)
                            .contact(
                                    4,
                                    trace(
                                            seed,
                                            2400,
                                            t -> 20
                                                    + 0.3 * Math.sin(2 * Math.PI * (0.31 + 0.002 * s) * t + s)
                                                    + 0.2 * Math.sin(0.77 * t)))
                            .isPresent()
                    ? 1
                    : 0;
        }
        assertThat(alarms).isLessThanOrEqualTo(1);
    }

    private static int named(List<Finding> found, String watch) {
        return found.size() == 1
                        && found.get(0).watch().equals(watch)
                        && found.get(0).run() == 4
                        && !found.get(0).cause().isEmpty()
                        && !found.get(0).remedy().isEmpty()
                ? 0
                : 1;
    }

    @Test
    void exchangedLeadsAreToldByTheBandsOfTheirTags() {
        Expectation hot = new Expectation(0, 60, 90, Double.NaN, Double.NaN);
        Expectation cold = new Expectation(0, -2, 10, Double.NaN, Double.NaN);
        assertThat(baths(hot, 4, cold, 78)).extracting(Finding::watch).containsExactly("swapped");
        assertThat(baths(hot, 78, cold, 4)).isEmpty();
        assertThat(baths(hot, 78, cold, 78))
                .as("one of them is only wrong")
                .extracting(Finding::watch)
                .containsExactly("outside its band");
        assertThat(baths(Expectation.NONE, 4, Expectation.NONE, 78)).isEmpty();
    }

    private static List<Finding> baths(Expectation hot, double ofHot, Expectation cold, double ofCold) {
        return TraceWatch.bands(
                2,
                List.of(
                        new TraceWatch.Tagged("hot", "hot bath", hot, ofHot),
                        new TraceWatch.Tagged("cold", "cold bath", cold, ofCold)));
    }

    @Test
    void aRailSaysWhatIsLikelier() {
        double[] t = new double[100];
        double[] c = new double[100];
        for (int i = 0; i < 100; i++) {
            t[i] = i / 10.0;
        }
        Chain amplifier = Chain.of(List.of(
                Link.linear("sensor", "lead", "V", "V", "10", null),
                Link.converter("converter", "V", -5, 5, 12, null)));
        java.util.Arrays.fill(c, 4095);
        assertThat(new SampleWatch("voltage", amplifier, 10)
                        .look(1, t, c)
                        .get(0)
                        .watch())
                .isEqualTo("saturated");
        Chain platinum = Chain.of(List.of(
                Link.sensor("platinum", "degC", "ohm", "platinum", Map.of()),
                Link.linear("conditioner", "source", "ohm", "V", "0.001", null),
                Link.converter("converter", "V", 0, 5, 12, null)));
        Finding open = new SampleWatch("bath", platinum, 10).look(1, t, c).get(0);
        assertThat(open.watch()).isEqualTo("open");
        assertThat(open.cause()).contains("A lead is open");
        java.util.Arrays.fill(c, 0);
        assertThat(new SampleWatch("bath", platinum, 10).look(1, t, c).get(0).watch())
                .isEqualTo("shorted");
    }

    @Test
    void aCoarseConverterIsNoDeadSensor() {
        double[] t = new double[100];
        double[] c = new double[100];
        for (int i = 0; i < 100; i++) {
            t[i] = i / 10.0;
            c[i] = 600;
        }
        Chain coarse = Chain.of(List.of(
                Link.linear("sensor", "lead", "V", "V", "1", null), Link.converter("converter", "V", -5, 5, 10, null)));
        Chain noisy = Chain.of(List.of(
                Link.linear("sensor", "lead", "V", "V", "1", null).withNoise(0.02),
                Link.converter("converter", "V", -5, 5, 10, null)));
        assertThat(new SampleWatch("voltage", coarse, 10).look(1, t, c))
                .extracting(Finding::watch, Finding::severity)
                .containsExactly(org.assertj.core.groups.Tuple.tuple("converter-limited", Finding.Severity.NOTE));
        assertThat(new SampleWatch("voltage", noisy, 10).look(1, t, c))
                .as("it should flicker")
                .extracting(Finding::watch)
                .containsExactly("dead");
    }

    @Test
    void anUnevenClockIsToldAndAGapIsNotTakenForOne() {
        Random r = new Random(3);
        double[] even = new double[200];
        double[] uneven = new double[200];
        double[] c = new double[200];
        for (int i = 0; i < 200; i++) {
            even[i] = i / 50.0 + (i > 100 ? 1 : 0);
            uneven[i] = i / 50.0 + 0.006 * r.nextDouble() * (i % 2 == 0 ? 1 : -1);
            c[i] = 2000 + i % 7;
        }
        Chain chain = Chain.of(List.of(Link.converter("meter", "V", -10, 10, 12, null)));
        double[] faster = new double[200];
        for (int i = 0; i < 200; i++) {
            faster[i] = i / 500.0 + (i > 100 ? 0.01 : 0);
        }
        assertThat(new SampleWatch("voltage", chain, 50).look(1, faster, c))
                .as("sampled faster than asked, with five samples gone")
                .extracting(Finding::message)
                .containsExactly("5 samples of voltage did not arrive.");
        assertThat(new SampleWatch("voltage", chain, 50).look(1, uneven, c))
                .extracting(Finding::watch)
                .containsExactly("clock jitter");
        assertThat(new SampleWatch("voltage", chain, 50).look(1, even, c))
                .extracting(Finding::watch)
                .containsExactly("dropped samples");
    }

    @Test
    void whatIsExplainedIsANoteFromThenOn() {
        Finding f = look(new Expectation(0, Double.NaN, Double.NaN, Double.NaN, 25), trace(1, 300, t -> 20 + t))
                .get(0);
        Finding known = f.explained("relief valve tested");
        assertThat(known.severity()).isEqualTo(Finding.Severity.NOTE);
        assertThat(known.message()).endsWith("(explained: relief valve tested)");
        assertThat(f.explained("").message()).endsWith("(acknowledged)");
        assertThat(known.key()).isEqualTo(f.key());
    }

    /** Hum is found where it is as high as the noise, at either mains frequency; noise alone never is. */
    @Test
    void humOfTheMainsIsToldByItsFrequency() {
        TraceWatch watch = new TraceWatch("strain", Expectation.NONE, 0);
        LabUnit unit = LabUnit.parse("microstrain");
        Random random = new Random(4);
        int alarms = 0;
        for (int k = 0; k < 400; k++) {
            double[] t = new double[300];
            double[] noise = new double[300];
            double[] fifty = new double[300];
            double[] sixty = new double[300];
            double phase = 6 * random.nextDouble();
            for (int i = 0; i < t.length; i++) {
                t[i] = i / 1000.0;
                noise[i] = random.nextGaussian();
                fifty[i] = noise[i] + 1.2 * Math.sin(2 * Math.PI * 50 * t[i] + phase);
                sixty[i] = noise[i] + 1.2 * Math.sin(2 * Math.PI * 60 * t[i] + phase);
            }
            alarms += watch.hum(1, t, noise, unit).isPresent() ? 1 : 0;
            assertThat(watch.hum(1, t, fifty, unit).orElseThrow().message()).contains("50 Hz");
            assertThat(watch.hum(1, t, sixty, unit).orElseThrow().message())
                    .contains("60 Hz")
                    .contains("microstrain");
        }
        assertThat(alarms).isZero();
        assertThat(watch.hum(1, new double[] {0, 1, 2}, new double[] {0, 1, 0}, unit))
                .as("too short to tell")
                .isEmpty();
        double[] slow = new double[60];
        double[] wave = new double[60];
        for (int i = 0; i < 60; i++) {
            slow[i] = i / 60.0;
            wave[i] = Math.sin(i);
        }
        assertThat(watch.hum(1, slow, wave, unit))
                .as("sampled too slowly to tell")
                .isEmpty();
    }

    /**
     * A converter of 3 K steps whose value lies between two of them says nothing of whether the bath moved; two steps
     * do.
     */
    @Test
    void oneStepOfAConverterIsNoLostReference() {
        Expectation bath = new Expectation(0, Double.NaN, Double.NaN, 0.6, Double.NaN);
        Trace oneStep = stepped(trace(3, 300, t -> 1.4 + 0.03 * t), 3.1);
        assertThat(oneStep.value()).contains(0.0, 3.1);
        assertThat(look(bath, oneStep)).isEmpty();
        assertThat(look(bath, stepped(trace(3, 300, t -> 1.4 + 1.2 * t), 3.1)))
                .extracting(Finding::rule)
                .contains(Rule.REFERENCE_LOST);
        assertThat(look(bath, trace(3, 300, t -> 1.4 + 0.3 * t)))
                .extracting(Finding::rule)
                .contains(Rule.REFERENCE_LOST);
    }

    private static Trace stepped(Trace t, double step) {
        double[] v = t.value().clone();
        for (int i = 0; i < v.length; i++) {
            v[i] = step * Math.round(v[i] / step);
        }
        return new Trace(t.name(), t.time(), v, t.unit(), step, List.of());
    }
}
