package eagerneedle.app.classroom;

import eagerneedle.core.marking.HandIn;
import eagerneedle.core.marking.Marked;
import eagerneedle.core.marking.OwnData;
import eagerneedle.core.marking.SharedDigits;
import eagerneedle.core.marking.StudentMarker;
import eagerneedle.core.marking.Wanted;
import eagerneedle.core.quantity.DecimalSign;
import eagerneedle.core.quantity.Printed;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.quantity.Reading;
import eagerneedle.core.reduce.Reducer;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.Derived;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.store.FileName;
import eagerneedle.store.bench.BenchFile;
import eagerneedle.store.bench.BenchFileException;
import eagerneedle.store.classroom.ClassFolder;
import eagerneedle.store.classroom.ClassKey;
import eagerneedle.store.classroom.ClassList;
import eagerneedle.store.classroom.HandIns;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
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

/** A class marked: every number held against what that student's own data give. */
public final class ClassMarking {
    private final ClassFolder about;
    private final Map<String, Path> data;
    private final @Nullable ClassKey key;

    private ClassMarking(ClassFolder about, Map<String, Path> data, @Nullable ClassKey key) {
        this.about = about;
        this.data = data;
        this.key = key;
    }

    /** Marks of all students, and whose digits agree beyond chance. */
    public record Marks(ClassFolder about, List<StudentMarks> students, List<SharedDigits.Pair> shared) {}

    /**
     * The class of a folder: one that was made by {@link ClassSet}, or any folder of bench files of one method, each
     * called after its student.
     *
     * @param passphrase opens the key, whose sheet has the mistakes; without it those of the method that ships are
     *     tried, or those that the session's own sheet has
     * @throws IllegalArgumentException with one sentence where there is no class, or the key does not open
     */
    public static ClassMarking of(Path folder, char @Nullable [] passphrase) {
        if (ClassFolder.is(folder)) {
            ClassFolder about = ClassFolder.read(folder);
            Map<String, Path> data = new LinkedHashMap<>();
            about.list().units().keySet().forEach(u -> data.put(u, about.data(folder, u)));
            Path key = folder.resolve(ClassFolder.KEY);
            return new ClassMarking(about, data, passphrase == null ? null : ClassKey.read(key, passphrase));
        }
        return ofBenches(folder);
    }

    private static ClassMarking ofBenches(Path folder) {
        Map<String, Path> data = new LinkedHashMap<>();
        try (Stream<Path> all = Files.list(folder)) {
            all.filter(f -> FileName.of(f).endsWith(".needle"))
                    .sorted()
                    .forEach(f -> data.put(FileName.of(f).replaceFirst("\\.needle$", ""), f));
        } catch (IOException e) {
            throw new IllegalArgumentException("There is no folder " + FileName.of(folder) + ".", e);
        }
        if (data.isEmpty()) {
            throw new IllegalArgumentException(
                    FileName.of(folder) + " is not the folder of a class, and holds no bench files.");
        }
        Sheet sheet = sheetOf(data.values().iterator().next()).sheet();
        List<ClassFolder.Asked> asked = Wanted.of(sheet).stream()
                .map(q -> {
                    Derived d = Objects.requireNonNull(sheet.results().get(q));
                    return new ClassFolder.Asked(
                            q, d.label() == null ? q : d.label(), d.unit() == null ? "" : d.unit());
                })
                .toList();
        List<ClassList.Student> students = data.keySet().stream()
                .map(u -> new ClassList.Student(u, "", ""))
                .toList();
        return new ClassMarking(new ClassFolder(1, sheet.id(), sheet.title(), asked, students), data, null);
    }

    public ClassFolder about() {
        return about;
    }

    private static SheetReader.Located sheetOf(Path bench) {
        try (BenchFile file = BenchFile.open(bench)) {
            return SheetTrial.readOfSession(file.session().sheetText(), FileName.of(bench));
        }
    }

    private SheetReader.Located sheet() {
        if (key != null) {
            // It was tried when the class was made.
            return SheetReader.read(key.sheet(), about.method());
        }
        return SheetReader.shipped().contains(about.method())
                ? SheetReader.read(SheetReader.shippedText(about.method()), about.method())
                : sheetOf(data.values().iterator().next());
    }

    /**
     * Marks what was handed in.
     *
     * @param progress told after each data set; false stops
     * @throws CancellationException when it was stopped
     */
    public Marks mark(HandIns in, ClassSet.Progress progress) {
        Map<String, List<HandIn>> by = new LinkedHashMap<>();
        Map<String, ClassList.Student> known = new LinkedHashMap<>();
        about.students().forEach(s -> known.put(s.id(), s));
        List<ClassList.Student> all = new ArrayList<>(about.students());
        for (HandIn h : in.numbers()) {
            String id = known.keySet().stream()
                    .filter(k -> k.equalsIgnoreCase(h.student()))
                    .findFirst()
                    .orElse(h.student());
            if (!known.containsKey(id)) {
                ClassList.Student stranger = new ClassList.Student(id, "", "");
                known.put(id, stranger);
                all.add(stranger);
            }
            by.computeIfAbsent(id, k -> new ArrayList<>()).add(h);
        }
        StudentMarker.Asked asked = StudentMarker.Asked.of(in.numbers());
        SheetReader.Located sheet = sheet();
        Map<String, Map<String, Double>> right = rights(sheet);
        Map<String, List<ClassList.Student>> units = new LinkedHashMap<>();
        all.forEach(s -> units.computeIfAbsent(s.unit(), u -> new ArrayList<>()).add(s));
        Map<String, StudentMarks> marks = new LinkedHashMap<>();
        AtomicInteger done = new AtomicInteger();
        ofEach(units.keySet().stream().toList(), unit -> {
                    List<StudentMarks> one =
                            unit(unit, Objects.requireNonNull(units.get(unit)), by, in.benches(), sheet, right, asked);
                    if (!progress.done(done.incrementAndGet(), units.size())) {
                        throw new CancellationException("Stopped; nothing was marked.");
                    }
                    return one;
                })
                .forEach(list -> list.forEach(m -> marks.put(m.student().id(), m)));
        List<StudentMarks> out =
                all.stream().map(s -> Objects.requireNonNull(marks.get(s.id()))).toList();
        List<SharedDigits.Pair> shared = SharedDigits.of(out.stream()
                .map(m -> new SharedDigits.Work(m.student().id(), m.student().unit(), m.items()))
                .toList());
        return new Marks(about, out, shared);
    }

    private interface Work<T> {
        T of(String unit) throws IOException;
    }

    private static <T> List<T> ofEach(List<String> units, Work<T> work) {
        ExecutorService hands =
                Executors.newFixedThreadPool(Runtime.getRuntime().availableProcessors());
        try {
            List<Future<T>> begun = new ArrayList<>();
            units.forEach(u -> begun.add(hands.submit((Callable<T>) () -> work.of(u))));
            List<T> out = new ArrayList<>();
            for (Future<T> f : begun) {
                out.add(f.get());
            }
            return out;
        } catch (ExecutionException e) {
            if (e.getCause() instanceof RuntimeException own) {
                throw own;
            }
            throw new IllegalStateException(e.getCause());
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new CancellationException("Stopped; nothing was marked.");
        } finally {
            hands.shutdownNow();
        }
    }

    /** What the data of each unit give: from the key, or reckoned. */
    private Map<String, Map<String, Double>> rights(SheetReader.Located sheet) {
        List<String> units = List.copyOf(data.keySet());
        List<Map<String, Double>> values = ofEach(units, unit -> {
            Map<String, Double> one = new LinkedHashMap<>();
            if (key != null && key.units().containsKey(unit)) {
                Objects.requireNonNull(key.units().get(unit))
                        .expected()
                        .forEach((q, text) -> one.put(q, Reading.parse(text).value()));
            } else {
                try (BenchFile file = BenchFile.open(Objects.requireNonNull(data.get(unit)))) {
                    Reduction r = patient(sheet, file).reduce(file.session());
                    about.asked()
                            .forEach(a -> r.quantity(a.quantity()).ifPresent(v -> one.put(a.quantity(), v.value())));
                } catch (BenchFileException missing) {
                    // Told where that student is marked.
                }
            }
            return one;
        });
        Map<String, Map<String, Double>> out = new LinkedHashMap<>();
        for (int i = 0; i < units.size(); i++) {
            out.put(units.get(i), values.get(i));
        }
        return out;
    }

    private static Reducer patient(SheetReader.Located sheet, BenchFile file) {
        Reducer r = new Reducer(sheet, file);
        r.takeLong();
        return r;
    }

    private List<StudentMarks> unit(
            String unit,
            List<ClassList.Student> students,
            Map<String, List<HandIn>> by,
            Map<String, Path> benches,
            SheetReader.Located sheet,
            Map<String, Map<String, Double>> right,
            StudentMarker.Asked asked) {
        Path own = data.get(unit);
        if (own == null) {
            return without(students, by, unit + " is not in the list of the class.");
        }
        List<String> wanted =
                about.asked().stream().map(ClassFolder.Asked::quantity).toList();
        try (BenchFile file = BenchFile.open(own)) {
            OwnData data = new OwnData(sheet, file.session(), file);
            List<StudentMarks> out = new ArrayList<>();
            for (ClassList.Student s : students) {
                List<String> remarks = new ArrayList<>();
                List<HandIn> given = new ArrayList<>(by.getOrDefault(s.id(), List.of()));
                Path bench = benches.get(s.id());
                if (given.isEmpty() && bench != null) {
                    given.addAll(ofBench(s.id(), bench, file, wanted, remarks));
                }
                List<Marked> items = StudentMarker.mark(data, given, wanted, asked, q -> others(right, unit, q));
                out.add(new StudentMarks(s, items, remarks));
            }
            return out;
        } catch (BenchFileException e) {
            return without(students, by, "The data that were given cannot be read: " + e.getMessage());
        }
    }

    private static List<StudentMarks> without(
            List<ClassList.Student> students, Map<String, List<HandIn>> by, String why) {
        return students.stream()
                .map(s -> new StudentMarks(
                        s,
                        by.getOrDefault(s.id(), List.of()).stream()
                                .map(h -> new Marked(
                                        h,
                                        h.quantity(),
                                        h.quantity(),
                                        null,
                                        null,
                                        eagerneedle.core.marking.Verdict.UNEXPLAINED,
                                        List.of(why),
                                        List.of(),
                                        List.of()))
                                .toList(),
                        List.of(why)))
                .toList();
    }

    private static Map<String, Double> others(Map<String, Map<String, Double>> right, String own, String quantity) {
        Map<String, Double> out = new LinkedHashMap<>();
        right.forEach((unit, values) -> {
            Double v = values.get(quantity);
            if (!unit.equals(own) && v != null) {
                out.put(unit, v);
            }
        });
        return out;
    }

    /** The numbers of a bench file that was handed in, as the program itself would write them. */
    private static List<HandIn> ofBench(
            String student, Path bench, BenchFile given, List<String> wanted, List<String> remarks) {
        List<HandIn> out = new ArrayList<>();
        try (BenchFile file = BenchFile.open(bench)) {
            SheetReader.Located sheet = SheetTrial.readOfSession(file.session().sheetText(), FileName.of(bench));
            if (!sameData(file, given, sheet.sheet())) {
                remarks.add("The bench file does not hold the samples that were given out.");
            }
            if (!file.session().sheetText().equals(given.session().sheetText())) {
                remarks.add("The sheet in the bench file was changed.");
            }
            Reduction r = patient(sheet, file).reduce(file.session());
            for (String q : wanted) {
                Optional<Quantity> v = r.quantity(q);
                v.ifPresent(x -> {
                    Printed w = Printed.of(x);
                    double ten = Math.pow(10, w.power());
                    out.add(new HandIn(
                            student,
                            q,
                            w.power() == 0 ? plain(w.number()) : plain(w.number()) + "e" + w.power(),
                            x.u() == 0
                                    ? ""
                                    : String.valueOf(Reading.parse(plain(w.number()) + plain(w.uncertainty()))
                                                    .u()
                                            * ten),
                            w.unit().symbol()));
                });
            }
        } catch (BenchFileException | IllegalArgumentException e) {
            remarks.add("The bench file that was handed in cannot be read: " + e.getMessage());
        }
        return out;
    }

    private static String plain(String number) {
        return DecimalSign.inUse().typed(number.replace('−', '-').replaceAll("\\s", ""));
    }

    private static boolean sameData(BenchFile a, BenchFile b, Sheet sheet) {
        for (Run run : b.session().keptRuns()) {
            if (a.session().run(run.id()).isEmpty() || !sheet.captures().containsKey(run.capture())) {
                return false;
            }
            for (String c :
                    Objects.requireNonNull(sheet.captures().get(run.capture())).channels()) {
                RawSamples x = a.samples(run.id(), c);
                RawSamples y = b.samples(run.id(), c);
                if (!Arrays.equals(x.time(), y.time()) || !Arrays.equals(x.values(), y.values())) {
                    return false;
                }
            }
        }
        return true;
    }
}
