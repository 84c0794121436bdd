package eagerneedle.app.plot;

import eagerneedle.app.widget.Hints;
import eagerneedle.picture.Apparatus;
import eagerneedle.picture.DrawingPainter;
import eagerneedle.picture.Ink;
import java.util.Map;
import java.util.function.Consumer;
import javafx.scene.input.MouseEvent;

/**
 * The apparatus of a method with its call-outs, on the paper of a station. What is pointed at lights its place; what is
 * pointed at elsewhere, such as a channel, is lit here by {@link #light}.
 */
public final class DrawingView extends PictureView {
    private final Apparatus apparatus;
    private String lit = "";
    private Consumer<String> pointed = name -> {};

    private DrawingView(Apparatus apparatus, String says) {
        super(says, null);
        this.apparatus = apparatus;
        show((s, w, h) -> painter(w, h).paint(s, this.apparatus.words(), lit));
    }

    public static DrawingView of(Apparatus apparatus, String title) {
        DrawingView v = new DrawingView(apparatus, "Drawing of the apparatus: " + title);
        v.setOnMouseMoved(v::moved);
        v.setOnMouseExited(e -> v.point(""));
        return v;
    }

    private DrawingPainter painter(double w, double h) {
        return new DrawingPainter(apparatus.drawing(), Ink.PAPER, 0, 0, w, h);
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
        return apparatus.words();
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
