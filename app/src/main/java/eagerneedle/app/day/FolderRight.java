package eagerneedle.app.day;

import eagerneedle.core.judge.Comparison;
import eagerneedle.core.judge.School;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.PuttingRight;
import eagerneedle.core.reduce.Reducer;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.session.Command;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.SheetException;
import eagerneedle.core.stockroom.Correction;
import eagerneedle.store.FileName;
import eagerneedle.store.bench.BenchFile;
import eagerneedle.store.bench.BenchFileException;
import eagerneedle.store.bench.ClosedCopy;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.BiPredicate;
import java.util.stream.Stream;

/**
 * A standard put right over a folder of sessions. Each is reduced as it is and as it would be, from a closed copy; the
 * files are written into only when everything is known and nothing stands in the way. A session that the standard did
 * not reach is not opened for writing, so its file stays as it is, bit for bit.
 */
public final class FolderRight {
    /** Share of a standard uncertainty that is no move. */
    private static final double LEAST = 1e-6;

    private static final int FIGURES = 6;

    private final Path folder;
    private final Correction correction;
    private final List<Reached> reached = new ArrayList<>();
    private final List<Path> untouched = new ArrayList<>();
    private final List<String> problems = new ArrayList<>();

    /**
     * What moved in a session.
     *
     * @param parts what was corrected, one phrase each
     * @param shifts results that moved
     * @param verdicts of comparisons that say something else now, one sentence each
     */
    public record Reached(
            Path file, String title, List<String> parts, List<Shift> shifts, List<String> verdicts, Made made) {
        /** What moved so that it is written otherwise, and how many results moved by less. */
        public List<String> seen() {
            List<String> out = new ArrayList<>(
                    shifts.stream().filter(Shift::isSeen).map(Shift::says).toList());
            long less = shifts.stream().filter(s -> !s.isSeen()).count();
            if (less > 0) {
                out.add(less + (less == 1 ? " result" : " results") + " moved by less than the last digit");
            }
            return out;
        }
    }

    /** A result before and after; either may be empty where there was none. */
    public record Shift(String name, String label, Optional<Quantity> was, Optional<Quantity> now) {
        /** True where what is written of it changes; false where it moved by less than its last digit. */
        public boolean isSeen() {
            return !written(was).equals(written(now));
        }

        /** In words, with how far it moved in units of the uncertainty that it had. */
        public String says() {
            String moved = "";
            if (was.isPresent() && now.isPresent() && was.get().u() > 0) {
                double by = Math.abs(now.get().in(was.get().unit()) - was.get().value())
                        / was.get().u();
                moved = by < LEAST
                        ? " (only its uncertainty)"
                        : " (" + Notation.plain(by, 2) + " of its standard uncertainties)";
            }
            return label + ": " + written(was) + " becomes " + written(now) + moved;
        }

        private static String written(Optional<Quantity> q) {
            return q.map(x -> x.u() > 0
                            ? Notation.bracket(x)
                            : (Notation.figures(x.value(), FIGURES) + " "
                                            + x.unit().pretty())
                                    .strip())
                    .orElse("nothing");
        }
    }

    /** The act, and the bytes of the file it was found for. */
    public record Made(Command act, Session before, String digest) {}

    private FolderRight(Path folder, Correction correction) {
        this.folder = folder;
        this.correction = correction;
    }

    /**
     * Looks through a folder and those in it, and touches nothing.
     *
     * @param at words of references that were of the standard, where a calibration referred to several
     * @param goOn asked before each file with how many are done of how many; false to stop
     * @throws IllegalArgumentException with one sentence where the correction cannot be used, or there is no session
     */
    public static FolderRight look(
            Path folder, Correction correction, List<String> at, BiPredicate<Integer, Integer> goOn) {
        FolderRight all = new FolderRight(folder, correction.checked());
        List<Path> files = files(folder);
        if (files.isEmpty()) {
            throw new IllegalArgumentException(
                    "There is no bench file in " + FileName.of(folder) + ", nor in a folder of it.");
        }
        for (Path file : files) {
            if (!goOn.test(all.reached.size() + all.untouched.size() + all.problems.size(), files.size())) {
                throw new java.util.concurrent.CancellationException("Stopped; nothing was changed.");
            }
            all.look(file, at);
        }
        return all;
    }

    private static List<Path> files(Path folder) {
        if (Files.isRegularFile(folder)) {
            return List.of(folder);
        }
        try (Stream<Path> all = Files.walk(folder)) {
            return all.filter(p -> FileName.of(p).endsWith(".needle")
                            && !FileName.of(p).startsWith("."))
                    .sorted()
                    .toList();
        } catch (IOException | UncheckedIOException e) {
            throw new IllegalArgumentException(FileName.of(folder) + " is no folder that can be read.", e);
        }
    }

    private void look(Path file, List<String> at) {
        try (ClosedCopy copy = ClosedCopy.of(file)) {
            Session session = copy.file().session();
            Reducer reducer =
                    new Reducer(SheetTrial.readOfSession(session.sheetText(), FileName.of(file)), copy.file());
            reducer.takeLong();
            PuttingRight right = PuttingRight.of(reducer, session, correction, at);
            if (right.act().isEmpty()) {
                untouched.add(file);
                return;
            }
            Command act = right.act().get();
            Reduction was = reducer.reduce(session);
            Reduction now = reducer.whatIf(act.apply(session));
            reached.add(new Reached(
                    file,
                    session.title(),
                    right.reached(),
                    shifts(was, now),
                    verdicts(was, now),
                    new Made(act, session, copy.digest())));
        } catch (BenchFileException | SheetException e) {
            problems.add(e.getMessage());
        } catch (IllegalArgumentException e) {
            problems.add(relative(file) + ": " + e.getMessage());
        }
    }

    private static List<Shift> shifts(Reduction was, Reduction now) {
        List<Shift> out = new ArrayList<>();
        was.sheet().results().forEach((name, d) -> {
            Optional<Quantity> a = was.quantity(name);
            Optional<Quantity> b = now.quantity(name);
            boolean same = a.isPresent() == b.isPresent()
                    && (a.isEmpty()
                            || a.get().value() == b.get().value()
                                    && a.get().u() == b.get().u());
            if (!same && d.label() != null) {
                out.add(new Shift(name, d.label(), a, b));
            }
        });
        return out;
    }

    private static List<String> verdicts(Reduction was, Reduction now) {
        List<String> out = new ArrayList<>();
        for (Comparison before : was.comparisons()) {
            School school = now.speaks(before.id());
            now.comparisons().stream()
                    .filter(c -> c.id().equals(before.id()))
                    .findFirst()
                    .filter(c -> c.agrees(school) != before.agrees(school))
                    .ifPresent(c -> out.add(c.label() + ": "
                            + (c.agrees(school) ? "agrees now, and did not" : "agrees no more, and did")));
        }
        return out;
    }

    /**
     * Writes it into the sessions that it reaches: an act of each, kept in its notebook, which can be undone there.
     *
     * @throws IllegalArgumentException with one sentence while something stands in the way, or where a file changed
     *     since it was looked at; files written before that one stay put right
     */
    public void write() {
        if (!problems.isEmpty()) {
            throw new IllegalArgumentException("Nothing was changed, because " + problems.size()
                    + (problems.size() == 1 ? " session stands" : " sessions stand") + " in the way: "
                    + problems.get(0));
        }
        int done = 0;
        for (Reached r : reached) {
            try {
                if (!ClosedCopy.digest(r.file()).equals(r.made().digest())) {
                    throw new IllegalArgumentException(relative(r.file())
                            + " was changed since it was looked at. " + done + " of " + reached.size()
                            + " sessions are put right; do it again for the rest.");
                }
            } catch (IOException e) {
                throw new IllegalArgumentException(relative(r.file()) + " cannot be read any more.", e);
            }
            try (BenchFile file = BenchFile.open(r.file())) {
                Instant at = correction.at();
                file.save(r.made().act().apply(file.session()), at, says(r));
            }
            done++;
        }
    }

    private static String says(Reached r) {
        return r.made().act().says() + " It reached " + String.join("; ", r.parts()) + "."
                + (r.shifts().isEmpty() ? " No result moved." : " " + String.join("; ", r.seen()) + ".");
    }

    /** The sessions that the standard reached. */
    public List<Reached> reached() {
        return List.copyOf(reached);
    }

    /** Those in which nothing was done with it. */
    public List<Path> untouched() {
        return List.copyOf(untouched);
    }

    /** One sentence for each session that could not be looked at or put right. */
    public List<String> problems() {
        return List.copyOf(problems);
    }

    /** A file as it is called within the folder. */
    public String relative(Path file) {
        Path name = folder.equals(file) ? file.getFileName() : folder.relativize(file);
        return String.valueOf(name);
    }
}
