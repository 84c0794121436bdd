package eagerneedle.app.widget;

import eagerneedle.app.workbench.Fault;
import eagerneedle.store.FileName;
import eagerneedle.store.export.Beside;
import java.io.File;
import java.io.IOException;
import java.nio.file.Path;
import javafx.embed.swing.SwingFXUtils;
import javafx.scene.Node;
import javafx.scene.image.WritableImage;
import javafx.stage.FileChooser;
import javafx.stage.Window;
import org.jspecify.annotations.Nullable;

/** Asking where to save, and saving. */
public final class Files {
    private Files() {}

    /** Asks for a place and writes a text there. */
    public static void saveText(Node owner, String suggested, String text) {
        Path to = ask(owner.getScene().getWindow(), suggested);
        if (to != null) {
            try {
                Beside.write(to, text);
                Notices.tell(owner, "Saved " + FileName.of(to) + ".");
            } catch (IOException e) {
                Notices.warn(owner, unwritten(to, e));
            }
        }
    }

    /** Asks for a place and writes a picture of a node there. */
    public static void savePng(Node node, String title) {
        Path to = ask(node.getScene().getWindow(), title + ".png");
        if (to != null) {
            try {
                writePng(node.snapshot(null, null), to);
                Notices.tell(node, "Saved " + FileName.of(to) + ".");
            } catch (IOException e) {
                Notices.warn(node, unwritten(to, e));
            }
        }
    }

    private static String unwritten(Path to, IOException e) {
        return Fault.said(e, FileName.of(to) + " cannot be written there; choose another folder.");
    }

    public static void writePng(WritableImage image, Path to) throws IOException {
        javax.imageio.ImageIO.write(SwingFXUtils.fromFXImage(image, null), "png", to.toFile());
    }

    /** Writes bytes. @throws IllegalArgumentException with one sentence when that cannot be done */
    public static void write(Path to, byte[] bytes) {
        try {
            Beside.write(to, bytes);
        } catch (IOException e) {
            throw new IllegalArgumentException(FileName.of(to) + " cannot be written there; choose another folder.", e);
        }
    }

    /** Lets a file be written beside its place and puts it there when it is whole. */
    public static void written(Path to, Beside.Writing writing) {
        try {
            Beside.write(to, writing);
        } catch (IOException e) {
            throw new IllegalArgumentException(FileName.of(to) + " cannot be written there; choose another folder.", e);
        }
    }

    /** Asks for a place with a choice of kinds such as {@code *.pdf}; null when nothing was chosen. */
    public static @Nullable Path askFor(Node owner, String suggested, String... kinds) {
        FileChooser chooser = new FileChooser();
        chooser.setInitialFileName(suggested.replaceAll("[\\\\/:*?\"<>|]", " "));
        for (String k : kinds) {
            chooser.getExtensionFilters()
                    .add(new FileChooser.ExtensionFilter(k.substring(2).toUpperCase(java.util.Locale.ROOT), k));
        }
        File f = chooser.showSaveDialog(owner.getScene().getWindow());
        return f == null ? null : f.toPath();
    }

    /** Asks for a file that is there; null when nothing was chosen. */
    public static @Nullable Path askToOpen(Node owner, String words, String... kinds) {
        FileChooser chooser = new FileChooser();
        chooser.getExtensionFilters().add(new FileChooser.ExtensionFilter(words, kinds));
        File f = chooser.showOpenDialog(owner.getScene().getWindow());
        return f == null ? null : f.toPath();
    }

    /** The place chosen, or null. */
    public static @Nullable Path ask(Window owner, String suggested) {
        FileChooser chooser = new FileChooser();
        chooser.setInitialFileName(suggested.replaceAll("[\\\\/:*?\"<>|]", " "));
        File f = chooser.showSaveDialog(owner);
        return f == null ? null : f.toPath();
    }
}
