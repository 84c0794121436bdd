package eagerneedle.archive;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.SerializationFeature;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.datatype.jsr310.JavaTimeModule;
import eagerneedle.store.FileName;
import eagerneedle.store.export.Beside;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.OverlappingFileLockException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;

/**
 * The folder of an archive: {@code batches/N.json} lists what was written together, {@code TABLE/method=M/year=Y/}
 * holds Parquet files. Of a session that was taken in twice the later batch counts.
 *
 * <p>Nothing is ever changed in place: a batch appears when its list does, in one step, so that a run that is stopped
 * at any moment leaves what was there before, and files that no list names, which the next run removes.
 */
final class Archive {
    private static final ObjectMapper JSON = JsonMapper.builder()
            .addModule(new JavaTimeModule())
            .disable(SerializationFeature.WRITE_DATES_AS_TIMESTAMPS)
            .build();
    private final Path folder;

    private Archive(Path folder) {
        this.folder = folder;
    }

    /**
     * An archive that is there.
     *
     * @throws ArchiveException with one sentence where there is none
     */
    static Archive at(Path folder) {
        if (!Files.isDirectory(folder.resolve("batches"))) {
            throw new ArchiveException(FileName.of(folder)
                    + " is no archive; make one with ./needle archive DIR --into " + FileName.of(folder) + ".");
        }
        return new Archive(folder);
    }

    /** An archive, made where there is none. */
    static Archive made(Path folder) throws IOException {
        Files.createDirectories(folder.resolve("batches"));
        return new Archive(folder);
    }

    Path folder() {
        return folder;
    }

    /**
     * Holds it against a second writer until it is closed.
     *
     * @throws ArchiveException with one sentence where somebody else writes into it
     */
    FileChannel held() throws IOException {
        FileChannel channel =
                FileChannel.open(folder.resolve("lock"), StandardOpenOption.CREATE, StandardOpenOption.WRITE);
        FileLock lock;
        try {
            lock = channel.tryLock();
        } catch (OverlappingFileLockException e) {
            lock = null;
        }
        if (lock == null) {
            channel.close();
            throw new ArchiveException(
                    FileName.of(folder) + " is being written into at the moment; wait until that is over.");
        }
        return channel;
    }

    /** All batches, by number. */
    List<Batch> batches() {
        try (Stream<Path> all = Files.list(folder.resolve("batches"))) {
            List<Batch> out = new ArrayList<>();
            for (Path p :
                    all.filter(f -> FileName.of(f).matches("[0-9]+[.]json")).toList()) {
                out.add(JSON.readValue(p.toFile(), Batch.class));
            }
            out.sort(Comparator.comparingLong(Batch::batch));
            return out;
        } catch (IOException e) {
            throw new ArchiveException("The lists of " + FileName.of(folder) + " cannot be read.", e);
        }
    }

    /** The batch that counts of each session, and what it is. */
    static Map<String, Long> current(List<Batch> batches) {
        Map<String, Long> out = new LinkedHashMap<>();
        batches.forEach(b -> b.sessions().forEach(s -> out.put(s.session(), b.batch())));
        return out;
    }

    /** Lists a batch, in place of the one of its number. */
    void list(Batch batch) throws IOException {
        Beside.write(folder.resolve("batches").resolve(batch.batch() + ".json"), JSON.writeValueAsString(batch));
    }

    /** Files of a table that count, with their whole paths. */
    List<String> files(ArchiveTable table, List<Batch> batches) {
        return batches.stream()
                .flatMap(b -> b.files().stream())
                .filter(f -> f.startsWith(table.title() + "/"))
                .map(f -> folder.resolve(f).toAbsolutePath().toString())
                .toList();
    }

    /** Files of a table that were written under a name, listed or not; within the archive. */
    List<String> written(ArchiveTable table, String stem) throws IOException {
        Path root = folder.resolve(table.title());
        if (!Files.isDirectory(root)) {
            return List.of();
        }
        try (Stream<Path> all = Files.walk(root)) {
            return all.filter(f -> FileName.of(f).startsWith(stem + "_"))
                    .map(f -> folder.relativize(f).toString().replace('\\', '/'))
                    .sorted()
                    .toList();
        }
    }

    /** Removes files that no batch lists. */
    void sweep() throws IOException {
        Set<String> listed = new HashSet<>();
        batches().forEach(b -> listed.addAll(b.files()));
        for (ArchiveTable t : ArchiveTable.values()) {
            for (String f : written(t, "part")) {
                if (!listed.contains(f)) {
                    Files.delete(folder.resolve(f));
                }
            }
        }
        try (Stream<Path> left = Files.list(folder.resolve("batches"))) {
            left.filter(f -> !FileName.of(f).matches("[0-9]+[.]json")).forEach(f -> {
                try {
                    Files.delete(f);
                } catch (IOException e) {
                    throw new UncheckedIOException(e);
                }
            });
        }
    }
}
