package eagerneedle.app.command;

import eagerneedle.app.station.Station;
import eagerneedle.app.widget.Theme;
import eagerneedle.app.window.MainWindow;
import eagerneedle.app.window.NeedleApplication;
import eagerneedle.app.workbench.Demonstration;
import eagerneedle.app.workbench.LiveRig;
import eagerneedle.app.workbench.OpenBench;
import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.edit.Additions;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.session.SheetCommand;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.store.bench.BenchFile;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayDeque;
import java.util.Comparator;
import java.util.Deque;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.stream.Stream;
import javafx.animation.PauseTransition;
import javafx.application.Platform;
import javafx.scene.Scene;
import javafx.util.Duration;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(name = "shots", description = "One PNG of every main view from the demonstration data.")
final class ShotsCommand implements Callable<Integer> {
    @Parameters(paramLabel = "DIR")
    private Path folder;

    private static final int BENCHES = 8;
    private static final int ODD = 5;

    @Option(names = "--dark", description = "in the dark theme only")
    private boolean dark;

    @Option(names = "--size", defaultValue = "1280x800", description = "window size")
    private String size;

    @Override
    public Integer call() throws Exception {
        Files.createDirectories(folder);
        Path file = Files.createTempDirectory("needle-shots").resolve("demo.needle");
        Demonstration.simulate("baggage-chute", LiveRig.BENCH_SEED, Set.of(), file);
        Demonstration.simulate("drying-cabinet", LiveRig.BENCH_SEED, Set.of(), file.resolveSibling("cabinet.needle"));
        Demonstration.simulate("calibration-day", LiveRig.BENCH_SEED, Set.of(), file.resolveSibling("day.needle"));
        Demonstration.simulate("logging-day", LiveRig.BENCH_SEED, Set.of(), file.resolveSibling("logging.needle"));
        Demonstration.simulate("weather-vane-reed", LiveRig.BENCH_SEED, Set.of(), file.resolveSibling("reed.needle"));
        Demonstration.simulate("fading-dye", LiveRig.BENCH_SEED, Set.of(), file.resolveSibling("dye.needle"));
        DemonstrationClass.make(Objects.requireNonNull(file.getParent()));
        Deque<Runnable> steps = new ArrayDeque<>();
        NeedleApplication.launchOn(() -> new Workbench(BenchFile.open(file), Clock.systemUTC()), window -> {
            String[] wh = size.split("x");
            window.stage().setX(0);
            window.stage().setY(0);
            window.stage().setWidth(Double.parseDouble(wh[0]));
            window.stage().setHeight(Double.parseDouble(wh[1]));
            // Pictures are those of the usual size, whatever this user has chosen.
            Theme.textSize(100);
            Theme.dress(window.stage().getScene(), dark);
            for (Station s : Station.values()) {
                steps.add(() -> window.go(s));
                steps.add(() -> save(
                        window, (s.ordinal() + 1) + "-" + s.name().toLowerCase(Locale.ROOT) + (dark ? "-dark" : "")));
            }
            if (!dark) {
                steps.add(() -> {
                    Theme.dress(window.stage().getScene(), true);
                    window.go(Station.REDUCE);
                });
                steps.add(() -> save(window, "5-reduce-dark"));
                steps.add(() -> Theme.dress(window.stage().getScene(), false));
            }
            cabinet(steps, window, file.resolveSibling("cabinet.needle"));
            calibrations(steps, window, file.resolveSibling("day.needle"));
            ways(steps, window, file.resolveSibling("logging.needle"));
            methods(steps, window, file);
            steps.add(window::showStockroom);
            steps.add(() -> fire(window, "#stock-TH-CP-01"));
            steps.add(() -> save(window, "stockroom"));
            classroom(steps, window, file.resolveSibling("class"), file.resolveSibling("in.csv"));
            benches(steps, window, file.resolveSibling("benches"));
            steps.add(() -> components(false));
            steps.add(() -> components(true));
            next(steps, window);
        });
        try (Stream<Path> made = Files.walk(file.getParent())) {
            for (Path p : made.sorted(Comparator.reverseOrder()).toList()) {
                Files.delete(p);
            }
        }
        return NeedleCommand.GOOD;
    }

    /** A thermocouple line that is planned, with its time line. */
    private void cabinet(Deque<Runnable> steps, MainWindow window, Path file) {
        steps.add(() -> window.show(new Workbench(BenchFile.open(file), Clock.systemUTC())));
        steps.add(() -> save(window, "plan-cabinet"));
    }

    /** A calibration with a picture of its own: the closure map. */
    private void calibrations(Deque<Runnable> steps, MainWindow window, Path file) {
        steps.add(() -> {
            window.show(new Workbench(BenchFile.open(file), Clock.systemUTC()));
            window.go(Station.CALIBRATE);
        });
        steps.add(() -> fire(window, "#calibrate-tables"));
        steps.add(() -> save(window, "calibrate-closure"));
    }

    /** Prompted readings under way. */
    private void ways(Deque<Runnable> steps, MainWindow window, Path file) {
        steps.add(() -> window.show(new Workbench(BenchFile.open(file), Clock.systemUTC())));
        steps.add(() -> window.go(Station.RIG));
        steps.add(() -> fire(window, "#connect"));
        for (int i = 0; i < 4; i++) {
            steps.add(() -> {});
        }
        steps.add(() -> window.go(Station.CAPTURE));
        steps.add(() -> fire(window, "#level-fade-dye"));
        steps.add(() -> fire(window, "#start-stop"));
        for (int i = 0; i < 12; i++) {
            steps.add(() -> {});
        }
        steps.add(() -> save(window, "capture-prompted"));
    }

    /** Models side by side, a mistake tried on the real data, and where work begins. */
    private void methods(Deque<Runnable> steps, MainWindow window, Path file) {
        steps.add(() -> {
            window.show(new Workbench(BenchFile.open(file.resolveSibling("dye.needle")), Clock.systemUTC()));
            window.go(Station.REDUCE);
        });
        steps.add(() -> fire(window, "#sight-models"));
        steps.add(() -> save(window, "reduce-models"));
        steps.add(() -> {
            window.show(new Workbench(BenchFile.open(file.resolveSibling("reed.needle")), Clock.systemUTC()));
            window.go(Station.JUDGE);
        });
        steps.add(() -> fire(window, "#mistake-distance"));
        steps.add(() -> save(window, "judge-reed"));
        steps.add(window.aside()::desk);
        steps.add(() -> fire(window, "#side-equations"));
        steps.add(() -> save(window, "desk"));
        steps.add(() -> {
            window.show(tea(file.resolveSibling("tea.csv")));
            window.go(Station.REDUCE);
        });
        steps.add(() -> save(window, "open-bench"));
        steps.add(window::showStart);
        steps.add(() -> save(window, "start"));
    }

    /** A file that nobody wrote a sheet for, with a window and a fit put on its trace. */
    private static Workbench tea(Path csv) {
        StringBuilder b = new StringBuilder("time (s),tea (degC),room (degC)\n");
        for (int i = 0; i < 240; i++) {
            b.append(String.format(
                    Locale.ROOT,
                    "%d,%.2f,%.2f%n",
                    5 * i,
                    21.5 + 58 * Math.exp(-5 * i / 610.0) + 0.11 * Math.sin(i * i),
                    21.5 + 0.04 * Math.sin(3.0 * i * i)));
        }
        try {
            Files.writeString(csv, b);
            Path to = csv.resolveSibling("tea.needle");
            BenchFile.create(
                            to,
                            OpenBench.begun(
                                    "A cup of tea",
                                    "How fast does a cup of tea cool?",
                                    Clock.systemUTC().instant()))
                    .close();
            Workbench bench = new Workbench(BenchFile.open(to), Clock.systemUTC());
            OpenBench.bring(bench, OpenBench.read(List.of(csv)));
            String windowed = Additions.window(bench.session().sheetText(), "record", "tea")
                    .text();
            bench.apply(new SheetCommand.Write(
                    Additions.fit(windowed, "record", "tea", Additions.Curve.DECAY)
                            .text(),
                    "Fitted the tea."));
            return bench;
        } catch (java.io.IOException e) {
            throw new java.io.UncheckedIOException(e);
        }
    }

    /** A class that was marked, one of its numbers opened. */
    private void classroom(Deque<Runnable> steps, MainWindow window, Path folder, Path in) {
        steps.add(() -> window.aside()
                .classroom()
                .mark(folder, in, DemonstrationClass.PASSPHRASE)
                .join());
        for (int i = 0; i < 2; i++) {
            steps.add(() -> {});
        }
        steps.add(() -> fire(window, "#mark-5-2"));
        steps.add(() -> save(window, "classroom"));
    }

    /** Eight benches of one method held together, one with two gauges exchanged. */
    private void benches(Deque<Runnable> steps, MainWindow window, Path folder) {
        steps.add(() -> {
            SheetReader.Located sheet = SheetTrial.read(SheetReader.shippedText("signpost-arm"), "signpost-arm");
            try {
                Files.createDirectories(folder);
                for (int i = 1; i <= BENCHES; i++) {
                    Demonstration.simulate(
                            sheet,
                            i,
                            i == ODD ? Set.of("b-for-c") : Set.of(),
                            folder.resolve("bench " + i + ".needle"));
                }
            } catch (java.io.IOException e) {
                throw new java.io.UncheckedIOException(e);
            }
            window.aside().benches().read(folder).join();
        });
        for (int i = 0; i < 2; i++) {
            steps.add(() -> {});
        }
        steps.add(() -> {
            if (window.stage().getScene().lookup("#benches-folder") instanceof javafx.scene.control.TextField f) {
                f.setText("monday-benches");
            }
            save(window, "benches");
        });
    }

    private static void fire(MainWindow window, String id) {
        if (window.stage().getScene().lookup(id) instanceof javafx.scene.control.ButtonBase b) {
            b.fire();
        }
    }

    private static void next(Deque<Runnable> steps, MainWindow window) {
        PauseTransition wait = new PauseTransition(Duration.millis(450));
        wait.setOnFinished(e -> {
            if (steps.isEmpty()) {
                window.stage().close();
                Platform.exit();
            } else if (window.bench().planRehearsal().isRunning()
                    || window.dial().current() == Station.PLAN
                            && window.bench().planRehearsal().isDue()) {
                // A plan that is being carried out, or soon will be, is not yet what people look at.
                next(steps, window);
            } else {
                steps.poll().run();
                next(steps, window);
            }
        });
        wait.play();
    }

    /** The page of components that docs/look.md shows. */
    private void components(boolean inTheDark) {
        Scene scene = new Scene(ComponentSheet.make(), 1240, 690);
        Theme.dress(scene, inTheDark);
        save(scene, "look-" + (inTheDark ? "dark" : "light"));
        Theme.dress(scene, false);
    }

    private void save(MainWindow window, String name) {
        save(window.stage().getScene(), name);
    }

    private void save(Scene scene, String name) {
        try {
            eagerneedle.app.widget.Files.writePng(scene.snapshot(null), folder.resolve(name + ".png"));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
