package eagerneedle.app.workbench;

import eagerneedle.core.reduce.Reducer;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.report.Handout;
import eagerneedle.report.Paper;
import eagerneedle.report.SessionReport;
import eagerneedle.rig.simulated.Rehearsal;
import eagerneedle.rig.simulated.Rigs;
import eagerneedle.store.bench.BenchFileException;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.slf4j.LoggerFactory;

/** Reports of sessions, and handouts of sheets; the instructor's copy is filled by carrying the sheet out once. */
public final class Papering {
    private Papering() {}

    public static byte[] pdf(SheetReader.Located sheet, boolean key, Paper paper) {
        return Handout.pdf(sheet.sheet(), expected(sheet, key), paper);
    }

    public static String html(SheetReader.Located sheet, boolean key, Paper paper) {
        return Handout.html(sheet.sheet(), expected(sheet, key), paper);
    }

    /** The report of a session as it is: PDF, or one page of HTML in UTF-8. */
    static byte[] report(Workbench bench, boolean paper, Paper size) {
        Reduction reduction = bench.reduction();
        Instant now = bench.clock().instant();
        SessionReport.Attachments pictures = n -> {
            try {
                return Optional.of(bench.file().attachment(n));
            } catch (BenchFileException | IllegalArgumentException gone) {
                LoggerFactory.getLogger(Papering.class).warn("A picture could not be read", gone);
                return Optional.empty();
            }
        };
        return paper
                ? SessionReport.pdf(reduction, bench.found(), bench.file().acts(), now, pictures, size)
                : SessionReport.html(reduction, bench.found(), bench.file().acts(), now, pictures, size)
                        .getBytes(StandardCharsets.UTF_8);
    }

    /** @throws IllegalArgumentException with one sentence for a key of a sheet that cannot be carried out */
    private static Optional<Reduction> expected(SheetReader.Located sheet, boolean key) {
        if (!key) {
            return Optional.empty();
        }
        if (!Rigs.canRehearse(sheet.sheet())) {
            throw new IllegalArgumentException(
                    "This sheet has no rig, so nothing can be expected of it; write one, or print it without the key.");
        }
        Rehearsal r = Rehearsal.of(
                sheet, Rigs.of(sheet.sheet(), LiveRig.BENCH_SEED, Set.of()), Instant.parse("2026-11-23T09:00:00Z"));
        return Optional.of(new Reducer(
                        sheet,
                        (run, channel) ->
                                r.samples().getOrDefault(run, Map.of()).getOrDefault(channel, RawSamples.NONE))
                .reduce(r.session()));
    }
}
