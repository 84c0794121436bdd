package eagerneedle.app.widget;

import atlantafx.base.theme.PrimerDark;
import atlantafx.base.theme.PrimerLight;
import eagerneedle.picture.Ink;
import eagerneedle.picture.Lettering;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.lang.ref.WeakReference;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Base64;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.regex.Pattern;
import javafx.application.Application;
import javafx.scene.Node;
import javafx.scene.Scene;

/**
 * Our look: AtlantaFX's controls underneath, our paper, inks and letters on top; light and dark, and text from 90 to
 * 160 %. Interface thread only.
 *
 * <p>The stylesheet that ships says sizes for text of 100 % and names colours by their role. What a scene is given is
 * that sheet with every size multiplied and the colours of {@link Ink} in front, so that the window and the pictures in
 * it cannot differ, and no size is said twice.
 */
public final class Theme {
    /** Smallest and largest size of text, in percent. */
    public static final int SMALLEST = 90;

    public static final int LARGEST = 160;
    private static final Pattern SIZE = Pattern.compile("(\\d+(?:\\.\\d+)?)px");
    private static final double BODY = 13.5;
    private static final String FAMILY = "data:text/css;base64,";
    /** Looked-up colours of the stylesheet, by the ink that they are. */
    private static final Map<String, Ink> ROLES = Map.ofEntries(
            Map.entry("-paper", Ink.PAPER),
            Map.entry("-sheet", Ink.SURFACE),
            Map.entry("-rule", Ink.RULE),
            Map.entry("-ink", Ink.INK),
            Map.entry("-quiet", Ink.QUIET),
            Map.entry("-needle", Ink.NEEDLE),
            Map.entry("-good", Ink.GOOD),
            Map.entry("-attention", Ink.ATTENTION),
            Map.entry("-chosen", Ink.CHOSEN),
            Map.entry("-tint", Ink.TINT),
            Map.entry("-band", Ink.BAND),
            Map.entry("-color-accent-emphasis", Ink.INK),
            Map.entry("-color-accent-fg", Ink.INK),
            Map.entry("-color-accent-subtle", Ink.TINT),
            Map.entry("-color-accent-muted", Ink.QUIET),
            Map.entry("-color-bg-default", Ink.SURFACE),
            Map.entry("-color-bg-subtle", Ink.TINT),
            Map.entry("-color-bg-inset", Ink.PAPER),
            Map.entry("-color-fg-default", Ink.INK),
            Map.entry("-color-fg-muted", Ink.QUIET),
            Map.entry("-color-fg-emphasis", Ink.SURFACE),
            Map.entry("-color-border-default", Ink.EDGE),
            Map.entry("-color-border-muted", Ink.RULE));

    private static final List<WeakReference<Node>> WATCHERS = new ArrayList<>();
    /** By darkness and size of text. */
    private static final Map<List<Object>, String> ADDRESSES = new HashMap<>();

    private static boolean dark;
    private static boolean still;
    private static int percent = 100;

    private Theme() {}

    public static boolean isDark() {
        return dark;
    }

    /** Size of text in percent. */
    public static int textSize() {
        return percent;
    }

    /**
     * Sets the size of text for what is dressed and made from now on; kept between {@link #SMALLEST} and
     * {@link #LARGEST}.
     */
    public static void textSize(int newPercent) {
        percent = Math.max(SMALLEST, Math.min(LARGEST, newPercent));
    }

    /** True where nothing may move that need not. */
    public static boolean isStill() {
        return still;
    }

    public static void still(boolean nothingMoves) {
        still = nothingMoves;
    }

    /** A length in pixels that grows with the text. */
    public static double px(double atFullSize) {
        return atFullSize * percent / 100;
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
        if (scene.getStylesheets().stream().noneMatch(s -> s.startsWith(FAMILY))) {
            Hints.wholeWords(scene);
        }
        scene.getStylesheets().removeIf(s -> s.startsWith(FAMILY));
        scene.getStylesheets().add(address());
        for (WeakReference<Node> watcher : List.copyOf(WATCHERS)) {
            Node node = watcher.get();
            if (node != null
                    && node.getScene() != null
                    && node.getScene().getWindow() != null
                    && node.getScene().getWindow().isShowing()) {
                ((Runnable) Objects.requireNonNull(node.getProperties().get(Theme.class))).run();
            }
        }
    }

    /**
     * Where the stylesheet as it is now is found: in the address itself. The same look has the same address as an
     * object: it is compared for every node that is shown, and sixteen thousand letters are long to compare.
     */
    private static String address() {
        return ADDRESSES.computeIfAbsent(
                List.of(dark, percent),
                look -> FAMILY + Base64.getEncoder().encodeToString(stylesheet().getBytes(StandardCharsets.UTF_8)));
    }

    /** The stylesheet as it is now. */
    static String stylesheet() {
        StringBuilder root = new StringBuilder(".root {");
        ROLES.forEach((name, ink) ->
                root.append(' ').append(name).append(": ").append(ink.web(dark)).append(';'));
        root.append(" -fx-font-family: \"Inter\"; -fx-font-size: ")
                .append(size(BODY))
                .append("; -fx-background-color: -paper; }\n");
        try (InputStream in = Theme.class.getResourceAsStream("needle.css")) {
            String ours = new String(in.readAllBytes(), StandardCharsets.UTF_8);
            return root + SIZE.matcher(ours).replaceAll(m -> size(Double.parseDouble(m.group(1))));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static String size(double atFullSize) {
        return String.format(Locale.ROOT, "%.2fpx", px(atFullSize));
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
