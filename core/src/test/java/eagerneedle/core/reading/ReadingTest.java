package eagerneedle.core.reading;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.quantity.Budget;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import java.util.List;
import org.junit.jupiter.api.Test;

/** Readings built from causes, each checked by hand. */
class ReadingTest {
    private static final LabUnit MM = LabUnit.parse("mm");
    private static final LabUnit S = LabUnit.SECOND;

    private static Quantity mm(double v) {
        return Quantity.exact(v, MM);
    }

    @Test
    void aRuleMovedTwiceHasSixEdges() {
        assertThat(ScaleReading.edges(false, 2)).isEqualTo(6);
        assertThat(ScaleReading.edges(true, 0)).isEqualTo(1);
        Quantity q = new ScaleReading(mm(2431), mm(0), mm(1), 0.5, 6).quantity("l", "bench length");
        assertThat(q.u()).isCloseTo(Math.sqrt(6) * 0.25 / Math.sqrt(3), within(1e-12));
        assertThat(q.limit()).isCloseTo(6 * 0.25, within(1e-12));
        assertThat(Budget.of(q).lines()).hasSize(1);
        assertThat(new ScaleReading(mm(150), mm(20), mm(1), 0.2, 2)
                        .quantity("l", "l")
                        .value())
                .isEqualTo(130);
    }

    @Test
    void aWornEndCancelsInADifferenceOfTwoReadingsOfOneRule() {
        Accuracy rule = new Accuracy("TH-RU-03", 0, 0, mm(0), 0, mm(0), mm(0.5));
        Quantity a = rule.applied(mm(400), "a");
        Quantity b = rule.applied(mm(150), "b");
        assertThat(a.u()).isCloseTo(0.5 / Math.sqrt(3), within(1e-12));
        assertThat(a.minus(b).u()).isZero();
        Accuracy stretched = new Accuracy("TH-RU-03", 0.001, 0, mm(0), 0, mm(0), mm(0));
        assertThat(stretched
                        .applied(mm(400), "a")
                        .dividedBy(stretched.applied(mm(150), "b"))
                        .u())
                .isCloseTo(0, within(1e-15));
        Accuracy meter = new Accuracy(
                "TH-DM-2",
                0.005,
                0.001,
                Quantity.exact(20, LabUnit.parse("V")),
                2,
                Quantity.exact(0.01, LabUnit.parse("V")),
                Quantity.exact(0, LabUnit.parse("V")));
        Quantity v = meter.applied(Quantity.exact(12, LabUnit.parse("V")), "v");
        assertThat(v.limit()).isCloseTo(0.06 + 0.02 + 0.02, within(1e-12));
        assertThat(v.u()).isCloseTo(Math.hypot(0.08, 0.02) / Math.sqrt(3), within(1e-12));
    }

    @Test
    void repeatsKeepRoundingAndTheirHalfRangeAsLimit() {
        List<Quantity> r = List.of(
                Quantity.exact(9.8, S), Quantity.exact(9.9, S), Quantity.exact(9.7, S), Quantity.exact(10.0, S));
        Quantity q = new Repeats(r, Quantity.exact(0.1, S)).quantity("t", "t");
        double s = Math.sqrt((0.0025 + 0.0025 + 0.0225 + 0.0225) / 3);
        assertThat(q.value()).isCloseTo(9.85, within(1e-12));
        assertThat(q.u()).isCloseTo(Math.hypot(s / 2, 0.1 / Math.sqrt(12)), within(1e-12));
        assertThat(q.limit()).isCloseTo(0.15 + 0.05, within(1e-12));
        assertThatThrownBy(() -> new Repeats(r.subList(0, 1), Quantity.exact(0, S)))
                .hasMessageContaining("at least 2");
    }

    @Test
    void otherReadings() {
        Quantity w = new WanderingDisplay(Quantity.exact(4.8, S), Quantity.exact(5.4, S)).quantity("w", "w");
        assertThat(w.value()).isCloseTo(5.1, within(1e-12));
        assertThat(w.u()).isCloseTo(0.3 / Math.sqrt(3), within(1e-12));
        assertThatThrownBy(() -> new WanderingDisplay(Quantity.exact(5, S), Quantity.exact(4, S)))
                .hasMessageContaining("below the lowest");
        Quantity v = new Vernier(mm(23), 7.5, mm(1), 50).quantity("v", "v");
        assertThat(v.value()).isCloseTo(23.15, within(1e-12));
        assertThat(v.limit()).isCloseTo(0.01, within(1e-12));
        assertThatThrownBy(() -> new Vernier(mm(23), 51, mm(1), 50)).hasMessageContaining("between 0 and 50");
        Quantity t = new Stopwatch(Quantity.exact(12.4, S), Quantity.exact(0.1, S), Quantity.exact(0.01, S))
                .quantity("t", "t");
        assertThat(t.u()).isCloseTo(Math.sqrt(0.02 + 1e-4 / 12), within(1e-12));
        Quantity p = new Photograph(400, 1000, mm(250), 1, 0).quantity("p", "p");
        assertThat(p.value()).isCloseTo(100, within(1e-12));
        assertThat(p.u()).isCloseTo(100 * Math.hypot(2 / Math.sqrt(6) / 400, 2 / Math.sqrt(6) / 1000), within(1e-9));
    }
}
