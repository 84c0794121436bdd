package eagerneedle.app.window;

import eagerneedle.app.plot.PictureView;
import eagerneedle.picture.SvgSurface;
import java.lang.reflect.Field;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.control.Labeled;
import javafx.scene.control.TextInputControl;
import javafx.scene.text.Text;

/** Who reads everything that stands on a scene, what is painted among it. */
final class Onlooker {
    private static final Pattern POINTED = Pattern.compile("(?<![0-9.])[0-9]+[.][0-9]+(?![0-9.]*[.][0-9])");

    private Onlooker() {}

    /** Every text in sight. */
    static Set<String> texts(Parent p) {
        Set<String> out = new LinkedHashSet<>();
        for (Node n : p.getChildrenUnmodifiable()) {
            if (!n.isVisible()) {
                continue;
            }
            if (n instanceof Labeled l && l.getText() != null) {
                out.add(l.getText());
            } else if (n instanceof Text t) {
                out.add(t.getText());
            } else if (n instanceof TextInputControl f) {
                out.add(f.getText() + " " + f.getPromptText());
            } else if (n instanceof PictureView picture) {
                out.addAll(painted(picture));
            }
            if (n instanceof Parent q) {
                out.addAll(texts(q));
            }
        }
        return out;
    }

    /** The words of a picture, which stand on a canvas and are painted once more as a drawing to be read. */
    private static List<String> painted(PictureView picture) {
        try {
            Field of = PictureView.class.getDeclaredField("painter");
            of.setAccessible(true);
            SvgSurface again = new SvgSurface(picture.getWidth(), picture.getHeight(), false, "p");
            if (of.get(picture) instanceof PictureView.Painter painter && picture.getWidth() > 10) {
                painter.paint(again, picture.getWidth(), picture.getHeight());
            }
            List<String> out = new ArrayList<>();
            Matcher words = Pattern.compile("<text[^>]*>([^<]*)</text>").matcher(again.document("p"));
            while (words.find()) {
                out.add(words.group(1));
            }
            return out;
        } catch (ReflectiveOperationException e) {
            throw new IllegalStateException(e);
        }
    }

    /** What stands around numbers with a point in sight that no author wrote so. */
    static Set<String> pointed(Parent root, String... authors) {
        return pointed(texts(root), authors);
    }

    static Set<String> pointed(Collection<String> texts, String... authors) {
        Set<String> out = new LinkedHashSet<>();
        for (String t : texts) {
            Matcher m = POINTED.matcher(t);
            while (m.find()) {
                if (List.of(authors).stream().noneMatch(a -> a.contains(m.group()))) {
                    out.add(t.substring(Math.max(0, m.start() - 60), Math.min(t.length(), m.end() + 20))
                            .strip());
                }
            }
        }
        return out;
    }
}
