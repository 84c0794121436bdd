package eagerneedle.rig.simulated;

import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.sheet.SheetReader;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.Instant;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/**
 * One seed is one session, bit for bit, on every machine: a digest of all counts and readings of a session of each
 * method is committed. Where physics or a sheet is changed on purpose the digest is made anew, and the change is told.
 */
class SameSessionTest {
    private static final Map<String, String> DIGESTS = read();

    private static List<String> shipped() {
        return SheetReader.shipped();
    }

    private static Map<String, String> read() {
        try (var in = SameSessionTest.class.getResourceAsStream("sessions.txt")) {
            Map<String, String> out = new LinkedHashMap<>();
            new String(in.readAllBytes(), StandardCharsets.UTF_8)
                    .lines()
                    .map(l -> l.split(" "))
                    .forEach(l -> out.put(l[0], l[1]));
            return out;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    @ParameterizedTest
    @MethodSource("shipped")
    void aSessionIsTheSameEverywhere(String id) throws NoSuchAlgorithmException {
        SheetReader.Located sheet = SheetTrial.read(SheetReader.shippedText(id), id + ".yaml");
        Rehearsal r = Rehearsal.of(sheet, Rigs.of(sheet.sheet(), 7, Set.of()), Instant.EPOCH);
        MessageDigest digest = MessageDigest.getInstance("SHA-256");
        new TreeMap<>(r.session().measured())
                .forEach((name, text) -> digest.update((name + "=" + text).getBytes(StandardCharsets.UTF_8)));
        new TreeMap<>(r.samples())
                .forEach((run, channels) -> new TreeMap<>(channels).forEach((channel, samples) -> {
                    for (int i = 0; i < samples.size(); i++) {
                        digest.update(ByteBuffer.allocate(16)
                                .putDouble(samples.time()[i])
                                .putDouble(samples.values()[i])
                                .array());
                    }
                }));
        String found = HexFormat.of().formatHex(digest.digest(), 0, 8);
        System.out.println("session " + id + " " + found);
        assertThat(found).as("session of " + id).isEqualTo(DIGESTS.get(id));
    }
}
