package eagerneedle.rig.driver;

import java.io.IOException;

/**
 * A line of sound into the computer: signed samples of 16 bits, little-endian, the channels of a frame together. The
 * computer's own is {@link SoundCard}; any other source of frames can stand in its place.
 */
public interface SoundInput extends AutoCloseable {
    /**
     * Opens the line.
     *
     * @param rate frames a second
     * @param channels 1 or 2
     * @throws IOException with one sentence when there is no such line
     */
    void open(double rate, int channels) throws IOException;

    /** Begins to take sound in; frame 0 is the first. */
    void start();

    /**
     * Takes what has come, waiting for some.
     *
     * @return how many bytes, whole frames; less than 0 when the line is gone
     */
    int read(byte[] into);

    /** How many frames have come since {@link #start}, fetched or lost; less than 0 where the line does not know. */
    long position();

    /** How many bytes have come and were not fetched yet. */
    int waiting();

    void stop();

    /** What a person calls it. */
    String name();

    @Override
    void close();
}
