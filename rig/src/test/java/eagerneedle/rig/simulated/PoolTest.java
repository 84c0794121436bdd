package eagerneedle.rig.simulated;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.quantity.Coverage;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.PoolTaking;
import eagerneedle.core.reduce.Reducer;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.session.PlanningCommand;
import eagerneedle.core.session.PoolSource;
import eagerneedle.core.session.PoolingCommand;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.Pool;
import eagerneedle.core.sheet.PooledSheet;
import eagerneedle.core.sheet.SheetException;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.RawSamples;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.ToDoubleFunction;
import java.util.stream.LongStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Rows drawn from sessions of another method: what they share, what nature is in all of them, what is refused. */
class PoolTest {
    private static final Instant DAY = Instant.parse("2026-11-28T10:00:00Z");
    private static final String ALLOY = text("alloy-arrest");
    private static final String TOGETHER = text("alloys-together");
    private static final double GAIN = 0.0001 / 0.0400;

    private static String text(String name) {
        try {
            return Files.readString(Path.of("..", "docs", "examples", name + ".yaml"));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static SheetReader.Looked look(String pool, String source) {
        return SheetTrial.look(
                PooledSheet.written(pool, id -> Optional.of(source).filter(s -> id.equals("alloy-arrest"))),
                "pool.yaml");
    }

    private static SheetReader.Located pool() {
        return look(TOGETHER, ALLOY).located().orElseThrow();
    }

    private static Rehearsal carriedOut(SheetReader.Located sheet, long seed, String... faults) {
        return Rehearsal.of(sheet, Rigs.of(sheet.sheet(), seed, Set.of(faults)), DAY);
    }

    private static Reduction reduced(SheetReader.Located sheet, Rehearsal r) {
        return new Reducer(
                        sheet,
                        (run, channel) ->
                                r.samples().getOrDefault(run, Map.of()).getOrDefault(channel, RawSamples.NONE))
                .reduce(r.session());
    }

    private static PoolSource taken(Pool pool, Rehearsal r, Session session, String name) {
        return PoolTaking.of(
                pool,
                session,
                (run, channel) -> r.samples().getOrDefault(run, Map.of()).getOrDefault(channel, RawSamples.NONE),
                new PoolTaking.Origin(name, name + ".needle", name, DAY));
    }

    private static PoolSource bench(String source, long seed, String name) {
        SheetReader.Located sheet = SheetTrial.read(source, "alloy-arrest.yaml");
        Rehearsal r = carriedOut(sheet, seed);
        return taken(pool().sheet().pool(), r, r.session(), name);
    }

    @Test
    void theExampleIsGoodAndCarriedOut() {
        SheetReader.Looked looked = look(TOGETHER, ALLOY);
        assertThat(looked.problems()).extracting(SheetException::getMessage).isEmpty();
        assertThat(RehearsalTrial.of(looked.located().orElseThrow(), RehearsalTrial.SESSIONS))
                .extracting(SheetException::getMessage)
                .isEmpty();
    }

    /** The certificate of the cold junction counts once, the gains of eight thermocouples as eight. */
    @Test
    void whatIsStatedIsWhatAHandReckons() {
        double gain = GAIN * 163;
        double hand = Math.sqrt(0.15 * 0.15 + gain * gain / 8);
        RehearsedBudget b = RehearsedBudget.of(pool(), 12).stream()
                .filter(x -> x.name().equals("T_E"))
                .findFirst()
                .orElseThrow();
        assertThat(b.stated()).isCloseTo(hand, within(0.02 * hand));
    }

    /** How many of 120 pools hold what nature is in an interval of the half width given. */
    private static long inside(ToDoubleFunction<Quantity> halfWidth) {
        SheetReader.Located sheet = pool();
        return LongStream.range(0, 120)
                .parallel()
                .filter(seed -> {
                    Rehearsal r = carriedOut(sheet, seed);
                    Quantity q = reduced(sheet, r).quantity("T_E").orElseThrow();
                    double error = q.value() - r.truth().get("T_E").in(q.unit());
                    return Math.abs(error) <= halfWidth.applyAsDouble(q);
                })
                .count();
    }

    @Test
    void intervalsHoldWhatNatureIsForAllSessions() {
        assertThat(inside(Coverage.DEFAULT::expanded)).isBetween(107L, 120L);
    }

    /** Taken as eight readings that share nothing, the certificate too, the same sessions promise too much. */
    @Test
    void withoutWhatIsSharedCoverageFails() {
        double alone = Math.hypot(0.15, GAIN * 163) / Math.sqrt(8);
        assertThat(inside(q -> 1.96 * alone)).isLessThan(107);
    }

    @Test
    void twoBenchesShareTheirCertificateAndNothingElse() {
        Quantity a = bench(ALLOY, 1, "a").quantities("T").get(0);
        Quantity b = bench(ALLOY, 2, "b").quantities("T").get(0);
        assertThat(a.covariance(b)).isCloseTo(0.15 * 0.15, within(1e-9));
        Quantity w = bench(ALLOY, 1, "a").quantities("w").get(0);
        assertThat(w.covariance(bench(ALLOY, 2, "b").quantities("w").get(0))).isZero();
    }

    @Test
    void anInstrumentIsKnownByItsSerial() {
        String serial = ALLOY.replace("label: thermocouple, from", "label: thermocouple, instrument: TH-TC-01, from");
        Quantity a = bench(serial, 1, "a").quantities("T").get(0);
        Quantity b = bench(serial, 2, "b").quantities("T").get(0);
        double shared = 0.15 * 0.15 + GAIN * GAIN * (a.value() - 20) * (b.value() - 20);
        assertThat(a.covariance(b)).isCloseTo(shared, within(1e-2 * shared));
        Quantity other = bench(serial.replace("TH-TC-01", "TH-TC-02"), 2, "b")
                .quantities("T")
                .get(0);
        assertThat(a.covariance(other)).isCloseTo(0.15 * 0.15, within(1e-9));
    }

    /** What a pool says is shared is shared, in the reduction and at the bench. */
    @Test
    void whatIsSaidToBeSharedIs() {
        SheetReader.Located sheet = look(TOGETHER.replace("  sessions:", "  shared: [m_tin]\n  sessions:"), ALLOY)
                .located()
                .orElseThrow();
        Rehearsal r = carriedOut(sheet, 4);
        List<PoolSource> sources = r.session().sources();
        Quantity a = sources.get(0).quantities("w").get(0);
        Quantity b = sources.get(1).quantities("w").get(0);
        // The planned masses differ, so the readings do; one reading of one mass is the same influence.
        assertThat(a.covariance(b)).isEqualTo(0);
        Rehearsal same = carriedOut(
                look(
                                TOGETHER.replace("  sessions:", "  shared: [m_tin]\n  sessions:")
                                        .replaceAll("(?m)^    (lean|third|even|rich):.*", "    $1: {}"),
                                ALLOY)
                        .located()
                        .orElseThrow(),
                4);
        a = same.session().sources().get(0).quantities("w").get(0);
        b = same.session().sources().get(1).quantities("w").get(0);
        double dw = 0.02 * 0.7 / 100 * 100;
        assertThat(a.covariance(b)).isCloseTo(dw * dw, within(0.01 * dw * dw));
    }

    @Test
    void natureIsOneForAllSessionsOfAPoolAndAnotherForAnother() {
        SheetReader.Located sheet = pool();
        Quantity first = carriedOut(sheet, 1).truth().get("T_E");
        assertThat(carriedOut(sheet, 1).truth().get("T_E").value()).isEqualTo(first.value());
        assertThat(carriedOut(sheet, 2).truth().get("T_E").value()).isNotEqualTo(first.value());
        List<PoolSource> sources = carriedOut(sheet, 1).session().sources();
        assertThat(sources).extracting(PoolSource::name).containsExactly("lean", "third", "even", "rich");
        for (PoolSource s : sources) {
            Quantity q = s.quantities("T").get(0);
            assertThat(Math.abs(q.value() - first.in(q.unit()))).isLessThan(4 * q.u());
        }
        assertThat(sources.get(0).quantities("w").get(0).value()).isCloseTo(15, within(0.1));
        assertThat(sources.get(3).quantities("w").get(0).value()).isCloseTo(80, within(0.1));
    }

    /** One difference in one session leaves all the others as they were. */
    @Test
    void aMistakeInOneSessionIsInThatOneAlone() {
        SheetReader.Located sheet = pool();
        List<PoolSource> clean = carriedOut(sheet, 5).session().sources();
        List<PoolSource> pulled = carriedOut(sheet, 5, "one-pulled").session().sources();
        for (int i = 0; i < clean.size(); i++) {
            double before = clean.get(i).quantities("T").get(0).value();
            double after = pulled.get(i).quantities("T").get(0).value();
            if (clean.get(i).name().equals("even")) {
                assertThat(after).isCloseTo(before - 0.03 * 163, within(0.3));
            } else {
                assertThat(after).isEqualTo(before);
            }
        }
        Reduction r = reduced(sheet, carriedOut(sheet, 5, "one-pulled"));
        assertThat(r.statements().get(0).sentence().orElseThrow()).startsWith("even left tube stands out");
    }

    @Test
    void aCalibrationThatTwoSessionsHoldIsOne() {
        String text = """
                sheet: 2
                id: chutes
                title: t
                subject: s
                pool: {from: baggage-chute, take: {g: g}}
                results: {g: {formula: "mean(pool.g)"}}
                """;
        Pool pool = SheetReader.read(text, "chutes.yaml").sheet().pool();
        SheetReader.Located chute = SheetReader.read(SheetReader.shippedText("baggage-chute"), "c.yaml");
        Rehearsal r = carriedOut(chute, 1);
        Session again = new PlanningCommand.SetMeasured("spacing", "spacing", "842.1(5) mm").apply(r.session());
        Quantity a = taken(pool, r, r.session(), "a").quantities("g").get(0);
        Quantity b = taken(pool, r, again, "b").quantities("g").get(0);
        Rehearsal other = carriedOut(chute, 2);
        Quantity c = taken(pool, other, other.session(), "c").quantities("g").get(0);
        double calibration = a.contributions().entrySet().stream()
                .filter(e -> e.getKey().label().contains("calibration"))
                .mapToDouble(e -> e.getValue() * e.getValue())
                .sum();
        assertThat(calibration).isPositive();
        assertThat(a.covariance(b) - a.covariance(c)).isCloseTo(calibration, within(0.02 * calibration));
    }

    @Test
    void whatIsTakenCanBeLeftOutAndTakenIn() {
        SheetReader.Located sheet = pool();
        Rehearsal r = carriedOut(sheet, 3);
        Session without = new PoolingCommand.LeaveOut("lean", "the tube broke").apply(r.session());
        Reducer reducer = new Reducer(sheet, (run, channel) -> RawSamples.NONE);
        assertThat(reducer.reduce(without).column("pool.T")).hasSize(6);
        Session in = new PoolingCommand.TakeIn("lean").apply(without);
        assertThat(reducer.reduce(in).column("pool.T")).hasSize(8);
        assertThatThrownBy(() -> new PoolingCommand.LeaveOut("lean", " ").apply(in))
                .hasMessageContaining("Say why");
        assertThatThrownBy(() -> new PoolingCommand.TakeIn("leen").apply(in)).hasMessageContaining("no leen");
    }

    /** A sheet that was changed since, or another one, is told in words. */
    @Test
    void aSessionOfAnotherMethodIsRefused() {
        SheetReader.Located chute = SheetReader.read(SheetReader.shippedText("baggage-chute"), "c.yaml");
        Pool pool = pool().sheet().pool();
        Session other = Session.start(chute.text(), "t", DAY);
        assertThatThrownBy(() -> PoolTaking.of(
                        pool, other, (run, c) -> RawSamples.NONE, new PoolTaking.Origin("x", "x", "x", DAY)))
                .hasMessage("x follows the method baggage-chute; this pool takes from sessions of alloy-arrest.");
        Session empty = Session.start(ALLOY, "t", DAY);
        assertThat(PoolTaking.of(pool, empty, (run, c) -> RawSamples.NONE, new PoolTaking.Origin("x", "x", "x", DAY))
                        .remarks())
                .singleElement()
                .asString()
                .startsWith("T has no value");
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', textBlock = """
            from: alloy-arrest         | from: alloy-arest          | 10 | there is no sheet alloy-arest beside this one
            w: w_tin                   | w: w_tim                   | 11 | the name w_tim is not known here; did you mean w_tin?
            w: w_tin                   | w: w_tin + 3 kg            | 11 | w has no value
            lean: {m_tin               | lean: {m_tim               | 13 | has no input m_tim; did you mean m_tin?
            lean: {m_tin: "15.00(2) g" | lean: {m_tin: "many"       | 13 | many
            pool.w, scatter            | pool.x, scatter            | 22 | pool.x
            pool.w, scatter            | pool.T, scatter            | 22 | functions of each other
            'even: pulled'             | 'evn: pulled'              | 33 | expects no session evn; did you mean even?
            even: pulled               | even: puled                | 33 | knows no mistake at the bench called puled; did you mean pulled?
            drift: "0 K"}              | drift: "arest - 3 K"}      | 36 | arest
            """)
    void whatIsWrongInAPoolIsFoundInItsPlace(String good, String wrong, int line, String why) {
        assertThat(TOGETHER).contains(good);
        SheetReader.Looked looked = look(TOGETHER.replace(good, wrong), ALLOY);
        List<SheetException> all =
                looked.problems().isEmpty() ? RehearsalTrial.of(looked.located().orElseThrow(), 2) : looked.problems();
        assertThat(all).anySatisfy(p -> {
            assertThat(p.getMessage()).contains(why);
            assertThat(p.line()).isEqualTo(line);
        });
    }

    @Test
    void natureRestsOnNothingThatBelongsToOneSession() {
        assertThat(SheetTrial.look(ALLOY.replace("arrest: \"183.0(5) degC\"", "arrest: \"T_block + 163 K\""), "a.yaml")
                        .problems())
                .singleElement()
                .satisfies(p -> assertThat(p.getMessage()).contains("T_block belongs to one session"));
        assertThat(SheetTrial.look(
                                ALLOY.replace("    hidden: {room", "    nature: {z: 3 K}\n    hidden: {room"), "a.yaml")
                        .problems())
                .singleElement()
                .satisfies(p -> assertThat(p.getMessage()).contains("nature stands in the rig itself"));
    }
}
