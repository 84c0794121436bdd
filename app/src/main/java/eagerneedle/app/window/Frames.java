package eagerneedle.app.window;

import javafx.animation.AnimationTimer;

/** Calls about thirty times a second, however fast the display is. */
final class Frames extends AnimationTimer {
    private static final long BETWEEN = 30_000_000L;
    private final Runnable call;
    private long last;

    Frames(Runnable call) {
        this.call = call;
    }

    @Override
    public void handle(long now) {
        if (now - last > BETWEEN) {
            last = now;
            call.run();
        }
    }
}
