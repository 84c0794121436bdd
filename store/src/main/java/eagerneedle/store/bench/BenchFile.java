package eagerneedle.store.bench;

import eagerneedle.core.reduce.SampleSource;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.Session;
import eagerneedle.core.trace.Pyramid;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.store.FileName;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.zip.DataFormatException;

/**
 * One session on disk: the sheet, every act with the session as it stood after it, and the raw samples in packed
 * blocks.
 *
 * <p>Nothing is ever overwritten: acts and blocks are only added, each in its own transaction, so that a killed program
 * loses none and damage to one page loses what lies on that page. All methods may be called from any thread; they take
 * turns.
 */
public final class BenchFile implements SampleSource, AutoCloseable {
    private static final int REMEMBERED = 4_000_000;
    private static final byte[] SQLITE = "SQLite format 3\0".getBytes(StandardCharsets.US_ASCII);

    /** One line of the notebook. */
    public record NotebookLine(Instant at, String text) {}

    private final Path path;
    private final Connection connection;
    private final Blocks blocks;
    private final Map<String, RawSamples> cache = new HashMap<>();

    BenchFile(Path path, Connection connection) {
        this.path = path;
        this.connection = connection;
        this.blocks = new Blocks(connection);
    }

    /** Makes a new bench file; there must be no file of that name. */
    public static BenchFile create(Path path, Session session) {
        if (Files.exists(path)) {
            throw new BenchFileException(FileName.of(path) + " exists already; choose another name.", false);
        }
        BenchFile file = null;
        try {
            Files.createDirectories(FileName.folder(path));
            file = new BenchFile(path, Opening.connect(path));
            file.execute("PRAGMA application_id=" + Schema.APPLICATION_ID);
            file.execute("PRAGMA user_version=" + Schema.VERSION);
            file.connection.setAutoCommit(false);
            Schema.create(file.connection);
            file.write(
                    "INSERT INTO sheet (id, text, crc) VALUES (1, ?, " + checksum(session.sheetText()) + ")",
                    session.sheetText());
            file.save(session, session.created(), "Session opened: " + session.title() + ".");
            file.connection.commit();
            file.connection.setAutoCommit(true);
            file.settle();
            return file;
        } catch (SQLException | IOException e) {
            if (file != null) {
                file.close();
            }
            throw new BenchFileException(
                    FileName.of(path) + " cannot be written there (" + Opening.brief(e) + "); choose another folder.",
                    false);
        }
    }

    /** Opens a bench file for reading and writing. */
    public static BenchFile open(Path path) {
        byte[] head = new byte[SQLITE.length];
        try (var in = Files.newInputStream(path)) {
            if (in.readNBytes(head, 0, head.length) < head.length || !java.util.Arrays.equals(head, SQLITE)) {
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
        Opening.looksSound(path);
        BenchFile file = null;
        try {
            file = new BenchFile(path, Opening.connect(path));
            file.session();
            Schema.migrate(file.connection, file.number("PRAGMA user_version"));
            return file;
        } catch (SQLException e) {
            if (file != null) {
                file.close();
            }
            throw Opening.refused(path, e);
        } catch (BenchFileException e) {
            if (file != null) {
                file.close();
            }
            throw e;
        }
    }

    /** Carries many writes out as one transaction: all of them are kept, or none. */
    public synchronized void together(Runnable writes) {
        try {
            connection.setAutoCommit(false);
            try {
                writes.run();
                connection.commit();
            } catch (SQLException | RuntimeException e) {
                connection.rollback();
                throw e;
            } finally {
                connection.setAutoCommit(true);
            }
            settle();
        } catch (SQLException e) {
            throw new BenchFileException(
                    FileName.of(path) + " could not be written (" + Opening.brief(e)
                            + "); make room on the disk and try again.",
                    false,
                    e);
        }
    }

    public Path path() {
        return path;
    }

    /** The session after its last act. */
    public synchronized Session session() {
        try (Statement s = connection.createStatement();
                ResultSet r =
                        s.executeQuery("SELECT session FROM act WHERE session IS NOT NULL ORDER BY n DESC LIMIT 1")) {
            if (!r.next()) {
                throw Opening.damaged(path);
            }
            return SessionJson.unpack(r.getBytes(1)).withSheetText(sheetText());
        } catch (SQLException | IOException | IllegalArgumentException e) {
            throw Opening.damaged(path);
        }
    }

    private String sheetText() throws SQLException {
        String text = text("SELECT text FROM sheet WHERE id = 1");
        if (number("PRAGMA user_version") >= 2
                && !text("SELECT coalesce(crc, '') FROM sheet WHERE id = 1").isEmpty()
                && Long.parseLong(text("SELECT crc FROM sheet WHERE id = 1")) != checksum(text)) {
            throw Opening.damaged(path);
        }
        return text;
    }

    static long checksum(String text) {
        java.util.zip.CRC32C crc = new java.util.zip.CRC32C();
        crc.update(text.getBytes(StandardCharsets.UTF_8));
        return crc.getValue();
    }

    /** Keeps the session after an act, and the act, in one transaction. */
    public synchronized void save(Session session, Instant at, String says) {
        try (PreparedStatement act =
                connection.prepareStatement("INSERT INTO act (at, says, session) VALUES (?, ?, ?)")) {
            act.setString(1, at.toString());
            act.setString(2, says);
            act.setBytes(3, SessionJson.pack(session.withSheetText("")));
            act.executeUpdate();
            if (connection.getAutoCommit()) {
                settle();
            }
        } catch (SQLException e) {
            throw new BenchFileException(
                    "The last act could not be written to " + FileName.of(path) + " (" + Opening.brief(e)
                            + "); make room on the disk and try again.",
                    false,
                    e);
        }
    }

    /**
     * Brings the log into the file, so that between two acts the file alone is whole, whoever copies it. The samples of
     * a run that is going on are in the log as well.
     */
    private void settle() {
        try {
            execute("PRAGMA wal_checkpoint(TRUNCATE)");
        } catch (SQLException e) {
            // What was kept stays in the log beside the file, which is read as part of it.
        }
    }

    /** The notebook, in order. */
    public synchronized List<NotebookLine> acts() {
        try (Statement s = connection.createStatement();
                ResultSet r = s.executeQuery("SELECT at, says FROM act ORDER BY n")) {
            List<NotebookLine> acts = new ArrayList<>();
            while (r.next()) {
                acts.add(new NotebookLine(Instant.parse(r.getString(1)), r.getString(2)));
            }
            return acts;
        } catch (SQLException e) {
            throw Opening.damaged(path);
        }
    }

    /** Notes that a run begins, before its first sample, so that it can be recovered if the program ends. */
    public synchronized void begin(Run run) {
        try (PreparedStatement s = connection.prepareStatement(
                "INSERT OR REPLACE INTO begun (run, capture, level, started, source, raw_unit, whole) VALUES (?, "
                        + "?, ?, ?, ?, ?, ?)")) {
            s.setInt(1, run.id());
            s.setString(2, run.capture());
            s.setString(3, run.level());
            s.setString(4, run.started().toString());
            s.setString(5, run.source());
            s.setString(6, run.rawUnit());
            s.setBytes(7, SessionJson.packRun(run));
            s.executeUpdate();
        } catch (SQLException e) {
            throw new BenchFileException(
                    "The run cannot be started: " + FileName.of(path) + " cannot be written (" + Opening.brief(e)
                            + ").",
                    false,
                    e);
        }
    }

    /** Runs that began and hold samples but were neither kept nor discarded: the program ended in between. */
    public synchronized List<Run> unfinished(Session session) {
        List<Run> runs = new ArrayList<>();
        try (Statement s = connection.createStatement();
                ResultSet r = s.executeQuery(
                        "SELECT run, capture, level, started, source, raw_unit, whole FROM begun WHERE run IN "
                                + "(SELECT run FROM block) ORDER BY run")) {
            while (r.next()) {
                int id = r.getInt(1);
                if (session.run(id).isEmpty()) {
                    byte[] whole = r.getBytes(7);
                    runs.add(
                            whole != null
                                    ? SessionJson.unpackRun(whole)
                                    : Run.captured(
                                            id,
                                            r.getString(2),
                                            r.getString(3),
                                            Instant.parse(r.getString(4)),
                                            r.getString(5),
                                            r.getString(6)));
                }
            }
            return runs;
        } catch (SQLException | IOException e) {
            throw Opening.damaged(path);
        }
    }

    /** The next run id that neither the session nor any stored block uses. */
    public synchronized int nextRunId(Session session) {
        try {
            return Math.max(
                    session.nextRunId(),
                    1
                            + Math.max(
                                    number("SELECT coalesce(max(run), 0) FROM block"),
                                    number("SELECT coalesce(max(run), 0) FROM begun")));
        } catch (SQLException e) {
            throw Opening.damaged(path);
        }
    }

    /** Appends raw samples and commits. */
    public void append(int run, String channel, RawSamples samples) {
        append(run, Map.of(channel, samples));
    }

    /** Appends raw samples of several channels of a run, all of them or none, and commits. */
    public synchronized void append(int run, Map<String, RawSamples> samples) {
        try {
            boolean alone = connection.getAutoCommit();
            if (alone) {
                connection.setAutoCommit(false);
            }
            try {
                for (Map.Entry<String, RawSamples> e : samples.entrySet()) {
                    if (e.getValue().size() > 0) {
                        blocks.add(run, e.getKey(), e.getValue());
                        cache.remove(run + "/" + e.getKey());
                    }
                }
                if (alone) {
                    connection.commit();
                }
            } catch (SQLException e) {
                if (alone) {
                    connection.rollback();
                }
                throw e;
            } finally {
                if (alone) {
                    connection.setAutoCommit(true);
                }
            }
        } catch (SQLException e) {
            throw new BenchFileException(
                    "Samples could not be written to " + FileName.of(path) + " (" + Opening.brief(e)
                            + "); make room on the disk.",
                    false,
                    e);
        }
    }

    @Override
    public synchronized RawSamples samples(int run, String channel) {
        RawSamples known = cache.get(run + "/" + channel);
        if (known != null) {
            return known;
        }
        RawSamples read = read(() -> blocks.all(run, channel));
        if (read.size() <= REMEMBERED) {
            cache.put(run + "/" + channel, read);
        }
        return read;
    }

    /** The raw samples of a span of a run, s; only the blocks that hold it are read. */
    public synchronized RawSamples samples(int run, String channel, double from, double to) {
        return read(() -> blocks.between(run, channel, from, to));
    }

    @Override
    public synchronized long count(int run, String channel) {
        return read(() -> blocks.count(run, channel));
    }

    /** The outline of a channel of a run, without reading its samples. */
    public synchronized Pyramid overview(int run, String channel) {
        return read(() -> blocks.overview(run, channel));
    }

    /**
     * Lets the file grow no further than so many bytes, as a disk or a quota would; what does not fit is refused with a
     * sentence.
     */
    public synchronized void limit(long bytes) {
        try {
            execute("PRAGMA max_page_count=" + Math.max(1, bytes / Math.max(1, number("PRAGMA page_size"))));
        } catch (SQLException e) {
            throw Opening.damaged(path);
        }
    }

    /** Keeps a file with the session, such as a picture; its number is returned. */
    public synchronized int attach(String name, String kind, byte[] bytes) {
        try (PreparedStatement s =
                connection.prepareStatement("INSERT INTO attachment (name, kind, bytes) VALUES (?, ?, ?)")) {
            s.setString(1, name);
            s.setString(2, kind);
            s.setBytes(3, bytes);
            s.executeUpdate();
            return number("SELECT last_insert_rowid()");
        } catch (SQLException e) {
            throw new BenchFileException(
                    name + " could not be kept in " + FileName.of(path) + " (" + Opening.brief(e)
                            + "); make room on the disk and try again.",
                    false,
                    e);
        }
    }

    /** The bytes of an attached file; none if there is no such. */
    public synchronized byte[] attachment(int id) {
        return read(() -> {
            try (PreparedStatement s = connection.prepareStatement("SELECT bytes FROM attachment WHERE id = ?")) {
                s.setInt(1, id);
                try (ResultSet r = s.executeQuery()) {
                    return r.next() ? r.getBytes(1) : new byte[0];
                }
            }
        });
    }

    /** Looks through the whole file: "ok", or what is wrong with it. */
    public synchronized String integrity() {
        return read(() -> text("PRAGMA integrity_check(1)"));
    }

    private interface Reading<T> {
        T read() throws SQLException, DataFormatException;
    }

    private <T> T read(Reading<T> reading) {
        try {
            return reading.read();
        } catch (SQLException | DataFormatException e) {
            throw Opening.damaged(path);
        }
    }

    /** Writes a whole, self-contained copy; there must be no file of that name. */
    public synchronized void copyTo(Path copy) {
        if (Files.exists(copy)) {
            throw new BenchFileException(FileName.of(copy) + " exists already; choose another name.", false);
        }
        try (PreparedStatement s = connection.prepareStatement("VACUUM INTO ?")) {
            s.setString(1, copy.toAbsolutePath().toString());
            s.execute();
        } catch (SQLException e) {
            throw new BenchFileException(
                    FileName.of(copy) + " cannot be written there (" + Opening.brief(e) + "); choose another folder.",
                    false,
                    e);
        }
    }

    /** As {@link #repair(Path, Path, String)} with the sheet that is in the file. */
    public static Repaired repair(Path damaged, Path repaired) {
        return repair(damaged, repaired, null);
    }

    /**
     * Puts what can be read of a damaged file, and of the log beside it, into a new one; the damaged file is left as it
     * is. The new one is made beside its place and put there when it is whole.
     *
     * @param sheet the text of a method sheet to be used where the one in the file is garbled; null for none
     */
    public static Repaired repair(Path damaged, Path repaired, String sheet) {
        if (Files.exists(repaired)) {
            throw new BenchFileException(FileName.of(repaired) + " exists already; choose another name.", false);
        }
        Path target = repaired.toAbsolutePath();
        Path work = target.resolveSibling("." + FileName.of(target) + ".part");
        try {
            Files.deleteIfExists(work);
            Repaired done = Salvage.of(damaged, work, sheet);
            Files.move(work, target);
            return new Repaired(FileName.of(target), done.acts(), done.blocks(), done.samples(), done.missing());
        } catch (IOException e) {
            throw new BenchFileException(
                    Files.isReadable(damaged)
                            ? FileName.of(repaired) + " cannot be written there (" + Opening.brief(e)
                                    + "); choose another folder."
                            : FileName.of(damaged) + " cannot be read; it was left as it is.",
                    false,
                    e);
        } finally {
            for (String end : new String[] {"", "-wal", "-shm"}) {
                try {
                    Files.deleteIfExists(work.resolveSibling(FileName.of(work) + end));
                } catch (IOException e) {
                    work.toFile().deleteOnExit();
                }
            }
        }
    }

    /** Carries one act over from another file as it is; for {@link Salvage}. */
    synchronized void carryAct(String at, String says, byte[] session) {
        try (PreparedStatement in =
                connection.prepareStatement("INSERT INTO act (at, says, session) VALUES (?, ?, ?)")) {
            in.setString(1, at);
            in.setString(2, says);
            in.setBytes(3, session);
            in.executeUpdate();
        } catch (SQLException e) {
            throw new BenchFileException(
                    FileName.of(path) + " could not be written (" + Opening.brief(e)
                            + "); make room on the disk and try again.",
                    false,
                    e);
        }
    }

    private void write(String sql, String text) throws SQLException {
        try (PreparedStatement s = connection.prepareStatement(sql)) {
            s.setString(1, text);
            s.execute();
        }
    }

    private void execute(String sql) throws SQLException {
        try (Statement s = connection.createStatement()) {
            s.execute(sql);
        }
    }

    private int number(String sql) throws SQLException {
        try (Statement s = connection.createStatement();
                ResultSet r = s.executeQuery(sql)) {
            return r.next() ? r.getInt(1) : 0;
        }
    }

    String text(String sql) throws SQLException {
        try (Statement s = connection.createStatement();
                ResultSet r = s.executeQuery(sql)) {
            return r.next() ? r.getString(1) : "";
        }
    }

    @Override
    public synchronized void close() {
        try {
            if (!connection.isClosed()) {
                settle();
            }
            connection.close();
        } catch (SQLException e) {
            // Nothing is lost: every act was committed when it was made.
        }
    }
}
