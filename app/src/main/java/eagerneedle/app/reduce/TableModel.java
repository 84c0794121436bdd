package eagerneedle.app.reduce;

import eagerneedle.app.station.Desk;
import eagerneedle.core.edit.Additions;
import eagerneedle.core.edit.SheetText;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.OnPoint;
import eagerneedle.core.reduce.Key;
import eagerneedle.core.reduce.Ledger;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.session.ReducingCommand;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.Session;
import eagerneedle.core.session.SheetCommand;
import eagerneedle.picture.SessionPlots;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** The runs of a capture as a table, and the quantities that were added to the session by formula. */
final class TableModel {
    /** A column: its heading, and the text of its cell by run. */
    record Column(String title, Map<Integer, String> cells) {}

    /** A quantity that was added: to a capture, or to the results. */
    record Own(String to, String name, String words) {}

    private final Desk desk;

    TableModel(Desk desk) {
        this.desk = desk;
    }

    /** The capture whose runs are shown: that of the run in hand, the first until then. */
    Optional<String> capture() {
        return desk.run()
                .map(Run::capture)
                .or(() -> desk.bench().sheet().captures().keySet().stream().findFirst());
    }

    private static List<Run> kept(Reduction r, String capture) {
        return r.runs().stream()
                .filter(x -> x.discard() == null && x.capture().equals(capture))
                .toList();
    }

    List<Run> runs() {
        return kept(desk.bench().reduction(), capture().orElse(""));
    }

    /** The columns after those of the run and its level, numbers with their points under each other. */
    List<Column> columns() {
        Reduction r = desk.bench().reduction();
        List<Run> kept = runs();
        List<Column> out = new ArrayList<>();
        for (Ledger.Entry e : kept.isEmpty() ? List.<Ledger.Entry>of() : r.ofRun(kept.get(0))) {
            String name = e.name().substring(e.name().indexOf("]."));
            Map<Integer, String> cells = new LinkedHashMap<>();
            kept.forEach(run -> cells.put(
                    run.id(),
                    r.ofRun(run).stream()
                            .filter(x -> x.name().endsWith(name))
                            .findFirst()
                            .map(TableModel::cell)
                            .orElse("—")));
            Iterator<String> onPoint = OnPoint.of(List.copyOf(cells.values())).iterator();
            cells.replaceAll((id, text) -> onPoint.next());
            String unit = e.quantity()
                    .map(q -> q.unit().symbol().isEmpty() ? "" : ", " + q.unit().pretty())
                    .orElse("");
            out.add(new Column(e.label() + unit, cells));
        }
        return out;
    }

    String level(Run run) {
        return SessionPlots.levelLabel(desk.bench().reduction(), run) + (run.leftOut() == null ? "" : " (left out)");
    }

    private static String cell(Ledger.Entry e) {
        return e.quantity()
                .map(q -> Notation.bracketed(q.value(), q.u()))
                .orElse(e.outcome().value() == null ? "—" : e.instead());
    }

    /**
     * Adds a quantity by formula, to every run of the capture shown or to the results.
     *
     * @param unit may be blank
     * @throws IllegalArgumentException with one sentence when it cannot be worked out
     */
    void add(boolean ofRuns, String name, String formula, String unit) {
        String to = ofRuns ? capture().orElse(Session.RESULTS) : Session.RESULTS;
        Additions.Added added = Additions.quantity(text(), to, name, "", unit, formula);
        SheetCommand.Write act = new SheetCommand.Write(
                added.text(),
                "Added " + name.replace('_', ' ') + (ofRuns ? " to every run" : "") + ": " + name + " = "
                        + formula.strip() + ".");
        Reduction tried = desk.bench().whatIf(act);
        Optional<Key> key = ofRuns
                ? tried.runs().stream()
                        .filter(x -> x.capture().equals(to) && x.takesPart())
                        .findFirst()
                        .map(x -> Key.of(x, name))
                : Optional.of(new Key.Global(name));
        key.map(k -> tried.outcome(k).problem()).ifPresent(problem -> {
            throw new IllegalArgumentException(problem);
        });
        desk.bench().apply(act);
    }

    /** The quantities that the session began without, of the capture shown and of the results. */
    List<Own> own() {
        List<Own> out = new ArrayList<>();
        desk.bench().session().own().forEach((to, quantities) -> {
            if (to.equals(capture().orElse("")) || to.equals(Session.RESULTS)) {
                quantities.forEach((n, d) -> out.add(new Own(to, n, n + " = " + d.formula())));
            }
        });
        if (!desk.bench().file().firstSheet().equals(text())) {
            SheetText now = SheetText.of(text());
            SheetText first = SheetText.of(desk.bench().file().firstSheet());
            for (String to : List.of(capture().orElse(Session.RESULTS), Session.RESULTS)) {
                for (String n : now.names(place(to))) {
                    if (!first.has(place(to) + "/" + n)
                            && out.stream().noneMatch(o -> o.name().equals(n))) {
                        out.add(new Own(
                                to,
                                n,
                                n + " = "
                                        + now.value(place(to) + "/" + n + "/formula")
                                                .orElse("")));
                    }
                }
            }
        }
        return out;
    }

    private String text() {
        return desk.bench().session().sheetText();
    }

    private static String place(String to) {
        return to.equals(Session.RESULTS) ? "/results" : "/captures/" + to + "/quantities";
    }

    /** @throws IllegalArgumentException with one sentence where something else follows from it */
    void takeAway(Own own) {
        if (desk.bench().session().own().getOrDefault(own.to(), Map.of()).containsKey(own.name())) {
            desk.bench().apply(new ReducingCommand.AddQuantity(own.to(), own.name(), null));
            return;
        }
        desk.bench()
                .apply(new SheetCommand.Write(
                        SheetText.of(text())
                                .without(place(own.to()) + "/" + own.name())
                                .text(),
                        "Took the quantity " + own.name() + " away."));
    }

    /** The table shown, for a spreadsheet. */
    String tabbed() {
        return tabbed(desk.bench().reduction(), capture().orElse(""));
    }

    /** Every quantity of every kept run of a capture, one row a run, with tabs between cells; empty without runs. */
    static String tabbed(Reduction r, String capture) {
        List<Run> kept = kept(r, capture);
        if (kept.isEmpty()) {
            return "";
        }
        StringBuilder b = new StringBuilder("run\tlevel\ttakes part");
        r.ofRun(kept.get(0))
                .forEach(e -> b.append('\t')
                        .append(e.label())
                        .append(e.quantity()
                                .map(q -> q.unit().symbol().isEmpty()
                                        ? ""
                                        : " / " + q.unit().symbol())
                                .orElse(""))
                        .append("\tu"));
        b.append('\n');
        for (Run run : kept) {
            b.append(run.name())
                    .append('\t')
                    .append(SessionPlots.levelLabel(r, run))
                    .append('\t')
                    .append(run.takesPart() ? "yes" : "no");
            r.ofRun(run)
                    .forEach(e -> b.append('\t')
                            .append(e.quantity()
                                    .map(q -> q.value() + "\t" + q.u())
                                    .orElse("\t")));
            b.append('\n');
        }
        return b.toString();
    }
}
