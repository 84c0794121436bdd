package eagerneedle.archive;

import eagerneedle.store.FileName;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.security.GeneralSecurityException;
import java.security.SecureRandom;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import javax.crypto.Mac;
import javax.crypto.spec.SecretKeySpec;

/**
 * Pseudonyms of people: HMAC-SHA-256 of a name by a secret that lies beside the data set and in none of its tables. The
 * same name gives the same pseudonym in all years; without the secret no name can be tried against them.
 */
final class People {
    private static final String KEY = "people.key";
    private static final String FORGOTTEN = "forgotten.txt";
    private static final int BYTES = 32;
    private static final int DIGITS = 16;

    private final Path folder;
    private final byte[] secret;

    private People(Path folder, byte[] secret) {
        this.folder = folder;
        this.secret = secret;
    }

    /** Those of an archive; its secret is made where there is none. */
    static People of(Path folder) throws IOException {
        Path file = folder.resolve(KEY);
        if (!Files.exists(file)) {
            byte[] made = new byte[BYTES];
            new SecureRandom().nextBytes(made);
            if (Files.getFileStore(folder).supportsFileAttributeView("posix")) {
                Files.createFile(
                        file, PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rw-------")));
            }
            Files.write(file, made);
        }
        byte[] secret = Files.readAllBytes(file);
        if (secret.length != BYTES) {
            throw new ArchiveException(
                    "The secret of the pseudonyms, " + FileName.of(file) + ", is damaged; put it back from a copy.");
        }
        return new People(folder, secret);
    }

    /** The pseudonym of a name, however it is spaced and in whatever case. */
    String pseudonym(String name) {
        try {
            Mac mac = Mac.getInstance("HmacSHA256");
            mac.init(new SecretKeySpec(secret, "HmacSHA256"));
            String plain = name.strip().replaceAll("\\s+", " ").toLowerCase(Locale.ROOT);
            return HexFormat.of()
                    .formatHex(mac.doFinal(plain.getBytes(StandardCharsets.UTF_8)))
                    .substring(0, DIGITS);
        } catch (GeneralSecurityException e) {
            throw new IllegalStateException(e);
        }
    }

    /** The pseudonyms of everybody named in words such as "A. Alder, B. Beech and C. Cedar", less the forgotten. */
    List<String> named(String words) throws IOException {
        Set<String> gone = forgotten();
        return Arrays.stream(words.split(",|;|&|\\band\\b"))
                .filter(n -> !n.isBlank())
                .map(this::pseudonym)
                .filter(p -> !gone.contains(p))
                .distinct()
                .toList();
    }

    /** Who is not to be taken in again. */
    Set<String> forgotten() throws IOException {
        Path file = folder.resolve(FORGOTTEN);
        return Files.exists(file) ? new LinkedHashSet<>(Files.readAllLines(file)) : new LinkedHashSet<>();
    }

    void forget(String pseudonym) throws IOException {
        if (!forgotten().contains(pseudonym)) {
            Files.writeString(
                    folder.resolve(FORGOTTEN), pseudonym + "\n", StandardOpenOption.CREATE, StandardOpenOption.APPEND);
        }
    }
}
