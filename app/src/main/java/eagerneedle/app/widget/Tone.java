package eagerneedle.app.widget;

import javax.sound.sampled.AudioFormat;
import javax.sound.sampled.AudioSystem;
import javax.sound.sampled.Clip;
import javax.sound.sampled.LineUnavailableException;

/** A short soft tone. A machine without sound stays silent; what the tone says is always shown as well. */
public final class Tone {
    private static final float RATE = 22050;
    private static final double SECONDS = 0.18;
    private static final double PITCH = 660;

    private static boolean wanted;

    private Tone() {}

    /** Whether this person wants to hear tones. */
    public static boolean isWanted() {
        return wanted;
    }

    public static void want(boolean tones) {
        wanted = tones;
    }

    public static void play() {
        byte[] wave = new byte[(int) (RATE * SECONDS)];
        for (int i = 0; i < wave.length; i++) {
            double fade = Math.min(1, Math.min(i, wave.length - i) / (0.02 * RATE));
            wave[i] = (byte) (60 * fade * Math.sin(2 * Math.PI * PITCH * i / RATE));
        }
        Thread t = new Thread(
                () -> {
                    try {
                        Clip clip = AudioSystem.getClip();
                        clip.addLineListener(e -> {
                            if (e.getType() == javax.sound.sampled.LineEvent.Type.STOP) {
                                clip.close();
                            }
                        });
                        clip.open(new AudioFormat(RATE, 8, 1, true, false), wave, 0, wave.length);
                        clip.start();
                    } catch (LineUnavailableException | IllegalArgumentException | SecurityException e) {
                        // No sound here.
                    }
                },
                "tone");
        t.setDaemon(true);
        t.start();
    }
}
