package eagerneedle.rig.driver;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.ConnectException;
import java.net.InetSocketAddress;
import java.net.Socket;
import org.jspecify.annotations.Nullable;

/** A wire over TCP. */
public final class TcpWire implements Wire {
    private final String host;
    private final int port;
    private volatile @Nullable Socket socket;

    public TcpWire(String host, int port) {
        this.host = host;
        this.port = port;
    }

    @Override
    public void open() throws IOException {
        close();
        Socket s = new Socket();
        try {
            s.connect(new InetSocketAddress(host, port), 1000);
            if (s.getLocalSocketAddress().equals(s.getRemoteSocketAddress())) {
                // On a free port of this computer a call can meet itself (RFC 9293, 3.5: simultaneous open).
                throw new ConnectException("met itself");
            }
            s.setSoTimeout(TICK_MS);
            s.setTcpNoDelay(true);
        } catch (IOException e) {
            s.close();
            throw new IOException(
                    "Nothing answers at " + name() + "; check that the instrument is on and its address is right.", e);
        }
        socket = s;
    }

    private Socket open(@Nullable Socket s) throws IOException {
        if (s == null) {
            throw new IOException("The instrument is not connected.");
        }
        return s;
    }

    @Override
    public InputStream in() throws IOException {
        return open(socket).getInputStream();
    }

    @Override
    public OutputStream out() throws IOException {
        return open(socket).getOutputStream();
    }

    @Override
    public String name() {
        return host + ":" + port;
    }

    @Override
    public void close() {
        try {
            if (socket != null) {
                socket.close();
            }
        } catch (IOException e) {
            // Closing a broken connection may fail; there is nothing left to save.
        }
    }
}
