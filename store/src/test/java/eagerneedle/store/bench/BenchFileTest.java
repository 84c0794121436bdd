package eagerneedle.store.bench;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import eagerneedle.core.calibration.AfterUse;
import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.reduce.Reducer;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.session.CalibrationCommand;
import eagerneedle.core.session.Command;
import eagerneedle.core.session.JudgeCommand;
import eagerneedle.core.session.PlanningCommand;
import eagerneedle.core.session.RecordCommand;
import eagerneedle.core.session.ReducingCommand;
import eagerneedle.core.session.RigCommand;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.RunCommand;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.stockroom.Instrument;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.core.trace.Window;
import eagerneedle.rig.simulated.Rehearsal;
import eagerneedle.rig.simulated.Rigs;
import eagerneedle.store.export.LedgerCsv;
import eagerneedle.store.export.ReductionJson;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Assertions;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class BenchFileTest {
    private static final Instant DAY = Instant.parse("2026-11-23T09:00:00Z");
    private static final String SHEET = SheetReader.shippedText("baggage-chute");

    @TempDir
    private Path folder;

    private Path simulated(String name) {
        SheetReader.Located sheet = SheetTrial.read(SHEET, "sheet");
        Rehearsal r = Rehearsal.of(sheet, Rigs.shipped("baggage-chute", 2, Set.of()), DAY);
        Path path = folder.resolve(name);
        try (BenchFile file = BenchFile.create(path, Session.start(SHEET, "test", DAY))) {
            file.together(() -> write(file, r));
        }
        return path;
    }

    private static void write(BenchFile file, Rehearsal r) {
        Session s = file.session();
        for (Command c : r.acts()) {
            if (c instanceof RunCommand.KeepRun keep) {
                r.samples()
                        .get(keep.run().id())
                        .forEach((channel, samples) -> file.append(keep.run().id(), channel, samples));
            }
            s = c.apply(s);
            file.save(s, DAY, c.says());
        }
    }

    @Test
    void calibrationsInstrumentsAndSetUpsComeBackAsTheyWere() {
        String text = SheetReader.shippedText("calibration-day");
        SheetReader.Located sheet = SheetTrial.read(text, "sheet");
        Rehearsal r = Rehearsal.of(sheet, Rigs.chains(sheet.sheet(), 3, Set.of()), DAY);
        Path path = folder.resolve("day.needle");
        Session last;
        try (BenchFile file = BenchFile.create(path, Session.start(text, "day", DAY))) {
            file.together(() -> write(file, r));
            Session s = file.session();
            Instrument meter = new Instrument(
                    "TH-DM-01",
                    "hand instrument",
                    "meter",
                    "ohm",
                    null,
                    List.of("0 ohm", "2 kohm"),
                    "0.01 ohm",
                    1,
                    "0.1 % of reading",
                    null,
                    30.0,
                    2.0,
                    null,
                    null,
                    List.of(new Instrument.Event(DAY, "calibrated", "x", null, DAY.plusSeconds(9), "passed")),
                    false);
            s = new PlanningCommand.TieInput("R_g", "gauge", meter).apply(s);
            s = new RigCommand.SetUp(
                            "light",
                            s.setup("light").withAverage(16).wiredTo("strain").tagged("left", null),
                            "averaged")
                    .apply(s);
            s = new PlanningCommand.SetRepeats("look", 7).apply(s);
            s = new RigCommand.StartTimer("warm", "warm", DAY).apply(s);
            s = new CalibrationCommand.CheckAfterUse(
                            "strain",
                            s.latestCalibrationOf("strain").orElseThrow().id(),
                            new AfterUse(
                                    DAY.plusSeconds(60),
                                    List.of(s.latestCalibrationOf("strain")
                                            .orElseThrow()
                                            .points()
                                            .get(0)),
                                    AfterUse.Use.CORRECT))
                    .apply(s);
            s = new RunCommand.KeepRun(Run.captured(90, "look", "hand", DAY, "bench", Run.COUNTS)
                            .setUp(s.setups()))
                    .apply(s);
            file.save(s, DAY, "all of it");
            last = s;
        }
        try (BenchFile again = BenchFile.open(path)) {
            Session back = again.session();
            assertThat(back.tied()).isEqualTo(last.tied());
            assertThat(back.setups()).isEqualTo(last.setups());
            assertThat(back.repeats()).isEqualTo(last.repeats());
            assertThat(back.timers()).isEqualTo(last.timers());
            assertThat(back.run(90)).isEqualTo(last.run(90));
            for (int i = 0; i < last.calibrations().size(); i++) {
                Calibration was = last.calibrations().get(i);
                Calibration is = back.calibrations().get(i);
                assertThat(is.points()).isEqualTo(was.points());
                assertThat(is.verification()).isEqualTo(was.verification());
                assertThat(is.after()).isEqualTo(was.after());
                if (was.closure() != null) {
                    assertThat(is.closure().readings())
                            .isDeepEqualTo(was.closure().readings());
                } else {
                    assertThat(is.at(0.5).sameAs(was.at(0.5)))
                            .as("%s, to the last bit, lineage included", was.channel())
                            .isTrue();
                }
            }
        }
    }

    @Test
    void whatBelongsTogetherIsKeptWholeOrNotAtAll() {
        Path path = folder.resolve("together.needle");
        try (BenchFile file = BenchFile.create(path, Session.start(SHEET, "t", DAY))) {
            assertThatThrownBy(() -> file.together(() -> {
                        file.save(file.session(), DAY, "Half done.");
                        throw new IllegalStateException("stop");
                    }))
                    .hasMessage("stop");
            assertThat(file.acts()).hasSize(1);
            file.together(() -> file.save(file.session(), DAY, "Done."));
            assertThat(file.acts()).hasSize(2);
        }
    }

    private static String reduced(Path path) {
        try (BenchFile file = BenchFile.open(path)) {
            Session s = file.session();
            return ReductionJson.of(new Reducer(SheetTrial.read(s.sheetText(), "sheet"), file).reduce(s), List.of());
        }
    }

    @Test
    void aSessionComesBackToTheLastDigit() {
        Path path = simulated("a.needle");
        String before = reduced(path);
        assertThat(before).contains("\"g\"");
        assertThat(reduced(path)).isEqualTo(before);
    }

    @Test
    void everythingOfASessionIsKept() {
        Path path = folder.resolve("b.needle");
        Session s = Session.start(SHEET, "b", DAY);
        try (BenchFile file = BenchFile.create(path, s)) {
            for (Command c : List.of(
                    new PlanningCommand.SetMeasured("spacing", "spacing", "842(1) mm"),
                    new RunCommand.KeepRun(Run.captured(1, "slopes", "A", DAY, "ranger", Run.COUNTS)),
                    new ReducingCommand.SetWindow(1, "rolling", new Window(0.1 + 0.2, 1.0 / 3 + 1, "by hand")),
                    new RunCommand.LeaveOut(1, "blurred"),
                    new RecordCommand.AddNote(DAY, "Ünïcode ✓"),
                    new RigCommand.SignOff("feet", "Feet", DAY),
                    new JudgeCommand.ChooseSchool(eagerneedle.core.judge.School.LIMITS))) {
                s = c.apply(s);
                file.save(s, DAY, c.says());
            }
        }
        try (BenchFile file = BenchFile.open(path)) {
            assertThat(file.session()).isEqualTo(s);
            assertThat(file.acts()).hasSize(8);
            assertThat(file.acts().get(5).text()).isEqualTo("Note: Ünïcode ✓");
        }
    }

    @Test
    void samplesComeBackBitForBit() {
        Random r = new Random(1);
        double[] t = new double[5000];
        double[] v = new double[5000];
        for (int i = 0; i < t.length; i++) {
            t[i] = i * 1e-4 + r.nextDouble() * 1e-9;
            v[i] = switch (i % 5) {
                case 0 -> Double.MIN_VALUE;
                case 1 -> -0.0;
                case 2 -> r.nextGaussian() * 1e300;
                default -> Math.rint(8000 + 3 * r.nextGaussian());
            };
        }
        Path path = folder.resolve("c.needle");
        try (BenchFile file = BenchFile.create(path, Session.start(SHEET, "c", DAY))) {
            file.append(1, "x", new RawSamples(Arrays.copyOf(t, 2000), Arrays.copyOf(v, 2000)));
            file.append(1, "x", new RawSamples(Arrays.copyOfRange(t, 2000, 5000), Arrays.copyOfRange(v, 2000, 5000)));
            assertThat(file.samples(1, "x").size()).isEqualTo(5000);
            assertThat(file.samples(2, "x"))
                    .satisfies(none -> assertThat(none.size()).isZero());
        }
        try (BenchFile file = BenchFile.open(path)) {
            RawSamples back = file.samples(1, "x");
            for (int i = 0; i < 5000; i++) {
                assertThat(Double.doubleToRawLongBits(back.time()[i])).isEqualTo(Double.doubleToRawLongBits(t[i]));
                assertThat(Double.doubleToRawLongBits(back.values()[i])).isEqualTo(Double.doubleToRawLongBits(v[i]));
            }
        }
    }

    @Test
    void countsOfAQuietSensorPackWell() {
        Random r = new Random(2);
        double[] v = r.doubles(10_000).map(d -> Math.rint(1200 + 4 * d)).toArray();
        assertThat(SampleCoding.pack(v).length).isLessThan(10_000 * 3);
        Assertions.assertDoesNotThrow(() -> SampleCoding.unpack(SampleCoding.pack(new double[0])));
        Assertions.assertThrows(java.util.zip.DataFormatException.class, () -> SampleCoding.unpack(new byte[] {1, 2}));
        byte[] cut = Arrays.copyOf(SampleCoding.pack(v), 200);
        Assertions.assertThrows(java.util.zip.DataFormatException.class, () -> SampleCoding.unpack(cut));
    }

    @Test
    void aRunThatWasNotFinishedIsFoundAgain() {
        Path path = folder.resolve("d.needle");
        try (BenchFile file = BenchFile.create(path, Session.start(SHEET, "d", DAY))) {
            file.begin(Run.captured(1, "slopes", "B", DAY, "ranger", Run.COUNTS));
            file.append(1, "position", new RawSamples(new double[] {0, 0.02}, new double[] {900, 901}));
            file.begin(Run.captured(2, "slopes", "B", DAY, "ranger", Run.COUNTS));
        }
        try (BenchFile file = BenchFile.open(path)) {
            assertThat(file.unfinished(file.session())).extracting(Run::id).containsExactly(1);
            assertThat(file.unfinished(file.session()).get(0).level()).isEqualTo("B");
            assertThat(file.nextRunId(file.session())).isEqualTo(3);
        }
    }

    @Test
    void aCopyIsWhole() {
        Path path = simulated("e.needle");
        Path copy = folder.resolve("copy.needle");
        try (BenchFile file = BenchFile.open(path)) {
            file.copyTo(copy);
            assertThatThrownBy(() -> file.copyTo(copy))
                    .isInstanceOf(BenchFileException.class)
                    .hasMessageContaining("exists already");
        }
        assertThat(reduced(copy)).isEqualTo(reduced(path));
    }

    @Test
    void foreignAndMissingFilesGetOneSentence() throws Exception {
        Path text = folder.resolve("letter.needle");
        Files.writeString(text, "Dear laboratory, this is only a letter and no bench file at all.");
        assertSentence(() -> BenchFile.open(text), "letter.needle is not a bench file", false);
        Path empty = folder.resolve("empty.needle");
        Files.createFile(empty);
        assertSentence(() -> BenchFile.open(empty), "is not a bench file", false);
        assertSentence(() -> BenchFile.open(folder.resolve("none.needle")), "is not there", false);
        Path other = folder.resolve("other.needle");
        try (Connection c = DriverManager.getConnection("jdbc:sqlite:" + other);
                var s = c.createStatement()) {
            s.execute("CREATE TABLE cats (name TEXT)");
        }
        assertSentence(() -> BenchFile.open(other), "some other program", false);
        assertSentence(() -> BenchFile.create(other, Session.start(SHEET, "x", DAY)), "exists already", false);
        Path newer = simulated("newer.needle");
        try (Connection c = DriverManager.getConnection("jdbc:sqlite:" + newer);
                var s = c.createStatement()) {
            s.execute("PRAGMA user_version=99");
        }
        assertSentence(() -> BenchFile.open(newer), "newer version", false);
    }

    private static void assertSentence(org.junit.jupiter.api.function.Executable act, String says, boolean damaged) {
        BenchFileException e = Assertions.assertThrows(BenchFileException.class, act);
        assertThat(e.getMessage())
                .contains(says)
                .endsWith(".")
                .doesNotContain("\n")
                .doesNotContain("Exception");
        assertThat(e.damaged()).isEqualTo(damaged);
    }

    @Test
    void aFileCutInHalfIsLeftAloneAndWhatCanBeReadIsSaved() throws IOException {
        Path path = simulated("half.needle");
        byte[] whole = Files.readAllBytes(path);
        byte[] half = Arrays.copyOf(whole, whole.length / 2);
        Files.write(path, half);
        assertSentence(() -> BenchFile.open(path), "cut short or damaged", true);
        assertThat(Files.readAllBytes(path)).isEqualTo(half);
        Path saved = folder.resolve("half-repaired.needle");
        try {
            String says = BenchFile.repair(path, saved, null).sentence();
            assertThat(says).startsWith("half-repaired.needle holds");
            try (BenchFile file = BenchFile.open(saved)) {
                assertThat(file.session().sheetText()).isEqualTo(SHEET);
            }
        } catch (BenchFileException e) {
            assertThat(e.getMessage()).contains("left as it is").endsWith(".");
        }
        assertThat(Files.readAllBytes(path)).isEqualTo(half);
    }

    /**
     * By the hundred: cut anywhere, bits flipped anywhere. What opens is what was there; what does not is said; repair
     * saves most.
     */
    @Test
    void damageAnywhereNeverCrashesIsNeverSilentAndRepairSavesMost() throws IOException {
        Path path = simulated("whole.needle");
        byte[] whole = Files.readAllBytes(path);
        Session session;
        RawSamples[] samples = new RawSamples[29];
        try (BenchFile file = BenchFile.open(path)) {
            session = file.session();
            for (int run = 1; run <= 28; run++) {
                samples[run] = file.samples(run, "position");
            }
        }
        Random r = new Random(9);
        int saved = 0;
        int hurt = 0;
        int blocks = 0;
        for (int i = 0; i < 300; i++) {
            byte[] bytes = whole.clone();
            if (i % 3 == 0) {
                bytes = Arrays.copyOf(bytes, r.nextInt(bytes.length));
            } else {
                for (int k = 0; k < (i % 3 == 1 ? 1 : 6); k++) {
                    bytes[r.nextInt(bytes.length)] ^= (byte) (1 << r.nextInt(8));
                }
            }
            Path damaged = folder.resolve("damaged.needle");
            Path to = folder.resolve("saved.needle");
            Files.deleteIfExists(damaged);
            Files.deleteIfExists(folder.resolve("damaged.needle-wal"));
            Files.deleteIfExists(folder.resolve("damaged.needle-shm"));
            Files.deleteIfExists(to);
            Files.write(damaged, bytes);
            boolean said = false;
            try (BenchFile file = BenchFile.open(damaged)) {
                assertThat(file.session()).as("what opens is what was there").isEqualTo(session);
                for (int run = 1; run <= 28; run++) {
                    try {
                        RawSamples read = file.samples(run, "position");
                        assertThat(read.time()).isEqualTo(samples[run].time());
                        assertThat(read.values()).isEqualTo(samples[run].values());
                        file.overview(run, "position");
                    } catch (BenchFileException e) {
                        assertThat(e.getMessage()).endsWith(".").doesNotContain("\n");
                        said = true;
                    }
                }
            } catch (BenchFileException e) {
                assertThat(e.getMessage()).endsWith(".").doesNotContain("\n");
                said = true;
            }
            if (said) {
                hurt++;
                try {
                    Repaired done = BenchFile.repair(damaged, to, null);
                    saved++;
                    try (BenchFile file = BenchFile.open(to)) {
                        boolean same = file.session().equals(session);
                        for (int run = 1; run <= 28; run++) {
                            boolean whole28 = file.samples(run, "position").size() == samples[run].size();
                            blocks += whole28 ? 1 : 0;
                            same &= whole28;
                        }
                        assertThat(same || !done.missing().isEmpty())
                                .as("the same, or said what is missing: " + done.sentence())
                                .isTrue();
                    }
                } catch (BenchFileException nothing) {
                    assertThat(nothing.getMessage()).endsWith(".");
                }
            }
        }
        assertThat(saved).as("repaired of " + hurt + " damaged files").isGreaterThan(hurt * 3 / 5);
        assertThat(blocks / 28.0 / saved)
                .as("share of runs that came back whole")
                .isGreaterThan(0.7);
    }

    private record Whole(byte[] bytes, Session session, long samples) {}

    private Whole whole(String name) throws IOException {
        Path path = simulated(name);
        try (BenchFile file = BenchFile.open(path)) {
            long n = 0;
            for (int run = 1; run <= 28; run++) {
                n += file.samples(run, "position").size();
            }
            return new Whole(Files.readAllBytes(path), file.session(), n);
        }
    }

    private long samplesIn(Path path) {
        try (BenchFile file = BenchFile.open(path)) {
            long n = 0;
            for (int run = 1; run <= 28; run++) {
                n += file.samples(run, "position").size();
            }
            return n;
        }
    }

    /**
     * One broken page costs what lies on it and nothing else, whichever page it is: above all not what hangs below it.
     */
    @Test
    void aBrokenPageCostsWhatLiesOnIt() throws IOException {
        Whole whole = whole("pages.needle");
        int pages = whole.bytes().length / 4096;
        long lost = 0;
        int without = 0;
        for (int page = 0; page < pages; page++) {
            byte[] bytes = whole.bytes().clone();
            Arrays.fill(bytes, page * 4096, (page + 1) * 4096, (byte) 0xA5);
            Path damaged = folder.resolve("page" + page + ".needle");
            Path to = folder.resolve("page" + page + "-repaired.needle");
            Files.write(damaged, bytes);
            try {
                Repaired done = BenchFile.repair(damaged, to, null);
                long n = samplesIn(to);
                lost += whole.samples() - n;
                boolean branch = whole.bytes()[page * 4096 + (page == 0 ? 100 : 0)] == 5;
                assertThat(branch && n < whole.samples())
                        .as("what hangs below page " + page)
                        .isFalse();
                assertThat(n).isEqualTo(done.samples());
                assertThat(n == whole.samples()
                                || done.missing().stream()
                                        .anyMatch(s -> s.contains("lacks") || s.contains("could not be read")))
                        .as(done.sentence())
                        .isTrue();
            } catch (BenchFileException sheetOrNothing) {
                without++;
            }
            Files.deleteIfExists(to);
            Files.delete(damaged);
        }
        assertThat(lost)
                .as("every block is lost by the pages it lies on and by no other")
                .isBetween(whole.samples() / 2, 2 * whole.samples());
        assertThat(without).as("pages without which there is no sheet").isLessThanOrEqualTo(pages / 10 + 4);
    }

    @Test
    void whyAFileIsRefusedIsNotForgotten() throws Exception {
        Path path = simulated("torn.needle");
        try (Connection c = DriverManager.getConnection("jdbc:sqlite:" + path);
                var rename = c.createStatement()) {
            rename.executeUpdate("ALTER TABLE sheet RENAME TO torn");
        }
        assertSentence(() -> BenchFile.open(path), "cut short or damaged", true);
        assertThatThrownBy(() -> BenchFile.open(path))
                .hasRootCauseInstanceOf(java.sql.SQLException.class)
                .rootCause()
                .hasMessageContaining("sheet");
    }

    /** A sheet whose checksum does not fit is not given a fresh one: a number in it may be another. */
    @Test
    void aGarbledSheetIsNotCarriedOver() throws Exception {
        Path path = simulated("garbled.needle");
        String other = SHEET.replaceFirst("9\\.8126", "9.2126");
        assertThat(other).isNotEqualTo(SHEET);
        try (Connection c = DriverManager.getConnection("jdbc:sqlite:" + path);
                var put = c.prepareStatement("UPDATE sheet SET text = ?")) {
            put.setString(1, other);
            put.executeUpdate();
        }
        assertSentence(() -> BenchFile.open(path), "damaged", true);
        Repaired done = BenchFile.repair(path, folder.resolve("sheet-repaired.needle"), null);
        assertThat(done.missing()).anyMatch(s -> s.contains("garbled") && s.contains("shipped one"));
        try (BenchFile file = BenchFile.open(folder.resolve("sheet-repaired.needle"))) {
            assertThat(file.session().sheetText()).isEqualTo(SHEET);
        }
        try (Connection c = DriverManager.getConnection("jdbc:sqlite:" + path);
                var s = c.createStatement()) {
            s.executeUpdate("UPDATE sheet SET crc = 12345");
        }
        assertSentence(() -> BenchFile.repair(path, folder.resolve("no.needle"), null), "--sheet", false);
        assertThat(folder.resolve("no.needle")).doesNotExist();
        assertThat(BenchFile.repair(path, folder.resolve("given.needle"), SHEET).missing())
                .anyMatch(s -> s.contains("the one given") && s.contains("not the same"));
    }

    /** What stands in the log beside the file is part of it. */
    @Test
    void theLogBesideAFileIsReadToo() throws IOException {
        Path path = folder.resolve("live.needle");
        Path copy = folder.resolve("copy.needle");
        try (BenchFile file = BenchFile.create(path, Session.start(SHEET, "live", DAY))) {
            file.save(file.session(), DAY, "A note.");
            Run run = Run.captured(1, "level_west", "level", DAY, "x", Run.COUNTS);
            file.begin(run);
            file.append(1, "position", new RawSamples(new double[] {0, 1, 2}, new double[] {3, 4, 5}));
            assertThat(Files.size(folder.resolve("live.needle-wal")))
                    .as("the samples of a run that is going on")
                    .isGreaterThan(4096);
            Files.copy(path, copy);
            Files.copy(folder.resolve("live.needle-wal"), folder.resolve("copy.needle-wal"));
        }
        Repaired done = BenchFile.repair(copy, folder.resolve("live-repaired.needle"), null);
        assertThat(done.samples()).isEqualTo(3);
        assertThat(done.acts()).isEqualTo(2);
        try (BenchFile file = BenchFile.open(folder.resolve("live-repaired.needle"))) {
            assertThat(file.unfinished(file.session()))
                    .as("a run that was not kept yet is offered")
                    .hasSize(1);
        }
    }

    /** A gap of any length among blocks stops nothing, and a session that is older than its samples is said. */
    @Test
    void gapsAndOlderSessionsAreTold() throws Exception {
        Path path = folder.resolve("gap.needle");
        try (BenchFile file = BenchFile.create(path, Session.start(SHEET, "gap", DAY))) {
            Run run = Run.captured(1, "level_west", "level", DAY, "x", Run.COUNTS);
            file.begin(run);
            for (int i = 0; i < 600; i++) {
                file.append(1, "position", new RawSamples(new double[] {i}, new double[] {i}));
            }
            file.save(new eagerneedle.core.session.RunCommand.KeepRun(run).apply(file.session()), DAY, "Kept.");
        }
        try (Connection c = DriverManager.getConnection("jdbc:sqlite:" + path);
                var s = c.createStatement()) {
            s.execute("PRAGMA secure_delete=ON");
            s.executeUpdate("DELETE FROM block WHERE seq BETWEEN 50 AND 400");
            s.executeUpdate("UPDATE act SET session = x'00112233' WHERE n = 2");
        }
        Repaired done = BenchFile.repair(path, folder.resolve("gap-repaired.needle"), null);
        assertThat(done.samples()).isEqualTo(600 - 351);
        assertThat(done.sentence())
                .contains("351 blocks could not be read")
                .contains("351 samples")
                .contains("act 1 of 2")
                .contains("run 1 belong to no run");
        try (BenchFile file = BenchFile.open(folder.resolve("gap-repaired.needle"))) {
            assertThat(file.unfinished(file.session())).hasSize(1);
        }
    }

    /** A file as format 1 wrote it opens, is brought up, and gives the same. */
    @Test
    void aFileOfTheFirstFormatIsBroughtUp() throws Exception {
        Path path = simulated("first.needle");
        String now = reduced(path);
        try (Connection c = DriverManager.getConnection("jdbc:sqlite:" + path);
                var s = c.createStatement()) {
            try (var r = s.executeQuery("SELECT seq, time, value FROM block");
                    var put = c.prepareStatement("UPDATE block SET time = ?, value = ? WHERE seq = ?")) {
                while (r.next()) {
                    put.setBytes(1, SampleCoding.pack(BlockCoding.unpack(r.getBytes(2))));
                    put.setBytes(2, SampleCoding.pack(BlockCoding.unpack(r.getBytes(3))));
                    put.setInt(3, r.getInt(1));
                    put.executeUpdate();
                }
            }
            s.execute("DROP TABLE outline");
            s.execute("DROP TABLE attachment");
            s.execute("ALTER TABLE block DROP COLUMN coding");
            s.execute("ALTER TABLE begun DROP COLUMN whole");
            s.execute("ALTER TABLE sheet DROP COLUMN crc");
            s.execute("PRAGMA user_version=1");
        }
        assertThat(reduced(path)).isEqualTo(now);
        try (BenchFile file = BenchFile.open(path)) {
            assertThat(file.count(1, "position"))
                    .isEqualTo(file.samples(1, "position").size())
                    .isPositive();
            assertThat(file.overview(1, "position").samples()).isEqualTo(file.count(1, "position"));
            assertThat(file.integrity()).isEqualTo("ok");
        }
    }

    @Test
    void aFullDiskIsSaidAndWhatWasKeptIsWhole() {
        Path path = folder.resolve("full.needle");
        int kept = 0;
        try (BenchFile file = BenchFile.create(path, Session.start(SHEET, "full", DAY))) {
            file.limit(400_000);
            Random r = new Random(8);
            try {
                for (int b = 0; b < 200; b++) {
                    double[] t = new double[2000];
                    double[] v = new double[2000];
                    for (int i = 0; i < 2000; i++) {
                        t[i] = (2000 * b + i) / 1e3;
                        v[i] = r.nextInt(60_000);
                    }
                    file.append(1, java.util.Map.of("position", new RawSamples(t, v), "other", new RawSamples(t, v)));
                    kept = b + 1;
                }
            } catch (BenchFileException e) {
                assertThat(e.getMessage())
                        .startsWith("Samples could not be written to full.needle")
                        .endsWith("make room on the disk.");
            }
        }
        assertThat(kept).isBetween(5, 199);
        try (BenchFile file = BenchFile.open(path)) {
            assertThat(file.integrity()).isEqualTo("ok");
            assertThat(file.samples(1, "position").size()).isEqualTo(2000 * kept);
            assertThat(file.samples(1, "other").values())
                    .as("all channels of a moment, or none")
                    .isEqualTo(file.samples(1, "position").values());
        }
    }

    @Test
    void aSpanIsReadWithoutTheRest() {
        Path path = folder.resolve("span.needle");
        try (BenchFile file = BenchFile.create(path, Session.start(SHEET, "span", DAY))) {
            for (int b = 0; b < 50; b++) {
                double[] t = new double[1000];
                double[] v = new double[1000];
                for (int i = 0; i < 1000; i++) {
                    t[i] = (1000 * b + i) / 1e3;
                    v[i] = 1000 * b + i;
                }
                file.append(1, java.util.Map.of("position", new RawSamples(t, v)));
            }
            RawSamples s = file.samples(1, "position", 12.3456, 13.2);
            assertThat(s.values()[0]).isEqualTo(12346);
            assertThat(s.values()[s.size() - 1]).isEqualTo(13200);
            assertThat(s.size()).isEqualTo(855);
            assertThat(file.samples(1, "position", 60, 70).size()).isZero();
            assertThat(file.count(1, "position")).isEqualTo(50_000);
            assertThat(file.overview(1, "position").end()).isEqualTo(49.999);
        }
    }

    @Test
    void twoWindowsOnOneFileAreRefused() {
        Path path = simulated("shared.needle");
        try (BenchFile first = BenchFile.open(path)) {
            assertThat(first.session()).isNotNull();
            first.save(first.session(), DAY, "Held open.");
            assertSentence(() -> BenchFile.open(path), "open in another window", false);
        }
        try (BenchFile again = BenchFile.open(path)) {
            assertThat(again.session().runs()).hasSize(28);
        }
    }

    @Test
    void aFolderThatDoesNotTakeTheFileIsSaid() {
        Path impossible = folder.resolve("letter.txt");
        Assertions.assertDoesNotThrow(() -> Files.writeString(impossible, "x"));
        assertSentence(
                () -> BenchFile.create(impossible.resolve("a.needle"), Session.start(SHEET, "x", DAY)),
                "choose another folder",
                false);
    }

    @Test
    void exportsHoldEveryNumberAtFullPrecision() {
        Path path = simulated("x.needle");
        try (BenchFile file = BenchFile.open(path)) {
            Session s = file.session();
            var r = new Reducer(SheetTrial.read(s.sheetText(), "sheet"), file).reduce(s);
            String csv = LedgerCsv.of(r.ledger());
            double g = r.quantity("g").orElseThrow().value();
            assertThat(csv)
                    .startsWith("name,label,group,value,unit,u,dof,k,U,problem\n")
                    .contains("\ng,local g,Result," + g + ",m/s^2,");
            assertThat(ReductionJson.of(r, List.of()))
                    .contains(Double.toString(g))
                    .contains("\"comparisons\"")
                    .contains("\"watches\"");
            Run run = s.run(9).orElseThrow();
            String samples = LedgerCsv.of(
                    run,
                    "position",
                    file.samples(9, "position"),
                    r.trace(run, "position").orElseThrow());
            assertThat(samples.lines().count())
                    .isEqualTo(file.samples(9, "position").size() + 1);
            assertThat(samples).startsWith("time (s),position raw (counts),position (m)\n0.0,");
        }
    }

    private java.util.Map<String, byte[]> everything() throws IOException {
        java.util.Map<String, byte[]> all = new java.util.TreeMap<>();
        try (var list = Files.list(folder)) {
            for (Path p : list.toList()) {
                all.put(p.getFileName().toString(), Files.readAllBytes(p));
            }
        }
        return all;
    }

    private void assertUntouched(java.util.Map<String, byte[]> before) throws IOException {
        java.util.Map<String, byte[]> after = everything();
        assertThat(after.keySet()).isEqualTo(before.keySet());
        before.forEach((name, bytes) -> assertThat(after.get(name)).as(name).isEqualTo(bytes));
    }

    /** A database of another program keeps its way of writing; a damaged file keeps its log. */
    @Test
    void whatIsRefusedIsNotAltered() throws Exception {
        Path foreign = folder.resolve("other.needle");
        try (Connection c = DriverManager.getConnection("jdbc:sqlite:" + foreign);
                var s = c.createStatement()) {
            s.execute("CREATE TABLE cats (name TEXT)");
        }
        var before = everything();
        assertSentence(() -> BenchFile.open(foreign), "some other program", false);
        assertUntouched(before);

        Path path = simulated("torn.needle");
        byte[] log;
        Path logPath = folder.resolve("torn.needle-wal");
        try (BenchFile file = BenchFile.open(path)) {
            file.append(1, java.util.Map.of("position", new RawSamples(new double[] {900}, new double[] {1})));
            log = Files.readAllBytes(logPath);
            assertThat(log.length).isGreaterThan(32);
        }
        byte[] bytes = Files.readAllBytes(path);
        Arrays.fill(bytes, 4096, bytes.length / 2, (byte) 0x5a);
        Files.write(path, bytes);
        Files.write(logPath, log);
        var damaged = everything();
        assertSentence(() -> BenchFile.open(path), "damaged", true);
        assertUntouched(damaged);
    }

    @Test
    void aFileThatCannotBeWrittenToIsNotCalledDamaged() throws IOException {
        Path path = simulated("kept.needle");
        org.junit.jupiter.api.Assumptions.assumeTrue(
                path.toFile().setWritable(false) && !Files.isWritable(path), "this user may write everything");
        assertSentence(() -> BenchFile.open(path), "read-only", false);
    }

    /** Between two acts the file alone is whole: whoever copies it while a session is open has all that was done. */
    @Test
    void aPlainCopyTakenWhileASessionIsOpenIsWhole() throws IOException {
        Path path = folder.resolve("open.needle");
        try (BenchFile file = BenchFile.create(path, Session.start(SHEET, "open", DAY))) {
            Path fresh = folder.resolve("fresh.needle");
            Files.copy(path, fresh);
            try (BenchFile copy = BenchFile.open(fresh)) {
                assertThat(copy.session().title()).isEqualTo("open");
            }
            file.append(1, java.util.Map.of("position", new RawSamples(new double[] {1, 2}, new double[] {3, 4})));
            file.save(file.session(), DAY, "An act.");
            Path later = folder.resolve("later.needle");
            Files.copy(path, later);
            try (BenchFile copy = BenchFile.open(later)) {
                assertThat(copy.acts()).hasSize(2);
                assertThat(copy.samples(1, "position").values()).containsExactly(3, 4);
            }
        }
    }

    @Test
    void whatCannotBeWrittenWholeLeavesWhatWasThere() throws IOException {
        Path place = folder.resolve("report.html");
        Files.writeString(place, "yesterday");
        var before = everything();
        assertThatThrownBy(() -> eagerneedle.store.export.Beside.write(place, part -> {
                    Files.writeString(part, "half of it");
                    throw new IOException("no room");
                }))
                .hasMessage("no room");
        assertUntouched(before);
        eagerneedle.store.export.Beside.write(place, "today");
        assertThat(place).hasContent("today");
    }
}
