package eagerneedle.rig.driver;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.function.BiConsumer;

/**
 * An instrument in a few lines, written for tests alone: what it hears is given to a script, which says what it likes.
 */
final class AwkwardInstrument implements AutoCloseable {
    private final ServerSocket server = new ServerSocket(0, 1, InetAddress.getLoopbackAddress());
    private volatile OutputStream out;
    private volatile boolean closed;

    AwkwardInstrument(BiConsumer<AwkwardInstrument, String> script) throws IOException {
        Thread t = new Thread(
                () -> {
                    while (!closed) {
                        try (Socket s = server.accept()) {
                            s.setTcpNoDelay(true);
                            out = s.getOutputStream();
                            BufferedReader in = new BufferedReader(
                                    new InputStreamReader(s.getInputStream(), StandardCharsets.ISO_8859_1));
                            for (String line = in.readLine(); line != null; line = in.readLine()) {
                                script.accept(this, line.strip());
                            }
                        } catch (IOException e) {
                            out = null;
                        }
                    }
                },
                "awkward instrument");
        t.setDaemon(true);
        t.start();
    }

    int port() {
        return server.getLocalPort();
    }

    void say(String line) {
        raw((line + "\n").getBytes(StandardCharsets.ISO_8859_1));
    }

    synchronized void raw(byte[] bytes) {
        try {
            out.write(bytes);
            out.flush();
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
    }

    static void sleep(long ms) {
        try {
            Thread.sleep(ms);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    @Override
    public void close() throws IOException {
        closed = true;
        server.close();
    }
}
