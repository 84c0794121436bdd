package eagerneedle.rig.driver;

import java.io.IOException;
import java.util.List;

/**
 * The computer's sound input as a converter: whole counts of 16 bits, signed, of one channel or two, at one of the
 * rates that sound inputs have. What a count is in volts only a calibration can tell; a sound input passes nothing
 * below some 20 Hz, so it serves for what swings.
 *
 * <p>Time is counted in frames, by the clock of the sound input. Frames that the computer fetched too late are lost;
 * how many, the position of the line tells, and they are missing in time, not only in number: nothing behind a gap is
 * moved together.
 */
public final class SoundDriver extends Sampler {
    private static final double[] RATES = {8000, 11025, 16000, 22050, 32000, 44100, 48000, 96000};
    private static final double FETCH_SECONDS = 0.05;
    private static final int SILENT_MS = 1500;

    private final SoundInput input;
    private final List<String> channels;
    private volatile double rate = RATES[5];
    private volatile boolean running;

    /**
     * A sound input.
     *
     * @param names what its channels are called, one or two; left and right where there are none
     */
    public SoundDriver(SoundInput input, List<String> names) {
        this.input = input;
        this.channels = names.size() == 1 ? List.copyOf(names) : List.of("left", "right");
    }

    @Override
    public double longestWay() {
        return 2 * FETCH_SECONDS;
    }

    @Override
    public Description open() throws IOException {
        input.open(rate, channels.size());
        state = State.READY;
        return new Description(input.name(), "sound input", channels, false);
    }

    /** Takes the slowest rate of sound inputs that is not below the one wanted. */
    @Override
    public void configure(double wanted) throws IOException {
        for (double r : RATES) {
            if (r >= wanted * (1 - 1e-9)) {
                rate = r;
                return;
            }
        }
        throw new IOException("A sound input takes at most " + (int) RATES[RATES.length - 1]
                + " samples a second; set a slower rate.");
    }

    @Override
    public void start(Sink newSink) throws IOException {
        stop();
        input.open(rate, channels.size());
        unreadable = 0;
        sink = newSink;
        state = State.RUNNING;
        running = true;
        input.start();
        work("sound driver", () -> fetch(newSink));
    }

    private void fetch(Sink to) {
        int frame = 2 * channels.size();
        byte[] bytes = new byte[(int) Math.ceil(rate * FETCH_SECONDS) * frame];
        long fetched = 0;
        long lost = 0;
        long heard = System.nanoTime();
        while (running) {
            int n = input.read(bytes);
            if (!running) {
                return;
            }
            if (n < 0) {
                tell(State.LOST, "The sound input is gone; check the plug and connect again.");
                return;
            }
            if (n == 0) {
                if (state == State.RUNNING && System.nanoTime() - heard > SILENT_MS * 1_000_000L) {
                    tell(State.SILENT, "The sound input sends nothing; check that it is switched on.");
                }
                pause();
                continue;
            }
            heard = System.nanoTime();
            if (state == State.SILENT) {
                tell(State.RUNNING, "The sound input sends again.");
            }
            // What came before these frames and was never fetched was overwritten.
            long come = input.position();
            long missed = come < 0 ? 0 : come - (fetched + lost + (n + input.waiting()) / frame);
            if (missed > rate * FETCH_SECONDS) {
                lost += missed;
                unreadable = lost;
                tell("The computer was too slow for the sound input; " + missed + " samples are missing from "
                        + String.format(java.util.Locale.ROOT, "%.3f", (fetched + lost - missed) / rate) + " s on.");
            }
            to.block(block(bytes, n / frame, fetched + lost));
            fetched += n / frame;
        }
    }

    private Block block(byte[] bytes, int frames, long first) {
        double[] time = new double[frames];
        double[][] counts = new double[channels.size()][frames];
        int at = 0;
        for (int i = 0; i < frames; i++) {
            time[i] = (first + i) / rate;
            for (double[] c : counts) {
                c[i] = (short) ((bytes[at] & 0xff) | bytes[at + 1] << 8);
                at += 2;
            }
        }
        return new Block(time, counts);
    }

    private static void pause() {
        try {
            Thread.sleep(5);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    @Override
    public void stop() {
        running = false;
        input.stop();
        endWork();
        state = state == State.CLOSED ? state : State.READY;
    }

    @Override
    public void close() {
        stop();
        input.close();
        state = State.CLOSED;
    }
}
