package eagerneedle.app.window;

import eagerneedle.app.widget.Theme;

/** Makes what is shown anew where text has another size or numbers are written otherwise. */
final class Restyling {
    private final MainWindow window;
    private final Header header;
    private final LedgerPane ledger;
    private final WatchStrip strip;

    Restyling(MainWindow window, Header header, LedgerPane ledger, WatchStrip strip) {
        this.window = window;
        this.header = header;
        this.ledger = ledger;
        this.strip = strip;
    }

    /** Shows everything with text of a size in percent, as far as {@link Theme} goes. */
    void textSize(int percent) {
        Theme.textSize(percent);
        Theme.dress(window.stage().getScene(), Theme.isDark());
        window.views().forget();
        header.resize();
        ledger.resize();
        strip.resize();
        ledger.refresh();
        window.kept().keep();
        again();
    }

    /** After numbers are written otherwise: whatever shows some is made anew. */
    void numbers() {
        window.views().forget();
        window.bench().sayAgain();
        header.show(window.bench());
        again();
    }

    /** Shows where one is once more; what stands beside the stations stays. */
    private void again() {
        if (!window.aside().isShown()) {
            window.back();
        }
    }
}
