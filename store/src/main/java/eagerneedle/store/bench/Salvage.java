package eagerneedle.store.bench;

import eagerneedle.core.session.Session;
import java.io.IOException;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.zip.DataFormatException;

/**
 * Reads what is left of a damaged bench file, row by row: a row that lies on a broken page costs itself and no other.
 */
final class Salvage {
    private static final int MISSES = 200;

    private record Act(String at, String says, byte[] session) {
    }

    private final Connection from;

    private Salvage(Connection from) {
        this.from = from;
    }

    /** Puts everything readable into a new file; one sentence says what that was. */
    static String of(Connection from, Path damaged, Path repaired) throws SQLException {
        try (Statement s = from.createStatement()) {
            // Without this SQLite refuses a file that is shorter than its header says.
            s.execute("PRAGMA writable_schema=ON");
        }
        Salvage salvage = new Salvage(from);
        String sheet = salvage.sheet();
        Map<Long, Act> acts = salvage.acts();
        Session last = null;
        for (Act a : acts.values()) {
            Session s = read(a.session());
            last = s == null ? last : s;
        }
        if (sheet == null || last == null) {
            throw new BenchFileException("The session in " + damaged.getFileName() + " lies in the part that is missing, so nothing could be repaired; the file was left as it is.", false);
        }
        int blocks = 0;
        int attached = 0;
        try (BenchFile to = BenchFile.create(repaired, last.withSheetText(sheet))) {
            int[] saved = {0, 0};
            Session whole = last;
            to.together(() -> {
                acts.values().forEach(a -> to.carryAct(a.at(), a.says(), read(a.session()) == null ? null : a.session()));
                saved[0] = salvage.blocks(to);
                saved[1] = salvage.attachments(to);
                to.save(whole, Instant.now(), "Repaired from " + damaged.getFileName() + ".");
            });
            blocks = saved[0];
            attached = saved[1];
        }
        return "%s holds what could be read: the session, %d notebook lines, %d blocks of samples%s.".formatted(repaired.getFileName(), acts.size(), blocks,
                attached == 0 ? "" : " and " + attached + " attached files");
    }

    private static Session read(byte[] packed) {
        try {
            return packed == null ? null : SessionJson.unpack(packed);
        } catch (IOException | IllegalArgumentException e) {
            return null;
        }
    }

    private String sheet() {
        try (Statement s = from.createStatement(); ResultSet r = s.executeQuery("SELECT text FROM sheet")) {
            return r.next() ? r.getString(1) : null;
        } catch (SQLException e) {
            return null;
        }
    }

    private interface Row {
        void take(ResultSet r) throws SQLException;
    }

    /** Visits rows by their number until {@value #MISSES} in a row could not be had. */
    private void rows(String sql, Row row) throws SQLException {
        int misses = 0;
        try (PreparedStatement s = from.prepareStatement(sql)) {
            for (long n = 1; misses < MISSES; n++) {
                misses++;
                s.setLong(1, n);
                try (ResultSet r = s.executeQuery()) {
                    if (r.next()) {
                        row.take(r);
                        misses = 0;
                    }
                } catch (SQLException broken) {
                    continue;
                }
            }
        }
    }

    private Map<Long, Act> acts() {
        Map<Long, Act> acts = new TreeMap<>();
        try {
            rows("SELECT n, at, says, session FROM act WHERE n = ?", r -> {
                String at = r.getString(2);
                try {
                    Instant.parse(at);
                    acts.put(r.getLong(1), new Act(at, r.getString(3), r.getBytes(4)));
                } catch (java.time.format.DateTimeParseException e) {
                    throw new SQLException("not a moment", e);
                }
            });
        } catch (SQLException e) {
            return acts;
        }
        return acts;
    }

    /** Blocks of format 1 do not say how they are packed. */
    private boolean coded() {
        try (Statement s = from.createStatement(); ResultSet r = s.executeQuery("SELECT coding FROM block LIMIT 0")) {
            return true;
        } catch (SQLException e) {
            return false;
        }
    }

    private int attachments(BenchFile to) {
        int[] saved = {0};
        try {
            rows("SELECT name, kind, bytes FROM attachment WHERE id = ?", r -> {
                to.attach(r.getString(1), r.getString(2), r.getBytes(3));
                saved[0]++;
            });
        } catch (SQLException e) {
            return saved[0];
        }
        return saved[0];
    }

    private int blocks(BenchFile to) {
        List<Long> saved = new ArrayList<>();
        try {
            rows("SELECT seq, run, channel, time, value, " + (coded() ? "coding" : "1") + " FROM block WHERE seq = ?", r -> {
                try {
                    to.append(r.getInt(2), r.getString(3), Blocks.unpack(r.getBytes(4), r.getBytes(5), r.getInt(6)));
                    saved.add(r.getLong(1));
                } catch (DataFormatException | IllegalArgumentException e) {
                    throw new SQLException("not samples", e);
                }
            });
        } catch (SQLException e) {
            return saved.size();
        }
        return saved.size();
    }
}
