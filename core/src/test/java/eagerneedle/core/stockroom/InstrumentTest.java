package eagerneedle.core.stockroom;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.Test;

class InstrumentTest {
    private static final Instant NOW = Instant.parse("2026-11-23T09:00:00Z");

    private static Instrument tool(
            String id, String measures, List<String> range, String resolution, Integer edges, String accuracy) {
        return new Instrument(
                id,
                "hand instrument",
                "tool",
                measures,
                "bench 1",
                range,
                resolution,
                edges,
                accuracy,
                null,
                null,
                1.0,
                null,
                null,
                List.of(),
                false);
    }

    private static Quantity exact(double v, String unit) {
        return Quantity.exact(v, LabUnit.parse(unit));
    }

    @Test
    void aProtractorReadsAnglesOnly() {
        Instrument protractor =
                tool("TH-PR-01", "deg", List.of(), "0.1 deg", null, "0.1 deg").checked();
        assertThat(protractor.reads(exact(30, "deg"))).isTrue();
        assertThat(protractor.reads(exact(0.5, "rad"))).isTrue();
        assertThat(protractor.reads(exact(0.5, "")))
                .as("a shape factor is no angle")
                .isFalse();
    }

    @Test
    void aCaliperReadsToItsStepAndItsSpecification() {
        Instrument caliper = tool("TH-CP-01", "mm", List.of("0 mm", "150 mm"), "0.02 mm", 1, "0.03 mm")
                .checked();
        Quantity q = caliper.reading(exact(20, "mm"), "input:d", "diameter");
        assertThat(q.u()).isCloseTo(Math.hypot(0.03, 0.01) / Math.sqrt(3), within(1e-12));
        assertThat(caliper.reads(exact(0.14, "m"))).isTrue();
        assertThat(caliper.reads(exact(0.16, "m"))).isFalse();
        assertThat(caliper.reads(exact(20, "g"))).isFalse();
    }

    @Test
    void aTapeLiesFreelyAndIsWrongInProportion() {
        Instrument tape = tool("TH-TP-02", "m", List.of("0 m", "5 m"), "1 mm", 2, "0.3 mm/m")
                .checked();
        Quantity q = tape.reading(exact(2000, "mm"), "input:l", "length");
        // 0.3 mm/m over 2 m, and half a millimetre at each of two edges.
        assertThat(q.u()).isCloseTo(Math.sqrt(0.6 * 0.6 + 2 * 0.25) / Math.sqrt(3), within(1e-9));
    }

    @Test
    void readingsOfOneInstrumentShareItsError() {
        Instrument meter = tool(
                        "TH-DM-01",
                        "V",
                        List.of("0 V", "20 V"),
                        "10 mV",
                        1,
                        "0.5 % of reading + 0.1 % of range + 2 digits")
                .checked();
        Quantity a = meter.reading(exact(10, "V"), "input:a", "a");
        Quantity b = meter.reading(exact(5, "V"), "input:b", "b");
        assertThat(a.u())
                .isCloseTo(
                        Math.sqrt(Math.pow(0.05 + 0.02, 2) + 0.02 * 0.02 + 0.005 * 0.005) / Math.sqrt(3), within(1e-9));
        assertThat(a.correlation(b)).isGreaterThan(0.8);
        assertThat(a.minus(b).u()).isLessThan(a.u());
    }

    @Test
    void whatCannotBeUsedIsRefusedWithASentence() {
        assertThatThrownBy(() ->
                        tool("TH-X", "mm", List.of("0 mm"), null, null, null).checked())
                .hasMessageContaining("lowest and highest");
        assertThatThrownBy(() ->
                        tool("TH-X", "mm", List.of(), null, null, "quite good").checked())
                .hasMessageContaining("'quite good'")
                .hasMessageContaining("for instance");
        assertThatThrownBy(() -> tool("", "mm", List.of(), null, null, null).checked())
                .hasMessageContaining("serial");
        assertThatThrownBy(() -> new Instrument(
                                "A", "gadget", "x", null, null, null, null, null, null, null, null, null, null, null,
                                null, false)
                        .checked())
                .hasMessageContaining("kind of A");
    }

    @Test
    void overdueFailedAndRetiredAreObjectedTo() {
        Instrument i = tool("TH-BA-01", "g", List.of(), "0.01 g", 1, null);
        assertThat(i.objection(NOW)).isEmpty();
        Instrument fresh = i.withEvent(new Instrument.Event(
                NOW.minusSeconds(86400), "check masses", "KM", null, NOW.plusSeconds(86400), "passed"));
        assertThat(fresh.objection(NOW)).isEmpty();
        assertThat(fresh.objection(NOW.plusSeconds(90000)).orElseThrow()).contains("was due on 2026-11-24");
        assertThat(i.withEvent(new Instrument.Event(NOW, "check masses", "KM", null, NOW.plusSeconds(9), "failed"))
                        .objection(NOW)
                        .orElseThrow())
                .contains("failed");
        assertThat(fresh.retire(true).objection(NOW).orElseThrow()).contains("retired");
        assertThat(fresh.copyAs("TH-BA-09").history()).isEmpty();
        assertThat(fresh.matches("ba-01 bench")).isTrue();
        assertThat(fresh.matches("ba-01 cupboard")).isFalse();
    }

    private static Instrument.Event event(String day, String what, String outcome, String due) {
        return new Instrument.Event(
                Instant.parse(day + "T10:00:00Z"),
                what,
                "staff",
                null,
                due == null ? null : Instant.parse(due + "T00:00:00Z"),
                outcome);
    }

    @Test
    void whatIsReportedBrokenIsOutUntilItIsRepairedAndCalibrated() {
        Instrument probe = new Instrument(
                        "TH-TP-09",
                        "sensor",
                        "probe",
                        "degC",
                        null,
                        null,
                        null,
                        null,
                        null,
                        null,
                        null,
                        null,
                        null,
                        null,
                        null,
                        false)
                .withEvent(event("2026-09-01", "outside laboratory", "passed", "2027-09-01"));
        assertThat(probe.isOut()).isFalse();
        assertThat(probe.lastGood()).isEmpty();
        Instrument broken = probe.withEvent(event("2026-11-20", "lead torn", Instrument.BROKEN, null));
        assertThat(broken.isOut()).isTrue();
        assertThat(broken.objection(NOW).orElseThrow())
                .isEqualTo("probe TH-TP-09 was reported broken on 2026-11-20: lead torn. It is out of use until it is "
                        + "repaired and calibrated.");
        assertThat(broken.lastGood()).contains(Instant.parse("2026-09-01T10:00:00Z"));
        Instrument repaired = broken.withEvent(event("2026-11-22", "new lead", Instrument.REPAIRED, null));
        assertThat(repaired.objection(NOW).orElseThrow()).endsWith("is out of use until it is calibrated again.");
        Instrument failed = repaired.withEvent(event("2026-11-23", "ice and steam", "failed", "2027-11-23"));
        assertThat(failed.isOut()).isTrue();
        Instrument good = failed.withEvent(event("2026-11-24", "ice and steam", "passed", "2027-11-24"));
        assertThat(good.isOut()).isFalse();
        assertThat(good.quarantine()).isEmpty();
        // A repair of what nobody reported broken asks for nothing, and a note in between changes nothing.
        assertThat(probe.withEvent(event("2026-11-20", "cleaned", Instrument.REPAIRED, null))
                        .isOut())
                .isFalse();
        assertThat(broken.withEvent(event("2026-11-21", "lent out", null, null)).isOut())
                .isTrue();
    }
}
