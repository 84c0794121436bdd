package eagerneedle.app.window;

import eagerneedle.app.station.Station;
import eagerneedle.core.reduce.Key;

/** From what is found or named to the place where it stands. */
final class Whereabouts {
    private final MainWindow window;
    private final LedgerSide side;
    private final LedgerPane ledger;

    Whereabouts(MainWindow window, LedgerSide side, LedgerPane ledger) {
        this.window = window;
        this.side = side;
        this.ledger = ledger;
    }

    void toRun(int id) {
        window.bench().session().run(id).ifPresent(r -> {
            window.choose(r);
            window.go(Station.REDUCE);
        });
    }

    /** The lineage of a quantity in the ledger. */
    void toQuantity(Key key) {
        side.ask();
        window.bench().session().runs().stream()
                .filter(r -> key instanceof Key.OfRun of && of.run() == r.id())
                .findFirst()
                .ifPresent(window::choose);
        ledger.reveal(key);
    }
}
