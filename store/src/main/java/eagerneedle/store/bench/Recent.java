package eagerneedle.store.bench;

import com.fasterxml.jackson.core.type.TypeReference;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.SerializationFeature;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.datatype.jsr310.JavaTimeModule;
import eagerneedle.store.FileName;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * The sessions opened lately, newest first, kept in one small JSON file. It is a convenience: when the file cannot be
 * read or written, nothing is remembered and nothing else is lost.
 */
public final class Recent {
    private static final int MOST = 12;
    private static final ObjectMapper MAPPER = JsonMapper.builder()
            .addModule(new JavaTimeModule())
            .disable(SerializationFeature.WRITE_DATES_AS_TIMESTAMPS)
            .build();

    /** One bench file, with what stood in its title when it was last open. */
    public record Entry(String path, String title, String place, Instant opened) {
        public Path file() {
            return Path.of(path);
        }
    }

    private final @Nullable Path kept;
    private List<Entry> entries;

    private Recent(@Nullable Path kept, List<Entry> entries) {
        this.kept = kept;
        this.entries = entries;
    }

    /** Remembers in this file. */
    public static Recent at(Path file) {
        return new Recent(file, read(file));
    }

    /** Remembers only as long as the program runs. */
    public static Recent forNow() {
        return new Recent(null, List.of());
    }

    private static List<Entry> read(Path file) {
        try {
            return Files.exists(file)
                    ? MAPPER.readValue(file.toFile(), new TypeReference<List<Entry>>() {}).stream()
                            .filter(e -> e != null && e.path() != null && e.title() != null && e.opened() != null)
                            .toList()
                    : List.of();
        } catch (IOException e) {
            return List.of();
        }
    }

    /** Newest first. */
    public List<Entry> entries() {
        return entries;
    }

    /** A bench file that was opened or made now. */
    public void remember(Path file, String title, String place, Instant now) {
        String path = file.toAbsolutePath().normalize().toString();
        List<Entry> more = new ArrayList<>(List.of(new Entry(path, title, place, now)));
        entries.stream().filter(e -> !e.path().equals(path)).limit(MOST - 1).forEach(more::add);
        keep(more);
    }

    /** Takes a bench file off the list; the file itself stays. */
    public void forget(Entry entry) {
        keep(entries.stream().filter(e -> !e.equals(entry)).toList());
    }

    private void keep(List<Entry> list) {
        entries = List.copyOf(list);
        if (kept == null) {
            return;
        }
        try {
            Files.createDirectories(FileName.folder(kept));
            Path beside = kept.resolveSibling(FileName.of(kept) + ".new");
            MAPPER.writeValue(beside.toFile(), entries);
            Files.move(beside, kept, StandardCopyOption.REPLACE_EXISTING);
        } catch (IOException e) {
            // Nothing depends on this list.
        }
    }
}
