package eagerneedle.app.command;

import eagerneedle.app.window.NeedleApplication;
import eagerneedle.app.workbench.Home;
import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.store.FileName;
import eagerneedle.store.bench.BenchFile;
import eagerneedle.store.bench.Recent;
import eagerneedle.store.stockroom.Stockroom;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Parameters;

@Command(name = "open", description = "Starts the program on a bench file, a method sheet, or the start page.")
final class OpenCommand implements Callable<Integer> {
    @Parameters(
            paramLabel = "FILE",
            arity = "0..1",
            description = "a bench file (.needle), a sheet (.yaml), or the id of a method that ships; the start page "
                    + "without it")
    private @Nullable Path file;

    @Override
    public Integer call() {
        NeedleApplication.with(() -> Stockroom.at(Home.stockroom()));
        NeedleApplication.remembering(() -> Recent.at(Home.folder().resolve("recent.json")));
        if (file == null) {
            NeedleApplication.launchOn(null, w -> {});
            return NeedleCommand.GOOD;
        }
        BenchFile opened = benchFile(file);
        NeedleApplication.launchOn(() -> new Workbench(opened, Clock.systemUTC()), w -> {});
        return NeedleCommand.GOOD;
    }

    private static BenchFile benchFile(Path file) {
        String name = FileName.of(file);
        if (SheetReader.shipped().contains(name) && !Files.exists(file)) {
            return Home.begin(
                    SheetReader.read(SheetReader.shippedText(name), name),
                    Clock.systemUTC().instant());
        }
        if (!name.endsWith(".yaml") && !name.endsWith(".yml")) {
            return BenchFile.open(file);
        }
        return Home.begin(Sessions.sheet(file), Clock.systemUTC().instant());
    }
}
