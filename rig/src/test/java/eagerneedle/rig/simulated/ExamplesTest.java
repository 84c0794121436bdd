package eagerneedle.rig.simulated;

import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.core.quantity.Coverage;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Reducer;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.SheetException;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.RawSamples;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** The sheets of docs/examples: good, carried out, and planned by carrying them out. */
class ExamplesTest {
    private static final int SESSIONS = Integer.getInteger("sessions", 8);

    private static SheetReader.Looked look(String name) throws IOException {
        Path file = Path.of("..", "docs", "examples", name + ".yaml");
        return SheetTrial.look(Files.readString(file), name + ".yaml");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "buffer-wagons",
                "red-diode",
                "swing-governor",
                "cooling-can",
                "four-gauges",
                "rc-discharge",
                "alloy-arrest",
                "coil-by-hand"
            })
    void isGood(String name) throws IOException {
        SheetReader.Looked looked = look(name);
        assertThat(looked.problems()).extracting(SheetException::getMessage).isEmpty();
        assertThat(RehearsalTrial.of(looked.located().orElseThrow(), 4))
                .extracting(SheetException::getMessage)
                .isEmpty();
        assertThat(looked.located().orElseThrow().text().lines().toList())
                .hasSizeLessThan(220)
                .allSatisfy(l -> assertThat(l.length()).isLessThan(260));
    }

    /** The sheet from which the language is learned is carried out as well. */
    @Test
    void theSheetOnThePageIsCarriedOut() throws IOException {
        assertThat(RehearsalTrial.of(
                        SheetTrial.look(onThePage(), "page.yaml").located().orElseThrow(), 4))
                .extracting(SheetException::getMessage)
                .isEmpty();
    }

    /** Two channels through one converter: what it is off by is the same for both, in the rig and in the reduction. */
    @Test
    void aSharedLinkIsOneThing() throws IOException {
        SheetReader.Located located = look("red-diode").located().orElseThrow();
        Rehearsal r = Rehearsal.of(located, Rigs.of(located.sheet(), 1, Set.of()), Instant.EPOCH);
        Reduction reduction = new Reducer(
                        located,
                        (run, channel) ->
                                r.samples().getOrDefault(run, Map.of()).getOrDefault(channel, RawSamples.NONE))
                .reduce(r.session());
        Run late = r.session().runs().get(30);
        Quantity v = reduction.ofRun(late, "V").quantity().orElseThrow();
        assertThat(v.contributions().keySet()).anyMatch(l -> l.id().equals("link:adc/offset"));
        // The current is a difference of two readings: the offset of the one converter cancels in it.
        Quantity i = reduction.ofRun(late, "I").quantity().orElseThrow();
        assertThat(i.contributions().entrySet().stream()
                        .filter(e -> e.getKey().id().equals("link:adc/offset"))
                        .mapToDouble(e -> Math.abs(e.getValue()))
                        .sum())
                .isLessThan(1e-9);
    }

    /** What rehearsals of the plan say is what other rehearsals state and miss their truth by. */
    @Test
    void thePlanIsWhatWillBeStated() throws IOException {
        SheetReader.Located located = look("four-gauges").located().orElseThrow();
        Map<String, Quantity> plan = RehearsedPlan.of(located, start(located), () -> false);
        List<RehearsedBudget> other = RehearsedBudget.of(located, 24);
        for (RehearsedBudget b : other) {
            Quantity q = plan.get(b.name());
            assertThat(q.u()).as(b.name()).isBetween(0.8 * b.stated(), 1.25 * b.stated());
        }
        SheetReader.Located again = look("four-gauges").located().orElseThrow();
        assertThat(RehearsedPlan.of(again, start(again), () -> true))
                .as("asked again, it is remembered")
                .isSameAs(plan);
        SheetReader.Located another = look("cooling-can").located().orElseThrow();
        assertThat(RehearsedPlan.of(another, start(another), () -> true))
                .as("given up")
                .isEmpty();
        assertThat(RehearsedPlan.of(another, start(another), () -> false))
                .as("what was given up is not remembered")
                .isNotEmpty();
    }

    /** Five small sheets state intervals that hold what was hidden: a spring, a capacitor, gauges, a can, wagons. */
    @ParameterizedTest
    @ValueSource(strings = {"two-springs", "rc-discharge", "four-gauges", "cooling-can", "buffer-wagons"})
    void intervalsHoldWhatWasHidden(String name) throws IOException {
        SheetReader.Located located = name.equals("two-springs")
                ? SheetTrial.read(onThePage(), "two-springs.yaml")
                : look(name).located().orElseThrow();
        int[] held = IntStream.range(0, SESSIONS)
                .parallel()
                .mapToObj(seed -> held(located, seed))
                .reduce(new int[2], (a, b) -> new int[] {a[0] + b[0], a[1] + b[1]});
        // Several results of one session miss together: as if each session were one trial.
        double slack = 4 * Math.sqrt(0.05 * 0.95 / SESSIONS);
        assertThat(held[0]).as("results with a truth").isGreaterThanOrEqualTo(SESSIONS);
        assertThat(held[1] / (double) held[0]).as(held[1] + " of " + held[0]).isBetween(0.95 - slack, 1.0);
    }

    private static int[] held(SheetReader.Located located, int seed) {
        Rehearsal r = Rehearsal.of(located, Rigs.of(located.sheet(), seed, Set.of()), Instant.EPOCH);
        Reduction reduction = new Reducer(
                        located,
                        (run, channel) ->
                                r.samples().getOrDefault(run, Map.of()).getOrDefault(channel, RawSamples.NONE))
                .reduce(r.session());
        int[] out = new int[2];
        for (String result : located.sheet().results().keySet()) {
            Quantity truth = r.truth().get(result);
            Quantity q = reduction.quantity(result).orElse(null);
            if (truth != null && q != null && !q.isExact()) {
                out[0]++;
                out[1] += Math.abs(q.value() - truth.in(q.unit())) <= Coverage.DEFAULT.expanded(q) ? 1 : 0;
            }
        }
        return out;
    }

    private static String onThePage() throws IOException {
        String page = Files.readString(Path.of("..", "docs", "method-sheet.md"));
        int from = page.indexOf("```yaml") + 8;
        return page.substring(from, page.indexOf("```", from));
    }

    private static Session start(SheetReader.Located located) {
        return Session.start(located.text(), "plan", Instant.EPOCH);
    }
}
