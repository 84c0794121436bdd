package eagerneedle.app.window;

import eagerneedle.app.find.Hit;
import eagerneedle.app.station.Station;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.picture.SessionPlots;
import eagerneedle.store.FileName;
import java.util.ArrayList;
import java.util.List;

/** Everything that can be found from a window, each with the way to it. */
final class Findables {
    private final MainWindow window;

    Findables(MainWindow window) {
        this.window = window;
    }

    List<Hit> all() {
        List<Hit> hits = new ArrayList<>();
        for (Station s : Station.values()) {
            hits.add(new Hit("station", s.title(), s.purpose(), () -> window.go(s)));
        }
        session(hits);
        sheet(window.bench().sheet(), hits);
        window.actsToFind().forEach(a -> hits.add(new Hit("act", a.label(), a.shown(), a.run())));
        window.stockroom()
                .all()
                .forEach(i -> hits.add(new Hit(
                        "instrument",
                        i.name() + " " + i.id(),
                        i.kind() + (i.place() == null ? "" : " · " + i.place()),
                        () -> window.aside().stockroom(i.id()))));
        window.recent()
                .entries()
                .forEach(e -> hits.add(new Hit(
                        "session",
                        e.title(),
                        FileName.of(e.file()),
                        () -> window.door().open(e.file()))));
        for (String id : SheetReader.shipped()) {
            SheetReader.Located sheet = SheetReader.read(SheetReader.shippedText(id), id);
            hits.add(new Hit(
                    "method",
                    sheet.sheet().title(),
                    "begin a session",
                    () -> window.door().begin(sheet, null)));
        }
        return hits;
    }

    private void session(List<Hit> hits) {
        var bench = window.bench();
        bench.reduction()
                .ledger()
                .entries()
                .forEach(e -> hits.add(new Hit(
                        "quantity",
                        (e.key().isOfRun() ? e.group() + ": " : "") + e.label(),
                        e.quantity().map(Notation::bracket).orElse(""),
                        () -> window.leads().toQuantity(e.key()))));
        bench.session()
                .keptRuns()
                .forEach(r -> hits.add(new Hit(
                        "run",
                        r.name(),
                        SessionPlots.levelLabel(bench.reduction(), r)
                                + (r.leftOut() == null ? "" : " · left out: " + r.leftOut()),
                        () -> window.leads().toRun(r.id()))));
        bench.findings()
                .forEach(f -> hits.add(new Hit("watch", f.message(), f.remedy(), () -> {
                    if (f.run() > 0) {
                        window.leads().toRun(f.run());
                    }
                })));
        bench.session().notes().forEach(n -> hits.add(new Hit("note", n.text(), "", () -> window.go(Station.RECORD))));
    }

    private void sheet(Sheet sheet, List<Hit> hits) {
        sheet.channels()
                .forEach((name, c) -> hits.add(new Hit(
                        "channel", c.label(), c.position() == null ? "" : c.position(), () -> window.go(Station.RIG))));
        sheet.captures()
                .forEach((name, c) ->
                        hits.add(new Hit("capture", c.label(), c.hint(), () -> window.go(Station.CAPTURE))));
        sheet.cautions().forEach(c -> hits.add(new Hit("caution", c, "", () -> window.go(Station.PLAN))));
        sheet.prepare().forEach(s -> hits.add(new Hit("step", s.text(), "before", () -> window.go(Station.RIG))));
        sheet.comparisons()
                .forEach(c -> hits.add(new Hit("comparison", c.label(), "", () -> window.go(Station.JUDGE))));
        sheet.reckoningMistakes()
                .forEach(m -> hits.add(new Hit("mistake", m.label(), m.says(), () -> window.go(Station.JUDGE))));
        sheet.finish().forEach(s -> hits.add(new Hit("step", s.text(), "finish", () -> window.go(Station.RECORD))));
    }
}
