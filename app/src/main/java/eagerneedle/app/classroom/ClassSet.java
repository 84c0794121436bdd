package eagerneedle.app.classroom;

import eagerneedle.core.edit.StudentSheet;
import eagerneedle.core.marking.OwnData;
import eagerneedle.core.marking.Wanted;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Reducer;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.sheet.Derived;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.rig.simulated.Rigs;
import eagerneedle.store.FileName;
import eagerneedle.store.bench.BenchFile;
import eagerneedle.store.classroom.ClassFolder;
import eagerneedle.store.classroom.ClassKey;
import eagerneedle.store.classroom.ClassList;
import eagerneedle.store.classroom.HandInForm;
import eagerneedle.store.export.Beside;
import eagerneedle.store.export.DataOnly;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.Callable;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * Gives a class data of their own: each student, or each group of the list, a session that nobody else has, with the
 * sheet as students may have it, and a form to hand in. What is true of each lies beside them in a sealed key, from
 * whose secret the same sets come again. The folder comes into being whole or not at all.
 */
public final class ClassSet {
    /** What makes the data of one unit. */
    interface Source {
        /** Writes a session, its sheet the one that students may have, and tells what is true of it. */
        ClassKey.Unit write(String unit, Path bench, List<String> faults) throws IOException;

        /** What such data look like, of nobody's. */
        Reduction example();
    }

    /** Told after each set; false stops the making. */
    public interface Progress {
        boolean done(int sets, int of);
    }

    private final SheetReader.Located sheet;
    private final ClassList list;
    private final String secret;
    private final Instant day;
    private final Source source;

    private ClassSet(SheetReader.Located sheet, ClassList list, String secret, Instant day, Source source) {
        this.sheet = sheet;
        this.list = list;
        this.secret = secret;
        this.day = day;
        this.source = source;
    }

    /**
     * Sets from the rig of a sheet.
     *
     * @param again an earlier key, whose sets are made again; null for new ones
     * @throws IllegalArgumentException with one sentence for a sheet without a rig
     */
    public static ClassSet fromRig(SheetReader.Located sheet, ClassList list, @Nullable ClassKey again, Instant day) {
        if (!Rigs.canRehearse(sheet.sheet()) || sheet.sheet().pool().isThere()) {
            throw new IllegalArgumentException(sheet.sheet().id()
                    + " has no rig of its own to take data from; write one, or give a session to share out.");
        }
        String secret = again == null ? ClassKey.newSecret() : again.secret();
        Instant held = again == null ? day : Instant.parse(again.day());
        return new ClassSet(sheet, list, secret, held, new RigSource(sheet, secret, held));
    }

    /** Sets that are shares of the runs of one real session. */
    public static ClassSet fromSession(Path session, ClassList list, @Nullable ClassKey again) {
        String secret = again == null ? ClassKey.newSecret() : again.secret();
        SheetReader.Located sheet;
        Instant held;
        try (BenchFile file = BenchFile.open(session)) {
            sheet = SheetTrial.readOfSession(file.session().sheetText(), FileName.of(session));
            held = file.session().created();
        }
        return new ClassSet(sheet, list, secret, held, new ShareSource(sheet, session, secret));
    }

    /**
     * Makes the folder.
     *
     * @param folder must not be there, or be empty
     * @param withFaults how many sets have a mistake made at their bench
     * @throws CancellationException when it was stopped; nothing is left then
     * @throws IllegalArgumentException with one sentence when it cannot be made
     */
    public ClassFolder make(Path folder, char[] passphrase, int withFaults, Progress progress) throws IOException {
        free(folder);
        Path at = folder.toAbsolutePath();
        Path making = at.resolveSibling("." + FileName.of(at) + ".making");
        delete(making);
        Thread stump = new Thread(() -> delete(making));
        Runtime.getRuntime().addShutdownHook(stump);
        try {
            try {
                Files.createDirectories(making);
            } catch (IOException e) {
                throw new IllegalArgumentException(
                        FileName.of(folder) + " cannot be made there; choose another place.", e);
            }
            Map<String, List<String>> faults = faults(withFaults);
            ClassFolder c = folder();
            Map<String, ClassKey.Unit> units = units(c, making, faults, progress);
            c.write(making);
            new ClassKey(secret, day.toString(), sheet.text(), units)
                    .write(making.resolve(ClassFolder.KEY), passphrase);
            Files.deleteIfExists(at);
            Files.move(making, at);
            return c;
        } finally {
            delete(making);
            try {
                Runtime.getRuntime().removeShutdownHook(stump);
            } catch (IllegalStateException goingDown) {
                // It does its work now.
            }
        }
    }

    private static void free(Path folder) throws IOException {
        if (Files.exists(folder)) {
            try (Stream<Path> inside = Files.isDirectory(folder) ? Files.list(folder) : Stream.of(folder)) {
                if (inside.findAny().isPresent()) {
                    throw new IllegalArgumentException(
                            FileName.of(folder) + " is there already; choose a folder that is not, or an empty one.");
                }
            }
        }
    }

    private ClassFolder folder() {
        Sheet s = sheet.sheet();
        Reduction example = source.example();
        List<ClassFolder.Asked> asked = Wanted.of(s).stream()
                .filter(q -> !isGiven(q, example))
                .map(q -> {
                    Derived d = s.results().get(q);
                    return new ClassFolder.Asked(
                            q,
                            d == null || d.label() == null ? q : d.label(),
                            d == null || d.unit() == null ? "" : d.unit());
                })
                .toList();
        return new ClassFolder(1, s.id(), s.title(), asked, list.students());
    }

    /** What a calibration referred to stands in its record, and need not be asked for. */
    private static boolean isGiven(String quantity, Reduction example) {
        Optional<Quantity> q = example.quantity(quantity);
        return q.isPresent()
                && example.session().calibrations().stream()
                        .flatMap(c -> Stream.concat(c.points().stream(), c.verification().stream()))
                        .flatMap(p -> p.computed().stream())
                        .filter(p -> p.unit().fits(q.get().unit()))
                        .anyMatch(p -> Math.abs(p.in(q.get().unit()) - q.get().value())
                                <= 1e-6 * Math.abs(q.get().value()));
    }

    /** Which units have which fault: as the secret has it, so that nobody can tell and the key can. */
    private Map<String, List<String>> faults(int n) {
        List<String> known = Rigs.canRehearse(sheet.sheet()) ? Rigs.faults(sheet.sheet()) : List.of();
        List<String> units = new ArrayList<>(list.units().keySet());
        if (n < 0 || n > units.size()) {
            throw new IllegalArgumentException(
                    "There are " + units.size() + " data sets; so many of them, or fewer, can have a mistake.");
        }
        if (n > 0 && (known.isEmpty() || source instanceof ShareSource)) {
            throw new IllegalArgumentException("There is no mistake at the bench that could be made in these sets.");
        }
        units.sort(Comparator.comparingLong(u -> number("whose fault", u)));
        Map<String, List<String>> out = new LinkedHashMap<>();
        for (String u : units.subList(0, n)) {
            out.put(u, List.of(known.get((int) Math.floorMod(number("which fault", u), (long) known.size()))));
        }
        return out;
    }

    private long number(String purpose, String unit) {
        return ClassKey.number(secret, purpose, sheet.sheet().id(), unit);
    }

    private Map<String, ClassKey.Unit> units(
            ClassFolder c, Path making, Map<String, List<String>> faults, Progress progress) throws IOException {
        Map<String, List<ClassList.Student>> units = list.units();
        Map<String, Future<ClassKey.Unit>> begun = new LinkedHashMap<>();
        AtomicInteger done = new AtomicInteger();
        ExecutorService hands =
                Executors.newFixedThreadPool(Runtime.getRuntime().availableProcessors());
        try {
            units.forEach((unit, students) -> begun.put(unit, hands.submit((Callable<ClassKey.Unit>) () -> {
                ClassKey.Unit made = unit(c, making, unit, students, faults.getOrDefault(unit, List.of()));
                if (!progress.done(done.incrementAndGet(), units.size())) {
                    throw new CancellationException("Stopped; no folder was made.");
                }
                return made;
            })));
            Map<String, ClassKey.Unit> out = new LinkedHashMap<>();
            for (Map.Entry<String, Future<ClassKey.Unit>> e : begun.entrySet()) {
                out.put(e.getKey(), e.getValue().get());
            }
            return out;
        } catch (ExecutionException e) {
            if (e.getCause() instanceof RuntimeException own) {
                throw own;
            }
            if (e.getCause() instanceof IOException io) {
                throw io;
            }
            throw new IllegalStateException(e.getCause());
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new CancellationException("Stopped; no folder was made.");
        } finally {
            hands.shutdownNow();
            awaitEnd(hands);
        }
    }

    private static void awaitEnd(ExecutorService hands) {
        try {
            if (!hands.awaitTermination(1, java.util.concurrent.TimeUnit.MINUTES)) {
                throw new IllegalStateException("A data set is still being written.");
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    private ClassKey.Unit unit(
            ClassFolder c, Path making, String unit, List<ClassList.Student> students, List<String> faults)
            throws IOException {
        Path bench = c.data(making, unit);
        Path own = java.util.Objects.requireNonNull(bench.getParent());
        Files.createDirectories(own);
        ClassKey.Unit made = source.write(unit, bench, faults);
        String name = FileName.of(bench).replaceFirst("\\.needle$", "");
        Map<String, String> expected = new LinkedHashMap<>();
        try (BenchFile file = BenchFile.open(bench)) {
            OwnData data = new OwnData(sheet, file.session(), file);
            c.asked().forEach(a -> data.expected(a.quantity()).ifPresent(q -> expected.put(a.quantity(), written(q))));
            Reduction r = new Reducer(SheetTrial.readOfSession(file.session().sheetText(), FileName.of(bench)), file)
                    .reduce(file.session());
            DataOnly.csv(r, own.resolve(name + ".csv"));
            DataOnly.workbook(r, own.resolve(name + ".xlsx"));
        }
        for (ClassList.Student s : students) {
            String form = "hand-in-" + ClassList.folder(s.id());
            HandInForm.workbook(c, s, own.resolve(form + ".xlsx"));
            Beside.write(own.resolve(form + ".csv"), HandInForm.csv(c, s));
        }
        return new ClassKey.Unit(made.faults(), made.truth(), expected);
    }

    /** A quantity with all its digits. */
    static String written(Quantity q) {
        return (q.value() + " ± " + q.u() + " " + q.unit().symbol()).strip();
    }

    private static void delete(Path folder) {
        if (!Files.exists(folder)) {
            return;
        }
        try (Stream<Path> all = Files.walk(folder)) {
            for (Path p : all.sorted(Comparator.reverseOrder()).toList()) {
                Files.deleteIfExists(p);
            }
        } catch (IOException e) {
            throw new UncheckedIOException(FileName.of(folder) + " cannot be cleared away.", e);
        }
    }

    /** The sheet as students may have it. */
    static String forStudents(SheetReader.Located sheet) {
        return StudentSheet.of(sheet.text());
    }
}
