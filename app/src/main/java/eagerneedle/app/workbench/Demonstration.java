package eagerneedle.app.workbench;

import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.session.Command;
import eagerneedle.core.session.Notebook;
import eagerneedle.core.session.RigCommand;
import eagerneedle.core.session.RunCommand;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.rig.simulated.Rehearsal;
import eagerneedle.rig.simulated.Rigs;
import eagerneedle.rig.simulated.SimulatedRig;
import eagerneedle.store.bench.BenchFile;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.Objects;
import java.util.Set;

/** Whole sessions carried out on simulated rigs, as bench files. */
public final class Demonstration {
    /** When the demonstration sessions were held. */
    static final Instant DEMO_DAY = Instant.parse("2026-11-23T09:00:00Z");

    private Demonstration() {}

    /** The demonstration session of a shipped method in the program's own folder; made the first time. */
    public static Path of(String method) throws IOException {
        Path file = Home.folder().resolve("demo-" + method + ".needle");
        if (!Files.exists(file)) {
            Files.createDirectories(file.getParent());
            Path making = file.resolveSibling("demo-" + method + ".making");
            simulate(method, LiveRig.BENCH_SEED, Set.of(), making);
            Files.move(making, file);
        }
        return file;
    }

    /** Carries a shipped method out on its simulated rig and writes the session with its acts and samples. */
    public static Rehearsal simulate(String method, long seed, Set<String> faults, Path to) throws IOException {
        return simulate(SheetTrial.read(SheetReader.shippedText(method), method + ".yaml"), seed, faults, to);
    }

    /**
     * Carries a method out on the simulated rig that its sheet names.
     *
     * @throws IllegalArgumentException when it names none, or the rig knows no such fault
     */
    public static Rehearsal simulate(SheetReader.Located located, long seed, Set<String> faults, Path to)
            throws IOException {
        if (!Rigs.canRehearse(located.sheet())) {
            throw new IllegalArgumentException(located.sheet().id()
                    + " has no physics to be carried out; write it under rig, or 'rig: chains' at one of its devices.");
        }
        SimulatedRig rig = Rigs.of(located.sheet(), seed, faults);
        Rehearsal r = Rehearsal.of(located, rig, DEMO_DAY);
        Files.deleteIfExists(to);
        try (BenchFile file = BenchFile.create(
                to, Session.start(located.text(), located.sheet().title(), DEMO_DAY))) {
            file.together(() -> write(r, file, located.sheet()));
        }
        return r;
    }

    private static void write(Rehearsal r, BenchFile file, Sheet sheet) {
        Session session = file.session();
        Instant at = DEMO_DAY;
        for (Command act : r.acts()) {
            if (act instanceof RunCommand.KeepRun keep) {
                file.begin(keep.run());
                Objects.requireNonNull(r.samples().get(keep.run().id()))
                        .forEach((channel, samples) -> file.append(keep.run().id(), channel, samples));
                at = keep.run().started().plusSeconds(20);
            } else if (act instanceof RigCommand.SignOff sign && sign.at() != null) {
                at = sign.at();
            } else {
                at = at.plusSeconds(45);
            }
            session = act.apply(session);
            file.save(session, at, Notebook.line(act, session, sheet));
        }
    }
}
