package eagerneedle.app.classroom;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import eagerneedle.core.marking.HandIn;
import eagerneedle.core.marking.Marked;
import eagerneedle.core.marking.Verdict;
import eagerneedle.core.quantity.Reading;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.rig.simulated.Rehearsal;
import eagerneedle.rig.simulated.Rigs;
import eagerneedle.store.bench.BenchFile;
import eagerneedle.store.classroom.ClassFolder;
import eagerneedle.store.classroom.ClassKey;
import eagerneedle.store.classroom.ClassList;
import eagerneedle.store.classroom.ClassList.Student;
import eagerneedle.store.classroom.HandIns;
import java.io.IOException;
import java.math.BigDecimal;
import java.math.MathContext;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.CancellationException;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class ClassSetTest {
    private static final String METHOD = "letter-scale";
    private static final char[] WORDS = "a passphrase of the class".toCharArray();
    private static final Instant DAY = Instant.parse("2026-11-23T09:00:00Z");
    private static final ClassList LIST = new ClassList(List.of(
            new Student("a1", "Ann", ""),
            new Student("b2", "Ben", ""),
            new Student("c3", "Cleo", "left"),
            new Student("d4", "Dan", "left")));

    /** Sets that nobody changes. */
    @TempDir
    static Path shelf;

    private static Path untouched;

    @TempDir
    Path folder;

    @BeforeAll
    static void make() throws IOException {
        untouched = shelf.resolve("set");
        ClassSet.fromRig(sheet(), LIST, null, DAY).make(untouched, WORDS, 0, (n, of) -> true);
    }

    private static SheetReader.Located sheet() {
        return SheetTrial.read(SheetReader.shippedText(METHOD), METHOD);
    }

    private Path made(String name, ClassKey again, int faults) throws IOException {
        Path at = folder.resolve(name);
        ClassSet.fromRig(sheet(), LIST, again, DAY).make(at, WORDS, faults, (n, of) -> true);
        return at;
    }

    private static Path data(Path set, String unit) {
        return ClassFolder.read(set).data(set, unit);
    }

    @Test
    void whatAStudentGetsHoldsNothingThatIsHidden() throws IOException {
        Path set = made("set", null, 2);
        ClassKey key = ClassKey.read(set.resolve(ClassFolder.KEY), WORDS);
        assertThat(key.units().values().stream().filter(u -> !u.faults().isEmpty()))
                .hasSize(2);
        for (String unit : List.of("a1", "b2", "left")) {
            ClassKey.Unit hidden = key.units().get(unit);
            assertThat(hidden.truth()).isNotEmpty();
            assertThat(hidden.expected()).containsKey("m_u");
            String all = words(data(set, unit).getParent());
            assertThat(all).contains("width of the cantilever");
            for (Map<String, String> of : List.of(hidden.truth(), hidden.expected())) {
                of.forEach((name, text) -> {
                    double v = Reading.parse(text).value();
                    String digits = new BigDecimal(v).round(new MathContext(9)).toPlainString();
                    if (digits.replaceAll("[^0-9]", "").length() > 7) {
                        assertThat(all).as(name).doesNotContain(digits.replaceFirst("^-", ""));
                    }
                });
            }
            long seed = ClassKey.number(key.secret(), "data", METHOD, unit);
            assertThat(all).doesNotContain(String.valueOf(seed), key.secret(), Long.toHexString(seed));
            sheet().sheet().mistakes().forEach(m -> assertThat(all).doesNotContain(m.label(), "id: " + m.id()));
            assertThat(all).doesNotContain("rig:", "mistakes:", "hidden");
        }
    }

    /** All that can be read in the files of a folder: of a bench file what its session and its acts say. */
    private static String words(Path of) throws IOException {
        StringBuilder out = new StringBuilder();
        try (Stream<Path> files = Files.list(of)) {
            for (Path f : files.sorted().toList()) {
                out.append(f.getFileName()).append('\n');
                byte[] bytes = Files.readAllBytes(f);
                if (f.toString().endsWith(".xlsx")) {
                    try (ZipFile zip = new ZipFile(f.toFile())) {
                        for (ZipEntry e : java.util.Collections.list(zip.entries())) {
                            out.append(new String(zip.getInputStream(e).readAllBytes(), StandardCharsets.UTF_8));
                        }
                    }
                } else {
                    out.append(new String(bytes, StandardCharsets.ISO_8859_1));
                }
                if (f.toString().endsWith(".needle")) {
                    try (BenchFile bench = BenchFile.open(f)) {
                        out.append(bench.firstSheet()).append(bench.session()).append(bench.acts());
                    }
                }
            }
        }
        return out.toString();
    }

    @Test
    void anAttackWithTheListTheMethodAndManySeedsFindsNothing() throws IOException {
        Path set = untouched;
        SheetReader.Located sheet = sheet();
        List<Map<String, String>> read = new ArrayList<>();
        List<double[]> samples = new ArrayList<>();
        for (String unit : List.of("a1", "b2", "left")) {
            try (BenchFile bench = BenchFile.open(data(set, unit))) {
                read.add(bench.session().measured());
                samples.add(bench.samples(1, "strain").values());
            }
        }
        int seeds = Integer.getInteger("seeds", 400);
        for (long seed = 0; seed < seeds; seed++) {
            Map<String, String> guessed = Rigs.of(sheet.sheet(), seed, Set.of()).readings();
            for (int unit = 0; unit < read.size(); unit++) {
                assertThat(isOf(sheet, seed, guessed, read.get(unit), samples.get(unit)))
                        .as("seed " + seed)
                        .isFalse();
            }
        }
        // The attack itself is sound: with the seed the data are found.
        ClassKey key = ClassKey.read(set.resolve(ClassFolder.KEY), WORDS);
        long seed = ClassKey.number(key.secret(), "data", METHOD, "a1");
        Map<String, String> known = Rigs.of(sheet.sheet(), seed, Set.of()).readings();
        assertThat(isOf(sheet, seed, known, read.get(0), samples.get(0))).isTrue();
    }

    /** Readings are coarse and may agree by chance; samples then tell. */
    private static boolean isOf(
            SheetReader.Located sheet,
            long seed,
            Map<String, String> guessed,
            Map<String, String> read,
            double[] samples) {
        return read.entrySet().stream().allMatch(e -> e.getValue().equals(guessed.get(e.getKey())))
                && java.util.Arrays.equals(
                        Rehearsal.of(sheet, Rigs.of(sheet.sheet(), seed, Set.of()), DAY)
                                .samples()
                                .get(1)
                                .get("strain")
                                .values(),
                        samples);
    }

    @Test
    void theSameKeyGivesTheSameSetsAndAnotherOthers() throws IOException {
        Path first = untouched;
        Path same = made("same", ClassKey.read(first.resolve(ClassFolder.KEY), WORDS), 0);
        Path other = made("other", null, 0);
        for (String unit : List.of("a1", "b2", "left")) {
            try (BenchFile a = BenchFile.open(data(first, unit));
                    BenchFile b = BenchFile.open(data(same, unit));
                    BenchFile c = BenchFile.open(data(other, unit))) {
                assertThat(b.session()).isEqualTo(a.session());
                Run run = a.session().keptRuns().get(3);
                assertThat(b.samples(run.id(), "strain").values())
                        .isEqualTo(a.samples(run.id(), "strain").values());
                assertThat(c.samples(run.id(), "strain").values())
                        .isNotEqualTo(a.samples(run.id(), "strain").values());
            }
        }
    }

    @Test
    void stoppedNothingIsLeftAndWhatIsThereIsNotTouched() throws IOException {
        Path at = folder.resolve("set");
        ClassSet set = ClassSet.fromRig(sheet(), LIST, null, DAY);
        assertThatThrownBy(() -> set.make(at, WORDS, 0, (n, of) -> n < 2)).isInstanceOf(CancellationException.class);
        try (Stream<Path> left = Files.list(folder)) {
            assertThat(left).isEmpty();
        }
        Files.createDirectories(at);
        Files.writeString(at.resolve("mine.txt"), "mine");
        assertThatThrownBy(() -> set.make(at, WORDS, 0, (n, of) -> true)).hasMessageContaining("is there already");
        assertThatThrownBy(() -> set.make(folder.resolve("b"), WORDS, 4, (n, of) -> true))
                .hasMessageContaining("3 data sets");
    }

    @Test
    void sharesOfARealSessionDifferAndCanBeReckoned() throws IOException {
        Path real = data(untouched, "a1");
        Path shared = folder.resolve("shared");
        ClassSet.fromSession(real, LIST, null).make(shared, WORDS, 0, (n, of) -> true);
        Set<List<Integer>> shares = new java.util.HashSet<>();
        ClassKey key = ClassKey.read(shared.resolve(ClassFolder.KEY), WORDS);
        for (String unit : List.of("a1", "b2", "left")) {
            try (BenchFile bench = BenchFile.open(data(shared, unit))) {
                shares.add(bench.session().keptRuns().stream().map(Run::id).toList());
                assertThat(key.units().get(unit).expected()).containsKey("sensitivity");
            }
        }
        assertThat(shares).hasSizeGreaterThan(1);
    }

    private static String written(String expected, double factor, int digits) {
        return new BigDecimal(factor * Reading.parse(expected).value())
                .round(new MathContext(digits))
                .toString();
    }

    @Test
    void aClassIsMarkedAgainstItsOwnDataAndGroupsMayShare() throws IOException {
        Path set = untouched;
        ClassKey key = ClassKey.read(set.resolve(ClassFolder.KEY), WORDS);
        StringBuilder csv = new StringBuilder("student,quantity,value,u,unit\n");
        for (Student s : LIST.students()) {
            key.units().get(s.unit()).expected().forEach((q, text) -> {
                Reading r = Reading.parse(text);
                // Ann's number for m_u is made up, and Ben took it from her; Cleo and Dan have it from each other.
                String value = q.equals("m_u") && !s.unit().equals("left")
                        ? written(key.units().get("a1").expected().get(q), 1.317, 5)
                        : written(text, q.equals("m_u") ? 1.711 : 1, 4);
                csv.append(s.id() + "," + q + "," + value + "," + r.u() + ","
                        + r.unit().symbol() + "\n");
            });
        }
        Path in = Files.writeString(folder.resolve("in.csv"), csv);
        ClassMarking marking = ClassMarking.of(set, WORDS);
        ClassMarking.Marks marks = marking.mark(HandIns.read(in, LIST.students()), (n, of) -> true);
        for (StudentMarks s : marks.students()) {
            for (Marked m : s.items()) {
                if (m.quantity().equals("m_u")) {
                    assertThat(m.verdict()).isEqualTo(Verdict.UNEXPLAINED);
                } else {
                    assertThat(m.verdict().isRightNumber()).as(m.toString()).isTrue();
                }
            }
        }
        assertThat(marks.shared()).hasSize(1);
        assertThat(marks.shared().get(0).says()).contains("a1 and b2", "mass of the unknown", "ask before");
        assertThat(MarksJson.of(marks)).contains("\"verdict\" : \"unexplained\"", "\"expected_u\"", "shared_digits");
    }

    @Test
    void withoutTheKeyTheMethodThatShipsKnowsItsMistakesAndBenchFilesCanBeHandedIn() throws IOException {
        Path set = untouched;
        Path in = Files.createDirectories(folder.resolve("in"));
        Files.copy(data(set, "a1"), in.resolve("work of a1.needle"));
        Files.copy(data(set, "b2"), in.resolve("d4.needle"));
        ClassMarking.Marks marks = ClassMarking.of(set, null).mark(HandIns.read(in, LIST.students()), (n, of) -> true);
        assertThat(marks.students().get(0).items())
                .allSatisfy(m -> assertThat(m.verdict())
                        .as(m + " " + marks.students().get(0).remarks())
                        .isIn(Verdict.RIGHT, Verdict.DIGITS));
        assertThat(marks.students().get(1).items()).allMatch(m -> m.verdict() == Verdict.MISSING);
        StudentMarks dan = marks.students().get(3);
        assertThat(dan.remarks()).contains("The bench file does not hold the samples that were given out.");
        assertThat(dan.items().stream()
                        .filter(m -> m.quantity().equals("m_u"))
                        .findFirst()
                        .orElseThrow()
                        .explanations())
                .anyMatch(e -> e.label().equals("The data of b2"));
        // A folder of bench files is a class, too.
        ClassMarking plain = ClassMarking.of(in, null);
        assertThat(plain.about().students().stream().map(Student::id)).containsExactly("d4", "work of a1");
        HandIns one = new HandIns(List.of(new HandIn("d4", "m_u", "1", "", "g")), Map.of(), List.of());
        assertThat(plain.mark(one, (n, of) -> true).students()).hasSize(2);
    }
}
