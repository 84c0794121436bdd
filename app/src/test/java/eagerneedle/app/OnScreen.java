package eagerneedle.app;

import java.lang.reflect.Method;
import java.util.List;
import java.util.NoSuchElementException;
import java.util.concurrent.Callable;
import java.util.concurrent.TimeUnit;
import javafx.scene.Scene;
import javafx.stage.Window;
import org.testfx.util.WaitForAsyncUtils;

/**
 * Acts on the thread of the interface, and waits for what follows from them by asking, not by the clock: the robot's
 * own way of waiting sleeps a tenth of a second at every act.
 */
public final class OnScreen {
    private static final long PATIENCE = 60;
    private static final Method STYLES = styles();

    private OnScreen() {}

    /** Does something on the thread of the interface; what it throws is thrown here. */
    public static void act(Runnable what) {
        WaitForAsyncUtils.waitFor(WaitForAsyncUtils.asyncFx(what));
        settle();
    }

    /**
     * Waits until it is so, asked on the thread of the interface: who looks from another while the window makes its
     * rows anew meets lists that change under the eye. What is not there yet is not so yet.
     */
    public static void await(Callable<Boolean> condition) throws Exception {
        WaitForAsyncUtils.waitFor(
                PATIENCE,
                TimeUnit.SECONDS,
                () -> WaitForAsyncUtils.waitFor(WaitForAsyncUtils.asyncFx(() -> {
                    try {
                        return condition.call();
                    } catch (NoSuchElementException notYet) {
                        return false;
                    }
                })));
        settle();
    }

    /** What is seen on the thread of the interface. */
    public static <T> T seen(Callable<T> what) {
        return WaitForAsyncUtils.waitFor(WaitForAsyncUtils.asyncFx(what));
    }

    /** Returns when all that was asked for until now is done and laid out, and what that asked for too. */
    public static void settle() {
        for (int round = 0; round < 3; round++) {
            WaitForAsyncUtils.waitFor(WaitForAsyncUtils.asyncFx(OnScreen::layOut));
        }
    }

    private static void layOut() {
        for (Window w : List.copyOf(Window.getWindows())) {
            if (w.getScene() != null && w.getScene().getRoot() != null) {
                style(w.getScene());
                w.getScene().getRoot().layout();
            }
        }
    }

    /**
     * What a scene does about styles at its next picture. To apply them by hand would dress every node there is anew,
     * which took most of the time of the tests of windows.
     */
    private static void style(Scene scene) {
        try {
            STYLES.invoke(scene);
        } catch (ReflectiveOperationException e) {
            throw new IllegalStateException(e);
        }
    }

    private static Method styles() {
        try {
            Method m = Scene.class.getDeclaredMethod("doCSSPass");
            m.setAccessible(true);
            return m;
        } catch (NoSuchMethodException e) {
            throw new IllegalStateException(e);
        }
    }
}
