package eagerneedle.app.plot;

import eagerneedle.picture.Ink;
import eagerneedle.picture.Layer;
import eagerneedle.picture.Lettering;
import eagerneedle.picture.Plot;
import eagerneedle.picture.PlotPainter;
import eagerneedle.picture.Surface;
import eagerneedle.picture.SvgSurface;
import java.util.function.LongSupplier;
import javafx.scene.Cursor;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.scene.input.ScrollEvent;
import org.jspecify.annotations.Nullable;

/**
 * The plot in the window. The wheel zooms the horizontal axis about the pointer, with Shift the vertical one; a drag
 * with the secondary button pans; Backspace takes the last step back, a double click shows all. Plots that share their
 * axis follow each other. Where the plot holds a window with handles, its edges are dragged, or moved by the arrow
 * keys: left and right by one sample (ten with Shift), up and down choose the other edge. A click, or the key C, sets a
 * cursor, a second one the other cursor, a third takes both away.
 */
public class PlotView extends PictureView {
    private static final double GRIP = 8;

    /** Told when a window edge moves. */
    public interface WindowListener {
        /** @param finished false while it is still being dragged */
        void moved(double from, double to, boolean finished);
    }

    /** Told when a moment is dragged or moved by a key. */
    public interface MomentListener {
        /** @param finished false while it is still being dragged */
        void moved(String name, double at, boolean finished);
    }

    /** Told when cursors are set or taken away. */
    public interface CursorListener {
        /** @param at their places in the order they were set; none, one or two */
        void set(double[] at);
    }

    /** Told when a point of a layer is clicked. */
    public interface PointListener {
        void picked(Layer.Points layer, int index);
    }

    private @Nullable Plot plot;
    private Plot.@Nullable View whole;
    private TimeSpan span;
    private double @Nullable [] heldY;
    private double @Nullable [] zoomedY;
    private PlotPainter.@Nullable Frame frame;
    private final WindowHandles handles = new WindowHandles();
    private int dragging = -1;
    private double panFrom = Double.NaN;
    private boolean panned;
    private double pointer = Double.NaN;
    private double pressedAt = Double.NaN;
    private final PlotCursors cursors = new PlotCursors();
    private @Nullable PointListener pointListener;
    private boolean showX = true;
    private @Nullable PlotView twin;
    private String empty = "";

    public PlotView(String says) {
        this(says, System::nanoTime);
    }

    /** @param clock ns, that goes on: turns of the wheel close to each other are one step */
    PlotView(String says, LongSupplier clock) {
        super(says, null);
        span = new TimeSpan(clock);
        span.joins(this);
        show(this::paint);
        getStyleClass().add("plot");
        setOnScroll(this::zoom);
        setOnMouseMoved(this::hover);
        setOnMouseExited(e -> {
            pointer = Double.NaN;
            repaint();
        });
        span.onChange(this::repaint);
        setOnMousePressed(this::pressed);
        setOnMouseDragged(this::dragged);
        setOnMouseReleased(this::released);
        setOnKeyPressed(this::key);
        setOnKeyReleased(e -> {
            if (e.getCode() == KeyCode.LEFT || e.getCode() == KeyCode.RIGHT) {
                handles.letGo(plot);
            }
        });
        focusedProperty().addListener((o, was, is) -> handles.letGo(plot));
        setOnContextMenuRequested(e -> {
            if (e.isKeyboardTrigger() && plot != null) {
                new PlotMenu(this, plot).show(this, e.getScreenX(), e.getScreenY());
            }
        });
    }

    /** Shows a plot; the zoom stays where the new plot is of the same thing. Null shows the empty state. */
    public void plot(@Nullable Plot newPlot, boolean keepView) {
        plot = newPlot;
        whole = newPlot == null ? null : newPlot.whole();
        if (!keepView && twin == null) {
            span.forget();
            zoomedY = null;
        }
        setAccessibleText(newPlot == null ? empty : newPlot.title());
        repaint();
    }

    /** What to say while there is nothing to show. */
    public void emptySays(String sentence) {
        empty = sentence;
    }

    /** Makes the window's edges movable, by {@code sampleStep} seconds with the arrow keys. */
    public void onWindow(double sampleStep, WindowListener windowListener) {
        handles.listen(sampleStep, windowListener);
        setFocusTraversable(windowListener != null);
    }

    /** Makes moments movable, by the keys as the window's edges. */
    public void onMoment(MomentListener momentListener) {
        handles.listen(momentListener);
    }

    /** Carries the horizontal numbers itself, or leaves them to the plot below. */
    public void showTimeAxis(boolean show) {
        showX = show;
        repaint();
    }

    /** Shares the other plot's horizontal axis from now on: what is zoomed or panned in one is so in both. */
    public void share(PlotView other) {
        twin = other;
        span = other.span;
        span.joins(this);
        span.onChange(this::repaint);
    }

    /** Lets cursors be set. */
    public void onCursors(CursorListener listener) {
        cursors.onChange(listener);
        setFocusTraversable(true);
    }

    /** Lets points be picked. */
    public void onPoint(PointListener listener) {
        pointListener = listener;
    }

    /** Takes the cursors away. */
    public void clearCursors() {
        cursors.forget();
        repaint();
    }

    /** What is shown; null while there is nothing. */
    public @Nullable Plot plot() {
        return plot;
    }

    /**
     * All that is there to be seen; null while there is nothing. Looked at by every plot with which an axis is shared.
     */
    Plot.@Nullable View whole() {
        return whole;
    }

    /** Shows the whole plot again. */
    public void all() {
        zoomedY = null;
        span.all();
        repaint();
    }

    /** Takes the last step of zooming or panning back. */
    public void back() {
        zoomedY = null;
        span.back();
    }

    /** The rectangle and scales last painted; null before. */
    public PlotPainter.@Nullable Frame frame() {
        return frame;
    }

    /** Holds the vertical scale as it is now, or lets it follow the data again. */
    public void holdScale(boolean hold) {
        Plot of = plot;
        heldY = hold && of != null ? new double[] {shown(of).y0(), shown(of).y1()} : null;
        repaint();
    }

    /** What is seen of the horizontal axis; null while there is nothing. */
    public double @Nullable [] visible() {
        Plot of = plot;
        return of == null ? null : new double[] {shown(of).x0(), shown(of).x1()};
    }

    private Plot.View shown(Plot of) {
        Plot.View held = whole == null ? of.whole() : whole;
        double[] all = span.whole();
        double[] x = span.shown() != null ? span.shown() : all != null ? all : new double[] {held.x0(), held.x1()};
        double[] y = zoomedY != null ? zoomedY : heldY != null ? heldY : new double[] {held.y0(), held.y1()};
        return new Plot.View(x[0], x[1], y[0], y[1]);
    }

    private void paint(Surface s, double w, double h) {
        Plot of = plot;
        if (of == null) {
            frame = null;
            s.text(empty, w / 2, h / 2, Surface.Align.CENTRE, Lettering.text(13), Ink.QUIET);
            return;
        }
        PlotPainter.Frame painted = PlotPainter.paint(s, of, shown(of), 0, 0, w, h, showX);
        frame = painted;
        if (!Double.isNaN(pointer) && dragging < 0) {
            double px = painted.px(pointer);
            s.line(px, painted.top(), px, painted.top() + painted.height(), Ink.RULE, 1);
            PlotMarks.nearest(s, painted, of, pointer);
        }
        PlotMarks.cursors(s, painted, cursors.at());
        if (isFocused() && handles.isMovable() && !Double.isNaN(handles.at(of))) {
            s.circle(painted.px(handles.at(of)), painted.top() + painted.height() - 8, 4, Ink.NEEDLE, null, 0);
        }
    }

    private void hover(MouseEvent e) {
        setCursor(handles.edgeAt(plot, frame, x(e)) >= 0 ? Cursor.H_RESIZE : Cursor.DEFAULT);
        pointer = frame != null && frame.contains(x(e), y(e)) ? frame.xAt(x(e)) : Double.NaN;
        repaint();
    }

    private void pressed(MouseEvent e) {
        if (isFocusTraversable()) {
            requestFocus();
        }
        pressedAt = Double.NaN;
        if (e.getButton() == MouseButton.PRIMARY && e.getClickCount() == 2) {
            all();
            cursors.clear();
            repaint();
        } else if (e.getButton() == MouseButton.PRIMARY) {
            dragging = handles.edgeAt(plot, frame, x(e));
            if (dragging >= 0) {
                handles.take(dragging);
            }
            pressedAt = dragging < 0 ? x(e) : Double.NaN;
        } else if (frame != null) {
            panned = false;
            panFrom = x(e);
        }
    }

    private void dragged(MouseEvent e) {
        Plot of = plot;
        PlotPainter.Frame on = frame;
        if (of == null || on == null) {
            // What was taken in hand is no longer there.
            return;
        }
        if (dragging >= 0) {
            handles.move(of, on.xAt(x(e)), false);
        } else if (e.isSecondaryButtonDown() && !Double.isNaN(panFrom)) {
            panned = panned || Math.abs(x(e) - panFrom) > 2;
            Plot.View moved = shown(of).panned(on.xAt(panFrom) - on.xAt(x(e)));
            span.show(moved.x0(), moved.x1());
            panFrom = x(e);
        }
    }

    private void released(MouseEvent e) {
        if (e.getButton() == MouseButton.SECONDARY && !panned && plot != null) {
            new PlotMenu(this, plot).show(this, e.getScreenX(), e.getScreenY());
        }
        if (dragging >= 0) {
            if (frame != null) {
                handles.move(plot, frame.xAt(x(e)), true);
            }
            dragging = -1;
        } else if (!Double.isNaN(pressedAt)
                && Math.abs(x(e) - pressedAt) <= 3
                && frame != null
                && frame.contains(x(e), y(e))
                && !pick(e)) {
            setCursor(frame.xAt(x(e)));
        }
        pressedAt = Double.NaN;
        panFrom = Double.NaN;
    }

    private void setCursor(double at) {
        cursors.next(at);
        repaint();
    }

    private boolean pick(MouseEvent e) {
        PlotPainter.Frame on = frame;
        if (pointListener == null || plot == null || on == null) {
            return false;
        }
        for (Layer l : plot.layers()) {
            if (l instanceof Layer.Points p) {
                for (int i = 0; i < p.x().length; i++) {
                    if (Math.hypot(on.px(p.x()[i]) - x(e), on.py(p.y()[i]) - y(e)) < GRIP) {
                        pointListener.picked(p, i);
                        return true;
                    }
                }
            }
        }
        return false;
    }

    private static double x(MouseEvent e) {
        return e.getX() / scale();
    }

    private static double y(MouseEvent e) {
        return e.getY() / scale();
    }

    private void key(KeyEvent e) {
        if (e.getCode() == KeyCode.BACK_SPACE) {
            back();
            e.consume();
            return;
        }
        if (e.getCode() == KeyCode.C && cursors.areOffered() && !e.isShortcutDown() && plot != null) {
            Plot.View v = shown(plot);
            setCursor(!Double.isNaN(pointer) ? pointer : v.x0() + (cursors.isEmpty() ? 0.4 : 0.6) * (v.x1() - v.x0()));
            e.consume();
            return;
        }
        if (e.isAltDown() && !cursors.isEmpty() && (e.getCode() == KeyCode.LEFT || e.getCode() == KeyCode.RIGHT)) {
            cursors.push((e.getCode() == KeyCode.LEFT ? -1 : 1) * handles.step() * (e.isShiftDown() ? 10 : 1));
            repaint();
            e.consume();
            return;
        }
        Plot of = plot;
        if (of == null || WindowHandles.window(of) == null || !handles.isMovable()) {
            return;
        }
        int steps = e.isShiftDown() ? 10 : 1;
        switch (e.getCode()) {
            case LEFT -> handles.push(of, -steps);
            case RIGHT -> handles.push(of, steps);
            case UP, DOWN -> handles.takeOther(of);
            default -> {
                return;
            }
        }
        e.consume();
        repaint();
    }

    private void zoom(ScrollEvent e) {
        // With Shift some systems turn the wheel's movement into a horizontal one.
        double turned = e.getDeltaY() != 0 ? e.getDeltaY() : e.getDeltaX();
        double x = e.getX() / scale();
        double y = e.getY() / scale();
        if (plot == null || frame == null || !frame.contains(x, y) || turned == 0) {
            return;
        }
        double factor = turned > 0 ? 0.85 : 1 / 0.85;
        Plot.View v = shown(plot);
        if (e.isShiftDown()) {
            double at = frame.yAt(y);
            zoomedY = new double[] {at - (at - v.y0()) * factor, at + (v.y1() - at) * factor};
            repaint();
        } else {
            Plot.View z = v.zoomed(frame.xAt(x), factor);
            span.show(z.x0(), z.x1());
        }
        e.consume();
    }

    /** The picture as it is seen, as an SVG document. */
    String svg() {
        SvgSurface s = new SvgSurface(getWidth(), getHeight(), false, "x");
        Plot of = plot;
        if (of != null) {
            PlotPainter.paint(s, of, shown(of), 0, 0, getWidth(), getHeight(), true);
        }
        return s.document(of == null ? empty : of.title());
    }
}
