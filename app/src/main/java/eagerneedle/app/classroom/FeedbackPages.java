package eagerneedle.app.classroom;

import eagerneedle.core.marking.Explanation;
import eagerneedle.core.marking.Marked;
import eagerneedle.core.marking.Verdict;
import eagerneedle.core.quantity.Notation;
import eagerneedle.report.Feedback;
import eagerneedle.report.Paper;
import eagerneedle.store.classroom.ClassFolder;
import eagerneedle.store.classroom.ClassList;
import eagerneedle.store.export.Beside;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CancellationException;

/**
 * A page for each student, in kind words. While the work is open, what the data give is not told for what is not right
 * yet.
 */
public final class FeedbackPages {
    private FeedbackPages() {}

    /**
     * Writes HTML and PDF for everybody.
     *
     * @param closed true when nothing can be handed in again, so that the right values may be told
     * @throws IOException when they cannot be written
     */
    public static int write(
            Gradebook g, MarkingBook book, Path folder, boolean closed, Paper paper, ClassSet.Progress progress)
            throws IOException {
        Files.createDirectories(folder);
        int n = 0;
        for (StudentMarks s : g.students()) {
            Feedback.Page page = page(g, book, s, closed);
            String name = "feedback-" + ClassList.folder(s.student().id());
            String html = Feedback.html(page, paper);
            Beside.write(folder.resolve(name + ".html"), html);
            Beside.write(folder.resolve(name + ".pdf"), Feedback.pdf(page, paper));
            if (!progress.done(++n, g.students().size())) {
                throw new CancellationException("Stopped after " + n + " pages.");
            }
        }
        return n;
    }

    static Feedback.Page page(Gradebook g, MarkingBook book, StudentMarks s, boolean closed) {
        List<Feedback.Line> lines = new ArrayList<>();
        for (ClassFolder.Asked a : g.asked()) {
            Optional<Marked> m = g.item(s, a.quantity());
            Verdict v = g.verdict(s, a.quantity());
            Optional<MarkingBook.Line> own = book.overruled(s.student().id(), a.quantity());
            lines.add(new Feedback.Line(
                    a.label(),
                    m.map(x -> (x.handIn().value() + " " + x.handIn().unit()).strip())
                            .orElse(""),
                    title(v),
                    own.map(l -> String.valueOf(l.reason())).orElse(words(g, v, m, closed)),
                    v.isRightNumber(),
                    closed ? m.map(Marked::expected).map(Notation::bracket).orElse("") : "",
                    Notation.plain(g.points(s, a.quantity()), 3),
                    Notation.plain(book.points(a.quantity()), 3)));
        }
        return new Feedback.Page(
                g.marks().about().title(),
                s.student().name().isEmpty() ? s.student().id() : s.student().name(),
                lines,
                Notation.plain(g.total(s), 3),
                Notation.plain(g.most(), 3),
                book.late(s.student().id()).orElse(""));
    }

    private static String title(Verdict v) {
        return switch (v) {
            case RIGHT -> "Right";
            case ANOTHER_WAY -> "Right, by another way";
            case UNIT -> "The number is right";
            case POWER -> "Nearly";
            case DIGITS, UNCERTAINTY -> "Right number";
            case FOLLOWED -> "Rightly carried on";
            case EXPLAINED -> "Not yet";
            case UNEXPLAINED -> "Not yet";
            case MISSING -> "Still open";
        };
    }

    private static String words(Gradebook g, Verdict v, Optional<Marked> m, boolean closed) {
        List<String> notes = m.map(Marked::notes).orElse(List.of());
        return switch (v) {
            case RIGHT -> "This is what your data give.";
            case ANOTHER_WAY -> "The way you chose is a good one.";
            case UNIT -> "Look at its unit again: what do you multiply and divide on the way?";
            case POWER -> "Convert every unit before you multiply, and look at each power of ten.";
            case DIGITS -> "It has more digits than its uncertainty bears; round it.";
            case UNCERTAINTY -> notes.isEmpty() ? "Look at its uncertainty again." : notes.get(notes.size() - 1);
            case FOLLOWED ->
                "It follows from an earlier number that is not right yet, and you went on from there without a mistake: "
                        + labels(g, m) + ".";
            case EXPLAINED ->
                m.flatMap(x -> x.explanations().stream().findFirst())
                        .map(e -> cause(e, closed))
                        .orElse("Go through it once more from the beginning.");
            case UNEXPLAINED ->
                "Your data give something else. Go through it once more, step by step, with the units written beside.";
            case MISSING -> closed ? "Nothing was handed in for it." : "Hand it in when you have it.";
        };
    }

    private static String labels(Gradebook g, Optional<Marked> m) {
        return m.map(x -> x.followsFrom().stream()
                        .map(q -> g.asked().stream()
                                .filter(a -> a.quantity().equals(q))
                                .map(ClassFolder.Asked::label)
                                .findFirst()
                                .orElse(q))
                        .reduce((a, b) -> a + ", " + b)
                        .orElse(""))
                .orElse("");
    }

    /**
     * What may have happened; of data that are another's nothing is said on paper, that is for people to talk about.
     */
    private static String cause(Explanation e, boolean closed) {
        if (e.id().startsWith("data-")) {
            return "Make sure that it is your own data you reckoned with.";
        }
        if (!closed && e.givesAway()) {
            return "The way is good. Look at factors on it (diameter and radius, there and back, turns and radians,"
                    + " minutes and seconds), at signs, and at what stands above and below the line.";
        }
        return "It looks like this: " + e.label().substring(0, 1).toLowerCase(java.util.Locale.ROOT)
                + e.label().substring(1) + ". " + e.says();
    }
}
