package eagerneedle.app.benches;

import eagerneedle.core.benches.Bench;
import eagerneedle.core.benches.Benches;
import eagerneedle.core.marking.Wanted;
import eagerneedle.core.sheet.Derived;
import eagerneedle.core.sheet.Sheet;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.BiPredicate;
import org.jspecify.annotations.Nullable;

/** What is shown of a folder of benches: which of them count, and which result is looked at. */
public final class BenchesModel implements AutoCloseable {
    private final BenchFolder folder = new BenchFolder();
    private final Set<String> leftOut = new LinkedHashSet<>();
    private @Nullable Path where;

    /** A result by its name in the sheet and what people call it. */
    public record Result(String name, String label) {}

    /** Reads the folder, or reads it again; see {@link BenchFolder#read}. */
    public synchronized void read(Path of, BiPredicate<Integer, Integer> goOn) {
        folder.read(of, goOn);
        where = of;
    }

    /** The folder that was read last; null for none. */
    public synchronized @Nullable Path where() {
        return where;
    }

    /** What the method is called; empty before anything was read. */
    public synchronized String title() {
        Sheet sheet = folder.sheet();
        return sheet == null ? "" : sheet.title();
    }

    /**
     * The results that can be held together: those that are compared first, then those that a class is asked for, then
     * what else is shown.
     */
    public synchronized List<Result> results() {
        Sheet sheet = folder.sheet();
        if (sheet == null) {
            return List.of();
        }
        Map<String, Result> out = new LinkedHashMap<>();
        List<String> names = new ArrayList<>();
        sheet.comparisons().forEach(c -> names.add(c.result()));
        names.addAll(Wanted.of(sheet));
        sheet.results().forEach((n, d) -> {
            if (d.shown()) {
                names.add(n);
            }
        });
        names.forEach(n -> {
            Derived d = sheet.results().get(n);
            boolean any = folder.benches().stream()
                    .anyMatch(b -> b.reduction().quantity(n).isPresent());
            if (any && d != null) {
                out.putIfAbsent(n, new Result(n, d.label() == null ? n : d.label()));
            }
        });
        return List.copyOf(out.values());
    }

    /** Names of all benches of the folder, in order. */
    public synchronized List<String> names() {
        return folder.benches().stream().map(Bench::name).toList();
    }

    public synchronized boolean counts(String bench) {
        return !leftOut.contains(bench);
    }

    /** Lets a bench count or leaves it out; the files stay as they are. */
    public synchronized void count(String bench, boolean counts) {
        if (counts) {
            leftOut.remove(bench);
        } else {
            leftOut.add(bench);
        }
    }

    /**
     * The benches that count, of one result.
     *
     * @throws IllegalArgumentException with one sentence where fewer than two have it
     */
    public synchronized Together together(String result) {
        return Together.of(
                folder.benches().stream().filter(b -> counts(b.name())).toList(), result);
    }

    /** Files that could not be taken, one sentence each. */
    public synchronized List<String> problems() {
        return folder.problems();
    }

    /** A table of a result for a spreadsheet, lines of cells; the first is the head. */
    public static List<List<String>> table(Together t) {
        List<List<String>> out = new ArrayList<>();
        String unit = t.all().mean().unit().symbol();
        out.add(List.of("bench", t.label(), "u", "unit", "stands apart by"));
        List<String> apart = t.all().namesApart();
        for (Benches.Row r : t.all().rows()) {
            int at = apart.indexOf(r.name());
            out.add(List.of(
                    r.name(),
                    Double.toString(r.value().value()),
                    Double.toString(r.value().u()),
                    unit,
                    at < 0 ? "" : Double.toString(t.all().apart().get(at).by())));
        }
        out.add(List.of(
                "mean",
                Double.toString(t.all().mean().value()),
                Double.toString(t.all().mean().u()),
                unit,
                ""));
        Benches rest = t.rest();
        if (rest != null) {
            out.add(List.of(
                    "mean of the others",
                    Double.toString(rest.mean().in(t.all().mean().unit())),
                    Double.toString(rest.mean().to(t.all().mean().unit()).u()),
                    unit,
                    ""));
        }
        return out;
    }

    @Override
    public synchronized void close() {
        folder.close();
    }
}
