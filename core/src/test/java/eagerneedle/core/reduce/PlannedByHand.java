package eagerneedle.core.reduce;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.Objects;

/** A chute whose quantities all say what to expect of them, so that a plan needs no rehearsal. */
final class PlannedByHand {
    static final String TEXT = text();

    private PlannedByHand() {}

    private static String text() {
        try (InputStream in = Objects.requireNonNull(PlannedByHand.class.getResourceAsStream("planned-by-hand.yaml"))) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
