package eagerneedle.store.export;

import eagerneedle.store.FileName;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.AtomicMoveNotSupportedException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;

/**
 * Writes a file beside its place and puts it there when it is whole: a full disk leaves what was there, and no stump.
 */
public final class Beside {
    private Beside() {}

    /** What writes a file; anything it throws leaves the place as it was. */
    public interface Writing {
        void to(Path part) throws IOException;
    }

    /** @throws IOException when it cannot be written; the place is then as it was before */
    public static void write(Path place, Writing writing) throws IOException {
        Path target = place.toAbsolutePath();
        Path part = target.resolveSibling("." + FileName.of(target) + ".part");
        try {
            writing.to(part);
            moved(part, target);
        } finally {
            for (String end : new String[] {"", "-wal", "-shm", "-journal"}) {
                Files.deleteIfExists(part.resolveSibling(FileName.of(part) + end));
            }
        }
    }

    /** In one step where the file system can: who looks meanwhile finds the old one or the new one, never none. */
    private static void moved(Path part, Path target) throws IOException {
        try {
            Files.move(part, target, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
        } catch (AtomicMoveNotSupportedException none) {
            Files.move(part, target, StandardCopyOption.REPLACE_EXISTING);
        }
    }

    public static void write(Path place, byte[] bytes) throws IOException {
        write(place, part -> Files.write(part, bytes));
    }

    public static void write(Path place, String text) throws IOException {
        write(place, text.getBytes(StandardCharsets.UTF_8));
    }
}
