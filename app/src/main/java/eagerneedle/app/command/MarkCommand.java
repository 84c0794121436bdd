package eagerneedle.app.command;

import eagerneedle.app.classroom.ClassMarking;
import eagerneedle.app.classroom.FeedbackPages;
import eagerneedle.app.classroom.Gradebook;
import eagerneedle.app.classroom.MarkingBook;
import eagerneedle.app.classroom.MarksJson;
import eagerneedle.app.classroom.StudentMarks;
import eagerneedle.app.workbench.Home;
import eagerneedle.core.marking.Marked;
import eagerneedle.core.quantity.DecimalSign;
import eagerneedle.store.classroom.ClassKey;
import eagerneedle.store.classroom.GradeTable;
import eagerneedle.store.classroom.HandIns;
import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.time.Clock;
import java.util.concurrent.Callable;
import java.util.stream.Collectors;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(
        name = "mark",
        description = "Holds what a class handed in against what each student's own data give: right, right by another "
                + "way, wrong and by which mistake, or following from an earlier number.")
final class MarkCommand implements Callable<Integer> {
    @Parameters(paramLabel = "DIR", description = "the folder that classset made, or one of bench files")
    private Path folder;

    @Option(
            names = "--hand-ins",
            required = true,
            paramLabel = "FILE",
            description = "CSV with student, quantity, value, u, unit; or a folder of forms or bench files")
    private Path handIns;

    @Option(names = "--passphrase-file", paramLabel = "F", description = "opens the key, which has the mistakes")
    private Path passphrase;

    @Option(names = "--json", description = "print JSON at full precision")
    private boolean json;

    @Option(names = "--table", paramLabel = "OUT.csv|OUT.xlsx", description = "write the table of the class")
    private Path table;

    @Option(names = "--feedback", paramLabel = "DIR", description = "write a page for each student, HTML and PDF")
    private Path feedback;

    @Option(names = "--closed", description = "on those pages, tell what the data give: nothing can be handed in again")
    private boolean closed;

    private static final int MOST_TOLD = 8;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws IOException {
        DecimalSign.use(Home.decimal());
        ClassMarking marking = ClassMarking.of(folder, passphrase == null ? null : ClassKey.passphrase(passphrase));
        HandIns in = HandIns.read(handIns, marking.about().students());
        ClassMarking.Marks marks = marking.mark(in, (n, of) -> true);
        PrintWriter out = spec.commandLine().getOut();
        in.problems().stream()
                .limit(MOST_TOLD)
                .forEach(p -> spec.commandLine().getErr().println(p));
        if (in.problems().size() > MOST_TOLD) {
            spec.commandLine()
                    .getErr()
                    .println("And " + (in.problems().size() - MOST_TOLD) + " more files like these.");
        }
        written(marks);
        if (json) {
            out.println(MarksJson.of(marks));
            return NeedleCommand.GOOD;
        }
        for (StudentMarks s : marks.students()) {
            out.println(s.student().id()
                    + (s.student().name().isEmpty() ? "" : ", " + s.student().name()));
            s.items().forEach(m -> out.println("  " + line(m)));
            s.remarks().forEach(r -> out.println("  " + r));
        }
        marks.shared().forEach(p -> out.println(p.says()));
        return NeedleCommand.GOOD;
    }

    private void written(ClassMarking.Marks marks) throws IOException {
        if (table == null && feedback == null) {
            return;
        }
        MarkingBook book = MarkingBook.open(folder, Clock.systemUTC());
        Gradebook grades = new Gradebook(marks, book);
        if (table != null) {
            GradeTable.write(grades.head(), grades.rows(), table);
        }
        if (feedback != null) {
            FeedbackPages.write(grades, book, feedback, closed, Home.paper(), (n, of) -> true);
        }
    }

    private static String line(Marked m) {
        String by = m.explanations().stream().map(e -> e.label()).collect(Collectors.joining("; or "));
        String given = m.handIn().value().isBlank()
                ? ""
                : " " + (m.handIn().value() + " " + m.handIn().unit()).strip();
        return m.label() + given + ": " + m.verdict().words()
                + (by.isEmpty() ? "" : ": " + by)
                + (m.followsFrom().isEmpty() ? "" : " (" + String.join(", ", m.followsFrom()) + ")")
                + (m.notes().isEmpty() ? "." : ". " + String.join(" ", m.notes()));
    }
}
