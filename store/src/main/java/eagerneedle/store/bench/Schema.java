package eagerneedle.store.bench;

import java.nio.charset.StandardCharsets;
import java.sql.Connection;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.zip.CRC32C;
import java.util.zip.DataFormatException;

/** The tables of a bench file, and how files of earlier formats become ones of this. */
final class Schema {
    static final int APPLICATION_ID = 0x4E45444C;
    static final int VERSION = 2;

    /**
     * A file some of whose acts carry a sheet of their own: an earlier program would reduce them by the first sheet,
     * and must not open it. Its tables are those of {@link #VERSION}.
     */
    static final int WITH_CHANGED_SHEETS = 3;

    private Schema() {}

    static void create(Connection c) throws SQLException {
        execute(
                c,
                "CREATE TABLE sheet (id INTEGER PRIMARY KEY CHECK (id = 1), text TEXT NOT NULL)",
                "CREATE TABLE act (n INTEGER PRIMARY KEY, at TEXT NOT NULL, says TEXT NOT NULL, session BLOB)",
                "CREATE TABLE begun (run INTEGER PRIMARY KEY, capture TEXT, level TEXT, started TEXT, source "
                        + "TEXT, raw_unit TEXT)",
                "CREATE TABLE block (seq INTEGER PRIMARY KEY, run INTEGER NOT NULL, channel TEXT NOT NULL, n "
                        + "INTEGER NOT NULL, time BLOB NOT NULL, value BLOB NOT NULL)",
                "CREATE INDEX block_of ON block (run, channel)");
        second(c);
    }

    /**
     * Brings a file of an earlier format up to this one, in one transaction: what was there is left as it is, what is
     * new is added beside it.
     */
    static void migrate(Connection c, int from) throws SQLException {
        if (from >= VERSION) {
            return;
        }
        c.setAutoCommit(false);
        try {
            second(c);
            new SampleBlocks(c).outlineAll();
            execute(c, "PRAGMA user_version=" + VERSION);
            c.commit();
        } catch (SQLException e) {
            c.rollback();
            throw e;
        } catch (DataFormatException e) {
            c.rollback();
            throw new SQLException("a block cannot be read", e);
        } finally {
            c.setAutoCommit(true);
        }
    }

    /** What format 2 adds: how a block is packed, outlines of blocks, whole runs as they begin, and attached files. */
    private static void second(Connection c) throws SQLException {
        execute(
                c,
                "ALTER TABLE block ADD COLUMN coding INTEGER NOT NULL DEFAULT 1",
                "CREATE TABLE outline (block INTEGER PRIMARY KEY, run INTEGER NOT NULL, channel TEXT NOT NULL, n "
                        + "INTEGER NOT NULL, t0 REAL NOT NULL, t1 REAL NOT NULL, bins BLOB NOT NULL)",
                "CREATE INDEX outline_of ON outline (run, channel, t1)",
                "ALTER TABLE begun ADD COLUMN whole BLOB",
                "ALTER TABLE sheet ADD COLUMN crc INTEGER",
                "CREATE TABLE attachment (id INTEGER PRIMARY KEY, name TEXT NOT NULL, kind TEXT NOT NULL, bytes "
                        + "BLOB NOT NULL)");
    }

    private static void execute(Connection c, String... statements) throws SQLException {
        try (Statement s = c.createStatement()) {
            for (String sql : statements) {
                s.execute(sql);
            }
        }
    }

    /** Checksum of a text as it is kept beside it. */
    static long checksum(String text) {
        CRC32C crc = new CRC32C();
        crc.update(text.getBytes(StandardCharsets.UTF_8));
        return crc.getValue();
    }
}
