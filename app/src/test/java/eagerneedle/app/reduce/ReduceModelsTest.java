package eagerneedle.app.reduce;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.app.PlainDesk;
import eagerneedle.app.reduce.ReduceModel.Line;
import eagerneedle.app.workbench.Demonstration;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.session.Run;
import eagerneedle.core.trace.Window;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What Reduce shows and allows, without a window. */
class ReduceModelsTest {
    @TempDir
    Path folder;

    private PlainDesk desk;
    private ReduceModel model;

    @BeforeEach
    void open() {
        desk = PlainDesk.rehearsed(folder, "baggage-chute");
        model = new ReduceModel(desk);
    }

    @AfterEach
    void close() {
        desk.close();
    }

    private Run run() {
        return model.run().orElseThrow();
    }

    private Line.Taken line(int id) {
        return model.lines().stream()
                .filter(l -> l instanceof Line.Taken t && t.id() == id)
                .map(Line.Taken.class::cast)
                .findFirst()
                .orElseThrow();
    }

    @Test
    void runsStandByCaptureAndOneIsInHand() {
        assertThat(model.head()).isEmpty();
        assertThat(model.lines().get(0)).isInstanceOf(Line.Group.class);
        assertThat(model.listed()).isNotEmpty();
        model.choose(9);
        assertThat(line(9).chosen()).isTrue();
        assertThat(line(10).chosen()).isFalse();
        assertThat(model.step(9, 1)).contains(10);
        assertThat(line(10).chosen()).isTrue();
        int first = desk.bench().session().keptRuns().get(0).id();
        assertThat(model.step(first, -1)).as("there is none before the first").isEmpty();
        assertThat(model.head().orElseThrow().title()).startsWith("Run 10, block ");
        assertThat(model.head().orElseThrow().says()).contains("points · residual SD ");
    }

    @Test
    void aRunIsLeftOutForAReasonAndItsEffectIsSaidBefore() {
        assertThat(model.without()).as("none in hand").isEmpty();
        model.choose(9);
        assertThat(model.without()).startsWith("Without it ").contains("; with it, it is ");
        String with = desk.bench().reduction().quantity("g").orElseThrow().toString();
        assertThat(model.without()).endsWith(with + ".");
        String then = model.without().replaceAll(".* would be (.*); with it.*", "$1");
        model.leaveOut(" pushed ");
        assertThat(desk.bench().reduction().quantity("g").orElseThrow().toString())
                .isEqualTo(then);
        assertThat(line(9).about()).endsWith(" · left out: pushed");
        assertThat(model.head().orElseThrow().leave()).isEqualTo("Take in again");
        model.leaveOut(null);
        assertThat(desk.bench().reduction().quantity("g").orElseThrow().toString())
                .isEqualTo(with);
    }

    @Test
    void windowsOfAllRunsAreMovedAsHereAndProposedAgain() {
        model.choose(9);
        TraceModel trace = new TraceModel(desk);
        String channel = trace.channel(run(), 0);
        Window proposed = desk.bench().reduction().window(run(), "rolling").orElseThrow();
        assertThat(model.head().orElseThrow().moved()).isFalse();
        trace.move(run(), channel, proposed.from() + 0.1, proposed.to(), true);
        assertThat(model.head().orElseThrow().moved()).isTrue();
        Window other = desk.bench()
                .reduction()
                .window(desk.bench().session().run(10).orElseThrow(), "rolling")
                .orElseThrow();
        act("edges moved as here").run();
        assertThat(desk.bench()
                        .session()
                        .run(10)
                        .orElseThrow()
                        .windows()
                        .get("rolling")
                        .from())
                .isCloseTo(other.from() + 0.1, within(1e-9));
        act("proposed again").run();
        assertThat(desk.bench().session().runs()).allMatch(r -> r.windows().isEmpty());
        desk.bench().undo();
        assertThat(desk.bench().session().run(10).orElseThrow().windows()).isNotEmpty();
    }

    private Runnable act(String words) {
        return model.windowActs().stream()
                .filter(a -> a.words().contains(words))
                .findFirst()
                .orElseThrow()
                .run();
    }

    @Test
    void aDragIsSeenAndNotKeptUntilItEnds() {
        model.choose(9);
        TraceModel trace = new TraceModel(desk);
        String channel = trace.channel(run(), 0);
        Window w = desk.bench().reduction().window(run(), "rolling").orElseThrow();
        trace.move(run(), channel, w.from() + 0.1, w.to(), false);
        trace.move(run(), channel, w.from() + 0.2, w.to(), false);
        assertThat(desk.bench().isPreviewing()).isFalse();
        trace.preview();
        assertThat(desk.bench().isPreviewing()).isTrue();
        assertThat(desk.bench()
                        .reduction()
                        .window(run(), "rolling")
                        .orElseThrow()
                        .from())
                .isCloseTo(w.from() + 0.2, within(1e-9));
        trace.move(run(), channel, w.from() + 0.3, w.to(), true);
        trace.preview();
        assertThat(run().windows().get("rolling").from()).isCloseTo(w.from() + 0.3, within(1e-9));
        trace.move(run(), channel, -5, 900, true);
        Window cut = run().windows().get("rolling");
        assertThat(cut.from()).as("no further than the trace").isGreaterThanOrEqualTo(0);
        assertThat(cut.to()).isLessThan(900);
        trace.move(run(), channel, 3, 3, true);
        assertThat(run().windows().get("rolling")).as("an empty window is none").isEqualTo(cut);
    }

    @Test
    void theFiguresAreOfTheWindowOrTheCursors() {
        model.choose(9);
        TraceModel trace = new TraceModel(desk);
        String channel = trace.channel(run(), 0);
        assertThat(trace.figures(channel))
                .startsWith("window: n ")
                .contains(" · mean ")
                .contains(" · SD ");
        assertThat(trace.figures(channel, 0.5)).startsWith("a: ").contains("a second click sets b");
        assertThat(trace.figures(channel, 0.5, 0.9)).contains("b − a: ");
        assertThat(trace.figures(channel, 500))
                .as("beyond the trace, one sentence")
                .isNotEmpty();
        WindowsOtherwise.Otherwise o = trace.otherwise(run(), channel).orElseThrow();
        assertThat(o.rows()).hasSize(4);
        assertThat(o.rows().get(0).label()).isEqualTo("as chosen");
        assertThat(o.foot()).startsWith("spread ").contains(" against u ");
    }

    @Test
    void samplesAreLeftOutAndTakenInAgain() {
        model.choose(9);
        TraceModel trace = new TraceModel(desk);
        trace.leaveOut(0.9, 0.5, "the thread slipped");
        assertThat(run().entries().voided()).singleElement().satisfies(v -> {
            assertThat(v.from()).isEqualTo(0.5);
            assertThat(v.to()).isEqualTo(0.9);
        });
        act("Take 0.500 s to 0.900 s in again (the thread slipped)").run();
        assertThat(run().entries().voided()).isEmpty();
    }

    @Test
    void aColumnIsAddedWhenItCanBeWorkedOut() {
        model.choose(9);
        TableModel t = new TableModel(desk);
        int before = t.columns().size();
        t.add(true, "a_half", "a / 2", "");
        assertThat(t.columns()).hasSize(before + 1);
        assertThat(t.own()).singleElement().satisfies(o -> assertThat(o.words()).isEqualTo("a_half = a / 2"));
        assertThatThrownBy(() -> t.add(true, "a_half", "a", ""))
                .hasMessageContaining("There is a quantity a_half already");
        assertThatThrownBy(() -> t.add(true, "b_half", "b / 2", "")).isInstanceOf(RuntimeException.class);
        assertThatThrownBy(() -> t.add(false, "twice", "2 * g", "kg")).isInstanceOf(RuntimeException.class);
        assertThat(t.own()).hasSize(1);
        List<String> rows = t.tabbed().lines().toList();
        assertThat(rows).hasSize(t.runs().size() + 1);
        assertThat(rows).allMatch(r -> r.split("\t", -1).length == rows.get(0).split("\t", -1).length);
        assertThat(model.tables()).contains(t.tabbed());
        t.takeAway(t.own().get(0));
        assertThat(t.columns()).hasSize(before);
        // The points of one column stand under each other.
        TableModel.Column a = t.columns().get(0);
        assertThat(a.cells().values().stream()
                        .filter(c -> c.contains("."))
                        .map(c -> c.indexOf('.'))
                        .distinct()
                        .count())
                .isEqualTo(1);
    }

    @Test
    void modelsStandBesideEachOtherWhereThereAreSeveral() {
        desk.close();
        desk = PlainDesk.rehearsed(folder, "fading-dye");
        model = new ReduceModel(desk);
        model.choose(desk.bench().session().keptRuns().get(0).id());
        assertThat(model.hasModels()).isTrue();
        ModelsModel.Comparison c = new ModelsModel(desk).comparison();
        assertThat(c.cards())
                .hasSizeGreaterThan(1)
                .filteredOn(ModelsModel.Card::best)
                .hasSize(1);
        assertThat(c.cards())
                .allMatch(x -> x.share().startsWith("share ") && x.more().contains("r² "));
    }

    /** Moments on which windows rest are moved too, by as much as they are uncertain. */
    @Test
    void momentsAreVariedWithWindows() throws Exception {
        Path file = folder.resolve("wagons.needle");
        String wagons = Files.readString(Path.of("..", "docs", "examples", "buffer-wagons.yaml"));
        Demonstration.simulate(SheetTrial.read(wagons, "buffer-wagons.yaml"), 7, Set.of(), file);
        try (PlainDesk other = PlainDesk.at(file)) {
            Run meets = other.bench().session().keptRuns().stream()
                    .filter(r -> r.capture().equals("meet"))
                    .findFirst()
                    .orElseThrow();
            String window = other.bench().sheet().captures().get("meet").windows().keySet().stream()
                    .filter(w -> other.bench().reduction().window(meets, w).isPresent())
                    .findFirst()
                    .orElseThrow();
            WindowsOtherwise.Otherwise o =
                    new WindowsOtherwise(other).of(meets, window).orElseThrow();
            assertThat(o.rows()).extracting(r -> r.label()).anyMatch(l -> l.matches("impact −.* ms"));
            assertThat(o.rows()).extracting(r -> r.label()).anyMatch(l -> l.matches("impact \\+.* ms"));
            double chosen = o.rows().get(0).value().value();
            assertThat(o.rows().stream()
                            .filter(r -> r.label().startsWith("impact"))
                            .mapToDouble(r -> Math.abs(r.value().value() - chosen))
                            .max()
                            .orElse(0))
                    .as("the speed falls on the way, so it matters when the impact was")
                    .isGreaterThan(0);
        }
    }
}
