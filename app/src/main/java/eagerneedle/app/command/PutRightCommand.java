package eagerneedle.app.command;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import eagerneedle.app.classroom.ClassMarking;
import eagerneedle.app.classroom.FeedbackPages;
import eagerneedle.app.classroom.Gradebook;
import eagerneedle.app.classroom.MarkingBook;
import eagerneedle.app.classroom.StudentMarks;
import eagerneedle.app.day.FolderRight;
import eagerneedle.app.workbench.Home;
import eagerneedle.core.marking.Marked;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.stockroom.Correction;
import eagerneedle.store.classroom.ClassKey;
import eagerneedle.store.classroom.HandIns;
import eagerneedle.store.stockroom.Stockroom;
import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.temporal.ChronoUnit;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(
        name = "putright",
        description = "Puts a standard right that turned out wrong, over a folder of sessions: lists what moves, and "
                + "with --write does it. Marks follow.")
final class PutRightCommand implements Callable<Integer> {
    @Parameters(paramLabel = "FOLDER", description = "sessions, a class, or one bench file")
    private Path folder;

    @Option(names = "--standard", required = true, paramLabel = "SERIAL", description = "which standard was wrong")
    private String standard;

    @Option(names = "--times", paramLabel = "NUMBER", description = "what its value is multiplied by: \"1.0021(3)\"")
    private @Nullable String times;

    @Option(names = "--plus", paramLabel = "DIFFERENCE", description = "what is added to it: \"0.12(2) K\"")
    private @Nullable String plus;

    @Option(names = "--why", required = true, paramLabel = "TEXT", description = "why; every notebook keeps it")
    private String why;

    @Option(names = "--by", paramLabel = "NAME", description = "who says so; the user's name when not said")
    private String by = System.getProperty("user.name", "staff");

    @Option(
            names = "--at",
            paramLabel = "REFERENCE",
            description = "a reference that was of this standard, where a calibration referred to several")
    private List<String> at = List.of();

    @Option(names = "--write", description = "do it; without this nothing is changed")
    private boolean write;

    @Option(names = "--hand-ins", paramLabel = "FILE", description = "what the class handed in: marks that change")
    private @Nullable Path handIns;

    @Option(names = "--passphrase-file", paramLabel = "F", description = "opens the key of the class")
    private @Nullable Path passphrase;

    @Option(names = "--feedback", paramLabel = "DIR", description = "write the pages of the class again")
    private @Nullable Path feedback;

    @Option(names = "--json", description = "print JSON at full precision")
    private boolean json;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws IOException {
        if (feedback != null && (handIns == null || !write)) {
            throw new IllegalArgumentException(
                    "Pages are written again with --write, and from what was handed in: add --hand-ins FILE.");
        }
        Correction correction = new Correction(
                standard.strip(), times, plus, Clock.systemUTC().instant().truncatedTo(ChronoUnit.MILLIS), by, why);
        FolderRight all = FolderRight.look(folder, correction, at, (n, of) -> true);
        PrintWriter out = spec.commandLine().getOut();
        all.problems().forEach(spec.commandLine().getErr()::println);
        Map<Item, Marked> before = write && handIns != null ? items(marks()) : Map.of();
        if (write) {
            all.write();
        }
        if (json) {
            out.println(json(all));
        } else {
            said(all, out);
        }
        if (write && handIns != null) {
            ClassMarking.Marks marks = marks();
            MarkingBook book = MarkingBook.open(folder, Clock.systemUTC());
            told(before, items(marks), book, out);
            if (feedback != null) {
                int n = FeedbackPages.write(
                        new Gradebook(marks, book), book, feedback, false, Home.paper(), (i, of) -> true);
                out.println("Wrote the pages of " + n + " students again.");
            }
        }
        return all.problems().isEmpty() ? NeedleCommand.GOOD : NeedleCommand.CHECKS_FAILED;
    }

    private void said(FolderRight all, PrintWriter out) {
        for (FolderRight.Reached r : all.reached()) {
            out.println(all.relative(r.file()) + ": " + String.join("; ", r.parts()) + ".");
            r.seen().forEach(s -> out.println("  " + s + "."));
            r.verdicts().forEach(v -> out.println("  " + v + "."));
        }
        calibratedAgainst().forEach(out::println);
        out.println((write ? "Put right: " : "Would be put right: ")
                + sessions(all.reached().size()) + "; "
                + sessions(all.untouched().size()) + " had nothing to do with " + standard + "."
                + (write ? "" : " Nothing was changed; add --write to do it."));
    }

    /** Instruments of the laboratory whose last calibration was against that standard: nobody put those right. */
    private List<String> calibratedAgainst() {
        if (!Files.exists(Home.stockroom())) {
            return List.of();
        }
        try (Stockroom room = Stockroom.at(Home.stockroom())) {
            return room.all().stream()
                    .filter(i -> !i.retired()
                            && i.calibration()
                                    .filter(e -> e.what() != null
                                            && (" " + e.what() + " ").contains(" " + standard.strip() + " "))
                                    .isPresent())
                    .map(i -> i.name() + " " + i.id() + " was calibrated against " + standard
                            + ": calibrate it again, or put right what was read with it too.")
                    .toList();
        }
    }

    private static String sessions(int n) {
        return n + (n == 1 ? " session" : " sessions");
    }

    private ClassMarking.Marks marks() throws IOException {
        ClassMarking marking = ClassMarking.of(folder, passphrase == null ? null : ClassKey.passphrase(passphrase));
        return marking.mark(
                HandIns.read(Objects.requireNonNull(handIns), marking.about().students()), (n, of) -> true);
    }

    /** A number that a student was asked for. */
    private record Item(String student, String quantity) {}

    private static Map<Item, Marked> items(ClassMarking.Marks marks) {
        Map<Item, Marked> out = new LinkedHashMap<>();
        for (StudentMarks s : marks.students()) {
            s.items().forEach(m -> out.put(new Item(s.student().id(), m.quantity()), m));
        }
        return out;
    }

    /**
     * Marks that change. Who was right with the standard as it was given out stays right, since the mistake was ours;
     * the marker's notebook says so, and it can be overruled there.
     */
    private void told(Map<Item, Marked> before, Map<Item, Marked> now, MarkingBook book, PrintWriter out) {
        int changed = 0;
        for (Map.Entry<Item, Marked> e : now.entrySet()) {
            Item item = e.getKey();
            Marked was = before.get(item);
            Marked is = e.getValue();
            if (was == null || is.verdict() == was.verdict()) {
                continue;
            }
            String what = "Mark of " + item.student() + ", " + is.label() + ": ";
            if (was.verdict().isRightNumber() && !is.verdict().isRightNumber()) {
                if (book.overruled(item.student(), item.quantity()).isEmpty()) {
                    book.overrule(
                            item.student(),
                            item.quantity(),
                            was.verdict(),
                            "It was so with " + standard + " as it was given out.",
                            by);
                }
                out.println(what + was.verdict().words() + " with " + standard + " as it was given out, and stays so.");
            } else {
                out.println(what + was.verdict().words() + " becomes "
                        + is.verdict().words() + ".");
                changed++;
            }
        }
        out.println(changed == 0 ? "No mark changes." : changed + (changed == 1 ? " mark changes." : " marks change."));
    }

    private String json(FolderRight all) {
        ObjectNode root =
                new ObjectMapper().createObjectNode().put("standard", standard).put("written", write);
        ArrayNode sessions = root.putArray("sessions");
        for (FolderRight.Reached r : all.reached()) {
            ObjectNode one =
                    sessions.addObject().put("file", all.relative(r.file())).put("title", r.title());
            ArrayNode parts = one.putArray("corrected");
            r.parts().forEach(parts::add);
            ArrayNode moved = one.putArray("moved");
            for (FolderRight.Shift s : r.shifts()) {
                ObjectNode shift = moved.addObject().put("result", s.name()).put("label", s.label());
                s.was().ifPresent(q -> quantity(shift.putObject("was"), q));
                s.now().ifPresent(q -> quantity(shift.putObject("now"), q));
            }
            ArrayNode verdicts = one.putArray("verdicts");
            r.verdicts().forEach(verdicts::add);
        }
        ArrayNode untouched = root.putArray("untouched");
        all.untouched().forEach(f -> untouched.add(all.relative(f)));
        ArrayNode problems = root.putArray("problems");
        all.problems().forEach(problems::add);
        return root.toPrettyString();
    }

    private static void quantity(ObjectNode to, Quantity q) {
        to.put("value", q.value()).put("u", q.u()).put("unit", q.unit().symbol());
    }
}
