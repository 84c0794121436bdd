package eagerneedle.app.day;

import eagerneedle.app.widget.Cell;
import eagerneedle.app.widget.Sentence;
import eagerneedle.app.workbench.Draft;
import eagerneedle.app.workbench.Fault;
import eagerneedle.core.day.ReadyCheck;
import eagerneedle.store.FileName;
import eagerneedle.store.stockroom.StockroomException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/** An afternoon that is being written, and what follows from it, without a window. */
final class DayModel {
    private final Path stockroom;
    private final Supplier<List<ReadyCheck>> book;
    private final Draft draft;
    private final Draft place;
    private @Nullable Path file;
    private @Nullable DayPlan made;
    private String state = "";
    private List<Sentence> before = List.of();
    private List<Sentence> after = List.of();
    private int asked;

    /**
     * For a laboratory.
     *
     * @param stockroom where its instruments are kept
     * @param book its ready checks; may throw a {@link StockroomException} with one sentence
     * @param draft keeps what is written
     * @param place keeps of which file it is
     */
    DayModel(Path stockroom, Supplier<List<ReadyCheck>> book, Draft draft, Draft place) {
        this.stockroom = stockroom;
        this.book = book;
        this.draft = draft;
        this.place = place;
    }

    /** The afternoon as it was left, or one to begin with. */
    String begin() {
        Optional<String> left = draft.read();
        if (left.isPresent()) {
            file = place.read().filter(p -> !p.isBlank()).map(Path::of).orElse(null);
        }
        return left.orElseGet(DayFile::example);
    }

    /** @throws IllegalArgumentException with one sentence when what is written cannot be kept */
    void keep(String text) {
        draft.keep(text);
        place.keep(file == null ? "" : file.toAbsolutePath().toString());
    }

    /** The file that the afternoon is of; empty while it is of none. */
    Optional<Path> file() {
        return Optional.ofNullable(file);
    }

    void file(Path of) {
        file = of;
    }

    /** What is written now is to be planned: a rota may take seconds to find, so any thread may find it. */
    record Asked(int turn, String text, @Nullable Path file, Path stockroom) {
        /** @throws IllegalArgumentException with one sentence where it cannot be planned */
        DayPlan plan() {
            return DayFile.of(
                    text,
                    file == null ? "The afternoon" : FileName.of(file),
                    file == null ? Path.of("") : FileName.folder(file),
                    stockroom);
        }
    }

    Asked ask(String text) {
        state = "planning...";
        return new Asked(++asked, text, file, stockroom);
    }

    /** Takes what was found; false where something else was asked meanwhile, and nothing is to be shown. */
    boolean answer(Asked of, @Nullable DayPlan plan, @Nullable Throwable failed) {
        if (of.turn() != asked) {
            return false;
        }
        made = plan;
        after = List.of();
        if (plan == null) {
            state = "";
            before = List.of(Sentence.attention(failed == null ? "It was not planned." : Fault.said(failed)));
            return true;
        }
        state = DayPaper.date(plan);
        before = plan.rota().clashes().stream().map(Sentence::attention).toList();
        after = following(plan);
        return true;
    }

    private List<Sentence> following(DayPlan plan) {
        List<Sentence> out = new ArrayList<>();
        try {
            list(out, "Ready", plan.ready(book.get()));
        } catch (StockroomException e) {
            out.add(Sentence.attention(Fault.said(e)));
        }
        list(out, "To be switched on", plan.switching());
        list(out, "From the stockroom", plan.fetching());
        if (!plan.warnings().isEmpty()) {
            out.add(Sentence.section("Not counted, or missing"));
            plan.warnings().forEach(w -> out.add(Sentence.attention(w)));
        }
        return out;
    }

    private static void list(List<Sentence> out, String head, List<String> lines) {
        if (!lines.isEmpty()) {
            out.add(Sentence.section(head));
            lines.forEach(l -> out.add(Sentence.plain(l)));
        }
    }

    /** In a few words: the date, or that it is being planned. */
    String state() {
        return state;
    }

    /** Whether there is a rota to print. */
    boolean mayPrint() {
        return made != null && made.rota().isThere();
    }

    /**
     * The plan with what is known of its benches, for the pages.
     *
     * @throws StockroomException with one sentence where the ready checks cannot be read
     * @throws IllegalArgumentException with one sentence where it cannot be written there
     */
    void print(Path to, boolean letter) {
        DayPlan plan = made;
        if (plan == null) {
            return;
        }
        try {
            DayPaper.write(plan, book.get(), to, letter);
        } catch (java.io.IOException e) {
            throw new IllegalArgumentException(FileName.of(to) + " cannot be written here.", e);
        }
    }

    /** What stands above the rota: clashes, or why there is none. */
    List<Sentence> before() {
        return before;
    }

    /** What stands below it: benches, switching on, fetching, what is missing. */
    List<Sentence> after() {
        return after;
    }

    /** The rota: the rounds in the first row, then a row for each group; empty where there is none. */
    List<List<Cell>> rota() {
        DayPlan plan = made;
        if (plan == null || !plan.rota().isThere()) {
            return List.of();
        }
        List<List<Cell>> rows = new ArrayList<>();
        List<Cell> head = new ArrayList<>(List.of(Cell.quiet("")));
        for (int s = 0; s < plan.day().slots(); s++) {
            head.add(Cell.quiet(plan.time(s)));
        }
        rows.add(head);
        for (List<String> row : DayPaper.rows(plan)) {
            List<Cell> cells = new ArrayList<>();
            for (String words : row) {
                cells.add(new Cell(words, cells.isEmpty() ? Cell.Look.STRONG : Cell.Look.WRAPPED, ""));
            }
            rows.add(cells);
        }
        return rows;
    }
}
