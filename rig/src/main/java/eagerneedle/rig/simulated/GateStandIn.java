package eagerneedle.rig.simulated;

import java.io.IOException;

/**
 * A stand-in for a gate timer on loopback: a wheel of ten spokes turns before two gates, and each edge is one line with
 * its time in microseconds (32 bits, going round) and the state of both gates after it.
 */
public final class GateStandIn implements AutoCloseable {
    /** What can go wrong. */
    public enum Misbehaviour {
        NONE,
        SILENCE,
        GARBAGE,
        HALF_LINES,
        CLOCK_BACK,
        WRONG_UNITS
    }

    private static final long WRAP = 1L << 32;
    private static final int EDGE_MS = 8;

    private final Loopback port;
    private final Thread turning;
    private volatile Misbehaviour misbehaviour = Misbehaviour.NONE;
    private volatile boolean running;
    private volatile boolean closed;
    private long micros;

    /** @param micros what its clock shows at first */
    public GateStandIn(long micros) throws IOException {
        this.micros = micros;
        port = new Loopback("gate stand-in", this::heard);
        turning = new Thread(this::turn, "gate stand-in wheel");
        turning.setDaemon(true);
        turning.start();
    }

    public int port() {
        return port.port();
    }

    public void misbehave(Misbehaviour how) throws IOException {
        misbehaviour = how;
        if (how == Misbehaviour.WRONG_UNITS) {
            describe();
        }
    }

    public void disconnect() throws IOException {
        port.disconnect();
    }

    private void heard(String line) throws IOException {
        switch (line.split(" ")[0]) {
            case "describe" -> describe();
            case "start", "resume" -> running = true;
            case "stop" -> running = false;
            default -> {}
        }
    }

    private void describe() throws IOException {
        send("= TH-GT-01;Gate timer TH-GT-01;"
                + (misbehaviour == Misbehaviour.WRONG_UNITS ? "first[ms],second[ms]" : "first,second") + ";simulated");
    }

    private void turn() {
        for (int edge = 0; !closed; edge++) {
            try {
                Thread.sleep(EDGE_MS);
                micros = (micros + EDGE_MS * 1000L) % WRAP;
                if (running) {
                    String line = ":" + micros + "," + edge % 2 + "," + edge / 2 % 2;
                    switch (misbehaviour) {
                        case SILENCE -> {}
                        case GARBAGE -> send("?" + edge);
                        case HALF_LINES -> send(line.substring(0, 4) + "\n" + line.substring(4));
                        case CLOCK_BACK -> {
                            micros = Math.max(0, micros - 300_000);
                            misbehaviour = Misbehaviour.NONE;
                        }
                        default -> send(line);
                    }
                }
            } catch (IOException e) {
                running &= !closed;
            } catch (InterruptedException e) {
                return;
            }
        }
    }

    private void send(String line) throws IOException {
        port.say(line);
    }

    @Override
    public void close() throws IOException {
        closed = true;
        port.close();
        try {
            turning.join(2000);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
