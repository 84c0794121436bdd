package eagerneedle.app.workbench;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.app.Rehearsed;
import eagerneedle.core.edit.Additions;
import eagerneedle.core.edit.KeptMethod;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Key;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.session.ReducingCommand;
import eagerneedle.core.session.SheetCommand;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.Window;
import eagerneedle.rig.simulated.RehearsalTrial;
import eagerneedle.store.bench.BenchFile;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import java.util.function.DoubleUnaryOperator;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.ValueSource;

/** What is kept of a session as a method is a good sheet whose rig holds what was seen, for every curve there is. */
class KeptMethodTest {
    /** Each curve as it falls into a file, and the parameter that is looked at. */
    private static final Map<Additions.Curve, DoubleUnaryOperator> SEEN = Map.ofEntries(
            Map.entry(Additions.Curve.LINE, t -> 2 + 0.03 * t),
            Map.entry(Additions.Curve.PARABOLA, t -> 2 + 0.03 * t - 0.0004 * t * t),
            Map.entry(Additions.Curve.CUBIC, t -> 2 + 0.03 * t - 0.0004 * t * t + 5e-6 * t * t * t),
            Map.entry(Additions.Curve.DECAY, t -> 20 + 50 * Math.exp(-t / 25)),
            Map.entry(Additions.Curve.SATURATION, t -> 5 * (1 - Math.exp(-t / 20))),
            Map.entry(Additions.Curve.HALF_SATURATION, t -> 5 * t / (12 + t)),
            Map.entry(Additions.Curve.POWER_LAW, t -> 0.7 * Math.pow(t, 1.4)),
            Map.entry(Additions.Curve.LOGARITHM, t -> 3 + 0.8 * Math.log(t)),
            Map.entry(Additions.Curve.LOGISTIC, t -> 6 / (1 + Math.exp(-(t - 40) / 7))),
            Map.entry(
                    Additions.Curve.DAMPED_COSINE,
                    t -> 1 + 2 * Math.exp(-t / 30) * Math.cos(2 * Math.PI * t / 9 + 0.4)),
            Map.entry(Additions.Curve.BROKEN_LINE, t -> 3 + (t < 35 ? 0.1 : -0.06) * (t - 35)),
            Map.entry(Additions.Curve.TWO_EXPONENTIALS, t -> 4 * Math.exp(-t / 6) + 3 * Math.exp(-t / 45)));

    @TempDir
    private Path dir;

    private Workbench open(String name, String csv) throws Exception {
        Path file = Files.writeString(dir.resolve(name + ".csv"), csv);
        Path to = dir.resolve(name + ".needle");
        BenchFile.create(to, OpenBench.begun(name, "", Instant.EPOCH)).close();
        Workbench bench = new Workbench(BenchFile.open(to), Clock.systemUTC());
        OpenBench.bring(bench, OpenBench.read(List.of(file)));
        return bench;
    }

    private static void write(Workbench bench, String text) {
        bench.apply(new SheetCommand.Write(text, "x"));
    }

    @ParameterizedTest
    @EnumSource(Additions.Curve.class)
    void everyCurveIsFittedAndRehearsed(Additions.Curve curve) throws Exception {
        Random noise = new Random(5);
        StringBuilder b = new StringBuilder("time (s),y (" + (curve == Additions.Curve.DECAY ? "degC" : "V") + ")\n");
        for (int i = 0; i < 200; i++) {
            double t = 0.4 * i;
            b.append(String.format(
                    Locale.ROOT,
                    "%.1f,%.4f%n",
                    t,
                    SEEN.get(curve).applyAsDouble(Math.max(t, 1e-3)) + 0.01 * noise.nextGaussian()));
        }
        try (Workbench bench = open("curve", b.toString())) {
            // What has no value at the beginning of a run is fitted in a window that begins later.
            Additions.Added span = Additions.window(bench.session().sheetText(), "record", "y");
            write(bench, span.text());
            bench.apply(new ReducingCommand.SetWindow(1, span.name(), new Window(0.3, 79.6, "by hand")));

            write(
                    bench,
                    Additions.fit(bench.session().sheetText(), "record", "y", curve)
                            .text());
            List<String> found = bench.sheet().captures().get("record").quantities().keySet().stream()
                    .filter(n -> !n.startsWith("fit_"))
                    .toList();
            assertThat(found).isNotEmpty();
            for (String q : found) {
                write(
                        bench,
                        Additions.quantity(
                                        bench.session().sheetText(), "", "all_" + q, "", "", "mean(record." + q + ")")
                                .text());
                assertThat(bench.reduction().quantity(new Key.Global("all_" + q)))
                        .as(q + ": "
                                + bench.reduction()
                                        .outcome(new Key.OfRun(1, "fit_y"))
                                        .problem())
                        .isPresent();
            }
            KeptMethod.Kept kept = KeptMethod.of(bench.reduction(), "kept", "Kept", "Own");
            assertThat(kept.remarks()).isEmpty();
            SheetReader.Located method = SheetTrial.read(kept.text(), "kept.yaml");
            assertThat(kept.text()).contains("truth:");
            assertThat(RehearsalTrial.look(method, 20, () -> false).problems())
                    .as(kept.text())
                    .isEmpty();
        }
    }

    @ParameterizedTest
    @ValueSource(strings = {"trolley-two-gates", "potters-wheel", "cooling-alloys", "counted-charge"})
    void aSessionOfAMethodIsKeptTooAndNothingOfItIsLost(String id) throws Exception {
        try (Workbench bench = new Workbench(BenchFile.open(Rehearsed.in(dir, id)), Clock.systemUTC())) {
            KeptMethod.Kept kept = KeptMethod.of(bench.reduction(), "kept", "Kept", "Own");
            SheetReader.Located method = SheetTrial.read(kept.text(), "kept.yaml");
            assertThat(method.sheet().results().keySet())
                    .containsExactlyElementsOf(bench.sheet().results().keySet());
            assertThat(kept.text().lines().filter(l -> l.contains("#")).toList())
                    .as("comments stay")
                    .isEqualTo(bench.session()
                            .sheetText()
                            .lines()
                            .filter(l -> l.contains("#"))
                            .toList());
            bench.session().measured().forEach((input, reading) -> {
                if (kept.remarks().stream().noneMatch(r -> r.contains(" " + input + " "))) {
                    assertThat(method.sheet().inputs().get(input).value()).isEqualTo(reading);
                }
            });
        }
    }

    @Test
    void aWindowThatWasMovedLiesThereInTheMethod() throws Exception {
        StringBuilder b = new StringBuilder("time (s),y (V)\n");
        for (int i = 0; i < 100; i++) {
            b.append(i).append(',').append(i < 50 ? i : 50).append('\n');
        }
        try (Workbench bench = open("bend", b.toString())) {
            Additions.Added w = Additions.window(bench.session().sheetText(), "record", "y");
            write(bench, w.text());
            write(
                    bench,
                    Additions.fit(w.text(), "record", "y", Additions.Curve.LINE).text());
            bench.apply(new ReducingCommand.SetWindow(1, w.name(), new Window(3, 44, "by hand")));
            Quantity slope =
                    bench.reduction().quantity(new Key.OfRun(1, "y_slope")).orElseThrow();
            assertThat(slope.value()).isCloseTo(1, within(1e-9));
            KeptMethod.Kept kept = KeptMethod.of(bench.reduction(), "kept", "Kept", "Own");
            assertThat(SheetTrial.read(kept.text(), "kept")
                            .sheet()
                            .captures()
                            .get("record")
                            .windows()
                            .get(w.name())
                            .from())
                    .isEqualTo("3 s");
            assertThat(kept.text()).contains("from: \"3 s\", to: \"44 s\"}").doesNotContain("propose: whole");
        }
    }

    /** Files as people have them: odd names, no units, columns that share a name, empty cells, other columns later. */
    @Test
    void filesAsTheyComeMakeGoodSheets() throws Exception {
        String[] files = {
            "time (s),V (V),V (V)\n0,1,2\n1,2,3\n2,3,4\n",
            "t,mean,pi\n0,1,2\n1,2,3\n2,3,4\n",
            "time (s);\u00e4u\u00dfere Temperatur (\u00b0C);%\n0;1;2\n1;2;3\n2;;4\n",
            "time (s),a \"quoted\" name,x: y # z\n0,1,2\n1,2,3\n2,3,4\n",
            "time (s),2nd (mV),on (furlongs)\n0,1,2\n1,2,3\n2,3,4\n",
            "time (s),huge (V)\n0,1e12\n1,2.5e12\n2,3e12\n",
            "time (s),constant (V)\n0,5\n1,5\n2,5\n",
            "time (s),tiny (A)\n0,1.5e-13\n1,2.5e-13\n2,-3e-13\n",
        };
        for (int i = 0; i < files.length; i++) {
            try (Workbench bench = open("odd" + i, files[i])) {
                assertThat(bench.session().keptRuns()).as(files[i]).hasSize(1);
                String channel = bench.sheet().channels().keySet().iterator().next();
                double[] seen = bench.reduction()
                        .trace(bench.session().keptRuns().get(0), channel)
                        .orElseThrow()
                        .value();
                double first = Double.parseDouble(files[i].split("\n")[1].split("[,;]")[1]);
                assertThat(seen[0]).as(files[i]).isCloseTo(first, within(Math.abs(first) * 1e-6));
                OpenBench.bring(
                        bench,
                        OpenBench.read(List.of(Files.writeString(
                                dir.resolve("more.csv"), "time (s),quite other (K)\n0,1\n1,2\n2,4\n"))));
                assertThat(bench.sheet().captures()).hasSize(2);
                KeptMethod.Kept kept = KeptMethod.of(bench.reduction(), "kept", "Kept", "Own");
                assertThat(SheetTrial.look(kept.text(), "kept").problems())
                        .as(kept.text())
                        .isEmpty();
            }
        }
    }
}
