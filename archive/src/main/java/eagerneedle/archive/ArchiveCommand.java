package eagerneedle.archive;

import eagerneedle.store.FileName;
import java.io.IOException;
import java.io.PrintWriter;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.List;
import java.util.concurrent.Callable;
import org.jspecify.annotations.NullUnmarked;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(
        name = "archive",
        description =
                "Takes folders of sessions into an archive of all years; only what is new. Deletes a person for good.")
@NullUnmarked
final class ArchiveCommand implements Callable<Integer> {
    @Parameters(paramLabel = "DIR", arity = "0..*", description = "folders of sessions, or of a class")
    private List<Path> folders = List.of();

    @Option(
            names = "--into",
            required = true,
            paramLabel = "ARCHIVE",
            description = "the archive; made where there is none")
    private Path into;

    @Option(names = "--stockroom", paramLabel = "FILE.db", description = "take the history of its instruments too")
    private @Nullable Path stockroom;

    @Option(names = "--called-after-students", description = "bench files are called after who worked with them")
    private boolean byFile;

    @Option(names = "--without-samples", description = "leave raw samples in the bench files")
    private boolean withoutSamples;

    @Option(names = "--years", paramLabel = "N", description = "how long pseudonyms are kept; 6 when not said")
    private int years = 6;

    @Option(names = "--forget", paramLabel = "NAME", description = "delete a person and what they did alone, for good")
    private List<String> forget = List.of();

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws IOException {
        PrintWriter out = spec.commandLine().getOut();
        if (years < 1 || years > 100) {
            throw new ArchiveException("Pseudonyms are kept from 1 to 100 years.");
        }
        for (Path f : folders) {
            if (!Files.isDirectory(f)) {
                throw new ArchiveException("There is no folder " + FileName.of(f) + ".");
            }
        }
        Archive archive = forget.isEmpty() ? Archive.made(into) : Archive.at(into);
        FileChannel held = archive.held();
        try {
            People people = People.of(archive.folder());
            for (String name : forget) {
                // First whom not to take again, so that a run that is stopped here loses nothing of the promise.
                people.forget(people.pseudonym(name));
                int n = new Forgetting(archive).person(people.pseudonym(name));
                out.println(
                        n == 0
                                ? "Nobody of that name was in the archive; they will not be taken in either."
                                : "Deleted from " + n + (n == 1 ? " session." : " sessions."));
            }
            Archiving all = new Archiving(archive, people, years, !withoutSamples);
            if (!folders.isEmpty() || stockroom != null) {
                take(all, out);
            }
            int over = new Forgetting(archive).expired(LocalDate.now());
            if (over > 0) {
                out.println("The pseudonyms of " + over + (over == 1 ? " session" : " sessions")
                        + " were deleted: their time is over.");
            }
            return all.problems().isEmpty() ? 0 : 1;
        } finally {
            held.close();
        }
    }

    private void take(Archiving all, PrintWriter out) throws IOException {
        all.take(folders, byFile, stockroom, (n, of) -> {
            if (n > 0 && n % 100 == 0) {
                spec.commandLine().getErr().println(n + " of " + of + " ...");
            }
            return true;
        });
        all.problems().forEach(spec.commandLine().getErr()::println);
        out.println("Taken in: " + all.taken() + "; there already: " + all.known() + "; left: "
                + all.problems().size() + ".");
    }
}
