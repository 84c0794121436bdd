package eagerneedle.app.classroom;

import eagerneedle.core.reduce.Reducer;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.session.Command;
import eagerneedle.core.session.Notebook;
import eagerneedle.core.session.PlanningCommand;
import eagerneedle.core.session.RigCommand;
import eagerneedle.core.session.RunCommand;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.rig.simulated.Rehearsal;
import eagerneedle.rig.simulated.Rigs;
import eagerneedle.store.bench.BenchFile;
import eagerneedle.store.classroom.ClassKey;
import java.nio.file.Path;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/** Data from the simulated rig of a sheet: its own hidden truth, its own readings, its own scatter for every unit. */
final class RigSource implements ClassSet.Source {
    private final SheetReader.Located whole;
    private final String text;
    private final Sheet students;
    private final String secret;
    private final Instant day;

    RigSource(SheetReader.Located whole, String secret, Instant day) {
        this.whole = whole;
        this.secret = secret;
        this.day = day;
        text = ClassSet.forStudents(whole);
        students = SheetTrial.readOfSession(text, whole.file()).sheet();
    }

    @Override
    public ClassKey.Unit write(String unit, Path bench, List<String> faults) {
        long seed = ClassKey.number(secret, "data", whole.sheet().id(), unit);
        Rehearsal r = Rehearsal.of(whole, Rigs.of(whole.sheet(), seed, new LinkedHashSet<>(faults)), day);
        try (BenchFile file =
                BenchFile.create(bench, Session.start(text, whole.sheet().title(), day))) {
            file.together(() -> write(r, file));
        }
        Map<String, String> truth = new LinkedHashMap<>();
        r.truth().forEach((n, q) -> truth.put(n, ClassSet.written(q)));
        return new ClassKey.Unit(faults, truth, Map.of());
    }

    @Override
    public Reduction example() {
        Rehearsal r = Rehearsal.of(whole, Rigs.of(whole.sheet(), 1, Set.of()), day);
        return new Reducer(
                        whole,
                        (run, channel) ->
                                r.samples().getOrDefault(run, Map.of()).getOrDefault(channel, RawSamples.NONE))
                .reduce(r.session());
    }

    private void write(Rehearsal r, BenchFile file) {
        Session session = file.session();
        Instant at = day;
        for (Command act : r.acts()) {
            if (act instanceof PlanningCommand.SetMeasured m
                    && !students.inputs().containsKey(m.input())) {
                continue;
            }
            if (act instanceof RunCommand.KeepRun keep) {
                file.begin(keep.run());
                r.samples()
                        .getOrDefault(keep.run().id(), Map.of())
                        .forEach((channel, samples) -> file.append(keep.run().id(), channel, samples));
                at = keep.run().started().plusSeconds(20);
            } else if (act instanceof RigCommand.SignOff sign && sign.at() != null) {
                at = sign.at();
            } else {
                at = at.plusSeconds(45);
            }
            session = act.apply(session);
            file.save(session, at, Notebook.line(act, session, students));
        }
    }
}
