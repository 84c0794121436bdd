package eagerneedle.rig.driver;

import com.fazecast.jSerialComm.SerialPort;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import org.jspecify.annotations.Nullable;

/** A wire over a serial port, eight bits, no parity, one stop bit. */
public final class SerialWire implements Wire {
    private static final int LINE = 30;

    private final String port;
    private final int baud;
    private volatile @Nullable SerialPort open;

    public SerialWire(String port, int baud) {
        this.port = port;
        this.baud = baud;
    }

    @Override
    public void open() throws IOException {
        close();
        if (port.startsWith("/") && !Files.exists(Path.of(port))) {
            throw new IOException("There is no serial port " + port + "; check the plug and which port it became.");
        }
        try {
            SerialPort p = SerialPort.getCommPort(port);
            p.setComPortParameters(baud, 8, SerialPort.ONE_STOP_BIT, SerialPort.NO_PARITY);
            p.setComPortTimeouts(SerialPort.TIMEOUT_READ_SEMI_BLOCKING, TICK_MS, 0);
            if (!p.openPort()) {
                throw new IOException("The serial port " + port
                        + " does not open; another program may be using it, or you may not be allowed to.");
            }
            open = p;
        } catch (RuntimeException e) {
            throw new IOException("There is no serial port " + port + "; check the plug and which port it became.", e);
        }
    }

    private SerialPort opened() throws IOException {
        SerialPort p = open;
        if (p == null) {
            throw new IOException("The instrument is not connected.");
        }
        return p;
    }

    /** A line of {@value #LINE} characters, ten bits each, has to pass before it can be read. */
    @Override
    public double way() {
        return Wire.super.way() + 10.0 * LINE / baud;
    }

    @Override
    public InputStream in() throws IOException {
        return opened().getInputStream();
    }

    @Override
    public OutputStream out() throws IOException {
        return opened().getOutputStream();
    }

    @Override
    public String name() {
        return port;
    }

    @Override
    public void close() {
        SerialPort p = open;
        open = null;
        if (p != null) {
            p.closePort();
        }
    }
}
