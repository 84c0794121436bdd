package eagerneedle.app.day;

import eagerneedle.app.widget.Sentence;
import eagerneedle.app.workbench.Fault;
import eagerneedle.core.stockroom.Correction;
import java.nio.file.Path;
import java.time.Clock;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.function.BiConsumer;
import org.jspecify.annotations.Nullable;

/**
 * A standard being put right, without a window: what is looked for, what was found for it and may be written. What was
 * found is for what was asked and for nothing else: a word changed meanwhile, and nothing of it is written.
 */
final class RightModel {
    private static final String AT_FIRST = "Nothing is changed until it is written.";
    private static final Sentence NONE = Sentence.quiet("What would move is listed here, session by session.");

    private final Clock clock;
    private String state = AT_FIRST;
    private List<Sentence> lines = List.of(NONE);
    private @Nullable FolderRight found;
    private @Nullable Look looking;

    RightModel(Clock clock) {
        this.clock = clock;
    }

    /**
     * What is written in the fields, as it is read.
     *
     * @param times factor of the standard's value; empty for one
     * @param plus what is added to it; empty for nothing
     * @param at references that were of the standard, apart by semicolons; empty for all
     */
    record Fields(String standard, String times, String plus, String at, String why, String by, String folder) {}

    /**
     * A look through a folder that was begun.
     *
     * @param wanted until something else is asked, or nothing any more
     */
    record Look(AtomicBoolean wanted, Path folder, Correction correction, List<String> at) {
        /**
         * Looks through it, on any thread.
         *
         * @param progress is given how many files are done of how many
         * @throws java.util.concurrent.CancellationException when it is not wanted any more
         */
        FolderRight through(BiConsumer<Integer, Integer> progress) {
            return FolderRight.look(folder, correction, at, (n, of) -> {
                progress.accept(n, of);
                return wanted.get();
            });
        }
    }

    /**
     * Begins to look; nothing is touched.
     *
     * @throws IllegalArgumentException with one sentence where something is missing or cannot be read
     */
    Look look(Fields said) {
        if (said.folder().isBlank()) {
            throw new IllegalArgumentException("Say in which folder the sessions are.");
        }
        Correction c = new Correction(
                        said.standard().strip(),
                        orNull(said.times()),
                        orNull(said.plus()),
                        clock.instant().truncatedTo(ChronoUnit.MILLIS),
                        said.by().isBlank() ? "staff" : said.by().strip(),
                        said.why().strip())
                .checked();
        List<String> only = said.at().isBlank()
                ? List.of()
                : Arrays.stream(said.at().split(";")).map(String::strip).toList();
        Path folder = path(said.folder().strip());
        leave();
        looking = new Look(new AtomicBoolean(true), folder, c, only);
        state = "The sessions are looked through; nothing is changed.";
        return looking;
    }

    private static Path path(String folder) {
        try {
            return Path.of(folder);
        } catch (java.nio.file.InvalidPathException e) {
            throw new IllegalArgumentException(folder + " is no name of a folder.", e);
        }
    }

    private static @Nullable String orNull(String words) {
        return words.isBlank() ? null : words.strip();
    }

    /** Takes what was found; false where it is not asked for any more. */
    boolean found(Look look, @Nullable FolderRight seen, @Nullable Throwable failed) {
        if (!look.equals(looking)) {
            return false;
        }
        looking = null;
        found = seen;
        if (seen == null) {
            state = failed == null ? AT_FIRST : Fault.said(failed);
            lines = List.of(NONE);
            return true;
        }
        int n = seen.problems().size();
        state = sessions(seen.reached().size()) + " would be put right, "
                + sessions(seen.untouched().size()) + " had nothing to do with it"
                + (n == 0 ? "." : "; " + sessions(n) + (n == 1 ? " stands" : " stand") + " in the way.");
        lines = lines(seen);
        return true;
    }

    private static List<Sentence> lines(FolderRight seen) {
        List<Sentence> out = new ArrayList<>();
        seen.problems().forEach(p -> out.add(Sentence.attention(p)));
        for (FolderRight.Reached r : seen.reached()) {
            out.add(Sentence.section(seen.relative(r.file())));
            out.add(Sentence.plain("corrected: " + String.join("; ", r.parts())));
            r.seen().forEach(s -> out.add(Sentence.plain(s)));
            r.verdicts().forEach(v -> out.add(Sentence.attention(v)));
        }
        return out;
    }

    private static String sessions(int n) {
        return n + (n == 1 ? " session" : " sessions");
    }

    /** Something else is written in a field: what was found for the words before is of no use any more. */
    void changed() {
        if (isLooking() || found != null) {
            state = "Something else is written now: look again. " + AT_FIRST;
            lines = List.of(NONE);
        }
        leave();
    }

    /** Nobody waits for it any more. */
    void leave() {
        if (looking != null) {
            looking.wanted().set(false);
        }
        looking = null;
        found = null;
    }

    boolean isLooking() {
        return looking != null;
    }

    /** Whether there is something to write and nothing in the way. */
    boolean mayWrite() {
        FolderRight seen = found;
        return seen != null && !seen.reached().isEmpty() && seen.problems().isEmpty();
    }

    /**
     * Writes it into the sessions that it reaches. What was found is written once.
     *
     * @throws RuntimeException with one sentence while something stands in the way, or where a file changed meanwhile
     */
    void write() {
        FolderRight seen = found;
        if (seen == null || !mayWrite()) {
            return;
        }
        found = null;
        state = "Not everything was written: look again.";
        seen.write();
        state = "Put right: " + sessions(seen.reached().size())
                + ". Every notebook says so; marks of a class are worked out anew when it is marked again.";
    }

    /** How it stands, in one sentence. */
    String state() {
        return state;
    }

    /** What would move, session by session, what stands in the way first. */
    List<Sentence> lines() {
        return lines;
    }
}
