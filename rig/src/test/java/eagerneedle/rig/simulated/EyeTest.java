package eagerneedle.rig.simulated;

import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.core.quantity.Coverage;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Reducer;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.RunCommand;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.SheetException;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.RawSamples;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.Map;
import java.util.Set;
import java.util.stream.LongStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** A method without a channel: everything is read by eye, once, once a level, or several times. */
class EyeTest {
    private static final Instant DAY = Instant.parse("2026-03-02T09:00:00Z");

    private static String text() {
        try {
            return Files.readString(Path.of("..", "docs", "examples", "coil-by-hand.yaml"));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static SheetReader.Located sheet(String text) {
        return SheetTrial.read(text, "coil-by-hand.yaml");
    }

    private static Rehearsal carriedOut(SheetReader.Located sheet, long seed, String... faults) {
        return Rehearsal.of(sheet, Rigs.of(sheet.sheet(), seed, Set.of(faults)), DAY);
    }

    private static Reduction reduced(SheetReader.Located sheet, Session session) {
        return new Reducer(sheet, (run, channel) -> RawSamples.NONE).reduce(session);
    }

    private static long covered(SheetReader.Located sheet, String result, String... faults) {
        return LongStream.range(0, 100)
                .parallel()
                .filter(seed -> {
                    Rehearsal r = carriedOut(sheet, seed, faults);
                    Quantity q = reduced(sheet, r.session()).quantity(result).orElseThrow();
                    double error = q.value() - r.truth().get(result).in(q.unit());
                    return Math.abs(error) <= Coverage.DEFAULT.expanded(q);
                })
                .count();
    }

    @ParameterizedTest
    @CsvSource({"k, 88", "k_swing, 90", "share, 90"})
    void intervalsHoldWhatIsTrue(String result, long least) {
        assertThat(covered(sheet(text()), result)).isBetween(least, 100L);
    }

    /** The same with a formula that is wrong. */
    @Test
    void coverageCanFail() {
        assertThat(covered(sheet(text().replace("g / stretch.slope", "1.02 * g / stretch.slope")), "k"))
                .isLessThan(80);
        assertThat(covered(sheet(text()), "k_swing", "nine")).isLessThan(80);
    }

    @Test
    void nothingIsRecordedAndAllIsRead() {
        Rehearsal r = carriedOut(sheet(text()), 3);
        assertThat(r.session().runs()).hasSize(10).allSatisfy(run -> {
            assertThat(run.entries().byEye()).containsOnlyKeys("m", "y", "t");
            assertThat(run.entries().byEye().get("t").split(";")).hasSize(3);
            assertThat(run.entries().byEye().get("t")).doesNotContain("(");
            assertThat(run.source()).isEqualTo("a reading by eye");
        });
        assertThat(r.session().runs().get(0).entries().byEye().get("y"))
                .as("a reading is seen on the face it is read from")
                .matches("reading\\(3\\d\\d(\\.5)? mm, division: 1 mm, judged: 0.5, edges: 1, start: 0 mm\\)")
                .isNotEqualTo(r.session().runs().get(4).entries().byEye().get("y"));
    }

    /** What is read once at a level is one influence in all its runs, whoever wrote it down. */
    @Test
    void aReadingThatServesALevelIsShared() {
        SheetReader.Located sheet = sheet(text());
        Session s = carriedOut(sheet, 5).session();
        Run first = s.runs().get(0);
        Run second = s.runs().get(1);
        assertThat(first.level()).isEqualTo(second.level());
        Session one = new RunCommand.EnterByEye(second.id(), "m", "m", null).apply(s);
        Reduction reduction = reduced(sheet, one);
        Quantity a = reduction.ofRun(first, "m").quantity().orElseThrow();
        Quantity b = reduction.ofRun(second, "m").quantity().orElseThrow();
        assertThat(b.value()).isEqualTo(a.value());
        assertThat(a.minus(b).u()).isZero();
        // A rehearsal reads it once too: the same text stands with both runs.
        assertThat(second.entries().byEye().get("m"))
                .isEqualTo(first.entries().byEye().get("m"));
        Quantity other = reduction.ofRun(s.runs().get(2), "m").quantity().orElseThrow();
        assertThat(a.covariance(other)).isZero();
        // What is not read once for all is missed in the run itself.
        Session without = new RunCommand.EnterByEye(second.id(), "y", "y", null).apply(s);
        assertThat(reduced(sheet, without).ofRun(second, "y").problem()).contains("pointer was not read");
    }

    @Test
    void aPlanCountsOnAllReadings() {
        SheetReader.Located three = sheet(text());
        SheetReader.Located twelve = sheet(text().replace("times: 3", "times: 12"));
        double u3 = planned(three);
        double u12 = planned(twelve);
        assertThat(u3 / u12).isBetween(1.99, 2.01);
    }

    private static double planned(SheetReader.Located sheet) {
        Reduction plan =
                new Reducer(sheet, (run, channel) -> RawSamples.NONE).plan(Session.start(sheet.text(), "plan", DAY));
        Run first = plan.runs().get(0);
        return plan.ofRun(first, "t").quantity().orElseThrow().u();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "    label: Weight on the coil|    label: Weight on the coil\\n    mode: stream|name its 'channels'",
                "    label: Weight on the coil|    label: Weight on the coil\\n    mode: eye\\n    channels: [x]|x",
                "times: 3|times: 0|minimum value of 1",
                "once: level|once: run|level",
                "expected: {m: \"50.00(2) g\"|expected: {mass: \"50.00(2) g\"|nothing of that name is read by eye here",
                "expected: {m: \"50.00(2) g\"|expected: {m: \"50.00(2) mm\"|is read in",
                "value: \"5.9(1) s\"|value: \"reading(5.9 s, divsion: 1 s)\"|divsion",
                "    repeats: 2|    repeats: 2\\n    windows: {w: {propose: whole}}|no trace on which a window could lie",
            })
    void slipsAreToldAtTheirPlace(String from, String to, String says) {
        String broken = text().replace(from, to.replace("\\n", "\n"));
        assertThat(broken).isNotEqualTo(text());
        assertThat(SheetTrial.look(broken, "broken.yaml").problems())
                .extracting(SheetException::getMessage)
                .anyMatch(m -> m.contains(says) && m.contains("line "));
    }

    @Test
    void aRowMayBeKeptTwiceAndTakenBack() {
        SheetReader.Located sheet = sheet(text());
        Session s = carriedOut(sheet, 1).session();
        Run again = Run.captured(s.nextRunId(), "hang", "a", DAY, "read by eye", Run.COUNTS)
                .entered(s.runs().get(0).entries());
        Session more = new RunCommand.KeepRun(again).apply(s);
        Reduction reduction = reduced(sheet, more);
        Quantity m1 = reduction.ofRun(s.runs().get(0), "m").quantity().orElseThrow();
        Quantity m2 = reduction.ofRun(again, "m").quantity().orElseThrow();
        assertThat(m1.minus(m2).u()).isZero();
        Map<String, String> seen = again.entries().byEye();
        assertThat(seen).isEqualTo(s.runs().get(0).entries().byEye());
    }
}
