package eagerneedle.app.widget;

import atlantafx.base.theme.PrimerDark;
import atlantafx.base.theme.PrimerLight;
import eagerneedle.picture.Lettering;
import java.lang.ref.WeakReference;
import java.util.ArrayList;
import java.util.List;
import javafx.application.Application;
import javafx.scene.Node;
import javafx.scene.Scene;

/**
 * Our look: AtlantaFX's controls underneath, our paper, inks and fonts on top; light and dark. Interface thread only.
 */
public final class Theme {
    private static final List<WeakReference<Node>> WATCHERS = new ArrayList<>();
    private static boolean dark;

    private Theme() {}

    public static boolean isDark() {
        return dark;
    }

    /** Sets the theme for the program and dresses a scene. */
    public static void dress(Scene scene, boolean inTheDark) {
        dark = inTheDark;
        for (Lettering.Face face : Lettering.Face.values()) {
            Typefaces.of(new Lettering(face, 12, false));
            Typefaces.of(new Lettering(face, 12, true));
        }
        Application.setUserAgentStylesheet(
                inTheDark ? new PrimerDark().getUserAgentStylesheet() : new PrimerLight().getUserAgentStylesheet());
        String ours = Theme.class.getResource("needle.css").toExternalForm();
        if (!scene.getStylesheets().contains(ours)) {
            scene.getStylesheets().add(ours);
        }
        scene.getRoot().getStyleClass().remove("in-the-dark");
        if (inTheDark) {
            scene.getRoot().getStyleClass().add("in-the-dark");
        }
        for (WeakReference<Node> watcher : List.copyOf(WATCHERS)) {
            Node node = watcher.get();
            if (node != null
                    && node.getScene() != null
                    && node.getScene().getWindow() != null
                    && node.getScene().getWindow().isShowing()) {
                ((Runnable) node.getProperties().get(Theme.class)).run();
            }
        }
    }

    /**
     * Runs {@code repaint} whenever the theme changes while the node is shown, and whenever it comes to be shown. The
     * node itself holds {@code repaint}, so that nothing else keeps either alive.
     */
    public static void onChange(Node node, Runnable repaint) {
        node.getProperties().put(Theme.class, repaint);
        node.sceneProperty().addListener((o, before, now) -> {
            if (now != null) {
                repaint.run();
            }
        });
        WATCHERS.removeIf(w -> w.get() == null);
        WATCHERS.add(new WeakReference<>(node));
    }
}
