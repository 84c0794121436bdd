package eagerneedle.app.workbench;

import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.store.bench.BenchFile;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;

/** Where the program keeps what nobody gave another place. */
public final class Home {
    private Home() {}

    /** The folder; {@code NEEDLE_HOME}, or the property {@code needle.home}, may say otherwise. */
    public static Path folder() {
        String set = System.getProperty("needle.home", System.getenv("NEEDLE_HOME"));
        return set != null && !set.isBlank()
                ? Path.of(set)
                : Path.of(System.getProperty("user.home"), ".local", "share", "eager-needle");
    }

    /** A new session of a sheet, in a file of its own in that folder. */
    public static BenchFile begin(SheetReader.Located sheet, Instant now) {
        return begin(
                sheet.sheet().id(), Session.start(sheet.text(), sheet.sheet().title(), now));
    }

    /** A new session in a file of its own in that folder, named after its method. */
    public static BenchFile begin(String id, Session session) {
        Path to = folder().resolve(id + ".needle");
        for (int i = 2; Files.exists(to); i++) {
            to = folder().resolve(id + "-" + i + ".needle");
        }
        return BenchFile.create(to, session);
    }
}
