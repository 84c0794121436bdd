package eagerneedle.rig.simulated;

import java.io.IOException;
import java.util.concurrent.locks.LockSupport;

/**
 * A fast logger on loopback: many channels of waves with noise, sent in frames of the line protocol. Each count is a
 * function of its channel and number, so that a test can tell whether every one of them arrived as it was sent.
 */
public final class WaveStandIn implements AutoCloseable {
    private static final int TABLE = 1 << 14;
    private static final int FRAME_MS = 10;
    private static final short[] SINE = new short[TABLE];

    static {
        for (int i = 0; i < TABLE; i++) {
            SINE[i] = (short) Math.rint(12_000 * Math.sin(2 * Math.PI * i / TABLE));
        }
    }

    private final Loopback port;
    private final Thread sending;
    private final int channels;
    private volatile double rate = 1000;
    private volatile long start;
    private volatile boolean running;
    private volatile boolean closed;
    private volatile long sent;

    /** Starts listening on a free port. */
    public WaveStandIn(int channels) throws IOException {
        this.channels = channels;
        port = new Loopback("wave stand-in", this::heard);
        sending = new Thread(this::send, "wave stand-in frames");
        sending.setDaemon(true);
        sending.start();
    }

    public int port() {
        return port.port();
    }

    /** Samples of each channel sent since the start. */
    public long sent() {
        return sent;
    }

    /** The count of a channel at a sample number, from 0: a wave of its own frequency with a few counts of noise. */
    public static short count(int channel, long sample) {
        long noise = (sample * 0x9E3779B97F4A7C15L + channel * 0xD1B54A32D192ED03L) * 0xBF58476D1CE4E5B9L;
        return (short) (SINE[(int) (sample * (channel + 1) / 4 & TABLE - 1)] + (noise >>> 60) - 8);
    }

    private void heard(String line) throws IOException {
        String[] words = line.split(" ");
        switch (words[0]) {
            case "describe" -> {
                StringBuilder names = new StringBuilder();
                for (int c = 0; c < channels; c++) {
                    names.append(c == 0 ? "" : ",").append("in").append(c + 1);
                }
                port.say("= TH-LG-09;Fast logger TH-LG-09;" + names + ";simulated");
            }
            case "rate" -> rate = Double.parseDouble(words[1]);
            case "start" -> {
                sent = 0;
                start = System.nanoTime();
                running = true;
            }
            case "resume" -> running = true;
            case "stop" -> running = false;
            default -> {}
        }
    }

    private void send() {
        while (!closed) {
            LockSupport.parkNanos(FRAME_MS * 1_000_000L);
            if (running) {
                long due = (long) ((System.nanoTime() - start) * rate / 1e9);
                int most = Math.max(1, (int) (rate * FRAME_MS / 1000));
                while (running && !closed && due - sent >= most) {
                    frame(most);
                }
            }
        }
    }

    private void frame(int n) {
        byte[] raw = new byte[n * channels * 2 + 1];
        int at = 0;
        for (int i = 0; i < n; i++) {
            for (int c = 0; c < channels; c++) {
                short v = count(c, sent + i);
                raw[at++] = (byte) v;
                raw[at++] = (byte) (v >> 8);
            }
        }
        raw[at] = '\n';
        long period = Math.round(1e9 / rate);
        try {
            port.say("% " + sent * period / 1000 + " " + period + " " + n + " 2", raw);
            sent += n;
        } catch (IOException e) {
            running = false;
        }
    }

    @Override
    public void close() throws IOException {
        closed = true;
        running = false;
        port.close();
        try {
            sending.join(2000);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
