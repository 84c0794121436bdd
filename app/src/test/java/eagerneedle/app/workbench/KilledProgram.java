package eagerneedle.app.workbench;

import eagerneedle.core.session.RecordCommand;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.rig.driver.Driver;
import eagerneedle.store.bench.BenchFile;
import java.nio.file.Path;
import java.time.Clock;
import java.util.Map;

/**
 * A program that captures and edits until it is killed; it says on its output what it has taken in and what it was told
 * is kept.
 */
final class KilledProgram {
    private static final int RATE = 10_000;

    private KilledProgram() {}

    /** @param args the bench file to make */
    public static void main(String[] args) throws InterruptedException {
        BenchFile file = BenchFile.create(
                Path.of(args[0]),
                Session.start(
                        SheetReader.shippedText("baggage-chute"),
                        "killed",
                        Clock.systemUTC().instant()));
        Workbench bench = new Workbench(file, Clock.systemUTC());
        Run run = Run.captured(1, "slopes", "A", Clock.systemUTC().instant(), "ranger", Run.COUNTS);
        file.begin(run);
        long[] kept = new long[1];
        RunRecorder recorder = new RunRecorder(
                1,
                (r, samples) -> {
                    file.append(r, samples);
                    kept[0] += samples.get("position").size();
                    say("kept " + kept[0]);
                },
                Map.of("position", 0),
                0,
                24_000_000);
        say("ready");
        long start = System.nanoTime();
        long taken = 0;
        for (int act = 1; ; act++) {
            long due = (System.nanoTime() - start) * RATE / 1_000_000_000L;
            int n = (int) (due - taken);
            if (n > 0) {
                double[] t = new double[n];
                double[][] v = new double[1][n];
                for (int i = 0; i < n; i++) {
                    t[i] = (taken + i) * 100 / 1e6;
                    v[0][i] = (taken + i) * 7919 % 10_007;
                }
                recorder.take(new Driver.Block(t, v));
                taken += n;
                say("samples " + taken);
            }
            bench.apply(new RecordCommand.AddNote(Clock.systemUTC().instant(), "note " + act));
            say("act " + act);
            Thread.sleep(5);
        }
    }

    private static synchronized void say(String line) {
        System.out.println(line);
        System.out.flush();
    }
}
