package eagerneedle.app.workbench;

import eagerneedle.core.formula.NearName;
import eagerneedle.core.quantity.DecimalSign;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.stockroom.Kit;
import eagerneedle.core.stockroom.Site;
import eagerneedle.report.Paper;
import eagerneedle.store.bench.BenchFile;
import eagerneedle.store.stockroom.Stockroom;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.Locale;
import java.util.Set;

/** Where the program keeps what nobody gave another place. */
public final class Home {
    /** Countries that print on it. */
    private static final Set<String> LETTER = Set.of("US", "CA", "MX", "PH", "CL", "CO");

    private Home() {}

    /** The folder; {@code NEEDLE_HOME}, or the property {@code needle.home}, may say otherwise. */
    public static Path folder() {
        String set = System.getProperty("needle.home", System.getenv("NEEDLE_HOME"));
        return set != null && !set.isBlank()
                ? Path.of(set)
                : Path.of(System.getProperty("user.home"), ".local", "share", "eager-needle");
    }

    /**
     * The folder of what a laboratory shares: what it says for all its sheets, and its stockroom. It is the user's own
     * unless {@code NEEDLE_SITE}, or the property {@code needle.site}, names one that all log-ins of a machine read.
     */
    public static Path siteFolder() {
        String set = System.getProperty("needle.site", System.getenv("NEEDLE_SITE"));
        return set != null && !set.isBlank() ? Path.of(set) : folder();
    }

    /** Where the instruments of the laboratory are kept. */
    public static Path stockroom() {
        return siteFolder().resolve("stockroom.db");
    }

    /**
     * What the laboratory says.
     *
     * @throws IllegalArgumentException with one sentence where that cannot be used
     */
    public static Site site() {
        Path file = siteFolder().resolve("site.yaml");
        try {
            return Files.exists(file) ? Site.read(Files.readString(file), "site.yaml") : Site.UNSAID;
        } catch (IOException e) {
            throw new IllegalArgumentException("What the laboratory says, site.yaml, cannot be read.", e);
        }
    }

    /** What the laboratory prints on; where it says nothing, the paper of the country this computer is set to. */
    public static Paper paper() {
        Boolean letter;
        try {
            letter = site().letter();
        } catch (IllegalArgumentException unreadable) {
            letter = null;
        }
        return (letter != null ? letter : LETTER.contains(Locale.getDefault().getCountry())) ? Paper.LETTER : Paper.A4;
    }

    /** What this user has set. */
    private static Settings settings() {
        return Settings.read(folder().resolve(Settings.FILE));
    }

    /** The bench of this machine, by {@code NEEDLE_BENCH} or the settings; empty where nobody said. */
    public static String bench() {
        String set = System.getProperty("needle.bench", System.getenv("NEEDLE_BENCH"));
        return set == null ? settings().bench() : set.strip();
    }

    /** The sign between whole and tenths: what this user has set, or else what the laboratory says. */
    public static DecimalSign decimal() {
        DecimalSign own = settings().numbers().decimal();
        try {
            return own != null ? own : site().comma() ? DecimalSign.COMMA : DecimalSign.POINT;
        } catch (IllegalArgumentException unreadable) {
            return DecimalSign.POINT;
        }
    }

    /** Where new sessions are kept. */
    public static Path sessions() {
        String set = settings().folder();
        return set.isBlank() ? folder() : Path.of(set);
    }

    /**
     * A new session of a sheet, in a file of its own in that folder, with what the laboratory says and, where this
     * machine belongs to a bench, with the instruments of that bench.
     */
    public static BenchFile begin(SheetReader.Located located, Instant now) {
        return begin(located, bench(), now);
    }

    /** The same at a bench of the laboratory; empty for none. */
    public static BenchFile begin(SheetReader.Located located, String bench, Instant now) {
        Sheet sheet = located.sheet();
        Site site = site();
        Kit kit = bench.isBlank()
                ? null
                : site.kit(bench)
                        .orElseThrow(() -> new IllegalArgumentException("The laboratory has no bench " + bench
                                + NearName.hint(
                                        bench,
                                        site.kits().stream().map(Kit::bench).toList())));
        BenchFile file = begin(sheet.id(), Session.start(located.text(), sheet.title(), now));
        settings().numbers().first().ifPresent(c -> file.save(c.apply(file.session()), now, c.says()));
        AtSite.said(sheet, site).ifPresent(c -> file.save(c.apply(file.session()), now, c.says()));
        if (kit != null) {
            try (Stockroom room = Stockroom.at(stockroom())) {
                AtSite.Move move = AtSite.to(kit, file.session(), sheet, room.all(), now);
                String lacking = move.lacking().isEmpty() ? "" : " " + String.join(" ", move.lacking());
                file.save(move.act().apply(file.session()), now, move.act().says() + lacking);
            }
        }
        return file;
    }

    /** A new session in a file of its own in that folder, named after its method. */
    public static BenchFile begin(String id, Session session) {
        Path to = sessions().resolve(id + ".needle");
        for (int i = 2; Files.exists(to); i++) {
            to = sessions().resolve(id + "-" + i + ".needle");
        }
        return BenchFile.create(to, session);
    }
}
