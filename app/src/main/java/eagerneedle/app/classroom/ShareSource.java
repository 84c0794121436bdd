package eagerneedle.app.classroom;

import eagerneedle.core.reduce.Reducer;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.session.CalibrationCommand;
import eagerneedle.core.session.Command;
import eagerneedle.core.session.Notebook;
import eagerneedle.core.session.PlanningCommand;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.RunCommand;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.store.FileName;
import eagerneedle.store.bench.BenchFile;
import eagerneedle.store.classroom.ClassKey;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;

/**
 * A share of the runs of one real session for every unit: where a level was taken more than once, about two thirds of
 * its runs; where it was not, four levels in five, and never fewer than three.
 */
final class ShareSource implements ClassSet.Source {
    private static final double OF_RUNS = 2 / 3.0;
    private static final double OF_LEVELS = 0.8;
    private static final int LEAST = 3;

    private final SheetReader.Located whole;
    private final Path session;
    private final String secret;
    private final String text;
    private final Sheet students;

    ShareSource(SheetReader.Located whole, Path session, String secret) {
        this.whole = whole;
        this.session = session;
        this.secret = secret;
        text = ClassSet.forStudents(whole);
        students = SheetTrial.readOfSession(text, whole.file()).sheet();
    }

    @Override
    public synchronized ClassKey.Unit write(String unit, Path bench, List<String> faults) {
        // Several units are written at once, but a bench file is open in one place only.
        try (BenchFile from = BenchFile.open(session)) {
            Session real = from.session();
            if (real.keptRuns().isEmpty()) {
                throw new IllegalArgumentException(
                        FileName.of(session) + " has no run to share out; capture some, or take the rig's.");
            }
            Random random =
                    new Random(ClassKey.number(secret, "share", whole.sheet().id(), unit));
            List<Run> share = share(real, random);
            Session start = Session.start(text, whole.sheet().title(), real.created());
            try (BenchFile file = BenchFile.create(bench, start)) {
                file.together(() -> write(real, share, from, file));
            }
        }
        return new ClassKey.Unit(List.of(), Map.of(), Map.of());
    }

    @Override
    public Reduction example() {
        try (BenchFile from = BenchFile.open(session)) {
            return new Reducer(whole, from).reduce(from.session());
        }
    }

    private static List<Run> share(Session real, Random random) {
        Map<String, Map<String, List<Run>>> levels = new LinkedHashMap<>();
        real.keptRuns().stream()
                .filter(Run::takesPart)
                .forEach(r -> levels.computeIfAbsent(r.capture(), c -> new LinkedHashMap<>())
                        .computeIfAbsent(r.level(), l -> new ArrayList<>())
                        .add(r));
        List<Run> out = new ArrayList<>();
        levels.forEach((capture, by) -> {
            boolean repeated = by.values().stream().anyMatch(runs -> runs.size() > 1);
            if (repeated) {
                by.values().forEach(runs -> out.addAll(some(runs, (int) Math.ceil(OF_RUNS * runs.size()), random)));
            } else {
                List<Run> all = by.values().stream().flatMap(List::stream).toList();
                out.addAll(some(all, Math.max(LEAST, (int) Math.ceil(OF_LEVELS * all.size())), random));
            }
        });
        out.sort(java.util.Comparator.comparingInt(Run::id));
        return out;
    }

    private static List<Run> some(List<Run> of, int n, Random random) {
        List<Run> left = new ArrayList<>(of);
        while (left.size() > n) {
            left.remove(random.nextInt(left.size()));
        }
        return left;
    }

    private void write(Session real, List<Run> share, BenchFile from, BenchFile to) {
        List<Command> acts = new ArrayList<>();
        real.measured().forEach((input, reading) -> {
            if (students.inputs().containsKey(input)) {
                acts.add(new PlanningCommand.SetMeasured(
                        input, String.valueOf(students.inputs().get(input).label()), reading));
            }
        });
        real.calibrations().forEach(c -> acts.add(new CalibrationCommand.Calibrate(c)));
        share.forEach(r -> acts.add(new RunCommand.KeepRun(plain(r))));
        Session session = to.session();
        Instant at = real.created();
        for (Command act : acts) {
            if (act instanceof RunCommand.KeepRun keep) {
                to.begin(keep.run());
                Sheet sheet = whole.sheet();
                java.util.Objects.requireNonNull(sheet.captures().get(keep.run().capture()))
                        .channels()
                        .forEach(c -> to.append(
                                keep.run().id(), c, from.samples(keep.run().id(), c)));
                at = keep.run().started();
            }
            session = act.apply(session);
            to.save(session, at, Notebook.line(act, session, students));
        }
    }

    /** A run as it was captured: windows that somebody set by hand are part of the answer. */
    private static Run plain(Run r) {
        Run out = r;
        for (String w : r.windows().keySet()) {
            out = out.windowed(w, null);
        }
        return out;
    }
}
