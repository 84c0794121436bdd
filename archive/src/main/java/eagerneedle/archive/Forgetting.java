package eagerneedle.archive;

import eagerneedle.archive.Batch.Source;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * Deletes people from an archive for good: the files in which they appear are written anew without them, listed in one
 * step, and the old ones removed. A session that one person did alone goes whole; one that several did stays with the
 * others.
 */
final class Forgetting {
    private final Archive archive;

    Forgetting(Archive archive) {
        this.archive = archive;
    }

    /**
     * Deletes a person everywhere.
     *
     * @return how many sessions went, or lost this person
     */
    int person(String pseudonym) throws IOException {
        int n = 0;
        for (Batch b : archive.batches()) {
            Set<String> alone = new LinkedHashSet<>();
            Set<String> among = new LinkedHashSet<>();
            List<Source> left = new ArrayList<>();
            for (Source s : b.sessions()) {
                if (!s.people().contains(pseudonym)) {
                    left.add(s);
                } else if (s.people().size() == 1) {
                    alone.add(s.session());
                } else {
                    among.add(s.session());
                    left.add(new Source(
                            s.session(),
                            s.digest(),
                            s.people().stream()
                                    .filter(p -> !p.equals(pseudonym))
                                    .toList(),
                            s.expires()));
                }
            }
            if (!alone.isEmpty() || !among.isEmpty()) {
                rewrite(b, left, alone, "person = '" + pseudonym + "'");
                n += alone.size() + among.size();
            }
        }
        archive.sweep();
        return n;
    }

    /** Deletes the pseudonyms of sessions whose time is over; what was measured stays, of nobody. */
    int expired(LocalDate today) throws IOException {
        int n = 0;
        for (Batch b : archive.batches()) {
            Set<String> over = b.sessions().stream()
                    .filter(s -> !s.people().isEmpty() && s.expires().isBefore(today))
                    .map(Source::session)
                    .collect(Collectors.toCollection(LinkedHashSet::new));
            if (!over.isEmpty()) {
                List<Source> left = b.sessions().stream()
                        .map(s -> over.contains(s.session())
                                ? new Source(s.session(), s.digest(), List.of(), s.expires())
                                : s)
                        .toList();
                rewrite(b, left, Set.of(), "session in (" + list(over) + ")");
                n += over.size();
            }
        }
        archive.sweep();
        return n;
    }

    private static String list(Set<String> keys) {
        return keys.isEmpty() ? "''" : keys.stream().map(k -> "'" + k + "'").collect(Collectors.joining(", "));
    }

    /**
     * Writes the files of a batch anew.
     *
     * @param gone sessions whose rows go from every table
     * @param whose which rows of the tables that name people go
     */
    private void rewrite(Batch b, List<Source> left, Set<String> gone, String whose) throws IOException {
        List<String> files = new ArrayList<>();
        Set<String> old = new HashSet<>();
        try (Connection c = DriverManager.getConnection("jdbc:duckdb:");
                Statement s = c.createStatement()) {
            for (String file : b.files()) {
                boolean named = file.startsWith(ArchiveTable.PEOPLE.title() + "/")
                        || file.startsWith(ArchiveTable.MARKS.title() + "/");
                String where = "session in (" + list(gone) + ")" + (named ? " or " + whose : "");
                Path from = archive.folder().resolve(file);
                String source = "read_parquet('" + Writer.quoted(from) + "', hive_partitioning = false)";
                if (count(s, source + " where " + where) == 0) {
                    files.add(file);
                    continue;
                }
                old.add(file);
                if (count(s, source + " where not (" + where + ")") > 0) {
                    String renewed = renewed(file);
                    s.execute("copy (select * from " + source + " where not (" + where + ")) to '"
                            + Writer.quoted(archive.folder().resolve(renewed))
                            + "' (format parquet, compression zstd)");
                    files.add(renewed);
                }
            }
        } catch (SQLException e) {
            throw new ArchiveException(
                    "The files could not be written anew; nothing was deleted: " + e.getMessage(), e);
        }
        archive.list(new Batch(b.batch(), left, files));
        for (String f : old) {
            Files.deleteIfExists(archive.folder().resolve(f));
        }
    }

    private static long count(Statement s, String from) throws SQLException {
        try (ResultSet r = s.executeQuery("select count(*) from " + from)) {
            r.next();
            return r.getLong(1);
        }
    }

    /** Another name beside a file: part_3_0.parquet, part_3_0r.parquet, part_3_0rr.parquet. */
    private static String renewed(String file) {
        return file.replaceFirst("[.]parquet$", "r.parquet");
    }
}
