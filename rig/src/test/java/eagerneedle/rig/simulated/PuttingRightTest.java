package eagerneedle.rig.simulated;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.physics.Once;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Key;
import eagerneedle.core.reduce.PuttingRight;
import eagerneedle.core.reduce.Reducer;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.session.History;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.stockroom.Correction;
import eagerneedle.core.trace.RawSamples;
import java.time.Instant;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;

/** A standard that was wrong: what it reached moves by as much as it should, and nothing else moves at all. */
class PuttingRightTest {
    private static final Instant DAY = Instant.parse("2026-11-02T13:30:00Z");

    private record Case(Reducer reducer, Session session) {
        static Case of(String method, int seed) {
            SheetReader.Located sheet = SheetTrial.read(SheetReader.shippedText(method), method);
            Rehearsal r = Rehearsal.of(sheet, Rigs.of(sheet.sheet(), seed, Once.of(7), Set.of()), DAY);
            return new Case(
                    new Reducer(
                            sheet,
                            (run, channel) ->
                                    r.samples().getOrDefault(run, Map.of()).getOrDefault(channel, RawSamples.NONE)),
                    r.session());
        }

        PuttingRight right(Correction c, String... at) {
            return PuttingRight.of(reducer, session, c, List.of(at));
        }

        Session after(Correction c, String... at) {
            return right(c, at).act().orElseThrow().apply(session);
        }
    }

    private static Correction correction(String standard, String times, String plus) {
        return new Correction(standard, times, plus, DAY, "M. Ash", "its certificate was misread");
    }

    @Test
    void massesThatWereWrongMoveWhatRestsOnThemAndNothingElse() {
        Case k = Case.of("letter-scale", 3);
        Correction c = correction("TH-CM-01", "1.004", null);
        Session now = k.after(c);
        Reduction before = k.reducer().reduce(k.session());
        Reduction after = k.reducer().whatIf(now);

        assertThat(after.quantity("c_500").orElseThrow().in(LabUnit.parse("g"))).isCloseTo(502.0, within(1e-9));
        Calibration was = k.session().latestCalibrationOf("strain").orElseThrow();
        Calibration is = now.latestCalibrationOf("strain").orElseThrow();
        LabUnit strain = LabUnit.parse("microstrain");
        assertThat(is.points().get(0).referenceIn(strain)).isZero();
        for (int i = 0; i < was.verification().size(); i++) {
            assertThat(is.verification().get(i).referenceIn(strain)
                            / was.verification().get(i).referenceIn(strain))
                    .isCloseTo(1.004, within(1e-12));
        }

        Set<Key> mayMove = descendants(
                k.reducer().needs(k.session()),
                Set.of("c_20", "c_50", "c_100", "c_200", "c_500", "strain.slope", "strain.intercept"),
                k.session());
        int moved = 0;
        int stayed = 0;
        for (Key key : k.reducer().needs(k.session()).keySet()) {
            if (before.quantity(key).isEmpty()) {
                continue;
            }
            Quantity a = before.quantity(key).get();
            Quantity b = after.quantity(key).orElseThrow();
            boolean same = a.value() == b.value() && a.u() == b.u();
            moved += same ? 0 : 1;
            stayed += same ? 1 : 0;
            assertThat(same || mayMove.contains(key)).as("%s", key).isTrue();
        }
        assertThat(moved).isGreaterThan(10);
        assertThat(stayed).isGreaterThan(10);
    }

    /** Everything that a change of some inputs, or of a calibration, can reach. */
    private static Set<Key> descendants(Map<Key, List<Key>> needs, Set<String> from, Session session) {
        Set<Key> out = new HashSet<>();
        from.forEach(n -> out.add(new Key.Global(n)));
        session.runs().forEach(r -> out.add(Key.of(r, "strain")));
        for (int before = -1; before != out.size(); ) {
            before = out.size();
            needs.forEach((key, of) -> {
                if (of.stream().anyMatch(out::contains)) {
                    out.add(key);
                }
            });
        }
        return out;
    }

    @Test
    void whereTwoStandardsWereReferredToItMustBeSaidWhichPointsWereOfThisOne() {
        Case k = Case.of("warmed-cord", 4);
        Correction c = correction("TH-GT-02", null, "-0.30(5) K");
        assertThatThrownBy(() -> k.right(c))
                .hasMessageContaining("refers to ice bath TH-IB-01 and glass thermometer TH-GT-02")
                .hasMessageContaining("60.00(15) degC");
        Session now = k.after(c, "60.00");
        String channel = k.session().calibrations().stream()
                .filter(x -> x.points().size() == 2)
                .findFirst()
                .orElseThrow()
                .channel();
        Calibration was = k.session().latestCalibrationOf(channel).orElseThrow();
        Calibration is = now.latestCalibrationOf(channel).orElseThrow();
        LabUnit celsius = LabUnit.parse("degC");
        assertThat(is.points().get(0)).isEqualTo(was.points().get(0));
        assertThat(is.points().get(1).referenceIn(celsius)).isCloseTo(59.70, within(1e-12));
        // A line through two points: its slope goes as the distance of the references.
        assertThat(is.coefficients().get(1).value() / was.coefficients().get(1).value())
                .isCloseTo(59.7 / 60, within(1e-9));
        // 0.15 K of the bath and 0.05 K of the correction, both normal: 0.1581 K over 60 K.
        double u = is.points().get(1).parts().stream()
                .mapToDouble(p -> p.contribution() * p.contribution())
                .sum();
        assertThat(Math.sqrt(u)).isCloseTo(Math.hypot(0.15, 0.05), within(1e-12));
    }

    @Test
    void howWellTheCorrectionIsKnownIsOneInfluenceInAllSessions() {
        Correction c = correction("TH-CM-01", "1.0040(10)", null);
        Case one = Case.of("letter-scale", 5);
        Case other = Case.of("letter-scale", 6);
        Quantity a = one.reducer().reduce(one.after(c)).quantity("c_500").orElseThrow();
        Quantity b = other.reducer().reduce(other.after(c)).quantity("c_500").orElseThrow();
        assertThat(a.contributions().keySet().stream().map(l -> l.id()))
                .contains("standard:TH-CM-01/" + DAY + "/times");
        assertThat(a.correlation(b)).isGreaterThan(0.99);
    }

    @Test
    void itIsUndoneAsOneAndNotDoneTwice() {
        Case k = Case.of("letter-scale", 3);
        Correction c = correction("TH-CM-01", "1.004", null);
        History history = new History(k.session());
        history.apply(k.right(c).act().orElseThrow());
        assertThatThrownBy(() -> PuttingRight.of(k.reducer(), history.session(), c, List.of()))
                .hasMessageContaining("put right already");
        history.undo();
        assertThat(history.session()).isEqualTo(k.session());
    }

    @Test
    void whatWasNotUsedReachesNothing() {
        Case k = Case.of("letter-scale", 3);
        assertThat(k.right(correction("TH-GB-01", "1.004", null)).act()).isEmpty();
        // A serial is meant whole.
        assertThat(k.right(correction("TH-CM-0", "1.004", null)).act()).isEmpty();
        assertThatThrownBy(() -> k.right(correction("TH-CM-01", null, "0.1 K"))).hasMessageContaining("0.1 K");
        assertThatThrownBy(() -> k.right(correction("TH-CM-01", "-1", null))).hasMessageContaining("above 0");
        assertThatThrownBy(() -> k.right(correction("TH-CM-01", null, null))).hasMessageContaining("by how much");
        assertThatThrownBy(() -> k.right(correction("TH-GT-02", null, "0.2 degC")))
                .hasMessageContaining("0.2 K");
    }
}
