package eagerneedle.app.window;

import eagerneedle.app.plot.PictureView;
import eagerneedle.app.station.Station;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Theme;
import eagerneedle.picture.Ink;
import eagerneedle.picture.Surface;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import java.util.function.Function;
import javafx.animation.KeyFrame;
import javafx.animation.KeyValue;
import javafx.animation.Timeline;
import javafx.beans.property.DoubleProperty;
import javafx.beans.property.SimpleDoubleProperty;
import javafx.scene.control.Button;
import javafx.scene.layout.Pane;
import javafx.util.Duration;

/**
 * The course dial: a wide shallow scale with the seven stations as its graduations and a needle that swings to the
 * current one. It is the navigation; each graduation carries a small mark: done, needs attention, not yet.
 */
public final class CourseDial extends Pane {
    private static final double SAG = 13;
    /** From the first graduation to the edge; the longest names must stand free of each other. */
    private static final double EDGE = 27;

    private final List<Button> buttons = new ArrayList<>();
    private final PictureView face = new PictureView("Course dial", this::paint);
    private final DoubleProperty needle = new SimpleDoubleProperty(0);
    private Station current = Station.PLAN;
    private Function<Station, Station.State> states = s -> Station.State.NOT_YET;

    public CourseDial(Consumer<Station> go) {
        getChildren().add(face);
        for (Station s : Station.values()) {
            Button b = new Button(s.title());
            b.setId("station-" + s.name().toLowerCase(java.util.Locale.ROOT));
            b.getStyleClass().setAll("graduation");
            b.setOnAction(e -> go.accept(s));
            Labels.explained(b, s.purpose() + " (key " + (s.ordinal() + 1) + ")");
            buttons.add(b);
            getChildren().add(b);
        }
        needle.addListener((o, a, b) -> face.repaint());
        resize();
    }

    /** Where the marks come from. */
    public void states(Function<Station, Station.State> newStates) {
        states = newStates;
        refresh();
    }

    public void refresh() {
        for (Station s : Station.values()) {
            buttons.get(s.ordinal())
                    .setAccessibleText(s.title() + ", "
                            + switch (states.apply(s)) {
                                case DONE -> "done";
                                case ATTENTION -> "needs attention";
                                case NOT_YET -> "not yet";
                            });
        }
        face.repaint();
    }

    /** Swings the needle to a station. */
    public void point(Station to, boolean animated) {
        current = to;
        buttons.forEach(b -> b.getStyleClass().remove("current"));
        buttons.get(to.ordinal()).getStyleClass().add("current");
        if (animated && !Theme.isStill()) {
            new Timeline(new KeyFrame(
                            Duration.millis(220),
                            new KeyValue(needle, to.ordinal(), javafx.animation.Interpolator.EASE_BOTH)))
                    .play();
        } else {
            needle.set(to.ordinal());
        }
    }

    /** Gives the keyboard to the current graduation. */
    public void focusCurrent() {
        buttons.get(current.ordinal()).requestFocus();
    }

    public Station current() {
        return current;
    }

    private double at(double station, double w) {
        return EDGE + station / 6.0 * (w - 2 * EDGE);
    }

    /** Takes the height that the size of the text asks for. */
    void resize() {
        setPrefHeight(Theme.px(92));
        setMinHeight(Theme.px(92));
    }

    private static double arc(double x, double w) {
        double z = 2 * x / w - 1;
        return 32 + SAG * z * z;
    }

    @Override
    protected void layoutChildren() {
        face.resizeRelocate(0, 0, getWidth(), getHeight());
        for (Station s : Station.values()) {
            Button b = buttons.get(s.ordinal());
            b.autosize();
            // The face is painted in pixels of its own, which grow with the text.
            double scale = Theme.px(1);
            double x = at(s.ordinal(), getWidth() / scale);
            double y = arc(x, getWidth() / scale) + 14;
            double left = Math.min(scale * x - b.getWidth() / 2, getWidth() - b.getWidth());
            b.relocate(Math.rint(Math.max(0, left)), Math.rint(scale * y));
        }
    }

    private void paint(Surface s, double w, double h) {
        int n = 80;
        double[] px = new double[n + 1];
        double[] py = new double[n + 1];
        double left = at(-0.2, w);
        double right = at(6.2, w);
        for (int i = 0; i <= n; i++) {
            px[i] = left + (right - left) * i / n;
            py[i] = arc(px[i], w);
        }
        s.polyline(px, py, n + 1, Ink.INK, 1.5);
        for (int i = 0; i <= 24; i++) {
            double x = at(i / 4.0, w);
            double y = arc(x, w);
            s.line(x, y, x, y + (i % 4 == 0 ? 9 : 5), i % 4 == 0 ? Ink.INK : Ink.QUIET, i % 4 == 0 ? 1.6 : 0.9);
        }
        for (Station station : Station.values()) {
            double x = at(station.ordinal(), w);
            double y = arc(x, w) - 11;
            switch (states.apply(station)) {
                case DONE -> s.circle(x, y, 4, Ink.GOOD, null, 0);
                case ATTENTION ->
                    s.polygon(
                            new double[] {x, x + 4.8, x - 4.8},
                            new double[] {y - 4.8, y + 3.8, y + 3.8},
                            Ink.ATTENTION);
                default -> s.circle(x, y, 3.6, null, Ink.QUIET, 1.2);
            }
        }
        double x = at(needle.get(), w);
        double y = arc(x, w);
        s.polygon(
                new double[] {x - 0.8, x + 0.8, x + 1.6, x - 1.6},
                new double[] {y + 1, y + 1, y + 15, y + 15},
                Ink.NEEDLE);
        s.polygon(new double[] {x - 2.4, x + 2.4, x + 3.6, x - 3.6}, new double[] {y + 40, y + 40, h, h}, Ink.NEEDLE);
    }
}
