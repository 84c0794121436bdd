package eagerneedle.app.plot;

import static eagerneedle.app.OnScreen.act;
import static eagerneedle.app.OnScreen.settle;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.app.widget.Theme;
import eagerneedle.picture.Ink;
import eagerneedle.picture.Layer;
import eagerneedle.picture.Plot;
import eagerneedle.picture.PlotPainter;
import java.util.ArrayList;
import java.util.List;
import javafx.geometry.Point2D;
import javafx.geometry.VerticalDirection;
import javafx.scene.Scene;
import javafx.scene.input.Clipboard;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseButton;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import javafx.scene.paint.Paint;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.ApplicationExtension;
import org.testfx.framework.junit5.Start;

/** The plot's gestures in a real window. */
@ExtendWith(ApplicationExtension.class)
class PlotViewTest {
    private final List<double[]> moves = new ArrayList<>();
    private PlotView view;
    private volatile long waited;

    @Start
    void start(Stage stage) {
        view = new PlotView("test", () -> System.nanoTime() + waited);
        view.emptySays("Nothing yet.");
        Scene scene = new Scene(new BorderPane(view), 700, 420);
        Theme.dress(scene, false);
        stage.setX(0);
        stage.setY(0);
        stage.setScene(scene);
        stage.show();
    }

    private static Plot plot(double from, double to) {
        double[] x = new double[101];
        double[] y = new double[101];
        for (int i = 0; i <= 100; i++) {
            x[i] = 0.1 * i;
            y[i] = x[i] * x[i];
        }
        return new Plot(
                "parabola",
                new Plot.Axis("time", "s"),
                new Plot.Axis("position", "m"),
                List.of(new Layer.Span(from, to, true), new Layer.Points("p", x, y, null, false, 0)));
    }

    private void show(FxRobot robot, boolean movable) {
        act(() -> {
            if (movable) {
                view.onWindow(0.1, (from, to, finished) -> {
                    moves.add(new double[] {from, to, finished ? 1 : 0});
                    view.plot(plot(from, to), true);
                });
            }
            view.plot(plot(2, 8), false);
        });
        settle();
    }

    private Point2D at(double x) {
        PlotPainter.Frame f = view.frame();
        return view.localToScreen(f.px(x), f.top() + f.height() / 2);
    }

    @Test
    void withoutAPlotItSaysWhatToDo(FxRobot robot) {
        act(() -> view.plot(null, false));
        assertThat(view.frame()).isNull();
        assertThat(view.getAccessibleText()).isEqualTo("Nothing yet.");
    }

    @Test
    void theWheelZoomsTimeAboutThePointerAndADoubleClickShowsAll(FxRobot robot) {
        show(robot, false);
        Plot.View whole = view.frame().view();
        robot.moveTo(at(5));
        robot.scroll(3, VerticalDirection.UP);
        settle();
        Plot.View zoomed = view.frame().view();
        assertThat(zoomed.x1() - zoomed.x0()).isNotCloseTo(whole.x1() - whole.x0(), within(0.5));
        assertThat((zoomed.x0() + zoomed.x1()) / 2).isCloseTo(5, within(0.4));
        assertThat(zoomed.y0()).isEqualTo(whole.y0());
        robot.doubleClickOn(at((zoomed.x0() + zoomed.x1()) / 2), MouseButton.PRIMARY);
        settle();
        assertThat(view.frame().view()).isEqualTo(whole);
    }

    /** Of another plot all is shown, and plots of one axis show what they hold together. */
    @Test
    void aPlotThatTakesThePlaceOfAnotherIsSeenWhole(FxRobot robot) {
        show(robot, false);
        double[] far = {100, 140};
        Plot later = new Plot(
                "later",
                new Plot.Axis("time", "s"),
                new Plot.Axis("position", "m"),
                List.of(new Layer.Points("p", far, new double[] {1, 5}, null, false, 0)));
        act(() -> view.plot(later, false));
        assertThat(view.visible())
                .containsExactly(later.whole().x0(), later.whole().x1());
        assertThat(view.frame().view()).isEqualTo(later.whole());
        PlotView other = new PlotView("other");
        act(() -> {
            other.share(view);
            other.plot(plot(2, 8), false);
        });
        assertThat(view.visible())
                .containsExactly(plot(2, 8).whole().x0(), later.whole().x1());
        assertThat(other.visible()).isEqualTo(view.visible());
        act(() -> other.plot(null, false));
        assertThat(view.visible())
                .containsExactly(later.whole().x0(), later.whole().x1());
    }

    @Test
    void theSecondaryButtonPans(FxRobot robot) {
        show(robot, false);
        Plot.View before = view.frame().view();
        robot.drag(at(5), MouseButton.SECONDARY).dropTo(at(4));
        settle();
        assertThat(view.frame().view().x0()).isCloseTo(before.x0() + 1, within(0.15));
    }

    @Test
    void eachEdgeIsDraggedByItself(FxRobot robot) {
        show(robot, true);
        robot.drag(at(2), MouseButton.PRIMARY).dropTo(at(3));
        settle();
        double[] last = moves.get(moves.size() - 1);
        assertThat(last[0]).isCloseTo(3, within(0.1));
        assertThat(last[1]).isEqualTo(8);
        assertThat(last[2]).isEqualTo(1);
        assertThat(moves.subList(0, moves.size() - 1)).anyMatch(m -> m[2] == 0);
        robot.drag(at(8), MouseButton.PRIMARY).dropTo(at(6));
        settle();
        assertThat(moves.get(moves.size() - 1)[1]).isCloseTo(6, within(0.1));
    }

    @Test
    void anEdgeNeverPassesTheOther(FxRobot robot) {
        show(robot, true);
        robot.drag(at(2), MouseButton.PRIMARY).dropTo(at(9.5));
        settle();
        double[] last = moves.get(moves.size() - 1);
        assertThat(last[0]).isLessThan(last[1]);
        assertThat(last[1]).isEqualTo(8);
    }

    @Test
    void awayFromAnEdgeNothingMoves(FxRobot robot) {
        show(robot, true);
        robot.drag(at(5), MouseButton.PRIMARY).dropTo(at(6));
        settle();
        assertThat(moves).isEmpty();
    }

    @Test
    void arrowsMoveTheChosenEdge(FxRobot robot) {
        show(robot, true);
        robot.clickOn(at(5));
        robot.push(KeyCode.LEFT);
        robot.push(KeyCode.UP).push(KeyCode.SHIFT, KeyCode.RIGHT);
        settle();
        assertThat(moves.get(0)).as("seen while the key is down").containsExactly(1.9, 8, 0);
        assertThat(moves.get(1)).as("kept when it is let go").containsExactly(1.9, 8, 1);
        assertThat(moves.get(2)[1]).isCloseTo(9.0, within(1e-9));
        assertThat(moves).hasSize(4);
    }

    @Test
    void aKeyThatIsHeldMovesOnAndIsOneAct(FxRobot robot) {
        show(robot, true);
        robot.clickOn(at(5));
        for (int i = 0; i < 40; i++) {
            act(() -> view.fireEvent(key(KeyEvent.KEY_PRESSED, KeyCode.RIGHT)));
        }
        assertThat(moves).hasSize(40).allMatch(m -> m[2] == 0);
        act(() -> view.fireEvent(key(KeyEvent.KEY_RELEASED, KeyCode.RIGHT)));
        assertThat(moves).hasSize(41);
        assertThat(moves.get(40)[0]).as("forty steps of 0.1").isCloseTo(6.0, within(1e-9));
        assertThat(moves.get(40)[2]).isEqualTo(1);
        act(() -> view.fireEvent(key(KeyEvent.KEY_PRESSED, KeyCode.LEFT)));
        act(() -> view.getParent().requestFocus());
        assertThat(moves.get(42)[2]).as("who leaves the plot has let go").isEqualTo(1);
    }

    private static KeyEvent key(javafx.event.EventType<KeyEvent> type, KeyCode code) {
        return new KeyEvent(type, "", "", code, false, false, false, false);
    }

    @Test
    void withoutAListenerTheWindowIsOnlyShown(FxRobot robot) {
        show(robot, false);
        robot.drag(at(2), MouseButton.PRIMARY).dropTo(at(4));
        settle();
        assertThat(moves).isEmpty();
        assertThat(view.isFocusTraversable()).isFalse();
    }

    @Test
    void numbersAreCopiedForASpreadsheet(FxRobot robot) {
        show(robot, false);
        robot.rightClickOn(at(5));
        robot.clickOn("Copy numbers");
        settle();
        String[] copied = new String[1];
        act(() -> copied[0] = Clipboard.getSystemClipboard().getString());
        assertThat(copied[0].lines().count()).isEqualTo(102);
        assertThat(copied[0].lines().findFirst().orElse("")).isEqualTo("series\ttime / s\tposition / m\tu");
    }

    /** Traces one above the other: the same moment stands at the same pixel, whatever each of them holds. */
    @Test
    void tracesThatShareTheirTimeAgreeToThePixel(FxRobot robot) {
        show(robot, false);
        PlotView below = new PlotView("below");
        act(() -> {
            Scene scene = view.getScene();
            scene.setRoot(new VBox());
            VBox both = new VBox(view, below);
            view.setPrefHeight(200);
            below.setPrefHeight(200);
            scene.setRoot(both);
            below.share(view);
            double[] x = {-3, 0, 40};
            below.plot(
                    new Plot(
                            "longer",
                            new Plot.Axis("time", "s"),
                            new Plot.Axis("load", "N"),
                            List.of(new Layer.Points("l", x, new double[] {1000, 2000, 125000}, null, false, 1))),
                    false);
        });
        settle();
        act(() -> {
            view.repaint();
            below.repaint();
        });
        for (double t : new double[] {-3, 0, 7.5, 40}) {
            assertThat(view.frame().px(t)).isEqualTo(below.frame().px(t));
        }
        assertThat(view.visible()[0]).as("the span of both").isLessThanOrEqualTo(-3);
        assertThat(view.visible()[1]).isGreaterThanOrEqualTo(40);
    }

    @Test
    void theThemeReachesThePlotAndClosedPlotsAreForgotten(FxRobot robot) {
        show(robot, false);
        act(() -> Theme.dress(view.getScene(), true));
        assertThat(paper()).isEqualTo(Color.web(Ink.PAPER.web(true)));
        act(() -> Theme.dress(view.getScene(), false));
        assertThat(paper()).isEqualTo(Color.web(Ink.PAPER.web(false)));
    }

    /** What the window is painted on. */
    private Paint paper() {
        Paint[] paint = new Paint[1];
        act(() -> {
            view.getScene().getRoot().applyCss();
            paint[0] = ((Region) view.getScene().getRoot())
                    .getBackground()
                    .getFills()
                    .get(0)
                    .getFill();
        });
        return paint[0];
    }

    @Test
    void stepsOfZoomingAreTakenBackOneByOne(FxRobot robot) {
        show(robot, true);
        Plot.View whole = view.frame().view();
        act(view::requestFocus);
        robot.moveTo(at(5));
        robot.scroll(2, VerticalDirection.UP);
        settle();
        Plot.View once = view.frame().view();
        assertThat(once).isNotEqualTo(whole);
        waited = 400_000_000L;
        robot.scroll(2, VerticalDirection.UP);
        settle();
        assertThat(view.frame().view()).isNotEqualTo(once);
        robot.push(KeyCode.BACK_SPACE);
        settle();
        assertThat(view.frame().view()).isEqualTo(once);
        robot.push(KeyCode.BACK_SPACE);
        settle();
        assertThat(view.frame().view()).isEqualTo(whole);
        robot.push(KeyCode.BACK_SPACE);
        settle();
        assertThat(view.frame().view()).as("nothing is left to take back").isEqualTo(whole);
    }

    @Test
    void plotsThatShareAnAxisMoveTogetherWithScalesOfTheirOwn(FxRobot robot) {
        show(robot, false);
        PlotView below = new PlotView("below");
        act(() -> {
            below.share(view);
            ((BorderPane) view.getScene().getRoot()).setBottom(below);
            below.setPrefHeight(120);
            below.plot(
                    new Plot(
                            "rest",
                            new Plot.Axis("time", "s"),
                            new Plot.Axis("residual", "mm"),
                            List.of(new Layer.Stems(new double[] {2, 5, 8}, new double[] {-1, 2, -1}, 0))),
                    true);
        });
        settle();
        assertThat(below.frame().view().x0()).isEqualTo(view.frame().view().x0());
        robot.moveTo(below.localToScreen(below.frame().px(5), below.frame().top() + 5));
        robot.scroll(3, VerticalDirection.UP);
        settle();
        assertThat(view.frame().view().x1())
                .as("the upper follows the lower")
                .isEqualTo(below.frame().view().x1());
        assertThat(below.frame().view().y1()).isLessThan(4);
        act(view::back);
        settle();
        assertThat(below.frame().view().x1())
                .isEqualTo(view.frame().view().x1())
                .isGreaterThan(9.9);
    }

    @Test
    void cursorsAreSetByClickAndKeyAndTakenAwayByTheThird(FxRobot robot) {
        List<double[]> set = new ArrayList<>();
        show(robot, true);
        act(() -> view.onCursors(set::add));
        robot.clickOn(at(5));
        settle();
        assertThat(set.get(0)).hasSize(1);
        assertThat(set.get(0)[0]).isCloseTo(5, within(0.1));
        robot.push(KeyCode.C);
        assertThat(set.get(1)).hasSize(2);
        robot.push(KeyCode.ALT, KeyCode.RIGHT);
        assertThat(set.get(2)[1]).isCloseTo(set.get(1)[1] + 0.1, within(1e-9));
        assertThat(moves).as("a cursor moves no window").isEmpty();
        robot.push(KeyCode.C);
        assertThat(set.get(3)).isEmpty();
    }

    @Test
    void aPointIsPickedWhereItStands(FxRobot robot) {
        List<Integer> picked = new ArrayList<>();
        show(robot, false);
        act(() -> view.onPoint((layer, index) -> picked.add(index)));
        PlotPainter.Frame f = view.frame();
        robot.clickOn(view.localToScreen(f.px(6), f.py(36)));
        robot.clickOn(view.localToScreen(f.px(2), f.py(80)));
        settle();
        assertThat(picked).hasSize(1);
        assertThat(picked.get(0)).isBetween(59, 61);
    }
}
