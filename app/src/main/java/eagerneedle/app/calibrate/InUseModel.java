package eagerneedle.app.calibrate;

import eagerneedle.app.station.Desk;
import eagerneedle.app.workbench.InstrumentsInUse;
import eagerneedle.core.stockroom.Instrument;
import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/** The instruments that a session works with, and what each owes: until when it is good, or that it never was. */
final class InUseModel {
    private static final DateTimeFormatter DAY =
            DateTimeFormatter.ofPattern("d MMM uuuu").withLocale(Locale.UK).withZone(ZoneId.systemDefault());

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
        for (String id :
                InstrumentsInUse.serials(desk.bench().session(), desk.bench().sheet(), stock.keySet())) {
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
}
