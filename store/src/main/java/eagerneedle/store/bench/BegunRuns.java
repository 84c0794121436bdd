package eagerneedle.store.bench;

import eagerneedle.core.session.Run;
import eagerneedle.core.session.Session;
import java.io.IOException;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;

/** The runs that have begun: noted before their first sample, so that they are known if the program ends in them. */
record BegunRuns(Connection connection) {
    void add(Run run) throws SQLException {
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
        }
    }

    /** Those that hold samples and that the session does not know. */
    List<Run> unfinished(Session session) throws SQLException, IOException {
        List<Run> runs = new ArrayList<>();
        try (Statement s = connection.createStatement();
                ResultSet r = s.executeQuery(
                        "SELECT run, capture, level, started, source, raw_unit, whole FROM begun WHERE run IN "
                                + "(SELECT run FROM block) ORDER BY run")) {
            while (r.next()) {
                if (session.run(r.getInt(1)).isEmpty()) {
                    runs.add(run(r));
                }
            }
        }
        return runs;
    }

    /** Files of the first edition keep a run by its columns only. */
    private static Run run(ResultSet r) throws SQLException, IOException {
        byte[] whole = r.getBytes(7);
        return whole != null
                ? SessionJson.unpackRun(whole)
                : Run.captured(
                        r.getInt(1),
                        r.getString(2),
                        r.getString(3),
                        Instant.parse(r.getString(4)),
                        r.getString(5),
                        r.getString(6));
    }
}
