package eagerneedle.rig.simulated;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import org.jspecify.annotations.Nullable;

/** A port on loopback that one caller at a time may talk to in lines. */
final class Loopback implements AutoCloseable {
    /** Takes a line from the caller. */
    interface Ear {
        void heard(String line) throws IOException;
    }

    private final ServerSocket server;
    private final Thread thread;
    private final Ear ear;
    private volatile @Nullable Socket client;
    private volatile boolean closed;

    /** Starts listening on a free port. */
    Loopback(String name, Ear ear) throws IOException {
        this.ear = ear;
        server = new ServerSocket(0, 1, InetAddress.getLoopbackAddress());
        thread = new Thread(this::serve, name);
        thread.setDaemon(true);
        thread.start();
    }

    int port() {
        return server.getLocalPort();
    }

    private void serve() {
        while (!closed) {
            try (Socket c = server.accept()) {
                client = c;
                BufferedReader in =
                        new BufferedReader(new InputStreamReader(c.getInputStream(), StandardCharsets.UTF_8));
                for (String line = closed ? null : in.readLine(); line != null; line = in.readLine()) {
                    ear.heard(line.strip());
                }
            } catch (IOException e) {
                client = null;
            }
        }
    }

    /** Says a line to the caller; nobody there hears nothing. */
    synchronized void say(String line) throws IOException {
        Socket c = client;
        if (c != null && !c.isClosed()) {
            OutputStream to = c.getOutputStream();
            to.write((line + "\n").getBytes(StandardCharsets.UTF_8));
            to.flush();
        }
    }

    /** Says a line and sends raw bytes after it. */
    synchronized void say(String line, byte[] raw) throws IOException {
        Socket c = client;
        if (c != null && !c.isClosed()) {
            OutputStream to = c.getOutputStream();
            byte[] head = (line + "\n").getBytes(StandardCharsets.UTF_8);
            byte[] all = java.util.Arrays.copyOf(head, head.length + raw.length);
            System.arraycopy(raw, 0, all, head.length, raw.length);
            to.write(all);
            to.flush();
        }
    }

    /** Drops the caller, as a pulled lead does. */
    void disconnect() throws IOException {
        Socket c = client;
        if (c != null) {
            c.close();
        }
    }

    @Override
    public void close() throws IOException {
        closed = true;
        server.close();
        disconnect();
        try {
            thread.join(2000);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
