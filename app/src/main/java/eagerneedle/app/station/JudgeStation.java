package eagerneedle.app.station;

import eagerneedle.app.plot.PictureView;
import eagerneedle.app.window.Labels;
import eagerneedle.core.judge.Comparison;
import eagerneedle.core.judge.School;
import eagerneedle.core.judge.Target;
import eagerneedle.core.quantity.Budget;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.session.Command;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.report.picture.BudgetPicture;
import eagerneedle.report.picture.Ink;
import eagerneedle.report.picture.Lettering;
import eagerneedle.report.picture.NeedlePicture;
import eagerneedle.report.picture.Surface;
import java.util.List;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** Judge: the agreement needle, the schools side by side, the budget, checks met and not met. */
public final class JudgeStation implements StationView {
    private static final int MOST_LINES = 6;
    private final Desk desk;
    private final ScrollPane scroll = new ScrollPane();
    private final VBox left = new VBox(10);
    private final VBox right = new VBox(10);
    private final MistakeLens lens;
    private final DrawsCard draws = new DrawsCard();
    private String shown;

    public JudgeStation(Desk desk) {
        this.desk = desk;
        this.lens = new MistakeLens(desk);
        right.setPrefWidth(352);
        right.setMinWidth(322);
        HBox.setHgrow(left, Priority.ALWAYS);
        HBox all = new HBox(26, left, right);
        all.getStyleClass().add("surface");
        scroll.setContent(all);
        scroll.setFitToWidth(true);
        refresh();
    }

    @Override
    public Node node() {
        return scroll;
    }

    @Override
    public void refresh() {
        left.getChildren().clear();
        right.getChildren().clear();
        Reduction r = desk.bench().reduction();
        List<Comparison> comparisons = r.comparisons();
        Sheet.Comparison main = desk.bench().sheet().mainComparison();
        if (comparisons.isEmpty()) {
            left.getChildren().add(Labels.heading("Nothing to judge yet"));
            left.getChildren().add(Labels.wrapped(main == null ? "The sheet compares nothing." : Optional.ofNullable(r.outcome(main.result()).problem()).orElse("Take runs first (key 4).")));
            return;
        }
        Comparison c = comparisons.stream().filter(x -> x.id().equals(shown == null ? main.id() : shown)).findFirst().orElse(comparisons.get(0));
        School speaks = r.speaks(c.id());
        Label question = Labels.wrapped(c.label());
        question.getStyleClass().add("heading");
        left.getChildren().add(question);
        left.getChildren().add(needle(c, speaks));
        Label verdict = Labels.wrapped(c.verdict(speaks));
        verdict.setId("verdict");
        verdict.getStyleClass().add("section");
        verdict.setMaxWidth(Double.MAX_VALUE);
        Label chance = Labels.wrapped(speaks == School.STANDARD ? chance(c) : "");
        chance.getStyleClass().add("quiet");
        chance.setMaxWidth(Double.MAX_VALUE);
        left.getChildren().addAll(verdict, chance);
        budget(c);
        draws.of(c.result());
        left.getChildren().add(draws);
        right.getChildren().add(Labels.heading("The same data under three schools"));
        for (School s : School.values()) {
            right.getChildren().add(school(c, s, s == speaks));
        }
        if (comparisons.size() > 1) {
            right.getChildren().add(Labels.heading("All comparisons"));
            comparisons.forEach(x -> right.getChildren().add(small(r, x, x == c)));
        }
        said(r);
        right.getChildren().add(Labels.heading("Checks"));
        r.checks().forEach(k -> {
            Label l = Labels.wrapped((k.met().isEmpty() ? "○ " : k.met().get() ? "✓ " : "▲ ") + k.check().label() + (k.met().isEmpty() ? " (not yet to be judged)" : k.met().get() ? "" : ". " + k.check().remedy()));
            l.getStyleClass().add(k.met().isPresent() && !k.met().get() ? "attention" : "plain");
            right.getChildren().add(l);
        });
        lens.refresh();
        right.getChildren().add(lens);
    }

    /** What the data say in words: routes, candidates, models. */
    private void said(Reduction r) {
        if (r.statements().isEmpty()) {
            return;
        }
        right.getChildren().add(Labels.heading("What the data say"));
        r.statements().forEach(s -> {
            Label words = Labels.wrapped(s.sentence().orElse(s.problem() == null ? "Nothing yet." : s.problem()));
            words.setId("statement-" + r.statements().indexOf(s));
            right.getChildren().add(new VBox(0, Labels.section(s.statement().label()), words));
        });
    }

    private static String chance(Comparison c) {
        double of100 = 100 * c.chance();
        return "A difference this large or larger would be expected in " + (of100 < 1 ? "fewer than 1" : Long.toString(Math.round(of100))) + " of 100 repeats.";
    }

    private static Node needle(Comparison c, School speaks) {
        PictureView view = new PictureView(c.label() + ": " + Notation.plain(c.normalised(), 2) + " combined standard uncertainties", (s, w, h) -> {
            double wide = Math.min(w, 470);
            NeedlePicture.paint(s, c, speaks == School.PERCENT ? School.STANDARD : speaks, (w - wide) / 2, 0, wide, h - 44, false);
            String value = (c.normalised() < 0 ? "−" : "+") + String.format(java.util.Locale.ROOT, "%.2f", Math.abs(c.normalised()));
            s.text(value, w / 2, h - 24, Surface.Align.CENTRE, Lettering.heading(16), Ink.INK);
            s.text("combined standard uncertainties", w / 2, h - 7, Surface.Align.CENTRE, Lettering.text(11.5), Ink.QUIET);
        });
        view.setMinHeight(258);
        view.setPrefHeight(258);
        view.setId("needle");
        return view;
    }

    private void budget(Comparison c) {
        Budget b = Budget.of(c.result());
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        Label where = Labels.heading("Where the uncertainty comes from");
        where.setMinWidth(Region.USE_PREF_SIZE);
        left.getChildren().add(new HBox(10, where, gap, Labels.quiet("share of variance; A by statistics, B otherwise")));
        if (!b.lines().isEmpty()) {
            Budget.Line first = b.lines().get(0);
            String unit = c.result().unit().pretty();
            Label largest = Labels.wrapped("Largest: " + first.label() + ". Halve it and u falls from " + Notation.figures(c.result().u(), 2) + " to "
                    + Notation.figures(first.combinedIfHalved(c.result().u()), 2) + " " + unit + ".");
            largest.setId("largest");
            Label cheapest = Labels.wrapped("Half the uncertainty? " + Target.of(c.result(), c.result().u() / 2).sentence());
            cheapest.setId("cheapest");
            cheapest.getStyleClass().add("quiet");
            left.getChildren().add(new VBox(2, largest, cheapest));
            desk.bench().reduction().circularity(c).ifPresent(remark -> left.getChildren().add(attention(remark)));
            desk.bench().reduction().doubts(c.result(), desk.bench().clock().instant()).forEach(doubt -> left.getChildren().add(attention(doubt)));
            if (c.drawn() != null) {
                left.getChildren().add(attention(c.drawn().remark()));
            }
        }
        PictureView bars = new PictureView("Uncertainty budget", (s, w, h) -> BudgetPicture.paint(s, b, 0, 0, w, MOST_LINES));
        bars.setMinHeight(BudgetPicture.height(b, MOST_LINES));
        bars.setPrefHeight(BudgetPicture.height(b, MOST_LINES));
        left.getChildren().add(bars);
        if (b.lines().size() > MOST_LINES) {
            double rest = b.lines().stream().skip(MOST_LINES).mapToDouble(Budget.Line::share).sum();
            left.getChildren().add(Labels.quiet("and " + (b.lines().size() - MOST_LINES) + " more, together " + Notation.plain(100 * rest, 2) + " %"));
        }
    }

    private static Label attention(String text) {
        Label l = Labels.wrapped(text);
        l.getStyleClass().add("attention");
        return l;
    }

    private Node school(Comparison c, School s, boolean speaks) {
        PictureView small = new PictureView(s.label(), (surface, w, h) -> {
            if (s == School.PERCENT) {
                surface.text("%", w / 2, h / 2 + 8, Surface.Align.CENTRE, Lettering.figures(22), Ink.QUIET);
            } else {
                NeedlePicture.paint(surface, c, s, 0, 6, w, h - 8, true);
            }
        });
        small.setMinSize(80, 46);
        small.setPrefSize(80, 46);
        Label verdict = new Label(s == School.PERCENT ? Notation.figures(c.percent(), 2) + " %" : c.agrees(s) ? "agrees" : "does not agree");
        verdict.getStyleClass().add(s == School.PERCENT ? "plain" : c.agrees(s) ? "good" : "attention");
        Label more = Labels.wrapped(switch (s) {
            case STANDARD -> Notation.plusMinus(c.difference().value(), c.coverage().expanded(c.difference())) + " " + c.result().unit().pretty() + " (k = " + Notation.plain(c.factor(), 3) + ")";
            case LIMITS -> (c.overlap() >= 0 ? "limits overlap by " : "a gap of ") + Notation.plain(Math.abs(c.overlap()), 2) + " " + c.result().unit().pretty() + "; 2 u for a normal input";
            case PERCENT -> (Double.isNaN(c.threshold()) ? "" : c.agrees(s) ? "within the " + Notation.plain(c.threshold(), 3) + " % allowed; " : "beyond the " + Notation.plain(c.threshold(), 3) + " % allowed; ")
                    + "says nothing of how well it was measured";
        });
        more.getStyleClass().add("quiet");
        Button let = new Button(speaks ? "speaks" : "let it speak");
        let.getStyleClass().setAll("button", "quiet-button");
        if (speaks) {
            let.setDisable(true);
            let.setOpacity(1);
            let.setStyle("-fx-text-fill: -needle;");
        }
        let.setId("speak-" + s.name().toLowerCase(java.util.Locale.ROOT));
        let.setMinWidth(Region.USE_PREF_SIZE);
        let.setOnAction(e -> desk.bench().apply(new Command.ChooseSchool(s)));
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        Label name = Labels.section(s.label());
        name.setMinWidth(Region.USE_PREF_SIZE);
        HBox head = new HBox(4, name, gap, let);
        head.setAlignment(Pos.CENTER_LEFT);
        VBox words = new VBox(0, head, verdict, more);
        HBox.setHgrow(words, Priority.ALWAYS);
        HBox row = new HBox(10, small, words);
        row.setAlignment(Pos.CENTER_LEFT);
        VBox card = Labels.card(row);
        card.setStyle("-fx-padding: 6 8 8 10;");
        if (speaks) {
            card.getStyleClass().add("speaks");
        }
        return card;
    }

    private Node small(Reduction r, Comparison c, boolean chosen) {
        School s = r.speaks(c.id());
        PictureView arc = new PictureView(c.label(), (surface, w, h) -> NeedlePicture.paint(surface, c, s == School.PERCENT ? School.STANDARD : s, 0, 2, w, h - 2, true));
        arc.setMinSize(52, 30);
        arc.setPrefSize(52, 30);
        Label l = Labels.wrapped(c.label());
        HBox row = new HBox(10, arc, l);
        HBox.setHgrow(l, Priority.ALWAYS);
        row.setAlignment(Pos.CENTER_LEFT);
        row.getStyleClass().add("run-row");
        if (chosen) {
            row.getStyleClass().add("chosen");
        }
        row.setFocusTraversable(true);
        row.setId("comparison-" + c.id());
        Runnable choose = () -> {
            shown = c.id();
            refresh();
        };
        row.setOnMouseClicked(e -> choose.run());
        row.setOnKeyPressed(e -> {
            if (e.getCode() == javafx.scene.input.KeyCode.ENTER) {
                choose.run();
            }
        });
        return row;
    }
}
