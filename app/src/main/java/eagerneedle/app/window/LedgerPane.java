package eagerneedle.app.window;

import eagerneedle.app.widget.Hints;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.quantity.Budget;
import eagerneedle.core.quantity.Coverage;
import eagerneedle.core.quantity.MonteCarlo;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Key;
import eagerneedle.core.reduce.Ledger;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.session.Run;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.input.Clipboard;
import javafx.scene.input.ClipboardContent;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.ColumnConstraints;
import javafx.scene.layout.GridPane;
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
    private static final int MOST_FIGURES = 13;
    private final VBox rows = new VBox();
    private final VBox detail = new VBox(4);
    private final ScrollPane scroll = new ScrollPane(rows);
    private Workbench bench;
    private Run run;
    private Key selected;
    private Quantity was;
    private boolean planned;

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
        detail.getStyleClass().add("lineage");
        detail.setVisible(false);
        detail.setManaged(false);
        getChildren().addAll(head, scroll, detail);
    }

    public void show(Workbench newBench) {
        bench = newBench;
        selected = null;
        refresh();
    }

    /** Also lists the quantities of this run. */
    public void focusRun(Run newRun) {
        run = newRun;
        refresh();
    }

    /** Shows predicted values while planning. */
    public void planned(boolean show) {
        if (planned != show) {
            planned = show;
            refresh();
        }
    }

    private Reduction reduction() {
        return planned ? bench.plan() : bench.reduction();
    }

    public void refresh() {
        if (bench == null) {
            return;
        }
        rows.getChildren().clear();
        Reduction r = reduction();
        List<Ledger.Entry> entries = new ArrayList<>();
        List<Ledger.Entry> all = r.ledger().entries();
        List<Ledger.Entry> ofRun = run == null || planned
                ? List.of()
                : bench.session()
                        .run(run.id())
                        .filter(x -> x.discard() == null)
                        .map(r::ofRun)
                        .orElse(List.of());
        all.stream()
                .filter(e -> !e.key().isOfRun() && e.source().equals("derived"))
                .forEach(entries::add);
        entries.addAll(ofRun);
        all.stream()
                .filter(e -> !e.key().isOfRun() && !e.source().equals("derived"))
                .forEach(entries::add);
        Optional<Reduction.Lineage> lit = Optional.ofNullable(selected).map(r::lineage);
        String group = null;
        GridPane grid = null;
        int row = 0;
        double left = entries.stream()
                .flatMap(e -> e.quantity().stream())
                .mapToInt(q -> point(q))
                .max()
                .orElse(1);
        for (Ledger.Entry e : entries) {
            if (!e.group().equals(group)) {
                group = e.group();
                rows.getChildren()
                        .add(Labels.styled(
                                (planned && e.source().equals("derived")
                                                ? "Predicted " + group.toLowerCase(java.util.Locale.ROOT)
                                                : group)
                                        .toUpperCase(java.util.Locale.ROOT),
                                "group"));
                grid = grid();
                rows.getChildren().add(grid);
                row = 0;
            }
            add(grid, row, e, left, lit);
            row += 2;
        }
        detail(r);
    }

    private static int point(Quantity q) {
        String s = Notation.bracketed(q.value(), q.u());
        int dot = s.indexOf('.');
        int bracket = s.indexOf('(');
        return dot >= 0 ? dot : bracket >= 0 ? bracket : s.length();
    }

    private static GridPane grid() {
        GridPane g = new GridPane();
        ColumnConstraints name = new ColumnConstraints(30, 118, Double.MAX_VALUE);
        name.setHgrow(Priority.ALWAYS);
        ColumnConstraints value = new ColumnConstraints(108);
        ColumnConstraints unit = new ColumnConstraints(42);
        g.getColumnConstraints().addAll(name, value, unit);
        return g;
    }

    private void add(GridPane grid, int row, Ledger.Entry e, double left, Optional<Reduction.Lineage> lit) {
        boolean fresh = !planned
                && (bench.isTrying()
                        ? bench.before(e.key())
                                .filter(b -> e.quantity().isEmpty()
                                        || !b.toString()
                                                .equals(e.quantity().get().toString()))
                                .isPresent()
                        : bench.changed().contains(e.key()));
        boolean doubtful = e.quantity().isPresent()
                && !reduction()
                        .doubts(e.quantity().get(), bench.clock().instant())
                        .isEmpty();
        Label name = new Label((fresh ? "● " : "") + (doubtful ? "▲ " : "") + e.label());
        name.getStyleClass().add("ledger-name");
        if (fresh) {
            name.getStyleClass().add("fresh");
        }
        if (e.source().equals("as planned") && !planned) {
            name.getStyleClass().add("as-planned");
        }
        String text = e.quantity().map(q -> figures(q, left)).orElse("   —");
        Label value = Labels.figure(text);
        value.setMinWidth(Region.USE_PREF_SIZE);
        Label unit = Labels.quiet(e.quantity().map(q -> q.unit().pretty()).orElse(""));
        HBox line = new HBox(name, value, unit);
        HBox.setMargin(unit, new javafx.geometry.Insets(0, 0, 0, text.length() > MOST_FIGURES ? 4 : 0));
        name.setWrapText(true);
        name.setMinHeight(Region.USE_PREF_SIZE);
        name.setMinWidth(0);
        name.setMaxWidth(Double.MAX_VALUE);
        HBox.setHgrow(name, Priority.ALWAYS);
        value.setPrefWidth(text.length() > MOST_FIGURES ? Region.USE_COMPUTED_SIZE : 112);
        unit.setPrefWidth(44);
        unit.setMinWidth(44);
        unit.setAlignment(Pos.CENTER_LEFT);
        line.setAlignment(Pos.BASELINE_LEFT);
        line.getStyleClass().add("ledger-row");
        line.setId("ledger-" + e.name().replaceAll("[^A-Za-z0-9_-]", "-"));
        line.setFocusTraversable(true);
        line.setAccessibleText(e.label() + " "
                + e.quantity()
                        .map(Quantity::toString)
                        .orElse("has no value: " + e.outcome().problem()));
        if (e.key().equals(selected)) {
            line.getStyleClass().add("selected");
        } else if (lit.isPresent() && lit.get().from().contains(e.key())) {
            line.getStyleClass().add("comes-from");
        } else if (lit.isPresent() && lit.get().feeds().contains(e.key())) {
            line.getStyleClass().add("feeds");
        }
        Hints.give(
                line,
                e.label()
                        + (fresh
                                ? bench.before(e.key())
                                        .flatMap(b -> e.quantity().map(q -> "\n" + moved(b, q)))
                                        .orElse("")
                                : "")
                        + (e.outcome().problem() != null
                                ? "\n" + e.outcome().problem()
                                : e.source().equals("derived") ? "" : "\n" + e.source()));
        line.setOnMouseClicked(m -> select(e.key()));
        line.setOnKeyPressed(k -> {
            if (k.getCode() == KeyCode.ENTER || k.getCode() == KeyCode.SPACE) {
                select(e.key());
                k.consume();
            }
        });
        grid.add(line, 0, row, 3, 1);
        if (bench.isTrying() && fresh) {
            bench.before(e.key()).ifPresent(b -> {
                Label word = Labels.quiet("was");
                word.setMaxWidth(Double.MAX_VALUE);
                HBox.setHgrow(word, Priority.ALWAYS);
                Label then = Labels.figure(figures(b, left));
                then.getStyleClass().add("quiet");
                then.setPrefWidth(112);
                Region rest = new Region();
                rest.setMinWidth(44);
                HBox was = new HBox(word, then, rest);
                was.getStyleClass().add("ledger-row");
                grid.add(was, 0, row + 1, 3, 1);
            });
        }
    }

    /**
     * A number with its uncertainty in brackets, its point under the others. An exact one is cut to what can be read.
     */
    private static String figures(Quantity q, double left) {
        String s = Notation.bracketed(q.value(), q.u());
        return " ".repeat((int) Math.max(0, Math.min(6, left) - point(q)))
                + (q.isExact() && s.length() > MOST_FIGURES ? Notation.plain(q.value(), 6) : s);
    }

    /** Shows the lineage of a quantity and brings its line into view. */
    void reveal(Key key) {
        selected = null;
        select(key);
        applyCss();
        layout();
        rows.lookupAll(".ledger-row").stream()
                .filter(n -> n.getStyleClass().contains("selected"))
                .findFirst()
                .ifPresent(n -> {
                    double at = rows.sceneToLocal(n.localToScene(n.getBoundsInLocal()))
                            .getMinY();
                    scroll.setVvalue(Math.max(
                            0,
                            Math.min(
                                    1,
                                    (at - 60)
                                            / Math.max(
                                                    1,
                                                    rows.getHeight()
                                                            - scroll.getViewportBounds()
                                                                    .getHeight()))));
                });
    }

    /** Shows the lineage of a quantity; the same again closes it. */
    public void select(Key key) {
        selected = key.equals(selected) ? null : key;
        was = bench.before(key).orElse(null);
        bench.lookedAt(key);
        refresh();
    }

    private void detail(Reduction r) {
        detail.getChildren().clear();
        boolean shown = selected != null;
        detail.setVisible(shown);
        detail.setManaged(shown);
        if (!shown) {
            return;
        }
        String label = r.ledger().entries().stream()
                .filter(e -> e.key().equals(selected))
                .map(Ledger.Entry::label)
                .findFirst()
                .orElse(selected.toString());
        detail.getChildren().add(Labels.styled(label, "section"));
        r.formula(selected).ifPresent(f -> detail.getChildren().add(styledWrap(f, "figure-small")));
        if (r.isHidden(selected)) {
            detail.getChildren().add(styledWrap(Reduction.HIDDEN, "quiet"));
            return;
        }
        Optional<Quantity> q = r.quantity(selected);
        if (q.isEmpty()) {
            detail.getChildren()
                    .add(styledWrap(
                            r.outcome(selected).problem() == null
                                    ? "No value."
                                    : r.outcome(selected).problem(),
                            "attention"));
            return;
        }
        Quantity v = q.get();
        detail.getChildren()
                .add(styledWrap(
                        v.isExact()
                                ? "Taken as exact."
                                : "± " + Notation.figures(Coverage.DEFAULT.expanded(v), 2) + " "
                                        + v.unit().pretty() + " at 95 %, k = "
                                        + Notation.plain(Coverage.DEFAULT.factor(v.dof()), 3)
                                        + (Double.isInfinite(v.dof())
                                                ? ""
                                                : ", " + Notation.plain(v.dof(), 3) + " degrees of freedom"),
                        "quiet"));
        if (was != null && was.unit().fits(v.unit())) {
            detail.getChildren().add(styledWrap(moved(was, v), "needle-ink"));
        }
        for (String doubt : r.doubts(v, bench.clock().instant())) {
            detail.getChildren().add(styledWrap("▲ " + doubt, "attention"));
        }
        if (!v.isLinear()) {
            MonteCarlo m = MonteCarlo.of(v, Coverage.DEFAULT, MonteCarlo.Settings.QUICK);
            detail.getChildren().add(styledWrap(m.remark(), m.firstOrderIsGoodEnough() ? "quiet" : "attention"));
        }
        r.outcome(selected).remarks().forEach(said -> detail.getChildren().add(styledWrap(said, "quiet")));
        List<Budget.Line> lines = Budget.of(v).lines();
        for (Budget.Line l : lines.subList(0, Math.min(4, lines.size()))) {
            detail.getChildren().add(styledWrap(Math.round(100 * l.share()) + " %  " + l.label(), "plain-small"));
        }
        Reduction.Lineage lineage = r.lineage(selected);
        names(r, "Comes from", lineage.from());
        names(r, "Feeds", lineage.feeds());
    }

    /** What moved and by how much, in one sentence. */
    static String moved(Quantity before, Quantity now) {
        double by = now.value() - before.in(now.unit());
        return "It was " + before + " and moved by " + Notation.plain(by, 2) + " "
                + now.unit().difference().pretty()
                + (before.u() > 0
                        ? ", "
                                + Notation.plain(
                                        Math.abs(by) / before.to(now.unit()).u(), 2)
                                + " of its standard uncertainty then."
                        : ".");
    }

    private void names(Reduction r, String what, Set<Key> keys) {
        List<String> labels = new ArrayList<>();
        long runs = keys.stream().filter(Key::isOfRun).count();
        keys.stream()
                .filter(k -> !k.isOfRun() || runs <= 3)
                .forEach(k -> r.ledger().entries().stream()
                        .filter(e -> e.key().equals(k))
                        .findFirst()
                        .ifPresent(e -> labels.add(e.label())));
        if (runs > 3) {
            labels.add(runs + " values of runs");
        }
        if (!labels.isEmpty()) {
            detail.getChildren().add(styledWrap(what + ": " + String.join(", ", labels), "quiet"));
        }
    }

    private static Label styledWrap(String text, String style) {
        Label l = Labels.wrapped(text);
        l.getStyleClass().add(style);
        return l;
    }

    private void copy() {
        StringBuilder b = new StringBuilder("name\tvalue\tu\tunit\n");
        reduction()
                .ledger()
                .entries()
                .forEach(e -> e.quantity()
                        .ifPresent(q -> b.append(e.name())
                                .append('\t')
                                .append(q.value())
                                .append('\t')
                                .append(q.u())
                                .append('\t')
                                .append(q.unit().symbol())
                                .append('\n')));
        ClipboardContent c = new ClipboardContent();
        c.putString(b.toString());
        Clipboard.getSystemClipboard().setContent(c);
        Notices.tell(this, "The ledger is on the clipboard.");
    }
}
