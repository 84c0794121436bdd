package eagerneedle.app.command;

import eagerneedle.app.workbench.Home;
import eagerneedle.core.stockroom.Instrument;
import eagerneedle.core.stockroom.Merging;
import eagerneedle.store.FileName;
import eagerneedle.store.stockroom.Stockroom;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

@Command(
        name = "stockroom",
        description =
                "Lists the instruments of the laboratory and what stands against them; takes in what other machines "
                        + "wrote down.")
final class StockroomCommand implements Callable<Integer> {
    @Option(names = "--stockroom", paramLabel = "FILE", description = "another stockroom than the one of this machine")
    private @Nullable Path file;

    @Option(names = "--merge", paramLabel = "FILE.db|FILE.json", description = "take this one in; may be given often")
    private List<Path> others = List.of();

    @Option(names = "--json", description = "print all instruments as JSON")
    private boolean json;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() {
        Path own = file == null ? Home.stockroom() : file;
        if (others.isEmpty() && !Files.exists(own)) {
            throw new IllegalArgumentException("There is no stockroom " + FileName.of(own)
                    + " yet; bring instruments in at the stockroom of the window, or with --merge.");
        }
        PrintWriter out = spec.commandLine().getOut();
        try (Stockroom room = Stockroom.at(own)) {
            for (Path other : others) {
                Merging m = room.merge(other);
                m.says().forEach(out::println);
                out.println(FileName.of(other) + ": " + m.changed().size()
                        + (m.changed().size() == 1 ? " instrument is" : " instruments are")
                        + " new or know more of their history.");
            }
            if (json) {
                out.println(room.json());
            } else if (others.isEmpty()) {
                listed(room.all(), out);
            }
        }
        return NeedleCommand.GOOD;
    }

    private static void listed(List<Instrument> all, PrintWriter out) {
        Instant now = Clock.systemUTC().instant();
        for (Instrument i : all) {
            out.println(i.id() + "  " + i.name() + (i.place() == null ? "" : ", " + i.place()));
            i.objection(now).ifPresent(o -> out.println("  " + o));
        }
    }
}
