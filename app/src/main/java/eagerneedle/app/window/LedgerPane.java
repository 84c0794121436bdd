package eagerneedle.app.window;

import eagerneedle.app.plot.PictureView;
import eagerneedle.app.widget.Copied;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.Rows;
import eagerneedle.app.widget.Theme;
import eagerneedle.app.window.LedgerModel.Line;
import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.reduce.Key;
import eagerneedle.core.session.Run;
import eagerneedle.picture.FormulaPicture;
import eagerneedle.picture.Ink;
import eagerneedle.picture.SvgSurface;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;

/**
 * The ledger: every quantity with its uncertainty in brackets and its unit, aligned on the decimal point. A click shows
 * a quantity's lineage: its formula, what it comes from, what it feeds and who contributes most.
 */
public final class LedgerPane extends VBox {
    private static final double WIDTH = 316;
    private static final double LEAST = 296;
    private static final double NARROW = 1150;
    private static final double FORMULA = 14;
    private final LedgerModel model = new LedgerModel();
    private final VBox box = new VBox();
    private final Rows<Line> rows = Rows.changing(box, LedgerPane::key, this::row, LedgerPane::show);
    private final VBox detailBox = new VBox(4);
    private final Rows<LedgerModel.Remark> detail = new Rows<>(detailBox, LedgerPane::remark);
    private final ScrollPane scroll = new ScrollPane(box);
    private final TextField filter = new TextField();
    private final Button pin = new Button("Pin to the top");
    private final Button line = new Button("Show its line");
    private final VBox lineage = new VBox(2, detailBox, new HBox(4, pin, line));
    private Consumer<Key> onLine = key -> {};
    private Runnable onPin = () -> {};

    public LedgerPane() {
        setId("ledger");
        getStyleClass().add("ledger");
        resize();
        sceneProperty().addListener((o, was, is) -> {
            if (is != null) {
                is.widthProperty().addListener(w -> resize());
                resize();
            }
        });
        filter.setId("ledger-filter");
        filter.setPromptText("filter");
        filter.setAccessibleText("Filter the ledger by name");
        filter.setPrefWidth(Theme.px(96));
        Labels.explained(filter, "Shows only the quantities that have these letters in their name");
        filter.textProperty().addListener((o, was, is) -> {
            model.filter(is);
            refresh();
        });
        Button copy = new Button("Copy");
        copy.getStyleClass().add("quiet-button");
        copy.setOnAction(e -> copy());
        Labels.explained(copy, "Copy the ledger for a spreadsheet: name, value, standard uncertainty, unit");
        Label title = Labels.styled("Ledger", "ledger-title");
        Labels.explained(
                title,
                "In brackets the standard uncertainty in units of the last digits; a click shows lineage and "
                        + "the expanded uncertainty");
        title.setMinWidth(USE_PREF_SIZE);
        copy.setMinWidth(USE_PREF_SIZE);
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        HBox head = new HBox(8, title, gap, filter, copy);
        head.setAlignment(Pos.CENTER_LEFT);
        scroll.setFitToWidth(true);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        scroll.getStyleClass().add("bare");
        VBox.setVgrow(scroll, Priority.ALWAYS);
        pin.setId("ledger-pin");
        pin.getStyleClass().add("quiet-button");
        pin.setOnAction(e -> model.selected().ifPresent(key -> {
            model.pin(key);
            onPin.run();
            refresh();
        }));
        Labels.explained(pin, "Keeps this quantity at the top of the ledger, in every session of this method");
        line.setId("ledger-line");
        line.getStyleClass().add("quiet-button");
        line.setOnAction(e -> model.selected().ifPresent(onLine));
        Labels.explained(line, "Why is it so? Shows the line of the sheet that it stands in, at the method desk");
        lineage.getStyleClass().add("lineage");
        Labels.shown(lineage, false);
        getChildren().addAll(head, scroll, lineage);
    }

    /** Called with the quantity whose line in the sheet is asked for. */
    void onLine(Consumer<Key> shown) {
        onLine = shown;
    }

    /** Called when something was pinned or is no longer. */
    void onPin(Runnable changed) {
        onPin = changed;
    }

    /** What is pinned, by method and the names of the ledger. */
    Map<String, List<String>> pinned() {
        return model.pinned();
    }

    /** Pins these, by method and the names of the ledger; what there is none of is passed over. */
    void pinned(Map<String, List<String>> names) {
        model.pinned(names);
        refresh();
    }

    public void show(Workbench newBench) {
        model.open(newBench);
        refresh();
    }

    /** Also lists the quantities of this run. */
    public void focusRun(@Nullable Run newRun) {
        model.focusRun(newRun);
        refresh();
    }

    /** Shows predicted values while planning. */
    public void planned(boolean show) {
        if (model.planned(show)) {
            refresh();
        }
    }

    public void refresh() {
        if (model.isOpen()) {
            List<Line> lines = model.lines();
            rows.show(lines);
            columns(lines);
            List<LedgerModel.Remark> said = model.detail();
            detail.showOrHide(said);
            Labels.shown(lineage, !said.isEmpty());
            pin.setText(model.selected().map(model::isPinned).orElse(false) ? "Unpin" : "Pin to the top");
        }
    }

    /** Numbers stand in one column and units in another, each as wide as the widest; names take what is left. */
    private void columns(List<Line> lines) {
        double numbers = 0;
        double units = 0;
        for (Line l : lines) {
            if (l instanceof Line.Item i && !i.large()) {
                numbers = Math.max(numbers, LedgerRow.wanted(i));
                units = Math.max(units, LedgerRow.wantedForUnit(i));
            }
        }
        for (Node n : box.getChildren()) {
            if (n instanceof LedgerRow r) {
                r.columns(numbers, units);
            }
        }
    }

    /** Takes the width that the size of the text asks for, less in a narrow window. */
    void resize() {
        boolean narrow = getScene() != null && getScene().getWidth() < Theme.px(NARROW);
        double width = Theme.px(narrow ? LEAST : WIDTH);
        setPrefWidth(width);
        setMinWidth(width);
        setMaxWidth(width);
    }

    private static Object key(Line line) {
        return line instanceof Line.Item i ? i.large() + i.id() : ((Line.Group) line).label();
    }

    private Node row(Line line) {
        return line instanceof Line.Item i
                ? new LedgerRow(i.large(), () -> select(i.key()))
                : new LedgerGroup(() -> {
                    model.fold(((Line.Group) line).label());
                    refresh();
                });
    }

    private static void show(Node node, Line line) {
        if (line instanceof Line.Item i) {
            ((LedgerRow) node).show(i);
        } else {
            ((LedgerGroup) node).show((Line.Group) line);
        }
    }

    private static Node remark(LedgerModel.Remark r) {
        if (r.style().equals(LedgerDetail.FORMULA)) {
            return formula(r.words());
        }
        Label l = Labels.wrapped(r.words());
        l.getStyleClass().add(r.style());
        return l;
    }

    private static PictureView formula(String equation) {
        double wide = WIDTH - 34;
        double high = FormulaPicture.paintWithin(
                new SvgSurface(wide, 10, false, "measured"), equation, 0, 0, FORMULA, wide, Ink.INK);
        PictureView view = new PictureView(
                equation, (s, w, h) -> FormulaPicture.paintWithin(s, equation, 0, 0, FORMULA, w, Ink.INK));
        view.setMinHeight(Theme.px(high));
        view.setPrefHeight(Theme.px(high));
        return view;
    }

    /** Shows the lineage of a quantity and brings its line into view. */
    void reveal(Key key) {
        model.reveal(key);
        refresh();
        applyCss();
        layout();
        box.getChildren().stream()
                .filter(n -> n instanceof LedgerRow r && r.isSelected())
                .findFirst()
                .ifPresent(n -> {
                    double over = box.getHeight() - scroll.getViewportBounds().getHeight();
                    double at = n.getBoundsInParent().getMinY() - 60;
                    scroll.setVvalue(Math.max(0, Math.min(1, at / Math.max(1, over))));
                });
    }

    /** Shows the lineage of a quantity; the same again closes it. */
    public void select(Key key) {
        model.select(key);
        refresh();
    }

    private void copy() {
        Copied.table(model.tabbed());
        Notices.tell(this, "The ledger is on the clipboard.");
    }
}
