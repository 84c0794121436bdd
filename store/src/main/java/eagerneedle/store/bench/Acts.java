package eagerneedle.store.bench;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** Every act with the session as it stood after it; only added to. */
record Acts(Connection connection) {
    void add(String at, String says, byte[] session) throws SQLException {
        try (PreparedStatement s =
                connection.prepareStatement("INSERT INTO act (at, says, session) VALUES (?, ?, ?)")) {
            s.setString(1, at);
            s.setString(2, says);
            s.setBytes(3, session);
            s.executeUpdate();
        }
    }

    /** The session after the last act that carries one. */
    Optional<byte[]> lastSession() throws SQLException {
        try (Statement s = connection.createStatement();
                ResultSet r =
                        s.executeQuery("SELECT session FROM act WHERE session IS NOT NULL ORDER BY n DESC LIMIT 1")) {
            return r.next() ? Optional.of(r.getBytes(1)) : Optional.empty();
        }
    }

    /** What was done, in order. */
    List<NotebookLine> notebook() throws SQLException {
        try (Statement s = connection.createStatement();
                ResultSet r = s.executeQuery("SELECT at, says FROM act ORDER BY n")) {
            List<NotebookLine> out = new ArrayList<>();
            while (r.next()) {
                out.add(new NotebookLine(Instant.parse(r.getString(1)), r.getString(2)));
            }
            return out;
        }
    }
}
