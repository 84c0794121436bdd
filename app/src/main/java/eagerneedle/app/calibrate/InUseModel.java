package eagerneedle.app.calibrate;

import eagerneedle.app.station.Desk;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.stockroom.Instrument;
import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.regex.Pattern;

/** The instruments that a session works with, and what each owes: until when it is good, or that it never was. */
final class InUseModel {
    private static final DateTimeFormatter DAY =
            DateTimeFormatter.ofPattern("d MMM uuuu").withLocale(Locale.UK).withZone(ZoneId.systemDefault());
    private static final Pattern WORD = Pattern.compile("[^A-Za-z0-9._-]+");

    /**
     * One instrument.
     *
     * @param owes true where something is to be done about it before it is used
     */
    record Used(String id, String name, String standing, boolean owes) {}

    private final Desk desk;

    InUseModel(Desk desk) {
        this.desk = desk;
    }

    /** Those that owe something first. */
    List<Used> used() {
        Instant now = desk.bench().clock().instant();
        Map<String, Instrument> stock = new HashMap<>();
        desk.stockroom().all().forEach(i -> stock.put(i.id(), i));
        List<Used> out = new ArrayList<>();
        for (String id : serials(stock.keySet())) {
            Instrument i = stock.get(id);
            if (i != null) {
                out.add(of(i, now));
            }
        }
        out.sort((a, b) -> Boolean.compare(b.owes(), a.owes()));
        return out;
    }

    private static Used of(Instrument i, Instant now) {
        return new Used(
                i.id(),
                i.name(),
                i.objection(now)
                        .orElse(i.calibration()
                                .map(c -> "good until " + DAY.format(c.due()))
                                .orElse("never calibrated")),
                i.objection(now).isPresent());
    }

    /** Serials in chains, of what inputs are read with, and in the words of the sheet. */
    private Set<String> serials(Set<String> known) {
        Sheet sheet = desk.bench().sheet();
        Set<String> out = new LinkedHashSet<>();
        sheet.channels()
                .keySet()
                .forEach(name -> desk.bench()
                        .session()
                        .channel(sheet, name)
                        .chain()
                        .forEach(l -> {
                            if (l.instrument() != null) {
                                out.add(l.instrument());
                            }
                        }));
        sheet.devices().values().forEach(d -> words(d.label(), known, out));
        sheet.inputs().forEach((name, input) -> {
            Instrument tied = desk.bench().session().tied().get(name);
            if (tied != null) {
                out.add(tied.id());
            } else if (input.by() != null) {
                words(input.by(), known, out);
            }
        });
        return out;
    }

    private static void words(String text, Set<String> known, Set<String> into) {
        for (String w : WORD.split(text)) {
            if (known.contains(w)) {
                into.add(w);
            }
        }
    }
}
