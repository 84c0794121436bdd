package eagerneedle.archive;

import eagerneedle.archive.Batch.Source;
import java.io.IOException;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import org.duckdb.DuckDBAppender;
import org.duckdb.DuckDBConnection;
import org.jspecify.annotations.Nullable;

/** Collects rows in memory and writes them as one batch. Not safe for several threads. */
final class Writer implements AutoCloseable {
    private final Archive archive;
    private final Connection connection;
    private final Map<ArchiveTable, DuckDBAppender> appenders = new EnumMap<>(ArchiveTable.class);
    private final List<Source> sources = new ArrayList<>();
    private long batch;
    private long rows;

    Writer(Archive archive) {
        this.archive = archive;
        try {
            connection = DriverManager.getConnection("jdbc:duckdb:");
            try (Statement s = connection.createStatement()) {
                s.execute("set preserve_insertion_order = true");
            }
            batch = archive.batches().stream().mapToLong(Batch::batch).max().orElse(0) + 1;
            begin();
        } catch (SQLException e) {
            throw new ArchiveException("The data set cannot be written here: " + e.getMessage(), e);
        }
    }

    private void begin() throws SQLException {
        try (Statement s = connection.createStatement()) {
            for (ArchiveTable t : ArchiveTable.values()) {
                s.execute("create or replace table " + t.title() + " (" + t.declared() + ")");
                appenders.put(t, ((DuckDBConnection) connection).createAppender("main", t.title()));
            }
        }
        sources.clear();
        rows = 0;
    }

    /** The number of the batch that is being collected. */
    long batch() {
        return batch;
    }

    /** How many rows wait to be written. */
    long rows() {
        return rows;
    }

    void source(Source s) {
        sources.add(s);
    }

    /** Adds a row: what its session is, then the columns of the table in their order. */
    void add(ArchiveTable table, String session, String method, int year, @Nullable Object... values) {
        DuckDBAppender a = java.util.Objects.requireNonNull(appenders.get(table));
        try {
            a.beginRow();
            a.append(session);
            a.append(batch);
            for (Object v : values) {
                append(a, v);
            }
            a.append(method);
            a.append(year);
            a.endRow();
            rows++;
        } catch (SQLException e) {
            throw new ArchiveException("A row of " + table.title() + " cannot be kept: " + e.getMessage(), e);
        }
    }

    private static void append(DuckDBAppender a, @Nullable Object v) throws SQLException {
        if (v == null || v instanceof Double d && Double.isNaN(d)) {
            a.appendNull();
        } else if (v instanceof String s) {
            a.append(s);
        } else if (v instanceof Integer i) {
            a.append(i);
        } else if (v instanceof Long l) {
            a.append(l);
        } else if (v instanceof Boolean b) {
            a.append(b);
        } else if (v instanceof Double d) {
            a.append(d);
        } else if (v instanceof Instant i) {
            a.append(LocalDateTime.ofInstant(i, ZoneOffset.UTC));
        } else {
            throw new IllegalArgumentException("A column cannot hold " + v.getClass());
        }
    }

    /** Writes what was collected as one batch, and begins the next; nothing where nothing was. */
    void commit() throws IOException {
        if (sources.isEmpty()) {
            return;
        }
        try {
            for (DuckDBAppender a : appenders.values()) {
                a.close();
            }
            List<String> files = new ArrayList<>();
            try (Statement s = connection.createStatement()) {
                for (ArchiveTable t : ArchiveTable.values()) {
                    if (isEmpty(s, t)) {
                        continue;
                    }
                    String stem = "part_" + batch;
                    s.execute("copy (select * from " + t.title() + ") to '"
                            + quoted(archive.folder().resolve(t.title()))
                            + "' (format parquet, compression zstd, partition_by (method, year), filename_pattern '"
                            + stem
                            + "_{i}', overwrite_or_ignore)");
                    files.addAll(archive.written(t, stem));
                }
            }
            archive.list(new Batch(batch, sources, files));
            batch++;
            begin();
        } catch (SQLException e) {
            throw new ArchiveException("A batch cannot be written; the disk may be full: " + e.getMessage(), e);
        }
    }

    private static boolean isEmpty(Statement s, ArchiveTable t) throws SQLException {
        try (ResultSet r = s.executeQuery("select count(*) from " + t.title())) {
            r.next();
            return r.getLong(1) == 0;
        }
    }

    static String quoted(Path path) {
        return path.toAbsolutePath().toString().replace("'", "''");
    }

    @Override
    public void close() {
        try {
            connection.close();
        } catch (SQLException e) {
            // What was committed is in its files; what was not is not wanted any more.
        }
    }
}
