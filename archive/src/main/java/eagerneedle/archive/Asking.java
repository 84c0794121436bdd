package eagerneedle.archive;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.ResultSetMetaData;
import java.sql.SQLException;
import java.sql.Statement;
import java.sql.Timestamp;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/**
 * An archive that is asked. It is only read: a question is one SELECT, and the only files that it can reach are those
 * of the data set that count. The secret of the pseudonyms is not among them.
 */
public final class Asking implements AutoCloseable {
    private final Connection connection;

    /**
     * Opens an archive for questions.
     *
     * @throws ArchiveException with one sentence where that cannot be done
     */
    Asking(Archive archive) {
        List<Batch> batches = archive.batches();
        try {
            connection = DriverManager.getConnection("jdbc:duckdb:");
            try (Statement s = connection.createStatement()) {
                s.execute("create table current_batch (session VARCHAR, batch BIGINT)");
                Map<String, Long> current = Archive.current(batches);
                try (PreparedStatement add = connection.prepareStatement("insert into current_batch values (?, ?)")) {
                    for (Map.Entry<String, Long> e : current.entrySet()) {
                        add.setString(1, e.getKey());
                        add.setLong(2, e.getValue());
                        add.addBatch();
                    }
                    if (!current.isEmpty()) {
                        add.executeBatch();
                    }
                }
                List<String> all = new ArrayList<>();
                for (ArchiveTable t : ArchiveTable.values()) {
                    List<String> files = archive.files(t, batches);
                    all.addAll(files);
                    s.execute(view(t, files));
                }
                s.execute("set allowed_paths = " + list(all));
                s.execute("set enable_external_access = false");
                s.execute("set lock_configuration = true");
            }
        } catch (SQLException e) {
            throw new ArchiveException("The archive cannot be read: " + plain(e), e);
        }
    }

    private static String view(ArchiveTable t, List<String> files) {
        String columns = t.declared();
        if (files.isEmpty()) {
            return "create table " + t.title() + " (" + columns.replace("batch BIGINT, ", "") + ")";
        }
        String names = java.util.Arrays.stream(columns.split(", "))
                .map(c -> c.substring(0, c.indexOf(' ')))
                .filter(c -> !c.equals("batch"))
                .map(c -> c.equals("year") ? "cast(d.year as INTEGER) as year" : "d." + c)
                .collect(Collectors.joining(", "));
        return "create view " + t.title() + " as select " + names + " from read_parquet(" + list(files)
                + ", hive_partitioning = true, hive_types = {'method': VARCHAR, 'year': INTEGER}) d"
                + " join current_batch c on d.session = c.session and d.batch = c.batch";
    }

    private static String list(List<String> files) {
        return files.stream().map(f -> "'" + f.replace("'", "''") + "'").collect(Collectors.joining(", ", "[", "]"));
    }

    /**
     * Answers a question in SQL.
     *
     * @param most rows that are wanted
     * @throws ArchiveException with one sentence where it is no question, or cannot be answered
     */
    public Answer ask(String sql, int most) {
        requireSelect(sql);
        try (Statement s = connection.createStatement();
                ResultSet r = s.executeQuery(sql)) {
            ResultSetMetaData about = r.getMetaData();
            List<String> columns = new ArrayList<>();
            for (int i = 1; i <= about.getColumnCount(); i++) {
                columns.add(about.getColumnLabel(i));
            }
            List<List<@Nullable Object>> rows = new ArrayList<>();
            while (r.next()) {
                if (rows.size() == most) {
                    return new Answer(columns, rows, false);
                }
                List<@Nullable Object> row = new ArrayList<>();
                for (int i = 1; i <= columns.size(); i++) {
                    row.add(value(r.getObject(i)));
                }
                rows.add(row);
            }
            return new Answer(columns, rows, true);
        } catch (SQLException e) {
            throw new ArchiveException(plain(e), e);
        }
    }

    private static @Nullable Object value(@Nullable Object v) {
        if (v instanceof Timestamp t) {
            return t.toLocalDateTime().toString();
        }
        if (v instanceof Number n && !(v instanceof Double) && !(v instanceof Float)) {
            return n;
        }
        return v instanceof Float f ? Double.valueOf(f) : v;
    }

    /** Only one statement that looks and does nothing is let through; the engine itself says which that is. */
    private void requireSelect(String sql) {
        try (PreparedStatement p = connection.prepareStatement("select json_serialize_sql(?::VARCHAR)")) {
            p.setString(1, sql);
            try (ResultSet r = p.executeQuery()) {
                r.next();
                JsonNode said = new ObjectMapper().readTree(r.getString(1));
                if (said.path("error").asBoolean(true)) {
                    String message = said.path("error_message").asText("");
                    throw new ArchiveException(
                            said.path("error_type").asText("").equals("not implemented")
                                    ? "An archive is only asked: write one SELECT."
                                    : "This is no SQL that can be read: " + first(message));
                }
                if (said.path("statements").size() != 1) {
                    throw new ArchiveException("Ask one question at a time: one SELECT.");
                }
            }
        } catch (SQLException | JsonProcessingException e) {
            throw new ArchiveException("This is no SQL that can be read.", e);
        }
    }

    private static String plain(SQLException e) {
        String m = e.getMessage() == null ? "" : first(e.getMessage());
        return m.contains("file system operations are disabled") || m.contains("Permission Error")
                ? "A question reaches the tables of the archive and nothing else."
                : m.replaceFirst("^[A-Za-z ]+ Error: ", "").replaceAll("[.!]?$", ".");
    }

    private static String first(String message) {
        return message.lines().findFirst().orElse("").strip();
    }

    /** The tables with their columns. */
    static Map<String, String> tables() {
        Map<String, String> out = new LinkedHashMap<>();
        for (ArchiveTable t : ArchiveTable.values()) {
            out.put(
                    t.title(),
                    java.util.Arrays.stream(t.declared().split(", "))
                            .map(c -> c.substring(0, c.indexOf(' ')))
                            .filter(c -> !c.equals("batch"))
                            .collect(Collectors.joining(", ")));
        }
        return out;
    }

    @Override
    public void close() {
        try {
            connection.close();
        } catch (SQLException e) {
            // It was only read.
        }
    }
}
