package eagerneedle.app.judge;

import eagerneedle.app.plot.PictureView;
import eagerneedle.app.station.Desk;
import eagerneedle.app.station.StationView;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.core.judge.Comparison;
import eagerneedle.core.judge.School;
import eagerneedle.core.judge.Target;
import eagerneedle.core.quantity.Budget;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Improvements;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.session.Blind;
import eagerneedle.core.session.JudgeCommand;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.picture.BudgetPicture;
import eagerneedle.picture.Ink;
import eagerneedle.picture.Lettering;
import eagerneedle.picture.NeedlePicture;
import eagerneedle.picture.Surface;
import eagerneedle.picture.ValueRows;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Optional;
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

/** Judge: the agreement needle, the schools side by side, the budget, checks met and not met. */
public final class JudgeStation implements StationView {
    private static final int MOST_LINES = 6;
    private static final DateTimeFormatter CLOCK = DateTimeFormatter.ofPattern("HH:mm 'on' d MMM uuuu")
            .withLocale(java.util.Locale.UK)
            .withZone(ZoneId.systemDefault());
    private final Desk desk;
    private final ScrollPane scroll = new ScrollPane();
    private final VBox left = new VBox(10);
    private final VBox right = new VBox(10);
    private final MistakeLens lens;
    private final DrawsCard draws = new DrawsCard();
    private String shown;
    private String wanted = "";

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
        if (r.session().hidesReferences()) {
            blind(r, main);
            return;
        }
        if (comparisons.isEmpty()) {
            left.getChildren().add(Labels.heading("Nothing to judge yet"));
            left.getChildren()
                    .add(Labels.wrapped(
                            main == null
                                    ? "The sheet compares nothing."
                                    : Optional.ofNullable(
                                                    r.outcome(main.result()).problem())
                                            .orElse("Take runs first (key 4).")));
            return;
        }
        Comparison c = comparisons.stream()
                .filter(x -> x.id().equals(shown == null ? main.id() : shown))
                .findFirst()
                .orElse(comparisons.get(0));
        School speaks = r.speaks(c.id());
        Label question = Labels.wrapped(c.label());
        question.getStyleClass().add("heading");
        left.getChildren().add(question);
        locked(r, c);
        left.getChildren().add(needle(c, speaks));
        Label verdict = Labels.wrapped(c.verdict(speaks));
        verdict.setId("verdict");
        verdict.getStyleClass().add("section");
        verdict.setMaxWidth(Double.MAX_VALUE);
        Label chance = Labels.wrapped(speaks == School.STANDARD ? chance(c) : "");
        chance.getStyleClass().add("quiet");
        chance.setMaxWidth(Double.MAX_VALUE);
        left.getChildren().addAll(verdict, chance);
        if (!c.agrees(speaks) && !r.remedy(c.id()).isEmpty()) {
            Label remedy = attention(r.remedy(c.id()));
            remedy.setId("remedy");
            left.getChildren().add(remedy);
        }
        budget(c.result());
        desk.bench()
                .reduction()
                .circularity(c)
                .ifPresent(remark -> left.getChildren().add(attention(remark)));
        if (c.drawn() != null) {
            left.getChildren().add(attention(c.drawn().remark()));
        }
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
        checks(r);
        lens.refresh();
        right.getChildren().add(lens);
        if (r.session().blind() == null) {
            right.getChildren().add(hide());
        }
    }

    private void checks(Reduction r) {
        right.getChildren().add(Labels.heading("Checks"));
        r.checks().forEach(k -> {
            Label l = Labels.wrapped((k.met().isEmpty() ? "○ " : k.met().get() ? "✓ " : "▲ ")
                    + k.check().label()
                    + (k.met().isEmpty()
                            ? " (not yet to be judged)"
                            : k.met().get() ? "" : ". " + k.check().remedy()));
            l.getStyleClass().add(k.met().isPresent() && !k.met().get() ? "attention" : "plain");
            right.getChildren().add(l);
        });
    }

    private Button hide() {
        Button hide = new Button("Work blind from now on");
        hide.setId("hide-references");
        hide.getStyleClass().add("quiet-button");
        hide.setOnAction(e -> Notices.attempt(
                scroll,
                () -> desk.bench()
                        .apply(new JudgeCommand.HideReferences(
                                desk.bench().clock().instant()))));
        return Labels.explained(
                hide,
                "Hides every reference, here, in the ledger, at Plan and in what leaves the program, until the "
                        + "result is locked");
    }

    /** Blind work: the result with its uncertainty, and no reference in sight until it is locked. */
    private void blind(Reduction r, Sheet.Comparison main) {
        Label what = Labels.heading("The references are hidden");
        left.getChildren()
                .addAll(
                        what,
                        Labels.wrapped("They were hidden at "
                                + CLOCK.format(r.session().blind().since())
                                + ". Choose windows, runs, models and schools by what the data say. When "
                                + "nothing is left to choose, lock the result; then the references are "
                                + "shown, and what was locked stays on record."));
        r.sheet().comparisons().forEach(c -> {
            Label now =
                    Labels.figure(r.quantity(c.result()).map(Object::toString).orElse("—"));
            now.setId("blind-" + c.id());
            Label label = Labels.section(
                    r.sheet().results().containsKey(c.result())
                            ? r.sheet().results().get(c.result()).label()
                            : c.result());
            left.getChildren().add(new HBox(16, label, now));
        });
        Button lock = new Button("Lock the result and show the references");
        lock.setId("lock-results");
        lock.setDisable(r.results().isEmpty());
        lock.setOnAction(e -> Notices.attempt(
                scroll,
                () -> desk.bench()
                        .apply(new JudgeCommand.LockResults(
                                desk.bench().clock().instant(),
                                desk.bench().reduction().results()))));
        Labels.explained(lock, "Writes the result into the notebook as it is now, and shows what it is held against");
        left.getChildren().add(lock);
        r.quantity(main.result()).ifPresent(this::budget);
        said(r);
        checks(r);
    }

    /** What was locked in blind work, and whether the result has moved since. */
    private void locked(Reduction r, Comparison c) {
        Blind b = r.session().blind();
        if (b == null || !b.locked().containsKey(c.id())) {
            return;
        }
        String then = b.locked().get(c.id());
        boolean same = then.equals(c.result().toString());
        Label l = Labels.wrapped(
                "Locked at " + CLOCK.format(b.lockedAt()) + " as " + then + ", before the reference was seen."
                        + (same ? "" : " It has been changed since, to " + c.result() + "."));
        l.setId("locked");
        l.getStyleClass().add(same ? "good" : "attention");
        left.getChildren().add(l);
    }

    /** What the data say in words: routes, candidates, models. */
    private void said(Reduction r) {
        if (r.statements().isEmpty()) {
            return;
        }
        right.getChildren().add(Labels.heading("What the data say"));
        List<Reduction.Said> said = r.statements();
        said.forEach(s -> {
            Label words = Labels.wrapped(s.sentence().orElse(s.problem() == null ? "Nothing yet." : s.problem()));
            words.setId("statement-" + said.indexOf(s));
            VBox box = new VBox(2, Labels.section(s.statement().label()), words);
            if (!s.quantities().isEmpty()) {
                List<ValueRows.Row> rows = s.quantities().stream()
                        .map(q -> new ValueRows.Row(q.label(), q.quantity()))
                        .toList();
                PictureView picture = new PictureView(
                        s.statement().label(), (surface, w, h) -> ValueRows.paint(surface, w, h, "", "", rows));
                picture.setMinHeight(ValueRows.height(rows.size(), false) - 14);
                picture.setPrefHeight(ValueRows.height(rows.size(), false) - 14);
                box.getChildren().add(picture);
            }
            if (!s.bound().isEmpty()) {
                Label bound = Labels.wrapped(s.bound());
                bound.getStyleClass().add("quiet");
                box.getChildren().add(bound);
            }
            right.getChildren().add(box);
        });
    }

    private static String chance(Comparison c) {
        double of100 = 100 * c.chance();
        return "A difference this large or larger would be expected in "
                + (of100 < 1 ? "fewer than 1" : Long.toString(Math.round(of100))) + " of 100 repeats.";
    }

    private static Node needle(Comparison c, School speaks) {
        PictureView view = new PictureView(
                c.label() + ": " + Notation.plain(c.normalised(), 2) + " combined standard uncertainties",
                (s, w, h) -> {
                    double wide = Math.min(w, 470);
                    NeedlePicture.paint(
                            s,
                            c,
                            speaks == School.PERCENT ? School.STANDARD : speaks,
                            (w - wide) / 2,
                            0,
                            wide,
                            h - 44,
                            false);
                    String value = (c.normalised() < 0 ? "−" : "+")
                            + String.format(java.util.Locale.ROOT, "%.2f", Math.abs(c.normalised()));
                    s.text(value, w / 2, h - 24, Surface.Align.CENTRE, Lettering.heading(16), Ink.INK);
                    s.text(
                            "combined standard uncertainties",
                            w / 2,
                            h - 7,
                            Surface.Align.CENTRE,
                            Lettering.text(11.5),
                            Ink.QUIET);
                });
        view.setMinHeight(258);
        view.setPrefHeight(258);
        view.setId("needle");
        return view;
    }

    private void budget(Quantity result) {
        Budget b = Budget.of(result);
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        Label where = Labels.heading("Where the uncertainty comes from");
        where.setMinWidth(Region.USE_PREF_SIZE);
        left.getChildren()
                .add(new HBox(10, where, gap, Labels.quiet("share of variance; A by statistics, B otherwise")));
        if (!b.lines().isEmpty()) {
            Budget.Line first = b.lines().get(0);
            Label largest = Labels.wrapped("Largest: " + first.label() + ". Halve it and u falls from "
                    + Notation.figures(result.u(), 2) + " to " + Notation.figures(first.combinedIfHalved(result.u()), 2)
                    + " " + result.unit().pretty() + ".");
            largest.setId("largest");
            left.getChildren().addAll(largest, wanted(result));
            desk.bench()
                    .reduction()
                    .doubts(result, desk.bench().clock().instant())
                    .forEach(doubt -> left.getChildren().add(attention(doubt)));
        }
        PictureView bars =
                new PictureView("Uncertainty budget", (s, w, h) -> BudgetPicture.paint(s, b, 0, 0, w, MOST_LINES));
        bars.setMinHeight(BudgetPicture.height(b, MOST_LINES));
        bars.setPrefHeight(BudgetPicture.height(b, MOST_LINES));
        left.getChildren().add(bars);
        if (b.lines().size() > MOST_LINES) {
            double rest = b.lines().stream()
                    .skip(MOST_LINES)
                    .mapToDouble(Budget.Line::share)
                    .sum();
            left.getChildren()
                    .add(Labels.quiet("and " + (b.lines().size() - MOST_LINES) + " more, together "
                            + Notation.plain(100 * rest, 2) + " %"));
        }
    }

    /** The cheapest way to a standard uncertainty that is wanted; to half of what it is unless another is written. */
    private HBox wanted(Quantity result) {
        TextField field = new TextField(wanted);
        field.setId("judge-target");
        field.setPrefWidth(112);
        field.setMinWidth(100);
        field.setPromptText("half of it");
        field.setAccessibleText("Standard uncertainty wanted");
        Labels.explained(field, "The standard uncertainty you want: a share such as 0.2 %, or a value with its unit");
        Label says = Labels.wrapped("");
        says.setId("cheapest");
        says.getStyleClass().add("quiet");
        Runnable work = () -> {
            try {
                says.setText(Target.of(
                                result,
                                field.getText().isBlank()
                                        ? result.u() / 2
                                        : Improvements.target(field.getText(), result))
                        .sentence());
                wanted = field.getText();
            } catch (RuntimeException e) {
                says.setText("Write it as a share, 0.2 %, or as a value with a unit that fits "
                        + result.unit().named() + ".");
            }
        };
        field.setOnAction(e -> work.run());
        work.run();
        Label ask = Labels.quiet("u wanted");
        ask.setMinWidth(Region.USE_PREF_SIZE);
        HBox row = new HBox(8, ask, field, says);
        row.setAlignment(Pos.CENTER_LEFT);
        HBox.setHgrow(says, Priority.ALWAYS);
        return row;
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
        Label verdict = new Label(
                s == School.PERCENT
                        ? Double.isNaN(c.percent()) ? "no percentage" : Notation.figures(c.percent(), 2) + " %"
                        : c.agrees(s) ? "agrees" : "does not agree");
        verdict.getStyleClass().add(s == School.PERCENT ? "plain" : c.agrees(s) ? "good" : "attention");
        Label more = Labels.wrapped(
                switch (s) {
                    case STANDARD ->
                        Notation.plusMinus(c.difference().value(), c.coverage().expanded(c.difference())) + " "
                                + c.result().unit().pretty() + " (k = " + Notation.plain(c.factor(), 3) + ")";
                    case LIMITS ->
                        (c.overlap() >= 0 ? "limits overlap by " : "a gap of ")
                                + Notation.plain(Math.abs(c.overlap()), 2) + " "
                                + c.result().unit().pretty() + "; 2 u for a normal input, more for few readings";
                    case PERCENT ->
                        (Double.isNaN(c.threshold())
                                        ? ""
                                        : c.agrees(s)
                                                ? "within the " + Notation.plain(c.threshold(), 3) + " % allowed; "
                                                : "beyond the " + Notation.plain(c.threshold(), 3) + " % allowed; ")
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
        let.setOnAction(e -> desk.bench().apply(new JudgeCommand.ChooseSchool(s)));
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
        PictureView arc = new PictureView(
                c.label(),
                (surface, w, h) -> NeedlePicture.paint(
                        surface, c, s == School.PERCENT ? School.STANDARD : s, 0, 2, w, h - 2, true));
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
