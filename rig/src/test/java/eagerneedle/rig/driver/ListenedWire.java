package eagerneedle.rig.driver;

import java.io.FilterInputStream;
import java.io.FilterOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.concurrent.atomic.AtomicInteger;

/** A wire that counts what passes: bytes from the instrument, and how often it was told that somebody is there. */
final class ListenedWire implements Wire {
    private final Wire wire;
    private final AtomicInteger bytes = new AtomicInteger();
    private final AtomicInteger alive = new AtomicInteger();

    ListenedWire(Wire wire) {
        this.wire = wire;
    }

    int bytes() {
        return bytes.get();
    }

    int alive() {
        return alive.get();
    }

    @Override
    public void open() throws IOException {
        wire.open();
    }

    @Override
    public InputStream in() throws IOException {
        return new FilterInputStream(wire.in()) {
            @Override
            public int read(byte[] b, int from, int most) throws IOException {
                int n = super.read(b, from, most);
                bytes.addAndGet(Math.max(0, n));
                return n;
            }
        };
    }

    @Override
    public OutputStream out() throws IOException {
        return new FilterOutputStream(wire.out()) {
            @Override
            public void write(byte[] b) throws IOException {
                out.write(b);
                if (new String(b, StandardCharsets.UTF_8).equals("alive\n")) {
                    alive.incrementAndGet();
                }
            }
        };
    }

    @Override
    public double way() {
        return wire.way();
    }

    @Override
    public String name() {
        return wire.name();
    }

    @Override
    public void close() {
        wire.close();
    }
}
