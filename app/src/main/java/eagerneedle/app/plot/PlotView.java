package eagerneedle.app.plot;

import eagerneedle.app.window.Files;
import eagerneedle.core.quantity.Notation;
import eagerneedle.report.picture.Ink;
import eagerneedle.report.picture.Lettering;
import eagerneedle.report.picture.Plot;
import eagerneedle.report.picture.PlotPainter;
import eagerneedle.report.picture.Surface;
import eagerneedle.report.picture.SvgSurface;
import javafx.scene.Cursor;
import javafx.scene.control.ContextMenu;
import javafx.scene.control.MenuItem;
import javafx.scene.input.Clipboard;
import javafx.scene.input.ClipboardContent;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.scene.input.ScrollEvent;

/**
 * The plot in the window. The wheel zooms time about the pointer, a drag with the secondary button pans, a double click or
 * Backspace shows all again. Where the plot holds a window with handles, its edges are dragged, or moved by the arrow keys: left
 * and right by one sample (ten with Shift), up and down choose the other edge.
 */
public class PlotView extends PictureView {
    private static final double GRIP = 8;

    /** Told when a window edge moves. */
    public interface WindowListener {
        /** @param finished false while it is still being dragged */
        void moved(double from, double to, boolean finished);
    }

    private Plot plot;
    private Plot.View view;
    private double[] heldY;
    private PlotPainter.Frame frame;
    private WindowListener listener;
    private double step = 0.02;
    private int edge;
    private int dragging = -1;
    private double panFrom = Double.NaN;
    private boolean panned;
    private double cursor = Double.NaN;
    private boolean showX = true;
    private PlotView twin;
    private String empty = "";

    public PlotView(String says) {
        super(says, null);
        show(this::paint);
        getStyleClass().add("plot");
        setOnScroll(this::zoom);
        setOnMouseMoved(this::hover);
        setOnMouseExited(e -> {
            cursor = Double.NaN;
            repaint();
        });
        setOnMousePressed(this::pressed);
        setOnMouseDragged(this::dragged);
        setOnMouseReleased(this::released);
        setOnKeyPressed(this::key);
        setOnContextMenuRequested(e -> {
            if (e.isKeyboardTrigger() && plot != null) {
                menu().show(this, e.getScreenX(), e.getScreenY());
            }
        });
    }

    /** Shows a plot; the zoom stays where the new plot is of the same thing. Null shows the empty state. */
    public void plot(Plot newPlot, boolean keepView) {
        plot = newPlot;
        if (!keepView || view == null) {
            view = null;
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
        step = sampleStep;
        listener = windowListener;
        setFocusTraversable(windowListener != null);
    }

    /** Leaves the horizontal numbers to the plot below. */
    public void hideTimeAxis() {
        showX = false;
    }

    /** The other plot shares this one's time axis. */
    public void share(PlotView other) {
        twin = other;
    }

    /** The rectangle and scales last painted; null before. */
    public PlotPainter.Frame frame() {
        return frame;
    }

    /** Holds the vertical scale as it is now, or lets it follow the data again. */
    public void holdScale(boolean hold) {
        heldY = hold && plot != null ? new double[] {shown().y0(), shown().y1()} : null;
        repaint();
    }

    /** What is seen of the horizontal axis; null while there is nothing. */
    public double[] visible() {
        return plot == null ? null : new double[] {shown().x0(), shown().x1()};
    }

    private Plot.View shown() {
        Plot.View v = following();
        return heldY == null ? v : new Plot.View(v.x0(), v.x1(), heldY[0], heldY[1]);
    }

    private Plot.View following() {
        Plot.View whole = plot.whole();
        if (view == null) {
            return twin != null && twin.plot != null ? new Plot.View(twin.shown().x0(), twin.shown().x1(), whole.y0(), whole.y1()) : whole;
        }
        return view;
    }

    private void paint(Surface s, double w, double h) {
        if (plot == null) {
            frame = null;
            s.text(empty, w / 2, h / 2, Surface.Align.CENTRE, Lettering.text(13), Ink.QUIET);
            return;
        }
        frame = PlotPainter.paint(s, plot, shown(), 0, 0, w, h, showX);
        if (!Double.isNaN(cursor) && dragging < 0) {
            double px = frame.px(cursor);
            s.line(px, frame.top(), px, frame.top() + frame.height(), Ink.RULE, 1);
            nearest(cursor, s);
        }
        if (isFocused() && listener != null) {
            Plot.Span span = span();
            if (span != null) {
                double px = frame.px(edge == 0 ? span.from() : span.to());
                s.circle(px, frame.top() + frame.height() - 8, 4, Ink.NEEDLE, null, 0);
            }
        }
    }

    private void nearest(double x, Surface s) {
        for (Plot.Layer l : plot.layers()) {
            if (l instanceof Plot.Points p && p.x().length > 0 && x >= p.x()[0] && x <= p.x()[p.x().length - 1]) {
                int best = 0;
                for (int i = 1; i < p.x().length; i++) {
                    best = Math.abs(p.x()[i] - x) < Math.abs(p.x()[best] - x) ? i : best;
                }
                String says = Notation.plain(p.x()[best], 4) + " " + plot.x().unit() + "   " + Notation.plain(p.y()[best], 5) + " " + plot.y().unit();
                s.circle(frame.px(p.x()[best]), frame.py(p.y()[best]), 4, null, Ink.INK, 1.2);
                s.text(says, frame.left() + frame.width() - 8, frame.top() + 16, Surface.Align.RIGHT, Lettering.figures(11.5), Ink.INK);
                return;
            }
        }
    }

    private Plot.Span span() {
        return plot == null ? null : (Plot.Span) plot.layers().stream().filter(l -> l instanceof Plot.Span s && s.handles()).findFirst().orElse(null);
    }

    private int edgeAt(double px) {
        Plot.Span s = span();
        if (s == null || frame == null || listener == null) {
            return -1;
        }
        double a = Math.abs(px - frame.px(s.from()));
        double b = Math.abs(px - frame.px(s.to()));
        return Math.min(a, b) > GRIP ? -1 : a < b ? 0 : 1;
    }

    private void hover(MouseEvent e) {
        setCursor(edgeAt(e.getX()) >= 0 ? Cursor.H_RESIZE : Cursor.DEFAULT);
        cursor = frame != null && frame.contains(e.getX(), e.getY()) ? frame.xAt(e.getX()) : Double.NaN;
        repaint();
    }

    private void pressed(MouseEvent e) {
        if (listener != null) {
            requestFocus();
        }
        if (e.getButton() == MouseButton.PRIMARY && e.getClickCount() == 2) {
            view = null;
            repaint();
        } else if (e.getButton() == MouseButton.PRIMARY) {
            dragging = edgeAt(e.getX());
            edge = dragging >= 0 ? dragging : edge;
        } else if (frame != null) {
            panned = false;
            panFrom = e.getX();
        }
    }

    private void dragged(MouseEvent e) {
        if (dragging >= 0) {
            moveEdge(frame.xAt(e.getX()), false);
        } else if (e.isSecondaryButtonDown() && !Double.isNaN(panFrom)) {
            panned = panned || Math.abs(e.getX() - panFrom) > 2;
            view = shown().panned(frame.xAt(panFrom) - frame.xAt(e.getX()));
            panFrom = e.getX();
            repaint();
        }
    }

    private void released(MouseEvent e) {
        if (e.getButton() == MouseButton.SECONDARY && !panned && plot != null) {
            menu().show(this, e.getScreenX(), e.getScreenY());
        }
        if (dragging >= 0) {
            moveEdge(frame.xAt(e.getX()), true);
            dragging = -1;
        }
        panFrom = Double.NaN;
    }

    private void key(KeyEvent e) {
        Plot.Span s = span();
        if (s == null || listener == null) {
            return;
        }
        double by = step * (e.isShiftDown() ? 10 : 1);
        double at = edge == 0 ? s.from() : s.to();
        switch (e.getCode()) {
            case LEFT -> moveEdge(at - by, true);
            case RIGHT -> moveEdge(at + by, true);
            case UP, DOWN -> edge = 1 - edge;
            case BACK_SPACE -> view = null;
            default -> {
                return;
            }
        }
        e.consume();
        repaint();
    }

    private void moveEdge(double to, boolean finished) {
        Plot.Span s = span();
        double least = 5 * step;
        if (edge == 0) {
            listener.moved(Math.min(to, s.to() - least), s.to(), finished);
        } else {
            listener.moved(s.from(), Math.max(to, s.from() + least), finished);
        }
    }

    private void zoom(ScrollEvent e) {
        if (frame != null && frame.contains(e.getX(), e.getY()) && e.getDeltaY() != 0) {
            view = shown().zoomed(frame.xAt(e.getX()), e.getDeltaY() > 0 ? 0.85 : 1 / 0.85);
            repaint();
            if (twin != null) {
                twin.repaint();
            }
            e.consume();
        }
    }

    private ContextMenu menu() {
        MenuItem all = new MenuItem("Show all");
        all.setOnAction(e -> {
            view = null;
            repaint();
        });
        MenuItem copy = new MenuItem("Copy numbers");
        copy.setOnAction(e -> {
            ClipboardContent c = new ClipboardContent();
            c.putString(plot.csv().replace(',', '\t'));
            Clipboard.getSystemClipboard().setContent(c);
        });
        MenuItem png = new MenuItem("Save as PNG...");
        png.setOnAction(e -> Files.savePng(this, plot.title()));
        MenuItem svg = new MenuItem("Save as SVG...");
        svg.setOnAction(e -> Files.saveText(this, plot.title() + ".svg", svg()));
        MenuItem csv = new MenuItem("Save as CSV...");
        csv.setOnAction(e -> Files.saveText(this, plot.title() + ".csv", plot.csv()));
        return new ContextMenu(all, copy, png, svg, csv);
    }

    private String svg() {
        SvgSurface s = new SvgSurface(getWidth(), getHeight(), false, "x");
        PlotPainter.paint(s, plot, shown(), 0, 0, getWidth(), getHeight(), true);
        return s.document(plot.title());
    }
}
