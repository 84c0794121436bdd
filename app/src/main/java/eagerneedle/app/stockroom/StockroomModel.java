package eagerneedle.app.stockroom;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.json.JsonMapper;
import eagerneedle.app.workbench.InstrumentsInUse;
import eagerneedle.core.chain.Link;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.stockroom.Instrument;
import eagerneedle.picture.InstrumentPlots;
import eagerneedle.picture.Plot;
import eagerneedle.report.InstrumentLabel;
import eagerneedle.store.FileName;
import eagerneedle.store.stockroom.Stockroom;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/** The instruments of the laboratory: found, looked at, changed, and each change taken back. */
final class StockroomModel {
    static final String EVERYTHING = "everything";
    /** No instrument is drawn beside another. */
    static final String ALONE = "nothing";

    private static final ObjectMapper JSON = JsonMapper.builder().build();

    /** A line of the list. */
    sealed interface Line {
        /** Instruments of a kind follow. */
        record Group(String label) implements Line {}

        /** One instrument. {@code due} is true when something is to be done about it. */
        record Item(String id, String name, String about, boolean due, boolean chosen) implements Line {}
    }

    /** A line of the history. */
    record Past(String day, String what, String by) {}

    /**
     * An instrument as it is shown.
     *
     * @param fields what stands in each field; absent where nothing does
     * @param link its part in a chain as JSON; absent for what has none
     * @param standing until when it is good and where it is kept, in words
     * @param facts its step, accuracy, value and what it asks for, in words
     * @param comparable serials of instruments that may be drawn beside it, {@link #ALONE} first
     * @param beside the one that is drawn beside it
     * @param uses the sessions it was used in, as far as they were looked through
     */
    record Card(
            Instrument instrument,
            Optional<String> objection,
            Map<String, String> fields,
            Optional<String> link,
            List<Past> history,
            String standing,
            String facts,
            List<String> comparable,
            Optional<Instrument> beside,
            Optional<Plot> drift,
            List<InstrumentsInUse.Use> uses) {}

    private final Stockroom stock;
    private final Clock clock;
    private @Nullable Runnable back;
    private @Nullable String chosen;
    private Optional<String> other = Optional.empty();
    private Map<String, List<InstrumentsInUse.Use>> uses = Map.of();

    StockroomModel(Stockroom stock, Clock clock) {
        this.stock = stock;
        this.clock = clock;
    }

    /** The instruments that match words and a kind, by kind. */
    List<Line> found(String words, String kind) {
        List<Line> out = new ArrayList<>();
        String last = "";
        for (Instrument i : matching(words, kind)) {
            String group = i.retired() ? "retired" : i.kind();
            if (!group.equals(last)) {
                out.add(new Line.Group(group.toUpperCase(Locale.ROOT)));
                last = group;
            }
            boolean due = i.objection(clock.instant()).isPresent() && !i.retired();
            out.add(new Line.Item(
                    i.id(),
                    i.name(),
                    i.quarantine().isPresent() ? "▲ out of use" : due ? "▲ due" : i.place() == null ? "" : i.place(),
                    due,
                    i.id().equals(chosen)));
        }
        return out;
    }

    private List<Instrument> matching(String words, String kind) {
        return stock.all().stream()
                .filter(i ->
                        i.matches(words) && (kind.equals(EVERYTHING) || i.kind().equals(kind)))
                .toList();
    }

    String count(String words, String kind) {
        return matching(words, kind).size() + " of " + stock.all().size();
    }

    boolean isEmpty() {
        return stock.all().isEmpty();
    }

    /** Takes an instrument in hand; nothing happens when it is not there. */
    void choose(String id) {
        if (find(id).isPresent()) {
            chosen = id;
        }
    }

    /** Takes the first that has something to be done about it in hand, the first of all where none has. */
    void chooseFirst() {
        stock.all().stream()
                .filter(i -> !i.retired() && i.objection(clock.instant()).isPresent())
                .findFirst()
                .or(() -> stock.all().stream().findFirst())
                .ifPresent(i -> chosen = i.id());
    }

    private Optional<Instrument> find(String id) {
        return stock.all().stream().filter(i -> i.id().equals(id)).findFirst();
    }

    private Instrument inHand() {
        return find(chosen == null ? "" : chosen)
                .orElseThrow(() -> new IllegalArgumentException("Choose an instrument first."));
    }

    /** The instrument in hand; absent until one is chosen. */
    Optional<Card> card() {
        return find(chosen == null ? "" : chosen)
                .map(i -> new Card(
                        i,
                        i.objection(clock.instant()),
                        InstrumentWords.fields(i),
                        InstrumentWords.link(i),
                        InstrumentWords.history(i),
                        InstrumentWords.standing(i),
                        InstrumentWords.facts(i),
                        comparable(i),
                        other.flatMap(this::find).filter(o -> comparable(i).contains(o.id())),
                        InstrumentPlots.drift(i, clock.instant()),
                        uses.getOrDefault(i.id(), List.of())));
    }

    /** The serials of all instruments. */
    Set<String> serials() {
        return stock.all().stream().map(Instrument::id).collect(Collectors.toSet());
    }

    /** What looking through sessions found. */
    void usedIn(Map<String, List<InstrumentsInUse.Use>> found) {
        uses = Map.copyOf(found);
    }

    /** Draws another instrument beside the one in hand; none with {@link #ALONE}. */
    void compareWith(String id) {
        other = Optional.ofNullable(id).filter(x -> !x.equals(ALONE));
    }

    private List<String> comparable(Instrument i) {
        List<String> out = new ArrayList<>(List.of(ALONE));
        if (i.measures() != null && i.range().size() == 2) {
            LabUnit unit = i.unit();
            stock.all().stream()
                    .filter(o -> !o.id().equals(i.id())
                            && !o.retired()
                            && o.measures() != null
                            && o.range().size() == 2)
                    .filter(o -> o.kind().equals(i.kind()) && o.unit().fits(unit))
                    .map(Instrument::id)
                    .forEach(out::add);
        }
        return out;
    }

    /** A label of the instrument in hand to print, as PDF. */
    byte[] label() {
        return InstrumentLabel.pdf(inHand(), inHand().place() == null ? "" : inHand().place());
    }

    /**
     * Adds a line to the history of the instrument in hand.
     *
     * @param due year-month-day; blank for none
     * @param outcome passed, failed, broken, repaired or empty
     * @throws IllegalArgumentException with one sentence when it cannot be read
     */
    void enter(String what, String due, String outcome) {
        if (what.isBlank()) {
            throw new IllegalArgumentException("Say what happened to it.");
        }
        if (!due.isBlank() && (outcome.equals(Instrument.BROKEN) || outcome.equals(Instrument.REPAIRED))) {
            throw new IllegalArgumentException("What is " + outcome
                    + " is good until no date; leave the date out, and enter the calibration after it.");
        }
        java.time.Instant until = null;
        if (!due.isBlank()) {
            try {
                until = LocalDate.parse(due.strip())
                        .atStartOfDay(ZoneId.systemDefault())
                        .toInstant();
            } catch (DateTimeParseException e) {
                throw new IllegalArgumentException(
                        "'" + due.strip() + "' is not a date; write year-month-day, for instance 2027-11-23.", e);
            }
        }
        Instrument i = inHand();
        keep(
                i,
                i.withEvent(new Instrument.Event(
                        clock.instant(),
                        what.strip(),
                        "instructor on duty",
                        null,
                        until,
                        outcome.isEmpty() ? null : outcome)));
    }

    /** Keeps a changed instrument and remembers how to take that back. */
    private void keep(@Nullable Instrument before, Instrument after) {
        stock.put(after);
        back = () -> {
            if (before == null || !before.id().equals(after.id())) {
                stock.remove(after.id());
            }
            if (before != null) {
                stock.put(before);
                chosen = before.id();
            }
        };
        if (before != null && !before.id().equals(after.id())) {
            stock.remove(before.id());
        }
        chosen = after.id();
    }

    boolean canTakeBack() {
        return back != null;
    }

    /** Takes the last change back. */
    void takeBack() {
        Runnable last = back;
        back = null;
        if (last != null) {
            last.run();
        }
    }

    /**
     * Keeps the specification of the instrument in hand as it is written.
     *
     * @param link its part in a chain as JSON; blank for none
     * @return what was done, in one sentence
     * @throws IllegalArgumentException with one sentence when it cannot be read; then nothing is changed
     */
    String save(String kind, Map<String, String> fields, String link) {
        Instrument before = inHand();
        List<String> range = new ArrayList<>();
        if (text(fields, "low") != null && text(fields, "high") != null) {
            range.addAll(List.of(text(fields, "low"), text(fields, "high")));
        }
        Link part = null;
        if (!link.isBlank()) {
            try {
                part = JSON.readValue(link, Link.class);
            } catch (JsonProcessingException e) {
                throw new IllegalArgumentException(
                        "Its part in a chain is not JSON that can be read; look at quotes and commas.", e);
            }
        }
        Double edges = number(fields, "edges");
        String measures = text(fields, "measures");
        Instrument after = new Instrument(
                        Objects.requireNonNullElse(text(fields, "id"), ""),
                        kind,
                        Objects.requireNonNullElse(text(fields, "name"), ""),
                        measures == null && before.measures() != null ? "" : measures,
                        text(fields, "place"),
                        range,
                        text(fields, "resolution"),
                        edges == null ? null : edges.intValue(),
                        text(fields, "accuracy"),
                        text(fields, "value"),
                        number(fields, "warm"),
                        number(fields, "minutes"),
                        text(fields, "limits"),
                        part,
                        before.history(),
                        before.retired())
                .checked();
        if (!after.id().equals(before.id()) && stock.find(after.id()).isPresent()) {
            throw new IllegalArgumentException(
                    "There is an instrument " + after.id() + " already; choose another serial.");
        }
        keep(before, after);
        return "Kept " + after.name() + " " + after.id() + ".";
    }

    private static @Nullable String text(Map<String, String> fields, String key) {
        String t = fields.getOrDefault(key, "").strip();
        return t.isEmpty() ? null : t;
    }

    private static @Nullable Double number(Map<String, String> fields, String key) {
        try {
            return text(fields, key) == null ? null : Double.valueOf(text(fields, key));
        } catch (NumberFormatException e) {
            throw new IllegalArgumentException("'" + text(fields, key) + "' is not a number.", e);
        }
    }

    /** Puts a new instrument in, empty, and takes it in hand. */
    void add() {
        keep(
                null,
                new Instrument(
                        stock.freeSerial("NEW-01"),
                        "hand instrument",
                        "new instrument",
                        "mm",
                        null,
                        List.of(),
                        null,
                        null,
                        null,
                        null,
                        null,
                        1.0,
                        null,
                        null,
                        List.of(),
                        false));
    }

    /** Puts another of the instrument in hand in, under the next free serial. */
    void copy() {
        Instrument i = inHand();
        keep(null, i.copyAs(stock.freeSerial(i.id())));
    }

    /** Takes the instrument in hand out of use, or back into it. */
    void retire() {
        Instrument i = inHand();
        keep(i, i.retire(!i.retired()));
    }

    /** Brings the demonstration's instruments into an empty stockroom; what was done, in one sentence. */
    String bringInDemonstration() {
        return stock.bringIn(Stockroom.demonstrationJson());
    }

    /**
     * Brings instruments in from a file; what was done, in one sentence.
     *
     * @throws IllegalArgumentException with one sentence when it cannot be read
     */
    String bringIn(Path file) {
        String before = stock.json();
        String done;
        try {
            done = stock.bringIn(Files.readString(file, StandardCharsets.UTF_8));
        } catch (IOException e) {
            throw new IllegalArgumentException(FileName.of(file) + " cannot be read as text.", e);
        }
        back = () -> {
            stock.all().forEach(i -> stock.remove(i.id()));
            stock.bringIn(before);
        };
        return done;
    }

    /** All instruments as a JSON file. */
    byte[] json() {
        return stock.json().getBytes(StandardCharsets.UTF_8);
    }
}
