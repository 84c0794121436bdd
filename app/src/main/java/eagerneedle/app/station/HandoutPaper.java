package eagerneedle.app.station;

import eagerneedle.app.widget.Files;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.workbench.Fault;
import eagerneedle.app.workbench.Home;
import eagerneedle.app.workbench.Papering;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.store.FileName;
import java.nio.file.Path;
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

    /** Writes it on the paper of the laboratory. */
    public static CompletableFuture<Void> write(Node owner, SheetReader.Located sheet, boolean key, Path to) {
        Notices.tell(owner, "The handout is being set...");
        return CompletableFuture.supplyAsync(() -> Papering.pdf(sheet, key, Home.paper()))
                .thenAccept(pdf -> Files.write(to, pdf))
                .whenComplete((done, failed) -> Platform.runLater(() -> {
                    if (failed == null) {
                        Notices.tell(owner, "Wrote " + FileName.of(to) + ".");
                    } else {
                        Notices.warn(owner, Fault.said(failed));
                    }
                }));
    }
}
