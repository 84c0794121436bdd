package eagerneedle.app.plot;

import eagerneedle.app.widget.Theme;
import eagerneedle.picture.Surface;
import javafx.scene.AccessibleRole;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.layout.Region;
import org.jspecify.annotations.Nullable;

/**
 * A picture on a canvas that fills its region; repainted when its size, its data or the theme changes. It grows with
 * the size of the text: what a painter takes for 100 pixels of a height of 400 stays a quarter of it.
 */
public class PictureView extends Region {
    /** Paints into a width and height. */
    public interface Painter {
        void paint(Surface surface, double width, double height);
    }

    private final Canvas canvas = new Canvas();
    private @Nullable Painter painter;

    /** @param says what the picture shows, for assistive technology */
    public PictureView(String says, @Nullable Painter painter) {
        this.painter = painter;
        getChildren().add(canvas);
        setAccessibleRole(AccessibleRole.IMAGE_VIEW);
        setAccessibleText(says);
        setMinSize(40, 20);
        Theme.onChange(this, this::repaint);
    }

    public final void show(@Nullable Painter newPainter) {
        painter = newPainter;
        repaint();
    }

    @Override
    protected void layoutChildren() {
        if (canvas.getWidth() != getWidth() || canvas.getHeight() != getHeight()) {
            canvas.setWidth(Math.max(1, Math.min(getWidth(), 4000)));
            canvas.setHeight(Math.max(1, Math.min(getHeight(), 4000)));
            repaint();
        }
    }

    public final void repaint() {
        GraphicsContext g = canvas.getGraphicsContext2D();
        g.clearRect(0, 0, canvas.getWidth(), canvas.getHeight());
        if (painter != null && canvas.getWidth() > 10 && canvas.getHeight() > 10) {
            double scale = scale();
            g.save();
            g.scale(scale, scale);
            painter.paint(new CanvasSurface(g, Theme.isDark()), canvas.getWidth() / scale, canvas.getHeight() / scale);
            g.restore();
        }
    }

    /** Pixels of the window for one of the picture. */
    protected static double scale() {
        return Theme.px(1);
    }
}
