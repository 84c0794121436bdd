package eagerneedle.picture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.stockroom.Instrument;
import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.Test;

class InstrumentPlotsTest {
    private static final Instant NOW = Instant.parse("2026-11-23T09:00:00Z");

    private static Instrument meter(
            String id, String from, String to, String step, String accuracy, Instrument.Event... history) {
        return of(id, "V", List.of(from, to), step, accuracy, history);
    }

    /** @param measures null for one that does not say it */
    private static Instrument of(
            String id, String measures, List<String> range, String step, String accuracy, Instrument.Event... history) {
        return new Instrument(
                id,
                "hand instrument",
                "meter",
                measures,
                null,
                range,
                step,
                null,
                accuracy,
                null,
                null,
                1.0,
                null,
                null,
                List.of(history),
                false);
    }

    private static Instrument.Event found(String at, String value, String due) {
        return new Instrument.Event(
                Instant.parse(at + "T00:00:00Z"), "check", null, value, Instant.parse(due + "T00:00:00Z"), "passed");
    }

    /** Half a percent of reading as a limit and half a step, both rectangular: u by hand at both ends. */
    @Test
    void theUncertaintyOfOneReadingIsDrawnOverTheRange() {
        Plot plot = InstrumentPlots.accuracy(List.of(meter("A", "0 V", "20 V", "0.01 V", "0.5 % of reading")))
                .orElseThrow();
        Layer.Curve c = (Layer.Curve) plot.layers().get(0);
        int n = c.x().length - 1;
        assertThat(c.x()[n]).isEqualTo(20);
        assertThat(c.y()[0]).isCloseTo(0.005 / Math.sqrt(3), within(1e-12));
        assertThat(c.y()[n]).isCloseTo(Math.hypot(0.1, 0.005) / Math.sqrt(3), within(1e-12));
        assertThat(plot.layers()).noneMatch(l -> l instanceof Layer.Legend);
    }

    @Test
    void anotherOfTheSameUnitStandsBesideItInTheUnitOfTheFirst() {
        Plot plot = InstrumentPlots.accuracy(List.of(
                        meter("A", "0 V", "20 V", "0.01 V", null), meter("B", "0 mV", "200 mV", "0.1 mV", null)))
                .orElseThrow();
        Layer.Curve b = (Layer.Curve) plot.layers().get(1);
        assertThat(b.x()[b.x().length - 1]).isCloseTo(0.2, within(1e-12));
        assertThat(b.y()[0]).isCloseTo(5e-5 / Math.sqrt(3), within(1e-12));
        assertThat(plot.layers()).anyMatch(l -> l instanceof Layer.Legend);
        assertThat(InstrumentPlots.accuracy(List.of(meter("A", "0 V", "20 V", null, null))))
                .isEmpty();
    }

    @Test
    void valuesFoundStandOverTheYearsWithTodayAndTheDueDate() {
        Instrument i = meter(
                "A",
                "0 V",
                "20 V",
                "0.01 V",
                null,
                found("2020-01-01", "10.001(2) V", "2023-01-01"),
                found("2023-01-01", "10004(2) mV", "2027-01-01"));
        Plot plot = InstrumentPlots.drift(i, NOW).orElseThrow();
        Layer.Points p = (Layer.Points) plot.layers().get(1);
        assertThat(p.x()).containsExactly(new double[] {2020, 2023}, within(0.003));
        assertThat(p.y()).containsExactly(new double[] {10.001, 10.004}, within(1e-9));
        assertThat(p.u()).containsExactly(new double[] {0.002, 0.002}, within(1e-9));
        assertThat(plot.layers().stream().filter(l -> l instanceof Layer.Mark).map(l -> ((Layer.Mark) l).name()))
                .containsExactly("today", "due");
        assertThat(InstrumentPlots.drift(meter("A", "0 V", "20 V", "0.01 V", null), NOW))
                .isEmpty();
        assertThat(WordsStandFreeTest.paintedBy(400, 60, s -> RangePicture.paint(s, List.of(i, i), 400)))
                .extracting(WordsStandFreeTest.Painted::text)
                .contains("A", "V", "0", "20");
    }

    /** A range without what is measured says nothing: no bar, and beside others it is left out. */
    @Test
    void oneThatDoesNotSayWhatItMeasuresHasNoBar() {
        Instrument v = meter("A", "0 V", "20 V", "0.01 V", null);
        Instrument mute = of("M", null, List.of("0 V", "1 V"), null, null);
        assertThat(RangePicture.draws(mute)).isFalse();
        assertThat(WordsStandFreeTest.paintedBy(400, 60, s -> RangePicture.paint(s, List.of(mute), 400)))
                .isEmpty();
        assertThat(WordsStandFreeTest.paintedBy(400, 60, s -> RangePicture.paint(s, List.of(v, mute), 400)))
                .extracting(WordsStandFreeTest.Painted::text)
                .contains("V", "20")
                .doesNotContain("M");
    }
}
