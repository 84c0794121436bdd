package eagerneedle.app.plot;

import eagerneedle.app.widget.Hints;
import eagerneedle.picture.Apparatus;
import eagerneedle.picture.DrawingPainter;
import eagerneedle.picture.Ink;
import java.util.Map;
import java.util.function.Consumer;
import javafx.scene.input.MouseEvent;

/**
 * The apparatus of a method. What is pointed at lights its place; what is pointed at elsewhere, such as a channel, is
 * lit here by {@link #light}. On a card it is drawn without words.
 */
public final class DrawingView extends PictureView {
    private final Apparatus apparatus;
    private final Ink ground;
    private final boolean words;
    private String lit = "";
    private Consumer<String> pointed = name -> {};

    private DrawingView(Apparatus apparatus, String says, Ink ground, boolean words) {
        super(says, null);
        this.apparatus = apparatus;
        this.ground = ground;
        this.words = words;
        show((s, w, h) -> {
            DrawingPainter p = painter(w, h);
            if (words) {
                p.paint(s, this.apparatus.words(), lit);
            } else {
                p.paint(s);
            }
        });
    }

    /** With its call-outs, on the paper of a station. */
    public static DrawingView of(Apparatus apparatus, String title) {
        DrawingView v = new DrawingView(apparatus, "Drawing of the apparatus: " + title, Ink.PAPER, true);
        v.setOnMouseMoved(v::moved);
        v.setOnMouseExited(e -> v.point(""));
        return v;
    }

    /** Small and without words, on a card. */
    public static DrawingView onCard(Apparatus apparatus, String title) {
        return new DrawingView(apparatus, "Drawing of the apparatus: " + title, Ink.SURFACE, false);
    }

    private DrawingPainter painter(double w, double h) {
        return new DrawingPainter(apparatus.drawing(), ground, 0, 0, w, h);
    }

    /** Tells {@code listener} the name of what is pointed at; an empty text when nothing is any more. */
    public void onPoint(Consumer<String> listener) {
        pointed = listener;
    }

    /** Lights the place of a channel, an input or a caution; none with an empty text. */
    public void light(String name) {
        if (!lit.equals(name)) {
            lit = name;
            repaint();
        }
    }

    /** What is lit; empty when nothing is. */
    public String lit() {
        return lit;
    }

    /** What each call-out says, by its name. */
    public Map<String, String> words() {
        return words ? apparatus.words() : Map.of();
    }

    private void moved(MouseEvent e) {
        point(painter(getWidth() / scale(), getHeight() / scale())
                .at(e.getX() / scale(), e.getY() / scale())
                .orElse(""));
    }

    private void point(String name) {
        if (!lit.equals(name)) {
            light(name);
            Hints.give(this, apparatus.words().getOrDefault(name, ""));
            pointed.accept(name);
        }
    }
}
