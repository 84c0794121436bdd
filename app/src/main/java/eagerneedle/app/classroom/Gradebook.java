package eagerneedle.app.classroom;

import eagerneedle.core.marking.Explanation;
import eagerneedle.core.marking.Marked;
import eagerneedle.core.marking.Verdict;
import eagerneedle.store.classroom.ClassFolder;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/** Marks together with what the marker decided: what each student has, and what the class as a whole got wrong. */
public final class Gradebook {
    private final ClassMarking.Marks marks;
    private final MarkingBook book;

    public Gradebook(ClassMarking.Marks marks, MarkingBook book) {
        this.marks = marks;
        this.book = book;
    }

    public List<ClassFolder.Asked> asked() {
        return marks.about().asked();
    }

    public List<StudentMarks> students() {
        return marks.students();
    }

    public ClassMarking.Marks marks() {
        return marks;
    }

    public Optional<Marked> item(StudentMarks s, String quantity) {
        return s.items().stream().filter(m -> m.quantity().equals(quantity)).findFirst();
    }

    /** The verdict that stands: the marker's where there is one. */
    public Verdict verdict(StudentMarks s, String quantity) {
        return book.overruled(s.student().id(), quantity)
                .map(l -> Verdict.of(String.valueOf(l.value())))
                .or(() -> item(s, quantity).map(Marked::verdict))
                .orElse(Verdict.MISSING);
    }

    public double points(StudentMarks s, String quantity) {
        return book.points(quantity) * book.credits().getOrDefault(verdict(s, quantity), 0.0);
    }

    public double total(StudentMarks s) {
        return asked().stream().mapToDouble(a -> points(s, a.quantity())).sum();
    }

    public double most() {
        return asked().stream().mapToDouble(a -> book.points(a.quantity())).sum();
    }

    /** The first row of the table. */
    public List<String> head() {
        List<String> out = new ArrayList<>(List.of("id", "name", "group"));
        asked().forEach(a -> {
            out.add(a.quantity());
            out.add(a.quantity() + " points");
        });
        out.addAll(List.of("total", "of", "late"));
        return out;
    }

    /** A row for each student, by id, as a gradebook takes them. */
    public List<List<Object>> rows() {
        return students().stream()
                .map(s -> {
                    List<Object> row = new ArrayList<>(List.of(
                            s.student().id(), s.student().name(), s.student().group()));
                    asked().forEach(a -> {
                        row.add(verdict(s, a.quantity()).id());
                        row.add(rounded(points(s, a.quantity())));
                    });
                    row.add(rounded(total(s)));
                    row.add(rounded(most()));
                    row.add(book.late(s.student().id()).orElse(""));
                    return row;
                })
                .toList();
    }

    private static double rounded(double v) {
        return Math.round(v * 100) / 100.0;
    }

    /** What the class as a whole got wrong, most frequent first. */
    public List<String> classWide() {
        List<String> out = new ArrayList<>();
        int n = students().size();
        for (ClassFolder.Asked a : asked()) {
            Map<String, Integer> causes = new LinkedHashMap<>();
            int wrong = 0;
            int missing = 0;
            for (StudentMarks s : students()) {
                Verdict v = verdict(s, a.quantity());
                missing += v == Verdict.MISSING ? 1 : 0;
                if (!v.isRightNumber() && v != Verdict.MISSING) {
                    wrong++;
                    String cause = v == Verdict.EXPLAINED
                            ? item(s, a.quantity())
                                    .flatMap(m -> m.explanations().stream().findFirst())
                                    .map(Explanation::label)
                                    .orElse(v.words())
                            : v.words();
                    causes.merge(cause, 1, Integer::sum);
                }
            }
            if (wrong + missing > 0) {
                List<String> parts = new ArrayList<>();
                causes.entrySet().stream()
                        .sorted(Map.Entry.<String, Integer>comparingByValue().reversed())
                        .limit(3)
                        .forEach(e -> parts.add(e.getValue() + " × " + e.getKey()));
                if (missing > 0) {
                    parts.add(missing + " not handed in");
                }
                out.add(String.format(
                        Locale.ROOT,
                        "%s: %d of %d not right. %s.",
                        a.label(),
                        wrong + missing,
                        n,
                        String.join("; ", parts)));
            }
        }
        return out;
    }
}
