package eagerneedle.store.classroom;

import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import java.security.SecureRandom;
import java.util.Arrays;
import javax.crypto.AEADBadTagException;
import javax.crypto.Cipher;
import javax.crypto.SecretKeyFactory;
import javax.crypto.spec.GCMParameterSpec;
import javax.crypto.spec.PBEKeySpec;
import javax.crypto.spec.SecretKeySpec;

/**
 * Bytes that only a passphrase opens, and that tell when one of them was changed: AES-256 in Galois counter mode (NIST
 * SP 800-38D), the key by PBKDF2 with HMAC-SHA-256 (RFC 8018) from the passphrase and a salt of its own. The head, with
 * the number of rounds and the salt, is authenticated too.
 */
final class Sealed {
    private static final byte[] MARK = "needle class key 1\n".getBytes(StandardCharsets.US_ASCII);
    private static final int SALT = 16;
    private static final int NONCE = 12;
    private static final int TAG_BITS = 128;
    private static final int KEY_BITS = 256;
    private static final int MOST_ROUNDS = 10_000_000;
    /**
     * As OWASP advises for PBKDF2 with HMAC-SHA-256. Tests of what is done with keys, not of keys, may ask for fewer:
     * each key says how many it was made with.
     */
    static final int ROUNDS = Integer.getInteger("needle.key.rounds", 600_000);

    private Sealed() {}

    static byte[] seal(byte[] plain, char[] passphrase) {
        SecureRandom random = new SecureRandom();
        byte[] salt = new byte[SALT];
        byte[] nonce = new byte[NONCE];
        random.nextBytes(salt);
        random.nextBytes(nonce);
        byte[] head = ByteBuffer.allocate(MARK.length + 4 + SALT + NONCE)
                .put(MARK)
                .putInt(ROUNDS)
                .put(salt)
                .put(nonce)
                .array();
        try {
            byte[] sealed = cipher(Cipher.ENCRYPT_MODE, passphrase, ROUNDS, salt, nonce, head)
                    .doFinal(plain);
            return ByteBuffer.allocate(head.length + sealed.length)
                    .put(head)
                    .put(sealed)
                    .array();
        } catch (GeneralSecurityException e) {
            throw new IllegalStateException("This Java has no AES in Galois counter mode.", e);
        }
    }

    /** @throws IllegalArgumentException with one sentence for another passphrase, or bytes that were changed */
    static byte[] open(byte[] sealed, char[] passphrase) {
        int head = MARK.length + 4 + SALT + NONCE;
        if (sealed.length < head || !Arrays.equals(MARK, Arrays.copyOf(sealed, MARK.length))) {
            throw new IllegalArgumentException("This is not the key of a class.");
        }
        ByteBuffer in = ByteBuffer.wrap(sealed, MARK.length, sealed.length - MARK.length);
        int rounds = in.getInt();
        byte[] salt = new byte[SALT];
        byte[] nonce = new byte[NONCE];
        in.get(salt).get(nonce);
        if (rounds < 1 || rounds > MOST_ROUNDS) {
            throw new IllegalArgumentException("The key was changed since it was made; take a copy of it.");
        }
        try {
            return cipher(Cipher.DECRYPT_MODE, passphrase, rounds, salt, nonce, Arrays.copyOf(sealed, head))
                    .doFinal(sealed, head, sealed.length - head);
        } catch (AEADBadTagException e) {
            throw new IllegalArgumentException(
                    "The passphrase does not open this key, or the key was changed since it was made.", e);
        } catch (GeneralSecurityException e) {
            throw new IllegalArgumentException("The key was changed since it was made; take a copy of it.", e);
        }
    }

    private static Cipher cipher(int mode, char[] passphrase, int rounds, byte[] salt, byte[] nonce, byte[] head)
            throws GeneralSecurityException {
        byte[] key = SecretKeyFactory.getInstance("PBKDF2WithHmacSHA256")
                .generateSecret(new PBEKeySpec(passphrase, salt, rounds, KEY_BITS))
                .getEncoded();
        Cipher c = Cipher.getInstance("AES/GCM/NoPadding");
        c.init(mode, new SecretKeySpec(key, "AES"), new GCMParameterSpec(TAG_BITS, nonce));
        c.updateAAD(head);
        return c;
    }
}
