package eagerneedle.store.classroom;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import eagerneedle.store.FileName;
import eagerneedle.store.export.Beside;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.GeneralSecurityException;
import java.security.SecureRandom;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import javax.crypto.Mac;
import javax.crypto.spec.SecretKeySpec;

/**
 * What tells a class set apart from any other, and what is true of it; only ever on disk as {@link Sealed}.
 *
 * @param secret 256 random bits, in base 64
 * @param day of the sessions, as ISO 8601 has it
 * @param sheet the instructor's sheet, whole
 * @param units by who has the data
 */
public record ClassKey(String secret, String day, String sheet, Map<String, Unit> units) {
    private static final ObjectMapper JSON = new ObjectMapper();
    private static final int SECRET = 32;

    /**
     * One data set.
     *
     * @param faults made at its bench, by the sheet's ids
     * @param truth hidden values, as quantities are written, by name
     * @param expected what its data give, as quantities are written
     */
    public record Unit(List<String> faults, Map<String, String> truth, Map<String, String> expected) {}

    /** A secret that nobody knows yet. */
    public static String newSecret() {
        byte[] bytes = new byte[SECRET];
        new SecureRandom().nextBytes(bytes);
        return Base64.getEncoder().encodeToString(bytes);
    }

    /**
     * A number that follows from the secret, and from which the secret does not follow: HMAC-SHA-256 (RFC 2104) of what
     * it is for.
     */
    public static long number(String secret, String purpose, String method, String unit) {
        try {
            Mac mac = Mac.getInstance("HmacSHA256");
            mac.init(new SecretKeySpec(Base64.getDecoder().decode(secret), "HmacSHA256"));
            for (String part : List.of(purpose, method, unit)) {
                byte[] bytes = part.getBytes(StandardCharsets.UTF_8);
                mac.update(ByteBuffer.allocate(4).putInt(bytes.length).array());
                mac.update(bytes);
            }
            return ByteBuffer.wrap(mac.doFinal()).getLong();
        } catch (GeneralSecurityException e) {
            throw new IllegalStateException("This Java has no HMAC-SHA-256.", e);
        }
    }

    /** @throws IOException when it cannot be written */
    public void write(Path file, char[] passphrase) throws IOException {
        Beside.write(file, Sealed.seal(JSON.writeValueAsBytes(this), passphrase));
    }

    /** @throws IllegalArgumentException with one sentence where it cannot be opened */
    public static ClassKey read(Path file, char[] passphrase) {
        try {
            return JSON.readValue(Sealed.open(Files.readAllBytes(file), passphrase), ClassKey.class);
        } catch (JsonProcessingException e) {
            throw new IllegalArgumentException(FileName.of(file) + " holds no key that this edition knows.", e);
        } catch (IOException e) {
            throw new IllegalArgumentException(FileName.of(file) + " cannot be read.", e);
        }
    }

    /**
     * A passphrase from the first line of a file.
     *
     * @throws IllegalArgumentException with one sentence where there is none
     */
    public static char[] passphrase(Path file) {
        try {
            String line = Files.readString(file, StandardCharsets.UTF_8)
                    .lines()
                    .findFirst()
                    .orElse("")
                    .strip();
            if (line.length() < 8) {
                throw new IllegalArgumentException(
                        FileName.of(file) + " should hold a passphrase of eight characters or more on its first line.");
            }
            return line.toCharArray();
        } catch (IOException e) {
            throw new IllegalArgumentException(FileName.of(file) + " cannot be read; it should hold a passphrase.", e);
        }
    }
}
