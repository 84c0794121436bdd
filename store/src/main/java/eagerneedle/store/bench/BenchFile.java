package eagerneedle.store.bench;

import eagerneedle.core.reduce.SampleSource;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.Session;
import eagerneedle.core.trace.Pyramid;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.store.FileName;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.zip.DataFormatException;
import org.jspecify.annotations.Nullable;

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

    private final Path path;
    private final Connection connection;
    private final Sql sql;
    private final SampleBlocks blocks;
    private final BegunRuns begun;
    private final Attachments attachments;
    private final Acts acts;
    private final Map<String, RawSamples> cache = new HashMap<>();

    BenchFile(Path path, Connection connection) {
        this.path = path;
        this.connection = connection;
        this.sql = new Sql(connection);
        this.blocks = new SampleBlocks(connection);
        this.begun = new BegunRuns(connection);
        this.attachments = new Attachments(connection);
        this.acts = new Acts(connection);
    }

    /** Makes a new bench file; there must be no file of that name. */
    public static BenchFile create(Path path, Session session) {
        if (Files.exists(path)) {
            throw new BenchFileException(FileName.of(path) + " exists already; choose another name.", false);
        }
        BenchFile file = null;
        try {
            Files.createDirectories(FileName.folder(path));
            file = new BenchFile(path, FileOpening.connect(path));
            file.sql.execute("PRAGMA application_id=" + Schema.APPLICATION_ID);
            file.sql.execute("PRAGMA user_version=" + Schema.VERSION);
            file.connection.setAutoCommit(false);
            Schema.create(file.connection);
            file.sql.execute(
                    "INSERT INTO sheet (id, text, crc) VALUES (1, ?, " + Schema.checksum(session.sheetText()) + ")",
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
                    FileName.of(path) + " cannot be written there (" + FileOpening.brief(e)
                            + "); choose another folder.",
                    false);
        }
    }

    /** Opens a bench file for reading and writing. */
    public static BenchFile open(Path path) {
        FileOpening.isBenchFile(path);
        FileOpening.looksSound(path);
        BenchFile file = null;
        try {
            file = new BenchFile(path, FileOpening.connect(path));
            file.session();
            Schema.migrate(file.connection, file.sql.number("PRAGMA user_version"));
            return file;
        } catch (SQLException e) {
            if (file != null) {
                file.close();
            }
            throw FileOpening.refused(path, e);
        } catch (BenchFileException e) {
            if (file != null) {
                file.close();
            }
            throw e;
        }
    }

    /**
     * The session of a bench file as it stood after an act, read without locking or touching the file. One that a
     * program is writing at the moment may be refused as damaged.
     */
    public static Session glance(Path path) {
        FileOpening.isBenchFile(path);
        try (Connection c = DriverManager.getConnection(FileOpening.untouched(path))) {
            return new BenchFile(path, c).session();
        } catch (SQLException e) {
            throw FileOpening.refused(path, e);
        }
    }

    /** Carries many writes out as one transaction: all of them are kept, or none. */
    public synchronized void together(Runnable writes) {
        try {
            inOne(writes::run);
            settle();
        } catch (SQLException e) {
            throw FileOpening.full(FileName.of(path) + " could not be written", e);
        }
    }

    private interface Writing {
        void write() throws SQLException;
    }

    /** As one transaction, or as part of the one that goes on. */
    private void inOne(Writing writing) throws SQLException {
        if (!connection.getAutoCommit()) {
            writing.write();
            return;
        }
        connection.setAutoCommit(false);
        try {
            writing.write();
            connection.commit();
        } catch (SQLException | RuntimeException e) {
            connection.rollback();
            throw e;
        } finally {
            connection.setAutoCommit(true);
        }
    }

    public Path path() {
        return path;
    }

    /** The session after its last act. */
    public synchronized Session session() {
        try {
            byte[] last = acts.lastSession().orElseThrow(() -> FileOpening.damaged(path));
            Session session = SessionJson.unpack(last);
            return session.sheetText().isEmpty() ? session.withSheetText(sheetText()) : session;
        } catch (SQLException | IOException | IllegalArgumentException e) {
            throw FileOpening.damaged(path, e);
        }
    }

    /** The sheet that the session began with; what was changed in it since stands with the acts. */
    public synchronized String firstSheet() {
        try {
            return sheetText();
        } catch (SQLException | IllegalArgumentException e) {
            throw FileOpening.damaged(path, e);
        }
    }

    private String sheetText() throws SQLException {
        String text = sql.text("SELECT text FROM sheet WHERE id = 1");
        if (sql.number("PRAGMA user_version") >= 2
                && !sql.text("SELECT coalesce(crc, '') FROM sheet WHERE id = 1").isEmpty()
                && Long.parseLong(sql.text("SELECT crc FROM sheet WHERE id = 1")) != Schema.checksum(text)) {
            throw FileOpening.damaged(path);
        }
        return text;
    }

    /** Keeps the session after an act, and the act, in one transaction. */
    public synchronized void save(Session session, Instant at, String says) {
        try {
            boolean first = session.sheetText().isEmpty()
                    || session.sheetText().equals(sql.text("SELECT text FROM sheet WHERE id = 1"));
            if (!first && sql.number("PRAGMA user_version") < Schema.WITH_CHANGED_SHEETS) {
                sql.execute("PRAGMA user_version=" + Schema.WITH_CHANGED_SHEETS);
            }
            acts.add(at.toString(), says, SessionJson.pack(first ? session.withSheetText("") : session));
            if (connection.getAutoCommit()) {
                settle();
            }
        } catch (SQLException e) {
            throw FileOpening.full("The last act could not be written to " + FileName.of(path), e);
        }
    }

    /**
     * Brings the log into the file, so that between two acts the file alone is whole, whoever copies it. The samples of
     * a run that is going on are in the log as well.
     */
    private void settle() {
        try {
            sql.execute("PRAGMA wal_checkpoint(TRUNCATE)");
        } catch (SQLException e) {
            // What was kept stays in the log beside the file, which is read as part of it.
        }
    }

    /** The notebook, in order. */
    public synchronized List<NotebookLine> acts() {
        return read(acts::notebook);
    }

    /** Notes that a run begins, before its first sample, so that it can be recovered if the program ends. */
    public synchronized void begin(Run run) {
        try {
            begun.add(run);
        } catch (SQLException e) {
            throw new BenchFileException(
                    "The run cannot be started: " + FileName.of(path) + " cannot be written (" + FileOpening.brief(e)
                            + ").",
                    false,
                    e);
        }
    }

    /** Runs that began and hold samples but were neither kept nor discarded: the program ended in between. */
    public synchronized List<Run> unfinished(Session session) {
        try {
            return begun.unfinished(session);
        } catch (SQLException | IOException e) {
            throw FileOpening.damaged(path, e);
        }
    }

    /** The next run id that neither the session nor any stored block uses. */
    public synchronized int nextRunId(Session session) {
        try {
            return Math.max(
                    session.nextRunId(),
                    1
                            + Math.max(
                                    sql.number("SELECT coalesce(max(run), 0) FROM block"),
                                    sql.number("SELECT coalesce(max(run), 0) FROM begun")));
        } catch (SQLException e) {
            throw FileOpening.damaged(path, e);
        }
    }

    /** Appends raw samples and commits. */
    public void append(int run, String channel, RawSamples samples) {
        append(run, Map.of(channel, samples));
    }

    /** Appends raw samples of several channels of a run, all of them or none, and commits. */
    public synchronized void append(int run, Map<String, RawSamples> samples) {
        try {
            inOne(() -> {
                for (Map.Entry<String, RawSamples> e : samples.entrySet()) {
                    if (e.getValue().size() > 0) {
                        blocks.add(run, e.getKey(), e.getValue());
                        cache.remove(run + "/" + e.getKey());
                    }
                }
            });
        } catch (SQLException e) {
            throw new BenchFileException(
                    "Samples could not be written to " + FileName.of(path) + " (" + FileOpening.brief(e)
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
            sql.execute("PRAGMA max_page_count=" + Math.max(1, bytes / Math.max(1, sql.number("PRAGMA page_size"))));
        } catch (SQLException e) {
            throw FileOpening.damaged(path, e);
        }
    }

    /** Keeps a file with the session, such as a picture; its number is returned. */
    public synchronized int attach(String name, String kind, byte[] bytes) {
        try {
            return attachments.add(name, kind, bytes);
        } catch (SQLException e) {
            throw FileOpening.full(name + " could not be kept in " + FileName.of(path), e);
        }
    }

    /** The bytes of an attached file; none if there is no such. */
    public synchronized byte[] attachment(int id) {
        return read(() -> attachments.bytes(id));
    }

    /** Looks through the whole file: "ok", or what is wrong with it. */
    public synchronized String integrity() {
        return read(() -> sql.text("PRAGMA integrity_check(1)"));
    }

    private interface Reading<T> {
        T read() throws SQLException, DataFormatException;
    }

    private <T> T read(Reading<T> reading) {
        try {
            return reading.read();
        } catch (SQLException | DataFormatException e) {
            throw FileOpening.damaged(path, e);
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
                    FileName.of(copy) + " cannot be written there (" + FileOpening.brief(e)
                            + "); choose another folder.",
                    false,
                    e);
        }
    }

    /**
     * Puts what can be read of a damaged file, and of the log beside it, into a new one; the damaged file is left as it
     * is. The new one is made beside its place and put there when it is whole.
     *
     * @param sheet the text of a method sheet to be used where the one in the file is garbled; null for none
     */
    public static Repaired repair(Path damaged, Path repaired, @Nullable String sheet) {
        return Salvage.beside(damaged, repaired, sheet);
    }

    /** Carries one act over from another file as it is; for {@link Salvage}. */
    synchronized void carryAct(String at, String says, byte[] session) {
        try {
            acts.add(at, says, session);
        } catch (SQLException e) {
            throw FileOpening.full(FileName.of(path) + " could not be written", e);
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
