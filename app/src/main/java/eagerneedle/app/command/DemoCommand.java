package eagerneedle.app.command;

import eagerneedle.app.window.NeedleApplication;
import eagerneedle.app.workbench.Demonstration;
import eagerneedle.app.workbench.Home;
import eagerneedle.app.workbench.LiveRig;
import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.store.bench.BenchFile;
import eagerneedle.store.bench.Recent;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.Set;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Parameters;

@Command(name = "demo", description = "Starts the program with the demonstration session of Tarn Hollow College.")
final class DemoCommand implements Callable<Integer> {
    @Parameters(
            paramLabel = "METHOD",
            arity = "0..1",
            defaultValue = "baggage-chute",
            description = "the id of a method that ships; the baggage chute without it")
    private String method;

    @Override
    public Integer call() throws Exception {
        SheetReader.shippedText(method);
        Path file = Home.folder().resolve("demo-" + method + ".needle");
        Files.createDirectories(Home.folder());
        Demonstration.simulate(method, LiveRig.BENCH_SEED, Set.of(), file);
        NeedleApplication.remembering(() -> Recent.at(Home.folder().resolve("recent.json")));
        NeedleApplication.launchOn(() -> new Workbench(BenchFile.open(file), Clock.systemUTC()), w -> {});
        return NeedleCommand.GOOD;
    }
}
