package eagerneedle.app.stockroom;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.json.JsonMapper;
import eagerneedle.app.stockroom.StockroomModel.Past;
import eagerneedle.app.workbench.InstrumentsInUse;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.stockroom.Instrument;
import eagerneedle.store.FileName;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/** What is said of an instrument. */
final class InstrumentWords {
    private static final DateTimeFormatter DAY =
            DateTimeFormatter.ofPattern("d MMM uuuu").withLocale(Locale.UK).withZone(ZoneId.systemDefault());
    private static final ObjectMapper JSON = JsonMapper.builder().build();
    private static final List<String> IN_A_CHAIN = List.of("sensor", "conditioner", "converter");

    private InstrumentWords() {}

    /** Until when it is good and where it is kept. */
    static String standing(Instrument i) {
        return (i.retired()
                        ? "retired"
                        : i.calibration()
                                .map(c -> "calibrated " + DAY.format(c.at()) + ", good until " + DAY.format(c.due()))
                                .orElse("never calibrated"))
                + (i.place() == null ? "" : " · kept at " + i.place());
    }

    /** Its step, accuracy, value and what it asks for. */
    static String facts(Instrument i) {
        List<String> out = new ArrayList<>(List.of(i.kind()));
        said(out, "value ", i.value() == null ? null : Notation.asWritten(i.value()));
        said(out, "step ", i.resolution() == null ? null : Notation.asWritten(i.resolution()));
        said(out, "largest error ", i.accuracy());
        said(out, "warm-up ", i.warmUp() == null ? null : Notation.plain(i.warmUp(), 3) + " min");
        said(out, "", i.limits());
        return String.join(" · ", out);
    }

    private static void said(List<String> out, String what, @Nullable String value) {
        if (value != null) {
            out.add(what + value.replaceAll("\\bdegC\\b", "°C"));
        }
    }

    /** What stands in each field of its specification. */
    static Map<String, String> fields(Instrument i) {
        Map<String, String> out = new LinkedHashMap<>();
        put(out, "id", i.id());
        put(out, "name", i.name());
        put(out, "measures", i.measures());
        put(out, "place", i.place());
        put(out, "low", i.range().isEmpty() ? null : i.range().get(0));
        put(out, "high", i.range().isEmpty() ? null : i.range().get(1));
        put(out, "resolution", i.resolution());
        put(out, "edges", i.edges());
        put(out, "accuracy", i.accuracy());
        put(out, "value", i.value());
        put(out, "warm", i.warmUp());
        put(out, "minutes", i.minutes());
        put(out, "limits", i.limits());
        return out;
    }

    private static void put(Map<String, String> out, String key, @Nullable Object value) {
        if (value != null) {
            out.put(key, value.toString());
        }
    }

    /** Its part in a chain as JSON; absent for what has none. */
    static Optional<String> link(Instrument i) {
        if (i.link() == null) {
            return IN_A_CHAIN.contains(i.kind()) ? Optional.of("") : Optional.empty();
        }
        try {
            return Optional.of(JSON.writeValueAsString(i.link()));
        } catch (JsonProcessingException e) {
            throw new IllegalStateException(e);
        }
    }

    /** A session it was used in. */
    static String use(Instrument i, InstrumentsInUse.Use u) {
        boolean doubtful = i.quarantine().isPresent()
                && i.lastGood().map(good -> u.last().isAfter(good)).orElse(true);
        return (doubtful ? "▲ since it was last good: " : "") + u.title() + " · " + FileName.of(u.file()) + " · "
                + (u.runs() == 0 ? "no runs yet" : u.runs() == 1 ? "one run" : u.runs() + " runs");
    }

    /** What happened to it, a line each. */
    static List<Past> history(Instrument i) {
        return i.history().stream()
                .map(e -> new Past(
                        DAY.format(e.at()),
                        e.what()
                                + (e.value() == null ? "" : ": " + Notation.asWritten(e.value()))
                                + (e.outcome() == null ? "" : ", " + e.outcome())
                                + (e.due() == null ? "" : ", due " + DAY.format(e.due())),
                        e.by() == null ? "" : e.by()))
                .toList();
    }
}
