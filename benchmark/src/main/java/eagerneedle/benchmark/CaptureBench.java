package eagerneedle.benchmark;

import com.sun.management.OperatingSystemMXBean;
import eagerneedle.app.station.Station;
import eagerneedle.app.window.MainWindow;
import eagerneedle.app.window.NeedleApplication;
import eagerneedle.app.workbench.LiveRig;
import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.Pyramid;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.rig.simulated.WaveStandIn;
import eagerneedle.store.bench.BenchFile;
import java.io.IOException;
import java.lang.management.ManagementFactory;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import javafx.animation.AnimationTimer;
import javafx.application.Platform;

/**
 * Sixteen channels of a hundred thousand samples a second for a minute, over loopback, with their traces drawn in the
 * window: what is lost, how smooth the window stays, how far it is behind. Then the run is opened, seen whole and
 * zoomed.
 */
public final class CaptureBench {
    private static final int CHANNELS = 16;
    private static final double RATE = 100_000;
    private final List<Double> gaps = new ArrayList<>();
    private final List<Double> behind = new ArrayList<>();
    /** How long the thread of the window and all threads together worked in each of the gaps, s. */
    private final List<double[]> spent = new ArrayList<>();

    private final OperatingSystemMXBean system = (OperatingSystemMXBean) ManagementFactory.getOperatingSystemMXBean();
    private double[] spentBefore = new double[2];
    private long last;

    private CaptureBench() {}

    private static String sheet(int port) {
        StringBuilder channels = new StringBuilder();
        List<String> names = new ArrayList<>();
        for (int c = 1; c <= CHANNELS; c++) {
            names.add("in" + c);
            channels.append("  in")
                    .append(c)
                    .append(": {label: input ")
                    .append(c)
                    .append(", unit: V, device: logger, rate: ")
                    .append((int) RATE)
                    .append(", chain: [{kind: converter, label: converter, from: V, range: [-10, 10], bits: 16, "
                            + "coding: signed}]}\n");
        }
        return "sheet: 1\nid: sixteen\ntitle: Sixteen channels\nsubject: Electricity\ndevices:\n  logger: "
                + "{label: Fast logger, driver: line, address: \"127.0.0.1:"
                + port + "\"}\nchannels:\n" + channels
                + "captures:\n  all:\n    label: All channels\n    mode: stream\n    channels: ["
                + String.join(", ", names) + "]\n    longest: 3600\n    levels: {once: {label: once}}\nresults: {}\n";
    }

    /** @param arguments seconds to capture, 60 when not said */
    public static void main(String[] arguments) throws Exception {
        System.setProperty("java.awt.headless", "true");
        double seconds = arguments.length > 0 ? Double.parseDouble(arguments[0]) : 60;
        Path folder = Files.createTempDirectory("needle-bench");
        Path file = folder.resolve("sixteen.needle");
        try (WaveStandIn logger = new WaveStandIn(CHANNELS)) {
            String text = sheet(logger.port());
            BenchFile.create(
                            file,
                            Session.start(text, "sixteen", Clock.systemUTC().instant()))
                    .close();
            new CaptureBench().capture(file, text, logger, seconds);
        }
        open(file);
        Files.deleteIfExists(file);
        System.exit(0);
    }

    private void capture(Path path, String text, WaveStandIn logger, double seconds)
            throws IOException, InterruptedException {
        boolean window = System.getenv("DISPLAY") != null;
        long[] result = new long[3];
        long cpu = ProcessHandle.current()
                .info()
                .totalCpuDuration()
                .map(java.time.Duration::toNanos)
                .orElse(0L);
        if (window) {
            NeedleApplication.launchOn(
                    () -> new Workbench(BenchFile.open(path), Clock.systemUTC()),
                    w -> inTheWindow(w, text, logger, seconds, result));
        } else {
            System.out.println("No display: captured without a window.");
            try (BenchFile file = BenchFile.open(path);
                    LiveRig rig = LiveRig.at(
                            SheetReader.read(text, "x").sheet(), "logger", "127.0.0.1:" + logger.port(), RATE)) {
                rig.record(rig.run(1, "all", "once", Clock.systemUTC().instant()), file);
                Thread.sleep((long) (seconds * 1000));
                result[0] = rig.finish();
                result[1] = logger.sent();
            }
        }
        long used = ProcessHandle.current()
                        .info()
                        .totalCpuDuration()
                        .map(java.time.Duration::toNanos)
                        .orElse(0L)
                - cpu;
        System.out.printf(
                "captured %d channels for %.0f s: %d samples of each kept, %d lost; %.2f cores used%n",
                CHANNELS, seconds, result[0], result[2], used / 1e9 / seconds);
        if (window && gaps.size() > 20) {
            double at = 0;
            double longest = 0;
            double then = 0;
            double[] did = new double[2];
            for (int i = 0; i < gaps.size(); i++) {
                double gap = gaps.get(i);
                at += gap;
                then = gap > longest ? at : then;
                did = gap > longest ? spent.get(i) : did;
                longest = Math.max(longest, gap);
            }
            double[] g = gaps.stream().mapToDouble(d -> d).sorted().toArray();
            double[] b = behind.stream().mapToDouble(d -> d).sorted().toArray();
            System.out.printf(
                    "window: %.1f frames a second, 95 %% of frames within %.0f ms, longest %.0f ms (%.1f s after the "
                            + "first; the window's thread worked %.0f ms of it, all threads %.0f ms); what is drawn is "
                            + "%.0f ms old (median), %.0f ms (95 %%)%n",
                    g.length / Arrays.stream(g).sum(),
                    1e3 * g[(int) (0.95 * g.length)],
                    1e3 * longest,
                    then,
                    1e3 * did[0],
                    1e3 * did[1],
                    1e3 * b[b.length / 2],
                    1e3 * b[(int) (0.95 * b.length)]);
        }
        long wrong = 0;
        try (BenchFile file = BenchFile.open(path)) {
            for (int c = 0; c < CHANNELS; c++) {
                long n = file.count(1, "in" + (c + 1));
                wrong += n == result[0] ? 0 : 1;
                for (double from = 0; from < n / RATE; from += 5) {
                    RawSamples part = file.samples(1, "in" + (c + 1), from, from + 5 - 0.5 / RATE);
                    for (int i = 0; i < part.size(); i++) {
                        long k = Math.round(part.time()[i] * RATE);
                        wrong += part.values()[i] == WaveStandIn.count(c, k) ? 0 : 1;
                    }
                }
            }
        }
        long size = Files.size(path);
        System.out.printf(
                "every kept sample compared with what was sent: %d differ; %.1f MB on disk, %.3g of two bytes a "
                        + "sample%n",
                wrong, size / 1e6, size / (2.0 * CHANNELS * result[0]));
    }

    private void inTheWindow(MainWindow w, String text, WaveStandIn logger, double seconds, long[] result) {
        Thread hands = new Thread(
                () -> {
                    try {
                        LiveRig rig = LiveRig.at(
                                SheetReader.read(text, "x").sheet(), "logger", "127.0.0.1:" + logger.port(), RATE);
                        onStage(() -> {
                            w.connect(rig);
                            w.go(Station.CAPTURE);
                        });
                        Thread.sleep(1500);
                        onStage(() -> ((javafx.scene.control.Button)
                                        w.stage().getScene().lookup("#start-stop"))
                                .fire());
                        AnimationTimer frames = new AnimationTimer() {
                            @Override
                            public void handle(long now) {
                                double[] spentNow = spent();
                                if (last > 0) {
                                    gaps.add((now - last) / 1e9);
                                    double[] difference = new double[spentNow.length];
                                    Arrays.setAll(difference, i -> spentNow[i] - spentBefore[i]);
                                    spent.add(difference);
                                    behind.add((logger.sent() - rig.count("in1")) / RATE);
                                }
                                spentBefore = spentNow;
                                last = now;
                            }
                        };
                        Thread.sleep(500);
                        onStage(frames::start);
                        Thread.sleep((long) (seconds * 1000));
                        onStage(frames::stop);
                        result[2] = rig.lost();
                        onStage(() -> ((javafx.scene.control.Button)
                                        w.stage().getScene().lookup("#start-stop"))
                                .fire());
                        result[0] = w.bench().file().count(1, "in1");
                        result[1] = logger.sent();
                        result[2] = rig.news().contains("could not be kept") ? Math.max(1, result[2]) : result[2];
                        onStage(() -> w.stage().close());
                        Platform.exit();
                    } catch (IOException | InterruptedException e) {
                        System.out.println("The capture failed: " + e.getMessage());
                        Platform.exit();
                    }
                },
                "hands");
        hands.setDaemon(true);
        hands.start();
    }

    /** Processor time of the window's thread and of all threads, s. */
    private double[] spent() {
        return new double[] {
            ManagementFactory.getThreadMXBean().getCurrentThreadCpuTime() / 1e9, system.getProcessCpuTime() / 1e9
        };
    }

    private static void onStage(Runnable act) throws InterruptedException {
        java.util.concurrent.CountDownLatch done = new java.util.concurrent.CountDownLatch(1);
        Platform.runLater(() -> {
            act.run();
            done.countDown();
        });
        done.await();
    }

    private static void open(Path path) {
        long t0 = System.nanoTime();
        try (BenchFile file = BenchFile.open(path)) {
            List<Pyramid> all = new ArrayList<>();
            for (int c = 1; c <= CHANNELS; c++) {
                all.add(file.overview(1, "in" + c));
            }
            long samples = all.stream().mapToLong(Pyramid::samples).sum();
            int bins = all.stream()
                    .mapToInt(p -> p.over(p.start(), p.end(), 1280).size())
                    .sum();
            double opened = (System.nanoTime() - t0) / 1e9;
            t0 = System.nanoTime();
            RawSamples one = file.samples(1, "in1");
            double plain = (System.nanoTime() - t0) / 1e9 * CHANNELS;
            System.out.printf(
                    "opened %d samples and saw them whole in %.3f s (%d bins); unpacking them all would take "
                            + "%.2f s, ratio %.3g%n",
                    samples, opened, bins, plain, opened / plain);
            t0 = System.nanoTime();
            int views = 400;
            for (int i = 0; i < views; i++) {
                double width = Math.pow(10, -2 + 3 * i / (double) views);
                double from = (all.get(0).end() - width) * ((i * 37 % 100) / 100.0);
                if (width * RATE < 20_000) {
                    file.samples(1, "in1", from, from + width);
                } else {
                    all.get(0).over(from, from + width, 1280);
                }
            }
            double view = (System.nanoTime() - t0) / 1e9 / views;
            t0 = System.nanoTime();
            double low = 0;
            for (double v : one.values()) {
                low = Math.min(low, v);
            }
            double loop = (System.nanoTime() - t0) / 1e9;
            System.out.printf(
                    "one step of zoom: %.2f ms; a plain loop over all %d samples of the channel %.2f ms, ratio "
                            + "%.3g (least %.0f)%n",
                    1e3 * view, one.size(), 1e3 * loop, view / loop, low);
        }
    }
}
