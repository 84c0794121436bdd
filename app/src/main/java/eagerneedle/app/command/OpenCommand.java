package eagerneedle.app.command;

import eagerneedle.app.NeedleApplication;
import eagerneedle.app.bench.Workbench;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.store.bench.BenchFile;
import eagerneedle.store.stockroom.Stockroom;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Parameters;

@Command(name = "open", description = "Starts the program on a bench file or a method sheet.")
final class OpenCommand implements Callable<Integer> {
    @Parameters(paramLabel = "FILE", description = "a bench file (.needle), a sheet (.yaml), or the id of a method that ships")
    private Path file;

    @Override
    public Integer call() {
        NeedleApplication.with(() -> Stockroom.at(Sessions.home().resolve("stockroom.db")));
        Workbench bench = new Workbench(benchFile(), Clock.systemUTC());
        NeedleApplication.launchOn(() -> bench, w -> { });
        return NeedleCommand.GOOD;
    }

    private BenchFile benchFile() {
        String name = file.getFileName().toString();
        if (SheetReader.shipped().contains(name) && !Files.exists(file)) {
            return fresh(SheetReader.read(SheetReader.shippedText(name), name));
        }
        if (!name.endsWith(".yaml") && !name.endsWith(".yml")) {
            return BenchFile.open(file);
        }
        return fresh(Sessions.sheet(file));
    }

    private static BenchFile fresh(SheetReader.Located sheet) {
        Path to = Sessions.home().resolve(sheet.sheet().id() + ".needle");
        for (int i = 2; Files.exists(to); i++) {
            to = Sessions.home().resolve(sheet.sheet().id() + "-" + i + ".needle");
        }
        return BenchFile.create(to, Session.start(sheet.text(), sheet.sheet().title(), Clock.systemUTC().instant()));
    }
}
