package eagerneedle.app.window;

import eagerneedle.app.widget.Labels;
import javafx.scene.Node;

/**
 * Whether the ledger stands beside the surface: as it is wished while a station is shown, and not where no session is
 * worked on, at the start page and in the stockroom.
 */
final class LedgerSide {
    private final Node ledger;
    private boolean wanted = true;

    LedgerSide(Node ledger) {
        this.ledger = ledger;
    }

    /** A station is shown. */
    void show() {
        set(wanted);
    }

    /** No station is shown. */
    void leave() {
        set(false);
    }

    /** Somebody wants to see it, or no longer. */
    void toggle() {
        wanted = !wanted;
        set(wanted);
    }

    /** Something in it is to be looked at. */
    void ask() {
        wanted = true;
        set(true);
    }

    private void set(boolean shown) {
        Labels.shown(ledger, shown);
    }
}
