package eagerneedle.app.plot;

import eagerneedle.picture.Apparatus;
import eagerneedle.picture.DrawingPainter;
import eagerneedle.picture.Ink;

/**
 * The apparatus of a method that ships, small and without words. It is read and drawn when it is first asked for: of
 * many cards few are in sight.
 */
public final class CardDrawing extends PictureView {
    private final String method;
    private boolean drawn;

    public CardDrawing(String method, String title) {
        super("Drawing of the apparatus: " + title, null);
        this.method = method;
    }

    /** Draws it, unless it has been. */
    public void draw() {
        if (!drawn) {
            drawn = true;
            Apparatus.plain(method)
                    .ifPresent(
                            a -> show((s, w, h) -> new DrawingPainter(a.drawing(), Ink.SURFACE, 0, 0, w, h).paint(s)));
        }
    }

    /** True once it has been drawn. */
    public boolean isDrawn() {
        return drawn;
    }
}
