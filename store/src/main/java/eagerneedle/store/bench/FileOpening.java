package eagerneedle.store.bench;

import eagerneedle.store.FileName;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.Arrays;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** Looking at a file before it is opened, opening it, and saying why it cannot be. */
final class FileOpening {
    private static final byte[] SQLITE = "SQLite format 3\0".getBytes(StandardCharsets.US_ASCII);

    private FileOpening() {}

    /** Refuses with one sentence what is not a bench file by its first bytes, or is not there. */
    static void isBenchFile(Path path) {
        byte[] head = new byte[SQLITE.length];
        try (var in = Files.newInputStream(path)) {
            if (in.readNBytes(head, 0, head.length) < head.length || !Arrays.equals(head, SQLITE)) {
                throw new BenchFileException(
                        FileName.of(path)
                                + " is not a bench file; bench files end in .needle and are made by this program.",
                        false);
            }
        } catch (IOException e) {
            throw new BenchFileException(
                    FileName.of(path) + (Files.exists(path) ? " cannot be read" : " is not there")
                            + "; check its name and folder.",
                    false,
                    e);
        }
    }

    /**
     * Looks at a file without altering it: neither what is not ours, nor what is damaged, is written to, not even its
     * log.
     */
    static void looksSound(Path path) {
        try {
            byte[] head = Pages.head(path);
            if (head.length < 100) {
                throw damaged(path);
            }
            int version = java.nio.ByteBuffer.wrap(head).getInt(60);
            if (java.nio.ByteBuffer.wrap(head).getInt(68) != Schema.APPLICATION_ID) {
                throw new BenchFileException(
                        FileName.of(path) + " is a database of some other program, not a bench file.", false);
            }
            if (version > Schema.WITH_CHANGED_SHEETS) {
                throw new BenchFileException(
                        FileName.of(path) + " was written by a newer version of this program (format " + version
                                + "); use that one.",
                        false);
            }
            Path log = path.resolveSibling(FileName.of(path) + "-wal");
            if (!Files.exists(log) || Files.size(log) == 0) {
                looksSound(path, untouched(path));
                return;
            }
            // With a log beside it SQLite would merge the two on closing: what is looked at is a copy of both.
            Path folder = Files.createTempDirectory("needle-look");
            Path copy = folder.resolve("copy.needle");
            Path copiedLog = folder.resolve("copy.needle-wal");
            try {
                Files.copy(path, copy);
                Files.copy(log, copiedLog);
                looksSound(path, "jdbc:sqlite:" + copy);
            } finally {
                for (Path p : List.of(copiedLog, folder.resolve("copy.needle-shm"), copy, folder)) {
                    Files.deleteIfExists(p);
                }
            }
        } catch (IOException e) {
            throw new BenchFileException(FileName.of(path) + " cannot be read; check its name and folder.", false, e);
        } catch (SQLException e) {
            throw refused(path, e);
        }
    }

    /** How a file is opened that is only looked at: without its log, and without a lock. */
    static String untouched(Path path) {
        return "jdbc:sqlite:file:" + path.toUri().getRawPath() + "?immutable=1";
    }

    static void looksSound(Path path, String url) throws SQLException {
        try (Connection c = DriverManager.getConnection(url)) {
            BenchFile look = new BenchFile(path, c);
            if (!"ok".equals(new Sql(c).text("PRAGMA quick_check(1)"))) {
                throw damaged(path);
            }
            look.session();
        }
    }

    static BenchFileException refused(Path path, SQLException e) {
        String said = e.getMessage() == null ? "" : e.getMessage();
        if (said.contains("BUSY") || said.contains("locked")) {
            return new BenchFileException(
                    FileName.of(path) + " is open in another window of this program; close it there first.", false, e);
        }
        Path folder = path.toAbsolutePath().getParent();
        if (said.contains("READONLY")
                || said.contains("CANTOPEN")
                || said.contains("readonly")
                || !Files.isWritable(path)
                || !Files.isWritable(folder)) {
            return new BenchFileException(
                    FileName.of(path)
                            + " cannot be written to, or its folder cannot: it is read-only. Copy it to a folder "
                            + "of your own and open it there.",
                    false,
                    e);
        }
        return said.contains("FULL")
                ? new BenchFileException(
                        "There is no room beside " + FileName.of(path) + " to open it; make room on the disk.",
                        false,
                        e)
                : damaged(path, e);
    }

    static BenchFileException damaged(Path path) {
        return damaged(path, null);
    }

    static BenchFileException damaged(Path path, @Nullable Throwable cause) {
        return new BenchFileException(
                FileName.of(path)
                        + " is cut short or damaged; repair puts what can be read into a new file and leaves "
                        + "this one as it is.",
                true,
                cause);
    }

    static Connection connect(Path path) throws SQLException {
        Connection c = DriverManager.getConnection("jdbc:sqlite:" + path.toAbsolutePath());
        try (Statement s = c.createStatement()) {
            s.execute("PRAGMA busy_timeout=300");
            s.execute("PRAGMA locking_mode=EXCLUSIVE");
            s.execute("PRAGMA journal_mode=WAL");
            s.execute("PRAGMA synchronous=FULL");
        } catch (SQLException e) {
            c.close();
            throw e;
        }
        return c;
    }

    /** What was not written, most often because the disk is full. */
    static BenchFileException full(String what, SQLException e) {
        return new BenchFileException(what + " (" + brief(e) + "); make room on the disk and try again.", false, e);
    }

    static String brief(Exception e) {
        return e instanceof IOException
                ? "the folder does not take it"
                : e.getMessage() == null
                        ? "no reason given"
                        : e.getMessage().replaceAll("^\\[|\\].*", "").toLowerCase(java.util.Locale.ROOT);
    }
}
