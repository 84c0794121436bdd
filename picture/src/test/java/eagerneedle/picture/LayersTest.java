package eagerneedle.picture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.PictureSource;
import eagerneedle.core.reduce.PictureTrial;
import eagerneedle.core.reduce.Reducer;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.RunCommand;
import eagerneedle.core.sheet.Picture;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.rig.simulated.Rehearsal;
import eagerneedle.rig.simulated.Rigs;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;

/** The layers of pictures, on sheets that are carried out. */
class LayersTest {
    /** A sheet with its session and what follows. */
    private record Done(SheetReader.Located sheet, Rehearsal rehearsal, Reducer reducer, Reduction r) {
        static Done of(String text, String name) {
            SheetReader.Located sheet = SheetTrial.read(text, name);
            Rehearsal held =
                    Rehearsal.of(sheet, Rigs.of(sheet.sheet(), 3, Set.of()), Instant.parse("2026-11-23T09:00:00Z"));
            Reducer reducer = new Reducer(
                    sheet,
                    (run, channel) ->
                            held.samples().getOrDefault(run, Map.of()).getOrDefault(channel, RawSamples.NONE));
            return new Done(sheet, held, reducer, reducer.reduce(held.session()));
        }

        Plot plot(int i) {
            return ColumnPlots.columns(r, sheet.sheet().pictures().get(i)).orElseThrow();
        }
    }

    private static Done example(String name) {
        try {
            return Done.of(Files.readString(Path.of("..", "docs", "examples", name + ".yaml")), name + ".yaml");
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static <T extends Layer> List<T> layers(Plot plot, Class<T> kind) {
        return plot.layers().stream().filter(kind::isInstance).map(kind::cast).toList();
    }

    private static List<String> legend(Plot plot) {
        return layers(plot, Layer.Legend.class).stream()
                .flatMap(l -> l.entries().stream().map(Layer.Entry::text))
                .toList();
    }

    @Test
    void aCircleGoesThroughTheGaugesAndIsRoundOnPaper() {
        Done d = example("four-gauges");
        Plot plot = d.plot(0);
        Layer.Curve circle = layers(plot, Layer.Curve.class).get(0);
        LabUnit unit = LabUnit.parse("um/m/N");
        double centre = d.r.evaluate("state.c", "", "").in(unit);
        double radius = d.r.evaluate("hypot(state.d, state.s)", "", "").in(unit);
        for (int i = 0; i < circle.x().length; i++) {
            assertThat(Math.hypot(circle.x()[i] - centre, circle.y()[i])).isCloseTo(radius, within(1e-12));
        }
        List<Layer.Points> gauges = layers(plot, Layer.Points.class);
        assertThat(gauges).extracting(Layer.Points::name).containsExactly("0°", "45°", "90°", "135°");
        assertThat(legend(plot)).containsExactly("0°", "45°", "90°", "135°");
        for (Layer.Points p : gauges) {
            assertThat(Math.hypot(p.x()[0] - centre, p.y()[0])).isCloseTo(radius, within(0.02));
            assertThat(p.ux()[0]).isPositive();
        }
        PlotPainter.Frame f =
                PlotPainter.paint(new SvgSurface(600, 300, false, "circle"), plot, plot.whole(), 0, 0, 600, 300, true);
        assertThat(f.px(1) - f.px(0)).as("as long along as up").isCloseTo(f.py(0) - f.py(1), within(1e-9));
        assertThat(layers(plot, Layer.Mark.class)).extracting(Layer.Mark::name).containsExactly("greatest", "");
        assertThat(layers(plot, Layer.Mark.class).get(0).x())
                .isCloseTo(d.r.quantity("greatest").orElseThrow().in(unit), within(1e-12));
        assertThat(layers(plot, Layer.Mark.class).get(1).x()).isNaN();
    }

    @Test
    void linesOfAFamilyAreCalledWhatTheyHaveInCommonAndJoinedInOrder() {
        Plot plot = example("four-gauges").plot(1);
        assertThat(plot.y().label()).isEqualTo("strain, µm/m");
        assertThat(layers(plot, Layer.Curve.class)).hasSize(4);
        assertThat(layers(plot, Layer.Curve.class).get(1).x())
                .containsExactly(0, 100, 200, 300, 400, 500, 400, 300, 200, 100, 0);
    }

    @Test
    void aFitOfTheAbscissaStandsUpright() {
        Done d = example("red-diode");
        Plot plot = d.plot(0);
        Layer.Curve bent = layers(plot, Layer.Curve.class).get(0);
        assertThat(bent.x()).as("all that is above zero").hasSizeGreaterThan(70);
        for (int i = 0; i < bent.x().length; i += 9) {
            Quantity current = Quantity.exact(Math.pow(10, bent.y()[i]), LabUnit.parse("mA"));
            double voltage = d.r.fit("bent")
                    .orElseThrow()
                    .at(current.in(d.r.fit("bent").orElseThrow().xUnit()))
                    .value();
            assertThat(bent.x()[i]).isCloseTo(voltage, within(1e-9));
        }
        assertThat(plot.x().label()).as("without being told").isEqualTo("voltage of the diode, V");
        assertThat(plot.y().logarithmic()).isTrue();
        assertThat(layers(plot, Layer.Mark.class).get(0).y()).isCloseTo(Math.log10(20), within(1e-12));
    }

    @Test
    void kindsAreToldApartAndACurveIsItsFormula() {
        Done d = example("buffer-wagons");
        Plot plot = d.plot(0);
        assertThat(legend(plot))
                .containsExactly("springy buffers", "coupling that sticks", "spring released at rest", "- - all kept");
        Layer.Curve kept = layers(plot, Layer.Curve.class).get(0);
        assertThat(kept.x()).containsExactly(kept.y());
        assertThat(kept.x()[0]).isZero();
        Layer.Points last = layers(plot, Layer.Points.class).get(2);
        Run run = ColumnPlots.runOf(d.r, last, 0).orElseThrow();
        assertThat(run.level()).isEqualTo("release");
        assertThat(last.y()[0])
                .isCloseTo(d.r.ofRun(run, "p.after").quantity().orElseThrow().in(LabUnit.parse("g*m/s")), within(1e-9));
        // Leaving a run out shifts no name.
        Run first = d.r.runs().stream()
                .filter(x -> x.level().equals("springy"))
                .findFirst()
                .orElseThrow();
        Reduction without = d.reducer.reduce(new RunCommand.LeaveOut(first.id(), "tried").apply(d.rehearsal.session()));
        Plot left =
                ColumnPlots.columns(without, d.sheet.sheet().pictures().get(0)).orElseThrow();
        Layer.Points springy = layers(left, Layer.Points.class).get(0);
        assertThat(springy.x()).hasSize(3);
        assertThat(ColumnPlots.runOf(without, springy, 0).orElseThrow().id()).isEqualTo(first.id() + 1);
        assertThat(layers(left, Layer.Points.class).stream().filter(Layer.Points::weak))
                .as("hollow, where it was")
                .hasSize(1)
                .allMatch(p -> ColumnPlots.runOf(without, p, 0).orElseThrow().id() == first.id());
    }

    private static final String RECORDS = """
            sheet: 2
            id: loop
            title: Loop
            subject: Load
            inputs: {k: {label: stiffness, value: "2.00(2) N/mm"}}
            channels:
              F: {label: force, unit: N, rate: 100, needs: [-100 N, 100 N], chain: [{kind: converter, label: c, from: N, range: [-100, 100], bits: 16, coding: signed}]}
              y: {label: travel, unit: mm, rate: 40, needs: [-50 mm, 50 mm], chain: [{kind: converter, label: c, from: mm, range: [-50, 50], bits: 16, coding: signed}]}
            captures:
              pull:
                label: Pull
                channels: [F, y]
                longest: 4
                repeats: 2
                quantities:
                  top: {label: greatest force, unit: N, formula: max(F)}
                views:
                  - {title: Loop, layers: [{points: {x: y, y: F}}, {mark: {y: top}, label: top}, {curve: "k * x", from: -20 mm, to: 20 mm, label: straight}]}
            results:
              mean_top: {label: greatest force, unit: N, formula: mean(pull.top)}
            rig:
              pull:
                lasts: 3 s
                signals: {y: "20 mm * sin(2 * pi * t / (1 s))", F: "k * 20 mm * sin(2 * pi * t / (1 s) + 0.2)"}
            """;

    @Test
    void twoRecordsOfARunAreDrawnAgainstEachOther() {
        Done d = Done.of(RECORDS, "loop.yaml");
        Run run = d.r.runs().get(0);
        Picture view = d.sheet.sheet().captures().get("pull").views().get(0);
        assertThat(PictureTrial.of(PictureSource.of(d.r, run), view)).isEmpty();
        Plot plot = ColumnPlots.view(d.r, run, view).orElseThrow();
        assertThat(plot.x().label()).isEqualTo("travel, mm");
        assertThat(plot.y().label()).isEqualTo("force, N");
        Layer.Curve loop = layers(plot, Layer.Curve.class).get(0);
        double k = d.r.quantity("k").orElseThrow().value();
        for (int i = 0; i < loop.x().length; i += 7) {
            // F^2 + (k y)^2 - 2 F k y cos(phase) = (amplitude sin(phase))^2.
            double f = loop.y()[i];
            double y = k * loop.x()[i];
            assertThat(f * f + y * y - 2 * f * y * Math.cos(0.2))
                    .isCloseTo(Math.pow(20 * k * Math.sin(0.2), 2), within(12.0));
        }
        assertThat(layers(plot, Layer.Curve.class).get(1).y()[160]).isCloseTo(20 * k, within(1e-9));
        assertThat(layers(plot, Layer.Mark.class).get(0).y())
                .isCloseTo(d.r.ofRun(run, "top").quantity().orElseThrow().value(), within(1e-12));
    }

    @Test
    void whatCannotBeDrawnIsToldWithItsPlace() {
        Done d = Done.of(RECORDS, "loop.yaml");
        PictureSource of = PictureSource.of(d.r, d.r.runs().get(0));
        Picture.Layer wrong = new Picture.Layer(null, null, false, null, false, "k * y", "0 mm", "1 mm", null, null);
        Picture.Layer seconds = new Picture.Layer(
                null, null, false, null, false, null, null, null, null, new Picture.Place("1 s", null));
        Picture.Layer mark = new Picture.Layer(
                null, null, false, null, false, null, null, null, null, new Picture.Place("1 mm", null));
        Picture p = new Picture(
                "p", null, null, null, null, null, null, null, null, null, null, false, List.of(mark, wrong, seconds));
        assertThat(PictureTrial.of(of, p))
                .containsOnlyKeys("/layers/1/curve", "/layers/2/mark")
                .containsEntry("/layers/2/mark", "1 s in s cannot be drawn in mm.");
        assertThat(ColumnPlots.view(d.r, d.r.runs().get(0), p))
                .as("the rest is drawn")
                .isPresent();
        for (String[] slip : new String[][] {
            {"curve: \"k * x\"", "curve: \"k * z\"", "line 18, column 99: the name z"},
            {"{mark: {y: top}, label: top}", "{mark: {y: tops}, label: top}", "did you mean top"},
            {"{points: {x: y, y: F}}", "{label: none}", "a layer is one thing"},
            {"{points: {x: y, y: F}}", "{points: {x: y, y: F, by: pul}}", "there is no set pul; did you mean pull?"},
            {"title: Loop, layers", "title: Loop, x: y, layers", "either 'layers'"}
        }) {
            assertThat(SheetTrial.look(RECORDS.replace(slip[0], slip[1]), "loop.yaml")
                            .problems())
                    .as(slip[1])
                    .singleElement()
                    .satisfies(e -> assertThat(e.getMessage()).contains(slip[2]));
        }
    }

    /** In a small frame a legend keeps its first line and what tells series apart, and leaves the data room. */
    @Test
    void aLegendLeavesTheDataRoom() {
        Layer.Legend legend = new Layer.Legend(
                List.of(
                        Layer.Entry.of("slope 2.1 V/s"),
                        Layer.Entry.of("intercept 0.3 V"),
                        new Layer.Entry("springy", 0),
                        Layer.Entry.of("10 runs")),
                Layer.Corner.TOP_LEFT);
        Plot plot = new Plot(
                "p",
                new Plot.Axis("t", "s"),
                new Plot.Axis("v", "V"),
                List.of(new Layer.Points("p", new double[] {0, 1, 2}, new double[] {0, 1, 2}, null, false, 0), legend));
        assertThat(painted(plot, 300))
                .contains("slope 2.1")
                .contains("intercept")
                .contains("springy")
                .contains("10 runs");
        assertThat(painted(plot, 130))
                .contains("slope 2.1")
                .contains("springy")
                .doesNotContain("intercept")
                .doesNotContain("10 runs");
    }

    private static String painted(Plot plot, double height) {
        SvgSurface s = new SvgSurface(400, height, false, "legend");
        PlotPainter.paint(s, plot, plot.whole(), 0, 0, 400, height, true);
        return s.document("legend");
    }

    /** Of two channels each shows the fit through its own samples, and no other's. */
    @Test
    void aFitIsDrawnOverTheTraceThatItGoesThrough() {
        Done d = Done.of(SheetReader.shippedText("colliding-wagons"), "colliding-wagons.yaml");
        Run run = d.rehearsal.session().runs().get(5);
        assertThat(run.capture()).isEqualTo("meet");
        assertThat(layers(SessionPlots.run(d.r, run, "x.a").orElseThrow(), Layer.Curve.class))
                .isEmpty();
        assertThat(SessionPlots.residuals(d.r, run, "x.a")).isEmpty();
        Plot other = SessionPlots.run(d.r, run, "x.b").orElseThrow();
        assertThat(layers(other, Layer.Curve.class)).hasSize(1);
        assertThat(SessionPlots.residuals(d.r, run, "x.b")).isPresent();
        // The sheet names no fit of the force sensor; a row of it shows none.
        assertThat(layers(
                        SessionPlots.run(d.r, d.rehearsal.session().runs().get(0), "pull")
                                .orElseThrow(),
                        Layer.Curve.class))
                .isEmpty();
    }
}
