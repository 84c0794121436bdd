package eagerneedle.app.benches;

import eagerneedle.app.workbench.Fault;
import eagerneedle.core.benches.Bench;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.store.FileName;
import eagerneedle.store.bench.BenchFileException;
import eagerneedle.store.bench.ClosedCopy;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.BiPredicate;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * The bench files of one method in a folder, each reduced from a closed copy: a file that is in use, or being written
 * into, is told and not touched. What has not changed since it was read before is not read again. It keeps the copies
 * open, since a bench may be asked what other values would make of it, until it is closed.
 */
public final class BenchFolder implements AutoCloseable {
    /** One bench, its file's digest, and the copy its samples come from. */
    private record Entry(Path file, String digest, ClosedCopy copy, String method, Bench bench) {}

    private final Map<Path, Entry> entries = new LinkedHashMap<>();
    private final List<String> problems = new ArrayList<>();
    private String method = "";

    /**
     * Reads a folder, or reads it again.
     *
     * @param goOn asked before each file with how many are done of how many; false to stop, which leaves what was read
     * @throws IllegalArgumentException with one sentence where it is no folder, or holds nothing that can be held
     *     together
     */
    public void read(Path folder, BiPredicate<Integer, Integer> goOn) {
        List<Path> files = files(folder);
        problems.clear();
        new ArrayList<>(entries.keySet())
                .stream().filter(f -> !files.contains(f)).forEach(this::forget);
        for (int i = 0; i < files.size(); i++) {
            if (!goOn.test(i, files.size())) {
                return;
            }
            read(files.get(i));
        }
        Map<String, Long> often = entries.values().stream()
                .collect(Collectors.groupingBy(Entry::method, LinkedHashMap::new, Collectors.counting()));
        method = often.entrySet().stream()
                .max(Comparator.comparingLong(Map.Entry::getValue))
                .map(Map.Entry::getKey)
                .orElse("");
        entries.values().stream()
                .filter(e -> !e.method().equals(method))
                .forEach(e -> problems.add(FileName.of(e.file()) + " follows the method " + e.method() + " and not "
                        + method + "; it is left aside."));
        if (benches().isEmpty()) {
            throw new IllegalArgumentException(
                    problems.isEmpty()
                            ? "There is no bench file in " + FileName.of(folder)
                                    + " yet: publish a closed copy of each bench into it."
                            : "Nothing in " + FileName.of(folder) + " can be held together: " + problems.get(0));
        }
    }

    private static List<Path> files(Path folder) {
        try (Stream<Path> all = Files.list(folder)) {
            return all.filter(p -> FileName.of(p).endsWith(".needle")
                            && !FileName.of(p).startsWith("."))
                    .sorted(Comparator.comparing(BenchFolder::natural))
                    .toList();
        } catch (IOException | java.io.UncheckedIOException e) {
            throw new IllegalArgumentException(
                    FileName.of(folder) + " is no folder that can be read; name the one the benches publish into.", e);
        }
    }

    /** Bench 2 before bench 10. */
    private static String natural(Path file) {
        return java.util.regex.Pattern.compile("\\d+")
                .matcher(FileName.of(file))
                .replaceAll(
                        m -> m.group().length() < 9 ? "0".repeat(9 - m.group().length()) + m.group() : m.group());
    }

    private void read(Path file) {
        Entry before = entries.get(file);
        try {
            if (before != null && ClosedCopy.digest(file).equals(before.digest())) {
                return;
            }
            ClosedCopy copy = ClosedCopy.of(file);
            try {
                Session session = copy.file().session();
                var sheet = SheetTrial.readOfSession(session.sheetText(), FileName.of(file));
                Bench bench = new Bench(FileName.of(file).replaceFirst("\\.needle$", ""), sheet, session, copy.file());
                forget(file);
                entries.put(
                        file, new Entry(file, copy.digest(), copy, sheet.sheet().id(), bench));
            } catch (IllegalArgumentException e) {
                copy.close();
                throw e;
            }
        } catch (IOException e) {
            forget(file);
            problems.add(Fault.said(e, FileName.of(file) + " cannot be read."));
        } catch (BenchFileException | IllegalArgumentException e) {
            // One that is in use now may be read the next time; what was read of it before still holds.
            problems.add(e.getMessage());
        }
    }

    private void forget(Path file) {
        Entry e = entries.remove(file);
        if (e != null) {
            e.copy().close();
        }
    }

    /** The benches of the method that most of the files follow, in the order of their names. */
    public List<Bench> benches() {
        return entries.entrySet().stream()
                .filter(e -> e.getValue().method().equals(method))
                .sorted(Comparator.comparing(e -> natural(e.getKey())))
                .map(e -> e.getValue().bench())
                .toList();
    }

    /** The sheet of the first bench; null before anything was read. */
    public @Nullable Sheet sheet() {
        return benches().stream().findFirst().map(b -> b.reduction().sheet()).orElse(null);
    }

    /** One sentence for each file that could not be taken. */
    public List<String> problems() {
        return List.copyOf(problems);
    }

    @Override
    public void close() {
        new ArrayList<>(entries.keySet()).forEach(this::forget);
    }
}
