package eagerneedle.store.bench;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;

/** Single statements on a connection: carried out, or asked for one value. */
record Sql(Connection connection) {
    void execute(String sql) throws SQLException {
        try (Statement s = connection.createStatement()) {
            s.execute(sql);
        }
    }

    /** With one text in place of the question mark. */
    void execute(String sql, String text) throws SQLException {
        try (PreparedStatement s = connection.prepareStatement(sql)) {
            s.setString(1, text);
            s.execute();
        }
    }

    /** The first column of the first row; 0 without one. */
    int number(String sql) throws SQLException {
        try (Statement s = connection.createStatement();
                ResultSet r = s.executeQuery(sql)) {
            return r.next() ? r.getInt(1) : 0;
        }
    }

    /** The first column of the first row; empty without one. */
    String text(String sql) throws SQLException {
        try (Statement s = connection.createStatement();
                ResultSet r = s.executeQuery(sql)) {
            return r.next() ? r.getString(1) : "";
        }
    }
}
