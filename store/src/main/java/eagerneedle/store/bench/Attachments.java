package eagerneedle.store.bench;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;

/** Files kept with a session, such as pictures. */
record Attachments(Connection connection) {
    /** Keeps a file; its number is returned. */
    int add(String name, String kind, byte[] bytes) throws SQLException {
        try (PreparedStatement s =
                connection.prepareStatement("INSERT INTO attachment (name, kind, bytes) VALUES (?, ?, ?)")) {
            s.setString(1, name);
            s.setString(2, kind);
            s.setBytes(3, bytes);
            s.executeUpdate();
            return new Sql(connection).number("SELECT last_insert_rowid()");
        }
    }

    /** The bytes of a file; none if there is no such. */
    byte[] bytes(int id) throws SQLException {
        try (PreparedStatement s = connection.prepareStatement("SELECT bytes FROM attachment WHERE id = ?")) {
            s.setInt(1, id);
            try (ResultSet r = s.executeQuery()) {
                return r.next() ? r.getBytes(1) : new byte[0];
            }
        }
    }
}
