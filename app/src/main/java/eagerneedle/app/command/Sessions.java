package eagerneedle.app.command;

import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.session.Command;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.sheet.SheetException;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.rig.simulated.Rehearsal;
import eagerneedle.rig.simulated.RigModel;
import eagerneedle.rig.simulated.Rigs;
import eagerneedle.store.bench.BenchFile;
import java.io.IOException;
import java.nio.charset.MalformedInputException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.Set;

/** Bench files made from sheets and simulated rigs. */
final class Sessions {
    /** When the demonstration session was held. */
    static final Instant DEMO_DAY = Instant.parse("2026-11-23T09:00:00Z");

    private Sessions() {
    }

    /** A sheet from a file, checked. */
    static SheetReader.Located sheet(Path file) {
        try {
            return SheetTrial.read(Files.readString(file), file.getFileName().toString());
        } catch (MalformedInputException e) {
            throw new SheetException(file.getFileName().toString(), 0, 0, "this is not a text file; a sheet is YAML in UTF-8.");
        } catch (IOException e) {
            throw new SheetException(file.getFileName().toString(), 0, 0, Files.exists(file) ? "the file cannot be read." : "there is no such file.");
        }
    }

    /** Carries a shipped method out on its simulated rig and writes the session with its acts and samples. */
    static Rehearsal simulate(String method, long seed, Set<String> faults, Path to) throws IOException {
        SheetReader.Located located = SheetTrial.read(SheetReader.shippedText(method), method + ".yaml");
        Sheet.Device device = located.sheet().devices().values().stream().filter(d -> d.rig() != null).findFirst()
                .orElseThrow(() -> new IllegalArgumentException(method + " names no simulated rig."));
        RigModel rig = Rigs.create(device.rig(), located.sheet(), seed, faults);
        Rehearsal r = Rehearsal.of(located, rig, DEMO_DAY);
        Files.deleteIfExists(to);
        try (BenchFile file = BenchFile.create(to, Session.start(located.text(), located.sheet().title(), DEMO_DAY))) {
            file.together(() -> write(r, file));
        }
        return r;
    }

    private static void write(Rehearsal r, BenchFile file) {
        Session session = file.session();
        Instant at = DEMO_DAY;
        for (Command act : r.acts()) {
            if (act instanceof Command.KeepRun keep) {
                file.begin(keep.run());
                r.samples().get(keep.run().id()).forEach((channel, samples) -> file.append(keep.run().id(), channel, samples));
                at = keep.run().started().plusSeconds(20);
            } else if (act instanceof Command.SignOff sign && sign.at() != null) {
                at = sign.at();
            } else {
                at = at.plusSeconds(45);
            }
            session = act.apply(session);
            file.save(session, at, act.says());
        }
    }
}
