package eagerneedle.rig.simulated;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.reduce.Reducer;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.reduce.SessionWatch;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.core.trace.Trace;
import eagerneedle.core.watch.Finding;
import java.time.Instant;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;

/**
 * The logging day on simulated benches: each way of capturing gives what it should, clean benches are left in peace,
 * faults are found.
 */
class CapturedTest {
    private static final int BENCHES = Integer.getInteger("benches", 80);

    private static final Instant DAY = Instant.parse("2026-11-23T09:00:00Z");
    private static final SheetReader.Located SHEET =
            SheetTrial.read(SheetReader.shippedText("logging-day"), "logging-day.yaml");

    private static Rehearsal bench(long seed, String... faults) {
        return Rehearsal.of(SHEET, Rigs.chains(SHEET.sheet(), seed, Set.of(faults)), DAY);
    }

    private static Reduction reduced(Rehearsal r) {
        return new Reducer(
                        SHEET,
                        (run, c) -> r.samples().getOrDefault(run, Map.of()).getOrDefault(c, RawSamples.NONE))
                .reduce(r.session());
    }

    private static Run run(Reduction r, String capture) {
        return r.session().runs().stream()
                .filter(x -> x.capture().equals(capture))
                .findFirst()
                .orElseThrow();
    }

    @Test
    void eachWayKeepsWhatItShould() {
        Reduction r = reduced(bench(3));
        Trace shot = r.trace(run(r, "flick"), "rule").orElseThrow();
        assertThat(shot.time()[0]).isCloseTo(-0.05, within(0.006));
        for (int i = 0; i < shot.size(); i++) {
            if (Math.abs(shot.time()[i]) < 1e-9) {
                assertThat(shot.value()[i]).isCloseTo(500, within(30.0));
            }
        }
        Trace prompted = r.trace(run(r, "fade"), "light").orElseThrow();
        assertThat(prompted.size()).isEqualTo(12);
        for (int i = 0; i < 12; i++) {
            // A reading is the mean of the samples before its moment, and belongs to the middle of their times.
            assertThat(run(r, "fade").entries().marks().get(i).taken() - prompted.time()[i])
                    .isBetween(0.0, 0.5);
            assertThat(run(r, "fade").entries().marks().get(i).late()).isBetween(0.0, 0.21);
        }
        assertThat(r.trace(run(r, "hang"), "load").orElseThrow().size()).isEqualTo(30);
        assertThat(run(r, "hang").entries().byEye().get("pointer")).endsWith(" mm");
        assertThat(r.column("hang.pointer")).hasSize(2);
        assertThat(r.quantity("weight")).isPresent();
    }

    @Test
    void cleanBenchesRaiseFewerThanOneFalseAlarmInTwoHundredAndFaultsAreFound() {
        int alarms = 0;
        StringBuilder which = new StringBuilder();
        for (int seed = 0; seed < BENCHES; seed++) {
            for (Finding f : new SessionWatch().look(reduced(bench(seed)), DAY.plusSeconds(3600))) {
                if (f.severity() != Finding.Severity.NOTE) {
                    alarms++;
                    which.append(seed).append(": ").append(f.message()).append('\n');
                }
            }
        }
        assertThat(alarms / (double) BENCHES).as(which.toString()).isLessThan(1 / 200.0);
        int open = 0;
        for (int seed = 0; seed < BENCHES / 4; seed++) {
            open += new SessionWatch()
                            .look(reduced(bench(seed, "open")), DAY).stream()
                                    .anyMatch(f -> f.run() == 1
                                            && Set.of("open", "shorted", "saturated", "out of range")
                                                    .contains(f.watch()))
                    ? 1
                    : 0;
        }
        assertThat(open).as("an open lead, of all").isEqualTo(BENCHES / 4);
    }

    @Test
    void everyMistakeAtTheDryingCabinetIsFoundAndNamed() {
        SheetReader.Located cabinet = SheetTrial.read(SheetReader.shippedText("drying-cabinet"), "drying-cabinet.yaml");
        // A platinum probe on the thermocouple's chain shows nothing that the other tag expects: what is said is that
        // it is on another input.
        Map<String, Set<String>> names = Map.of(
                "open",
                Set.of("open", "shorted", "saturated", "out of range"),
                "swapped",
                Set.of("swapped", "outside its band"),
                "reversed",
                Set.of("outside its band", "saturated", "shorted"));
        StringBuilder alarms = new StringBuilder();
        for (long seed = 0; seed < BENCHES / 4; seed++) {
            for (String fault : new String[] {"open", "swapped", "reversed", ""}) {
                Rehearsal r = Rehearsal.of(
                        cabinet, Rigs.of(cabinet.sheet(), seed, fault.isEmpty() ? Set.of() : Set.of(fault)), DAY);
                Reduction reduced = new Reducer(
                                cabinet,
                                (run, c) ->
                                        r.samples().getOrDefault(run, Map.of()).getOrDefault(c, RawSamples.NONE))
                        .reduce(r.session());
                var found = new SessionWatch().look(reduced, DAY.plusSeconds(3600));
                if (fault.isEmpty()) {
                    found.stream()
                            .filter(f -> f.run() > 0 && f.severity() == Finding.Severity.WRONG)
                            .forEach(f -> alarms.append(f.watch()).append(' '));
                } else {
                    assertThat(found)
                            .as("%s, seed %d", fault, seed)
                            .anyMatch(f -> names.get(fault).contains(f.watch()));
                }
            }
        }
        assertThat(alarms.toString()).as("on clean benches with 3 runs each").isEmpty();
    }
}
