package eagerneedle.app.station;

import eagerneedle.app.widget.Files;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.workbench.Papering;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.report.Handout;
import eagerneedle.store.FileName;
import java.nio.file.Path;
import java.util.Locale;
import java.util.concurrent.CompletableFuture;
import javafx.application.Platform;
import javafx.scene.Node;

/** Asks where a handout is to be written, and writes it beside everything else. */
public final class HandoutPaper {
    private HandoutPaper() {}

    /**
     * @param text of the sheet
     * @param key true for the instructor's copy
     */
    public static void ask(Node owner, String text, boolean key) {
        SheetReader.Located sheet = SheetTrial.readOfSession(text, "the sheet");
        Path to = Files.ask(owner.getScene().getWindow(), sheet.sheet().id() + (key ? "-key" : "-handout") + ".pdf");
        if (to != null) {
            write(owner, sheet, key, to);
        }
    }

    /** Writes it; the paper is that of the country this computer is set to. */
    public static CompletableFuture<Void> write(Node owner, SheetReader.Located sheet, boolean key, Path to) {
        Notices.tell(owner, "The handout is being set...");
        return CompletableFuture.supplyAsync(() -> Papering.pdf(sheet, key, paper(Locale.getDefault())))
                .thenAccept(pdf -> Files.write(to, pdf))
                .whenComplete((done, failed) -> Platform.runLater(() -> {
                    if (failed == null) {
                        Notices.tell(owner, "Wrote " + FileName.of(to) + ".");
                    } else {
                        Throwable cause = failed.getCause() == null ? failed : failed.getCause();
                        Notices.warn(owner, String.valueOf(cause.getMessage()));
                    }
                }));
    }

    static Handout.Paper paper(Locale country) {
        return java.util.Set.of("US", "CA", "MX", "PH", "CL", "CO").contains(country.getCountry())
                ? Handout.Paper.LETTER
                : Handout.Paper.A4;
    }
}
