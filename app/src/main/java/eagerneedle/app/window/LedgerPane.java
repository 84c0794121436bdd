package eagerneedle.app.window;

import eagerneedle.app.widget.Hints;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.Rows;
import eagerneedle.app.window.LedgerModel.Line;
import eagerneedle.app.window.LedgerModel.Role;
import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.reduce.Key;
import eagerneedle.core.session.Run;
import java.util.List;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.input.Clipboard;
import javafx.scene.input.ClipboardContent;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/**
 * The ledger: every quantity with its uncertainty in brackets and its unit, aligned on the decimal point. A click shows
 * a quantity's lineage: its formula, what it comes from, what it feeds and who contributes most.
 */
public final class LedgerPane extends VBox {
    private static final double WIDTH = 296;
    private final LedgerModel model = new LedgerModel();
    private final VBox box = new VBox();
    private final Rows<Line> rows = Rows.changing(box, LedgerPane::key, this::row, LedgerPane::show);
    private final VBox detailBox = new VBox(4);
    private final Rows<LedgerModel.Remark> detail = new Rows<>(detailBox, LedgerPane::remark);
    private final ScrollPane scroll = new ScrollPane(box);

    public LedgerPane() {
        setId("ledger");
        getStyleClass().add("ledger");
        setPrefWidth(WIDTH);
        setMinWidth(WIDTH);
        setMaxWidth(WIDTH);
        Button copy = new Button("Copy");
        copy.getStyleClass().add("quiet-button");
        copy.setOnAction(e -> copy());
        Labels.explained(copy, "Copy the ledger for a spreadsheet: name, value, standard uncertainty, unit");
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        HBox head = new HBox(8, Labels.styled("Ledger", "ledger-title"), gap, Labels.quiet("standard, 95 %"), copy);
        head.setAlignment(Pos.CENTER_LEFT);
        scroll.setFitToWidth(true);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        scroll.getStyleClass().add("bare");
        VBox.setVgrow(scroll, Priority.ALWAYS);
        detailBox.getStyleClass().add("lineage");
        detail.showOrHide(List.of());
        getChildren().addAll(head, scroll, detailBox);
    }

    public void show(Workbench newBench) {
        model.open(newBench);
        refresh();
    }

    /** Also lists the quantities of this run. */
    public void focusRun(Run newRun) {
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
            rows.show(model.lines());
            detail.showOrHide(model.detail());
        }
    }

    private static Object key(Line line) {
        return line instanceof Line.Item i ? i.id() : line;
    }

    private Node row(Line line) {
        return line instanceof Line.Item i
                ? new LedgerRow(i.id(), () -> select(i.key()))
                : Labels.styled(((Line.Group) line).label(), "group");
    }

    private static void show(Node node, Line line) {
        if (line instanceof Line.Item i) {
            ((LedgerRow) node).show(i);
        }
    }

    private static Label remark(LedgerModel.Remark r) {
        Label l = Labels.wrapped(r.words());
        l.getStyleClass().add(r.style());
        return l;
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
        ClipboardContent c = new ClipboardContent();
        c.putString(model.tabbed());
        Clipboard.getSystemClipboard().setContent(c);
        Notices.tell(this, "The ledger is on the clipboard.");
    }

    /** One quantity: name, value and unit, and below them what it was while choices are tried. */
    private static final class LedgerRow extends VBox {
        private static final double VALUE = 112;
        private static final double UNIT = 44;
        private final HBox line = new HBox();
        private final Label name = Labels.wrapped("");
        private final Label value = Labels.figure("");
        private final Label unit = Labels.quiet("");
        private final Label then = Labels.figure("");
        private final HBox was;

        LedgerRow(String id, Runnable select) {
            name.getStyleClass().add("ledger-name");
            name.setMinWidth(0);
            name.setMaxWidth(Double.MAX_VALUE);
            HBox.setHgrow(name, Priority.ALWAYS);
            value.setMinWidth(USE_PREF_SIZE);
            unit.setPrefWidth(UNIT);
            unit.setMinWidth(UNIT);
            unit.setAlignment(Pos.CENTER_LEFT);
            line.getChildren().addAll(name, value, unit);
            line.setAlignment(Pos.BASELINE_LEFT);
            line.getStyleClass().add("ledger-row");
            line.setId(id);
            line.setFocusTraversable(true);
            line.setOnMouseClicked(m -> select.run());
            line.setOnKeyPressed(k -> {
                if (k.getCode() == KeyCode.ENTER || k.getCode() == KeyCode.SPACE) {
                    select.run();
                    k.consume();
                }
            });
            Label word = Labels.quiet("was");
            word.setMaxWidth(Double.MAX_VALUE);
            HBox.setHgrow(word, Priority.ALWAYS);
            then.getStyleClass().add("quiet");
            then.setPrefWidth(VALUE);
            Region rest = new Region();
            rest.setMinWidth(UNIT);
            was = new HBox(word, then, rest);
            was.getStyleClass().add("ledger-row");
            getChildren().addAll(line, was);
        }

        boolean isSelected() {
            return line.getStyleClass().contains("selected");
        }

        void show(Line.Item i) {
            name.setText(i.name());
            Labels.styled(name, "fresh", i.fresh());
            Labels.styled(name, "as-planned", i.planned());
            boolean wide = i.value().length() > LedgerModel.MOST_FIGURES;
            value.setText(i.value());
            value.setPrefWidth(wide ? USE_COMPUTED_SIZE : VALUE);
            unit.setText(i.unit());
            HBox.setMargin(unit, new Insets(0, 0, 0, wide ? 4 : 0));
            line.setAccessibleText(i.said());
            Labels.styled(line, "selected", i.role() == Role.SELECTED);
            Labels.styled(line, "comes-from", i.role() == Role.COMES_FROM);
            Labels.styled(line, "feeds", i.role() == Role.FEEDS);
            Hints.give(line, i.hint());
            then.setText(i.was());
            was.setVisible(!i.was().isEmpty());
            was.setManaged(was.isVisible());
        }
    }
}
