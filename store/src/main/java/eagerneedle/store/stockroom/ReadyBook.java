package eagerneedle.store.stockroom;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.SerializationFeature;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.datatype.jsr310.JavaTimeModule;
import eagerneedle.core.day.ReadyCheck;
import eagerneedle.store.FileName;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** The checks of a laboratory's benches: a file of lines of JSON, only ever added to, as docs/formats/site.md says. */
public final class ReadyBook {
    public static final String FILE = "ready.jsonl";
    private static final ObjectMapper JSON = JsonMapper.builder()
            .addModule(new JavaTimeModule())
            .disable(SerializationFeature.WRITE_DATES_AS_TIMESTAMPS)
            .build();
    private final Path file;

    /** @param folder that of the laboratory */
    public ReadyBook(Path folder) {
        file = folder.resolve(FILE);
    }

    /**
     * All checks, in the order in which they were signed.
     *
     * @throws StockroomException with one sentence where a line cannot be read
     */
    public List<ReadyCheck> all() {
        List<ReadyCheck> out = new ArrayList<>();
        if (!Files.exists(file)) {
            return out;
        }
        int n = 0;
        try {
            for (String line : Files.readAllLines(file)) {
                n++;
                if (!line.isBlank()) {
                    out.add(JSON.readValue(line, ReadyCheck.class));
                }
            }
        } catch (JsonProcessingException e) {
            throw new StockroomException(
                    "Line " + n + " of the checks in " + FileName.of(file) + " cannot be read; mend or remove it.", e);
        } catch (IOException e) {
            throw new StockroomException("The checks in " + FileName.of(file) + " cannot be read.", e);
        }
        return out;
    }

    /** The last check of a bench for a method. */
    public Optional<ReadyCheck> last(String bench, String method) {
        return all().stream()
                .filter(c -> c.bench().equalsIgnoreCase(bench) && c.method().equals(method))
                .reduce((a, b) -> b);
    }

    /** Adds a check. @throws StockroomException with one sentence where it cannot be kept */
    public void add(ReadyCheck check) {
        try {
            Files.createDirectories(FileName.folder(file));
            Files.writeString(
                    file, JSON.writeValueAsString(check) + "\n", StandardOpenOption.CREATE, StandardOpenOption.APPEND);
        } catch (IOException e) {
            throw new StockroomException(
                    "The check could not be kept in " + FileName.of(file)
                            + "; staff has to be allowed to write into the folder of the laboratory.",
                    e);
        }
    }
}
