package eagerneedle.store.export;

import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.session.Run;
import eagerneedle.core.trace.Trace;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/** All runs of a session as CSV files in a folder, one for each channel of each run. */
public final class RunFiles {
    private RunFiles() {}

    /**
     * Writes every kept run whose measurand could be worked out, in place of files of the same names.
     *
     * @return how many files were written
     * @throws IllegalArgumentException with one sentence when a file cannot be written
     */
    public static int write(Reduction r, Path folder) {
        List<Run> kept = r.runs().stream().filter(x -> x.discard() == null).toList();
        int n = 0;
        for (Run run : kept) {
            for (String channel : r.sheet().capture(run.capture()).channels()) {
                Optional<Trace> trace = r.trace(run, channel);
                if (trace.isPresent()) {
                    write(
                            folder.resolve(name(run, channel)),
                            LedgerCsv.of(run, channel, r.samples(run, channel), trace.get()));
                    n++;
                }
            }
        }
        return n;
    }

    private static String name(Run run, String channel) {
        return String.format(Locale.ROOT, "run-%02d-%s-%s-%s.csv", run.id(), run.capture(), run.level(), channel);
    }

    private static void write(Path to, String text) {
        try {
            Beside.write(to, text);
        } catch (IOException e) {
            throw new IllegalArgumentException(
                    to.getFileName() + " cannot be written there; choose another folder.", e);
        }
    }
}
