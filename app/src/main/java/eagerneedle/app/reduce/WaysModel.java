package eagerneedle.app.reduce;

import eagerneedle.app.station.Desk;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.session.ReducingCommand;
import eagerneedle.core.sheet.Derived;
import eagerneedle.core.sheet.Sheet;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** The ways in which the sheet lets things be reckoned: which one is taken, and what each would give. */
final class WaysModel {
    private final Desk desk;

    WaysModel(Desk desk) {
        this.desk = desk;
    }

    /**
     * One thing that can be reckoned in several ways.
     *
     * @param usual what the sheet takes and why, in words
     */
    record Choice(String key, String label, String usual, List<Way> ways) {}

    /**
     * One way.
     *
     * @param gives the results that it makes different, in words
     */
    record Way(String key, String label, String name, boolean taken, String gives) {}

    boolean hasWays() {
        return !desk.bench().sheet().offers().isEmpty();
    }

    List<Choice> choices() {
        List<Choice> out = new ArrayList<>();
        for (Sheet.Offer o : desk.bench().sheet().offers()) {
            String taken = taken(o);
            List<Way> ways = new ArrayList<>();
            for (String way : o.choice().ways().keySet()) {
                boolean now = way.equals(taken);
                Reduction r = now
                        ? desk.bench().reduction()
                        : desk.bench()
                                .whatIf(new ReducingCommand.PickWay(
                                        o.key(), o.choice().label(), way));
                ways.add(new Way(o.key(), o.choice().label(), way, now, gives(r)));
            }
            String why = o.choice().why().isEmpty() ? "" : ": " + o.choice().why();
            out.add(new Choice(
                    o.key(), o.choice().label(), "The sheet takes " + o.choice().usual() + why + ".", ways));
        }
        return out;
    }

    private String taken(Sheet.Offer o) {
        return desk.bench().session().picked().getOrDefault(o.key(), o.choice().taken());
    }

    /** Main results, each beside its label. */
    private String gives(Reduction r) {
        List<String> parts = new ArrayList<>();
        for (Sheet.Comparison c : desk.bench().sheet().comparisons()) {
            Optional<Quantity> q = r.quantity(c.result());
            Derived d = desk.bench().sheet().results().get(c.result());
            String label = d == null || d.label() == null ? c.label() : d.label();
            String text = label + " " + q.map(Notation::bracket).orElse("not found");
            if (!parts.contains(text)) {
                parts.add(text);
            }
        }
        return String.join("; ", parts);
    }

    void take(Way w) {
        Sheet.Offer o = desk.bench().sheet().offers().stream()
                .filter(x -> x.key().equals(w.key()))
                .findFirst()
                .orElseThrow();
        boolean usual = w.name().equals(o.choice().usual());
        desk.bench().apply(new ReducingCommand.PickWay(w.key(), w.label(), usual ? null : w.name()));
    }
}
