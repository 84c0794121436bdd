package eagerneedle.rig.driver;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.function.LongSupplier;
import javax.sound.sampled.AudioFormat;
import javax.sound.sampled.AudioInputStream;
import javax.sound.sampled.AudioSystem;
import javax.sound.sampled.UnsupportedAudioFileException;

/**
 * A recorded sound in place of a line: its samples come as fast as they were recorded, from the beginning at every
 * start, so that a method that listens can be tried, and tried again, without anything that sounds. After its end it is
 * silent. Opened by one thread and read by another: every method takes its turn, and none of them waits.
 */
public final class SoundFile implements SoundInput {
    private static final int LONGEST = 1 << 30;

    private final Path file;
    private final LongSupplier clock;
    private byte[] sound = {};
    private int frame = 2;
    private double rate = 1;
    private long begun;
    private boolean open;
    private long given;

    /** @param file a WAV of 16 bits, with as many channels and at the rate that are wanted of it */
    public SoundFile(Path file) {
        this(file, System::nanoTime);
    }

    /** @param clock ns, that goes on */
    SoundFile(Path file, LongSupplier clock) {
        this.file = file;
        this.clock = clock;
    }

    @Override
    public synchronized void open(double wanted, int channels) throws IOException {
        if (!Files.isRegularFile(file)) {
            throw new IOException("There is no sound " + file + ".");
        }
        try (AudioInputStream in = AudioSystem.getAudioInputStream(file.toFile())) {
            AudioFormat f = in.getFormat();
            if (f.getSampleSizeInBits() != 16
                    || f.isBigEndian()
                    || !f.getEncoding().equals(AudioFormat.Encoding.PCM_SIGNED)) {
                throw new IOException(file.getFileName() + " is not made of signed samples of 16 bits.");
            }
            if (f.getChannels() != channels || Math.abs(f.getSampleRate() - wanted) > 0.5) {
                throw new IOException(file.getFileName() + " holds " + f.getChannels()
                        + (f.getChannels() == 1 ? " channel" : " channels") + " at " + Math.round(f.getSampleRate())
                        + " samples a second; wanted are " + channels + " at " + Math.round(wanted)
                        + ". Set the channels of the sheet and their rate to what the file holds.");
            }
            sound = in.readNBytes(LONGEST);
            frame = f.getFrameSize();
            rate = f.getSampleRate();
            open = true;
        } catch (UnsupportedAudioFileException e) {
            throw new IOException(file.getFileName() + " is no sound that can be read; a WAV of 16 bits can.", e);
        }
    }

    @Override
    public synchronized void start() {
        begun = clock.getAsLong();
        given = 0;
    }

    @Override
    public synchronized long position() {
        return Math.min(sound.length / frame, (long) ((clock.getAsLong() - begun) / 1e9 * rate));
    }

    @Override
    public synchronized int read(byte[] into) {
        if (!open) {
            return -1;
        }
        int n = (int) Math.min(into.length / frame, position() - given);
        System.arraycopy(sound, (int) (given * frame), into, 0, n * frame);
        given += n;
        return n * frame;
    }

    @Override
    public synchronized int waiting() {
        return (int) (position() - given) * frame;
    }

    @Override
    public void stop() {
        // It goes on by itself and is begun anew.
    }

    @Override
    public String name() {
        return "sound of " + file.getFileName();
    }

    @Override
    public synchronized void close() {
        open = false;
    }
}
