package eagerneedle.app.writing;

import eagerneedle.app.station.Desk;
import eagerneedle.app.workbench.Draft;
import eagerneedle.core.edit.Completion;
import eagerneedle.core.edit.Mend;
import eagerneedle.core.edit.Outline;
import eagerneedle.core.edit.Place;
import eagerneedle.core.edit.Renaming;
import eagerneedle.core.edit.SheetText;
import eagerneedle.core.function.Functions;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.reduce.Ledger;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.session.SheetCommand;
import eagerneedle.core.sheet.SheetException;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.sheet.StockedLinks;
import eagerneedle.core.stockroom.Instrument;
import eagerneedle.store.stockroom.Stockroom;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;

/** A sheet being written: what is wrong with it, what may stand where, and what becomes of the session with it. */
final class WritingModel {
    /**
     * Something that is wrong.
     *
     * @param offset where in the text; -1 for nowhere in particular
     */
    record Problem(String words, int offset, Optional<Mend> mend) {}

    /** What a text comes to: all that is wrong, and the sheet where its form is good. */
    record Seen(String text, List<Problem> problems, Optional<SheetReader.Located> sheet) {}

    /** A quantity of the ledger that would be another. */
    record Moved(String label, String before, String after) {}

    private final Desk desk;
    private final Completion completion;

    WritingModel(Desk desk) {
        this.desk = desk;
        completion = new Completion(new Functions().functions(), serials(desk.stockroom()));
    }

    private static List<String> serials(Stockroom stock) {
        return stock == null ? List.of() : stock.all().stream().map(i -> i.id()).toList();
    }

    String sessionText() {
        return desk.bench().session().sheetText();
    }

    Draft draft() {
        return Draft.of(desk.bench().file().path());
    }

    /** Instruments that can stand in a chain. */
    List<Instrument> stocked() {
        return desk.stockroom() == null
                ? List.of()
                : desk.stockroom().all().stream()
                        .filter(i -> i.link() != null && i.link().kind().equals("converter"))
                        .toList();
    }

    /** The text with a channel that an instrument of the stockroom reads. */
    String withInstrument(String text, Instrument i) {
        SheetText sheet = SheetText.of(text);
        String base = i.id().toLowerCase(java.util.Locale.ROOT).replaceAll("[^a-z0-9]+", "_");
        String name = "by_" + base;
        for (int n = 2; sheet.has("/channels/" + name); n++) {
            name = "by_" + base + "_" + n;
        }
        Map<String, Object> c = new LinkedHashMap<>();
        c.put("label", i.name());
        c.put("unit", Objects.requireNonNull(i.link()).from());
        c.put("rate", 10);
        c.put("chain", List.of(i.id()));
        return sheet.with("/channels/" + name, c).text();
    }

    /** A text with what its chains take from the stockroom written at its end. */
    private String stocked(String text) {
        return desk.stockroom() == null
                ? text
                : StockedLinks.written(text, serial -> desk.stockroom().find(serial));
    }

    /** Looks a text through, instruments of the stockroom and all. */
    Seen seen(String text) {
        String whole = stocked(text);
        Seen found = look(whole);
        return new Seen(
                text,
                found.problems().stream()
                        .map(p -> whole.equals(text)
                                        || p.mend().isEmpty()
                                        || p.mend().get().to() < text.length()
                                ? p
                                : new Problem(p.words(), p.offset(), Optional.empty()))
                        .toList(),
                found.sheet());
    }

    /**
     * Looks a text through; a fraction of a second for a long sheet, so that nobody waits for it on the window's
     * thread.
     */
    static Seen look(String text) {
        SheetReader.Looked looked = SheetTrial.look(text, "line");
        List<Problem> out = new ArrayList<>();
        for (SheetException p : looked.problems()) {
            out.add(new Problem(
                    String.valueOf(p.getMessage()).replaceFirst("^line, ", "").replaceFirst("^line: ", ""),
                    p.line() < 1 ? -1 : Mend.offset(text, p.line(), p.column()),
                    Mend.of(p, text)));
        }
        return new Seen(text, List.copyOf(out), looked.located());
    }

    List<Completion.Proposal> proposals(String text, int caret) {
        return completion.at(text, caret);
    }

    String help(String text, int caret) {
        return completion.help(text, caret);
    }

    /** The name that the caret stands in, and where it is given; empty for none. */
    static Optional<Outline.Given> definition(String text, int caret) {
        int end = caret;
        while (end < text.length() && isName(text.charAt(end))) {
            end++;
        }
        Place place = Place.at(text, end);
        if (place.word().isEmpty()) {
            return Optional.empty();
        }
        Outline outline = Outline.of(text);
        int from = end - place.word().length();
        return outline.all().stream()
                .filter(g -> g.offset() == from)
                .findFirst()
                .or(() -> outline.definition(place.word(), place.path()));
    }

    private static boolean isName(char c) {
        return Character.isLetterOrDigit(c) || c == '_' || c == '.';
    }

    /** The text with the name at the caret changed wherever it is meant. */
    static String renamed(String text, int caret, String to) {
        Outline.Given given = definition(text, caret)
                .orElseThrow(() ->
                        new IllegalArgumentException("Put the caret into a name that the sheet gives, and try again."));
        return Renaming.of(text, given, to.strip());
    }

    /** True when the session has another sheet than this text. */
    boolean differs(String text) {
        return !text.equals(sessionText());
    }

    /**
     * What would be another in the ledger with this sheet.
     *
     * @throws RuntimeException with one sentence where the session cannot have it
     */
    List<Moved> moves(String text) {
        Reduction before = desk.bench().reduction();
        Reduction after = desk.bench().whatIf(new SheetCommand.Write(stocked(text), "tried"));
        List<Moved> out = new ArrayList<>();
        for (Ledger.Entry e : after.ledger().entries()) {
            Optional<Ledger.Entry> was = before.ledger().entries().stream()
                    .filter(b -> b.key().equals(e.key()))
                    .findFirst();
            String now = said(e);
            String then = was.map(WritingModel::said).orElse("not there");
            boolean same = was.isPresent()
                    && was.get().quantity().isPresent()
                    && e.quantity().isPresent()
                    && was.get().quantity().get().sameAs(e.quantity().get());
            if (!same && !now.equals(then)) {
                out.add(new Moved(e.label(), then, now));
            }
        }
        for (Ledger.Entry b : before.ledger().entries()) {
            if (after.ledger().entries().stream().noneMatch(e -> e.key().equals(b.key()))) {
                out.add(new Moved(b.label(), said(b), "not there any more"));
            }
        }
        return out;
    }

    private static String said(Ledger.Entry e) {
        return e.quantity().map(Notation::bracket).orElse(e.instead());
    }

    /** Gives the session this sheet; the one from before stays in the bench file, and undo brings it back. */
    void takeOver(String text) {
        desk.bench().apply(new SheetCommand.Write(stocked(text), "Changed the sheet at the method desk."));
        draft().forget();
    }
}
