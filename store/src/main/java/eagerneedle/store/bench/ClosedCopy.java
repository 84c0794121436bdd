package eagerneedle.store.bench;

import eagerneedle.store.FileName;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;
import org.jspecify.annotations.Nullable;

/**
 * A bench file of somebody else, read without touching it: a private copy of its bytes is opened, and the file itself
 * is neither locked nor written to. One that a program is still writing is refused, because what it holds at the moment
 * may be half of an act.
 */
public final class ClosedCopy implements AutoCloseable {
    private final Path folder;
    private final String digest;
    private final BenchFile file;

    private ClosedCopy(Path folder, String digest, BenchFile file) {
        this.folder = folder;
        this.digest = digest;
        this.file = file;
    }

    /**
     * Of a bench file.
     *
     * @throws BenchFileException with one sentence where it is none, is damaged, or is in use
     */
    public static ClosedCopy of(Path path) {
        FileOpening.isBenchFile(path);
        Path folder = null;
        try {
            refuseInUse(path);
            folder = Files.createTempDirectory("needle-copy");
            Path copy = folder.resolve("copy.needle");
            Files.copy(path, copy);
            refuseInUse(path);
            return new ClosedCopy(folder, digest(copy), BenchFile.open(copy));
        } catch (IOException e) {
            discard(folder);
            throw new BenchFileException(FileName.of(path) + " cannot be read; check its name and folder.", false, e);
        } catch (BenchFileException e) {
            discard(folder);
            throw new BenchFileException(
                    String.valueOf(e.getMessage()).replace("copy.needle", FileName.of(path)), e.damaged(), e);
        }
    }

    /** A log lies beside a file as long as it is open, even an empty one. */
    private static void refuseInUse(Path path) {
        Path log = path.resolveSibling(FileName.of(path) + "-wal");
        if (Files.exists(log)) {
            throw new BenchFileException(
                    FileName.of(path)
                            + " is in use, or was not closed: close it where it is open, or publish a closed copy of it "
                            + "there.",
                    false);
        }
    }

    /**
     * SHA-256 of a file, in hexadecimal digits.
     *
     * @throws IOException when it cannot be read
     */
    public static String digest(Path path) throws IOException {
        try (InputStream in = Files.newInputStream(path)) {
            MessageDigest sha = MessageDigest.getInstance("SHA-256");
            byte[] some = new byte[1 << 16];
            for (int n = in.read(some); n >= 0; n = in.read(some)) {
                sha.update(some, 0, n);
            }
            return HexFormat.of().formatHex(sha.digest());
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException(e);
        }
    }

    /** SHA-256 of what was copied. */
    public String digest() {
        return digest;
    }

    /** The copy. */
    public BenchFile file() {
        return file;
    }

    @Override
    public void close() {
        file.close();
        discard(folder);
    }

    private static void discard(@Nullable Path folder) {
        if (folder == null) {
            return;
        }
        try {
            for (String end : new String[] {"", "-wal", "-shm"}) {
                Files.deleteIfExists(folder.resolve("copy.needle" + end));
            }
            Files.deleteIfExists(folder);
        } catch (IOException left) {
            folder.toFile().deleteOnExit();
        }
    }
}
