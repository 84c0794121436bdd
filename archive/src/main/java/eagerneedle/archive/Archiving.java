package eagerneedle.archive;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import eagerneedle.archive.Batch.Source;
import eagerneedle.core.quantity.Reading;
import eagerneedle.core.reduce.Reducer;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.SheetException;
import eagerneedle.core.stockroom.Instrument;
import eagerneedle.store.FileName;
import eagerneedle.store.bench.BenchFileException;
import eagerneedle.store.bench.ClosedCopy;
import eagerneedle.store.classroom.ClassFolder;
import eagerneedle.store.stockroom.Stockroom;
import eagerneedle.store.stockroom.StockroomException;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.BiPredicate;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * Takes folders of sessions into an archive, and with them the marks of classes and the history of a stockroom. What is
 * there already is not taken twice; what changed since replaces what was taken.
 */
final class Archiving {
    private static final int SESSIONS = 40;
    private static final long ROWS = 4_000_000;
    private static final int KEY = 24;
    private static final LocalDate NEVER = LocalDate.of(9999, 12, 31);

    private final Archive archive;
    private final People people;
    private final int keptYears;
    private final boolean samples;
    private final List<String> problems = new ArrayList<>();
    private int taken;
    private int known;

    /**
     * @param keptYears how long pseudonyms are kept, counted from when a session began
     * @param samples whether raw samples are taken too
     */
    Archiving(Archive archive, People people, int keptYears, boolean samples) {
        this.archive = archive;
        this.people = people;
        this.keptYears = keptYears;
        this.samples = samples;
    }

    /** One sentence for each file that was not taken. */
    List<String> problems() {
        return List.copyOf(problems);
    }

    int taken() {
        return taken;
    }

    /** How many were there already, as they are. */
    int known() {
        return known;
    }

    /**
     * Takes folders in.
     *
     * @param byFile whether bench files are called after the people who worked with them
     * @param goOn asked before each file with how many are done of how many; false to stop, which keeps what was taken
     */
    void take(List<Path> folders, boolean byFile, @Nullable Path stockroom, BiPredicate<Integer, Integer> goOn)
            throws IOException {
        archive.sweep();
        List<Batch> before = archive.batches();
        Set<String> digests = digests(before);
        try (Writer writer = new Writer(archive)) {
            List<Found> all = new ArrayList<>();
            for (Path folder : folders) {
                all.addAll(found(folder, byFile));
            }
            int n = 0;
            for (Found f : all) {
                if (!goOn.test(n++, all.size())) {
                    break;
                }
                take(f, digests, writer);
                if (writer.rows() >= ROWS || n % SESSIONS == 0) {
                    writer.commit();
                }
            }
            if (stockroom != null) {
                history(stockroom, digests, writer);
            }
            writer.commit();
        }
    }

    /** Digests of what counts: a session that was forgotten, or replaced, may come again. */
    private static Set<String> digests(List<Batch> batches) {
        Map<String, Long> current = Archive.current(batches);
        Set<String> out = new HashSet<>();
        for (Batch b : batches) {
            b.sessions().stream()
                    .filter(s -> Objects.equals(current.get(s.session()), b.batch()))
                    .forEach(s -> out.add(s.digest()));
        }
        return out;
    }

    /** A file to be taken in: what it is known by, and whom its place names. */
    private record Found(Path file, String key, String names) {}

    private List<Found> found(Path folder, boolean byFile) throws IOException {
        Map<String, String> units = new HashMap<>();
        if (ClassFolder.is(folder)) {
            ClassFolder about = ClassFolder.read(folder);
            about.list()
                    .units()
                    .forEach((unit, students) -> units.put(
                            about.data(folder, unit).toAbsolutePath().toString(),
                            students.stream().map(s -> s.id()).collect(Collectors.joining(";"))));
        }
        try (Stream<Path> all = Files.walk(folder)) {
            List<Found> out = new ArrayList<>();
            for (Path p : all.sorted().toList()) {
                String name = FileName.of(p);
                if (name.startsWith(".") || !Files.isRegularFile(p)) {
                    continue;
                }
                boolean marks = name.matches("marks.*[.]json");
                if (name.endsWith(".needle") || marks) {
                    String inside = folder.relativize(p).toString().replace('\\', '/');
                    String names = marks
                            ? ""
                            : units.getOrDefault(
                                    p.toAbsolutePath().toString(), byFile ? name.replaceFirst("[.]needle$", "") : "");
                    out.add(new Found(p, key(FileName.of(folder.toAbsolutePath()) + "/" + inside), names));
                }
            }
            return out;
        } catch (IOException e) {
            throw new ArchiveException("The folder " + FileName.of(folder) + " cannot be read.", e);
        }
    }

    private static String key(String words) {
        try {
            return HexFormat.of()
                    .formatHex(MessageDigest.getInstance("SHA-256").digest(words.getBytes(StandardCharsets.UTF_8)))
                    .substring(0, KEY);
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException(e);
        }
    }

    private void take(Found f, Set<String> digests, Writer writer) {
        try {
            String digest = ClosedCopy.digest(f.file());
            if (!digests.add(digest)) {
                known++;
                return;
            }
            if (FileName.of(f.file()).endsWith(".json")) {
                marks(f, digest, writer);
            } else {
                session(f, digest, writer);
            }
            taken++;
        } catch (BenchFileException | SheetException | ArchiveException e) {
            problems.add(String.valueOf(e.getMessage()));
        } catch (IllegalArgumentException e) {
            problems.add(FileName.of(f.file()) + ": " + e.getMessage());
        } catch (IOException e) {
            problems.add(FileName.of(f.file()) + " cannot be read.");
        }
    }

    private void session(Found f, String digest, Writer writer) throws IOException {
        try (ClosedCopy copy = ClosedCopy.of(f.file())) {
            Session session = copy.file().session();
            Reducer reducer =
                    new Reducer(SheetTrial.readOfSession(session.sheetText(), FileName.of(f.file())), copy.file());
            reducer.takeLong();
            List<String> who = new ArrayList<>(people.named(session.bench().operator()));
            people.named(f.names()).stream().filter(p -> !who.contains(p)).forEach(who::add);
            if (who.isEmpty() && !(session.bench().operator() + f.names()).isBlank()) {
                // Everybody who took part was forgotten, and what they measured with them.
                return;
            }
            new SessionRows(writer, f.key(), reducer.reduce(session)).write(who, Files.size(f.file()), samples);
            LocalDate until =
                    session.created().atZone(ZoneOffset.UTC).toLocalDate().plusYears(keptYears);
            writer.source(new Source(f.key(), digest, who, until));
        }
    }

    /** What {@code ./needle mark --json} said of a class. */
    private void marks(Found f, String digest, Writer writer) throws IOException {
        JsonNode root = new ObjectMapper().readTree(f.file().toFile());
        if (!root.path("students").isArray()) {
            throw new ArchiveException(
                    FileName.of(f.file()) + " holds no marks; write them with ./needle mark --json.");
        }
        Instant at = Files.getLastModifiedTime(f.file()).toInstant();
        int year = at.atZone(ZoneOffset.UTC).getYear();
        String method = SessionRows.folder(root.path("method").asText(""));
        Set<String> who = new java.util.LinkedHashSet<>();
        Set<String> gone = people.forgotten();
        for (JsonNode student : root.path("students")) {
            String person = people.pseudonym(student.path("id").asText(""));
            if (gone.contains(person)) {
                continue;
            }
            who.add(person);
            for (JsonNode item : student.path("items")) {
                JsonNode by = item.path("explained_by").path(0).path("mistake");
                writer.add(
                        ArchiveTable.MARKS,
                        f.key(),
                        method,
                        year,
                        person,
                        item.path("quantity").asText(""),
                        item.path("verdict").asText(""),
                        by.isMissingNode() ? null : by.asText());
            }
        }
        writer.source(new Source(
                f.key(),
                digest,
                List.copyOf(who),
                at.atZone(ZoneOffset.UTC).toLocalDate().plusYears(keptYears)));
    }

    private void history(Path stockroom, Set<String> digests, Writer writer) throws IOException {
        String digest = ClosedCopy.digest(stockroom);
        if (!digests.add(digest)) {
            known++;
            return;
        }
        String key = key("stockroom/" + FileName.of(stockroom.toAbsolutePath()));
        try (Stockroom room = Stockroom.reading(stockroom)) {
            for (Instrument i : room.all()) {
                for (Instrument.Event e : i.history()) {
                    Reading value = e.value() == null ? null : Reading.parse(e.value());
                    writer.add(
                            ArchiveTable.HISTORY,
                            key,
                            "stockroom",
                            e.at().atZone(ZoneOffset.UTC).getYear(),
                            i.id(),
                            i.name(),
                            e.at(),
                            SessionRows.years(e.at()),
                            value == null ? null : value.value(),
                            value == null ? null : value.u(),
                            value == null ? null : value.unit().symbol(),
                            e.due(),
                            e.outcome());
                }
            }
        } catch (StockroomException e) {
            problems.add(String.valueOf(e.getMessage()));
            return;
        }
        writer.source(new Source(key, digest, List.of(), NEVER));
        taken++;
    }
}
