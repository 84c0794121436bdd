package eagerneedle.rig.driver;

import java.io.IOException;
import java.util.Arrays;
import java.util.Locale;
import javax.sound.sampled.AudioFormat;
import javax.sound.sampled.AudioSystem;
import javax.sound.sampled.DataLine;
import javax.sound.sampled.LineUnavailableException;
import javax.sound.sampled.Mixer;
import javax.sound.sampled.TargetDataLine;
import org.jspecify.annotations.Nullable;

/** The sound input of this computer, by the standard library. */
public final class SoundCard implements SoundInput {
    private static final double BUFFER_SECONDS = 1;

    private final String wanted;
    private volatile @Nullable TargetDataLine line;

    /** @param wanted part of the name of a line; empty for the one that the computer uses by itself */
    public SoundCard(String wanted) {
        this.wanted = wanted.strip();
    }

    @Override
    public void open(double rate, int channels) throws IOException {
        close();
        AudioFormat format = new AudioFormat((float) rate, 16, channels, true, false);
        DataLine.Info info = new DataLine.Info(TargetDataLine.class, format);
        try {
            TargetDataLine l = wanted.isEmpty() || wanted.equalsIgnoreCase("default")
                    ? (TargetDataLine) AudioSystem.getLine(info)
                    : (TargetDataLine) mixer().getLine(info);
            l.open(format, (int) (rate * BUFFER_SECONDS) * format.getFrameSize());
            line = l;
        } catch (IllegalArgumentException | LineUnavailableException | SecurityException e) {
            throw new IOException(
                    "There is no sound input " + (wanted.isEmpty() ? "" : wanted + " ") + "with " + channels
                            + (channels == 1 ? " channel" : " channels") + " at " + (int) rate
                            + " samples a second; check the plug and what the system calls it.",
                    e);
        }
    }

    private Mixer mixer() throws IOException {
        Mixer.Info[] all = AudioSystem.getMixerInfo();
        for (Mixer.Info m : all) {
            if (m.getName().toLowerCase(Locale.ROOT).contains(wanted.toLowerCase(Locale.ROOT))) {
                return AudioSystem.getMixer(m);
            }
        }
        throw new IOException("There is no sound input called " + wanted + "; there are: "
                + String.join(", ", Arrays.stream(all).map(Mixer.Info::getName).toList())
                + ".");
    }

    private TargetDataLine opened() {
        TargetDataLine l = line;
        if (l == null) {
            throw new IllegalStateException("The sound input is not open.");
        }
        return l;
    }

    @Override
    public void start() {
        opened().flush();
        opened().start();
    }

    @Override
    public int read(byte[] into) {
        TargetDataLine l = line;
        if (l == null || !l.isOpen()) {
            return -1;
        }
        int frame = l.getFormat().getFrameSize();
        int n = Math.max(frame, Math.min(into.length, l.available()) / frame * frame);
        return l.read(into, 0, n);
    }

    @Override
    public long position() {
        TargetDataLine l = line;
        return l == null ? -1 : l.getLongFramePosition();
    }

    @Override
    public int waiting() {
        TargetDataLine l = line;
        return l == null ? 0 : l.available();
    }

    @Override
    public void stop() {
        TargetDataLine l = line;
        if (l != null) {
            l.stop();
        }
    }

    @Override
    public String name() {
        return wanted.isEmpty() ? "sound input" : wanted;
    }

    @Override
    public void close() {
        TargetDataLine l = line;
        line = null;
        if (l != null) {
            l.close();
        }
    }
}
