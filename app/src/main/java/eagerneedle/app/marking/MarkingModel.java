package eagerneedle.app.marking;

import eagerneedle.app.classroom.ClassMarking;
import eagerneedle.app.classroom.ClassSet;
import eagerneedle.app.classroom.FeedbackPages;
import eagerneedle.app.classroom.Gradebook;
import eagerneedle.app.classroom.MarkingBook;
import eagerneedle.app.classroom.StudentMarks;
import eagerneedle.app.workbench.Home;
import eagerneedle.core.marking.Explanation;
import eagerneedle.core.marking.Marked;
import eagerneedle.core.marking.Verdict;
import eagerneedle.core.quantity.Notation;
import eagerneedle.store.FileName;
import eagerneedle.store.classroom.ClassFolder;
import eagerneedle.store.classroom.GradeTable;
import eagerneedle.store.classroom.HandIns;
import java.io.IOException;
import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/** A class being marked: what is shown and what may be done, without a window. */
final class MarkingModel {
    /** One number of one student. */
    record Cell(int student, int quantity) {}

    private static final double SURE = 1000;

    private final Clock clock;
    private @Nullable Path folder;
    private @Nullable MarkingBook book;
    private @Nullable Gradebook grades;
    private List<String> problems = List.of();
    private boolean hidden;
    private String marker = "";

    MarkingModel(Clock clock) {
        this.clock = clock;
    }

    /** A class that was marked, not shown yet. */
    record Loaded(Path folder, MarkingBook book, Gradebook grades, List<String> problems) {}

    /**
     * Marks a class; may take a minute, and changes nothing here, so that any thread may do it.
     *
     * @param passphrase empty for none
     * @throws IllegalArgumentException with one sentence where it cannot be
     */
    Loaded mark(Path classFolder, Path handIns, String passphrase, ClassSet.Progress progress) {
        ClassMarking marking = ClassMarking.of(classFolder, passphrase.isEmpty() ? null : passphrase.toCharArray());
        HandIns in = HandIns.read(handIns, marking.about().students());
        MarkingBook opened = MarkingBook.open(classFolder, clock);
        return new Loaded(classFolder, opened, new Gradebook(marking.mark(in, progress), opened), in.problems());
    }

    /** Shows a class that was marked. */
    void show(Loaded loaded) {
        folder = loaded.folder();
        book = loaded.book();
        grades = loaded.grades();
        problems = loaded.problems();
    }

    boolean isMarked() {
        return grades != null;
    }

    private Gradebook grades() {
        return Objects.requireNonNull(grades);
    }

    private MarkingBook book() {
        return Objects.requireNonNull(book);
    }

    String title() {
        return grades().marks().about().title();
    }

    String place() {
        return folder == null ? "" : FileName.of(folder);
    }

    List<ClassFolder.Asked> asked() {
        return grades().asked();
    }

    int students() {
        return grades().students().size();
    }

    StudentMarks student(int i) {
        return grades().students().get(i);
    }

    void hideNames(boolean now) {
        hidden = now;
    }

    void marker(String name) {
        marker = name.strip();
    }

    /** Who it is; a number while names are hidden. */
    String name(int i) {
        if (hidden) {
            return "Student " + (i + 1);
        }
        var s = student(i).student();
        return s.name().isEmpty() ? s.id() : s.name();
    }

    Verdict verdict(Cell c) {
        return grades().verdict(student(c.student()), asked().get(c.quantity()).quantity());
    }

    /** A cell in a word or two. */
    String words(Cell c) {
        return switch (verdict(c)) {
            case RIGHT -> "right";
            case ANOTHER_WAY -> "other way";
            case UNIT -> "unit";
            case POWER -> "power of ten";
            case DIGITS -> "digits";
            case UNCERTAINTY -> "uncertainty";
            case FOLLOWED -> "follows";
            case EXPLAINED -> cause(c);
            case UNEXPLAINED -> "unexplained";
            case MISSING -> "–";
        };
    }

    private String cause(Cell c) {
        return item(c).flatMap(m -> m.explanations().stream().findFirst())
                .map(Explanation::label)
                .orElse("explained");
    }

    /** True where the marker overruled the program, or looked and agreed. */
    boolean isSettled(Cell c) {
        return book().isSettled(id(c), quantity(c));
    }

    boolean isOverruled(Cell c) {
        return book().overruled(id(c), quantity(c)).isPresent();
    }

    Optional<Marked> item(Cell c) {
        return grades().item(student(c.student()), quantity(c));
    }

    private String id(Cell c) {
        return student(c.student()).student().id();
    }

    private String quantity(Cell c) {
        return asked().get(c.quantity()).quantity();
    }

    /** A heading with what stands below it. */
    record Part(String head, List<String> lines) {}

    /** All there is to say of one number. */
    List<Part> detail(Cell c) {
        List<Part> out = new ArrayList<>();
        Optional<Marked> m = item(c);
        String given = m.map(x -> x.handIn().value()
                        + (x.handIn().u().isEmpty() ? "" : " ± " + x.handIn().u())
                        + " " + x.handIn().unit())
                .orElse("")
                .strip();
        out.add(new Part("Handed in", List.of(given.isEmpty() ? "nothing" : given)));
        out.add(new Part(
                "The student's own data give",
                List.of(m.map(Marked::expected).map(Notation::bracket).orElse("nothing"))));
        out.add(new Part("Verdict", List.of(verdict(c).words())));
        book().overruled(id(c), quantity(c))
                .ifPresent(l -> out.add(new Part(
                        "Overruled" + (l.by() == null || l.by().isEmpty() ? "" : " by " + l.by()),
                        List.of(
                                String.valueOf(l.reason()),
                                "The program: "
                                        + m.map(x -> x.verdict().words()).orElse("")))));
        book().secondView(id(c), quantity(c))
                .ifPresent(l -> out.add(new Part(
                        "A second marker" + (l.by() == null || l.by().isEmpty() ? "" : ", " + l.by()),
                        List.of(Verdict.of(String.valueOf(l.value())).words() + ": " + l.reason()))));
        m.filter(x -> !x.explanations().isEmpty())
                .ifPresent(x -> out.add(new Part(
                        x.explanations().size() == 1 ? "What explains it" : "What may explain it, likeliest first",
                        x.explanations().stream().map(MarkingModel::words).toList())));
        m.filter(x -> !x.followsFrom().isEmpty())
                .ifPresent(x -> out.add(new Part(
                        "It follows from",
                        x.followsFrom().stream().map(this::label).toList())));
        m.filter(x -> !x.notes().isEmpty()).ifPresent(x -> out.add(new Part("", x.notes())));
        List<String> remarks = student(c.student()).remarks();
        if (!remarks.isEmpty()) {
            out.add(new Part("This hand-in", remarks));
        }
        return out;
    }

    private String label(String quantity) {
        return asked().stream()
                .filter(a -> a.quantity().equals(quantity))
                .map(ClassFolder.Asked::label)
                .findFirst()
                .orElse(quantity);
    }

    private static String words(Explanation e) {
        String odds = e.nearness() >= SURE
                ? "coincidence is more than a thousand times less likely"
                : "coincidence is " + Notation.sentence("%.0f", e.nearness()) + " times less likely";
        return e.label() + ". " + e.says() + (e.says().isEmpty() ? "" : " ") + "(" + odds + ")";
    }

    void overrule(Cell c, Verdict v, String reason) {
        book().overrule(id(c), quantity(c), v, reason, marker);
    }

    void agree(Cell c) {
        book().agree(id(c), quantity(c), marker);
    }

    void second(Cell c, Verdict v, String reason) {
        book().second(id(c), quantity(c), v, reason, marker);
    }

    void late(int student, String how) {
        book().late(student(student).student().id(), how);
    }

    String late(int student) {
        return book().late(student(student).student().id()).orElse("");
    }

    void points(int quantity, String points) {
        book().points(asked().get(quantity).quantity(), points);
    }

    String points(int quantity) {
        return Notation.plain(book().points(asked().get(quantity).quantity()), 3);
    }

    String total(int student) {
        return Notation.plain(grades().total(student(student)), 3);
    }

    String most() {
        return Notation.plain(grades().most(), 3);
    }

    /** What share of the points a number of this verdict earns. */
    String credit(Cell c) {
        return Notation.plain(book().credits().getOrDefault(verdict(c), 0.0), 3);
    }

    void credit(Cell c, String share) {
        book().credit(verdict(c), share);
    }

    boolean canUndo() {
        return book != null && book().canUndo();
    }

    boolean canRedo() {
        return book != null && book().canRedo();
    }

    String undo() {
        return book().undo();
    }

    String redo() {
        return book().redo();
    }

    /** What the class as a whole got wrong, whose digits agree, and what could not be read. */
    List<Part> classWide() {
        List<Part> out = new ArrayList<>();
        List<String> wrong = grades().classWide();
        out.add(new Part(
                "What the class got wrong", wrong.isEmpty() ? List.of("Nothing: everything is right.") : wrong));
        if (!hidden && !grades().marks().shared().isEmpty()) {
            out.add(new Part(
                    "Same digits from different data",
                    grades().marks().shared().stream().map(p -> p.says()).toList()));
        }
        if (!problems.isEmpty()) {
            out.add(new Part("Could not be read", problems));
        }
        return out;
    }

    void table(Path to) throws IOException {
        GradeTable.write(grades().head(), grades().rows(), to);
    }

    int feedback(Path to, boolean closed, ClassSet.Progress progress) throws IOException {
        return FeedbackPages.write(grades(), book(), to, closed, Home.paper(), progress);
    }
}
