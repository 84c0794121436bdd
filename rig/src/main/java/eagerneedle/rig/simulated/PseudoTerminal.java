package eagerneedle.rig.simulated;

import com.sun.jna.Library;
import com.sun.jna.Native;
import com.sun.jna.NativeLong;
import com.sun.jna.Pointer;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;

/**
 * A pseudo-terminal (POSIX): a serial port without hardware. A stand-in holds this end; a driver opens {@link #port()}
 * as if an instrument were plugged in there. Linux and macOS only.
 */
public final class PseudoTerminal implements AutoCloseable {
    /** The few calls of the C library that are needed. */
    private interface C extends Library {
        C LIBRARY = Native.load("c", C.class);

        int posix_openpt(int flags);

        int grantpt(int fd);

        int unlockpt(int fd);

        Pointer ptsname(int fd);

        int open(String path, int flags);

        NativeLong read(int fd, byte[] bytes, NativeLong n);

        NativeLong write(int fd, byte[] bytes, NativeLong n);

        int poll(int[] fds, NativeLong n, int timeout);

        int close(int fd);
    }

    private static final int READ_WRITE = 2;
    private static final int NO_CONTROLLING_TERMINAL = 256;
    private static final int POLL_IN = 1;

    private final int fd;
    private final int keep;
    private final String port;
    private volatile boolean closed;

    public PseudoTerminal() throws IOException {
        fd = C.LIBRARY.posix_openpt(READ_WRITE | NO_CONTROLLING_TERMINAL);
        if (fd < 0 || C.LIBRARY.grantpt(fd) != 0 || C.LIBRARY.unlockpt(fd) != 0) {
            throw new IOException("This system gives no pseudo-terminal.");
        }
        port = C.LIBRARY.ptsname(fd).getString(0);
        // Held open, so that this end does not see a hang-up each time a driver closes the port.
        keep = C.LIBRARY.open(port, READ_WRITE | NO_CONTROLLING_TERMINAL);
    }

    /** The path a driver opens. */
    public String port() {
        return port;
    }

    /** Bytes from the driver; waits for them. */
    InputStream in() {
        return new InputStream() {
            @Override
            public int read() {
                byte[] one = new byte[1];
                return read(one, 0, 1) == 1 ? one[0] & 0xff : -1;
            }

            @Override
            public int read(byte[] bytes, int from, int n) {
                byte[] part = new byte[Math.max(1, n)];
                while (!closed) {
                    int[] wanted = {fd, POLL_IN};
                    if (C.LIBRARY.poll(wanted, new NativeLong(1), 100) > 0 && !closed) {
                        int got = C.LIBRARY
                                .read(fd, part, new NativeLong(part.length))
                                .intValue();
                        System.arraycopy(part, 0, bytes, from, Math.max(0, got));
                        return got > 0 ? got : -1;
                    }
                }
                return -1;
            }
        };
    }

    OutputStream out() {
        return new OutputStream() {
            @Override
            public void write(int b) throws IOException {
                write(new byte[] {(byte) b}, 0, 1);
            }

            @Override
            public void write(byte[] bytes, int from, int n) throws IOException {
                byte[] part = java.util.Arrays.copyOfRange(bytes, from, from + n);
                if (closed || C.LIBRARY.write(fd, part, new NativeLong(n)).intValue() != n) {
                    throw new IOException("The pseudo-terminal is closed.");
                }
            }
        };
    }

    /** Unplugs: whoever holds the other end sees the port vanish. */
    @Override
    public void close() {
        synchronized (this) {
            if (closed) {
                return;
            }
            closed = true;
        }
        // What was written last is read before the port vanishes.
        try {
            Thread.sleep(120);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
        C.LIBRARY.close(keep);
        C.LIBRARY.close(fd);
    }
}
