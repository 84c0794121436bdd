package eagerneedle.app.workbench;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import eagerneedle.app.Rehearsed;
import eagerneedle.app.station.Progress;
import eagerneedle.app.station.Station;
import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.calibration.CalibrationPoint;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Key;
import eagerneedle.core.session.CalibrationCommand;
import eagerneedle.core.session.JudgeCommand;
import eagerneedle.core.session.PlanningCommand;
import eagerneedle.core.session.RecordCommand;
import eagerneedle.core.session.ReducingCommand;
import eagerneedle.core.session.RigCommand;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.RunCommand;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.Window;
import eagerneedle.store.bench.BenchFile;
import eagerneedle.store.delimited.Table;
import eagerneedle.store.export.ReductionJson;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class WorkbenchTest {
    private static final Clock CLOCK = Clock.fixed(Instant.parse("2026-11-23T12:00:00Z"), ZoneOffset.UTC);

    @TempDir
    private Path folder;

    private Path file;
    private Workbench bench;

    @BeforeEach
    void open() {
        file = Rehearsed.in(folder, "baggage-chute");
        bench = new Workbench(BenchFile.open(file), CLOCK);
    }

    @AfterEach
    void close() {
        bench.close();
    }

    private String results() {
        return ReductionJson.of(bench.reduction(), bench.findings());
    }

    @Test
    void anActIsShownMarkedAndKept() {
        AtomicInteger told = new AtomicInteger();
        bench.onChange(told::incrementAndGet);
        double before = bench.reduction().quantity("g").orElseThrow().value();
        bench.apply(new PlanningCommand.SetMeasured("spacing", "foot spacing", "850.0(6) mm"));
        assertThat(bench.reduction().quantity("g").orElseThrow().value()).isGreaterThan(before);
        assertThat(bench.changed())
                .contains(new Key.Global("spacing"), new Key.Global("g"), new Key.Global("g_eff"))
                .doesNotContain(new Key.Global("m_c"));
        assertThat(told.get()).isEqualTo(1);
        bench.lookedAt(new Key.Global("g"));
        assertThat(bench.changed()).doesNotContain(new Key.Global("g"));
        bench.close();
        bench = new Workbench(BenchFile.open(file), CLOCK);
        assertThat(bench.session().measured().get("spacing")).isEqualTo("850.0(6) mm");
        assertThat(bench.changed()).isEmpty();
    }

    @Test
    void recalibratingReducesStoredRunsAgainAndTheLedgerKnowsWhatMovedAndFromWhere() {
        Quantity before = bench.reduction().quantity("g").orElseThrow();
        Calibration old = bench.session().latestCalibrationOf("position").orElseThrow();
        List<CalibrationPoint> stretched = old.points().stream()
                .map(p -> new CalibrationPoint(
                        p.reference(), p.indication() * 0.99, p.uIndication(), p.samples(), p.steady()))
                .toList();
        bench.apply(new CalibrationCommand.Calibrate(Calibration.line(
                "again",
                "position",
                old.kind(),
                "m",
                stretched,
                CLOCK.instant(),
                CLOCK.instant().plusSeconds(86400),
                "x",
                "")));
        Quantity now = bench.reduction().quantity("g").orElseThrow();
        assertThat(now.value() / before.value())
                .as("a ruler one percent longer")
                .isCloseTo(1 / 0.99, org.assertj.core.api.Assertions.within(1e-3));
        assertThat(bench.changed()).contains(new Key.Global("g"));
        assertThat(bench.before(new Key.Global("g")).orElseThrow().sameAs(before))
                .isTrue();
        bench.apply(new PlanningCommand.SetMeasured("m_w", "wheels", "0.0250(1) kg"));
        assertThat(bench.before(new Key.Global("g")).orElseThrow().sameAs(before))
                .as("what it was when it was last looked at")
                .isTrue();
        bench.lookedAt(new Key.Global("g"));
        assertThat(bench.before(new Key.Global("g"))).isEmpty();
        assertThat(bench.reduction().doubts(now, CLOCK.instant().plusSeconds(90000)))
                .as("runs are judged by the day they were captured on")
                .isEmpty();
        Instant captured = bench.reduction().lastUse("position").orElseThrow();
        bench.apply(new CalibrationCommand.Calibrate(Calibration.line(
                "late",
                "position",
                old.kind(),
                "m",
                stretched,
                captured.minusSeconds(90000),
                captured.minusSeconds(3600),
                "x",
                "")));
        assertThat(bench.reduction().doubts(bench.reduction().quantity("g").orElseThrow(), captured))
                .anyMatch(d -> d.contains("position") && d.contains("was due"));
    }

    @Test
    void whatIsTriedChangesEverythingButTheFileAndWhatHappensMeanwhileIsKept() {
        Quantity before = bench.reduction().quantity("g").orElseThrow();
        bench.startTrying();
        bench.apply(new PlanningCommand.SetMeasured("spacing", "foot spacing", "850.0(6) mm"));
        bench.apply(new RunCommand.LeaveOut(12, "tried"));
        assertThatThrownBy(() -> bench.apply(new PlanningCommand.SetMeasured("spacing", "foot spacing", "850 furlong")))
                .hasMessageContaining("furlong");
        assertThat(bench.tried()).hasSize(2);
        Quantity tried = bench.reduction().quantity("g").orElseThrow();
        assertThat(tried.sameAs(before)).isFalse();
        assertThat(bench.before(new Key.Global("g")).orElseThrow().sameAs(before))
                .isTrue();
        assertThat(bench.before(new Key.Global("m_c")))
                .as("what did not change")
                .isEmpty();
        bench.apply(new RecordCommand.AddNote(CLOCK.instant(), "somebody knocked"));
        assertThat(bench.file().session().notes()).hasSize(1);
        assertThat(bench.file().session().run(12).orElseThrow().leftOut()).isNull();
        assertThat(bench.reduction().quantity("g").orElseThrow().sameAs(tried))
                .as("still tried")
                .isTrue();
        assertThat(bench.undo().orElseThrow()).contains("No longer tried");
        assertThat(bench.tried()).hasSize(1);
        bench.keepTried();
        assertThat(bench.file().session().measured().get("spacing")).isEqualTo("850.0(6) mm");
        assertThat(bench.changed()).contains(new Key.Global("g"));
        bench.startTrying();
        bench.apply(new JudgeCommand.ChooseSchool(eagerneedle.core.judge.School.LIMITS));
        bench.forgetTried();
        assertThat(bench.session().school()).isNull();
        assertThat(bench.canRedo()).isFalse();
        bench.undo();
        assertThat(bench.reduction().quantity("g").orElseThrow().sameAs(before)).isTrue();
    }

    /** On a full disk an act, an undo and a redo are refused as a whole: what is in memory is what is in the file. */
    @Test
    void whatAFullDiskRefusesChangesNothingInMemoryEither() {
        bench.apply(new PlanningCommand.SetMeasured("spacing", "foot spacing", "850.0(6) mm"));
        bench.apply(new PlanningCommand.SetMeasured("spacing", "foot spacing", "851.0(6) mm"));
        bench.undo();
        bench.file().limit(1);
        java.util.Random random = new java.util.Random(4);
        assertThatThrownBy(() -> {
                    for (int i = 0; i < 200; i++) {
                        bench.apply(new RecordCommand.AddNote(
                                CLOCK.instant(),
                                random.ints(900, 33, 1000)
                                        .collect(
                                                StringBuilder::new,
                                                StringBuilder::appendCodePoint,
                                                StringBuilder::append)
                                        .toString()));
                    }
                })
                .isInstanceOf(eagerneedle.store.bench.BenchFileException.class)
                .hasMessageContaining("make room");
        assertThat(bench.session()).isEqualTo(bench.file().session());
        int refused = 0;
        for (int i = 0; i < 60 && refused < 3; i++) {
            Session last = bench.session();
            String before = results();
            boolean undo = bench.canUndo();
            boolean redo = bench.canRedo();
            try {
                boolean back =
                        i % 2 == 0 ? bench.undo().isPresent() : bench.redo().isPresent();
                assertThat(back).isEqualTo(i % 2 == 0 ? undo : redo);
            } catch (eagerneedle.store.bench.BenchFileException e) {
                assertThat(e.getMessage()).contains("make room");
                assertThat(bench.session()).isEqualTo(last);
                assertThat(results()).isEqualTo(before);
                assertThat(bench.canUndo()).isEqualTo(undo);
                assertThat(bench.canRedo()).isEqualTo(redo);
                refused++;
            }
            assertThat(bench.session()).isEqualTo(bench.file().session());
        }
        assertThat(refused).as("undoing and redoing fill the disk at last").isEqualTo(3);
        Session kept = bench.session();
        bench.file().limit(1L << 40);
        // The disk was full while going one way or the other.
        assertThat(bench.canUndo() ? bench.undo() : bench.redo()).isPresent();
        assertThat(bench.session()).isNotEqualTo(kept).isEqualTo(bench.file().session());
    }

    /**
     * A run whose samples are in a unit that nobody knows is told, can be left out, and does not lock the session it
     * lies in.
     */
    @Test
    void aRunInAnUnknownUnitDoesNotLockItsSession() {
        Quantity before = bench.reduction().quantity("g").orElseThrow();
        int id = bench.file().nextRunId(bench.session());
        Run run = Run.captured(id, "slopes", "A", CLOCK.instant(), "some instrument", "blorgs");
        bench.file().begin(run);
        bench.file()
                .append(
                        id,
                        java.util.Map.of(
                                "position",
                                new eagerneedle.core.trace.RawSamples(
                                        new double[] {0, 0.1, 0.2}, new double[] {1, 2, 3})));
        bench.apply(new RunCommand.KeepRun(run));
        assertThat(bench.reduction()
                        .ofRun(bench.session().run(id).orElseThrow(), "a")
                        .problem())
                .contains("'blorgs'");
        bench.close();
        bench = new Workbench(BenchFile.open(file), CLOCK);
        assertThat(bench.findings()).anyMatch(f -> f.run() == id);
        bench.apply(new RunCommand.LeaveOut(id, "in no known unit"));
        assertThat(bench.reduction().quantity("g").orElseThrow().sameAs(before)).isTrue();
    }

    @Test
    void undoGivesTheSameNumbersBackAndTheNotebookKeepsBoth() {
        String before = results();
        int acts = bench.file().acts().size();
        bench.apply(new ReducingCommand.SetWindow(20, "rolling", new Window(0.6, 1.2, "moved by hand")));
        assertThat(results()).isNotEqualTo(before);
        assertThat(bench.undo()).hasValueSatisfying(s -> assertThat(s).startsWith("Undid: Set the window"));
        assertThat(results()).isEqualTo(before);
        bench.redo();
        assertThat(results()).isNotEqualTo(before);
        bench.undo();
        assertThat(bench.file().acts()).hasSize(acts + 4);
        assertThat(bench.canRedo()).isTrue();
    }

    @Test
    void reopeningGivesTheSameLedgerToTheLastDigit() {
        bench.apply(new ReducingCommand.SetWindow(20, "rolling", new Window(0.6, 1.2, "moved by hand")));
        String before = results();
        bench.close();
        bench = new Workbench(BenchFile.open(file), CLOCK);
        assertThat(results()).isEqualTo(before);
    }

    @Test
    void aPreviewShowsWithoutKeeping() {
        String before = results();
        int acts = bench.file().acts().size();
        bench.preview(new ReducingCommand.SetWindow(20, "rolling", new Window(0.6, 1.2, "x")));
        assertThat(results()).isNotEqualTo(before);
        bench.preview(null);
        assertThat(results()).isEqualTo(before);
        assertThat(bench.file().acts()).hasSize(acts);
        assertThat(bench.canUndo()).isFalse();
    }

    @Test
    void whatIfChangesNothing() {
        String before = results();
        double other = bench.whatIf(new RunCommand.LeaveOut(20, "what if"))
                .quantity("g")
                .orElseThrow()
                .value();
        assertThat(other)
                .isNotEqualTo(bench.reduction().quantity("g").orElseThrow().value());
        assertThat(results()).isEqualTo(before);
    }

    @Test
    void whatCannotBeDoneChangesNothing() {
        String before = results();
        assertThatThrownBy(() -> bench.apply(new PlanningCommand.SetMeasured("spacing", "foot spacing", "broad")))
                .isInstanceOf(IllegalArgumentException.class);
        assertThat(results()).isEqualTo(before);
        assertThat(bench.canUndo()).isFalse();
    }

    @Test
    void stationsKnowHowFarTheyAre() {
        assertThat(Progress.of(bench, Station.PLAN)).isEqualTo(Station.State.DONE);
        assertThat(Progress.of(bench, Station.CAPTURE)).isEqualTo(Station.State.DONE);
        assertThat(Progress.of(bench, Station.RECORD)).isEqualTo(Station.State.NOT_YET);
        bench.apply(new RigCommand.SignOff("cart", "Cart", CLOCK.instant()));
        assertThat(Progress.of(bench, Station.RECORD)).isEqualTo(Station.State.ATTENTION);
        bench.apply(new RunCommand.DiscardRun(28, "wrong block"));
        assertThat(Progress.of(bench, Station.CAPTURE)).isEqualTo(Station.State.ATTENTION);
        assertThat(bench.schedule().next())
                .hasValueSatisfying(n -> assertThat(n).containsExactly("slopes", "E"));
    }

    @Test
    void anImportedRunTakesPart() {
        double[] t = new double[80];
        double[] v = new double[80];
        for (int i = 0; i < 80; i++) {
            t[i] = 0.02 * i;
            v[i] = 300 + 250 * t[i] * t[i] + (i % 3);
        }
        Table table = new Table(List.of("time", "x"), List.of("s", "mm"), new double[][] {t, v}, -1, null, List.of());
        Run run =
                ColumnMapping.guess(table, bench.sheet(), "slopes").bring(bench, table, "elsewhere.csv", "slopes", "C");
        assertThat(run.id()).isEqualTo(29);
        assertThat(bench.reduction().ofRun(run, "a").quantity().orElseThrow().value())
                .isBetween(0.45, 0.55);
        assertThat(bench.reduction().column("slopes.a")).hasSize(21);
        assertThat(bench.file().acts().get(bench.file().acts().size() - 1).text())
                .contains("elsewhere.csv");
    }

    @Test
    void anEmptySessionWaitsForItsRuns() throws Exception {
        Path empty = folder.resolve("empty.needle");
        Files.deleteIfExists(empty);
        try (Workbench fresh = new Workbench(
                BenchFile.create(
                        empty, Session.start(SheetReader.shippedText("baggage-chute"), "fresh", CLOCK.instant())),
                CLOCK)) {
            for (Station s : Station.values()) {
                assertThat(Progress.of(fresh, s)).isEqualTo(Station.State.NOT_YET);
            }
            assertThat(fresh.schedule().next())
                    .hasValueSatisfying(n -> assertThat(n).containsExactly("level_east", "level"));
            assertThat(fresh.findings()).isEmpty();
            assertThat(fresh.plan().quantity("g"))
                    .as("told when the plan has been carried out")
                    .isEmpty();
        }
    }
}
