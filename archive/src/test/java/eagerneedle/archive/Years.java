package eagerneedle.archive;

import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.session.Command;
import eagerneedle.core.session.RigCommand;
import eagerneedle.core.session.RunCommand;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.rig.simulated.Rehearsal;
import eagerneedle.rig.simulated.Rigs;
import eagerneedle.store.bench.BenchFile;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Path;
import java.time.Instant;
import java.util.Arrays;
import java.util.Map;
import java.util.Set;

/** Simulated sessions of some years, and the command line of an archive. */
final class Years {
    private static final Instant FIRST = Instant.parse("2024-02-05T13:30:00Z");
    private static final int EVERY = 14 * 86400;

    private Years() {}

    record Said(int status, String out, String err) {}

    /** Runs a command of the archive. */
    static Said run(Object... args) {
        StringWriter out = new StringWriter();
        StringWriter err = new StringWriter();
        int status = Main.run(
                new PrintWriter(out, true),
                new PrintWriter(err, true),
                Arrays.stream(args).map(Object::toString).toArray(String[]::new));
        return new Said(status, out.toString(), err.toString());
    }

    /**
     * Writes a session that was carried out on the simulated rig of a method.
     *
     * @param n which; one each fortnight
     * @param who took part
     * @param bench where
     */
    static void session(String method, int n, String who, String bench, Path to, String... faults) {
        SheetReader.Located sheet = SheetTrial.read(SheetReader.shippedText(method), method);
        Instant at = FIRST.plusSeconds((long) n * EVERY);
        Rehearsal r = Rehearsal.of(sheet, Rigs.of(sheet.sheet(), n, Set.of(faults)), at);
        try (BenchFile file = BenchFile.create(to, Session.start(sheet.text(), "of " + who, at))) {
            file.together(() -> {
                Session s = new RigCommand.BeAtBench(who).apply(file.session());
                s = new RigCommand.WorkAtBench(bench, Map.of(), Map.of(), at).apply(s);
                for (Command act : r.acts()) {
                    if (act instanceof RunCommand.KeepRun keep) {
                        file.begin(keep.run());
                        r.samples()
                                .get(keep.run().id())
                                .forEach(
                                        (channel, raw) -> file.append(keep.run().id(), channel, raw));
                    }
                    s = act.apply(s);
                }
                file.save(s, at, "all of it");
            });
        }
    }
}
