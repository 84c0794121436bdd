package eagerneedle.store.stockroom;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.core.type.TypeReference;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.SerializationFeature;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.datatype.jsr310.JavaTimeModule;
import eagerneedle.core.stockroom.Instrument;
import eagerneedle.core.stockroom.Merging;
import eagerneedle.store.FileName;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/**
 * The laboratory's instruments, kept in one SQLite file: serial and JSON of each, as {@code docs/formats/stockroom.md}
 * says. An instrument is never deleted, only retired, so that old sessions keep their witnesses. Safe to use from
 * several threads.
 */
public final class Stockroom implements AutoCloseable {
    private static final ObjectMapper JSON = JsonMapper.builder()
            .addModule(new JavaTimeModule())
            .disable(SerializationFeature.WRITE_DATES_AS_TIMESTAMPS)
            .enable(SerializationFeature.INDENT_OUTPUT)
            .build();
    private static final int VERSION = 1;

    private final Connection connection;
    private final String name;
    private final boolean mayWrite;

    private Stockroom(String url, String name, boolean mayWrite) {
        this.name = name;
        this.mayWrite = mayWrite;
        try {
            connection = DriverManager.getConnection(url);
            try (Statement s = connection.createStatement()) {
                s.execute("pragma busy_timeout = 2000");
                int version = s.executeQuery("pragma user_version").getInt(1);
                if (version > VERSION) {
                    throw new StockroomException(
                            "The stockroom " + name + " was written by a newer version of the program.");
                }
                if (!mayWrite) {
                    return;
                }
                s.execute("create table if not exists instrument (id text primary key, json text not null)");
                s.execute("pragma user_version = " + VERSION);
            }
        } catch (SQLException e) {
            throw new StockroomException(
                    "The stockroom " + name + " cannot be opened; it may be damaged or something else.", e);
        }
    }

    /** Opens or makes a stockroom in a file. @throws StockroomException with one sentence when that cannot be done */
    public static Stockroom at(Path file) {
        try {
            Files.createDirectories(FileName.folder(file));
        } catch (IOException e) {
            throw new StockroomException(
                    "The folder of the stockroom cannot be made: " + FileName.folder(file) + ".", e);
        }
        return Files.exists(file) && !Files.isWritable(file)
                ? reading(file)
                : new Stockroom("jdbc:sqlite:" + file, FileName.of(file), true);
    }

    /** Opens a stockroom that others write: everything may be looked at, and nothing changed. */
    public static Stockroom reading(Path file) {
        if (!Files.exists(file)) {
            throw new StockroomException("There is no stockroom " + FileName.of(file) + ".");
        }
        return new Stockroom("jdbc:sqlite:file:" + file.toUri().getRawPath() + "?mode=ro", FileName.of(file), false);
    }

    private void mayWrite() {
        if (!mayWrite) {
            throw new StockroomException("The stockroom " + name
                    + " is the laboratory's: it can be read here, and staff changes it. Ask them, or log in as staff.");
        }
    }

    /** The inventory of Tarn Hollow College, in memory. */
    public static Stockroom demonstration() {
        Stockroom s = new Stockroom("jdbc:sqlite::memory:", "demonstration", true);
        s.bringIn(demonstrationJson());
        return s;
    }

    /** The inventory of Tarn Hollow College as JSON. */
    public static String demonstrationJson() {
        try (InputStream in = Stockroom.class.getResourceAsStream("tarn-hollow.json")) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Every instrument, by kind and serial, retired ones last. */
    public synchronized List<Instrument> all() {
        List<Instrument> out = new ArrayList<>();
        try (Statement s = connection.createStatement();
                ResultSet r = s.executeQuery("select json from instrument order by id")) {
            while (r.next()) {
                out.add(JSON.readValue(r.getString(1), Instrument.class));
            }
        } catch (SQLException | JsonProcessingException e) {
            throw new StockroomException("The stockroom " + name + " cannot be read; it may be damaged.", e);
        }
        out.sort(java.util.Comparator.comparing(Instrument::retired)
                .thenComparing(i -> Instrument.KINDS.indexOf(i.kind()))
                .thenComparing(Instrument::id));
        return out;
    }

    public Optional<Instrument> find(String id) {
        return all().stream().filter(i -> i.id().equals(id)).findFirst();
    }

    /** Adds an instrument or replaces the one of the same serial. */
    public synchronized void put(Instrument instrument) {
        mayWrite();
        instrument.checked();
        try (PreparedStatement s = connection.prepareStatement(
                "insert into instrument values (?, ?) on conflict (id) do update set json = excluded.json")) {
            s.setString(1, instrument.id());
            s.setString(2, JSON.writeValueAsString(instrument));
            s.executeUpdate();
        } catch (SQLException | JsonProcessingException e) {
            throw new StockroomException(
                    "The instrument " + instrument.id()
                            + " could not be kept; the disk may be full or the file in use.",
                    e);
        }
    }

    /** Takes an instrument out again: for undoing that it was added. */
    public synchronized void remove(String id) {
        mayWrite();
        try (PreparedStatement s = connection.prepareStatement("delete from instrument where id = ?")) {
            s.setString(1, id);
            s.executeUpdate();
        } catch (SQLException e) {
            throw new StockroomException(
                    "The instrument " + id + " could not be taken out; the file may be in use.", e);
        }
    }

    /** A serial like another one that is not used yet: TH-CP-01 gives TH-CP-02 or the next free number. */
    public String freeSerial(String like) {
        Set<String> used = new LinkedHashSet<>();
        all().forEach(i -> used.add(i.id()));
        String stem = like.replaceFirst("\\d+$", "");
        for (int n = 1; ; n++) {
            String id = stem + String.format(java.util.Locale.ROOT, "%02d", n);
            if (!used.contains(id)) {
                return id;
            }
        }
    }

    /** All instruments as JSON. */
    public String json() {
        try {
            return JSON.writeValueAsString(all());
        } catch (JsonProcessingException e) {
            throw new UncheckedIOException(e);
        }
    }

    /**
     * Brings instruments in from JSON: all of them or, when one cannot be used, none.
     *
     * @return one sentence that says how many were new and how many replaced one of the same serial
     * @throws StockroomException with one sentence when the text is not such a list
     */
    public synchronized String bringIn(String json) {
        mayWrite();
        List<Instrument> incoming = listed(json, " Nothing was brought in.");
        Set<String> known = new LinkedHashSet<>();
        all().forEach(i -> known.add(i.id()));
        long replaced = incoming.stream().filter(i -> known.contains(i.id())).count();
        try {
            connection.setAutoCommit(false);
            incoming.forEach(this::put);
            connection.commit();
            connection.setAutoCommit(true);
        } catch (SQLException e) {
            throw new StockroomException(
                    "The instruments could not be kept; the disk may be full or the file in use.", e);
        }
        return "Brought in " + (incoming.size() - replaced) + " new instruments"
                + (replaced == 0 ? "." : " and replaced " + replaced + " of the same serial.");
    }

    private static List<Instrument> listed(String json, String after) {
        List<Instrument> incoming;
        try {
            incoming = JSON.readValue(json, new TypeReference<List<Instrument>>() {});
        } catch (JsonProcessingException e) {
            throw new StockroomException(
                    "This is not a stockroom: a list of instruments in JSON is wanted"
                            + (e.getLocation() == null
                                    ? "."
                                    : "; line " + e.getLocation().getLineNr() + " cannot be read."),
                    e);
        }
        if (incoming == null || incoming.contains(null)) {
            throw new StockroomException("An entry is empty." + after);
        }
        try {
            incoming.forEach(Instrument::checked);
        } catch (IllegalArgumentException e) {
            throw new StockroomException(e.getMessage() + after, e);
        }
        return incoming;
    }

    /**
     * Takes what another machine wrote down into this one: all of it or, when something cannot be used, nothing.
     *
     * @param other a stockroom, or a list of instruments in JSON; it is only read
     * @throws StockroomException with one sentence where it cannot be read
     */
    public synchronized Merging merge(Path other) {
        mayWrite();
        List<Instrument> theirs;
        if (FileName.of(other).endsWith(".json")) {
            try {
                theirs = listed(Files.readString(other), " Nothing was merged.");
            } catch (IOException e) {
                throw new StockroomException(FileName.of(other) + " cannot be read; it should be text in UTF-8.", e);
            }
        } else {
            try (Stockroom room = reading(other)) {
                theirs = room.all();
            }
        }
        Merging merging = Merging.of(all(), theirs);
        try {
            connection.setAutoCommit(false);
            merging.changed().forEach(this::put);
            connection.commit();
            connection.setAutoCommit(true);
        } catch (SQLException e) {
            throw new StockroomException(
                    "The instruments could not be kept; the disk may be full or the file in use.", e);
        }
        return merging;
    }

    @Override
    public void close() {
        try {
            connection.close();
        } catch (SQLException e) {
            // Everything was committed as it was made.
        }
    }
}
