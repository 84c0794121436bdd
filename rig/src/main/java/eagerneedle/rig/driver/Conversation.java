package eagerneedle.rig.driver;

import java.io.IOException;
import java.io.InputStream;
import java.io.InterruptedIOException;
import java.nio.charset.StandardCharsets;
import org.jspecify.annotations.Nullable;

/**
 * Lines to and from an instrument over a wire: one reading thread, told silence, and a lost connection that is tried
 * again every {@value #RETRY_MS} ms until it is back or the conversation is closed.
 */
final class Conversation implements AutoCloseable {
    static final int RETRY_MS = 500;
    private static final int LONGEST_LINE = 4096;
    private static final long FRAME_NS = 1_000_000_000L;
    /** A byte at the slowest serial speed that frames make sense at. */
    private static final long BYTE_NS = 100_000L;

    /** Who listens; called on the reading thread, must not block. */
    interface Listener {
        void line(String line);

        /** How many raw bytes follow this line; 0 for none. */
        default int following(String line) {
            return 0;
        }

        /**
         * A line announced raw bytes that did not come, or were not followed by a line's end; they were read as lines
         * instead.
         */
        default void noFrame(String line) {}

        /** The raw bytes that followed a line. */
        default void bytes(String line, byte[] raw) {}

        /** Everything that had arrived was handed over. */
        default void drained() {}

        /** Nothing has arrived for this long. */
        default void quiet(long ms) {}

        void lost();

        /** The wire is open again; what has to be said first is said here. */
        void back() throws IOException;
    }

    private final Wire wire;
    private final Listener listener;
    private final Object writing = new Object();
    private final Thread reader;
    private volatile boolean closing;
    private String announced = "";
    private byte @Nullable [] raw;
    private int filled;
    private long announcedAt;
    private boolean ending;

    /** Opens the wire and starts listening. */
    Conversation(Wire wire, Listener listener, String what) throws IOException {
        this.wire = wire;
        this.listener = listener;
        wire.open();
        reader = new Thread(this::read, what + " " + wire.name());
        reader.setDaemon(true);
        reader.start();
    }

    void send(String line) throws IOException {
        synchronized (writing) {
            wire.out().write((line + "\n").getBytes(StandardCharsets.UTF_8));
            wire.out().flush();
        }
    }

    private void read() {
        StringBuilder line = new StringBuilder();
        byte[] bytes = new byte[1 << 16];
        long heard = System.nanoTime();
        while (!closing) {
            try {
                InputStream in = wire.in();
                while (!closing) {
                    try {
                        int n = in.read(bytes, 0, Math.max(1, Math.min(bytes.length, in.available())));
                        if (n < 0) {
                            throw new IOException("end of stream");
                        }
                        heard = n > 0 ? System.nanoTime() : heard;
                        take(bytes, n, line);
                        giveUp(line);
                        listener.quiet((System.nanoTime() - heard) / 1_000_000);
                    } catch (InterruptedIOException nothing) {
                        giveUp(line);
                        listener.quiet((System.nanoTime() - heard) / 1_000_000);
                    }
                }
            } catch (IOException e) {
                line.setLength(0);
                raw = null;
                ending = false;
                again();
                heard = System.nanoTime();
            }
        }
    }

    private void take(byte[] bytes, int n, StringBuilder line) {
        for (int i = 0; i < n; i++) {
            if (raw != null && ending) {
                byte[] whole = raw;
                raw = null;
                ending = false;
                if (bytes[i] == '\n' || bytes[i] == '\r') {
                    listener.bytes(announced, whole);
                } else {
                    listener.noFrame(announced);
                    take(whole, whole.length, line);
                }
                if (bytes[i] != '\n') {
                    i--;
                }
            } else if (raw != null) {
                int part = Math.min(raw.length - filled, n - i);
                System.arraycopy(bytes, i, raw, filled, part);
                filled += part;
                i += part - 1;
                ending = filled == raw.length;
            } else if (bytes[i] == '\n') {
                String whole = line.toString().strip();
                line.setLength(0);
                int follow = listener.following(whole);
                if (follow > 0) {
                    announced = whole;
                    raw = new byte[follow];
                    filled = 0;
                    ending = false;
                    announcedAt = System.nanoTime();
                } else {
                    listener.line(whole);
                }
            } else if (line.length() < LONGEST_LINE) {
                line.append((char) (bytes[i] & 0xff));
            }
        }
        listener.drained();
    }

    /**
     * A line that only looked like the header of a frame must not swallow what follows: bytes that do not come in time
     * are read as lines.
     */
    private void giveUp(StringBuilder line) {
        byte[] waiting = raw;
        if (waiting != null && !ending && System.nanoTime() - announcedAt > FRAME_NS + waiting.length * BYTE_NS) {
            raw = null;
            listener.noFrame(announced);
            take(waiting, filled, line);
        }
    }

    /** Latin bytes as they were read, as the UTF-8 text they are. */
    static String text(String raw) {
        return new String(raw.getBytes(StandardCharsets.ISO_8859_1), StandardCharsets.UTF_8);
    }

    private void again() {
        if (closing) {
            return;
        }
        listener.lost();
        while (!closing) {
            try {
                Thread.sleep(RETRY_MS);
                if (!closing) {
                    wire.open();
                    listener.back();
                    return;
                }
            } catch (IOException e) {
                // Not back yet.
            } catch (InterruptedException e) {
                closing = true;
            }
        }
    }

    /** Stops listening and closes the wire; the reading thread is gone when this returns. */
    @Override
    public void close() {
        closing = true;
        wire.close();
        if (reader != Thread.currentThread()) {
            reader.interrupt();
            try {
                reader.join(2000);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            }
        }
        wire.close();
    }
}
