package eagerneedle.archive;

import eagerneedle.picture.SvgSurface;
import eagerneedle.store.FileName;
import eagerneedle.store.export.Beside;
import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.Optional;
import java.util.concurrent.Callable;
import org.jspecify.annotations.NullUnmarked;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(
        name = "ask",
        description =
                "Asks an archive: one of the ready questions (drift, results, overdue, findings, benches), or one SELECT.")
@NullUnmarked
final class AskCommand implements Callable<Integer> {
    private static final int SHOWN = 200;
    private static final double WIDTH = 820;

    @Parameters(index = "0", paramLabel = "ARCHIVE", description = "the archive")
    private Path archive;

    @Parameters(
            index = "1",
            arity = "0..1",
            paramLabel = "QUESTION",
            description = "without one, the tables are listed")
    private @Nullable String question;

    @Option(names = "-o", paramLabel = "OUT.csv|OUT.svg", description = "write the answer as a table or as a picture")
    private @Nullable Path output;

    @Option(names = "--rows", paramLabel = "N", description = "rows that are printed; 200 when not said")
    private int rows = SHOWN;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws IOException {
        PrintWriter out = spec.commandLine().getOut();
        Archive there = Archive.at(archive);
        if (question == null) {
            for (Question q : Question.values()) {
                out.println(q.title() + ": " + q.words());
            }
            Asking.tables().forEach((t, columns) -> out.println("table " + t + ": " + columns));
            return 0;
        }
        Optional<Question> ready = Question.named(question.strip());
        String sql = ready.map(q -> q.sql(LocalDate.now().toString())).orElse(question);
        try (Asking asking = new Asking(there)) {
            Answer a = asking.ask(sql, output == null ? rows : Integer.MAX_VALUE);
            if (output == null) {
                a.lines().forEach(out::println);
                if (!a.whole()) {
                    out.println("There is more; --rows N prints it, -o OUT.csv writes all of it.");
                }
            } else {
                write(a, ready, output);
                out.println("Wrote " + FileName.of(output) + ".");
            }
        }
        return 0;
    }

    private static void write(Answer a, Optional<Question> ready, Path to) throws IOException {
        String name = FileName.of(to);
        if (name.endsWith(".csv")) {
            Beside.write(to, a.csv());
        } else if (name.endsWith(".svg")) {
            Question q = ready.filter(x -> !x.drawn().isEmpty())
                    .orElseThrow(() -> new ArchiveException(
                            "A picture is drawn of drift, results, findings and benches; write this as .csv."));
            SvgSurface s = new SvgSurface(WIDTH, AnswerPicture.height(a, q), false, "a");
            AnswerPicture.paint(s, a, q, WIDTH);
            Beside.write(to, s.document(q.words()));
        } else {
            throw new ArchiveException("An answer is written as .csv or .svg.");
        }
    }
}
