package eagerneedle.rig.driver;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;

/**
 * A two-way line of bytes to an instrument that can be opened again after it was lost. Reading waits no longer than
 * {@value #TICK_MS} ms and then throws {@link java.io.InterruptedIOException}; a line that is gone throws any other
 * IOException.
 */
public interface Wire extends AutoCloseable {
    int TICK_MS = 200;

    /** Opens or opens again. @throws IOException with one sentence that says what to check */
    void open() throws IOException;

    /** The bytes from the instrument; valid until the wire is opened again. */
    InputStream in() throws IOException;

    OutputStream out() throws IOException;

    /** The longest that a short line may be under way where nothing holds it up, s. */
    default double way() {
        return 0.002;
    }

    /** What a person calls it: an address or a port. */
    String name();

    @Override
    void close();
}
