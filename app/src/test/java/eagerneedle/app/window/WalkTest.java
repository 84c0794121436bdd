package eagerneedle.app.window;

import static eagerneedle.app.OnScreen.act;
import static eagerneedle.app.OnScreen.settle;
import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.app.station.Station;
import eagerneedle.app.widget.Hints;
import eagerneedle.app.widget.Theme;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.sheet.SheetReader;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import javafx.geometry.Bounds;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.control.ButtonBase;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ChoiceBox;
import javafx.scene.control.Control;
import javafx.scene.control.Label;
import javafx.scene.control.Labeled;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TableCell;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.Background;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.paint.Color;
import javafx.scene.paint.Paint;
import javafx.scene.text.Text;
import javafx.stage.Stage;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/**
 * A walk through every station with the eyes open: no words cut without their whole text on hover, nothing outside its
 * parent or the window, contrast of 4.5:1, a name for every control, no key of a sheet among the words, and every
 * number of a list with its point under the others. Three sessions in the daily build; all at two sizes in the long
 * one.
 */
class WalkTest extends BenchWindow {
    private static final double LEAST_CONTRAST = 4.5;
    private static final Pattern KEY = Pattern.compile("\\b[a-z][A-Za-z0-9]*_[A-Za-z0-9_]+\\b");

    @Start
    void start(Stage newStage) throws Exception {
        prepare(newStage);
    }

    @AfterEach
    void light() {
        act(() -> Theme.textSize(100));
    }

    static Stream<Arguments> walks() {
        List<Arguments> out = new ArrayList<>(List.of(
                Arguments.of("baggage-chute", 1280, 800, false, 100),
                Arguments.of("weather-vane-reed", 1280, 800, true, 100),
                Arguments.of("drying-cabinet", 1280, 800, false, 100)));
        if (Boolean.getBoolean("everyMethod")) {
            for (String id : SheetReader.shipped()) {
                out.add(Arguments.of(id, 1024, 700, false, 100));
                out.add(Arguments.of(id, 1024, 700, true, 160));
                out.add(Arguments.of(id, 1920, 1080, true, 100));
                out.add(Arguments.of(id, 1920, 1080, false, 160));
                out.add(Arguments.of(id, 1280, 800, false, 90));
            }
        }
        return out.stream();
    }

    @ParameterizedTest
    @MethodSource("walks")
    void nothingIsCutHiddenNamelessOrUnreadable(
            String method, int width, int height, boolean dark, int size, FxRobot robot) {
        act(() -> Theme.textSize(size));
        openRehearsed(robot, method);
        act(() -> {
            stage.setWidth(width);
            stage.setHeight(height);
            Theme.dress(stage.getScene(), dark);
        });
        Set<String> wrong = new LinkedHashSet<>();
        for (Station s : Station.values()) {
            act(() -> window.go(s));
            settle();
            act(() -> look(s.title(), stage.getScene().getRoot(), wrong));
            if (s == Station.REDUCE) {
                fire(robot, "sight-table");
                settle();
                act(() -> look("Table of runs", stage.getScene().getRoot(), wrong));
            }
        }
        act(() -> window.showStockroom());
        settle();
        act(() -> look("Stockroom", stage.getScene().getRoot(), wrong));
        act(() -> window.aside().training());
        settle();
        act(() -> look("Training", stage.getScene().getRoot(), wrong));
        act(() -> window.aside().benches());
        settle();
        act(() -> look("All benches", stage.getScene().getRoot(), wrong));
        act(() -> window.showStart());
        settle();
        act(() -> look("Start", stage.getScene().getRoot(), wrong));
        assertThat(wrong).isEmpty();
    }

    @Test
    void textGrowsAndShrinksByKeysWithinItsLimits(FxRobot robot) {
        openRehearsed(robot, "baggage-chute");
        double usual = heightOf(robot);
        robot.push(KeyCode.CONTROL, KeyCode.EQUALS);
        settle();
        assertThat(Theme.textSize()).isEqualTo(110);
        assertThat(heightOf(robot)).isGreaterThan(usual);
        for (int i = 0; i < 8; i++) {
            robot.push(KeyCode.CONTROL, KeyCode.EQUALS);
        }
        assertThat(Theme.textSize()).isEqualTo(160);
        robot.push(KeyCode.CONTROL, KeyCode.DIGIT0);
        settle();
        assertThat(heightOf(robot)).isEqualTo(usual);
        robot.push(KeyCode.CONTROL, KeyCode.MINUS);
        robot.push(KeyCode.CONTROL, KeyCode.MINUS);
        assertThat(Theme.textSize()).isEqualTo(90);
    }

    private double heightOf(FxRobot robot) {
        double[] h = new double[1];
        act(() ->
                h[0] = robot.lookup("#predicted").queryAs(Label.class).getFont().getSize());
        return h[0];
    }

    private void look(String where, Parent root, Set<String> wrong) {
        root.applyCss();
        root.layout();
        Set<String> keys = keys(window.bench().sheet());
        for (Node n : all(root, new ArrayList<>())) {
            if (!isShown(n)) {
                continue;
            }
            String name = where + ": " + named(n);
            if (n instanceof Labeled l && !l.getText().isBlank()) {
                if (Hints.isCut(l)
                        && (l instanceof ButtonBase || l.isWrapText())
                        && !Hints.of(l).contains(l.getText())) {
                    // Single lines of words say themselves whole on hover (HintsTest); an act is read at once.
                    wrong.add(name + " is cut: " + l.getText());
                }
                if (!l.isDisabled()) {
                    double c = contrast(l);
                    if (c < LEAST_CONTRAST) {
                        wrong.add("%s has a contrast of %.2f: %s".formatted(name, c, l.getText()));
                    }
                }
                Matcher m = KEY.matcher(l.getText());
                while (m.find()) {
                    if (keys.contains(m.group())) {
                        wrong.add(name + " says the key " + m.group() + ": " + l.getText());
                    }
                }
            }
            if (n instanceof Control c && isActed(c)) {
                boolean nameless =
                        (c.getAccessibleText() == null || c.getAccessibleText().isBlank())
                                && !(c instanceof Labeled l && !l.getText().isBlank());
                if (nameless) {
                    wrong.add(name + " has no name");
                }
                if (!c.isFocusTraversable() && !c.isDisabled() && !Hints.of(c).contains("Ctrl+")) {
                    wrong.add(name + " is out of reach of the keyboard");
                }
            }
            outside(name, n, wrong);
        }
        points(where, root, wrong);
    }

    private static Set<String> keys(Sheet sheet) {
        Set<String> out = new HashSet<>(sheet.inputs().keySet());
        out.addAll(sheet.results().keySet());
        out.addAll(sheet.channels().keySet());
        sheet.captures().values().forEach(c -> out.addAll(c.quantities().keySet()));
        return out;
    }

    private static List<Node> all(Parent p, List<Node> into) {
        for (Node n : p.getChildrenUnmodifiable()) {
            into.add(n);
            // The parts of a control are its own affair.
            if (n instanceof Parent q && (!(n instanceof Control) || n instanceof ScrollPane)) {
                all(q, into);
            }
        }
        return into;
    }

    private static boolean isShown(Node n) {
        for (Node at = n; at != null; at = at.getParent()) {
            if (!at.isVisible()
                    || !at.isManaged() && at.getParent() != null && !(at.getParent() instanceof ScrollPane)) {
                return at.isVisible() && at.getStyleClass().contains("viewport");
            }
        }
        return n.getLayoutBounds().getWidth() > 0;
    }

    private static String named(Node n) {
        for (Node at = n; at != null; at = at.getParent()) {
            if (at.getId() != null) {
                return n.getClass().getSimpleName() + " in #" + at.getId();
            }
        }
        return n.getClass().getSimpleName();
    }

    private static boolean isActed(Control c) {
        return c instanceof ButtonBase
                || c instanceof TextInputControl
                || c instanceof ChoiceBox
                || c instanceof CheckBox;
    }

    private static double contrast(Labeled l) {
        if (!(l.getTextFill() instanceof Color ink)) {
            return Double.POSITIVE_INFINITY;
        }
        Color ground = Color.WHITE;
        for (Node at = l; at != null; at = at.getParent()) {
            if (at instanceof Region r && solid(r.getBackground()) != null) {
                ground = solid(r.getBackground());
                break;
            }
        }
        double a = luminance(ink);
        double b = luminance(ground);
        return (Math.max(a, b) + 0.05) / (Math.min(a, b) + 0.05);
    }

    private static Color solid(Background b) {
        if (b == null) {
            return null;
        }
        for (int i = b.getFills().size() - 1; i >= 0; i--) {
            Paint p = b.getFills().get(i).getFill();
            if (p instanceof Color c && c.getOpacity() > 0.99) {
                return c;
            }
        }
        return null;
    }

    /** Relative luminance, WCAG 2.2. */
    private static double luminance(Color c) {
        return 0.2126 * linear(c.getRed()) + 0.7152 * linear(c.getGreen()) + 0.0722 * linear(c.getBlue());
    }

    private static double linear(double v) {
        return v <= 0.04045 ? v / 12.92 : Math.pow((v + 0.055) / 1.055, 2.4);
    }

    private static boolean isBelow(Node n, Node above) {
        Node p = n.getParent();
        while (p != null && p != above) {
            p = p.getParent();
        }
        return p != null;
    }

    private static void outside(String name, Node n, Set<String> wrong) {
        Node scrolled = n.getParent();
        while (scrolled != null && !(scrolled instanceof ScrollPane)) {
            scrolled = scrolled.getParent();
        }
        if (Theme.textSize() > 100
                && n.getScene().getWidth() < 1100
                && n.getScene().lookup("#room") instanceof ScrollPane room
                && isBelow(n, room)) {
            // Large text may have to be scrolled to; at the usual size everything has its room.
            return;
        }
        Bounds b = n.localToScene(n.getLayoutBounds());
        double width = n.getScene().getWidth();
        if (b.getMaxX() > width + 1 || b.getMinX() < -1) {
            wrong.add("%s leaves the window: %.0f to %.0f of %.0f".formatted(name, b.getMinX(), b.getMaxX(), width));
        }
        if (n instanceof Labeled && n.getParent() instanceof Region p && scrolled == null) {
            double right = n.getLayoutX() + ((Labeled) n).getWidth();
            double bottom = n.getLayoutY() + ((Labeled) n).getHeight();
            if (right > p.getWidth() + 1.5 || bottom > p.getHeight() + 1.5) {
                wrong.add("%s leaves its parent, to %.0f, %.0f of %.0f, %.0f: %s"
                        .formatted(name, right, bottom, p.getWidth(), p.getHeight(), ((Labeled) n).getText()));
            }
        }
    }

    /**
     * The decimal points of the ledger's small rows stand in one column, and so do those of each column of a table, of
     * a grid of figures and of the list of runs.
     */
    private static void points(String where, Parent root, Set<String> wrong) {
        Map<Object, List<Labeled>> columns = new LinkedHashMap<>();
        for (Node n : all(root, new ArrayList<>())) {
            if (!isShown(n)) {
                continue;
            }
            if (n instanceof LedgerRow row && row.isSmall()) {
                columns.computeIfAbsent("the ledger", k -> new ArrayList<>()).add(row.number());
            } else if (n instanceof TableCell<?, ?> cell && cell.getText() != null) {
                columns.computeIfAbsent(cell.getTableColumn(), k -> new ArrayList<>())
                        .add(cell);
            } else if (n instanceof Label l && l.getStyleClass().contains("figure")) {
                Node listed = l.getParent() instanceof HBox ? l.getParent().getParent() : l;
                if (l.getParent() instanceof GridPane grid) {
                    columns.computeIfAbsent(List.of(grid, GridPane.getColumnIndex(l)), k -> new ArrayList<>())
                            .add(l);
                } else if (listed.getStyleClass().contains("run-row")) {
                    columns.computeIfAbsent("the runs", k -> new ArrayList<>()).add(l);
                }
            }
        }
        columns.values().forEach(column -> inLine(where, column, wrong));
    }

    private static void inLine(String where, List<Labeled> column, Set<String> wrong) {
        double at = Double.NaN;
        for (Labeled number : column) {
            double x = pointOf(number);
            if (!Double.isNaN(x) && !Double.isNaN(at) && Math.abs(x - at) > 1.2) {
                wrong.add("%s: the point of %s stands at %.1f, not %.1f"
                        .formatted(where, number.getText().strip(), x, at));
            }
            at = Double.isNaN(at) ? x : at;
        }
    }

    /** Where the decimal point of a number is painted, in the window; not a number where it has none. */
    private static double pointOf(Labeled number) {
        int dot = number.getText().indexOf('.');
        if (dot < 1
                || !Character.isDigit(number.getText().charAt(dot - 1))
                || !(number.lookup(".text") instanceof Text text)) {
            return Double.NaN;
        }
        Text before = new Text(number.getText().substring(0, dot));
        before.setFont(text.getFont());
        return text.localToScene(text.getLayoutBounds()).getMinX()
                + before.getLayoutBounds().getWidth();
    }
}
